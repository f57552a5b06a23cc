using System.Collections.Immutable;
using System.Text;
using Formatum.Core.Checks;

namespace Formatum.Core.Stories;

/// <summary>A paragraph, without the line end behind it. A line may be ended within it by U+2028.</summary>
public sealed record Paragraph(string Text, TextStyle Style);

/// <summary>The text of a frame: one paragraph or more.</summary>
public sealed record FrameText(ImmutableArray<Paragraph> Paragraphs)
{
    public const int LongestText = 200_000, MostParagraphs = 5000;

    /// <summary>Ends a line without ending the paragraph.</summary>
    public const char LineSeparator = '\u2028';

    /// <summary>No text yet, to be set in a style.</summary>
    public static FrameText Empty(TextStyle style) => new([new("", style)]);

    /// <summary>The paragraphs with line ends between.</summary>
    public string Plain => string.Join('\n', Paragraphs.Select(p => p.Text));

    public bool IsEmpty => Paragraphs.All(p => p.Text.Length == 0);

    /// <summary>Other words in the same styles: paragraphs that stay keep theirs, new ones take that of the paragraph before.</summary>
    public FrameText Worded(string plain)
    {
        string[] now = Clean(plain).Split('\n');
        int least = Math.Min(now.Length, Paragraphs.Length), same = 0, sameEnd = 0;
        while (same < least && now[same] == Paragraphs[same].Text) same++;
        while (sameEnd < least - same && now[^(sameEnd + 1)] == Paragraphs[^(sameEnd + 1)].Text) sameEnd++;
        return new([.. now.Select((text, i) =>
        {
            int from = i < now.Length - sameEnd ? Math.Min(i, Math.Max(0, Paragraphs.Length - sameEnd - 1)) : Paragraphs.Length - (now.Length - i);
            return new Paragraph(text, Paragraphs[from].Style);
        })]);
    }

    /// <summary>The paragraphs from one to another, counted from 0, in another style.</summary>
    public FrameText Styled(StyleChange change, int from = 0, int to = int.MaxValue) =>
        new([.. Paragraphs.Select((p, i) => i >= from && i <= to ? p with { Style = change.On(p.Style) } : p)]);

    /// <summary>Line ends made one kind, tabs made blanks, and what is no text left out: other controls and halves of characters.</summary>
    public static string Clean(string text)
    {
        var clean = new StringBuilder(text.Length);
        foreach (var rune in text.Replace("\r\n", "\n", StringComparison.Ordinal).Replace('\r', '\n').Replace('\u2029', '\n').EnumerateRunes())
        {
            if (rune.Value == '\t') clean.Append(' ');
            else if (rune.Value is '\n' || !Rune.IsControl(rune)) clean.Append(rune);
        }
        return clean.ToString();
    }

    public void Check(FieldErrors errors)
    {
        if (Paragraphs.IsDefaultOrEmpty || Paragraphs.Any(p => p is not { Text: not null, Style: not null }))
            errors.Add("text", "A text has at least one paragraph, which may be empty, each with a style.");
        else if (Paragraphs.Any(p => p.Text.Contains('\n', StringComparison.Ordinal) || Clean(p.Text) != p.Text))
            errors.Add("text", "A paragraph holds no line ends, tabs or other controls.");
        else if (Paragraphs.Length > MostParagraphs || Paragraphs.Sum(p => (long)p.Text.Length) > LongestText)
            errors.Add("text", $"A frame holds {LongestText:#,0} characters in {MostParagraphs:#,0} paragraphs at most. Spread the text over several frames.");
        else foreach (var style in Paragraphs.Select(p => p.Style).Distinct()) style.Check(errors);
    }

    public bool Equals(FrameText? other) => other is not null && Paragraphs.AsSpan().SequenceEqual(other.Paragraphs.AsSpan());

    public override int GetHashCode() => HashCode.Combine(Paragraphs.Length, Paragraphs[0]);
}
