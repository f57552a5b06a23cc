using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

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
    public bool Proof { get; set; }
    public bool Convert { get; set; }
    public string? MostPpi { get; set; }

    /// <summary>Whether pictures are compressed anew.</summary>
    public bool Recompress { get; set; }
    public string? Quality { get; set; }
    public PictureFileKind File { get; set; }
    public string? Ppi { get; set; }
    public string? FilePattern { get; set; }

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
        Proof = r.Proof,
        Convert = r.Convert,
        MostPpi = r.MostPpi?.ToString("0.##", CultureInfo.InvariantCulture),
        Recompress = r.Quality is not null,
        Quality = (r.Quality ?? UsualQuality).ToString(CultureInfo.InvariantCulture),
        File = r.File,
        Ppi = r.Ppi.ToString("0.##", CultureInfo.InvariantCulture),
        FilePattern = r.FilePattern,
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
                Offset = Length(Offset, unit, basis.Marks.Offset, errors),
            },
            Proof = Proof,
            Convert = Convert,
            MostPpi = string.IsNullOrWhiteSpace(MostPpi) ? null : Number("mostPpi", MostPpi, errors),
            Quality = Recompress ? (int)Math.Round(Number("quality", Quality, errors)) : null,
            File = File,
            Ppi = Number("ppi", Ppi, errors),
            FilePattern = FilePattern?.Trim() ?? "",
        };
        recipe.Check(errors);
        errors.ThrowIfAny();
        return recipe;
    }

    private static double Length(string? text, LengthUnit unit, double usual, FieldErrors errors)
    {
        if (string.IsNullOrWhiteSpace(text)) return usual;
        if (Units.TryParse(text, unit, out double points)) return points;
        errors.Add("marks.offset", $"\u201c{text}\u201d is no length. Type one, such as 3 mm.");
        return usual;
    }

    private static double Number(string field, string? text, FieldErrors errors)
    {
        if (double.TryParse((text ?? "").Replace(',', '.'), NumberStyles.Float, CultureInfo.InvariantCulture, out double number) && double.IsFinite(number))
            return number;
        errors.Add(field, $"\u201c{text}\u201d is no number. Type one, such as 300.");
        return 100;
    }
}
