using System.Collections.Immutable;
using Formatum.Core.Geometry;

namespace Formatum.Core.Typesetting;

/// <summary>What a polygon has of bands, the strips between two heights in which lines stand. It is wound by the nonzero rule (SVG 2, 13.4.2).</summary>
internal sealed class BandShape
{
    private readonly ImmutableArray<Edge> _edges;

    /// <summary>The heights of its corners, and of where its edges cross: between two of them every edge is one straight line, and none crosses
    /// another.</summary>
    private readonly double[] _heights;

    public BandShape(ImmutableArray<Vec> polygon)
    {
        _edges = [.. polygon.Select((from, i) => new Edge(from, polygon[i + 1 == polygon.Length ? 0 : i + 1]))];
        var heights = polygon.Select(p => p.Y).ToHashSet();
        if (PolygonMeasure.IsCrossing(polygon.AsSpan())) heights.UnionWith(Crossings());
        _heights = [.. heights.Order()];
    }

    private IEnumerable<double> Crossings()
    {
        for (int i = 0; i < _edges.Length; i++)
        {
            for (int k = i + 1; k < _edges.Length; k++)
            {
                Vec a = _edges[i].From, b = _edges[i].To - a, c = _edges[k].From, d = _edges[k].To - c;
                double turn = b.Cross(d);
                if (turn == 0) continue;
                double along = (c - a).Cross(d) / turn, other = (c - a).Cross(b) / turn;
                if (along is >= 0 and <= 1 && other is >= 0 and <= 1) yield return a.Y + along * b.Y;
            }
        }
    }

    /// <summary>Where it is inside from the top of a band to its bottom.</summary>
    public List<Interval> Inside(double top, double bottom)
    {
        double[] heights = Heights(top, bottom);
        List<Interval>? inside = null;
        for (int i = 0; i + 1 < heights.Length; i++)
        {
            var slab = InSlab(heights[i], heights[i + 1], inner: true);
            inside = inside is null ? slab : Intervals.Common(inside, slab);
        }
        return inside ?? [];
    }

    /// <summary>Where a band comes nearer to it than a distance, or has something of it (CSS Shapes 1, 4: shape-margin).</summary>
    public List<Interval> Near(double top, double bottom, double distance)
    {
        var touched = NearEdges(top, bottom, distance);
        double[] heights = Heights(top, bottom);
        for (int i = 0; i + 1 < heights.Length; i++) touched.AddRange(InSlab(heights[i], heights[i + 1], inner: false));
        return Intervals.Merged(touched);
    }

    /// <summary>Where a band comes nearer to its edges than a distance.</summary>
    public List<Interval> NearEdges(double top, double bottom, double distance)
    {
        var near = new List<Interval>();
        if (distance <= 0) return near;
        foreach (var edge in _edges)
            if (edge.Top < bottom + distance && edge.Bottom > top - distance && NearEdge(edge.From, edge.To, top, bottom,
                distance) is { } reach) near.Add(reach);
        return near;
    }

    private double[] Heights(double top, double bottom) => [top, .. _heights.Where(y => y > top && y < bottom), bottom];

    private readonly record struct Edge(Vec From, Vec To)
    {
        public int Turn => Math.Sign(To.Y - From.Y);
        public double Top => Math.Min(From.Y, To.Y);
        public double Bottom => Math.Max(From.Y, To.Y);

        public double At(double y) => From.X + (To.X - From.X) * (y - From.Y) / (To.Y - From.Y);
    }

    /// <summary>Where the polygon is inside all of a slab, or some of it.</summary>
    private List<Interval> InSlab(double top, double bottom, bool inner)
    {
        double middle = (top + bottom) / 2;
        var met = _edges.Where(e => e.Turn != 0 && e.Top <= middle && e.Bottom > middle).OrderBy(e => e.At(middle)).ToList();
        var intervals = new List<Interval>();
        int wound = 0;
        Edge enter = default;
        foreach (var edge in met)
        {
            if (wound == 0) enter = edge;
            wound += edge.Turn;
            if (wound != 0) continue;
            (double a, double b) = (enter.At(top), enter.At(bottom));
            (double c, double d) = (edge.At(top), edge.At(bottom));
            var interval = inner ? new Interval(Math.Max(a, b), Math.Min(c, d)) : new(Math.Min(a, b), Math.Max(c, d));
            if (interval.Width > 0) intervals.Add(interval);
        }
        return intervals;
    }

    /// <summary>
    /// How far to the left and right the points within a distance of an edge reach in a band; null where none of them lie in it. As far as a point of the edge
    /// lies above or below the band, so much less its circle reaches; that is concave along the edge, so the farthest is at one of a few places.
    /// </summary>
    private static Interval? NearEdge(Vec from, Vec to, double top, double bottom, double distance)
    {
        var along = to - from;
        double length = along.Length;
        var places = new List<double> { 0, 1 };
        if (along.Y != 0)
        {
            double slant = length == 0 ? 0 : distance * Math.Abs(along.X) / length;
            foreach (double y in new[] { top, bottom, top - slant, bottom + slant, top - distance, bottom + distance })
                if ((y - from.Y) / along.Y is > 0 and < 1 and var place) places.Add(place);
        }
        double left = double.PositiveInfinity, right = double.NegativeInfinity;
        foreach (double place in places)
        {
            var at = from + place * along;
            double off = Math.Max(0, Math.Max(top - at.Y, at.Y - bottom)), reach = distance * distance - off * off;
            // Where it only just comes as far as the band, it takes nothing of it.
            if (reach < 1e-9) continue;
            reach = Math.Sqrt(reach);
            left = Math.Min(left, at.X - reach);
            right = Math.Max(right, at.X + reach);
        }
        return left < right ? new(left, right) : null;
    }
}
