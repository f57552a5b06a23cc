using Formatum.Core.Geometry;

namespace Formatum.Core.Fitting;

/// <summary>What fitting knows of an image: its pixels as they stand upright, and its resolution along each of those axes.</summary>
public readonly record struct Picture(double WidthPx, double HeightPx, double PpiX, double PpiY)
{
    /// <summary>Width at scale 1, in points.</summary>
    public double NaturalWidth => WidthPx * Units.PointsPerInch / PpiX;

    /// <summary>Height at scale 1, in points.</summary>
    public double NaturalHeight => HeightPx * Units.PointsPerInch / PpiY;

    /// <summary>The picture as it stands upright, from the sizes stored in its file. Orientations 5 to 8 swap the axes (EXIF 2.3, tag 274).</summary>
    public static Picture FromStored(double widthPx, double heightPx, double ppiX, double ppiY, int orientation) =>
        Orientation.SwapsAxes(orientation) ? new(heightPx, widthPx, ppiY, ppiX) : new(widthPx, heightPx, ppiX, ppiY);
}
