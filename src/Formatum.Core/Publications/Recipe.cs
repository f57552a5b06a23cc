using System.Collections.Immutable;
using Formatum.Core.Checks;

namespace Formatum.Core.Publications;

/// <summary>What comes of an output.</summary>
public enum OutputKind
{
    /// <summary>A PDF in the inks of a press (PDF/X-4).</summary>
    Print,

    /// <summary>A PDF in the colours of a screen.</summary>
    Screen,

    /// <summary>A picture of each page, all in one ZIP.</summary>
    Pictures,

    /// <summary>A book for reading programs: pages as they are laid out (EPUB 3, fixed layout).</summary>
    Book,

    /// <summary>Everything that is needed to go on elsewhere, as one ZIP.</summary>
    Bundle,
}

/// <summary>How pictures of pages are kept.</summary>
public enum PictureFileKind { Png, Jpeg, Webp, Svg }

/// <summary>How outputs are made: chosen again and again, for one publication, or for the house.</summary>
public sealed record Recipe : Part
{
    public const int LongestName = 100, LongestPages = 200, Most = 100;

    public required int Id { get; init; }
    public required string Name { get; init; }
    public required OutputKind Kind { get; init; }

    /// <summary>Which pages, by the numbers they bear: "1-4, 9"; empty for all.</summary>
    public string Pages { get; init; } = "";

    /// <summary>Whether facing pages stand side by side, as they are read.</summary>
    public bool Spreads { get; init; }

    /// <summary>Whether a file is made of each page, or each spread; else one of all.</summary>
    public bool OneFileEach { get; init; }

    /// <summary>Whether what reaches beyond the trim is kept, as far as the set-up says.</summary>
    public bool Bleed { get; init; }

    public PrintMarks Marks { get; init; } = PrintMarks.None;

    /// <summary>How pages are laid on larger sheets.</summary>
    public Imposition Imposition { get; init; } = Imposition.None;

    /// <summary>Whether it is for looking at alone: it says so beside each page, and previews stand in for files that are missing.</summary>
    public bool Proof { get; init; }

    /// <summary>Whether colours given as light become inks here; else they keep their profile.</summary>
    public bool Convert { get; init; }

    /// <summary>Pictures with a higher effective resolution, in ppi, are reduced to it; null for none.</summary>
    public double? MostPpi { get; init; }

    /// <summary>How good pictures are that are all compressed anew, 1 to 100; null leaves them as they are wherever they can be.</summary>
    public int? Quality { get; init; }

    public PictureFileKind File { get; init; }

    /// <summary>The resolution of pictures of pages, in ppi.</summary>
    public double Ppi { get; init; } = 150;

    /// <summary>What files are called: see <see cref="FileNames"/>.</summary>
    public string FilePattern { get; init; } = FileNames.Usual;

    /// <summary>The name of the profile that the pages are checked by before it is made; null for the publication's own.</summary>
    public string? Profile { get; init; }

    /// <summary>Whether PDFs come of it.</summary>
    public bool IsPdf => Kind is OutputKind.Print or OutputKind.Screen;

    public override PartKey Key => new(PartKind.Recipe, Id);

    public const double LeastPpi = 9, LargestPpi = 1200;

    /// <summary>Recipes that every publication has; their ids are below 0.</summary>
    public static readonly ImmutableArray<Recipe> Usual =
    [
        new() { Id = -1, Name = "Print", Kind = OutputKind.Print, Bleed = true },
        new()
        {
            Id = -2, Name = "Proof", Kind = OutputKind.Screen, Proof = true, MostPpi = 120, Quality = 70, Profile = "Draft",
            Marks = new() { Crop = true, Information = true }, Bleed = true,
        },
        new() { Id = -3, Name = "Screen", Kind = OutputKind.Screen, Spreads = true, MostPpi = 200, Quality = 85, Profile = "Screen" },
        new() { Id = -4, Name = "Pictures", Kind = OutputKind.Pictures, FilePattern = "{publication} {edition} {page}", Profile = "Screen" },
        new() { Id = -5, Name = "Book", Kind = OutputKind.Book, MostPpi = 200, Quality = 85, Profile = "Screen" },
        new() { Id = -6, Name = "Bundle", Kind = OutputKind.Bundle, FilePattern = "{publication} {edition} bundle" },
    ];

    public void Check(FieldErrors errors)
    {
        if (string.IsNullOrWhiteSpace(Name)) errors.Add("name", "A recipe needs a name. Type one, such as \"Newspaper\".");
        errors.Name(Name, LongestName);
        errors.Choice("kind", Kind);
        errors.Choice("file", File);
        if (Pages.Length > LongestPages) errors.Add("pages", $"The pages have {Pages.Length} characters; {LongestPages} is the most. Shorten them.");
        else PageRange.Check(Pages, errors);
        Marks.Check(errors);
        Imposition.Check(errors);
        if (Imposition.Kind != ImpositionKind.None && !IsPdf)
            errors.Add("imposition.kind", "Only the pages of a PDF are laid on sheets. Take a recipe that makes one, or no sheets.");
        if (Imposition.Kind != ImpositionKind.None && (Spreads || OneFileEach))
            errors.Add("imposition.kind", "Pages laid on sheets go one by one into one file. Leave facing pages and files of each out, or the sheets.");
        errors.Range("mostPpi", MostPpi, LeastPpi, LargestPpi, "Give a resolution from 9 to 1,200 ppi; 300 is usual for print.");
        errors.Range("quality", Quality, 1, 100, "Quality is from 1 to 100; 90 and above show no loss.");
        errors.Range("ppi", Ppi, LeastPpi, LargestPpi, "Give a resolution from 9 to 1,200 ppi; 150 is usual for looking at.");
        if (Profile is { } profile && (string.IsNullOrWhiteSpace(profile) || profile.Length > CheckProfile.LongestName || profile.Any(char.IsControl)))
            errors.Add("profile", $"A profile is named by 1 to {CheckProfile.LongestName} characters. Choose one, or none for the publication's own.");
        FileNames.Check(FilePattern, errors);
        if (OneFileEach && IsPdf && !FilePattern.Contains("{page}", StringComparison.Ordinal))
            errors.Add("filePattern", "With a file of each page, their names have to differ. Put {page} into the pattern.");
    }
}
