using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Stories;

namespace Formatum.Core.Typesetting;

/// <summary>A line of set text, or the piece of one that stands to one side of something it keeps clear of.</summary>
/// <param name="Text">What it shows, without the blanks that hang over its end.</param>
/// <param name="Start">Where it begins in the paragraph, in UTF-16 units.</param>
/// <param name="Paragraph">Which paragraph, from 0.</param>
/// <param name="Style">How it is set.</param>
/// <param name="X">Where it begins, in points from the left of the frame.</param>
/// <param name="Baseline">Its baseline, in points from the top of the frame.</param>
/// <param name="Width">How wide it is, in points.</param>
/// <param name="Blank">What each blank is widened by to fill the line, in points.</param>
/// <param name="Glyphs">Its glyphs; their advances have the widening in them.</param>
/// <param name="Column">Which column it stands in, from 0.</param>
public sealed record SetLine(string Text, int Start, int Paragraph, TextStyle Style, double X, double Baseline, double Width, double Blank,
    ImmutableArray<Glyph> Glyphs, int Column = 0)
{
    /// <summary>Where its band ends, in points from the top of the frame.</summary>
    public double Bottom { get; init; }
}

/// <summary>Text as it stands in a frame.</summary>
/// <param name="Lines">The lines that fit.</param>
/// <param name="LeftOut">How many characters do not fit in.</param>
/// <param name="Missing">How many characters the fonts have no glyph for.</param>
/// <param name="WordsLeftOver">How many words do not fit in.</param>
public sealed record SetText(ImmutableArray<SetLine> Lines, int LeftOut, int Missing, int WordsLeftOver = 0)
{
    public bool Overflows => LeftOut > 0;
}

/// <summary>
/// Sets text in a frame: lines broken where UAX #14 lets them, as many words to each as fit, column by column, beside what they keep clear of. The baseline
/// stands in its line as CSS Inline Layout 3 says (half of what the leading is more than the face's reach lies above, half below).
/// </summary>
public static class TextSetter
{
    /// <summary>So much may be too wide or too high before it counts, in points.</summary>
    private const double Hair = 0.001;

    /// <summary>A line that finds no room looks for it so much lower, in points.</summary>
    private const double Step = 1;

    /// <param name="text">The text.</param>
    /// <param name="width">Width of the frame, in points.</param>
    /// <param name="height">Height of the frame, in points.</param>
    /// <param name="typefaces">The fonts.</param>
    public static SetText Set(FrameText text, double width, double height, ITypefaces typefaces) => Set(text, TextShape.Box(width, height), typefaces);

    /// <param name="text">The text.</param>
    /// <param name="shape">Where its lines may stand.</param>
    /// <param name="typefaces">The fonts.</param>
    public static SetText Set(FrameText text, TextShape shape, ITypefaces typefaces) => Set(text, [shape], typefaces)[0];

    /// <summary>Sets a text in frames, one after the other. What none of them has room for is left out of the last.</summary>
    public static ImmutableArray<SetText> Set(FrameText text, ImmutableArray<TextShape> chain, ITypefaces typefaces) =>
        new Setting(text, chain, typefaces).Set();

    /// <summary>A column of one of the frames.</summary>
    /// <param name="Frame">Which frame, from 0.</param>
    /// <param name="Number">Which of its columns, from 0.</param>
    /// <param name="Shape">The frame's shape.</param>
    private readonly record struct Place(int Frame, int Number, TextShape Shape)
    {
        public Column Column => Shape.Columns[Number];
    }

    /// <summary>One text on its way into its frames.</summary>
    private sealed class Setting
    {
        private readonly FrameText _text;
        private readonly ImmutableArray<TextShape> _chain;
        private readonly ITypefaces _typefaces;
        private readonly ImmutableArray<Place> _places;
        private readonly List<SetLine>[] _lines;
        private int _place;
        private double _top;

        public Setting(FrameText text, ImmutableArray<TextShape> chain, ITypefaces typefaces)
        {
            (_text, _chain, _typefaces) = (text, chain, typefaces);
            _places = [.. chain.SelectMany((shape, frame) => shape.Columns.Select((_, number) => new Place(frame, number, shape)))];
            _lines = [.. chain.Select(_ => new List<SetLine>())];
            _top = _places.IsEmpty ? 0 : _places[0].Column.Top;
        }

        public ImmutableArray<SetText> Set()
        {
            int leftOut = 0, wordsLeft = 0;
            for (int p = 0; p < _text.Paragraphs.Length; p++)
            {
                var (words, style) = _text.Paragraphs[p];
                int set = leftOut == 0 ? Paragraph(p, words, style) : 0;
                wordsLeft += WordsIn(words.AsSpan(Math.Max(0, set)));
                if (leftOut == 0) leftOut = words.Length - set;
                // An empty paragraph at the end takes no room that anybody would miss.
                else leftOut += words.Length > 0 ? words.Length : p < Paragraphs - 1 ? 1 : 0;
                _top += style.SpaceAfter;
            }
            return [.. _chain.Select((shape, frame) =>
            {
                var lines = VerticalPlacing.Of([.. _lines[frame]], shape);
                return new SetText(lines, frame == _chain.Length - 1 ? leftOut : 0, lines.Sum(l => l.Glyphs.Count(g => g.Id == 0)),
                    frame == _chain.Length - 1 ? wordsLeft : 0);
            })];
        }

        private static int WordsIn(ReadOnlySpan<char> text)
        {
            int words = 0;
            for (int i = 0; i < text.Length; i++)
                if (!char.IsWhiteSpace(text[i]) && (i == 0 || char.IsWhiteSpace(text[i - 1]))) words++;
            return words;
        }

        /// <summary>Sets a paragraph; how much of it found room, in UTF-16 units. One without words that found none counts as one too few.</summary>
        private int Paragraph(int number, string text, TextStyle style)
        {
            if (_place < _places.Length && _top > _places[_place].Column.Top) _top += style.SpaceBefore;
            var words = Words.Of(number, text, style, _typefaces);
            if (style.Alignment == TextAlignment.Justified && text.Length > 0 && Together(words) is { } together) return together;
            int start = 0;
            do
            {
                if (FindRoom(style.LineHeight) is not { } free) return text.Length == 0 && number < Paragraphs - 1 ? -1 : start;
                int end = Line(words, start, free);
                if (end == start && text.Length > 0) _top += Step;
                else _top += style.LineHeight;
                start = end;
            }
            while (start < text.Length);
            return start;
        }

        private int Paragraphs => _text.Paragraphs.Length;

        /// <summary>A stretch of a band in which a line may stand.</summary>
        private readonly record struct Slot(int Place, double Top, Interval Stretch);

        /// <summary>So many sizes wide is the narrowest stretch in which lines are justified: narrower, few words stand far apart. Common practice, no
        /// source.</summary>
        private const double NarrowestJustified = 6;

        /// <summary>Sets a paragraph by choosing all its lines together; how much of it found room. Null where there is no good way.</summary>
        private int? Together(in Words words)
        {
            var (style, slots) = (words.Style, new List<Slot>());
            using var more = Slots(style).GetEnumerator();
            // Beyond the last column it goes on in lines that nobody sees, as long as the last one was.
            double Width(int line)
            {
                while (slots.Count <= line && more.MoveNext()) slots.Add(more.Current);
                double width = slots.Count == 0 ? 0 : slots[Math.Min(line, slots.Count - 1)].Stretch.Width;
                return line == 0 ? width - style.Indent : width;
            }
            if (WholeParagraph.Ends(words.Measured(_typefaces), Width) is not { } ends) return null;
            int start = 0;
            for (int i = 0; i < ends.Count && i < slots.Count; i++)
            {
                (_place, _top) = (slots[i].Place, slots[i].Top);
                Add(words, Laid(words, start, ends[i], slots[i].Stretch, ShapeLine(words, start, ends[i], _typefaces)));
                _top += style.LineHeight;
                start = ends[i];
            }
            if (start < words.Text.Length) _place = _places.Length;
            return start;
        }

        private IEnumerable<Slot> Slots(TextStyle style)
        {
            double height = style.LineHeight, top = _top;
            for (int place = _place; place < _places.Length; place++)
            {
                var column = _places[place].Column;
                if (place > _place) top = column.Top;
                double narrowest = Math.Min(NarrowestJustified * style.Size, column.Width - Hair);
                while (top + height <= column.Bottom + Hair)
                {
                    var free = _places[place].Shape.Free(column, top, top + height).Where(s => s.Width >= narrowest).ToList();
                    foreach (var stretch in free) yield return new(place, top, stretch);
                    top += free.Count > 0 ? height : Step;
                }
            }
        }

        /// <summary>The stretches in which the next line may stand, in this column or a later one; null where there is no room any more.</summary>
        private IReadOnlyList<Interval>? FindRoom(double height)
        {
            for (; _place < _places.Length; NextColumn())
            {
                var column = _places[_place].Column;
                for (; _top + height <= column.Bottom + Hair; _top += Step)
                    if (_places[_place].Shape.Free(column, _top, _top + height) is { Count: > 0 } free) return free;
            }
            return null;
        }

        private void NextColumn()
        {
            if (++_place < _places.Length) _top = _places[_place].Column.Top;
        }

        /// <summary>Sets a line in the stretches that are free; where it ends. It ends where it began where none of them takes a word.</summary>
        private int Line(Words words, int start, IReadOnlyList<Interval> free)
        {
            int at = start;
            foreach (var stretch in free)
            {
                if (at == words.Text.Length && at > start) break;
                bool whole = stretch.Width >= _places[_place].Column.Width - Hair;
                if (Piece(words, at, stretch, whole) is not var (line, end)) continue;
                Add(words, line);
                at = end;
                if (words.Text.Length == 0 || words.Breaks[end] == LineBreak.Required) break;
            }
            return at;
        }

        private void Add(in Words words, SetLine line)
        {
            var (ascent, descent) = _typefaces.ReachOf(words.Style);
            _lines[_places[_place].Frame].Add(line with
            {
                Paragraph = words.Paragraph,
                Baseline = _top + (words.Style.LineHeight - ascent - descent) / 2 + ascent,
                Bottom = _top + words.Style.LineHeight,
                Column = _places[_place].Number,
            });
        }

        /// <summary>As much of a paragraph as a stretch takes; null where not even a word fits and there may be more room elsewhere.</summary>
        private (SetLine Line, int End)? Piece(in Words words, int start, in Interval stretch, bool whole)
        {
            double width = words.WidthOf(stretch, start);
            if (words.Text.Length == 0) return (Laid(words, 0, 0, stretch, []), 0);
            int end = FirstEnd(words, start, width, whole);
            if (end == start) return null;
            var glyphs = ShapeLine(words, start, end, _typefaces);
            // Letters at the end of a line stand a little otherwise than within it: take a word less where that makes it too wide.
            while (Width(glyphs) > width + Hair && EndBefore(words.Breaks, start, end) is > 0 and int sooner)
            {
                end = sooner;
                glyphs = ShapeLine(words, start, end, _typefaces);
            }
            if (!whole && Width(glyphs) > width + Hair) return null;
            return (Laid(words, start, end, stretch, glyphs), end);
        }
    }

    /// <summary>A paragraph with all that is known of it before its lines are broken.</summary>
    private readonly record struct Words(int Paragraph, string Text, TextStyle Style, LineBreak[] Breaks, double[] UpTo, double Hyphen)
    {
        public static Words Of(int number, string text, TextStyle style, ITypefaces typefaces)
        {
            var breaks = text.Length == 0 ? [] : LineBreaking.In(text);
            double hyphen = 0;
            if (style.Hyphenate && Hyphenation.Of(style.Language) is { } hyphenation)
            {
                hyphenation.Mark(text, breaks);
                hyphen = TextSetter.Width(typefaces.Shape("-", style));
            }
            return new(number, text, style, breaks, Reach(text, style, typefaces), hyphen);
        }

        /// <summary>How much of a stretch a line that begins at a place has: the first of a paragraph begins later.</summary>
        public double WidthOf(in Interval stretch, int start) => stretch.Width - (start == 0 ? Style.Indent : 0);

        public WholeParagraph.Measured Measured(ITypefaces typefaces)
        {
            string text = Text;
            var blanks = new int[text.Length + 1];
            for (int i = 0; i < text.Length; i++) blanks[i + 1] = blanks[i] + (text[i] == ' ' ? 1 : 0);
            return new(Breaks, UpTo, (start, end) => TrimmedEnd(text, start, end), blanks, TextSetter.Width(typefaces.Shape(" ", Style)), Hyphen);
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

    /// <summary>Where the line that begins at a place ends: behind the last word that fits, or within one that is wider than a whole line; where it begins,
    /// where it is no whole line and no word fits.</summary>
    private static int FirstEnd(in Words words, int start, double width, bool whole)
    {
        var (_, text, _, breaks, upTo, hyphen) = words;
        int fits = 0;
        for (int at = start + 1; at <= text.Length; at++)
        {
            if (breaks[at] == LineBreak.Prohibited) continue;
            double reach = upTo[TrimmedEnd(text, start, at)] - upTo[start];
            // A little farther on a word may end that is shorter than its part with a hyphen.
            if (breaks[at] == LineBreak.Hyphen && reach + hyphen > width + Hair && reach <= width + Hair) continue;
            if (reach > width + Hair) break;
            fits = at;
            if (breaks[at] == LineBreak.Required) break;
        }
        if (fits > 0 || !whole) return Math.Max(fits, start);
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
            if (breaks[at] is LineBreak.Allowed or LineBreak.Hyphen) return at;
        return 0;
    }

    /// <summary>Where what a line shows ends: blanks and line ends behind it hang over.</summary>
    private static int TrimmedEnd(string text, int start, int end)
    {
        while (end > start && text[end - 1] is ' ' or FrameText.LineSeparator or '\u2029' or '\n') end--;
        return end;
    }

    private static string Shown(in Words words, int start, int end)
    {
        string text = words.Text, shown = text[start..TrimmedEnd(text, start, end)];
        if (end == text.Length) return shown;
        // A soft hyphen shows at the end of a line alone.
        return words.Breaks[end] == LineBreak.Hyphen ? shown + '-' : shown.EndsWith('\u00ad') ? shown[..^1] + '-' : shown;
    }

    private static ImmutableArray<Glyph> ShapeLine(in Words words, int start, int end, ITypefaces typefaces) =>
        typefaces.Shape(Shown(words, start, end), words.Style);

    private static SetLine Laid(in Words words, int start, int end, in Interval stretch, ImmutableArray<Glyph> glyphs)
    {
        var style = words.Style;
        string shown = words.Text.Length == 0 ? "" : Shown(words, start, end);
        double width = words.WidthOf(stretch, start), natural = Width(glyphs), blank = 0;
        bool last = end == words.Text.Length || words.Breaks[end] == LineBreak.Required;
        int blanks = shown.Count(c => c == ' ');
        if (style.Alignment == TextAlignment.Justified && blanks > 0 && (last ? natural > width : natural != width))
        {
            blank = (width - natural) / blanks;
            glyphs = [.. glyphs.Select(g => shown[g.Cluster] == ' ' ? g with { Advance = g.Advance + blank } : g)];
            natural = width;
        }
        double from = stretch.To - width;
        return new(shown, start, 0, style, from + Indent(style, width, natural), 0, natural, blank, glyphs);
    }

    private static double Width(ImmutableArray<Glyph> glyphs) => glyphs.Sum(g => g.Advance);

    private static double Indent(TextStyle style, double width, double line) =>
        style.Alignment switch { TextAlignment.Centre => (width - line) / 2, TextAlignment.Right => width - line, _ => 0 };
}
