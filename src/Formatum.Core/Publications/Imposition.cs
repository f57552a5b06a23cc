using Formatum.Core.Checks;
using Formatum.Core.Geometry;

namespace Formatum.Core.Publications;

/// <summary>How pages come to lie on larger sheets.</summary>
public enum ImpositionKind
{
    /// <summary>Not at all: a sheet for each page.</summary>
    None,

    /// <summary>Sheets of four pages, folded once, laid into each other and stitched through the fold.</summary>
    Booklet,

    /// <summary>Several pages side by side, in order.</summary>
    Several,

    /// <summary>Several stacks side by side: once cut, they are laid upon each other, and the pages are in order.</summary>
    CutAndStack,
}

/// <summary>How pages are laid on sheets; lengths in points.</summary>
public sealed record Imposition
{
    public static readonly Imposition None = new();

    public const int MostAcross = 20;

    public static readonly double WidestGutter = Units.Millimetres(100), MostCreep = Units.Millimetres(30);

    public ImpositionKind Kind { get; init; }

    /// <summary>Pages side by side; a booklet has two.</summary>
    public int Across { get; init; } = 2;

    /// <summary>Pages one above the other; a booklet has one.</summary>
    public int Down { get; init; } = 1;

    /// <summary>The sheet; 0 for one as large as is needed.</summary>
    public double SheetWidth { get; init; }
    public double SheetHeight { get; init; }

    /// <summary>Room between pages, to be cut away; none at the fold of a booklet.</summary>
    public double Gutter { get; init; }

    /// <summary>How far the innermost sheet of a booklet would stand out at the fore edge: from the outermost to it, pages are moved towards the fold by as
    /// much, in equal steps.</summary>
    public double Creep { get; init; }

    public void Check(FieldErrors errors)
    {
        errors.Choice("imposition.kind", Kind);
        errors.Range("imposition.across", Across, 1, MostAcross, "From 1 to 20 pages lie side by side.");
        errors.Range("imposition.down", Down, 1, MostAcross, "From 1 to 20 pages lie one above the other.");
        errors.Length("imposition.gutter", Gutter, 0, WidestGutter, "Between pages lie 0 to 100 mm.");
        errors.Length("imposition.creep", Creep, 0, MostCreep, "Creep is from 0 to 30 mm; a tenth of a millimetre for each sheet is usual.");
        foreach (double side in new[] { SheetWidth, SheetHeight })
            errors.Length("imposition.sheet", side, 0, Setup.LargestSide, "A sheet is at most 200 inches long and wide: the most a PDF page can have.");
        if (SheetWidth > 0 != SheetHeight > 0) errors.Add("imposition.sheet", "A sheet has a width and a height. Give both, or neither.");
    }
}
