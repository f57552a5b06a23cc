using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class BelowLeastPpi : Resolution
{
    public override FindingKind Kind => FindingKind.BelowLeastPpi;
    public override string Title => "Below the least resolution";
    public override string Mark => "coarse";
    public override string Why => "The pixels of the picture will be seen one by one.";

    internal override IEnumerable<Finding> OfFrame(CheckedFrame frame)
    {
        double least = frame.Profile.LeastPpiIn(frame.Publication.Setup);
        if (frame.Fitted is { } fitted && !IsDrawn(frame) && IsBelow(fitted.Coverage.Ppi, least)) yield return Below(frame, fitted.Coverage.Ppi, least);
    }

    /// <summary>Whether the picture is lines and areas, sharp in every size.</summary>
    internal static bool IsDrawn(CheckedFrame frame) => frame.Image is { Format: "svg" };

    protected override double AskedIn(RemedyContext context) => context.Profile.LeastPpiIn(context.Publication.Setup);
}
