namespace Formatum.Core.Publications;

/// <summary>
/// A page design others are based on: one for left-hand and one for right-hand pages, each a page of its own that is not in the order of pages. What is empty
/// on it is to be filled on each page, what is filled is the same on every page. Single pages go by the right-hand one.
/// </summary>
public sealed record MasterPage : Part
{
    public const int LongestName = 100;

    /// <summary>A publication has at most so many.</summary>
    public const int Most = 200;

    public required int Id { get; init; }

    public required string Name { get; init; }

    /// <summary>The page that left-hand pages go by.</summary>
    public required int VersoId { get; init; }

    /// <summary>The page that right-hand and single pages go by.</summary>
    public required int RectoId { get; init; }

    public override PartKey Key => new(PartKind.Master, Id);

    public int Side(bool recto) => recto ? RectoId : VersoId;
}
