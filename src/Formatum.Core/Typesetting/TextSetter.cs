using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Stories;

namespace Formatum.Core.Typesetting;

/// <summary>A line of set text.</summary>
/// <param name="Text">What it shows, without the blanks that hang over its end.</param>
/// <param name="Start">Where it begins in the paragraph, in UTF-16 units.</param>
/// <param name="Paragraph">Which paragraph, from 0.</param>
/// <param name="Style">How it is set.</param>
/// <param name="X">Where it begins, in points from the left of the frame.</param>
/// <param name="Baseline">Its baseline, in points from the top of the frame.</param>
/// <param name="Width">How wide it is, in points.</param>
/// <param name="Blank">What each blank is widened by to fill the line, in points.</param>
/// <param name="Glyphs">Its glyphs; their advances have the widening in them.</param>
public sealed record SetLine(string Text, int Start, int Paragraph, TextStyle Style, double X, double Baseline, double Width, double Blank,
    ImmutableArray<Glyph> Glyphs);

/// <summary>Text as it stands in a frame.</summary>
/// <param name="Lines">The lines that fit.</param>
/// <param name="LeftOut">How many characters do not fit in.</param>
/// <param name="Missing">How many characters the fonts have no glyph for.</param>
public sealed record SetText(ImmutableArray<SetLine> Lines, int LeftOut, int Missing)
{
    public bool Overflows => LeftOut > 0;
}

/// <summary>
/// Sets text in a frame: lines broken where UAX #14 lets them, as many words to each as fit. The baseline stands in its line as CSS Inline Layout 3
/// says (half of what the leading is more than the face's reach lies above, half below).
/// </summary>
public static class TextSetter
{
    /// <summary>So much may be too wide or too high before it counts, in points.</summary>
    private const double Hair = 0.001;

    /// <param name="text">The text.</param>
    /// <param name="width">Width of the frame, in points.</param>
    /// <param name="height">Height of the frame, in points.</param>
    /// <param name="typefaces">The fonts.</param>
    public static SetText Set(FrameText text, double width, double height, ITypefaces typefaces)
    {
        var lines = ImmutableArray.CreateBuilder<SetLine>();
        double top = 0;
        int leftOut = 0, missing = 0;
        for (int p = 0; p < text.Paragraphs.Length; p++)
        {
            var (words, style) = text.Paragraphs[p];
            var (ascent, descent) = typefaces.ReachOf(style);
            double rise = (style.LineHeight - ascent - descent) / 2 + ascent;
            foreach (var line in Lines(words, style, width, typefaces))
            {
                if (leftOut > 0 || top + style.LineHeight > height + Hair)
                {
                    // An empty paragraph at the end takes no room that anybody would miss.
                    leftOut += line.Text.Length + (p < text.Paragraphs.Length - 1 && words.Length == 0 ? 1 : 0);
                    continue;
                }
                missing += line.Glyphs.Count(g => g.Id == 0);
                lines.Add(line with { Paragraph = p, Baseline = top + rise });
                top += style.LineHeight;
            }
            top += style.SpaceAfter;
        }
        return new(lines.ToImmutable(), leftOut, missing);
    }

    private static IEnumerable<SetLine> Lines(string text, TextStyle style, double width, ITypefaces typefaces)
    {
        if (text.Length == 0)
        {
            yield return new("", 0, 0, style, Indent(style, width, 0), 0, 0, 0, []);
            yield break;
        }
        var breaks = LineBreaking.In(text);
        double[] upTo = Reach(text, style, typefaces);
        int start = 0;
        while (start < text.Length)
        {
            int end = FirstEnd(text, breaks, upTo, start, width);
            var glyphs = ShapeLine(text, start, end, style, typefaces);
            // Letters at the end of a line stand a little otherwise than within it: take a word less where that makes it too wide.
            while (Width(glyphs) > width + Hair && EndBefore(breaks, start, end) is > 0 and int sooner)
            {
                end = sooner;
                glyphs = ShapeLine(text, start, end, style, typefaces);
            }
            bool last = end == text.Length || breaks[end] == LineBreak.Required;
            yield return Laid(text, start, end, style, width, glyphs, last);
            start = end;
        }
    }

    /// <summary>How far the text reaches from its beginning up to each UTF-16 unit, were it all on one line.</summary>
    private static double[] Reach(string text, TextStyle style, ITypefaces typefaces)
    {
        var upTo = new double[text.Length + 1];
        foreach (var glyph in typefaces.Shape(text, style)) upTo[glyph.Cluster + 1] += glyph.Advance;
        for (int i = 1; i <= text.Length; i++) upTo[i] += upTo[i - 1];
        return upTo;
    }

    /// <summary>Where the line that begins at a place ends: behind the last word that fits, or within one that is wider than the line.</summary>
    private static int FirstEnd(string text, LineBreak[] breaks, double[] upTo, int start, double width)
    {
        int fits = 0;
        for (int at = start + 1; at <= text.Length; at++)
        {
            if (breaks[at] == LineBreak.Prohibited) continue;
            if (upTo[TrimmedEnd(text, start, at)] - upTo[start] > width + Hair) break;
            fits = at;
            if (breaks[at] == LineBreak.Required) break;
        }
        if (fits > 0) return fits;
        // As CSS Text 3 does with "overflow-wrap: anywhere": between characters as people see them, one at least.
        int next = start;
        do
        {
            int step = StringInfo.GetNextTextElementLength(text, next);
            if (next > start && upTo[next + step] - upTo[start] > width + Hair) break;
            next += step;
        }
        while (next < text.Length && breaks[next] != LineBreak.Required);
        return next;
    }

    private static int EndBefore(LineBreak[] breaks, int start, int end)
    {
        for (int at = end - 1; at > start; at--)
            if (breaks[at] == LineBreak.Allowed) return at;
        return 0;
    }

    /// <summary>Where what a line shows ends: blanks and line ends behind it hang over.</summary>
    private static int TrimmedEnd(string text, int start, int end)
    {
        while (end > start && text[end - 1] is ' ' or FrameText.LineSeparator or '\u2029' or '\n') end--;
        return end;
    }

    private static string Shown(string text, int start, int end)
    {
        string shown = text[start..TrimmedEnd(text, start, end)];
        // A soft hyphen shows at the end of a line alone.
        return shown.EndsWith('\u00ad') && end < text.Length ? shown[..^1] + '-' : shown;
    }

    private static ImmutableArray<Glyph> ShapeLine(string text, int start, int end, TextStyle style, ITypefaces typefaces) =>
        typefaces.Shape(Shown(text, start, end), style);

    private static SetLine Laid(string text, int start, int end, TextStyle style, double width, ImmutableArray<Glyph> glyphs, bool last)
    {
        string shown = Shown(text, start, end);
        double natural = Width(glyphs), blank = 0;
        int blanks = shown.Count(c => c == ' ');
        if (style.Alignment == TextAlignment.Justified && !last && blanks > 0 && natural < width)
        {
            blank = (width - natural) / blanks;
            glyphs = [.. glyphs.Select(g => shown[g.Cluster] == ' ' ? g with { Advance = g.Advance + blank } : g)];
            natural = width;
        }
        return new(shown, start, 0, style, Indent(style, width, natural), 0, natural, blank, glyphs);
    }

    private static double Width(ImmutableArray<Glyph> glyphs) => glyphs.Sum(g => g.Advance);

    private static double Indent(TextStyle style, double width, double line) =>
        style.Alignment switch { TextAlignment.Centre => (width - line) / 2, TextAlignment.Right => width - line, _ => 0 };
}
