using System.Collections.Immutable;
using System.Globalization;
using System.Runtime.InteropServices;
using Formatum.Core.Stories;

namespace Formatum.Core.Typesetting;

/// <summary>A paragraph with all that is known of it before its lines are broken. Lengths in points.</summary>
internal sealed class MeasuredParagraph
{
    /// <summary>So much may be too wide or too high before it counts.</summary>
    public const double Hair = 0.001;

    private readonly ITypefaces _typefaces;
    private readonly double[] _upTo;

    public StyledParagraph Source { get; }
    public string Text => Source.Text;
    public TextStyle Style => Source.Style;

    /// <summary>Where lines may end.</summary>
    public LineBreak[] Breaks { get; }

    public bool HasTabs { get; }

    /// <summary>Width of a hyphen.</summary>
    public double Hyphen { get; }

    /// <summary>What of the text stands on its lines begins here: behind its initial.</summary>
    public int Begin { get; }

    /// <summary>Its initial, from 0 to the right; null where it has none.</summary>
    public SetRun? Initial { get; }

    /// <summary>What stands before its first line, and how far from its left indent; null where nothing does.</summary>
    public SetRun? Label { get; }

    private readonly BidiLevels? _levels;
    private readonly double _firstIndent;
    private readonly bool _hasStrokes;

    public MeasuredParagraph(StyledParagraph source, ITypefaces typefaces)
    {
        (Source, _typefaces) = (source, typefaces);
        HasTabs = Text.Contains('\t', StringComparison.Ordinal);
        Breaks = Text.Length == 0 ? [] : LineBreaking.In(Text);
        if (Style.Hyphenate && Hyphenation.Of(Style.Language) is { } hyphenation)
        {
            hyphenation.Mark(Text, Breaks);
            foreach (var (from, to) in Addresses.In(Text))
                for (int at = from; at < to; at++) if (Breaks[at] == LineBreak.Hyphen) Breaks[at] = LineBreak.Prohibited;
            Hyphen = Width(typefaces.Shape("-", Style));
        }
        _levels = Bidi.LevelsOf(Text);
        _upTo = Reach();
        Strut = HeightOf(Style);
        IsEven = source.Runs.All(run => HeightOf(run.Style) is var (above, below) && above <= Strut.Above + Hair && below <= Strut.Below + Hair);
        _hasStrokes = Style.LineAbove > 0 || Style.LineBelow > 0 || source.Runs.Any(r => r.Style.Underline || r.Style.StrikeThrough);
        _firstIndent = Style.Indent;
        if (source.Label.Length > 0)
        {
            Label = new(source.Label, 0, Style, Style.Indent, typefaces.Shape(source.Label, Style)) { IsTyped = false };
            // A hanging label stands before the words where there is room for it; else they begin behind it. The gaps are common practice, no source.
            _firstIndent = Style.Indent < 0 ? Math.Max(0, Style.Indent + Label.Width + 0.3 * Style.Size) : Style.Indent + Label.Width + 0.5 * Style.Size;
        }
        if (Style.InitialLines > 1 && Text.Length > 0 && !char.IsWhiteSpace(Text[0]))
        {
            Begin = StringInfo.GetNextTextElementLength(Text);
            Initial = InitialOf(Text[..Begin]);
            while (Begin < Text.Length && Text[Begin] == ' ') Begin++;
        }
    }

    /// <summary>How far its own lines reach above and below their baselines.</summary>
    public (double Above, double Below) Strut { get; }

    /// <summary>Whether none of its characters needs higher lines.</summary>
    public bool IsEven { get; }

    /// <summary>The leading's excess over the face's reach lies half above, half below (CSS Inline Layout 3, 5.1). Raised characters take
    /// no more room.</summary>
    private (double Above, double Below) HeightOf(TextStyle style)
    {
        var (ascent, descent) = _typefaces.ReachOf(style);
        double above = (style.LineHeight - ascent - descent) / 2 + ascent;
        return (above, style.LineHeight - above);
    }

    /// <summary>How far a line of some of its characters reaches above and below its baseline.</summary>
    public (double Above, double Below) HeightOf(int start, int end)
    {
        var (above, below) = Strut;
        if (IsEven) return Strut;
        foreach (var run in Source.Runs.Where(r => r.Start < end && r.Start + r.Length > start))
        {
            var (a, b) = HeightOf(run.Style);
            (above, below) = (Math.Max(above, a), Math.Max(below, b));
        }
        return (above, below);
    }

    /// <summary>How much later than at its left indent a line begins.</summary>
    /// <param name="line">Which line, from 0.</param>
    public double IndentOf(int line) => (line == 0 ? _firstIndent : 0) + (Initial is not null && line < Style.InitialLines ? Initial.Width + InitialGap : 0);

    /// <summary>Between an initial and the words beside it. Common practice, no source.</summary>
    private double InitialGap => 0.25 * Style.Size;

    private SetRun InitialOf(string character)
    {
        var style = StyleAt(0);
        double ratio = _typefaces.MeasuresOf(style).CapHeight / style.Size, down = (Style.InitialLines - 1) * Style.LineHeight;
        var large = style with { Size = (down + ratio * Style.Size) / ratio, Tracking = 0 };
        return new(Shown(character, style), 0, large, 0, _typefaces.Shape(Shown(character, style), large)) { Size = large.Size, Raise = -down };
    }

    private TextStyle StyleAt(int at) => Source.Runs.LastOrDefault(r => r.Start <= at && r.Length > 0)?.Style ?? Style;

    /// <summary>How far the text reaches from its beginning up to each UTF-16 unit, were it all on one line; tabs have no width of their own.</summary>
    private double[] Reach()
    {
        var upTo = new double[Text.Length + 1];
        foreach (var (style, from, to) in Pieces(0, Text.Length))
        {
            var glyphs = _typefaces.Shape(Shown(Text[from..to], style), style, IsRight(from));
            foreach (ref readonly var glyph in glyphs.AsSpan()) upTo[from + glyph.Cluster + 1] += glyph.Advance;
            if (!IsRight(from)) _shaped.Add(new(from, to, glyphs));
        }
        for (int i = 1; i <= Text.Length; i++) upTo[i] += upTo[i - 1];
        return upTo;
    }

    private readonly List<ShapedPiece> _shaped = [];

    /// <summary>The glyphs of a part of the text, where they are the same as if it were shaped alone; else null.</summary>
    private ImmutableArray<Glyph>? CutOut(int from, int to)
    {
        foreach (var piece in _shaped)
            if (piece.From <= from && piece.To >= to) return piece.CutOut(from, to);
        return null;
    }

    private bool IsRight(int at) => _levels?.IsRight(at) == true;

    /// <summary>What is set alike and runs one way, without tabs, from a place to another.</summary>
    private IEnumerable<(TextStyle Style, int From, int To)> Pieces(int start, int end)
    {
        foreach (var run in Source.Runs)
        {
            int from = Math.Max(start, run.Start), to = Math.Min(end, run.Start + run.Length);
            while (from < to)
            {
                int tab = HasTabs ? Text.IndexOf('\t', from, to - from) : -1, until = tab < 0 ? to : tab;
                while (_levels?.EndAt(from) is { } turns && turns < until)
                {
                    yield return (run.Style, from, turns);
                    from = turns;
                }
                if (until > from) yield return (run.Style, from, until);
                from = until + 1;
                if (tab < 0) break;
            }
        }
    }

    private static string Shown(string text, TextStyle style) => style.Case == TextCase.Capitals ? text.ToUpperInvariant() : text;

    /// <summary>Where what a line shows ends: blanks and line ends behind it hang over.</summary>
    public int TrimmedEnd(int start, int end)
    {
        while (end > start && Text[end - 1] is ' ' or FrameText.LineSeparator or '\u2029' or '\n') end--;
        return end;
    }

    /// <summary>How wide a line of some characters would be.</summary>
    /// <param name="start">Where it begins.</param>
    /// <param name="end">Where what it shows ends.</param>
    /// <param name="left">How far from the left edge of its column it begins; tab stops count from there.</param>
    public double WidthOf(int start, int end, double left) => HasTabs ? Tabbed(start, end, left).Width : _upTo[end] - _upTo[start];

    /// <summary>The room that a tab takes, from one place in the line to another.</summary>
    private readonly record struct Gap(int At, double From, double To, string Leader);

    private (double Width, List<Gap> Gaps) Tabbed(int start, int end, double left)
    {
        var gaps = new List<Gap>();
        double x = left;
        for (int from = start; ;)
        {
            int tab = Text.IndexOf('\t', from, end - from);
            x += _upTo[tab < 0 ? end : tab] - _upTo[from];
            if (tab < 0) return (x - left, gaps);
            int next = Text.IndexOf('\t', tab + 1, end - tab - 1);
            var stop = Style.Tabs.After(x);
            double to = Math.Max(x, stop.At - Before(stop.Alignment, tab + 1, next < 0 ? end : next));
            gaps.Add(new(tab, x - left, to - left, stop.Leader));
            (x, from) = (to, tab + 1);
        }
    }

    /// <summary>How much of the words behind a tab stands before its stop.</summary>
    private double Before(TabAlignment alignment, int from, int to)
    {
        double Up(int at) => _upTo[at] - _upTo[from];
        if (alignment != TabAlignment.Decimal) return alignment switch { TabAlignment.Right => Up(to), TabAlignment.Centre => Up(to) / 2, _ => 0 };
        // The last mark between figures parts the whole from the rest; without one, all of it stands before the stop.
        for (int i = to - 1; i > from; i--)
            if (Text[i] is '.' or ',' && char.IsAsciiDigit(Text[i - 1]) && i + 1 < to && char.IsAsciiDigit(Text[i + 1])) return Up(i);
        return Up(to);
    }

    private (List<double> Widths, IReadOnlyList<int>? Ends)? _chosen;

    /// <summary>Where its lines end where they are all chosen together; null where there is no good way.</summary>
    /// <param name="width">How long a line is, by its number from 0.</param>
    public IReadOnlyList<int>? Ends(Func<int, double> width)
    {
        if (_chosen is var (widths, ends) && widths.Select((w, line) => double.IsNaN(w) || w == width(line)).All(same => same)) return ends;
        widths = [];
        double Asked(int line)
        {
            while (widths.Count <= line) widths.Add(double.NaN);
            if (double.IsNaN(widths[line])) widths[line] = width(line);
            return widths[line];
        }
        ends = WholeParagraph.Ends(ToMeasured(), Asked, Begin);
        _chosen = (widths, ends);
        return ends;
    }

    private WholeParagraph.Measured ToMeasured()
    {
        var blanks = new int[Text.Length + 1];
        for (int i = 0; i < Text.Length; i++) blanks[i + 1] = blanks[i] + (Text[i] == ' ' ? 1 : 0);
        return new(Breaks, _upTo, TrimmedEnd, blanks, Width(_typefaces.Shape(" ", Style)), Hyphen);
    }

    /// <summary>Where the line that begins at a place ends: behind the last word that fits, or within one that is wider than a whole line; where it begins,
    /// where it is no whole line and no word fits.</summary>
    private int FirstEnd(int start, double width, double left, bool whole)
    {
        int fits = 0;
        for (int at = start + 1; at <= Text.Length; at++)
        {
            if (Breaks[at] == LineBreak.Prohibited) continue;
            double reach = WidthOf(start, TrimmedEnd(start, at), left);
            // A little farther on a word may end that is shorter than its part with a hyphen.
            if (Breaks[at] == LineBreak.Hyphen && reach + Hyphen > width + Hair && reach <= width + Hair) continue;
            if (reach > width + Hair) break;
            fits = at;
            if (Breaks[at] == LineBreak.Required) break;
        }
        if (fits > 0 || !whole) return Math.Max(fits, start);
        // As CSS Text 3 does with "overflow-wrap: anywhere": between characters as people see them, one at least.
        int next = start;
        do
        {
            int step = StringInfo.GetNextTextElementLength(Text, next);
            if (next > start && WidthOf(start, next + step, left) > width + Hair) break;
            next += step;
        }
        while (next < Text.Length && Breaks[next] != LineBreak.Required);
        return next;
    }

    /// <summary>The place before another at which a line may end; 0 where there is none.</summary>
    private int EndBefore(int start, int end)
    {
        for (int at = end - 1; at > start; at--)
            if (Breaks[at] is LineBreak.Allowed or LineBreak.Hyphen) return at;
        return 0;
    }

    /// <summary>As much of it as a stretch takes; null where not even a word fits and there may be more room elsewhere.</summary>
    /// <param name="start">Where the line begins.</param>
    /// <param name="stretch">Where it may stand.</param>
    /// <param name="left">How far from the left edge of its column the stretch begins.</param>
    /// <param name="whole">Whether the stretch is as wide as all of the column.</param>
    public (SetLine Line, int End)? Piece(int start, in Interval stretch, double left, bool whole)
    {
        var key = (start, stretch, HasTabs ? left : 0, whole);
        return _pieces.TryGetValue(key, out var known) ? known : _pieces[key] = PieceOf(start, stretch, left, whole);
    }

    private (SetLine Line, int End)? PieceOf(int start, in Interval stretch, double left, bool whole)
    {
        if (Text.Length == Begin) return (Aligned(Line(start, start, left), Text.Length, stretch), Text.Length);
        int end = FirstEnd(start, stretch.Width, left, whole);
        if (end == start) return null;
        var line = Line(start, end, left);
        // Letters at the end of a line stand a little otherwise than within it: take a word less where that makes it too wide.
        while (line.Width > stretch.Width + Hair && EndBefore(start, end) is > 0 and int sooner) line = Line(start, end = sooner, left);
        if (!whole && line.Width > stretch.Width + Hair) return null;
        return (Aligned(line, end, stretch), end);
    }

    /// <summary>A line of it in a stretch.</summary>
    /// <param name="start">Where the line begins.</param>
    /// <param name="end">Where it ends.</param>
    /// <param name="stretch">Where it stands.</param>
    /// <param name="left">How far from the left edge of its column the stretch begins.</param>
    public SetLine Placed(int start, int end, in Interval stretch, double left)
    {
        var key = (start, end, stretch);
        return _placed.TryGetValue(key, out var known) ? known : _placed[key] = Aligned(Line(start, end, left), end, stretch);
    }

    private readonly Dictionary<(int, Interval, double, bool), (SetLine, int)?> _pieces = [];
    private readonly Dictionary<(int, int, Interval), SetLine> _placed = [];

    /// <summary>A line where its alignment puts it in a stretch; its blanks widened where it is justified.</summary>
    private SetLine Aligned(SetLine line, int end, in Interval stretch)
    {
        double width = stretch.Width;
        bool last = end == Text.Length || Breaks[end] == LineBreak.Required;
        int blanks = 0;
        foreach (var run in line.Runs) blanks += run.Text.AsSpan().Count(' ');
        if (Style.Alignment == TextAlignment.Justified && !HasTabs && blanks > 0 && (last ? line.Width > width : line.Width != width))
            line = Widened(line, width, (width - line.Width) / blanks);
        double x = stretch.From + Style.Alignment switch
        {
            TextAlignment.Centre => (width - line.Width) / 2,
            TextAlignment.Right => width - line.Width,
            TextAlignment.Justified when _levels is { FromRight: true } => width - line.Width,
            _ => 0,
        };
        return line with { X = x, Runs = x == 0 ? line.Runs : [.. line.Runs.Select(r => r with { X = r.X + x })] };
    }

    private static SetLine Widened(SetLine line, double width, double blank)
    {
        double shift = 0;
        return line with
        {
            Width = width,
            Blank = blank,
            Runs = [.. line.Runs.Select(run =>
            {
                var glyphs = run.Glyphs.ToArray();
                foreach (ref var glyph in glyphs.AsSpan())
                    if (run.Text[glyph.Cluster] == ' ') glyph = glyph with { Advance = glyph.Advance + blank };
                var wide = run with { X = run.X + shift, Glyphs = ImmutableCollectionsMarshal.AsImmutableArray(glyphs) };
                shift += wide.Width - run.Width;
                return wide;
            })],
        };
    }

    /// <summary>A line as it is shown, its beginning at 0, with no baseline yet.</summary>
    /// <param name="start">Where it begins.</param>
    /// <param name="end">Where it ends.</param>
    /// <param name="left">How far from the left edge of its column it begins.</param>
    private SetLine Line(int start, int end, double left)
    {
        int shown = TrimmedEnd(start, end);
        bool hyphen = end > start && end < Text.Length && Breaks[end] == LineBreak.Hyphen, soft = shown > start && end < Text.Length
            && Text[shown - 1] == '\u00ad';
        // A soft hyphen shows at the end of a line alone.
        if (soft) (shown, hyphen) = (shown - 1, true);
        var gaps = HasTabs ? Tabbed(start, shown, left).Gaps : [];
        var runs = new List<SetRun>();
        double x = 0;
        int gap = 0, section = 0;
        foreach (var (style, from, to) in Pieces(start, shown))
        {
            for (; gap < gaps.Count && gaps[gap].At < from; gap++)
            {
                InOrder(runs, section);
                x = Leader(runs, gaps[gap]);
                section = runs.Count;
            }
            string hyphened = hyphen && to == shown ? "-" : "";
            runs.Add(RunOf(Shown(Text[from..to], style) + hyphened, from, style, x, hyphened.Length > 0 ? null : CutOut(from, to)));
            x += runs[^1].Width;
        }
        InOrder(runs, section);
        for (; gap < gaps.Count; gap++) x = Leader(runs, gaps[gap]);
        if (hyphen && shown == start) runs.Add(RunOf("-", start, Style, 0));
        double width = runs.Count == 0 ? x : Math.Max(x, runs[^1].X + runs[^1].Width);
        return new(Text[start..shown] + (hyphen ? "-" : ""), start, 0, 0, 0, width, 0, [.. runs])
        {
            End = end,
            Hyphened = hyphen,
            Hanging = end > shown ? [.. Enumerable.Range(shown + 1, end - shown).Select(at => _upTo[at] - _upTo[shown])] : [],
        };
    }

    /// <summary>Puts runs, from one on, into the order in which they stand (UAX #9, L2): between tabs, each stretch by itself.</summary>
    private void InOrder(List<SetRun> runs, int from)
    {
        if (_levels is null || runs.Count - from < 2) return;
        var logical = runs[from..];
        double x = logical[0].X;
        runs.RemoveRange(from, logical.Count);
        foreach (int i in Bidi.InOrder([.. logical.Select(r => (int)_levels.Of[r.Start])]))
        {
            runs.Add(logical[i] with { X = x });
            x += logical[i].Width;
        }
    }

    private SetRun RunOf(string text, int start, TextStyle style, double x, ImmutableArray<Glyph>? shaped = null)
    {
        bool right = start < Text.Length && IsRight(start);
        var glyphs = shaped ?? _typefaces.Shape(text, style, right);
        if (style is { Position: TextPosition.Normal, Shift: 0 }) return new(text, start, style, x, glyphs) { RightToLeft = right };
        var measures = _typefaces.MeasuresOf(style);
        return new(text, start, style, x, glyphs) { Size = measures.Size, Raise = measures.Raise, RightToLeft = right };
    }

    /// <summary>Fills a tab's room with its leader, as often as that goes into it whole; they stand under one another from line to line. Where
    /// it ends.</summary>
    private double Leader(List<SetRun> runs, in Gap gap)
    {
        if (gap.Leader.Length == 0) return gap.To;
        var style = StyleAt(gap.At);
        double each = Width(_typefaces.Shape(gap.Leader, style));
        int count = each > 0 ? (int)Math.Min(1000, Math.Floor((gap.To - gap.From - 0.2 * style.Size) / each)) : 0;
        if (count > 0) runs.Add(RunOf(string.Concat(Enumerable.Repeat(gap.Leader, count)), gap.At, style, gap.To - 0.1 * style.Size - count * each) with
        {
            IsTyped = false,
        });
        return gap.To;
    }

    public static double Width(ImmutableArray<Glyph> glyphs)
    {
        double width = 0;
        foreach (ref readonly var glyph in glyphs.AsSpan()) width += glyph.Advance;
        return width;
    }

    /// <summary>What goes under and through the characters of a line, and above and below its paragraph.</summary>
    /// <param name="line">The line in its place.</param>
    /// <param name="column">What the paragraph has of its column, from left to right.</param>
    /// <param name="height">How far the line reaches above and below its baseline.</param>
    /// <param name="isFirst">Whether it is the first line.</param>
    /// <param name="isLast">Whether it is the last.</param>
    public ImmutableArray<TextStroke> Strokes(SetLine line, in Interval column, (double Above, double Below) height, bool isFirst, bool isLast)
    {
        if (!_hasStrokes) return [];
        var strokes = new List<TextStroke>();
        foreach (var run in line.Runs.Where(r => r.Style.Underline || r.Style.StrikeThrough))
        {
            var m = _typefaces.MeasuresOf(run.Style);
            if (run.Style.Underline) strokes.Add(new(run.X, run.Width, m.UnderlineAt - run.Raise, m.Thickness, run.Style.Ink));
            if (run.Style.StrikeThrough) strokes.Add(new(run.X, run.Width, -m.StrikeAt - run.Raise, m.Thickness, run.Style.Ink));
        }
        if (isFirst && Style.LineAbove > 0) strokes.Add(new(column.From, column.Width, Style.LineAbove / 2 - height.Above, Style.LineAbove, Style.Ink));
        if (isLast && Style.LineBelow > 0) strokes.Add(new(column.From, column.Width, height.Below - Style.LineBelow / 2, Style.LineBelow, Style.Ink));
        return [.. strokes];
    }
}
