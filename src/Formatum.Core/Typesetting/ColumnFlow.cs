using System.Collections.Immutable;
using Formatum.Core.Stories;

namespace Formatum.Core.Typesetting;

/// <summary>One text on its way into the columns of its frames, paragraph by paragraph.</summary>
internal sealed class ColumnFlow
{
    private const double Hair = MeasuredParagraph.Hair;

    /// <summary>A line that finds no room looks for it so much lower, in points.</summary>
    private const double Step = 1;

    /// <summary>So many sizes wide is the narrowest stretch in which lines are justified: narrower, few words stand far apart. Common practice, no
    /// source.</summary>
    private const double NarrowestJustified = 6;

    /// <summary>A column of one of the frames.</summary>
    /// <param name="Frame">Which frame, from 0.</param>
    /// <param name="Number">Which of its columns, from 0.</param>
    /// <param name="Shape">The frame's shape.</param>
    private readonly record struct Place(int Frame, int Number, TextShape Shape)
    {
        public Column Column => Shape.Columns[Number];
    }

    /// <summary>How far it has come: to which column, how far down in it, and how many lines there are.</summary>
    private readonly record struct Mark(int Place, double Top, int Lines);

    /// <summary>A stretch of a band in which a line may stand.</summary>
    private readonly record struct Slot(int Place, double Top, Interval Stretch);

    private readonly StyledText _text;
    private readonly ParagraphCache _paragraphs;
    private readonly ImmutableArray<Place> _places;
    private readonly List<(int Place, SetLine Line)> _lines = [];
    private readonly int[] _setUpTo;
    private readonly FlowTrail _trail;
    private readonly FlowTrail? _last;
    private int _place, _number;
    private double _top;

    /// <summary>In one column, no more lines of the paragraph under way than this: others belong to the next.</summary>
    private (int Place, int Lines) _most = (-1, 0);

    public ColumnFlow(StyledText text, ImmutableArray<TextShape> chain, ParagraphCache paragraphs)
    {
        (_text, _paragraphs) = (text, paragraphs);
        _places = [.. chain.SelectMany((shape, frame) => shape.Columns.Select((_, number) => new Place(frame, number, shape)))];
        _setUpTo = new int[text.Paragraphs.Length];
        _top = _places.IsEmpty ? 0 : _places[0].Column.Top;
        _trail = new(text, chain, new FlowTrail.Step?[text.Paragraphs.Length], _lines);
        _last = paragraphs.Trail is { } last && last.Chain.AsSpan().SequenceEqual(chain.AsSpan()) ? last : null;
        paragraphs.Trail = _trail;
    }

    /// <summary>The lines, each with its frame.</summary>
    public IEnumerable<(int Frame, SetLine Line)> Lines => _lines.Select(l => (_places[l.Place].Frame, l.Line));

    /// <summary>How much of each paragraph found room, in UTF-16 units; one without words that found none has -1, unless it is the last.</summary>
    public IReadOnlyList<int> SetUpTo => _setUpTo;

    public void SetAll()
    {
        // Where the paragraphs begin that stay with the one under way, and those that were moved on for it already.
        (int Paragraph, Mark Mark)? chain = null;
        var moved = new HashSet<int>();
        var (same, behind) = _last?.SameAs(_text) ?? (0, 0);
        for (int p = Resume(same); p < _text.Paragraphs.Length; p++)
        {
            if (chain is null && p > 0 && _text.Paragraphs.Length - p <= behind && Agrees(p))
            {
                GoOnAsBefore(p);
                return;
            }
            var style = _text.Paragraphs[p].Style;
            var before = Here;
            _setUpTo[p] = Kept(p);
            if (chain is var (first, mark) && Parted(before.Lines) && !IsAtHead(mark) && moved.Add(first))
            {
                GoBack(mark);
                NextColumn();
                (p, chain) = (first - 1, null);
                continue;
            }
            _trail.Steps[p] = new(before.Place, before.Top, before.Lines, chain is null && !moved.Contains(p), _setUpTo[p]);
            if (!style.KeepWithNext) chain = null;
            else chain ??= (p, before);
            if (_setUpTo[p] < _text.Paragraphs[p].Text.Length) return;
            _top += style.SpaceAfter;
        }
    }

    /// <summary>Takes over what stands before the first paragraph that changed; which paragraph comes next.</summary>
    private int Resume(int same)
    {
        int next = _last?.ResumeAt(same) ?? 0;
        if (next == 0) return 0;
        var step = _last!.Steps[next]!;
        (_place, _top) = (step.Place, step.Top);
        _lines.AddRange(_last.Lines.Take(step.Lines));
        for (int p = 0; p < next; p++) Keep(p, _last.Steps[p]!);
        return next;
    }

    private void Keep(int paragraph, FlowTrail.Step step)
    {
        _trail.Steps[paragraph] = step;
        _setUpTo[paragraph] = step.SetUpTo;
        _paragraphs.Keep(_text.Paragraphs[paragraph]);
    }

    /// <summary>The paragraph of the text as it was that stands where one does now, counted from the end.</summary>
    private int Was(int paragraph) => _last!.Text.Paragraphs.Length - (_text.Paragraphs.Length - paragraph);

    /// <summary>Whether a paragraph begins where it began before.</summary>
    private bool Agrees(int paragraph) => Was(paragraph) is > 0 and var was && _last!.Steps[was] is { Starts: true } step && step.Place == _place
        && step.Top == _top
        && step.Lines > 0 == _lines.Count > 0;

    /// <summary>Takes over all from a paragraph on.</summary>
    private void GoOnAsBefore(int paragraph)
    {
        int was = Was(paragraph), first = _last!.Steps[was]!.Lines, further = paragraph - was, lines = _lines.Count - first;
        foreach (var (place, line) in _last.Lines.Skip(first)) _lines.Add((place, further == 0 ? line : line with { Paragraph = line.Paragraph + further }));
        for (int p = paragraph; p < _text.Paragraphs.Length && _last.Steps[p - further] is { } step; p++) Keep(p, step with { Lines = step.Lines + lines });
    }

    private Mark Here => new(_place, _top, _lines.Count);

    private void GoBack(Mark mark)
    {
        (_place, _top) = (mark.Place, mark.Top);
        _lines.RemoveRange(mark.Lines, _lines.Count - mark.Lines);
    }

    private bool IsAtHead(Mark mark) => mark.Place >= _places.Length || mark.Top <= _places[mark.Place].Column.Top + Hair;

    /// <summary>Whether the lines from a number on begin in another column than those before end in, or found none.</summary>
    private bool Parted(int from) => from > 0 && (from == _lines.Count ? _place >= _places.Length : _lines[from].Place != _lines[from - 1].Place);

    /// <summary>Sets a paragraph so that enough of its lines stay together; how much of it found room.</summary>
    private int Kept(int number)
    {
        var source = _text.Paragraphs[number];
        var style = source.Style;
        if (style.BreakBefore != BreakBefore.None && number > 0) BeginAnew(style.BreakBefore);
        _number = number;
        var words = _paragraphs.Of(source);
        var begin = Here;
        int set = Paragraph(words);
        if (style is { Orphans: <= 1, Widows: <= 1, KeepTogether: false } || Split(begin.Lines) is not { Count: > 1 } split) return set;
        int wanted = style.KeepTogether ? int.MaxValue : Math.Min(style.Orphans, split.Sum(s => s.Lines));
        int needed = set == words.Text.Length ? style.Widows - split[^1].Lines : 0;
        if (split[0].Lines >= wanted && needed <= 0) return set;
        var (place, there) = split[^2];
        if (split[0].Lines < wanted || (split.Count == 2 && there - needed < style.Orphans))
        {
            if (IsAtHead(begin)) return set;
            GoBack(begin);
            NextColumn();
            return Paragraph(words);
        }
        if (there - needed < 1) return set;
        GoBack(begin);
        _most = (place, there - needed);
        set = Paragraph(words);
        _most = (-1, 0);
        return set;
    }

    /// <summary>How many lines stand in each column, of those from a number on.</summary>
    private List<(int Place, int Lines)> Split(int from) => [.. _lines.Skip(from).GroupBy(l => l.Place)
        .Select(column => (column.Key, column.Select(l => l.Line.Baseline).Distinct().Count()))];

    private void BeginAnew(BreakBefore what)
    {
        if (_place >= _places.Length || _lines.Count == 0) return;
        int frame = _places[_place].Frame;
        do NextColumn();
        while (what == BreakBefore.Frame && _place < _places.Length && _places[_place].Frame == frame);
    }

    private int Paragraph(MeasuredParagraph words)
    {
        var style = words.Style;
        if (_place < _places.Length && _top > _places[_place].Column.Top) _top += style.SpaceBefore;
        int first = _lines.Count;
        int set = style.Alignment == TextAlignment.Justified && words is { IsEven: true, HasTabs: false } && words.Text.Length > words.Begin
            && Together(words) is { } together ? together : LineByLine(words);
        if (words.Initial is not null && _lines.Count > first) ClearInitial(words, first);
        if (set == words.Text.Length && _lines.Count > first) End(words, _lines.Count - 1);
        return set;
    }

    /// <summary>What comes next begins below an initial that reaches farther down than the lines beside it.</summary>
    private void ClearInitial(MeasuredParagraph words, int first)
    {
        int beside = _lines.Skip(first).Where(l => l.Place == _lines[first].Place).Select(l => l.Line.Baseline).Distinct().Count();
        if (_place == _lines[first].Place && beside < words.Style.InitialLines) _top += (words.Style.InitialLines - beside) * words.Style.LineHeight;
    }

    private int LineByLine(MeasuredParagraph words)
    {
        int start = words.Begin, number = 0;
        do
        {
            if (Line(words, start, number) is not { } end) return words.Text.Length == 0 && _number < _text.Paragraphs.Length - 1 ? -1 : start == words.Begin
                ? 0 : start;
            if (end == start && words.Text.Length > start) _top += Step;
            else number++;
            start = end;
        }
        while (start < words.Text.Length);
        return start;
    }

    /// <summary>Sets a line in the stretches that are free; where it ends. It ends where it began where none of them takes a word. Null where there is no
    /// room any more.</summary>
    private int? Line(MeasuredParagraph words, int start, int number)
    {
        var (above, below) = words.Strut;
        for (; ; )
        {
            if (FindRoom(words, above, below, number) is not { } free) return null;
            var (pieces, end) = Pieces(words, start, number, free);
            var (a, b) = words.HeightOf(start, end);
            if (a <= above + Hair && b <= below + Hair)
            {
                foreach (var line in pieces) Add(words, line, (above, below));
                if (pieces.Count > 0) _top += above + below;
                return end;
            }
            // Some of it is higher than the paragraph's own lines: it needs a higher band, in which less may be free.
            (above, below) = (Math.Max(above, a), Math.Max(below, b));
        }
    }

    private (List<SetLine> Pieces, int End) Pieces(MeasuredParagraph words, int start, int number, IReadOnlyList<Interval> free)
    {
        var pieces = new List<SetLine>();
        int at = start;
        foreach (var stretch in free)
        {
            if (at == words.Text.Length && at > start) break;
            bool whole = stretch.Width >= RoomOf(words).Width - Hair;
            var within = Indented(words, stretch, pieces.Count == 0 ? number : -1);
            if (words.Piece(at, within, within.From - _places[_place].Column.Left, whole) is not var (line, end)) continue;
            pieces.Add(line);
            at = end;
            if (words.Text.Length == 0 || words.Breaks[end] == LineBreak.Required) break;
        }
        return (pieces, at);
    }

    /// <summary>What a paragraph has of its column, from left to right.</summary>
    private Interval RoomOf(MeasuredParagraph words) => RoomOf(words, _places[_place].Column);

    private static Interval RoomOf(MeasuredParagraph words, in Column column) =>
        new(column.Left + words.Style.IndentLeft, Math.Max(column.Left + words.Style.IndentLeft, column.Left + column.Width - words.Style.IndentRight));

    /// <summary>What of free stretches lies within the paragraph's room.</summary>
    private static IReadOnlyList<Interval> Within(in Interval room, in Column column, IReadOnlyList<Interval> free) =>
        room == column.Across ? free : Intervals.Common([.. free], [room]);

    private static Interval Indented(MeasuredParagraph words, in Interval stretch, int line) =>
        line < 0 ? stretch : stretch with { From = stretch.From + words.IndentOf(line) };

    /// <summary>Sets a paragraph by choosing all its lines together; how much of it found room. Null where there is no good way.</summary>
    private int? Together(MeasuredParagraph words)
    {
        var slots = new List<Slot>();
        using var more = Slots(words).GetEnumerator();
        // Beyond the last column it goes on in lines that nobody sees, as long as the last one was.
        double Width(int line)
        {
            while (slots.Count <= line && more.MoveNext()) slots.Add(more.Current);
            double width = slots.Count == 0 ? 0 : slots[Math.Min(line, slots.Count - 1)].Stretch.Width;
            return width - words.IndentOf(line);
        }
        if (words.Ends(Width) is not { } ends) return null;
        int start = words.Begin;
        for (int i = 0; i < ends.Count && i < slots.Count; i++)
        {
            (_place, _top) = (slots[i].Place, slots[i].Top);
            var stretch = Indented(words, slots[i].Stretch, i);
            Add(words, words.Placed(start, ends[i], stretch, stretch.From - _places[_place].Column.Left), words.Strut);
            _top += words.Style.LineHeight;
            start = ends[i];
        }
        if (start < words.Text.Length) _place = _places.Length;
        return start == words.Begin ? 0 : start;
    }

    private IEnumerable<Slot> Slots(MeasuredParagraph words)
    {
        double height = words.Style.LineHeight, top = _top;
        for (int place = _place; place < _places.Length; place++)
        {
            var column = _places[place].Column;
            if (place > _place) top = column.Top;
            top = OnGrid(words, place, top);
            var room = RoomOf(words, column);
            double narrowest = Math.Min(NarrowestJustified * words.Style.Size, room.Width - Hair);
            for (int lines = 0; top + height <= column.Bottom + Hair && !(place == _most.Place && lines == _most.Lines);)
            {
                bool any = false;
                foreach (var stretch in Within(room, column, _places[place].Shape.Free(column, top, top + height)))
                {
                    if (stretch.Width < narrowest) continue;
                    any = true;
                    yield return new(place, top, stretch);
                }
                if (any) lines++;
                top = OnGrid(words, place, top + (any ? height : Step));
            }
        }
    }

    /// <summary>The stretches in which the next line may stand, in this column or a later one; null where there is no room any more.</summary>
    /// <param name="words">The paragraph.</param>
    /// <param name="above">How high the line is above its baseline.</param>
    /// <param name="below">How deep below.</param>
    /// <param name="number">Which of the paragraph's lines it is, from 0.</param>
    private IReadOnlyList<Interval>? FindRoom(MeasuredParagraph words, double above, double below, int number)
    {
        double height = above + below;
        for (; _place < _places.Length; NextColumn())
        {
            if (_place == _most.Place && number >= _most.Lines + LinesBefore(_number)) continue;
            var column = _places[_place].Column;
            for (_top = OnGrid(words, _place, _top); _top + height <= column.Bottom + Hair; _top = OnGrid(words, _place, _top + Step))
            {
                var free = Within(RoomOf(words), column, _places[_place].Shape.Free(column, _top, _top + height));
                if (free.Count > 0) return free;
            }
        }
        return null;
    }

    /// <summary>Where a line's band begins at or below a place, so that its baseline stands on the grid where its paragraph keeps to that.</summary>
    private double OnGrid(MeasuredParagraph words, int place, double top) => words.Style.OnGrid && _places[place].Shape.Grid is { } grid
        ? grid.AtOrBelow(top + words.Strut.Above) - words.Strut.Above : top;

    /// <summary>How many lines of a paragraph stand in the columns before this one.</summary>
    private int LinesBefore(int paragraph) =>
        _lines.Where(l => l.Line.Paragraph == paragraph && l.Place < _place).Select(l => (l.Place, l.Line.Baseline)).Distinct().Count();

    private void NextColumn()
    {
        if (++_place < _places.Length) _top = _places[_place].Column.Top;
    }

    private void Add(MeasuredParagraph words, SetLine line, (double Above, double Below) height)
    {
        bool isFirst = _lines.Count == 0 || _lines[^1].Line.Paragraph != _number;
        var runs = line.Runs;
        if (isFirst && words.Label is { } label) runs = runs.Insert(0, label with { X = line.X - words.IndentOf(0) + label.X });
        if (isFirst && words.Initial is { } initial) runs = runs.Insert(0, initial with { X = line.X - words.IndentOf(0) + words.Style.Indent });
        line = line with
        {
            Paragraph = _number,
            Runs = runs,
            Baseline = _top + height.Above,
            Bottom = _top + height.Above + height.Below,
            Height = height.Above + height.Below,
            Column = _places[_place].Number,
        };
        var strokes = words.Strokes(line, RoomOf(words), height, isFirst, isLast: false);
        _lines.Add((_place, strokes.IsEmpty ? line : line with { Strokes = strokes }));
    }

    /// <summary>Draws what goes below a paragraph under its last line.</summary>
    private void End(MeasuredParagraph words, int last)
    {
        if (words.Style.LineBelow <= 0) return;
        var (place, line) = _lines[last];
        var below = words.Strokes(line with { Runs = [] }, RoomOf(words, _places[place].Column), (0, line.Bottom - line.Baseline), false, isLast: true);
        _lines[last] = (place, line with { Strokes = [.. line.Strokes, .. below] });
    }
}
