using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>Text that a master lets run on: a page's empty frame takes its place in the story of its partner on the page before.</summary>
internal static class RunningOn
{
    public static void Settle(Draft draft)
    {
        // Only what the edit made, or let run on.
        var begun = draft.Touched.Where(k => k.Kind == PartKind.Frame).Select(k => draft.Frame(k.Id)).OfType<Frame>()
            .Where(f => f is { MasterFrameId: not null, Area.RunsOn: true } && draft.Origin.Frames.GetValueOrDefault(f.Id)?.Area is not { RunsOn: true })
            .ToDictionary(f => f.Id);
        if (begun.Count == 0) return;
        var after = draft.Origin.With(draft.Changes());
        var pages = after.Order.Ids;
        for (int i = 1; i < pages.Length; i++)
            foreach (var frame in after.FramesOnPage(pages[i]).Where(f => begun.ContainsKey(f.Id)).OrderBy(f => f.Id))
                if (Partner(draft, after.FramesOnPage(pages[i - 1]), frame) is { } before) Join(draft, before, draft.Frame(frame.Id)!);
    }

    /// <summary>The frame of the same name among those that have it from a master that lets it run on.</summary>
    public static Frame? Partner(Draft draft, IEnumerable<Frame> frames, Frame frame) => frames.Select(f => draft.Frame(f.Id)).OfType<Frame>()
        .Where(f => f is { MasterFrameId: not null, StoryId: not null, Area.RunsOn: true } && f.Name == frame.Name).MinBy(f => f.Id);

    private static void Join(Draft draft, Frame before, Frame frame)
    {
        if (draft.StoryOf(frame) is not { Text.IsEmpty: true } own || own.FrameIds.Length > 1 || draft.StoryOf(before) is not { } story
            || story.FrameIds.Contains(frame.Id)) return;
        draft.Put(frame with { StoryId = story.Id });
        draft.Remove(own.Key);
        Chains.Put(draft, story with { FrameIds = story.FrameIds.Insert(story.FrameIds.IndexOf(before.Id) + 1, frame.Id) });
    }
}
