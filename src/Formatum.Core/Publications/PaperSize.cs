using System.Collections.Immutable;
using Formatum.Core.Geometry;

namespace Formatum.Core.Publications;

/// <summary>A page size with a name of its own, upright; width and height in points.</summary>
public sealed record PaperSize(string Name, double Width, double Height)
{
    /// <summary>
    /// The A and B series of ISO 216, whole millimetres, and the North American loose sizes of ANSI/ASME Y14.1 (Letter, Tabloid) and of
    /// trade custom (Legal), in inches.
    /// </summary>
    public static readonly ImmutableArray<PaperSize> All =
    [
        Metric("A0", 841, 1189), Metric("A1", 594, 841), Metric("A2", 420, 594), Metric("A3", 297, 420), Metric("A4", 210, 297),
        Metric("A5", 148, 210), Metric("A6", 105, 148), Metric("A7", 74, 105), Metric("A8", 52, 74),
        Metric("B3", 353, 500), Metric("B4", 250, 353), Metric("B5", 176, 250), Metric("B6", 125, 176),
        Inches("Letter", 8.5, 11), Inches("Legal", 8.5, 14), Inches("Tabloid", 11, 17),
    ];

    /// <summary>The unit that it is given in.</summary>
    public LengthUnit Unit => Name is "Letter" or "Legal" or "Tabloid" ? LengthUnit.Inch : LengthUnit.Millimetre;

    public static PaperSize? Named(string? name) => All.FirstOrDefault(s => string.Equals(s.Name, name?.Trim(), StringComparison.OrdinalIgnoreCase));

    /// <summary>The size with a name that a page of these measures has, either way up, within 0.01 pt.</summary>
    public static PaperSize? Of(double width, double height) => All.FirstOrDefault(s =>
        Math.Abs(s.Width - Math.Min(width, height)) < 0.01 && Math.Abs(s.Height - Math.Max(width, height)) < 0.01);

    private static PaperSize Metric(string name, double width, double height) => new(name, Units.Millimetres(width), Units.Millimetres(height));

    private static PaperSize Inches(string name, double width, double height) => new(name, width * Units.PointsPerInch, height * Units.PointsPerInch);
}
