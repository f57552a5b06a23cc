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
        var (frame, text) = TextOf(draft, FrameId);
        Put(draft, frame, text.Worded(Plain));
    }

    internal static (Frame Frame, FrameText Text) TextOf(Draft draft, int id)
    {
        var frame = FrameOf(draft, id);
        return (frame, frame.Text ?? throw new EditRefused("text", $"{frame.Label} holds no text. Draw a text frame for it."));
    }

    internal static void Put(Draft draft, Frame frame, FrameText text)
    {
        FrameChecks.Unlocked(frame);
        var changed = frame with { Text = text };
        FrameChecks.Check(draft, changed);
        draft.Put(changed);
    }
}

/// <summary>Sets the text of frames in another style: all of it, or the paragraphs from one to another, counted from 0.</summary>
public sealed record StyleText(ImmutableArray<int> FrameIds, StyleChange Change, int From = 0, int To = int.MaxValue) : Edit
{
    public override string Words => "Change text style" + (FrameIds.Length > 1 ? $", {FrameIds.Length} frames" : "");

    protected override void Make(Draft draft)
    {
        if (FrameIds.IsEmpty) throw new EditRefused("frame", "No frame is chosen. Choose one first.");
        foreach (int id in FrameIds)
        {
            var (frame, text) = WriteText.TextOf(draft, id);
            WriteText.Put(draft, frame, text.Styled(Change, From, To));
        }
    }
}
