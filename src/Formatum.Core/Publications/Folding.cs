using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Geometry;

namespace Formatum.Core.Publications;

/// <summary>How a sheet is folded into panels. The names are those of the trade.</summary>
public enum FoldKind
{
    /// <summary>Once, in the middle.</summary>
    Half,

    /// <summary>Rolled in: of three panels the letter fold, or tri-fold. Each panel that lies further in is narrower.</summary>
    Roll,

    /// <summary>Zigzag: all panels alike.</summary>
    Accordion,

    /// <summary>Two flaps that meet over a middle twice as wide.</summary>
    Gate,
}

/// <summary>A sheet that is folded, all its folds upright. Each page of the publication is one side of a sheet: the first the
/// outside, the second the inside.</summary>
public sealed record Folding
{
    public const int LeastPanels = 3, MostPanels = 8;
    public const double MostNarrower = 20 * Units.PointsPerMillimetre;

    public FoldKind Kind { get; init; } = FoldKind.Roll;

    /// <summary>How many panels, where the kind lets one choose: rolled in or zigzag.</summary>
    public int Panels { get; init; } = 3;

    /// <summary>How much narrower a panel is than the one it lies in, and how far flaps stay apart, in points. 2 mm is common practice, no source.</summary>
    public double Narrower { get; init; } = 2 * Units.PointsPerMillimetre;

    public bool IsCounted => Kind is FoldKind.Roll or FoldKind.Accordion;

    /// <summary>How wide the panels are on the inside, from the left, in points. They add up to the sheet.</summary>
    /// <param name="sheet">How wide the sheet is, trimmed.</param>
    public ImmutableArray<double> Widths(double sheet)
    {
        switch (Kind)
        {
            case FoldKind.Half: return [sheet / 2, sheet / 2];
            case FoldKind.Accordion: return [.. Enumerable.Repeat(sheet / Panels, Panels)];
            case FoldKind.Gate:
                // Two flaps f and a middle m: the flaps stay apart by d, 2 f + d = m, and 2 f + m = sheet.
                double middle = (sheet + Narrower) / 2, flap = (sheet - Narrower) / 4;
                return [flap, middle, flap];
            default:
                // The first two are alike, each further one narrower by d: n w - d (1 + 2 + ... + (n - 2)) = sheet.
                double widest = (sheet + Narrower * (Panels - 1) * (Panels - 2) / 2) / Panels;
                return [.. Enumerable.Range(0, Panels).Select(i => widest - Narrower * Math.Max(0, i - 1))];
        }
    }

    /// <summary>The panels of a side as one looks at it, from the left.</summary>
    /// <param name="setup">Whose sheet.</param>
    /// <param name="isOutside">Whether it is the outside, where all lies the other way round.</param>
    public IEnumerable<Box> PanelsOf(Setup setup, bool isOutside)
    {
        var widths = Widths(setup.PageWidth);
        // Read from right to left, what folds in last lies on the left.
        if (isOutside != setup.BindsRight) widths = [.. widths.Reverse()];
        double x = 0;
        foreach (double width in widths)
        {
            yield return new(x, 0, width, setup.PageHeight);
            x += width;
        }
    }

    public void Check(FieldErrors errors)
    {
        errors.Choice("folding.kind", Kind);
        if (IsCounted && Panels is < LeastPanels or > MostPanels)
            errors.Add("folding.panels", $"{Panels} panels cannot be folded. Give a number from {LeastPanels} to {MostPanels}.");
        errors.Length("folding.narrower", Narrower, 0, MostNarrower, "A panel that folds in is narrower by 0 to 20 mm; 1 to 3 mm is usual.");
    }
}
