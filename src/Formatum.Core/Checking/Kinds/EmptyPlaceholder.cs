using Formatum.Core.Edits;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class EmptyPlaceholder : KindCheck
{
    public override FindingKind Kind => FindingKind.EmptyPlaceholder;
    public override string Title => "Placeholder empty";
    public override string Mark => "empty";
    public override string Why => "A picture was meant to stand here.";

    internal override IEnumerable<Finding> OfFrame(CheckedFrame frame)
    {
        // A frame that has a background and no rule is an area of colour.
        bool isPanel = frame.Look.Background is not null && frame.Frame.RuleId is null;
        if (frame.Frame.IsPlaceholder && !frame.IsOnMaster && !isPanel) yield return On(frame, "", 1);
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding)
    {
        int id = finding.Part.Id;
        if (!context.Publication.Tray.ImageIds.IsEmpty)
            yield return new("fromTray", "Place the next picture of the tray",
                publication => publication.Tray.ImageIds is [var next, ..] ? new PlaceFromTray(id, next) : null);
        yield return new("remove", "Remove the placeholder", _ => new RemoveFrames([id]));
    }
}
