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

/// <summary>Changes settings of text: of the paragraphs that a stretch reaches into and of its characters, or of all.</summary>
/// <param name="FrameIds">Frames of the stories.</param>
/// <param name="Change">What is set, and what is left open again.</param>
/// <param name="Range">The stretch, in the one story; null for all.</param>
public sealed record StyleText(ImmutableArray<int> FrameIds, SettingsChange Change, TextRange? Range = null) : Edit
{
    public override string Words => "Change text settings" + (FrameIds.Length > 1 ? $", {FrameIds.Length} frames" : "");

    protected override void Make(Draft draft)
    {
        if (FrameIds.IsEmpty) throw new EditRefused("frame", "No frame is chosen. Choose one first.");
        foreach (var story in FrameIds.Select(id => WriteText.StoryOf(draft, id)).DistinctBy(s => s.Id).ToList())
            Chains.Put(draft, story with { Text = story.Text.Changed(Change, Range) });
    }
}
