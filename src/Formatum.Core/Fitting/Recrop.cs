using Formatum.Core.Geometry;

namespace Formatum.Core.Fitting;

/// <summary>
/// A hand correction, kept relative to the rule and the picture so that it survives every refit.
/// </summary>
/// <param name="Zoom">Multiplies the scale the rule gives; above 0.</param>
/// <param name="Point">The point of the image, in fractions of it, that is put on the alignment point; null leaves that to the subject point.</param>
/// <param name="ZoomY">The zoom along the image's vertical axis, where it was unlinked from the horizontal one; null keeps proportions.</param>
/// <param name="Turn">Degrees, clockwise, that the image is turned by beyond the rule's rotation.</param>
/// <param name="Grown">By how much of the zoom a turn enlarged the picture to leave nothing bare; turning back gives it back. Null for none.</param>
public readonly record struct Recrop(double Zoom, Vec? Point, double? ZoomY = null, double Turn = 0, double? Grown = null)
{
    public const double SmallestZoom = 0.01, LargestZoom = 100;

    public static readonly Recrop None = new(1, null);

    /// <summary>The zoom along the image's vertical axis.</summary>
    public double ZoomDown => ZoomY ?? Zoom;

    /// <summary>The same of a picture that was flipped: it is turned the other way.</summary>
    public Recrop Mirrored() => this with { Turn = -Turn + 0.0 };

    /// <summary>Whether the picture was taken by hand out of its proportions.</summary>
    public bool IsUnlinked => ZoomY is { } down && down != Zoom;
}

/// <summary>A hand correction that was let go, and can be had back.</summary>
/// <param name="Recrop">What it was.</param>
/// <param name="OfAnotherPicture">Whether it was made for a picture that went.</param>
public sealed record FormerRecrop(Recrop Recrop, bool OfAnotherPicture);
