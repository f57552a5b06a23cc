using Formatum.Core.Geometry;

namespace Formatum.Core.Fitting;

/// <summary>A picture placed in a frame, with its numbers.</summary>
public readonly record struct Fitted(Placement Placement, Coverage Coverage)
{
    /// <summary>Fits and measures. Parameters as of <see cref="Fitter.Place"/>.</summary>
    public static Fitted Of(double width, double height, Outline outline, in Picture picture, in ResolvedFit rule, Vec? subject, in Recrop recrop) =>
        Measure(width, height, outline, picture, Fitter.Place(width, height, outline, picture, rule, subject, recrop), recrop != Recrop.None);

    /// <param name="width">Width of the frame, in points.</param>
    /// <param name="height">Height of the frame, in points.</param>
    /// <param name="outline">The frame's shape.</param>
    /// <param name="picture">The picture, upright.</param>
    /// <param name="placement">Where it lies.</param>
    /// <param name="byHand">Whether a hand had a part in that.</param>
    public static Fitted Measure(double width, double height, Outline outline, in Picture picture, Placement placement, bool byHand)
    {
        var coverage = Coverage.Measure(width, height, outline, picture, placement);
        // Fit and its kin leave bare area by nature; it is worth a flag where the frame should be full, or a hand has moved the picture.
        if (coverage.BareArea > 0 && (placement.Applied == FitKind.Fill || byHand)) placement = placement with { Flags = placement.Flags | FitFlags.BareArea };
        return new(placement, coverage);
    }
}
