namespace Formatum.Core.Geometry;

/// <summary>How small and how large things may be.</summary>
public static class Limits
{
    /// <summary>Nothing is narrower or lower, in points: a thousandth of a millimetre.</summary>
    public const double SmallestSide = 0.001 * Units.PointsPerMillimetre;

    /// <summary>A page side is at most 200 inches, in points: the largest a PDF page can have without a scaled unit (ISO 32000-1, Annex C).</summary>
    public const double LargestPageSide = 14_400;
}
