using Formatum.Core.Geometry;

namespace Formatum.Core.Fitting;

/// <summary>The numbers that matter about a placed picture.</summary>
/// <param name="CropLoss">Share of the picture's area hidden by the frame, 0 to 1.</param>
/// <param name="BareArea">Share of the frame's area with no picture on it, 0 to 1.</param>
/// <param name="PpiX">Effective resolution along the image's horizontal axis: stored ppi / scale.</param>
/// <param name="PpiY">Effective resolution along the image's vertical axis.</param>
/// <param name="Distortion">Horizontal scale over vertical scale; 1 where proportions are kept.</param>
public readonly record struct Coverage(double CropLoss, double BareArea, double PpiX, double PpiY, double Distortion)
{
    /// <summary>The effective resolution to quote: the lower of the two.</summary>
    public double Ppi => Math.Min(PpiX, PpiY);

    /// <summary>Measures on the frame's true outline, curves flattened to <see cref="Outline.Tolerance"/>.</summary>
    public static Coverage Measure(double width, double height, Outline outline, in Picture picture, in Placement placement)
    {
        var m = placement.Matrix;
        double frameArea = outline.Area(width, height), imageArea = Math.Abs(m.Determinant), shared;
        if (outline is RectangleOutline && ((m.B == 0 && m.C == 0) || (m.A == 0 && m.D == 0)))
        {
            Vec p = m.Apply(new(0, 0)), q = m.Apply(new(1, 1));
            shared = Box.Between(p, q).Intersect(new(0, 0, width, height)).Area;
        }
        else
        {
            Span<Vec> image = [m.Apply(new(0, 0)), m.Apply(new(1, 0)), m.Apply(new(1, 1)), m.Apply(new(0, 1))];
            shared = PolygonMeasure.SharedArea(outline.Flatten(width, height).AsSpan(), image, outline.IsCrossing);
        }
        return new(
            Share(imageArea - shared, imageArea), Share(frameArea - shared, frameArea),
            picture.PpiX / placement.ScaleX, picture.PpiY / placement.ScaleY, placement.ScaleX / placement.ScaleY);
    }

    /// <summary>A share of 0 to 1, without the dust that rounding leaves.</summary>
    private static double Share(double part, double whole)
    {
        if (!(whole > 0)) return 0;
        double share = part / whole;
        return share < 1e-9 ? 0 : Math.Min(1, share);
    }
}
