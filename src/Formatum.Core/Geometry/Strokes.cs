using System.Collections.Immutable;

namespace Formatum.Core.Geometry;

/// <summary>A stroke of the hand made into an outline: fewer points, smooth where the hand was.</summary>
public static class Strokes
{
    /// <summary>A turn sharper than this, in degrees, stays a corner.</summary>
    private const double Corner = 50;

    /// <summary>The points of a closed outline that keeps within a tolerance of the stroke's points.</summary>
    /// <param name="stroke">Where the hand was, in points; first and last are joined.</param>
    /// <param name="tolerance">In points.</param>
    public static ImmutableArray<PathPoint> Smoothed(ImmutableArray<Vec> stroke, double tolerance)
    {
        var kept = Simplified(stroke, tolerance);
        int n = kept.Count;
        return [.. Enumerable.Range(0, n).Select(i => Point(kept[(i + n - 1) % n], kept[i], kept[(i + 1) % n]))];
    }

    /// <summary>Through a smooth point the curve runs along the line from its neighbour to the next: a Catmull-Rom spline as Bezier curves, its controls a
    /// sixth of that line away.</summary>
    private static PathPoint Point(Vec before, Vec at, Vec after)
    {
        Vec arriving = at - before, leaving = after - at;
        double turn = Math.Abs(Math.Atan2(arriving.Cross(leaving), arriving.X * leaving.X + arriving.Y * leaving.Y)) * 180 / Math.PI;
        if (turn > Corner) return new(at);
        var along = after - before;
        double length = along.Length;
        if (length == 0) return new(at);
        // No farther than a third of the way to the neighbour, so that uneven points make no loops.
        return new(at, at - Math.Min(1.0 / 6, arriving.Length / 3 / length) * along, at + Math.Min(1.0 / 6, leaving.Length / 3 / length) * along);
    }

    /// <summary>Douglas and Peucker 1973, on a closed line cut at its start and the point farthest from it.</summary>
    private static List<Vec> Simplified(ImmutableArray<Vec> stroke, double tolerance)
    {
        var points = stroke.Where((p, i) => i == 0 || (p - stroke[i - 1]).Length > 0).ToList();
        if (points.Count > 1 && (points[^1] - points[0]).Length <= tolerance) points.RemoveAt(points.Count - 1);
        if (points.Count < 3) return points;
        int far = Enumerable.Range(1, points.Count - 1).MaxBy(i => (points[i] - points[0]).Length);
        points.Add(points[0]);
        var keep = new bool[points.Count];
        keep[0] = keep[far] = true;
        var spans = new Stack<(int From, int To)>([(0, far), (far, points.Count - 1)]);
        while (spans.TryPop(out var span))
        {
            if (span.To - span.From < 2) continue;
            int worst = Enumerable.Range(span.From + 1, span.To - span.From - 1).MaxBy(i => FromLine(points[i], points[span.From], points[span.To]));
            if (FromLine(points[worst], points[span.From], points[span.To]) <= tolerance) continue;
            keep[worst] = true;
            spans.Push((span.From, worst));
            spans.Push((worst, span.To));
        }
        return [.. points.Where((_, i) => keep[i])];
    }

    private static double FromLine(Vec p, Vec a, Vec b)
    {
        var along = b - a;
        double square = along.X * along.X + along.Y * along.Y;
        double t = square == 0 ? 0 : Math.Clamp(((p - a).X * along.X + (p - a).Y * along.Y) / square, 0, 1);
        return (p - (a + t * along)).Length;
    }
}
