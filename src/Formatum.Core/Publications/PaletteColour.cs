using Formatum.Core.Colours;

namespace Formatum.Core.Publications;

/// <summary>A named colour of the publication. Whatever uses it follows when it is changed.</summary>
public sealed record PaletteColour : Part
{
    public const int LongestName = 100;

    /// <summary>A publication has no more of them.</summary>
    public const int Most = 1000;

    public required int Id { get; init; }
    public required string Name { get; init; }

    /// <summary>Grey, red-green-blue or four inks; of a spot colour, what stands in for its ink. Never another of the palette.</summary>
    public required Colour Colour { get; init; }

    /// <summary>Whether it is an ink of its own, printed from a plate of its own.</summary>
    public bool IsSpot { get; init; }

    public override PartKey Key => new(PartKind.Colour, Id);

    /// <summary>The usual start: ink black, paper, and four inks.</summary>
    public static IEnumerable<PaletteColour> Usual(int firstId) => new (string Name, Colour Colour)[]
    {
        ("Black", new CmykColour(0, 0, 0, 1)), ("Paper", new CmykColour(0, 0, 0, 0)), ("Cyan", new CmykColour(1, 0, 0, 0)),
        ("Magenta", new CmykColour(0, 1, 0, 0)), ("Yellow", new CmykColour(0, 0, 1, 0)), ("Grey", new GreyColour(0.5)),
    }.Select((c, i) => new PaletteColour { Id = firstId + i, Name = c.Name, Colour = c.Colour });
}
