using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Edits;

/// <summary>The stories of frames while an edit works on them.</summary>
internal static class Chains
{
    /// <summary>Puts a story with words of its own.</summary>
    /// <exception cref="EditRefused">The text is impossible.</exception>
    public static Story Put(Draft draft, Story story)
    {
        var errors = new FieldErrors();
        story.Text.Check(errors);
        if (!errors.Any) StyleChecks.CheckNamed(id => draft.Find(new(PartKind.Style, id)) as NamedStyle, story.Text, errors);
        if (!errors.Any) FontChecks.CheckNamed(draft, FontChecks.Named(story.Text), draft.Origin.Stories.GetValueOrDefault(story.Id) is { } before
            ? FontChecks.Named(before.Text) : [], errors);
        if (!errors.Any) ColourChecks.CheckNamed(draft, ColourChecks.Named(story.Text), errors, "colour");
        if (story.FrameIds.Length > Story.MostFrames) errors.Add("frames", $"A story runs through {Story.MostFrames:#,0} frames at most.");
        errors.ThrowIfAny();
        draft.Put(story);
        return story;
    }

    /// <summary>Whether nothing is in a frame yet, as the edit has made it so far.</summary>
    public static bool IsEmpty(Draft draft, Frame frame) => frame.IsPlaceholder || draft.StoryOf(frame) is { Text.IsEmpty: true };

    /// <summary>
    /// Frames that went leave their chains, and a story goes with its last frame; a frame that was made from another and still bears its story gets one of its
    /// own.
    /// </summary>
    public static void Settle(Draft draft)
    {
        foreach (var key in draft.Touched.Where(k => k.Kind == PartKind.Frame).ToList())
        {
            var (was, now) = (draft.Origin.Frames.GetValueOrDefault(key.Id), draft.Frame(key.Id));
            if (was?.StoryId is { } left && now?.StoryId != left) Leave(draft, left, key.Id);
            if (now is not null && draft.StoryOf(now) is { } story && !story.FrameIds.Contains(now.Id))
            {
                var copies = new StoryCopies(draft, draft.Origin.Stories);
                draft.Put(now with { StoryId = copies.For(now, now.Id) });
                copies.Finish();
            }
        }
    }

    private static void Leave(Draft draft, int storyId, int frameId)
    {
        if (draft.Find(new(PartKind.Story, storyId)) is not Story story) return;
        var frames = story.FrameIds.Remove(frameId);
        if (frames.IsEmpty) draft.Remove(story.Key);
        else draft.Put(story with { FrameIds = frames });
    }
}

/// <summary>Stories made anew for copies of frames: copies of one chain are chained as their originals are.</summary>
/// <param name="draft">Where they are made.</param>
/// <param name="originals">The stories of the originals.</param>
/// <param name="brought">Their words as they are to be here; null for as they are.</param>
internal sealed class StoryCopies(Draft draft, IReadOnlyDictionary<int, Story> originals, Func<FrameText, FrameText>? brought = null)
{
    private sealed record Copy(int Id, SortedList<int, int> Frames)
    {
        public bool Keeps { get; set; } = true;
    }

    private readonly Dictionary<int, Copy> _made = [];

    /// <summary>The story that a copy runs in; null where its original holds no text.</summary>
    /// <param name="original">The frame.</param>
    /// <param name="copyId">The copy's id.</param>
    /// <param name="keeps">Whether the words are copied too.</param>
    public int? For(Frame original, int copyId, bool keeps = true)
    {
        if (original.StoryId is not { } id || Original(id) is not { } story) return null;
        if (!_made.TryGetValue(id, out var copy)) _made[id] = copy = new(draft.NewId(), []);
        copy.Frames[Math.Max(0, story.FrameIds.IndexOf(original.Id))] = copyId;
        copy.Keeps &= keeps;
        return copy.Id;
    }

    /// <summary>Puts the stories. Words come along where all of a chain was copied: a part of it would repeat what its neighbours show.</summary>
    public void Finish()
    {
        foreach (var (id, copy) in _made)
        {
            var story = Original(id)!;
            var text = copy.Keeps && copy.Frames.Count == story.FrameIds.Length ? story.Text : FrameText.EmptyLike(story.Text.Paragraphs[0]);
            Chains.Put(draft, new() { Id = copy.Id, FrameIds = [.. copy.Frames.Values], Text = brought?.Invoke(text) ?? text });
        }
        _made.Clear();
    }

    private Story? Original(int id) => originals.GetValueOrDefault(id) ?? draft.Find(new(PartKind.Story, id)) as Story;
}
