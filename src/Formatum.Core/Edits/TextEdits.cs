using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Edits;

/// <summary>Types other words into a text frame.</summary>
/// <param name="FrameId">The frame.</param>
/// <param name="Plain">All its paragraphs, with line ends between; each keeps its style, new ones take that of the paragraph before.</param>
public sealed record WriteText(int FrameId, string Plain) : Edit
{
    public override string Words => "Type text";

    protected override void Make(Draft draft)
    {
        var story = StoryOf(draft, FrameId);
        Chains.Put(draft, story with { Text = story.Text.Worded(Plain) });
    }

    /// <exception cref="EditRefused">The frame holds no text, or it is locked.</exception>
    internal static Story StoryOf(Draft draft, int id)
    {
        var frame = FrameOf(draft, id);
        FrameChecks.Unlocked(frame);
        return draft.StoryOf(frame) ?? throw new EditRefused("text", $"{frame.Label} holds no text. Draw a text frame for it.");
    }
}

/// <summary>Sets the text of frames in another style: all of it, or the paragraphs from one to another, counted from 0.</summary>
public sealed record StyleText(ImmutableArray<int> FrameIds, StyleChange Change, int From = 0, int To = int.MaxValue) : Edit
{
    public override string Words => "Change text style" + (FrameIds.Length > 1 ? $", {FrameIds.Length} frames" : "");

    protected override void Make(Draft draft)
    {
        if (FrameIds.IsEmpty) throw new EditRefused("frame", "No frame is chosen. Choose one first.");
        foreach (var story in FrameIds.Select(id => WriteText.StoryOf(draft, id)).DistinctBy(s => s.Id).ToList())
            Chains.Put(draft, story with { Text = story.Text.Styled(Change, From, To) });
    }
}
