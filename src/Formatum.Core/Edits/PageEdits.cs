using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>Adds blank pages.</summary>
/// <param name="Before">The number, from 1, that the first of them takes; one more than there are pages to add at the end.</param>
/// <param name="Count">How many.</param>
/// <param name="MasterId">The master they are based on; null for none.</param>
public sealed record AddPages(int Before, int Count, int? MasterId = null) : Edit
{
    public override string Words => Count == 1 ? "Add page" : $"Add {Count} pages";

    protected override void Make(Draft draft)
    {
        if (Count is < 1 or > Setup.MostPages) throw new EditRefused("count", $"{Count} pages cannot be added. Give a number from 1 to {Setup.MostPages}.");
        PageRuns.CheckPlace(draft, Before);
        if (MasterId is { } id) MasterOf(draft, id);
        ImmutableArray<int> added = [.. Enumerable.Range(0, Count).Select(_ => PageRuns.Blank(draft, MasterId))];
        PageRuns.Order(draft, draft.Origin.Order.Ids.InsertRange(Before - 1, added));
        if (MasterId is not null) Following.LayNew(draft, added);
    }
}

/// <summary>Copies pages with all their frames.</summary>
/// <param name="Numbers">The pages, by their numbers from 1.</param>
/// <param name="Before">The number that the first copy takes.</param>
public sealed record DuplicatePages(ImmutableArray<int> Numbers, int Before) : Edit
{
    public override string Words => Numbers.Length == 1 ? "Duplicate page" : $"Duplicate {Numbers.Length} pages";

    protected override void Make(Draft draft)
    {
        var pages = PageRuns.Ids(draft, Numbers);
        PageRuns.CheckPlace(draft, Before);
        ImmutableArray<int> copies = [.. pages.Select(_ => PageRuns.Blank(draft))];
        PageRuns.Order(draft, draft.Origin.Order.Ids.InsertRange(Before - 1, copies));
        new PageCopies(draft).Copy(pages, copies);
    }
}

/// <summary>Moves pages; their frames keep to them.</summary>
/// <param name="Numbers">The pages, by their numbers from 1. They come to lie together, in the order they had.</param>
/// <param name="Before">The page before which they come, by its number as it is now; one more than there are pages for the end.</param>
public sealed record MovePages(ImmutableArray<int> Numbers, int Before) : Edit
{
    public override string Words => Numbers.Length == 1 ? "Move page" : $"Move {Numbers.Length} pages";

    protected override void Make(Draft draft)
    {
        var moved = PageRuns.Ids(draft, Numbers);
        PageRuns.CheckPlace(draft, Before);
        var all = draft.Origin.Order.Ids;
        int place = all.Take(Before - 1).Count(id => !moved.Contains(id));
        PageRuns.Order(draft, all.RemoveAll(moved.Contains).InsertRange(place, moved));
    }
}

/// <summary>Removes pages with all that is on them.</summary>
/// <param name="Numbers">The pages, by their numbers from 1.</param>
public sealed record RemovePages(ImmutableArray<int> Numbers) : Edit
{
    public override string Words => Numbers.Length == 1 ? "Remove page" : $"Remove {Numbers.Length} pages";

    protected override void Make(Draft draft)
    {
        var removed = PageRuns.Ids(draft, Numbers);
        if (removed.Length == draft.Origin.PageCount)
            throw new EditRefused("pages", "A publication keeps at least one page. Leave one, or remove the publication from the shelf.");
        foreach (int id in removed)
        {
            foreach (var frame in draft.Origin.FramesOnPage(id)) draft.Remove(frame.Key);
            draft.Remove(new(PartKind.Page, id));
        }
        PageRuns.Order(draft, draft.Origin.Order.Ids.RemoveAll(removed.Contains));
    }
}

/// <summary>Adds a guide to a page, moves one, or takes one away.</summary>
/// <param name="Number">The page, by its number from 1.</param>
/// <param name="Index">The guide to move or take away, from 0; null for a new one.</param>
/// <param name="Guide">Where it comes to lie; null takes it away.</param>
public sealed record ChangeGuide(int Number, int? Index, PageGuide? Guide) : Edit
{
    public override string Words => Guide is null ? "Remove guide" : Index is null ? "Add guide" : "Move guide";

    protected override void Make(Draft draft)
    {
        var page = draft.Origin.Pages[PageIdOf(draft, Number)];
        if (Index is { } i && (i < 0 || i >= page.Guides.Length)) throw new EditRefused("guide", "That guide is no longer there. Look at the page again.");
        if (Index is null && Guide is null) throw new EditRefused("guide", "No guide is meant. Choose one.");
        if (Index is null && page.Guides.Length >= Page.MostGuides)
            throw new EditRefused("guide", $"A page has {Page.MostGuides} guides at most. Take some away first.");
        var errors = new FieldErrors();
        errors.Length("at", Guide?.At, -Setup.LargestSide, Setup.LargestSide, "Keep the guide near the page.");
        errors.ThrowIfAny();
        draft.Put(page with
        {
            Guides = (Index, Guide) switch
            {
                (null, { } added) => page.Guides.Add(added),
                ({ } at, { } moved) => page.Guides.SetItem(at, moved),
                ({ } at, null) => page.Guides.RemoveAt(at),
                _ => page.Guides,
            }
        });
    }
}

internal static class PageRuns
{
    /// <summary>The ids of pages given by number, in the order they lie in.</summary>
    /// <exception cref="EditRefused">None are given, or one of them is not there.</exception>
    public static ImmutableArray<int> Ids(Draft draft, ImmutableArray<int> numbers)
    {
        if (numbers.IsDefaultOrEmpty) throw new EditRefused("pages", "No page is chosen. Choose one first.");
        int count = draft.Origin.PageCount;
        foreach (int number in numbers)
            if (number < 1 || number > count) throw new EditRefused("pages", $"There is no page {number}; the publication has pages 1 to {count}.");
        return [.. numbers.Distinct().Order().Select(n => draft.Origin.Order.Ids[n - 1])];
    }

    public static void CheckPlace(Draft draft, int before)
    {
        int last = draft.Origin.PageCount + 1;
        if (before < 1 || before > last)
            throw new EditRefused("before", $"There is no place {before}; pages go before page 1 to {last - 1}, or at the end ({last}).");
    }

    public static int Blank(Draft draft, int? masterId = null)
    {
        var page = new Page(draft.NewId()) { MasterId = masterId };
        draft.Put(page);
        return page.Id;
    }

    /// <exception cref="EditRefused">There would be too many pages.</exception>
    public static void Order(Draft draft, ImmutableArray<int> ids)
    {
        if (ids.Length > Setup.MostPages) throw new EditRefused("count", $"That would make {ids.Length} pages; {Setup.MostPages} is the most. Add fewer.");
        draft.Put(new PageOrder(ids));
    }
}
