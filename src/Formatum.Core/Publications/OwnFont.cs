using Formatum.Core.Stories;

namespace Formatum.Core.Publications;

/// <summary>What the maker of a font allows to be done with it in documents (OpenType, OS/2, fsType), from the most to the least.</summary>
public enum FontEmbedding
{
    /// <summary>It may go into documents, and be used by whoever has one.</summary>
    Installable,
    /// <summary>It may go into documents that are changed.</summary>
    Editable,
    /// <summary>It may go into documents that are looked at and printed.</summary>
    PreviewAndPrint,
    /// <summary>It goes into no document: its text is printed as shapes.</summary>
    Restricted,
}

/// <summary>A font file that the publication brought itself: one face of a family.</summary>
public sealed record OwnFont : Part
{
    public const int LongestName = 255, LongestLicence = 2000, Most = 200;

    /// <summary>A file has no more bytes.</summary>
    public const long MostBytes = 32L << 20;

    public static readonly string[] Formats = ["ttf", "otf"];

    public required int Id { get; init; }

    /// <summary>The family as text names it.</summary>
    public required string Family { get; init; }

    public bool Bold { get; init; }
    public bool Italic { get; init; }

    /// <summary>What the file that was brought in is called.</summary>
    public required string Name { get; init; }

    /// <summary>One of <see cref="Formats"/>: whether its outlines are quadratic or cubic.</summary>
    public required string Format { get; init; }

    /// <summary>SHA-256 of the font as it is kept, lower-case hexadecimal.</summary>
    public required string ContentHash { get; init; }

    public required long Bytes { get; init; }
    public FontEmbedding Embedding { get; init; }

    /// <summary>Whether its maker wants it to go into documents whole.</summary>
    public bool WholeOnly { get; init; }

    public int Glyphs { get; init; }

    /// <summary>What it says of its licence; null where it says nothing.</summary>
    public string? Licence { get; init; }

    public override PartKey Key => new(PartKind.Font, Id);

    /// <summary>"Regular", "Bold", "Italic" or "Bold italic".</summary>
    public string Face => (Bold, Italic) switch { (true, true) => "Bold italic", (true, false) => "Bold", (false, true) => "Italic", _ => "Regular" };

    /// <summary>The files of each family.</summary>
    public static IReadOnlyDictionary<string, FontFiles> Families(IEnumerable<OwnFont> fonts) => fonts.GroupBy(f => f.Family).ToDictionary(g => g.Key, g =>
    {
        string Nearest(bool bold, bool italic) => g.OrderBy(f => (f.Italic != italic ? 2 : 0) + (f.Bold != bold ? 1 : 0)).ThenBy(f => f.Id).First().ContentHash;
        return new FontFiles(Nearest(false, false), Nearest(true, false), Nearest(false, true), Nearest(true, true));
    });
}
