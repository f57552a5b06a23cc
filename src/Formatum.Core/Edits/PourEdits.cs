using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Filling;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Edits;

/// <summary>Pours images into empty placeholders, and adds pages of the same layout until all have a place, where that is asked.</summary>
public sealed record PourImages : Edit
{
    /// <summary>The images, in the order of the tray.</summary>
    public required ImmutableArray<int> ImageIds { get; init; }

    /// <summary>The frames to pour into; those that are not empty are passed over.</summary>
    public required ImmutableArray<int> FrameIds { get; init; }

    public PourOrder Order { get; init; }

    /// <summary>The pages to copy until every image has a place, by their numbers from 1; empty to add none.</summary>
    public ImmutableArray<int> LayoutPages { get; init; } = [];

    /// <summary>Whether placeholders left over on pages that were added are removed.</summary>
    public bool RemoveLeftovers { get; init; }

    public override string Words => ImageIds.Length == 1 ? "Pour image" : $"Pour {ImageIds.Length} images";

    protected override void Make(Draft draft)
    {
        if (ImageIds.IsDefaultOrEmpty) throw new EditRefused("imageIds", "There is nothing to pour. Put some images in the tray first.");
        if (ImageIds.Distinct().Count() != ImageIds.Length) throw new EditRefused("imageIds", "An image is named twice. Name each once.");
        ImmutableArray<LinkedImage> images = [.. ImageIds.Select(id => ImageOf(draft, id))];
        var publication = draft.Origin;
        var frames = ReadingOrder.Of(publication, FrameIds.Distinct().Select(id => FrameOf(draft, id)).Where(IsOpen));
        var added = ImmutableArray<Frame>.Empty;
        if (!LayoutPages.IsDefaultOrEmpty)
        {
            added = LayoutCopies.Add(draft, LayoutPages, perCopy => Math.Max(0, (images.Length - frames.Length + perCopy - 1) / perCopy));
            publication = publication.With(draft.Changes());
        }
        if (Order == PourOrder.Name && !LayoutPages.IsDefaultOrEmpty)
            throw new EditRefused("keepPouring", "Poured by name, each picture has its frame: added pages would have the same names again. Leave the rest " +
                "in the tray.");
        if (frames.IsEmpty && added.IsEmpty)
            throw new EditRefused("frames", "There is no empty placeholder here. Draw some, choose other pages, or keep pouring.");
        var plan = Pouring.Plan(publication, images, [.. frames, .. added], Order);
        if (plan.IsEmpty)
            throw new EditRefused("order", "No picture has the name of an empty placeholder here. Name the frames as the files are named, or pour in " +
                "another order.");
        foreach (var (frameId, imageId) in plan) Placing.Put(draft, FrameOf(draft, frameId), imageId);
        if (RemoveLeftovers)
        {
            var filled = plan.Select(p => p.FrameId).ToHashSet();
            foreach (var frame in added.Where(f => !filled.Contains(f.Id))) draft.Remove(frame.Key);
        }
        draft.Put(draft.Tray.Without(plan.Select(p => p.ImageId)));
    }

    /// <summary>Locked frames are kept from being moved, not from being filled; hidden ones nobody would look for.</summary>
    internal static bool IsOpen(Frame frame) => frame is { IsPlaceholder: true, Hidden: false };
}

/// <summary>Pours the rows of a table into named frames, and adds copies of pages until all have a place, where that is asked.</summary>
public sealed record PourRows : Edit
{
    public required Table Table { get; init; }

    /// <summary>Which columns go into frames of which name.</summary>
    public required ImmutableArray<ColumnTarget> Targets { get; init; }

    /// <summary>The pages whose frames are filled, by their numbers from 1, from the first to the last.</summary>
    public required int FirstPage { get; init; }
    public required int LastPage { get; init; }

    /// <summary>The pages to copy until every row has a place; empty to add none.</summary>
    public ImmutableArray<int> LayoutPages { get; init; } = [];

    public override string Words => Table.Rows.Length == 1 ? "Pour row" : $"Pour {Table.Rows.Length} rows";

    protected override void Make(Draft draft) => Pour(draft, []);

    /// <summary>What it would come to, with everything that should be known before.</summary>
    public (Publication After, ImmutableArray<CellPlace> Places, IReadOnlyList<RowFinding> Findings) Proposal(Publication publication)
    {
        var draft = new Draft(publication);
        var findings = new List<RowFinding>();
        var places = Pour(draft, findings);
        Settle(draft);
        return (publication.With(draft.Changes()), places, findings);
    }

    private ImmutableArray<CellPlace> Pour(Draft draft, List<RowFinding> findings)
    {
        var origin = draft.Origin;
        if (Table.Rows.IsDefaultOrEmpty) throw new EditRefused("table", "The table has no rows. Choose another.");
        foreach (var target in Targets)
            if (target.Column < 0 || target.Column >= Table.Columns.Length) throw new EditRefused("targets", $"The table has no column {target.Column + 1}.");
        if (FirstPage < 1 || LastPage > origin.PageCount || FirstPage > LastPage)
            throw new EditRefused("pages", $"There are no pages {FirstPage} to {LastPage}; the publication has pages 1 to {origin.PageCount}.");
        var frames = ReadingOrder.Of(origin, origin.Order.Ids.Skip(FirstPage - 1).Take(LastPage - FirstPage + 1).SelectMany(origin.FramesOnPage)
            .Where(f => !f.Hidden)).ToList();
        FrameText? TextOf(Frame frame) => draft.StoryOf(frame) is { } story && story.FrameIds[0] == frame.Id ? story.Text : null;
        if (Targets.IsDefaultOrEmpty && RowPlan.RowsPerCopy(Table, Targets, frames, TextOf) == 0)
            throw new EditRefused("targets", "No column goes into a frame. Name frames as the columns are named, choose for each column where it goes, or " +
                "type a column's name in braces where its words belong.");
        if (!LayoutPages.IsDefaultOrEmpty)
        {
            var layout = PageRuns.Ids(draft, LayoutPages).SelectMany(origin.FramesOnPage).Where(f => !f.Hidden).ToList();
            int perCopy = RowPlan.RowsPerCopy(Table, Targets, layout, TextOf), there = RowPlan.RowsPerCopy(Table, Targets, frames, TextOf);
            if (perCopy == 0) throw new EditRefused("layout", "The pages to copy hold no frame of such a name. Choose others, or name their frames.");
            int copies = Math.Max(0, (Table.Rows.Length - there + perCopy - 1) / perCopy);
            var made = LayoutCopies.AddAll(draft, LayoutPages, copies);
            var after = origin.With(draft.Changes());
            frames.AddRange(ReadingOrder.Of(after, made));
        }
        ImmutableArray<CellPlace> forms = [.. RowPlan.OfForms(Table, frames, TextOf, findings)];
        var formed = forms.Select(p => p.FrameId).ToHashSet();
        ImmutableArray<CellPlace> places = [.. RowPlan.Of(Table, Targets, frames, new ImageNames(origin.Images.Values), findings)
            .Where(p => !formed.Contains(p.FrameId)), .. forms];
        foreach (var (_, frameId, imageId, text, filled) in places)
        {
            var frame = FrameOf(draft, frameId);
            if (filled is not null) Chains.Put(draft, draft.StoryOf(frame)! with { Text = filled });
            else if (text is not null && draft.StoryOf(frame) is { } story) Chains.Put(draft, story with { Text = story.Text.Worded(text) });
            else Placing.Put(draft, frame, imageId);
        }
        return places;
    }
}

/// <summary>Copies of pages as a layout for other pictures.</summary>
internal static class LayoutCopies
{
    /// <summary>
    /// Adds copies of pages. What was placed or typed on them is empty on each copy, but for locked frames, which keep what they hold, and for text with the
    /// page's number in it. Blank pages behind take copies first; others lie behind the pages they are copied from where that leaves all other pages on their
    /// side of the spread, and else at the end.
    /// </summary>
    /// <param name="draft">The publication under way.</param>
    /// <param name="numbers">The pages, by their numbers from 1.</param>
    /// <param name="copies">How many copies to add, from how many placeholders each holds.</param>
    /// <returns>The placeholders of the copies, in reading order.</returns>
    /// <exception cref="EditRefused">There are no such pages, no image frames on them, or there would be too many pages.</exception>
    public static ImmutableArray<Frame> Add(Draft draft, ImmutableArray<int> numbers, Func<int, int> copies)
    {
        var origin = draft.Origin;
        int open = PageRuns.Ids(draft, numbers).SelectMany(origin.FramesOnPage).Count(IsOpen);
        if (open == 0) throw new EditRefused("layout", "The pages to copy hold no image frames. Choose others.");
        return [.. AddAll(draft, numbers, copies(open), frame => KeepsWords(origin, frame)).Where(f => f.IsPlaceholder && !f.Hidden)];
    }

    private static bool IsOpen(Frame frame) => frame is { IsText: false, Hidden: false } && (frame.IsPlaceholder || !frame.Locked);

    /// <summary>Whether a copy keeps the words of its original: where that is locked, or says of each page what it is.</summary>
    public static bool KeepsWords(Publication publication, Frame frame) => frame.Locked || publication.StoryOf(frame)?.Text.HasFields() == true;

    /// <summary>The frame without its picture, but for a locked one. Its words stay: on the pages of a table they are the headings that every page
    /// has.</summary>
    public static Frame Unpictured(Frame frame) => IsOpen(frame)
        ? frame with { ImageId = null, Held = null, Recrop = Fitting.Recrop.None, FormerRecrop = null } : frame;

    /// <summary>Adds so many copies, as <see cref="Add"/> says.</summary>
    /// <param name="draft">The publication under way.</param>
    /// <param name="numbers">The pages, by their numbers from 1.</param>
    /// <param name="count">How many copies.</param>
    /// <param name="keepsWords">Whether a text frame keeps its words on a copy; null where all do.</param>
    /// <returns>All frames of the copies, in reading order copy by copy.</returns>
    public static ImmutableArray<Frame> AddAll(Draft draft, ImmutableArray<int> numbers, int count, Func<Frame, bool>? keepsWords = null)
    {
        var origin = draft.Origin;
        var pages = PageRuns.Ids(draft, numbers);
        var order = origin.Order.Ids;
        var blank = BlankRuns(origin, pages).Take(count).ToList();
        int added = pages.Length * (count - blank.Count);
        if (order.Length + (long)added > Setup.MostPages)
            throw new EditRefused("keepPouring", $"That would make {order.Length + (long)added} pages; {Setup.MostPages} is the most. Pour fewer images.");
        ImmutableArray<int> made = [.. Enumerable.Range(0, added).Select(_ => PageRuns.Blank(draft))];
        int place = origin.Setup.Facing && added % 2 != 0 ? order.Length : order.IndexOf(blank.Count > 0 ? blank[^1][^1] : pages[^1]) + 1;
        if (added > 0) PageRuns.Order(draft, order.InsertRange(place, made));
        var runs = blank.Concat(Enumerable.Range(0, count - blank.Count).Select(i => made.Slice(i * pages.Length, pages.Length)));
        var inOrder = ReadingOrder.Of(origin, pages.SelectMany(origin.FramesOnPage)).Select(f => f.Id).ToList();
        var copies = new PageCopies(draft);
        return [.. runs.Select(run => copies.Copy(pages, run, Unpictured, keepsWords)).SelectMany(copied => inOrder.Select(id => copied[id]))];
    }

    /// <summary>Blank pages behind the layout that can take copies of it, each run as long as the layout and lying like it.</summary>
    private static IEnumerable<ImmutableArray<int>> BlankRuns(Publication publication, ImmutableArray<int> pages)
    {
        var order = publication.Order.Ids;
        bool IsBlank(int page) => !publication.FramesOnPage(page).Any() && publication.Pages[page].MasterId is null;
        for (int i = order.IndexOf(pages[^1]) + 1; i + pages.Length <= order.Length;)
        {
            var run = order.Slice(i, pages.Length);
            bool alike = pages.Length == 1 || publication.IsRecto(run[0]) == publication.IsRecto(pages[0]);
            if (!alike || !run.All(IsBlank))
            {
                i++;
                continue;
            }
            yield return run;
            i += pages.Length;
        }
    }
}
