using System.Collections.Immutable;
using Formatum.Core.Settings;

namespace Formatum.Core.Stories;

/// <summary>A stretch of a text, from one place in it to another.</summary>
public readonly record struct TextRange(int From, int To)
{
    public bool IsEmpty => To <= From;
}

/// <summary>What is done to settings.</summary>
/// <param name="Set">What is set.</param>
/// <param name="Clear">What is left open again.</param>
public sealed record SettingsChange(TextSettings Set, ImmutableArray<Setting<TextSettings>> Clear)
{
    public static SettingsChange Setting(TextSettings set) => new(set, []);

    /// <summary>The same, as far as characters can have it.</summary>
    public SettingsChange OfCharacters => new(Set.Only(TextSettings.OfCharacters), [.. Clear.Where(TextSettings.OfCharacters.Contains)]);

    /// <summary>The same, as far as only paragraphs can have it.</summary>
    public SettingsChange OfParagraphs => new(Set.Only(TextSettings.OfParagraphs), [.. Clear.Where(TextSettings.OfParagraphs.Contains)]);

    public TextSettings On(TextSettings now) => Layers.Kept(TextSettings.All, Set.Over(now), setting => !Clear.Contains(setting));

    /// <summary>Settings without those that this has to do with.</summary>
    public TextSettings From(TextSettings now) => Layers.Kept(TextSettings.All, now, setting => !Clear.Contains(setting) && !setting.IsSet(Set));
}

/// <content>Changes to text. Each gives another text; none loses or repeats a character that it was not told to.</content>
public sealed partial record FrameText
{
    /// <summary>
    /// Other words in the same styles: what stays keeps its own, what is new takes that of the character before it, and a new paragraph that of the one it was
    /// divided from.
    /// </summary>
    public FrameText Worded(string plain)
    {
        string now = Clean(plain);
        string[] lines = now.Split('\n');
        if (lines.Length != Paragraphs.Length) return OfOtherCount(lines);
        return new([.. Paragraphs.Select((p, i) => Differing(p.Text, lines[i]) is var (range, with)
            ? p.Of([.. Cut(p, 0, range.From), RunFor(p, range.From, !range.IsEmpty) with { Text = with }, .. Cut(p, range.To, p.Text.Length)]) : p)]);
    }

    /// <summary>Other paragraphs in the place of those that differ; new ones go on as the one before them.</summary>
    private FrameText OfOtherCount(string[] lines)
    {
        int least = Math.Min(lines.Length, Paragraphs.Length), same = 0, sameEnd = 0;
        while (same < least && lines[same] == Paragraphs[same].Text) same++;
        while (sameEnd < least - same && lines[^(sameEnd + 1)] == Paragraphs[^(sameEnd + 1)].Text) sameEnd++;
        int begin = Paragraphs.Take(same).Sum(p => p.Text.Length + 1), was = Paragraphs.Length - same - sameEnd, will = lines.Length - same - sameEnd;
        string before = string.Join('\n', Paragraphs.Skip(same).Take(was).Select(p => p.Text)), after = string.Join('\n', lines.Skip(same).Take(will));
        int end = begin + before.Length;
        // Whole paragraphs come with the line end before them, or go with it; at the very beginning with that behind.
        if (was == 0) return same > 0 ? Replaced(new(begin - 1, begin - 1), "\n" + after) : Replaced(new(0, 0), after + "\n");
        if (will == 0) return same > 0 ? Replaced(new(begin - 1, end), "") : Replaced(new(0, end + 1), "");
        return Differing(before, after) is var (range, with) ? Replaced(new(begin + range.From, begin + range.To), with) : this;
    }

    /// <summary>Where two texts differ, and what stands there instead; null where they do not.</summary>
    private static (TextRange Range, string With)? Differing(string was, string now)
    {
        int least = Math.Min(was.Length, now.Length), same = 0, sameEnd = 0;
        while (same < least && was[same] == now[same]) same++;
        if (same > 0 && char.IsHighSurrogate(was[same - 1])) same--;
        while (sameEnd < least - same && was[^(sameEnd + 1)] == now[^(sameEnd + 1)]) sameEnd++;
        if (sameEnd > 0 && char.IsLowSurrogate(was[^sameEnd])) sameEnd--;
        return same == was.Length && same == now.Length ? null : (new(same, was.Length - sameEnd), now[same..^sameEnd]);
    }

    /// <summary>The text with a stretch of it replaced by other words; they take the style of the first character they replace, or else of the one before
    /// them.</summary>
    public FrameText Replaced(TextRange range, string words)
    {
        var (first, from) = PlaceOf(range.From);
        var (last, to) = PlaceOf(range.To);
        string[] lines = Clean(words).Split('\n');
        Paragraph begun = Paragraphs[first], ended = Paragraphs[last];
        // Where all of a paragraph goes with its line end, what is left is the next one as it was.
        var kept = from == 0 && lines is [""] && last > first && (to == 0 || to < ended.Text.Length) ? ended : begun;
        var like = from == 0 && kept == ended ? RunAt(ended, to) : RunFor(begun, from, !range.IsEmpty);
        var head = Cut(begun, 0, from);
        var tail = Cut(ended, to, ended.Text.Length);
        var made = lines.Select((line, i) =>
        {
            IEnumerable<Run> runs = [like with { Text = line }];
            if (i == 0) runs = head.Concat(runs);
            if (i == lines.Length - 1) runs = runs.Concat(tail);
            return kept.Of(runs);
        });
        return new([.. Paragraphs.Take(first), .. made, .. Paragraphs.Skip(last + 1)]);
    }

    /// <summary>A stretch of the text as it is set, the paragraphs it reaches into cut at its ends.</summary>
    public ImmutableArray<Paragraph> Slice(TextRange range)
    {
        var (first, from) = PlaceOf(range.From);
        var (last, to) = PlaceOf(Math.Max(range.From, range.To));
        return [.. Enumerable.Range(first, last - first + 1).Select(i => Paragraphs[i].Of(Cut(Paragraphs[i], i == first ? from : 0,
            i == last ? to : Paragraphs[i].Text.Length)))];
    }

    /// <summary>
    /// The text with a stretch of it replaced by paragraphs that are set in their own way. What stands in one paragraph goes into the one it is put in; of
    /// several, the first goes on where there are words before it, and the last is followed by what stood behind.
    /// </summary>
    public FrameText Pasted(TextRange range, ImmutableArray<Paragraph> paragraphs)
    {
        var (first, from) = PlaceOf(range.From);
        var (last, to) = PlaceOf(Math.Max(range.From, range.To));
        Paragraph begun = Paragraphs[first], ended = Paragraphs[last];
        Run[] head = [.. Cut(begun, 0, from)], tail = [.. Cut(ended, to, ended.Text.Length)];
        var made = paragraphs.Select((p, i) =>
        {
            var like = i == 0 && (head.Length > 0 || paragraphs.Length == 1) ? begun : p;
            return like.Of([.. i == 0 ? head : [], .. p.Runs, .. i == paragraphs.Length - 1 ? tail : []]);
        });
        return new([.. Paragraphs.Take(first), .. made, .. Paragraphs.Skip(last + 1)]);
    }

    /// <summary>The run whose style is that of what is typed at a place.</summary>
    public (Paragraph Paragraph, Run Run) TypedAt(int place)
    {
        var (paragraph, at) = PlaceOf(place);
        return (Paragraphs[paragraph], RunFor(Paragraphs[paragraph], at, false));
    }

    /// <summary>The text with settings changed: of the paragraphs that a stretch reaches into, and of its characters; of all where none is given.</summary>
    public FrameText Changed(SettingsChange change, TextRange? range = null)
    {
        if (range is not { IsEmpty: false } part) return ChangedParagraphs(change, range);
        return Characters(part, run => run with { Set = change.OfCharacters.On(run.Set) }).Each(part, p => p with { Set = change.OfParagraphs.On(p.Set) });
    }

    /// <summary>The text with settings changed of all of each paragraph that a stretch reaches into; of all where none is given.</summary>
    public FrameText ChangedParagraphs(SettingsChange change, TextRange? range) => Each(range, p => p with
    {
        Set = change.On(p.Set),
        Runs = p.Of(p.Runs.Select(r => r with { Set = change.OfCharacters.From(r.Set) })).Runs,
    });

    /// <summary>The paragraphs that a stretch reaches into in another style; with what was set on them cleared where asked.</summary>
    public FrameText InParagraphStyle(int? styleId, TextRange? range, bool clear) => Each(range, p => clear
        ? p.Of(p.Runs.Select(r => r with { Set = TextSettings.Open })) with { StyleId = styleId, Set = TextSettings.Open } : p with { StyleId = styleId });

    /// <summary>The characters of a stretch in another style; with what was set on them cleared where asked.</summary>
    public FrameText InCharacterStyle(int? styleId, TextRange? range, bool clear) => Characters(range ?? new(0, Plain.Length),
        run => run with { StyleId = styleId, Set = clear ? TextSettings.Open : run.Set });

    /// <summary>The text with every paragraph and every run changed by its style.</summary>
    public FrameText Restyled(Func<Paragraph, Paragraph> paragraph, Func<Run, Run> run) =>
        new([.. Paragraphs.Select(p => paragraph(p.Of(p.Runs.Select(run))))]);

    private FrameText Each(TextRange? range, Func<Paragraph, Paragraph> change)
    {
        if (range is not { } part) return new([.. Paragraphs.Select(change)]);
        int first = PlaceOf(part.From).Paragraph, last = PlaceOf(Math.Max(part.From, part.To)).Paragraph;
        return new([.. Paragraphs.Select((p, i) => i >= first && i <= last ? change(p) : p)]);
    }

    private FrameText Characters(TextRange range, Func<Run, Run> change)
    {
        int start = 0;
        return new([.. Paragraphs.Select(p =>
        {
            int from = Math.Clamp(range.From - start, 0, p.Text.Length), to = Math.Clamp(range.To - start, 0, p.Text.Length);
            start += p.Text.Length + 1;
            return from == to && p.Text.Length > 0 ? p : p.Of([.. Cut(p, 0, from), .. Cut(p, from, to).Select(change), .. Cut(p, to, p.Text.Length)]);
        })]);
    }

    /// <summary>Which paragraph a place lies in, and where in it.</summary>
    public (int Paragraph, int At) PlaceOf(int place)
    {
        for (int i = 0; i < Paragraphs.Length; i++)
        {
            int length = Paragraphs[i].Text.Length;
            if (place <= length || i == Paragraphs.Length - 1) return (i, Math.Clamp(place, 0, length));
            place -= length + 1;
        }
        throw new InvalidOperationException("A text has a paragraph.");
    }

    /// <summary>The run whose style is that of what comes to stand at a place: that of what it replaces, or the one before it.</summary>
    private static Run RunFor(Paragraph paragraph, int at, bool replaces) => RunAt(paragraph, replaces && at < paragraph.Text.Length ? at + 1 : at);

    /// <summary>The run that a place ends or lies in.</summary>
    private static Run RunAt(Paragraph paragraph, int at)
    {
        foreach (var run in paragraph.Runs)
        {
            if (at <= run.Text.Length) return run;
            at -= run.Text.Length;
        }
        return paragraph.Runs[^1];
    }

    private static IEnumerable<Run> Cut(Paragraph paragraph, int from, int to)
    {
        int start = 0;
        foreach (var run in paragraph.Runs)
        {
            int begin = Math.Max(from - start, 0), end = Math.Min(to - start, run.Text.Length);
            if (end > begin) yield return run with { Text = run.Text[begin..end] };
            start += run.Text.Length;
        }
    }
}
