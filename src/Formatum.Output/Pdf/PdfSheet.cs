using Formatum.Core.Checks;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Output.Pdf;

/// <summary>What pages are printed on; all in points.</summary>
/// <param name="Bleed">How far beyond the trim is printed.</param>
/// <param name="MarkStart">How far from the trim marks begin.</param>
/// <param name="Border">How far the sheet reaches beyond the trim.</param>
/// <param name="Width">Of the trim.</param>
/// <param name="Height">Of the trim.</param>
internal readonly record struct PdfSheet(double Bleed, double MarkStart, double Border, double Width, double Height)
{
    /// <summary>Marks are 5 mm long: common practice, no source.</summary>
    public const double MarkLength = 5 * Units.PointsPerMillimetre;

    /// <summary>The whole sheet, from its lower left.</summary>
    public Box Media => new(0, 0, Width + 2 * Border, Height + 2 * Border);

    /// <summary>The trimmed page on it.</summary>
    public Box Trim => new(Border, Border, Width, Height);

    /// <param name="setup">The publication's.</param>
    /// <param name="options">What is wanted.</param>
    /// <param name="width">Of the trim.</param>
    /// <param name="height">Of the trim.</param>
    /// <param name="measured">Whether it is held to what a page of a PDF can be.</param>
    /// <exception cref="EditRefused">It would be larger.</exception>
    public static PdfSheet Of(Setup setup, PdfOptions options, double width, double height, bool measured = true)
    {
        double bleed = options.Bleed ? setup.Bleed : 0, markStart = Math.Max(bleed, options.Marks.Offset);
        double border = options.Marks.Any ? markStart + MarkLength : bleed;
        var sheet = new PdfSheet(bleed, markStart, border, width, height);
        double longest = Math.Max(sheet.Media.Width, sheet.Media.Height);
        string what = options.Marks.Any ? "the marks" : options.Spreads && bleed == 0 ? "both pages" : "the bleed";
        return !measured || longest <= Setup.LargestSide ? sheet
            : throw new EditRefused("marks", $"With {what} the sheet would be {Units.Text(longest, setup.Unit)}; " +
                $"{Units.Text(Setup.LargestSide, setup.Unit)} (200 inches) is the most a PDF page can have. Leave {what} out, or make the page smaller.");
    }
}
