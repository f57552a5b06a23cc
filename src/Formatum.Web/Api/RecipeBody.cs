using Formatum.Core.Checks;
using Formatum.Core.Publications;

namespace Formatum.Web.Api;

/// <summary>What stands around a page, in a request; what is left out stays as it is.</summary>
public sealed record MarksBody
{
    public bool? Crop { get; init; }
    public bool? Registration { get; init; }
    public bool? Bars { get; init; }
    public bool? Information { get; init; }
    public bool? Fold { get; init; }
    public Length? Offset { get; init; }

    public PrintMarks Over(PrintMarks marks) => marks with
    {
        Crop = Crop ?? marks.Crop,
        Registration = Registration ?? marks.Registration,
        Bars = Bars ?? marks.Bars,
        Information = Information ?? marks.Information,
        Fold = Fold ?? marks.Fold,
        Offset = Offset?.Points ?? marks.Offset,
    };
}

/// <summary>How pages are laid on sheets, in a request; what is left out stays as it is.</summary>
public sealed record ImpositionBody
{
    public ImpositionKind? Kind { get; init; }
    public int? Across { get; init; }
    public int? Down { get; init; }

    /// <summary>0 for a sheet as large as is needed.</summary>
    public Length? SheetWidth { get; init; }
    public Length? SheetHeight { get; init; }
    public Length? Gutter { get; init; }
    public Length? Creep { get; init; }

    public Imposition Over(Imposition i) => i with
    {
        Kind = Kind ?? i.Kind,
        Across = Across ?? i.Across,
        Down = Down ?? i.Down,
        SheetWidth = SheetWidth?.Points ?? i.SheetWidth,
        SheetHeight = SheetHeight?.Points ?? i.SheetHeight,
        Gutter = Gutter?.Points ?? i.Gutter,
        Creep = Creep?.Points ?? i.Creep,
    };
}

/// <summary>How pages are laid on sheets; lengths in points.</summary>
public sealed record ImpositionAnswer(ImpositionKind Kind, int Across, int Down, double SheetWidth, double SheetHeight, double Gutter, double Creep)
{
    public static ImpositionAnswer Of(Imposition i) => new(i.Kind, i.Across, i.Down, i.SheetWidth, i.SheetHeight, i.Gutter, i.Creep);
}

/// <summary>A recipe, in a request; what is left out stays as it is, or as usual.</summary>
public sealed record RecipeBody
{
    public string? Name { get; init; }
    public OutputKind? Kind { get; init; }

    /// <summary>Which pages, by the numbers they bear: "1-4, 9".</summary>
    public string? Pages { get; init; }

    public bool? Spreads { get; init; }
    public bool? OneFileEach { get; init; }
    public bool? Bleed { get; init; }
    public MarksBody? Marks { get; init; }
    public ImpositionBody? Imposition { get; init; }
    public bool? Proof { get; init; }
    public bool? Convert { get; init; }

    /// <summary>In ppi; 0 for none.</summary>
    public double? MostPpi { get; init; }

    /// <summary>1 to 100; 0 leaves pictures as they are.</summary>
    public int? Quality { get; init; }

    public PictureFileKind? File { get; init; }
    public double? Ppi { get; init; }
    public string? FilePattern { get; init; }

    /// <summary>The check profile it asks for, by its name; empty for the publication's own.</summary>
    public string? Profile { get; init; }

    /// <exception cref="EditRefused">A new recipe has neither a name nor a kind.</exception>
    public Recipe Over(Recipe? recipe)
    {
        var basis = recipe ?? new()
        {
            Id = 0,
            Name = Name ?? throw new EditRefused("name", "A recipe needs a name."),
            Kind = Kind ?? throw new EditRefused("kind", "A recipe says what it makes: print, screen, pictures, book or bundle."),
            Bleed = Kind == OutputKind.Print,
        };
        var kind = Kind ?? basis.Kind;
        if (Convert == true && kind != OutputKind.Print)
            throw new EditRefused("convert", "Only a file for print turns colours of light into inks. Leave it out, or take the kind print.");
        return basis with
        {
            Name = Name ?? basis.Name,
            Kind = kind,
            Pages = Pages ?? basis.Pages,
            Spreads = Spreads ?? basis.Spreads,
            OneFileEach = OneFileEach ?? basis.OneFileEach,
            Bleed = Bleed ?? basis.Bleed,
            Marks = Marks?.Over(basis.Marks) ?? basis.Marks,
            Imposition = Imposition?.Over(basis.Imposition) ?? basis.Imposition,
            Proof = Proof ?? basis.Proof,
            Convert = kind == OutputKind.Print && (Convert ?? basis.Convert),
            MostPpi = MostPpi is null ? basis.MostPpi : MostPpi == 0 ? null : MostPpi,
            Quality = Quality is null ? basis.Quality : Quality == 0 ? null : Quality,
            File = File ?? basis.File,
            Ppi = Ppi ?? basis.Ppi,
            FilePattern = FilePattern ?? basis.FilePattern,
            Profile = Profile is null ? basis.Profile : Profile.Length == 0 ? null : Profile,
        };
    }
}

/// <summary>What stands around a page. The offset in points.</summary>
public sealed record MarksAnswer(bool Crop, bool Registration, bool Bars, bool Information, bool Fold, double Offset)
{
    public static MarksAnswer Of(PrintMarks m) => new(m.Crop, m.Registration, m.Bars, m.Information, m.Fold, m.Offset);
}

/// <summary>A recipe. As it is written it is read again, here or elsewhere.</summary>
public sealed record RecipeAnswer(string Name, OutputKind Kind, string Pages, bool Spreads, bool OneFileEach, bool Bleed, MarksAnswer Marks,
    ImpositionAnswer Imposition, bool Proof,
    bool Convert, double MostPpi, int Quality, PictureFileKind File, double Ppi, string FilePattern, string Profile)
{
    public static RecipeAnswer Of(Recipe r) => new(r.Name, r.Kind, r.Pages, r.Spreads, r.OneFileEach, r.Bleed, MarksAnswer.Of(r.Marks),
        ImpositionAnswer.Of(r.Imposition), r.Proof, r.Convert && r.Kind == OutputKind.Print,
        r.MostPpi ?? 0, r.Quality ?? 0, r.File, r.Ppi, r.FilePattern, r.Profile ?? "");
}
