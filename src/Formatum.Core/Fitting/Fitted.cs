using Formatum.Core.Geometry;

namespace Formatum.Core.Fitting;

/// <summary>A picture placed in a frame, with its numbers.</summary>
/// <param name="Placement">Where it lies.</param>
/// <param name="Coverage">What of it and of the frame is seen.</param>
public readonly record struct Fitted(Placement Placement, Coverage Coverage)
{
    /// <summary>The share of the frame, 0 to 1, that its insets keep free: bare as it is wanted.</summary>
    public double BareByInset { get; init; }

    /// <summary>The share of the frame, 0 to 1, that is bare without its insets asking for it.</summary>
    public double BareUnasked => Math.Max(0, Coverage.BareArea - BareByInset);

    /// <summary>Less is dust that rounding leaves.</summary>
    private const double Hair = 1e-9;

    /// <summary>Fits and measures. Parameters as of <see cref="Fitter.Place"/>.</summary>
    public static Fitted Of(double width, double height, Outline outline, in Picture picture, in ResolvedFit rule, Vec? subject, in Recrop recrop) =>
        Measure(width, height, outline, picture, Fitter.Place(width, height, outline, picture, rule, subject, recrop), rule, recrop != Recrop.None);

    /// <param name="width">Width of the frame, in points.</param>
    /// <param name="height">Height of the frame, in points.</param>
    /// <param name="outline">The frame's shape.</param>
    /// <param name="picture">The picture, upright.</param>
    /// <param name="placement">Where it lies.</param>
    /// <param name="rule">What it is fitted by, for its insets.</param>
    /// <param name="byHand">Whether a hand had a part in that.</param>
    public static Fitted Measure(double width, double height, Outline outline, in Picture picture, Placement placement, in ResolvedFit rule, bool byHand)
    {
        var fitted = new Fitted(placement, Coverage.Measure(width, height, outline, picture, placement))
        {
            BareByInset = InsetShare(width, height, outline,
            rule)
        };
        // Fit and its kin leave bare area by nature; it is worth a flag where the frame should be full, or a hand has moved the picture.
        bool worthAFlag = fitted.BareUnasked > Hair && (placement.Applied == FitKind.Fill || byHand);
        return worthAFlag ? fitted with { Placement = placement with { Flags = placement.Flags | FitFlags.BareArea } } : fitted;
    }

    private static double InsetShare(double width, double height, Outline outline, in ResolvedFit rule)
    {
        if (rule.Inset == default) return 0;
        var box = rule.FitBox(width, height);
        double area = outline.Area(width, height);
        if (box.Width <= 0 || box.Height <= 0 || area <= 0) return 0;
        Span<Vec> corners = [new(box.X, box.Y), new(box.Right, box.Y), new(box.Right, box.Bottom), new(box.X, box.Bottom)];
        return Math.Max(0, 1 - PolygonMeasure.SharedArea(outline.Flatten(width, height).AsSpan(), corners, outline.IsCrossing) / area);
    }
}
