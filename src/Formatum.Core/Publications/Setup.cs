using Formatum.Core.Checks;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;

namespace Formatum.Core.Publications;

/// <summary>Distances from the trim to the type area, in points. Inside is the edge at the fold of facing pages, and the left edge of single ones.</summary>
public readonly record struct Margins(double Top, double Bottom, double Inside, double Outside);

/// <summary>Columns between the margins: how many, and the gutter between them in points.</summary>
public readonly record struct Columns(int Count, double Gutter);

/// <summary>How a publication is set up. Lengths in points.</summary>
public sealed record Setup : Part
{
    /// <summary>A page side is at most 200 inches: the largest a PDF page can have without a scaled unit (ISO 32000-1, Annex C).</summary>
    public const double LargestSide = Limits.LargestPageSide;

    public const double SmallestSide = 5 * Units.PointsPerMillimetre;
    public const double LargestBleed = 100 * Units.PointsPerMillimetre;
    public const int MostPages = 2000, MostColumns = 40, LongestName = 200;

    public required string Name { get; init; }
    public string Edition { get; init; } = "";
    public required double PageWidth { get; init; }
    public required double PageHeight { get; init; }
    public bool Facing { get; init; }

    /// <summary>Whether it is bound on the right and read from right to left.</summary>
    public bool BindsRight { get; init; }

    /// <summary>The page number that the first page bears.</summary>
    public int FirstFolio { get; init; } = 1;

    public double Bleed { get; init; } = 3 * Units.PointsPerMillimetre;
    public Margins Margins { get; init; }
    public Columns Columns { get; init; } = new(1, 0);

    /// <summary>From one line of the baseline grid to the next; 0 for no grid.</summary>
    public double BaselineStep { get; init; }

    /// <summary>Where the grid begins, below the upper edge of the trim.</summary>
    public double BaselineStart { get; init; }

    /// <summary>The finest grid, in points.</summary>
    private const double LeastBaselineStep = 1;

    public LengthUnit Unit { get; init; } = LengthUnit.Millimetre;

    /// <summary>The resolution taken for an image whose file stores none.</summary>
    public double AssumedPpi { get; init; } = 72;

    /// <summary>The effective resolution wanted in print, in ppi. 300 is common practice, no source.</summary>
    public double PrintPpi { get; init; } = 300;

    /// <summary>Below this effective resolution, in ppi, a picture is too coarse to print. 150 is common practice, no source.</summary>
    public double FloorPpi { get; init; } = 150;

    /// <summary>Whether a subject point is suggested for each picture that is brought in.</summary>
    public bool SuggestSubjects { get; init; }

    /// <summary>The rule that everything else rests on; null where only the built-in settings hold.</summary>
    public int? DefaultRuleId { get; init; }

    /// <summary>The paragraph style that all text rests on; null where only the built-in settings hold.</summary>
    public int? DefaultStyleId { get; init; }

    /// <summary>The press it is made for; null for four inks in general.</summary>
    public PressProfile? Press { get; init; }

    /// <summary>How its sheets are folded into panels; null where they are not.</summary>
    public Folding? Folding { get; init; }

    /// <summary>The profile it is checked by; null for Offset.</summary>
    public int? CheckProfileId { get; init; }

    public override PartKey Key => new(PartKind.Setup, 0);

    /// <summary>How an effective resolution stands against this publication's limits.</summary>
    public Sharpness SharpnessOf(double ppi) => Resolutions.Reaches(ppi, PrintPpi) ? Sharpness.Sharp : Resolutions.Reaches(ppi, FloorPpi) ? Sharpness.Soft
        : Sharpness.TooCoarse;

    /// <summary>Whether a page is a right-hand one, by the number it bears. Single pages count as such.</summary>
    public bool IsRecto(int folio) => !Facing || (folio % 2 != 0) != BindsRight;

    /// <summary>The margins of a page, with inside and outside laid left or right.</summary>
    public Box TypeArea(bool recto)
    {
        double left = !Facing || recto ? Margins.Inside : Margins.Outside, right = !Facing || recto ? Margins.Outside : Margins.Inside;
        return new(left, Margins.Top, PageWidth - left - right, PageHeight - Margins.Top - Margins.Bottom);
    }

    /// <summary>The panels of a page, from the left; none where it is not folded.</summary>
    public IEnumerable<Box> PanelsOf(PlacedPage page) => Folding is { } folding && !Facing ? folding.PanelsOf(this, isOutside: page.Number % 2 != 0) : [];

    /// <summary>Where a page is folded, from its left edge, in points.</summary>
    public IEnumerable<double> FoldsOf(PlacedPage page) => PanelsOf(page).Skip(1).Select(p => p.X);

    /// <summary>Where a page's margins let things stand: one place, or one in each of its panels.</summary>
    public IEnumerable<Box> TypeAreas(PlacedPage page) => PanelsOf(page).Select(Within).DefaultIfEmpty(TypeArea(page.Recto));

    /// <summary>What the margins leave of a panel.</summary>
    private Box Within(Box panel) => new(panel.X + Margins.Inside, panel.Y + Margins.Top, panel.Width - Margins.Inside - Margins.Outside,
        panel.Height - Margins.Top - Margins.Bottom);

    /// <summary>The columns of a page, from the left; those of each panel where it is folded.</summary>
    public IEnumerable<Box> ColumnBoxes(PlacedPage page) => TypeAreas(page).SelectMany(ColumnsWithin);

    private IEnumerable<Box> ColumnsWithin(Box area)
    {
        double width = (area.Width - (Columns.Count - 1) * Columns.Gutter) / Columns.Count;
        for (int i = 0; i < Columns.Count; i++)
            yield return new(area.X + i * (width + Columns.Gutter), area.Y, width, area.Height);
    }

    /// <summary>Everything that makes this set-up impossible.</summary>
    public void Check(FieldErrors errors)
    {
        if (string.IsNullOrWhiteSpace(Name)) errors.Add("name", "A publication needs a name. Type one, such as \"Autumn catalog\".");
        errors.Name(Name, LongestName);
        errors.Name(Edition, LongestName, "edition");

        if (FirstFolio is < 1 or > 99_999) errors.Add("firstFolio", "The first page bears a number from 1 to 99,999.");

        string sides = $"A page side lies between {Say(SmallestSide)} and {Say(LargestSide)}, the most a PDF page can have.";
        Length(errors, "page.width", PageWidth, SmallestSide, LargestSide, sides);
        Length(errors, "page.height", PageHeight, SmallestSide, LargestSide, sides);
        Length(errors, "bleed", Bleed, 0, LargestBleed, $"Bleed lies between 0 and {Say(LargestBleed)}; printers usually ask for 3 mm.");
        foreach (var (field, value) in new[]
                 {
                     ("margins.top", Margins.Top), ("margins.bottom", Margins.Bottom), ("margins.inside", Margins.Inside), ("margins.outside", Margins.Outside),
                 })
        {
            Length(errors, field, value, 0, LargestSide, "A margin is 0 or more.");
        }
        if (Columns.Count is < 1 or > MostColumns)
            errors.Add("columns.count", $"{Columns.Count} columns cannot be laid out. Give a number from 1 to {MostColumns}.");
        Length(errors, "columns.gutter", Columns.Gutter, 0, LargestSide, "A gutter is 0 or more.");
        if (BaselineStep != 0)
            Length(errors, "baseline.step", BaselineStep, LeastBaselineStep, LargestSide,
                "The lines of a baseline grid lie 1 point apart or more; 0 for no grid.");
        Length(errors, "baseline.start", BaselineStart, 0, LargestSide, "A baseline grid begins at the upper edge of the page or below.");
        errors.Range("assumedPpi", AssumedPpi, 1, 100_000, "Give a resolution between 1 and 100,000 ppi; 72 is usual.");
        errors.Range("printPpi", PrintPpi, 1, 10_000, "Give a resolution between 1 and 10,000 ppi; 300 is usual for print.");
        errors.Range("floorPpi", FloorPpi, 1, 10_000, "Give a resolution between 1 and 10,000 ppi; 150 is a usual floor.");
        if (FloorPpi > PrintPpi) errors.Add("floorPpi", "The floor lies above the resolution wanted in print. Make it lower.");
        if (Press is { IsPossible: false }) errors.Add("press", "A profile is named by its content. Choose one of those that were brought in.");
        Folding?.Check(errors);
        if (Folding is not null && Facing)
            errors.Add("folding", "A sheet that is folded has no facing pages: each page is one side of it. Let pages lie single, or leave the folds out.");
        if (errors.Any) return;

        var page = new Box(0, 0, PageWidth, PageHeight);
        var narrowest = Folding?.PanelsOf(this, isOutside: false).MinBy(p => p.Width) ?? page;
        if (narrowest.Width < SmallestSide)
        {
            errors.Add("folding.panels", $"The narrowest panel would be {Say(narrowest.Width)} wide. Take fewer panels, or a wider page.");
            return;
        }
        var area = Within(narrowest);
        if (area.Width < 1)
            errors.Add("margins.inside", $"The inside and outside margins together are {Say(Margins.Inside + Margins.Outside)}, and " +
                $"{(Folding is null ? "the page" : "a panel")} is only {Say(narrowest.Width)} wide. Make them narrower, or the page wider.");
        if (area.Height < 1)
            errors.Add("margins.top", $"The top and bottom margins together are {Say(Margins.Top + Margins.Bottom)}, and the page is only " +
                $"{Say(PageHeight)} high. Make them smaller, or the page higher.");
        if (!errors.Any && ColumnsWithin(area).First().Width < 1)
            errors.Add("columns.gutter", $"{Columns.Count} columns with gutters of {Say(Columns.Gutter)} leave no room for text in {Say(area.Width)}. " +
                $"Take fewer columns or a narrower gutter.");
    }

    private void Length(FieldErrors errors, string field, double value, double least, double most, string remedy)
    {
        if (double.IsNaN(value)) errors.Add(field, $"This is not a length. {remedy}");
        else if (value < least || value > most) errors.Add(field, $"{Say(value)} is out of range. {remedy}");
    }

    private string Say(double points) => double.IsFinite(points) ? Units.Text(points, Unit) : "This";
}
