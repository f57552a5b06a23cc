using Formatum.Core.Geometry;

namespace Formatum.Core.Fitting;

/// <summary>
/// From where a hand has put a picture to the recrop that puts it there: the fitter's formulas (docs/fitting.md) solved for zoom, turn and point.
/// All maps go from the image's unit square to frame-local points.
/// </summary>
public static class Recropping
{
    /// <summary>The recrop under which the fitter puts the picture where it is wanted, or as near as the fit lets it.</summary>
    public static Recrop Towards(in PictureFit fitting, in Affine wanted)
    {
        var (shownX, shownY, angle) = Measures(fitting.Rule, wanted);
        double turn = Turned(angle - fitting.Rule.Rotation);
        var asRule = fitting.Place(new Recrop(1, null, null, turn));
        double across = Zoom(shownX / fitting.Picture.NaturalWidth / asRule.ScaleX), down = Zoom(shownY / fitting.Picture.NaturalHeight / asRule.ScaleY);
        double? unlinked = Math.Abs(across - down) > 1e-9 * across ? down : null;
        var recrop = new Recrop(across, PointAt(wanted, fitting.AlignmentPoint), unlinked, turn);
        // Where the fit let the picture go less far, the point is that of where it ended: the next move then starts from what is seen.
        return recrop with { Point = PointAt(fitting.Place(recrop).Matrix, fitting.AlignmentPoint) };
    }

    /// <summary>The map moved, and enlarged where need be, by as little as leaves none of the fit box bare.</summary>
    public static Affine Covering(in PictureFit fitting, Affine wanted)
    {
        var (shownX, shownY, angle) = Measures(fitting.Rule, wanted);
        var (sin, cos) = Angle.SinCos(angle);
        var box = fitting.FitBox;
        double alongX = box.Width * Math.Abs(cos) + box.Height * Math.Abs(sin), alongY = box.Width * Math.Abs(sin) + box.Height * Math.Abs(cos);
        double grow = Math.Max(1, Math.Max(alongX / shownX, alongY / shownY));
        wanted = Scaled(wanted, grow, grow, angle, box.Centre);
        var off = wanted.Apply(new(0.5, 0.5)) - box.Centre;
        // Along the image's own axes, as Fill does it.
        double u = off.X * cos + off.Y * sin, v = off.Y * cos - off.X * sin;
        double mostU = Math.Max(0, grow * shownX - alongX) / 2, mostV = Math.Max(0, grow * shownY - alongY) / 2;
        double du = Math.Clamp(u, -mostU, mostU) - u, dv = Math.Clamp(v, -mostV, mostV) - v;
        return Affine.Translation(du * cos - dv * sin, du * sin + dv * cos).After(wanted);
    }

    /// <summary>Whether the picture covers the whole fit box.</summary>
    public static bool Covers(in PictureFit fitting, in Affine map)
    {
        var box = fitting.FitBox;
        if (box.Width <= 0 || box.Height <= 0 || map.Determinant == 0) return false;
        var inverse = map.Inverse();
        foreach (var corner in new[] { box.At(0, 0), box.At(1, 0), box.At(1, 1), box.At(0, 1) })
        {
            var p = inverse.Apply(corner);
            if (!(p.X > -Slack && p.X < 1 + Slack && p.Y > -Slack && p.Y < 1 + Slack)) return false;
        }
        return true;
    }

    private const double Slack = 1e-6;

    /// <summary>The map scaled along the image's own axes, about a point of the frame.</summary>
    public static Affine Scaled(in Affine map, double across, double down, double angle, Vec about) =>
        Affine.Translation(about.X, about.Y).After(Affine.Rotation(angle)).After(Affine.Scaling(across, down)).After(Affine.Rotation(-angle))
            .After(Affine.Translation(-about.X, -about.Y)).After(map);

    /// <summary>The lengths of the image's sides as the map draws them, and the angle its upper side lies at, in degrees.</summary>
    public static (double ShownX, double ShownY, double Angle) Measures(in ResolvedFit rule, in Affine map)
    {
        double sign = rule.FlipX ? -1 : 1;
        return (map.ScaleX, map.ScaleY, Math.Atan2(sign * map.B, sign * map.A) * (180 / Math.PI));
    }

    /// <summary>An angle as the hand thinks of a turn: over -180 to 180 degrees, without the dust of rounding.</summary>
    public static double Turned(double degrees)
    {
        double turn = Angle.Normalize(degrees);
        if (turn > 180) turn -= 360;
        double whole = Math.Round(turn, 9);
        return Math.Abs(turn - whole) < 1e-9 ? whole + 0.0 : turn;
    }

    private static double Zoom(double wanted)
    {
        double zoom = Math.Clamp(wanted, Recrop.SmallestZoom, Recrop.LargestZoom);
        return Math.Abs(zoom - 1) < 1e-9 ? 1 : zoom;
    }

    private static Vec PointAt(in Affine map, Vec at) => map.Inverse().Apply(at);
}
