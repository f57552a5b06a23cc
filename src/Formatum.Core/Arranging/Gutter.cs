using System.Collections.Immutable;
using Formatum.Core.Geometry;

namespace Formatum.Core.Arranging;

/// <summary>A gap between facing edges of neighbouring frames, which can be dragged.</summary>
/// <param name="Upright">Whether it runs from top to bottom, between frames to the left and to the right of it.</param>
/// <param name="From">Its left, or upper, edge.</param>
/// <param name="To">Its right, or lower, edge.</param>
/// <param name="Before">The frames that end at <paramref name="From"/>, by their index.</param>
/// <param name="After">The frames that begin at <paramref name="To"/>, by their index.</param>
/// <param name="Start">Where it begins, along itself.</param>
/// <param name="End">Where it ends.</param>
public sealed record Gutter(bool Upright, double From, double To, ImmutableArray<int> Before, ImmutableArray<int> After, double Start, double End)
{
    /// <summary>Edges within this of each other, in points, count as one line.</summary>
    public const double SameLine = 0.5;

    /// <summary>No frame is drawn narrower or lower than this by a gutter, in points.</summary>
    public const double SmallestSide = 6;

    public double Width => To - From;

    /// <summary>
    /// The gap at a point: between the nearest facing edges around it, with all frames along that edge that hang together: those on
    /// the same line whose spans meet or overlap, from one side to the other and on.
    /// </summary>
    /// <param name="boxes">The frames' boxes.</param>
    /// <param name="point">The point.</param>
    /// <param name="reach">How far outside a narrow gap the point may lie, in points.</param>
    /// <returns>Null where there is none.</returns>
    public static Gutter? At(IReadOnlyList<Box> boxes, Vec point, double reach)
    {
        var (across, down) = (Find(boxes, point, reach, upright: true), Find(boxes, point, reach, upright: false));
        // Where two cross, the narrower is meant.
        return across is null ? down : down is null || across.Width <= down.Width ? across : down;
    }

    private static Gutter? Find(IReadOnlyList<Box> boxes, Vec point, double reach, bool upright)
    {
        var spans = boxes.Select(b => upright ? new Span(b.X, b.Right, b.Y, b.Bottom) : new Span(b.Y, b.Bottom, b.X, b.Right)).ToArray();
        var (at, beside) = upright ? (point.X, point.Y) : (point.Y, point.X);
        int before = Nearest(spans, s => s.Start <= beside && beside <= s.End && s.To <= at + reach ? at - s.To : null);
        int after = Nearest(spans, s => s.Start <= beside && beside <= s.End && s.From >= at - reach ? s.From - at : null);
        if (before < 0 || after < 0 || before == after) return null;
        double from = spans[before].To, to = spans[after].From;
        if (to < from - SameLine || to - from > Math.Max(72, 2 * reach)) return null;

        // From the two that were found, on to all that hang together with them along either edge.
        var (left, right) = (new SortedSet<int> { before }, new SortedSet<int> { after });
        bool grew;
        do
        {
            grew = false;
            double start = left.Concat(right).Min(i => spans[i].Start), end = left.Concat(right).Max(i => spans[i].End);
            for (int i = 0; i < spans.Length; i++)
            {
                // A gap as wide as this one, or less, does not part frames along an edge.
                if (spans[i].Start > end + (to - from) + SameLine || spans[i].End < start - (to - from) - SameLine) continue;
                if (Math.Abs(spans[i].To - from) <= SameLine) grew |= left.Add(i);
                else if (Math.Abs(spans[i].From - to) <= SameLine) grew |= right.Add(i);
            }
        }
        while (grew);
        return new(upright, from, to, [.. left], [.. right], left.Concat(right).Min(i => spans[i].Start), left.Concat(right).Max(i => spans[i].End));
    }

    private readonly record struct Span(double From, double To, double Start, double End);

    private static int Nearest(Span[] spans, Func<Span, double?> distance)
    {
        int best = -1;
        double least = double.PositiveInfinity;
        for (int i = 0; i < spans.Length; i++)
        {
            if (distance(spans[i]) is not { } d || d >= least) continue;
            (best, least) = (i, d);
        }
        return best;
    }

    /// <summary>The boxes of the frames along it after it was dragged; the gap keeps its width.</summary>
    /// <param name="boxes">The frames' boxes before.</param>
    /// <param name="by">How far, in points; as far only as every frame keeps its smallest side.</param>
    public IEnumerable<(int Index, Box Box)> Dragged(IReadOnlyList<Box> boxes, double by)
    {
        double least = -Before.Select(i => Room(Length(boxes[i]))).Min(), most = After.Select(i => Room(Length(boxes[i]))).Min();
        by = Math.Clamp(by, Math.Min(least, 0), Math.Max(most, 0));
        return Drawn(boxes, From + by, To + by);
    }

    /// <summary>The boxes of the frames along it after the gap took another width, about its middle.</summary>
    /// <param name="boxes">The frames' boxes before.</param>
    /// <param name="width">The width, in points; as wide only as every frame keeps its smallest side, and never below 0.</param>
    public IEnumerable<(int Index, Box Box)> Widened(IReadOnlyList<Box> boxes, double width)
    {
        double room = Before.Concat(After).Min(i => Room(Length(boxes[i])));
        double grow = Math.Clamp((width - Width) / 2, -Width / 2, Math.Max(room, 0));
        return Drawn(boxes, From - grow, To + grow);
    }

    private static double Room(double length) => length - Math.Min(length, SmallestSide);

    private double Length(Box box) => Upright ? box.Width : box.Height;

    private IEnumerable<(int Index, Box Box)> Drawn(IReadOnlyList<Box> boxes, double from, double to)
    {
        foreach (int i in Before)
        {
            var b = boxes[i];
            // Each edge moves as far as the line does: those a hair off it stay so.
            yield return (i, Upright ? b with { Width = b.Width + from - From } : b with { Height = b.Height + from - From });
        }
        foreach (int i in After)
        {
            var b = boxes[i];
            double by = to - To;
            yield return (i, Upright ? b with { X = b.X + by, Width = b.Width - by } : b with { Y = b.Y + by, Height = b.Height - by });
        }
    }
}
