using System.Collections.Immutable;
using Formatum.Core.Geometry;

namespace Formatum.Core.Arranging;

/// <summary>What of an outline's point a hand is on: the point itself, or a control it bends towards.</summary>
public enum PointPart { At, Before, After }

/// <summary>
/// Outlines changed point by point: a rectangle becomes a polygon on the way, an ellipse a free outline. A frame's box always lies close around its outline,
/// so that each change comes to another pose too; what is not touched stays where it lies on the page, also in a turned frame.
/// </summary>
public static class OutlinePoints
{
    /// <summary>A control of a new bend lies this share of the way to the neighbouring point, so that a curve through even points runs evenly.</summary>
    private const double Reach = 1.0 / 3;

    /// <summary>
    /// A quarter of an ellipse is a cubic whose controls lie this share of the half axes away; it strays from the ellipse by no more than 0.03 %
    /// (4/3 (sqrt 2 - 1), the usual value: the middle of the curve then lies on the ellipse).
    /// </summary>
    private static readonly double Quarter = 4.0 / 3 * (Math.Sqrt(2) - 1);

    /// <summary>The points as they lie where the pose is given.</summary>
    public static ImmutableArray<PathPoint> Of(Pose pose, Outline outline)
    {
        var toPage = pose.ToPage.After(Affine.Scaling(pose.Box.Width, pose.Box.Height));
        return [.. In(outline).Select(p => p.Mapped(toPage.Apply))];
    }

    /// <summary>Moves a point with its controls, or one control; the control across from it keeps to a straight line with it.</summary>
    /// <param name="pose">Where the frame lies.</param>
    /// <param name="outline">Its outline.</param>
    /// <param name="index">Which point, from 0.</param>
    /// <param name="part">What of it.</param>
    /// <param name="to">Where to.</param>
    /// <param name="alone">Whether a control leaves the one across from it as it is, which makes a corner of the point.</param>
    public static (Pose Pose, Outline Outline) Moved(Pose pose, Outline outline, int index, PointPart part, Vec to, bool alone = false) =>
        Changed(pose, outline, points =>
    {
        var point = points[index];
        if (part == PointPart.At)
        {
            var by = to - point.At;
            return points.SetItem(index, new(to, point.Before + by, point.After + by));
        }
        var across = part == PointPart.Before ? point.After : point.Before;
        if (!alone && across is { } other && (to - point.At).Length is > 0 and var length)
            across = point.At - (other - point.At).Length / length * (to - point.At);
        return points.SetItem(index, part == PointPart.Before ? new(point.At, to, across) : new(point.At, across, to));
    });

    /// <summary>Puts a point on the outline where it passes nearest; its shape stays as it is.</summary>
    public static (Pose Pose, Outline Outline) Added(Pose pose, Outline outline, Vec near) => Changed(pose, outline, points =>
    {
        var (leg, t) = Nearest(points, near);
        int next = (leg + 1) % points.Length;
        var (start, end) = (points[leg], points[next]);
        if (start.After is null && end.Before is null) return points.Insert(leg + 1, new(Between(start.At, end.At, t)));
        // De Casteljau: the two halves together are the curve there was.
        Vec p0 = start.At, p1 = start.After ?? p0, p3 = end.At, p2 = end.Before ?? p3;
        Vec a = Between(p0, p1, t), b = Between(p1, p2, t), c = Between(p2, p3, t), ab = Between(a, b, t), bc = Between(b, c, t);
        return points.SetItem(leg, start with { After = a }).SetItem(next, end with { Before = c }).Insert(leg + 1, new(Between(ab, bc, t), ab, bc));
    });

    /// <summary>Takes a point away.</summary>
    public static (Pose Pose, Outline Outline) Removed(Pose pose, Outline outline, int index) => Changed(pose, outline, points => points.RemoveAt(index));

    /// <summary>Makes a corner of a point that bends, and a bend of a corner.</summary>
    public static (Pose Pose, Outline Outline) Bent(Pose pose, Outline outline, int index) => Changed(pose, outline, points =>
    {
        var point = points[index];
        if (point.Before is not null || point.After is not null) return points.SetItem(index, new(point.At));
        Vec before = points[(index + points.Length - 1) % points.Length].At, after = points[(index + 1) % points.Length].At, along = after - before;
        if (along.Length == 0) return points;
        along = 1 / along.Length * along;
        return points.SetItem(index, new(point.At, point.At - Reach * (point.At - before).Length * along,
            point.At + Reach * (after - point.At).Length * along));
    });

    private static ImmutableArray<PathPoint> In(Outline outline) => outline switch
    {
        PathOutline path => path.Points,
        PolygonOutline polygon => [.. polygon.Corners.Select(c => new PathPoint(c))],
        EllipseOutline => [Round(0.5, 0, 1, 0), Round(1, 0.5, 0, 1), Round(0.5, 1, -1, 0), Round(0, 0.5, 0, -1)],
        _ => [new(new(0, 0)), new(new(1, 0)), new(new(1, 1)), new(new(0, 1))],
    };

    /// <summary>A point of an ellipse in fractions of its box, and the way it goes on.</summary>
    private static PathPoint Round(double x, double y, double dx, double dy)
    {
        Vec at = new(x, y), reach = Quarter / 2 * new Vec(dx, dy);
        return new(at, at - reach, at + reach);
    }

    private static (Pose Pose, Outline Outline) Changed(Pose pose, Outline outline, Func<ImmutableArray<PathPoint>, ImmutableArray<PathPoint>> change)
    {
        // Worked on unturned, about the middle the frame has now.
        Affine unturn = Affine.Translation(pose.Box.X, pose.Box.Y).After(pose.ToPage.Inverse()), toPage = unturn.Inverse();
        var (box, free) = Outlines.Free([.. change(Of(pose, outline)).Select(p => p.Mapped(unturn.Apply))]);
        Vec centre = toPage.Apply(box.Centre);
        var placed = new Pose(box.Moved(centre.X - box.Centre.X, centre.Y - box.Centre.Y), pose.Angle);
        bool straight = free.Points.All(p => p.Before is null && p.After is null);
        return (placed, straight ? new PolygonOutline([.. free.Points.Select(p => p.At)]) : free);
    }

    private static Vec Between(Vec p, Vec q, double t) => p + t * (q - p);

    /// <summary>The leg that passes nearest to a point, and how far along it, from 0 to 1.</summary>
    private static (int Leg, double T) Nearest(ImmutableArray<PathPoint> points, Vec near)
    {
        const int Steps = 64;
        (int Leg, double T, double Distance) best = (0, 0.5, double.PositiveInfinity);
        for (int leg = 0; leg < points.Length; leg++)
        {
            var (start, end) = (points[leg], points[(leg + 1) % points.Length]);
            bool straight = start.After is null && end.Before is null;
            Vec p0 = start.At, p3 = end.At, p1 = straight ? Between(p0, p3, 1.0 / 3) : start.After ?? p0, p2 = straight ? Between(p3, p0, 1.0 / 3) : end.Before
                ?? p3;
            for (int i = 1; i < Steps; i++)
            {
                double t = (double)i / Steps, u = 1 - t;
                double distance = (u * u * u * p0 + 3 * u * u * t * p1 + 3 * u * t * t * p2 + t * t * t * p3 - near).Length;
                if (distance < best.Distance) best = (leg, t, distance);
            }
        }
        return (best.Leg, best.T);
    }
}
