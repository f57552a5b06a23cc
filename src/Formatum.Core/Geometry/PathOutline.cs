using System.Collections.Immutable;

namespace Formatum.Core.Geometry;

/// <summary>A point of a free outline, in fractions of the frame's box.</summary>
/// <param name="At">Where the outline goes through.</param>
/// <param name="Before">What it bends towards on the way in; null for a straight way.</param>
/// <param name="After">What it bends towards on the way out; null for a straight way.</param>
public readonly record struct PathPoint(Vec At, Vec? Before = null, Vec? After = null)
{
    /// <summary>The point and its controls, each taken somewhere else.</summary>
    public PathPoint Mapped(Func<Vec, Vec> map) => new(map(At), Before is { } before ? map(before) : null, After is { } after ? map(after) : null);
}

/// <summary>A closed outline of straight lines and cubic Bezier curves.</summary>
public sealed record PathOutline(ImmutableArray<PathPoint> Points) : Outline
{
    public const int FewestPoints = 3, MostPoints = 2000;

    /// <summary>Large enough for its curves to be cut finely.</summary>
    private const double TypicalSide = 200;

    private bool? _isCrossing;

    public override bool IsCrossing => _isCrossing ??= PolygonMeasure.IsCrossing(Flatten(TypicalSide, TypicalSide).AsSpan());

    public override double Area(double width, double height) => PolygonMeasure.AreaOf(Flatten(width, height).AsSpan(), IsCrossing);

    /// <summary>
    /// Curves are cut into so many equal pieces that none strays from its chord by more than the tolerance: for a cubic,
    /// n = sqrt(sqrt(3)/18 * largest second difference * 6 / tolerance), the bound of the second derivative.
    /// </summary>
    public override ImmutableArray<Vec> Flatten(double width, double height)
    {
        Vec Scaled(Vec p) => new(p.X * width, p.Y * height);
        var corners = ImmutableArray.CreateBuilder<Vec>();
        foreach (var (from, to) in Legs())
        {
            Vec p0 = Scaled(from.At), p3 = Scaled(to.At);
            corners.Add(p0);
            if (from.After is null && to.Before is null) continue;
            Vec p1 = Scaled(from.After ?? from.At), p2 = Scaled(to.Before ?? to.At);
            double bend = Math.Max((p0 - 2 * p1 + p2).Length, (p1 - 2 * p2 + p3).Length);
            int pieces = Math.Clamp((int)Math.Ceiling(Math.Sqrt(0.75 * bend / Tolerance)), 1, 500);
            for (int i = 1; i < pieces; i++)
            {
                double t = (double)i / pieces, u = 1 - t;
                corners.Add(u * u * u * p0 + 3 * u * u * t * p1 + 3 * u * t * t * p2 + t * t * t * p3);
            }
        }
        return corners.ToImmutable();
    }

    /// <summary>Each leg, from point to point, the last back to the first.</summary>
    public IEnumerable<(PathPoint From, PathPoint To)> Legs()
    {
        for (int i = 0; i < Points.Length; i++) yield return (Points[i], Points[i + 1 == Points.Length ? 0 : i + 1]);
    }

    public bool Equals(PathOutline? other) => other is not null && Points.AsSpan().SequenceEqual(other.Points.AsSpan());

    public override int GetHashCode() => Points.Length == 0 ? 0 : HashCode.Combine(Points.Length, Points[0], Points[^1]);
}

/// <summary>Outlines made to measure.</summary>
public static class Outlines
{
    public const int FewestSides = 3, MostSides = 100;

    /// <summary>A star's points go in no further than this share of the way to the middle.</summary>
    public const double DeepestStar = 0.95;

    /// <summary>A regular polygon standing on a side, or a star, stretched to fill its box.</summary>
    /// <param name="sides">Its sides; of a star, its points.</param>
    /// <param name="depth">How far the corners between a star's points lie towards the middle, as a share of the way; 0 for a polygon.</param>
    public static PolygonOutline Polygon(int sides, double depth = 0)
    {
        var around = Around(sides, depth);
        var box = BoxAround(around);
        return new([.. around.Select(p => new Vec((p.X - box.X) / box.Width, (p.Y - box.Y) / box.Height))]);
    }

    /// <summary>Width over height of the box in which <see cref="Polygon"/> is truly regular.</summary>
    public static double RegularRatio(int sides, double depth = 0) => BoxAround(Around(sides, depth)) is var box ? box.Width / box.Height : 1;

    /// <summary>The corners about a middle at 0, the outermost at 1: a point at the top, of a polygon with even sides a side.</summary>
    private static Vec[] Around(int sides, double depth)
    {
        bool isStar = depth > 0;
        double step = (isStar ? Math.PI : 2 * Math.PI) / sides, start = -Math.PI / 2 + (!isStar && sides % 2 == 0 ? step / 2 : 0);
        double Reach(int i) => isStar && i % 2 != 0 ? 1 - depth : 1;
        return [.. Enumerable.Range(0, isStar ? 2 * sides : sides).Select(i => Reach(i) * new Vec(Math.Cos(start + step * i), Math.Sin(start + step * i)))];
    }

    private static Box BoxAround(Vec[] points)
    {
        double left = points.Min(p => p.X), top = points.Min(p => p.Y);
        return new(left, top, points.Max(p => p.X) - left, points.Max(p => p.Y) - top);
    }

    /// <summary>A free outline through points of the page, and the box it fills.</summary>
    /// <param name="points">Points and controls in points of the page.</param>
    public static (Box Box, PathOutline Outline) Free(ImmutableArray<PathPoint> points)
    {
        var flat = new PathOutline(points).Flatten(1, 1);
        double left = flat.Min(p => p.X), top = flat.Min(p => p.Y), width = flat.Max(p => p.X) - left, height = flat.Max(p => p.Y) - top;
        // A line without any extent has no box; whoever asks is told that the frame has no width.
        Vec In(Vec p) => new(width > 0 ? (p.X - left) / width : 0, height > 0 ? (p.Y - top) / height : 0);
        return (new(left, top, width, height), new([.. points.Select(p => p.Mapped(In))]));
    }

    /// <summary>The outline seen in a mirror, left to right or top to bottom.</summary>
    public static Outline Mirrored(Outline outline, bool across)
    {
        Vec Flip(Vec p) => across ? new(1 - p.X, p.Y) : new(p.X, 1 - p.Y);
        return outline switch
        {
            PolygonOutline polygon => new PolygonOutline([.. polygon.Corners.Select(Flip)]),
            PathOutline path => new PathOutline([.. path.Points.Select(p => p.Mapped(Flip))]),
            _ => outline,
        };
    }
}
