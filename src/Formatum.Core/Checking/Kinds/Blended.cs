using Formatum.Core.Edits;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class Blended : KindCheck
{
    public override FindingKind Kind => FindingKind.Blended;
    public override string Title => "Blended with what lies beneath";
    public override string Mark => "blended";
    public override string Why => "A press mixes inks where a screen mixes light: it prints darker or in other colours than it shows.";

    internal override IEnumerable<Finding> OfFrame(CheckedFrame frame)
    {
        if (frame.Look.Blend != Blend.Normal && !frame.Frame.Hidden) yield return On(frame, "", 1);
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) =>
    [
        new("plain", "Lay it over plainly", publication => publication.Frames.GetValueOrDefault(finding.Part.Id) is { } frame
            ? new GiveLook([frame.Id], frame.Look with { Blend = Blend.Normal }, frame.LookId) : null),
    ];
}
