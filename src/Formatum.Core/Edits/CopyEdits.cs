using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Edits;

/// <summary>Makes the same frames again, one after the other, each set off from the one before.</summary>
/// <param name="FrameIds">The frames.</param>
/// <param name="Spread">The spread they are on, by its index from 0.</param>
/// <param name="By">How far each copy lies from the one before, in points.</param>
/// <param name="Count">How many copies.</param>
/// <param name="Rows">How many rows of them: each row set off downwards by <paramref name="By"/>.Y, each copy in it across by <paramref name="By"/>.X; 1 for
/// a line along <paramref name="By"/>.</param>
public sealed record RepeatFrames(ImmutableArray<int> FrameIds, int Spread, Vec By, int Count, int Rows = 1) : Edit
{
    public const int Most = 1000;

    public override string Words => Count * Rows == 1 ? "Duplicate" : "Step and repeat";

    protected override void Make(Draft draft)
    {
        if (FrameIds.IsEmpty) throw new EditRefused("frame", "No frame is chosen. Choose one first.");
        if (Count is < 0 or > Most || Rows is < 1 or > Most || (Count + 1L) * Rows * FrameIds.Length > Most)
            throw new EditRefused("columns", $"Make from 1 to {Most} copies at once.");
        if (!double.IsFinite(By.X) || !double.IsFinite(By.Y)) throw new EditRefused("by", "Give the distances as lengths.");
        var spread = Publications.Spread.At(draft.Origin, Spread);
        var copies = new Copies(draft);
        for (int row = 0; row < Rows; row++)
        {
            for (int column = 0; column <= Count; column++)
            {
                if (row == 0 && column == 0) continue;
                var by = Rows == 1 ? column * By : new Vec(column * By.X, row * By.Y);
                copies.Add(FrameIds.Select(id => FrameOf(draft, id)), frame => PlaceOn(spread, frame, by));
            }
        }
    }

    private static (int PageId, Box Box) PlaceOn(Spread spread, Frame frame, Vec by)
    {
        var from = spread.Pages.FirstOrDefault(p => p.Page.Id == frame.PageId) ?? throw new EditRefused("frame",
            "That frame is no longer on this spread. Look at the spread again.");
        var box = frame.Box.Moved(from.Trim.X + by.X, from.Trim.Y + by.Y);
        var page = spread.PageAt(box.Centre);
        return (page.Page.Id, box.Moved(-page.Trim.X, -page.Trim.Y));
    }
}

/// <summary>
/// Puts copies of frames on a spread: from the same publication or another. Images and rules they need come along, where they are not
/// there yet: images are the same by content, rules, looks, styles and colours by name.
/// </summary>
/// <param name="Source">The publication they come from.</param>
/// <param name="FrameIds">The frames, all of one spread of it.</param>
/// <param name="Spread">The spread to put them on, by its index from 0.</param>
/// <param name="At">Where the middle of them all comes to lie, in points of that spread; null for the same place as they had.</param>
public sealed record PasteFrames(Publication Source, ImmutableArray<int> FrameIds, int Spread, Vec? At) : Edit
{
    public override string Words => FrameIds.Length == 1 ? "Paste frame" : $"Paste {FrameIds.Length} frames";

    protected override void Make(Draft draft)
    {
        var found = FrameIds.Select(id => Source.Frames.GetValueOrDefault(id)).OfType<Frame>().ToList();
        if (found.Count == 0) throw new EditRefused("frame", "What was copied is no longer there. Copy it again.");
        var from = Publications.Spread.At(Source, Publications.Spread.IndexOfPage(Source, Source.NumberOf(found[0].PageId)));
        var placed = from.FramesOf(Source).Where(f => found.Contains(f.Frame)).ToList();
        if (placed.Count != found.Count) throw new EditRefused("frame", "Copy frames of one spread at a time.");

        var onto = Publications.Spread.At(draft.Origin, Spread);
        var around = placed.Select(f => (f.Frame.Pose with { Box = f.Box }).Bounds).Aggregate((p, q) => p.Union(q));
        var by = At is { } at ? at - around.Centre : default;
        var boxes = placed.ToDictionary(f => f.Frame.Id, f => f.Box.Moved(by.X, by.Y));
        bool same = ReferenceEquals(Source, draft.Origin);
        var bringing = new Bringing(draft, Source, flat: true);
        new Copies(draft).Add(placed.Select(f => f.Frame), frame =>
        {
            var box = boxes[frame.Id];
            var page = onto.PageAt(box.Centre);
            return (page.Page.Id, box.Moved(-page.Trim.X, -page.Trim.Y));
        }, frame => same ? frame : bringing.Frame(frame), Source, same ? null : bringing.Text);
    }
}

/// <summary>Gives frames the rule of another and what is set on it.</summary>
public sealed record GiveRule(ImmutableArray<int> FrameIds, Frame Like, int? RuleId) : Edit
{
    public override string Words => "Paste rule";

    protected override void Make(Draft draft)
    {
        if (FrameIds.IsEmpty) throw new EditRefused("frame", "No frame is chosen. Choose one first.");
        if (RuleId is { } rule) RuleOf(draft, rule);
        foreach (int id in FrameIds) draft.Put(UsualLooks.With(draft, FrameOf(draft, id) with { RuleId = RuleId, Own = Like.Own, Held = null }));
    }
}

/// <summary>Frames made anew from others, above all that is on their spread; groups are copied as groups.</summary>
internal sealed class Copies(Draft draft)
{
    private int _lastGroup = LastGroup(draft);
    private int _depth = draft.Origin.Frames.Values.Select(f => f.Depth).DefaultIfEmpty(0).Max();

    /// <param name="frames">The originals.</param>
    /// <param name="place">Where the copy of each goes.</param>
    /// <param name="change">What else is done to each; null for nothing.</param>
    /// <param name="source">The publication they are from; null for the draft's.</param>
    /// <param name="brought">Their words as they are to be here; null for as they are.</param>
    public void Add(IEnumerable<Frame> frames, Func<Frame, (int PageId, Box Box)> place, Func<Frame, Frame>? change = null, Publication? source = null,
        Func<FrameText, FrameText>? brought = null)
    {
        var stories = new StoryCopies(draft, (source ?? draft.Origin).Stories, brought);
        var made = new List<Frame>();
        var groups = new Dictionary<int, int>();
        foreach (var frame in frames.OrderBy(f => f.Depth).ThenBy(f => f.Id))
        {
            var (pageId, box) = place(frame);
            if (frame.GroupId is { } g && !groups.ContainsKey(g)) groups[g] = ++_lastGroup;
            int id = draft.NewId();
            made.Add((change?.Invoke(frame) ?? frame) with
            {
                Id = id,
                StoryId = stories.For(frame, id),
                PageId = pageId,
                Box = box,
                Depth = ++_depth,
                Locked = false,
                MasterFrameId = null,
                GroupId = frame.GroupId is { } group ? groups[group] : null
            });
        }
        stories.Finish();
        foreach (var copy in made)
        {
            FrameChecks.Check(draft, copy);
            draft.Put(copy);
        }
    }

    /// <summary>The highest number that a group has.</summary>
    public static int LastGroup(Draft draft) => draft.Origin.Frames.Values.Select(f => f.GroupId ?? 0).DefaultIfEmpty(0).Max();
}
