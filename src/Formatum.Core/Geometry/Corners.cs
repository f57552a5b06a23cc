namespace Formatum.Core.Geometry;

/// <summary>How a corner is shaped (CSS Borders and Box Decorations 4, "corner-shape").</summary>
public enum CornerKind
{
    /// <summary>An arc that runs into both sides.</summary>
    Round,

    /// <summary>A straight cut.</summary>
    Bevel,

    /// <summary>An arc about the corner itself, hollow.</summary>
    Scoop,

    /// <summary>A step inwards.</summary>
    Notch,
}

/// <summary>How the corners of a rectangle or a polygon are shaped, and how far, in points. A polygon's all have the upper left's radius.</summary>
/// <param name="Kind">The shape.</param>
/// <param name="UpperLeft">The radius of an arc; how far along both sides other shapes cut.</param>
/// <param name="UpperRight">The same for the next corner clockwise.</param>
/// <param name="LowerRight">And the next.</param>
/// <param name="LowerLeft">And the last.</param>
public sealed record Corners(CornerKind Kind, double UpperLeft, double UpperRight, double LowerRight, double LowerLeft)
{
    public const double Largest = Limits.LargestPageSide;

    public static Corners Even(CornerKind kind, double radius) => new(kind, radius, radius, radius, radius);

    /// <summary>Clockwise from the upper left, in points.</summary>
    public double[] Radii() => [UpperLeft, UpperRight, LowerRight, LowerLeft];

    /// <summary>Seen in a mirror, left to right or top to bottom.</summary>
    public Corners Mirrored(bool across) => across ? new(Kind, UpperRight, UpperLeft, LowerLeft, LowerRight)
        : new(Kind, LowerLeft, LowerRight, UpperRight, UpperLeft);

    public bool IsEven => UpperLeft == UpperRight && UpperLeft == LowerRight && UpperLeft == LowerLeft;

    /// <summary>Whether every corner stays as sharp as it is.</summary>
    public bool IsSharp => UpperLeft == 0 && IsEven;
}
