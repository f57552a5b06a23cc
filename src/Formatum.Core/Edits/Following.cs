using Formatum.Core.Filling;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>
/// Keeps pages in step with their masters. What is empty on a master is to be filled on each page: every page based on it has a frame of its own for each,
/// which follows the master's wherever nothing else was done to it on the page. A page that comes to another master, or to the other side of the spread, takes
/// over what it has, first for first in reading order.
/// </summary>
internal static class Following
{
    /// <summary>A master's frame before and after: null where it was not, or is no more, one to be filled.</summary>
    private readonly record struct Pair(Frame? Was, Frame? Now);

    public static void Settle(Draft draft)
    {
        var before = draft.Origin;
        if ((before.Masters.IsEmpty && !draft.Touched.Any(key => key.Kind == PartKind.Master)) || draft.Touched.Count == 0) return;
        var after = before.With(draft.Changes());
        bool pagesTouched = draft.Touched.Any(key => key.Kind is PartKind.Setup or PartKind.PageOrder or PartKind.Page or PartKind.Master);
        var frames = TouchedFrames(draft, before, after).Select(id => (Was: before.Frames.GetValueOrDefault(id), Now: after.Frames.GetValueOrDefault(id)))
            .ToList();

        foreach (var (was, now) in frames)
            if (was is { MasterFrameId: not null } && now is { MasterFrameId: not null } && was.PageId != now.PageId)
                draft.Put(now with { MasterFrameId = null });

        var pairs = frames
            .SelectMany(f => f.Was?.PageId == f.Now?.PageId ? [(f.Now!.PageId, f.Was, f.Now)]
                : new[] { (f.Was?.PageId ?? 0, f.Was, (Frame?)null), (f.Now?.PageId ?? 0, null, f.Now) })
            .Where(f => after.MasterWith(f.Item1) is not null && before.MasterWith(f.Item1) is not null)
            .GroupBy(f => f.Item1, f => new Pair(ToFill(before, f.Item2), ToFill(after, f.Item3)))
                .ToDictionary(g => g.Key, g => g.Where(p => p != default).ToList());
        if (!pagesTouched && pairs.Count == 0) return;

        foreach (int page in after.Order.Ids)
        {
            int? now = after.MasterPageOf(page), was = before.Pages.ContainsKey(page) ? before.MasterPageOf(page) ?? LaidBy(after, page) : LaidBy(after, page)
                ?? now;
            if (was != now) Lay(draft, after, page, FirstForFirst(ToFillOn(before, was), ToFillOn(after, now)));
            else if (now is { } master && pairs.TryGetValue(master, out var changed)) Lay(draft, after, page, changed);
        }
    }

    /// <summary>The frames that were touched, or whose words were.</summary>
    private static IEnumerable<int> TouchedFrames(Draft draft, Publication before, Publication after) => draft.Touched.SelectMany(key => key.Kind switch
    {
        PartKind.Frame => [key.Id],
        PartKind.Story => (before.Stories.GetValueOrDefault(key.Id)?.FrameIds ?? []).Concat(after.Stories.GetValueOrDefault(key.Id)?.FrameIds ?? []),
        _ => [],
    }).Distinct();

    /// <summary>Gives new pages the frames that their masters have to be filled.</summary>
    public static void LayNew(Draft draft, IEnumerable<int> pages)
    {
        var after = draft.Origin.With(draft.Changes());
        foreach (int page in pages) Lay(draft, after, page, FirstForFirst([], ToFillOn(after, after.MasterPageOf(page))));
    }

    /// <summary>The frame as it is on the master, with what is in it on its page.</summary>
    public static Frame AsOn(Frame master, Frame frame) => frame with
    {
        Box = master.Box,
        Angle = master.Angle,
        Outline = master.Outline,
        RuleId = master.RuleId,
        Own = master.Own,
        LookId = master.LookId,
        Look = master.Look,
        Area = master.Area,
        Wrap = master.Wrap,
    };

    private static Frame? ToFill(Publication publication, Frame? frame) => frame is not null && publication.IsEmpty(frame) ? frame : null;

    private static IReadOnlyList<Frame> ToFillOn(Publication publication, int? masterPage) =>
        masterPage is { } page ? [.. ReadingOrder.Of(publication, publication.FramesOnPage(page).Where(publication.IsEmpty))] : [];

    private static IReadOnlyList<Pair> FirstForFirst(IReadOnlyList<Frame> was, IReadOnlyList<Frame> now) =>
        [.. Enumerable.Range(0, Math.Max(was.Count, now.Count)).Select(i => new Pair(was.ElementAtOrDefault(i), now.ElementAtOrDefault(i)))];

    /// <summary>The master page that a page with copied frames goes by until it is settled: the one their original went by; null where it has none
    /// such.</summary>
    private static int? LaidBy(Publication after, int page) =>
        after.FramesOnPage(page).Select(f => f.MasterFrameId is { } id && after.Frames.TryGetValue(id, out var master) ? master.PageId : (int?)null)
            .FirstOrDefault(id => id is not null);

    private static void Lay(Draft draft, Publication after, int page, IReadOnlyList<Pair> pairs)
    {
        var there = after.FramesOnPage(page).Select(f => draft.Frame(f.Id)).OfType<Frame>().Where(f => f.MasterFrameId is not null).ToList();
        foreach (var (was, now) in pairs)
        {
            if (was is null)
            {
                if (!there.Any(f => f.MasterFrameId == now!.Id))
                    draft.Put(now! with { Id = draft.NewId(), PageId = page, GroupId = null, MasterFrameId = now.Id });
                continue;
            }
            foreach (var frame in there.Where(f => f.MasterFrameId == was.Id))
            {
                if (now is not null) Follow(draft, after, frame, was, now);
                else if (Chains.IsEmpty(draft, frame) && frame.Pose == was.Pose && frame.Outline == was.Outline) draft.Remove(frame.Key);
                else draft.Put(frame with { MasterFrameId = null });
            }
        }
    }

    private static void Follow(Draft draft, Publication after, Frame frame, Frame was, Frame now)
    {
        draft.Put(Followed(frame, was, now));
        // Words that are still to come are styled as the master has them.
        if (draft.StoryOf(frame) is { } story && draft.Origin.StoryOf(was) is { } before && after.StoryOf(now) is { } set && story.Text == before.Text
            && story.Text != set.Text)
            draft.Put(story with { Text = set.Text });
    }

    /// <summary>The frame with all that it has from its master as that is now.</summary>
    private static Frame Followed(Frame frame, Frame was, Frame now)
    {
        static double Value(double own, double before, double after) => own == before ? after : own;
        return frame with
        {
            MasterFrameId = now.Id,
            Box = new(Value(frame.Box.X, was.Box.X, now.Box.X), Value(frame.Box.Y, was.Box.Y, now.Box.Y), Value(frame.Box.Width, was.Box.Width, now.Box.Width),
                Value(frame.Box.Height, was.Box.Height, now.Box.Height)),
            Angle = Value(frame.Angle, was.Angle, now.Angle),
            Outline = frame.Outline == was.Outline ? now.Outline : frame.Outline,
            RuleId = frame.RuleId == was.RuleId ? now.RuleId : frame.RuleId,
            Own = frame.Own == was.Own ? now.Own : frame.Own,
            LookId = frame.LookId == was.LookId ? now.LookId : frame.LookId,
            Look = frame.Look == was.Look ? now.Look : frame.Look,
            Area = frame.Area == was.Area ? now.Area : frame.Area,
            Wrap = frame.Wrap == was.Wrap ? now.Wrap : frame.Wrap,
            Name = frame.Name == was.Name ? now.Name : frame.Name,
            Depth = frame.Depth == was.Depth ? now.Depth : frame.Depth,
            Hidden = frame.Hidden == was.Hidden ? now.Hidden : frame.Hidden,
        };
    }
}
