using Formatum.Core.Stories;

namespace Formatum.Core.Publications;

/// <summary>What a style is for.</summary>
public enum StyleKind { Paragraph, Character }

/// <summary>A named, reusable set of text settings, based on another of its kind or, of paragraphs, on the publication's default.</summary>
public sealed record NamedStyle : Part
{
    public const int LongestName = 100;

    /// <summary>A publication has no more of them.</summary>
    public const int Most = 500;

    public required int Id { get; init; }
    public required StyleKind Kind { get; init; }
    public required string Name { get; init; }
    public int? BasedOnId { get; init; }
    public TextSettings Settings { get; init; } = TextSettings.Open;

    public override PartKey Key => new(PartKind.Style, Id);
}
