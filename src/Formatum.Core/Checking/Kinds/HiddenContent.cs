using Formatum.Core.Edits;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class HiddenContent : KindCheck
{
    public override FindingKind Kind => FindingKind.HiddenContent;
    public override string Title => "Hidden, with something in it";
    public override string Mark => "hidden";
    public override string Why => "It is not printed, and may have been forgotten.";

    internal override IEnumerable<Finding> OfFrame(CheckedFrame frame)
    {
        if (frame.Frame.Hidden && !frame.Publication.IsEmpty(frame.Frame)) yield return On(frame, "", 1);
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) =>
    [
        new("show", "Show it", _ => new ChangeFrames { FrameIds = [finding.Part.Id], Hidden = false }),
        new("remove", "Remove the frame", _ => new RemoveFrames([finding.Part.Id])),
    ];
}
