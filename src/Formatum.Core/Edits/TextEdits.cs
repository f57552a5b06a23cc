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

/// <summary>
/// Puts words in the place of a stretch of a text; they take the style of the character before them. Where others changed the text meanwhile, but not the
/// paragraphs that the stretch reaches into, both changes stay.
/// </summary>
/// <param name="FrameId">A frame of the story.</param>
/// <param name="Range">The stretch, as it was seen.</param>
/// <param name="With">What stands there then; line ends part paragraphs.</param>
/// <param name="Within">The paragraphs that the stretch reaches into, whole, as they were seen.</param>
/// <param name="Begin">Where these began.</param>
/// <param name="As">How the words are set, where otherwise than what stands there.</param>
public sealed record TypeText(int FrameId, TextRange Range, string With, string Within, int Begin, TextSettings? As = null) : Edit
{
    public override string Words => "Type text";

    public override IEnumerable<PartKey> RestsOn(Publication publication) =>
        StoryIn(publication) is { } story && PlaceIn(story) is null ? [story.Key] : [];

    public override bool Merges(Publication publication, PartKey key) => StoryIn(publication) is { } story && story.Key == key && PlaceIn(story) is not null;

    protected override void Make(Draft draft)
    {
        var story = WriteText.StoryOf(draft, FrameId);
        if (PlaceIn(story) is not { } place) throw new EditRefused("text", "The text has changed meanwhile. Look at it again, and type on.");
        int moved = place - Begin;
        var text = story.Text.Replaced(new(Range.From + moved, Range.To + moved), With);
        int from = Range.From + moved, length = FrameText.Clean(With).Length;
        if (As is not null && length > 0) text = text.Changed(SettingsChange.Setting(As.Only(TextSettings.OfCharacters)), new(from, from + length));
        Chains.Put(draft, story with { Text = text });
    }

    private Story? StoryIn(Publication publication) => publication.Frames.GetValueOrDefault(FrameId) is { } frame ? publication.StoryOf(frame) : null;

    /// <summary>Where the paragraphs begin now: where they did, or at the nearest place that has just them; null where none has.</summary>
    private int? PlaceIn(Story story)
    {
        if (Range.From < Begin || Range.To < Range.From || Range.To > Begin + Within.Length) return null;
        string plain = story.Text.Plain;
        bool Stands(int at) => at >= 0 && at + Within.Length <= plain.Length && string.CompareOrdinal(plain, at, Within, 0, Within.Length) == 0
            && (at == 0 || plain[at - 1] == '\n') && (at + Within.Length == plain.Length || plain[at + Within.Length] == '\n');
        if (Stands(Begin)) return Begin;
        int? nearest = null;
        for (int at = 0; at >= 0 && at <= plain.Length; at = plain.IndexOf('\n', at) is >= 0 and var end ? end + 1 : -1)
            if (Stands(at) && (nearest is not { } found || Math.Abs(at - Begin) < Math.Abs(found - Begin))) nearest = at;
        return nearest;
    }
}

/// <summary>Puts words that are set in their own way in the place of a stretch.</summary>
/// <param name="FrameId">A frame of the story.</param>
/// <param name="Range">The stretch.</param>
/// <param name="Paragraphs">The words; styles and fonts that are not here are left off.</param>
public sealed record PasteWords(int FrameId, TextRange Range, ImmutableArray<Paragraph> Paragraphs) : Edit
{
    public override string Words => "Paste text";

    protected override void Make(Draft draft)
    {
        if (Paragraphs.IsDefaultOrEmpty) throw new EditRefused("text", "There are no words to paste. Copy some first.");
        var story = WriteText.StoryOf(draft, FrameId);
        int? Known(int? id, StyleKind kind) => id is { } style && draft.Origin.Styles.GetValueOrDefault(style)?.Kind == kind ? id : null;
        var families = draft.Origin.FontFamilies.ToHashSet();
        TextSettings Here(TextSettings set) => set.Family is { } family && !families.Contains(family) ? set with { Family = null } : set;
        var known = Paragraphs.Select(p => p.Of(p.Runs.Select(r => r with { StyleId = Known(r.StyleId, StyleKind.Character), Set = Here(r.Set) })) with
        {
            StyleId = Known(p.StyleId, StyleKind.Paragraph),
            Set = Here(p.Set),
        });
        Chains.Put(draft, story with { Text = story.Text.Pasted(Range, [.. known]) });
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

/// <summary>Puts other words in the place of those that are found, wherever they stand.</summary>
/// <param name="Search">What is found.</param>
/// <param name="With">What stands there then, in the style of what stood there.</param>
/// <param name="FrameId">A frame of the one story that is meant; null for all stories.</param>
public sealed record ReplaceWords(WordSearch Search, string With, int? FrameId = null) : Edit
{
    public override string Words => $"Replace \u201c{Short(Search.Find)}\u201d by \u201c{Short(With)}\u201d";

    private static string Short(string text) => text.Length > 40 ? text[..40] + "..." : text;

    protected override void Make(Draft draft)
    {
        if (Search.Find.Length is 0 or > WordSearch.Longest) throw new EditRefused("find", $"Type what to find, up to {WordSearch.Longest} characters.");
        if (With.Length > WordSearch.Longest || With.Contains('\n', StringComparison.Ordinal))
            throw new EditRefused("with", $"What is put in has up to {WordSearch.Longest} characters, and no line ends.");
        var stories = FrameId is { } id ? [WriteText.StoryOf(draft, id)] : draft.Origin.Stories.Values.Where(s => !s.FrameIds.Any(IsLocked)).ToList();
        bool IsLocked(int frame) => draft.Origin.Frames[frame].Locked;
        int found = 0;
        foreach (var story in stories)
        {
            var text = story.Text;
            foreach (var range in Search.In(story.Text).Reverse())
            {
                text = text.Replaced(range, With);
                found++;
            }
            if (text != story.Text) Chains.Put(draft, story with { Text = text });
        }
        if (found == 0) throw new EditRefused("find", $"\u201c{Short(Search.Find)}\u201d stands nowhere there. Look at how it is written, and where you look.");
    }
}
