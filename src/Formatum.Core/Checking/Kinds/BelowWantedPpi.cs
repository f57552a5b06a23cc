using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class BelowWantedPpi : Resolution
{
    public override FindingKind Kind => FindingKind.BelowWantedPpi;
    public override string Title => "Below the wanted resolution";
    public override string Mark => "soft";
    public override string Why => "The picture will look softer than those beside it.";

    internal override IEnumerable<Finding> OfFrame(CheckedFrame frame)
    {
        var setup = frame.Publication.Setup;
        if (frame.Fitted is { Coverage.Ppi: var ppi } && !BelowLeastPpi.IsDrawn(frame) && IsBelow(ppi, frame.Profile.WantedPpiIn(setup))
            && !IsBelow(ppi, frame.Profile.LeastPpiIn(setup)))
            yield return Below(frame, ppi, frame.Profile.WantedPpiIn(setup));
    }

    protected override double AskedIn(RemedyContext context) => context.Profile.WantedPpiIn(context.Publication.Setup);
}
