using System.Collections.Immutable;
using Formatum.Core.Geometry;

namespace Formatum.Core.Comparing;

/// <summary>A place in a file.</summary>
/// <param name="Page">The page, from 0.</param>
/// <param name="Box">In points from the upper left of the page's trim.</param>
public readonly record struct FilePlace(int Page, Box Box);

/// <summary>Something that is otherwise in one file than in another.</summary>
/// <param name="Kind">What became of it.</param>
/// <param name="Subject">What it is: a picture, or the words it begins with.</param>
/// <param name="Detail">How it differs, in words; empty where the kind says all.</param>
/// <param name="Before">Where it was; null where it was not.</param>
/// <param name="After">Where it is; null where it is no more.</param>
public sealed record FileDifference(DifferenceKind Kind, string Subject, string Detail, FilePlace? Before, FilePlace? After)
{
    public string Title => DifferenceText.Title(Kind);
}

/// <summary>
/// What is otherwise in a finished file than in one that was made before, told by what both show: nothing else is known of a file that somebody kept.
/// </summary>
/// <param name="Pairs">Which pages belong together, in the order of both.</param>
/// <param name="Differences">In the order of the pairs.</param>
public sealed record FileComparison(ImmutableArray<PagePair> Pairs, ImmutableArray<FileDifference> Differences)
{
    /// <summary>Those pairs that differ.</summary>
    public IEnumerable<PagePair> Changed => Pairs.Where(p => On(p).Any());

    /// <summary>What differs between two pages.</summary>
    public IEnumerable<FileDifference> On(PagePair pair) =>
        Differences.Where(d => d.Before?.Page is { } was ? was == pair.Before : d.After?.Page == pair.After);

    /// <param name="before">The pages made before.</param>
    /// <param name="after">The pages now.</param>
    /// <param name="unit">In which lengths are told.</param>
    public static FileComparison Of(IReadOnlyList<PageContents> before, IReadOnlyList<PageContents> after, LengthUnit unit)
    {
        var pairs = PagePairs.Of(before, after);
        return new(pairs, [.. pairs.SelectMany(p => (p.Before, p.After) switch
        {
            ({ } was, { } now) => new PageComparison(was, before[was], now, after[now], unit).All(),
            ({ } was, null) => [new(DifferenceKind.PageWent, $"Page {was + 1} of the file", "", new(was, Whole(before[was])), null)],
            (null, { } now) => [new(DifferenceKind.PageCame, $"Page {now + 1}", "", null, new(now, Whole(after[now])))],
            _ => Enumerable.Empty<FileDifference>(),
        })]);
    }

    private static Box Whole(PageContents page) => new(0, 0, page.Width, page.Height);
}
