using System.Collections.Immutable;
using Formatum.Core.Stories;

namespace Formatum.Core.Typesetting;

/// <summary>
/// Sets text in frames: lines broken where UAX #14 lets them, as many words to each as fit, column by column, beside what they keep clear of.
/// </summary>
public static class TextSetter
{
    /// <param name="text">The text.</param>
    /// <param name="width">Width of the frame, in points.</param>
    /// <param name="height">Height of the frame, in points.</param>
    /// <param name="typefaces">The fonts.</param>
    public static SetText Set(StyledText text, double width, double height, ITypefaces typefaces) => Set(text, TextShape.Box(width, height), typefaces);

    /// <param name="text">The text.</param>
    /// <param name="shape">Where its lines may stand.</param>
    /// <param name="typefaces">The fonts.</param>
    public static SetText Set(StyledText text, TextShape shape, ITypefaces typefaces) => Set(text, [shape], typefaces)[0];

    /// <summary>Sets a text in frames, one after the other. What none of them has room for is left out of the last.</summary>
    /// <param name="text">The text.</param>
    /// <param name="chain">The frames.</param>
    /// <param name="typefaces">The fonts.</param>
    /// <param name="key">Names the text, so that what was worked out for it serves again when it is set anew.</param>
    public static ImmutableArray<SetText> Set(StyledText text, ImmutableArray<TextShape> chain, ITypefaces typefaces, int key = 0)
    {
        var paragraphs = ParagraphCache.Take(key, typefaces);
        try
        {
            return Set(text, chain, paragraphs);
        }
        finally
        {
            paragraphs.Return();
        }
    }

    private static ImmutableArray<SetText> Set(StyledText text, ImmutableArray<TextShape> chain, ParagraphCache paragraphs)
    {
        var run = Balanced(text, chain, paragraphs, Flow(text, chain, paragraphs));
        var (leftOut, wordsLeft) = LeftOver(text, run.SetUpTo);
        var byFrame = run.Lines.ToLookup(l => l.Frame, l => l.Line);
        return [.. chain.Select((shape, frame) =>
        {
            var lines = VerticalPlacing.Of([.. byFrame[frame]], shape);
            bool last = frame == chain.Length - 1;
            return new SetText(lines, last ? leftOut : 0, lines.Sum(MissingIn), last ? wordsLeft : 0);
        })];
    }

    private static ColumnFlow Flow(StyledText text, ImmutableArray<TextShape> chain, ParagraphCache paragraphs)
    {
        var run = new ColumnFlow(text, chain, paragraphs);
        run.SetAll();
        return run;
    }

    /// <summary>How far from the least height the columns of a balanced frame may end, in points.</summary>
    private const double Balance = 0.5;

    /// <summary>The text with the columns of the frame in which it ends as short as they can be with all of it in them, where that is wished.</summary>
    private static ColumnFlow Balanced(StyledText text, ImmutableArray<TextShape> chain, ParagraphCache paragraphs, ColumnFlow run)
    {
        int last = run.Lines.Select(l => l.Frame).DefaultIfEmpty(-1).Max();
        if (last < 0 || !chain[last].IsBalanced || LeftOver(text, run.SetUpTo).Characters > 0) return run;
        var column = chain[last].Columns[0];
        var (tooShort, enough) = (column.Top, column.Bottom);
        var best = run;
        while (enough - tooShort > Balance)
        {
            double foot = (tooShort + enough) / 2;
            var tried = Flow(text, [.. chain.Take(last), chain[last].Until(foot)], paragraphs);
            if (LeftOver(text, tried.SetUpTo).Characters > 0) tooShort = foot;
            else (enough, best) = (foot, tried);
        }
        return best;
    }

    private static int MissingIn(SetLine line)
    {
        int missing = 0;
        foreach (var run in line.Runs)
            foreach (ref readonly var glyph in run.Glyphs.AsSpan())
                if (glyph.Id == 0) missing++;
        return missing;
    }

    /// <summary>How many characters and words found no room.</summary>
    private static (int Characters, int Words) LeftOver(StyledText text, IReadOnlyList<int> setUpTo)
    {
        int characters = 0, words = 0;
        for (int p = 0; p < text.Paragraphs.Length; p++)
        {
            string paragraph = text.Paragraphs[p].Text;
            int set = characters == 0 ? setUpTo[p] : 0;
            words += WordsIn(paragraph.AsSpan(Math.Max(0, set)));
            if (characters == 0) characters = paragraph.Length - set;
            // An empty paragraph at the end takes no room that anybody would miss.
            else characters += paragraph.Length > 0 ? paragraph.Length : p < text.Paragraphs.Length - 1 ? 1 : 0;
        }
        return (characters, words);
    }

    private static int WordsIn(ReadOnlySpan<char> text)
    {
        int words = 0;
        for (int i = 0; i < text.Length; i++)
            if (!char.IsWhiteSpace(text[i]) && (i == 0 || char.IsWhiteSpace(text[i - 1]))) words++;
        return words;
    }
}
