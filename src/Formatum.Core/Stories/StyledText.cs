using System.Collections.Immutable;

namespace Formatum.Core.Stories;

/// <summary>Characters with all that decides how they are set.</summary>
/// <param name="Start">Where they begin in their paragraph, in UTF-16 units.</param>
/// <param name="Length">How many there are.</param>
/// <param name="Style">How they are set.</param>
public sealed record StyledRun(int Start, int Length, TextStyle Style);

/// <summary>A paragraph with all that decides how it is set.</summary>
/// <param name="Text">Its words, with its fields filled in.</param>
/// <param name="Style">How it is set as a whole.</param>
/// <param name="Runs">How its characters are; they cover all of it.</param>
/// <param name="Label">What stands before its first line, as in a list; nothing where empty.</param>
public sealed record StyledParagraph(string Text, TextStyle Style, ImmutableArray<StyledRun> Runs, string Label = "")
{
    public bool Equals(StyledParagraph? other) => other is not null && Text == other.Text && Style == other.Style && Label == other.Label
        && Runs.AsSpan().SequenceEqual(other.Runs.AsSpan());

    public override int GetHashCode() => HashCode.Combine(Text, Runs.Length);
}

/// <summary>Text with every setting resolved: what is set in lines.</summary>
public sealed record StyledText(ImmutableArray<StyledParagraph> Paragraphs)
{
    public const string Bullet = "\u2022";

    /// <param name="text">The text as it is kept.</param>
    /// <param name="paragraphStyle">What a paragraph style comes to, over all it is based on and the default; null stands for no style.</param>
    /// <param name="characterStyle">What a character style comes to, over all it is based on.</param>
    /// <param name="names">What names in settings stand for; null where none are looked up.</param>
    public static StyledText Of(FrameText text, Func<int?, TextSettings> paragraphStyle, Func<int, TextSettings> characterStyle,
        ITextNames? names = null)
    {
        var styles = new Dictionary<TextSettings, TextStyle>();
        TextStyle Resolved(TextSettings settings) => styles.TryGetValue(settings, out var known) ? known : styles[settings] = TextStyle.Of(settings, names);
        var paragraphs = ImmutableArray.CreateBuilder<StyledParagraph>(text.Paragraphs.Length);
        int number = 0;
        foreach (var p in text.Paragraphs)
        {
            var settings = p.Set.Over(paragraphStyle(p.StyleId));
            var style = Resolved(settings);
            number = style.List == ListKind.Number ? number + 1 : 0;
            string label = style.List switch { ListKind.Bullet => Bullet, ListKind.Number => FormattableString.Invariant($"{number}."), _ => "" };
            int start = 0;
            var runs = p.Runs.Select(r =>
            {
                var own = r.StyleId is { } id ? r.Set.Over(characterStyle(id)) : r.Set;
                var run = new StyledRun(start, r.Text.Length, own.IsOpen ? style : Resolved(own.Over(settings)));
                start += r.Text.Length;
                return run;
            });
            paragraphs.Add(new(p.Text, style, [.. runs], label));
        }
        return new(paragraphs.MoveToImmutable());
    }

    /// <summary>Text in which no style is named.</summary>
    public static StyledText Of(FrameText text) => Of(text, _ => TextSettings.Open, _ => TextSettings.Open);

    public bool Equals(StyledText? other) => other is not null && Paragraphs.AsSpan().SequenceEqual(other.Paragraphs.AsSpan());

    public override int GetHashCode() => HashCode.Combine(Paragraphs.Length, Paragraphs[0]);
}
