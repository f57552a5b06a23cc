using System.Collections.Immutable;
using Formatum.Core.Geometry;

namespace Formatum.Core.Arranging;

/// <summary>What of several boxes is brought into line.</summary>
public enum Alignment { Left, Centre, Right, Top, Middle, Bottom }

/// <summary>What several frames get to have in common.</summary>
public enum Sameness { Width, Height, Size }

/// <summary>Several boxes brought into line, spread out evenly, made equal. Boxes are upright bounds; what comes out is how far each moves.</summary>
public static class Aligning
{
    /// <summary>How far each box moves so that all lie in line with an edge, or the middle, of a reference.</summary>
    public static ImmutableArray<Vec> Aligned(IReadOnlyList<Box> boxes, Alignment alignment, Box reference) => [.. boxes.Select(b => alignment switch
    {
        Alignment.Left => new Vec(reference.X - b.X, 0),
        Alignment.Centre => new Vec(reference.Centre.X - b.Centre.X, 0),
        Alignment.Right => new Vec(reference.Right - b.Right, 0),
        Alignment.Top => new Vec(0, reference.Y - b.Y),
        Alignment.Middle => new Vec(0, reference.Centre.Y - b.Centre.Y),
        _ => new Vec(0, reference.Bottom - b.Bottom),
    })];

    /// <summary>
    /// How far each box moves so that the gaps between them are all the same, in the order their middles lie in. The first and the last stay where
    /// they are. Boxes that have no room side by side overlap, their middles equally far apart. Done again, it changes nothing.
    /// </summary>
    /// <param name="boxes">The boxes.</param>
    /// <param name="across">From left to right, or from top to bottom.</param>
    /// <param name="within">Between which ends; null for those of the first and the last box.</param>
    /// <param name="gap">The gap in points, 0 or more; null for what evenly fills the room. Only the first box then stays.</param>
    public static ImmutableArray<Vec> Distributed(IReadOnlyList<Box> boxes, bool across, Box? within = null, double? gap = null)
    {
        if (boxes.Count < 2) return [.. boxes.Select(_ => default(Vec))];
        (double From, double Length) Along(Box b) => across ? (b.X, b.Width) : (b.Y, b.Height);
        double Middle(int i) => Along(boxes[i]).From + Along(boxes[i]).Length / 2;
        int[] order = [.. Enumerable.Range(0, boxes.Count).OrderBy(Middle).ThenBy(i => i)];
        var (first, last) = (Along(boxes[order[0]]), Along(boxes[order[^1]]));
        double from = within is { } room ? Along(room).From : first.From, to = within is { } end ? Along(end).From + Along(end).Length
            : last.From + last.Length;
        double between = gap ?? (to - from - boxes.Sum(b => Along(b).Length)) / (boxes.Count - 1);
        var moves = new Vec[boxes.Count];
        double at = gap is null ? from : first.From, firstMiddle = from + first.Length / 2, lastMiddle = to - last.Length / 2;
        for (int place = 0; place < order.Length; place++)
        {
            int i = order[place];
            double start = between >= 0 ? at : firstMiddle + (lastMiddle - firstMiddle) * place / (order.Length - 1) - Along(boxes[i]).Length / 2;
            double by = start - Along(boxes[i]).From;
            moves[i] = across ? new(by, 0) : new(0, by);
            at += Along(boxes[i]).Length + between;
        }
        return [.. moves];
    }
}
