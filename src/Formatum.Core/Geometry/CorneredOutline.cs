using System.Collections.Immutable;

namespace Formatum.Core.Geometry;

/// <summary>
/// A rectangle or polygon whose corners are shaped. Radii are in points, so its form follows the frame's size. Radii too large are reduced: those of a
/// rectangle all by one factor (CSS Backgrounds and Borders 3, 4.5), those of a polygon each only as far as its own two sides ask for, and so that no hollow
/// reaches through another side.
/// </summary>
public sealed record CorneredOutline(Outline Base, Corners Corners) : Outline
{
    /// <summary>No piece of an arc turns farther, in radians: a cubic then strays from it by less than a millionth of its radius.</summary>
    private const double LargestPiece = Math.PI / 6;

    public override bool IsCrossing => Base.IsCrossing;

    public override double Area(double width, double height) => PolygonMeasure.AreaOf(Flatten(width, height).AsSpan(), IsCrossing);

    public override ImmutableArray<Vec> Flatten(double width, double height) => At(width, height).Flatten(width, height);

    /// <summary>The outline in a frame of the given size, in points.</summary>
    public PathOutline At(double width, double height)
    {
        var corners = Base.Flatten(width, height);
        int n = corners.Length;
        var turns = new Turn[n];
        for (int i = 0; i < n; i++)
            turns[i] = Turn.At(corners[(i + n - 1) % n], corners[i], corners[(i + 1) % n], Corners.Kind, RadiusOf(i));
        if (Base is PolygonOutline && Corners.Kind is CornerKind.Scoop or CornerKind.Notch) Shallow(corners, turns);
        Reduce(corners, turns);
        var points = ImmutableArray.CreateBuilder<PathPoint>();
        foreach (var turn in turns) turn.AddTo(points, Corners.Kind);
        return new([.. points.Select(p => p.Mapped(v => new(v.X / width, v.Y / height)))]);
    }

    private double RadiusOf(int corner) => Base is RectangleOutline ? Corners.Radii()[corner] : Corners.UpperLeft;

    private void Shallow(ImmutableArray<Vec> corners, Turn[] turns)
    {
        int n = turns.Length;
        for (int i = 0; i < n; i++)
        {
            double room = double.PositiveInfinity, deep = Corners.Kind == CornerKind.Scoop ? 1 : Math.Max(1, (turns[i].Back + turns[i].On).Length);
            for (int k = 1; k < n - 1; k++) room = Math.Min(room, Distance(corners[i], corners[(i + k) % n], corners[(i + k + 1) % n]));
            if (turns[i].Cut * deep > room) turns[i] = turns[i] with { Cut = room / deep };
        }
    }

    private static double Distance(Vec p, Vec from, Vec to)
    {
        Vec along = to - from, off = p - from;
        double length = along.X * along.X + along.Y * along.Y, t = length == 0 ? 0 : Math.Clamp((off.X * along.X + off.Y * along.Y) / length, 0, 1);
        return (off - t * along).Length;
    }

    private void Reduce(ImmutableArray<Vec> corners, Turn[] turns)
    {
        int n = turns.Length;
        var factors = new double[n];
        Array.Fill(factors, 1);
        for (int i = 0; i < n; i++)
        {
            int next = (i + 1) % n;
            double side = (corners[next] - corners[i]).Length, cut = turns[i].Cut + turns[next].Cut;
            if (cut <= side) continue;
            factors[i] = Math.Min(factors[i], side / cut);
            factors[next] = Math.Min(factors[next], side / cut);
        }
        if (Base is RectangleOutline) Array.Fill(factors, factors.Min());
        for (int i = 0; i < n; i++) turns[i] = turns[i] with { Cut = turns[i].Cut * factors[i] };
    }

    /// <summary>One corner.</summary>
    /// <param name="Corner">Where it is.</param>
    /// <param name="Back">The direction of the side that comes to it, as seen from it.</param>
    /// <param name="On">The direction of the side that goes on.</param>
    /// <param name="Cut">How far along both sides it is shaped.</param>
    private readonly record struct Turn(Vec Corner, Vec Back, Vec On, double Cut)
    {
        public static Turn At(Vec before, Vec corner, Vec after, CornerKind kind, double radius)
        {
            Vec back = before - corner, on = after - corner;
            if (radius <= 0 || back.Length == 0 || on.Length == 0) return new(corner, default, default, 0);
            (back, on) = (1 / back.Length * back, 1 / on.Length * on);
            // An arc touches both sides where half the angle between them has the radius for its opposite side.
            double half = Math.Atan2(Math.Abs(back.Cross(on)), back.X * on.X + back.Y * on.Y) / 2, cut = kind == CornerKind.Round ? radius / Math.Tan(half)
                : radius;
            return new(corner, back, on, double.IsFinite(cut) && half < Math.PI / 2 - 1e-9 ? Math.Min(cut, Corners.Largest) : 0);
        }

        public void AddTo(ImmutableArray<PathPoint>.Builder points, CornerKind kind)
        {
            if (Cut < 1e-9)
            {
                points.Add(new(Corner));
                return;
            }
            Vec from = Corner + Cut * Back, to = Corner + Cut * On;
            if (kind is CornerKind.Round or CornerKind.Scoop)
            {
                Arc(points, from, to, kind);
                return;
            }
            points.Add(new(from));
            if (kind == CornerKind.Notch) points.Add(new(from + to - Corner));
            points.Add(new(to));
        }

        /// <summary>About the corner where it is scooped; about the point from which it touches both sides where it is round.</summary>
        private void Arc(ImmutableArray<PathPoint>.Builder points, Vec from, Vec to, CornerKind kind)
        {
            var middle = Back + On;
            double half = Math.Atan2(Math.Abs(Back.Cross(On)), Back.X * On.X + Back.Y * On.Y) / 2;
            var centre = kind == CornerKind.Scoop ? Corner : Corner + Cut / Math.Cos(half) / middle.Length * middle;
            Vec arm = from - centre, end = to - centre;
            double sweep = Math.Atan2(arm.Cross(end), arm.X * end.X + arm.Y * end.Y);
            int pieces = Math.Max(1, (int)Math.Ceiling(Math.Abs(sweep) / LargestPiece));
            double step = sweep / pieces, reach = 4.0 / 3 * Math.Tan(step / 4);
            for (int i = 0; i <= pieces; i++)
            {
                var (sin, cos) = Math.SinCos(i * step);
                Vec spoke = new(arm.X * cos - arm.Y * sin, arm.X * sin + arm.Y * cos), along = reach * new Vec(-spoke.Y, spoke.X);
                points.Add(new(centre + spoke, i == 0 ? null : centre + spoke - along, i == pieces ? null : centre + spoke + along));
            }
        }
    }
}
