using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Web.Wording;

namespace Formatum.Web.Outputs;

/// <summary>A recipe as it is typed on Output.</summary>
public sealed class RecipeForm
{
    public OutputKind Kind { get; set; }
    public string? Pages { get; set; }
    public bool Spreads { get; set; }
    public bool OneFileEach { get; set; }
    public bool Bleed { get; set; }
    public bool Crop { get; set; }
    public bool Registration { get; set; }
    public bool Bars { get; set; }
    public bool Information { get; set; }
    public bool Fold { get; set; }
    public string? Offset { get; set; }
    public ImpositionKind Imposition { get; set; }
    public string? Across { get; set; }
    public string? Down { get; set; }

    /// <summary>The sheet, as "450 mm x 320 mm"; empty for one as large as is needed.</summary>
    public string? Sheet { get; set; }
    public string? Gutter { get; set; }
    public string? Creep { get; set; }
    public bool Proof { get; set; }
    public bool Convert { get; set; }
    public string? MostPpi { get; set; }

    /// <summary>Whether pictures are compressed anew.</summary>
    public bool Recompress { get; set; }
    public string? Quality { get; set; }
    public PictureFileKind File { get; set; }
    public string? Ppi { get; set; }
    public string? FilePattern { get; set; }

    /// <summary>The check profile it asks for, by its name; empty for the publication's own.</summary>
    public string? Profile { get; set; }

    /// <summary>What is usual where somebody begins to compress pictures anew.</summary>
    private const int UsualQuality = 85;

    public static RecipeForm Of(Recipe r, LengthUnit unit) => new()
    {
        Kind = r.Kind,
        Pages = r.Pages,
        Spreads = r.Spreads,
        OneFileEach = r.OneFileEach,
        Bleed = r.Bleed,
        Crop = r.Marks.Crop,
        Registration = r.Marks.Registration,
        Bars = r.Marks.Bars,
        Information = r.Marks.Information,
        Fold = r.Marks.Fold,
        Offset = Units.Text(r.Marks.Offset, unit),
        Imposition = r.Imposition.Kind,
        Across = r.Imposition.Across.ToString(CultureInfo.InvariantCulture),
        Down = r.Imposition.Down.ToString(CultureInfo.InvariantCulture),
        Sheet = r.Imposition.SheetWidth > 0 ? $"{Units.Text(r.Imposition.SheetWidth, unit)} x {Units.Text(r.Imposition.SheetHeight, unit)}" : "",
        Gutter = Units.Text(r.Imposition.Gutter, unit),
        Creep = Units.Text(r.Imposition.Creep, unit),
        Proof = r.Proof,
        Convert = r.Convert,
        MostPpi = r.MostPpi?.ToString("0.##", CultureInfo.InvariantCulture),
        Recompress = r.Quality is not null,
        Quality = (r.Quality ?? UsualQuality).ToString(CultureInfo.InvariantCulture),
        File = r.File,
        Ppi = r.Ppi.ToString("0.##", CultureInfo.InvariantCulture),
        FilePattern = r.FilePattern,
        Profile = r.Profile,
    };

    /// <summary>The recipe that was typed, over the one it began with.</summary>
    /// <exception cref="EditRefused">Something is no number, or impossible.</exception>
    public Recipe Over(Recipe basis, LengthUnit unit)
    {
        var errors = new FieldErrors();
        var recipe = basis with
        {
            Kind = Kind,
            Pages = Pages?.Trim() ?? "",
            Spreads = Spreads,
            OneFileEach = OneFileEach,
            Bleed = Bleed,
            Marks = new()
            {
                Crop = Crop,
                Registration = Registration,
                Bars = Bars,
                Information = Information,
                Fold = Fold,
                Offset = Length("marks.offset", Offset, unit, basis.Marks.Offset, basis.Marks.Offset, errors),
            },
            Imposition = ImpositionOf(basis.Imposition, unit, errors),
            Proof = Proof,
            Convert = Convert,
            MostPpi = string.IsNullOrWhiteSpace(MostPpi) ? null : Number("mostPpi", MostPpi, basis.MostPpi ?? 0, errors),
            Quality = Recompress ? (int)Math.Round(Number("quality", Quality, basis.Quality ?? UsualQuality, errors)) : null,
            File = File,
            Ppi = Number("ppi", Ppi, basis.Ppi, errors),
            FilePattern = FilePattern?.Trim() ?? "",
            Profile = string.IsNullOrWhiteSpace(Profile) ? null : Profile.Trim(),
        };
        recipe.Check(errors);
        errors.ThrowIfAny();
        return recipe;
    }

    private Imposition ImpositionOf(Imposition basis, LengthUnit unit, FieldErrors errors)
    {
        // What is not asked for is not looked at.
        if (Imposition == ImpositionKind.None) return basis with { Kind = ImpositionKind.None };
        var (width, height) = SheetOf(unit, errors);
        return new()
        {
            Kind = Imposition,
            Across = (int)Math.Round(Number("imposition.across", Across, basis.Across, errors)),
            Down = (int)Math.Round(Number("imposition.down", Down, basis.Down, errors)),
            SheetWidth = width,
            SheetHeight = height,
            Gutter = Length("imposition.gutter", Gutter, unit, 0, basis.Gutter, errors),
            Creep = Length("imposition.creep", Creep, unit, 0, basis.Creep, errors),
        };
    }

    /// <summary>A sheet by its measures or by the name of a paper, which lies on its longer side.</summary>
    private (double Width, double Height) SheetOf(LengthUnit unit, FieldErrors errors)
    {
        if (string.IsNullOrWhiteSpace(Sheet)) return (0, 0);
        if (PaperSize.Named(Sheet) is { } paper) return (paper.Height, paper.Width);
        string[] sides = Sheet.Split(['x', '\u00d7', '*'], StringSplitOptions.TrimEntries);
        if (sides.Length == 2 && Units.TryParse(sides[0], unit, out double width) && Units.TryParse(sides[1], unit, out double height)) return (width, height);
        errors.Add("imposition.sheet", $"\u201c{Sheet}\u201d is no sheet. Type its width and height, such as 450 mm x 320 mm, or the name of " +
            "a paper, such as A3.");
        return (0, 0);
    }

    private static double Length(string field, string? text, LengthUnit unit, double usual, double current, FieldErrors errors) =>
        string.IsNullOrWhiteSpace(text) ? usual : SettingText.Length(field, text, unit, current, false, errors) ?? usual;

    private static double Number(string field, string? text, double current, FieldErrors errors)
    {
        if (FigureText.Read(text, current, sign: "ppi") is { } number) return number;
        errors.Add(field, $"\u201c{text}\u201d is no number. Type one, such as 300.");
        return 100;
    }
}
