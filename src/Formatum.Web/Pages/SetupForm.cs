using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Desk;
using Formatum.Web.Wording;

namespace Formatum.Web.Pages;

/// <summary>A set-up as it is typed: text, so that nothing typed is lost however wrong it is.</summary>
public sealed class SetupForm
{
    public const string OwnSize = "own";

    public string? Name { get; set; }
    public string? Edition { get; set; }
    public string? Size { get; set; } = "A4";
    public bool Sideways { get; set; }
    public string? Width { get; set; } = "210 mm";
    public string? Height { get; set; } = "297 mm";
    public bool Facing { get; set; } = true;
    public string? Pages { get; set; } = "8";
    public string? FirstFolio { get; set; } = "1";
    public bool BindsRight { get; set; }
    public string? Top { get; set; } = "15 mm";
    public string? Bottom { get; set; } = "18 mm";
    public string? Inside { get; set; } = "18 mm";
    public string? Outside { get; set; } = "14 mm";
    public string? Columns { get; set; } = "3";
    public string? Gutter { get; set; } = "5 mm";
    public string? Bleed { get; set; } = "3 mm";

    /// <summary>How sheets are folded; null for not at all.</summary>
    public FoldKind? Fold { get; set; }
    public string? Panels { get; set; } = "3";
    public string? Narrower { get; set; } = "2 mm";
    public string? BaselineStep { get; set; } = "0";
    public string? BaselineStart { get; set; } = "0";
    public LengthUnit Unit { get; set; } = LengthUnit.Millimetre;
    public string? AssumedPpi { get; set; } = "72";
    public string? PrintPpi { get; set; } = "300";
    public string? FloorPpi { get; set; } = "150";
    public bool SuggestSubjects { get; set; }

    /// <summary>For a new publication: the one whose house style it begins with; null for the usual start.</summary>
    public int? HouseFrom { get; set; }

    /// <summary>What frames do when pages change.</summary>
    public FramesAtResize Frames { get; set; } = FramesAtResize.Scale;

    /// <summary>What the change does was looked at, and is wanted.</summary>
    public bool Sure { get; set; }

    /// <summary>The publication's revision when the form was opened.</summary>
    public long Seen { get; set; }

    /// <summary>What a new publication begins with in each unit: round figures, as printers and designers use them (common practice, no source).</summary>
    private static readonly Dictionary<LengthUnit, string[]> Usual = new()
    {
        [LengthUnit.Millimetre] = ["15 mm", "18 mm", "18 mm", "14 mm", "5 mm", "3 mm", "2 mm"],
        [LengthUnit.Inch] = ["0.625 in", "0.75 in", "0.75 in", "0.5 in", "0.2 in", "0.125 in", "0.0625 in"],
    };

    /// <summary>Gives the lengths of a new publication in a unit: what nobody changed as is usual there, what was typed as long as it is.</summary>
    public void TakeUnit(LengthUnit unit)
    {
        if (unit == Unit || !Usual.TryGetValue(unit, out string[]? there)) return;
        var before = Unit;
        string?[] now = [Top, Bottom, Inside, Outside, Gutter, Bleed, Narrower];
        for (int i = 0; i < now.Length; i++)
        {
            if (Usual.TryGetValue(before, out string[]? usual) && now[i] == usual[i]) now[i] = there[i];
            else if (Units.TryParse(now[i], before, out double points)) now[i] = Units.Text(points, unit);
        }
        (Top, Bottom, Inside, Outside, Gutter, Bleed, Narrower, Unit) = (now[0], now[1], now[2], now[3], now[4], now[5], now[6], unit);
    }

    public static SetupForm Of(Standing standing)
    {
        var publication = standing.Publication;
        var s = publication.Setup;
        string Text(double points) => Units.Text(points, s.Unit);
        var paper = PaperSize.Of(s.PageWidth, s.PageHeight);
        return new()
        {
            Name = s.Name,
            Edition = s.Edition,
            Size = paper?.Name ?? OwnSize,
            Sideways = paper is not null && s.PageWidth > s.PageHeight,
            Width = Text(s.PageWidth),
            Height = Text(s.PageHeight),
            Facing = s.Facing,
            FirstFolio = s.FirstFolio.ToString(CultureInfo.InvariantCulture),
            BindsRight = s.BindsRight,
            Pages = publication.PageCount.ToString(CultureInfo.InvariantCulture),
            Top = Text(s.Margins.Top),
            Bottom = Text(s.Margins.Bottom),
            Inside = Text(s.Margins.Inside),
            Outside = Text(s.Margins.Outside),
            Columns = s.Columns.Count.ToString(CultureInfo.InvariantCulture),
            Gutter = Text(s.Columns.Gutter),
            Bleed = Text(s.Bleed),
            Fold = s.Folding?.Kind,
            Panels = (s.Folding ?? new()).Panels.ToString(CultureInfo.InvariantCulture),
            Narrower = Text((s.Folding ?? new()).Narrower),
            BaselineStep = Text(s.BaselineStep),
            BaselineStart = Text(s.BaselineStart),
            Unit = s.Unit,
            AssumedPpi = s.AssumedPpi.ToString(CultureInfo.InvariantCulture),
            PrintPpi = s.PrintPpi.ToString(CultureInfo.InvariantCulture),
            FloorPpi = s.FloorPpi.ToString(CultureInfo.InvariantCulture),
            SuggestSubjects = s.SuggestSubjects,
            Seen = standing.Revision,
        };
    }

    /// <summary>Reads what was typed; what cannot be read is told in <paramref name="errors"/> under the automation interface's field names.</summary>
    /// <param name="over">The set-up to keep what the form does not ask for from; null for a new publication.</param>
    /// <param name="count">How many pages there are.</param>
    /// <param name="errors">Takes what is wrong.</param>
    public (Setup Setup, int Pages) Read(Setup? over, int? count, FieldErrors errors)
    {
        double Read(string field, string? text, double? stored) => Length(field, text, stored, over?.Unit ?? Unit, errors);
        double width, height;
        if (Size == OwnSize)
        {
            width = Read("page.width", Width, over?.PageWidth);
            height = Read("page.height", Height, over?.PageHeight);
        }
        else
        {
            var paper = PaperSize.Named(Size);
            if (paper is null) errors.Add("page.size", "Choose one of the sizes, or give your own.");
            (width, height) = paper is null ? (1000, 1000) : Sideways ? (paper.Height, paper.Width) : (paper.Width, paper.Height);
        }
        var setup = (over ?? new Setup { Name = "", PageWidth = 0, PageHeight = 0 }) with
        {
            Name = Name?.Trim() ?? "",
            Edition = Edition?.Trim() ?? "",
            PageWidth = width,
            PageHeight = height,
            Facing = Facing,
            FirstFolio = Whole("firstFolio", FirstFolio, over?.FirstFolio, errors, mayBeNegative: true),
            BindsRight = BindsRight,
            Bleed = Read("bleed", Bleed, over?.Bleed),
            Margins = new(Read("margins.top", Top, over?.Margins.Top), Read("margins.bottom", Bottom, over?.Margins.Bottom),
                Read("margins.inside", Inside, over?.Margins.Inside), Read("margins.outside", Outside, over?.Margins.Outside)),
            Columns = new(Whole("columns.count", Columns, over?.Columns.Count, errors), Read("columns.gutter", Gutter, over?.Columns.Gutter)),
            Folding = Fold is { } kind ? ReadFolding(kind, over?.Folding, Read, errors) : null,
            BaselineStep = Read("baseline.step", BaselineStep, over?.BaselineStep),
            BaselineStart = Read("baseline.start", BaselineStart, over?.BaselineStart),
            Unit = Enum.IsDefined(Unit) ? Unit : LengthUnit.Millimetre,
            AssumedPpi = Resolution("assumedPpi", AssumedPpi, over?.AssumedPpi, errors),
            PrintPpi = Resolution("printPpi", PrintPpi, over?.PrintPpi, errors),
            FloorPpi = Resolution("floorPpi", FloorPpi, over?.FloorPpi, errors),
            SuggestSubjects = SuggestSubjects,
        };
        int pages = Whole("pages", Pages, count, errors);
        if (!errors.Any)
        {
            setup.Check(errors);
            if (pages is < 1 or > Setup.MostPages) errors.Add("pages", $"{pages} pages cannot be made. Give a number from 1 to {Setup.MostPages}.");
        }
        return (setup, pages);
    }

    private Folding ReadFolding(FoldKind kind, Folding? over, Func<string, string?, double?, double> read, FieldErrors errors)
    {
        var folding = new Folding { Kind = kind };
        // What the kind does not ask for is not looked at.
        if (folding.IsCounted) folding = folding with { Panels = Whole("folding.panels", Panels, over?.Panels, errors) };
        return kind is FoldKind.Roll or FoldKind.Gate ? folding with { Narrower = read("folding.narrower", Narrower, over?.Narrower) } : folding;
    }

    /// <summary>A length as typed; what stands there as it was shown is what it was, to the last digit.</summary>
    private double Length(string field, string? text, double? stored, LengthUnit shownIn, FieldErrors errors)
    {
        if (stored is { } kept && text == Units.Text(kept, shownIn)) return kept;
        return SettingText.Length(field, text, Unit, stored ?? 0, false, errors) ?? 0;
    }

    private static int Whole(string field, string? text, int? stored, FieldErrors errors, bool mayBeNegative = false)
    {
        if (FigureText.Whole(text, stored ?? 0, mayBeNegative) is { } value) return value;
        errors.Add(field, $"\u201c{text}\u201d is not a whole number. Type one, such as 8.");
        return 1;
    }

    private static double Resolution(string field, string? text, double? stored, FieldErrors errors)
    {
        if (FigureText.Read(text, stored ?? 0, sign: "ppi") is { } value) return value;
        errors.Add(field, $"\u201c{text}\u201d is not a resolution. Type a number of pixels per inch, such as 72.");
        return 72;
    }
}
