using System.Buffers;
using System.Collections.Immutable;
using System.Text;
using System.Text.Json.Serialization;
using Formatum.Core.Checks;

namespace Formatum.Core.Stories;

/// <summary>Characters that are set alike.</summary>
/// <param name="Text">The characters.</param>
/// <param name="StyleId">Their character style; null for none.</param>
public sealed record Run(string Text, int? StyleId = null)
{
    /// <summary>What was set on them; no setting of whole paragraphs.</summary>
    public TextSettings Set { get; init; } = TextSettings.Open;

    public bool IsLike(Run other) => StyleId == other.StyleId && Set == other.Set;
}

/// <summary>A paragraph, without the line end behind it. A line may be ended within it by U+2028.</summary>
public sealed record Paragraph
{
    /// <summary>Its characters; one run at least, which may be empty, and none like the one before it.</summary>
    public ImmutableArray<Run> Runs { get; init; } = [new("")];

    /// <summary>Its paragraph style; null for the publication's default.</summary>
    public int? StyleId { get; init; }

    /// <summary>What was set on all of it.</summary>
    public TextSettings Set { get; init; } = TextSettings.Open;

    [JsonConstructor]
    public Paragraph()
    {
    }

    /// <summary>A paragraph set in one way, without named styles.</summary>
    public Paragraph(string text, TextStyle style) => (Runs, Set) = ([new(text)], style.Unusual);

    /// <summary>A paragraph of a style.</summary>
    public Paragraph(string text, int? styleId) => (Runs, StyleId) = ([new(text)], styleId);

    public string Text => Runs.Length == 1 ? Runs[0].Text : string.Concat(Runs.Select(r => r.Text));

    /// <summary>The same, with runs that are alike made one.</summary>
    public Paragraph Of(IEnumerable<Run> runs)
    {
        var joined = new List<Run>();
        foreach (var run in runs)
        {
            if (joined.Count > 0 && (joined[^1].IsLike(run) || run.Text.Length == 0)) joined[^1] = joined[^1] with { Text = joined[^1].Text + run.Text };
            else if (joined.Count > 0 && joined[^1].Text.Length == 0) joined[^1] = run;
            else joined.Add(run);
        }
        return this with { Runs = joined.Count == 0 ? [new("")] : [.. joined] };
    }

    public bool Equals(Paragraph? other) => other is not null && StyleId == other.StyleId && Set == other.Set && Runs.AsSpan()
        .SequenceEqual(other.Runs.AsSpan());

    public override int GetHashCode() => HashCode.Combine(StyleId, Runs.Length, Runs[0]);
}

/// <summary>Text as it is kept: one paragraph or more. Places in it count UTF-16 units, with one for each line end between paragraphs.</summary>
public sealed partial record FrameText(ImmutableArray<Paragraph> Paragraphs)
{
    public const int LongestText = 200_000, MostParagraphs = 5000, MostRuns = 20_000;

    /// <summary>Ends a line without ending the paragraph.</summary>
    public const char LineSeparator = '\u2028';

    /// <summary>No text yet, to be set in a style.</summary>
    public static FrameText Empty(TextStyle style) => new([new("", style)]);

    /// <summary>No text yet, to be set as the publication's default says.</summary>
    public static readonly FrameText Unstyled = new([new Paragraph { Runs = [new("")] }]);

    /// <summary>No text yet, to be set as a paragraph is.</summary>
    public static FrameText EmptyLike(Paragraph paragraph) => new([paragraph with { Runs = [paragraph.Runs[0] with { Text = "" }] }]);

    /// <summary>The paragraphs with line ends between.</summary>
    public string Plain => string.Join('\n', Paragraphs.Select(p => p.Text));

    public bool IsEmpty => Paragraphs.All(p => p.Text.Length == 0);

    /// <summary>Line ends made one kind, and what is no text left out: controls but tabs, and halves of characters.</summary>
    public static string Clean(string text)
    {
        if (IsClean(text)) return text;
        var clean = new StringBuilder(text.Length);
        foreach (var rune in text.Replace("\r\n", "\n", StringComparison.Ordinal).Replace('\r', '\n').Replace('\u2029', '\n').EnumerateRunes())
            if (rune.Value is '\n' or '\t' || !Rune.IsControl(rune)) clean.Append(rune);
        return clean.ToString();
    }

    private static readonly SearchValues<char> Odd = SearchValues.Create([.. Enumerable.Range(0, 0xa0).Select(c => (char)c)
        .Where(c => char.IsControl(c) && c is not ('\n' or '\t')), '\u2029']);

    /// <summary>Whether nothing is odd in it; where there are halves of characters, it is not known yet.</summary>
    private static bool IsClean(string text) => text.AsSpan().IndexOfAny(Odd) < 0 && text.AsSpan().IndexOfAnyInRange('\ud800', '\udfff') < 0;

    public void Check(FieldErrors errors)
    {
        if (Paragraphs.IsDefaultOrEmpty || Paragraphs.Any(p => p is not { Set: not null, Runs.IsDefaultOrEmpty: false }
            || p.Runs.Any(r => r is not { Text: not null, Set: not null })))
            errors.Add("text", "A text has at least one paragraph, which may be empty, each with a run of characters.");
        else if (Paragraphs.SelectMany(p => p.Runs).Any(r => r.Text.Contains('\n', StringComparison.Ordinal) || Clean(r.Text) != r.Text))
            errors.Add("text", "A paragraph holds no line ends or other controls.");
        else if (Paragraphs.Length > MostParagraphs || Paragraphs.Sum(p => (long)p.Text.Length) > LongestText)
            errors.Add("text", $"A frame holds {LongestText:#,0} characters in {MostParagraphs:#,0} paragraphs at most. Spread the text over several frames.");
        else if (Paragraphs.Sum(p => p.Runs.Length) > MostRuns)
            errors.Add("text", $"A text changes its setting {MostRuns:#,0} times at most. Use paragraph styles for whole paragraphs.");
        else CheckSettings(errors);
    }

    private void CheckSettings(FieldErrors errors)
    {
        foreach (var set in Paragraphs.Select(p => p.Set).Concat(Paragraphs.SelectMany(p => p.Runs).Select(r => r.Set)).Distinct()) set.Check(errors);
        if (Paragraphs.SelectMany(p => p.Runs).Any(r => r.Set != r.Set.Only(TextSettings.OfCharacters)))
            errors.Add("runs", "Characters have no settings of whole paragraphs, such as an alignment. Set those on the paragraph.");
    }

    public bool Equals(FrameText? other) => other is not null && Paragraphs.AsSpan().SequenceEqual(other.Paragraphs.AsSpan());

    public override int GetHashCode() => HashCode.Combine(Paragraphs.Length, Paragraphs[0]);
}
