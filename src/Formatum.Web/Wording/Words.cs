using System.Globalization;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Web.Wording;

/// <summary>Figures and names as people read them.</summary>
public static class Words
{
    private const string Times = "\u00d7";

    public static string Name(FitKind fit) => fit switch
    {
        FitKind.Natural => "Natural size",
        FitKind.Shrink => "Shrink only",
        FitKind.Width => "To width",
        FitKind.Height => "To height",
        FitKind.FillOrFit => "Fill or fit",
        _ => fit.ToString(),
    };

    public static string Size(double width, double height, LengthUnit unit) => unit == LengthUnit.Pica
        ? $"{Units.Text(width, unit)} {Times} {Units.Text(height, unit)}"
        : $"{Short(width, unit)} {Times} {Short(height, unit)} {Units.Symbol(unit)}";

    /// <summary>A length without its unit, to the precision the eye can use.</summary>
    private static string Short(double points, LengthUnit unit) =>
        (points / Units.PointsPer(unit)).ToString(unit == LengthUnit.Inch ? "0.###" : "0.#", CultureInfo.InvariantCulture);

    public static string Pixels(LinkedImage image) => $"{image.WidthPx} {Times} {image.HeightPx} px";

    /// <summary>The ratio in small whole numbers where one is within 1 %, else to one: "3:2", "1.47:1".</summary>
    public static string Ratio(double width, double height)
    {
        double ratio = width / height;
        for (int q = 1; q <= 16; q++)
        {
            int p = (int)Math.Round(ratio * q);
            if (p is >= 1 and <= 16 && Math.Abs((double)p / q / ratio - 1) < 0.01) return $"{p}:{q}";
        }
        return ratio >= 1 ? $"{ratio.ToString("0.##", CultureInfo.InvariantCulture)}:1" : $"1:{(1 / ratio).ToString("0.##", CultureInfo.InvariantCulture)}";
    }

    public static string Percent(double share) => share is > 0 and < 0.001 ? "< 0.1 %" : (share * 100).ToString("0.#", CultureInfo.InvariantCulture) + " %";

    public static string Ppi(double ppi) => ppi.ToString(ppi < 10 ? "0.##" : "0", CultureInfo.InvariantCulture) + " ppi";

    /// <summary>Both axes where they differ by a whole ppi.</summary>
    public static string Ppi(double x, double y) => Math.Round(x) == Math.Round(y)
        ? Ppi(x) : $"{x.ToString("0", CultureInfo.InvariantCulture)} {Times} {y.ToString("0", CultureInfo.InvariantCulture)} ppi";

    /// <summary>The scale; both and their relation where the picture is out of its proportions.</summary>
    public static string Scale(in Placement placement, in Coverage coverage) => placement.Flags.HasFlag(FitFlags.Stretched)
        ? $"{Percent(placement.ScaleX)} {Times} {Percent(placement.ScaleY)} (stretched {coverage.Distortion.ToString("0.##", CultureInfo.InvariantCulture)})"
            : Percent(placement.ScaleX);

    /// <summary>How a placed picture came to lie otherwise than its fit asks, in sentences.</summary>
    public static IEnumerable<string> Notes(Placement placement)
    {
        if (placement.Flags.HasFlag(FitFlags.NoFitBox)) yield return "The insets leave no room: natural size";
        if (placement.Flags.HasFlag(FitFlags.HeldBack)) yield return "A limit keeps it smaller than its fit asks";
    }

    public static string Name(Sharpness sharpness) => sharpness switch { Sharpness.Sharp => "sharp", Sharpness.Soft => "soft", _ => "too coarse" };

    /// <summary>A sign that goes with the word, never alone.</summary>
    public static string Mark(Sharpness sharpness) => sharpness switch { Sharpness.Sharp => "\u2713", Sharpness.Soft => "\u25b3", _ => "\u25b2" };

    public static string Resolution(LinkedImage image) => image.StoredPpiX is { } x
        ? Ppi(x, image.StoredPpiY ?? x) : "no resolution stored";

    public static string Bytes(long bytes) => bytes >= 1 << 20
        ? (bytes / 1048576.0).ToString("0.#", CultureInfo.InvariantCulture) + " MB" : Math.Max(1, bytes >> 10).ToString(CultureInfo.InvariantCulture) + " KB";

    public static string Count(int n, string one, string? many = null) => $"{n.ToString(CultureInfo.InvariantCulture)} {(n == 1 ? one : many ?? one + "s")}";
}
