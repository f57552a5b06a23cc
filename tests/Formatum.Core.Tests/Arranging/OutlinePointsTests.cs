using CsCheck;
using Formatum.Core.Arranging;
using Formatum.Core.Geometry;

namespace Formatum.Core.Tests.Arranging;

public class OutlinePointsTests
{
    private static readonly PathOutline Leaf = Outlines.Free([new(new(0, 50), new(0, 80), new(0, 20)), new(new(100, 40)),
        new(new(60, 100), null, new(30, 110))]).Outline;

    private static readonly Gen<Pose> Poses = Gen.Select(Gen.Double[-200, 200], Gen.Double[-200, 200], Gen.Double[20, 300], Gen.Double[20, 300],
        Gen.Double[-180, 180], (x, y, w, h, angle) => new Pose(new(x, y, w, h), angle));

    private static readonly Gen<Outline> Shapes = Gen.OneOfConst<Outline>(Outline.Rectangle, Outline.Ellipse, Outlines.Polygon(5), Leaf);

    private static void Near(Vec? a, Vec? b)
    {
        (a is null).ShouldBe(b is null);
        if (a is { } p && b is { } q) (p - q).Length.ShouldBeLessThan(1e-9);
    }

    private static void BoxIsTight(Pose pose, Outline outline)
    {
        var flat = outline.Flatten(pose.Box.Width, pose.Box.Height);
        // Flattening strays from the curve by its tolerance at most.
        flat.Min(p => p.X).ShouldBe(0, 2 * Outline.Tolerance);
        flat.Max(p => p.X).ShouldBe(pose.Box.Width, 2 * Outline.Tolerance);
        flat.Min(p => p.Y).ShouldBe(0, 2 * Outline.Tolerance);
        flat.Max(p => p.Y).ShouldBe(pose.Box.Height, 2 * Outline.Tolerance);
    }

    [Fact]
    public void A_moved_point_goes_where_it_is_drawn_and_all_others_stay_where_they_lie_on_the_page()
    {
        Gen.Select(Poses, Shapes, Gen.Int[0, 2], Gen.Double[-80, 80], Gen.Double[-80, 80]).Sample((pose, outline, index, dx, dy) =>
        {
            var before = OutlinePoints.Of(pose, outline);
            var to = before[index].At + new Vec(dx, dy);
            var (moved, shape) = OutlinePoints.Moved(pose, outline, index, PointPart.At, to);
            moved.Angle.ShouldBe(pose.Angle);
            var after = OutlinePoints.Of(moved, shape);
            after.Length.ShouldBe(before.Length);
            for (int i = 0; i < after.Length; i++)
            {
                Vec by = i == index ? new(dx, dy) : default;
                Near(after[i].At, before[i].At + by);
                Near(after[i].Before, before[i].Before + by);
                Near(after[i].After, before[i].After + by);
            }
            BoxIsTight(moved, shape);
        }, iter: 300);
    }

    [Fact]
    public void An_added_point_leaves_the_shape_as_it_is()
    {
        Gen.Select(Poses, Shapes, Gen.Double[0, 1], Gen.Double[0, 1]).Sample((pose, outline, fx, fy) =>
        {
            var (same, shape) = OutlinePoints.Added(pose, outline, pose.At(fx, fy));
            OutlinePoints.Of(same, shape).Length.ShouldBe(OutlinePoints.Of(pose, outline).Length + 1);
            same.Box.X.ShouldBe(pose.Box.X, pose.Box.Width * 0.001 + Outline.Tolerance);
            // An ellipse becomes curves that stray from it by 0.03 %, and are flattened for measuring.
            shape.Area(same.Box.Width, same.Box.Height).ShouldBe(outline.Area(pose.Box.Width, pose.Box.Height),
                pose.Box.Area * 0.001 + 2 * (pose.Box.Width + pose.Box.Height) * Outline.Tolerance);
        }, iter: 300);
    }

    /// <summary>The largest error of the four-cubic circle is 2.7e-4 of the radius (Goldapp, Approximation of circular arcs by cubic polynomials, 1991; from
    /// memory).</summary>
    [Fact]
    public void An_ellipse_as_curves_strays_from_it_by_less_than_three_in_ten_thousand()
    {
        var pose = new Pose(new(0, 0, 2000, 2000), 0);
        var (_, shape) = OutlinePoints.Moved(pose, Outline.Ellipse, 0, PointPart.At, new(1000, 0));
        shape.ShouldBeOfType<PathOutline>();
        var radii = shape.Flatten(2000, 2000).Select(p => (p - new Vec(1000, 1000)).Length).ToList();
        radii.Max().ShouldBe(1000, 0.28);
        radii.Min().ShouldBe(1000, 0.01);
    }

    [Fact]
    public void A_rectangle_becomes_a_polygon_and_stays_one_until_a_point_bends()
    {
        var pose = new Pose(new(10, 10, 100, 60), 0);
        var (moved, polygon) = OutlinePoints.Moved(pose, Outline.Rectangle, 2, PointPart.At, new(160, 90));
        polygon.ShouldBeOfType<PolygonOutline>().Corners.Length.ShouldBe(4);
        moved.Box.ShouldBe(new(10, 10, 150, 80));
        var (bent, curved) = OutlinePoints.Bent(moved, polygon, 2);
        var point = OutlinePoints.Of(bent, curved)[2];
        curved.ShouldBeOfType<PathOutline>();
        // Its controls lie along the line from one neighbour to the other.
        (point.After!.Value - point.Before!.Value).Cross(new Vec(10, 70) - new Vec(110, 10)).ShouldBe(0, 1e-9);
        var (straight, again) = OutlinePoints.Bent(bent, curved, 2);
        again.ShouldBeOfType<PolygonOutline>();
        straight.Box.Width.ShouldBe(moved.Box.Width, 1e-9);
    }

    [Fact]
    public void The_control_across_keeps_to_a_straight_line_unless_one_is_drawn_alone()
    {
        var pose = new Pose(new(0, 0, 100, 100), 30);
        var before = OutlinePoints.Of(pose, Leaf)[0];
        Vec to = before.At + new Vec(-25, -31);
        foreach (bool alone in new[] { false, true })
        {
            var (moved, shape) = OutlinePoints.Moved(pose, Leaf, 0, PointPart.After, to, alone);
            var after = OutlinePoints.Of(moved, shape)[0];
            Near(after.At, before.At);
            Near(after.After, to);
            if (alone) Near(after.Before, before.Before);
            else
            {
                (after.Before!.Value - after.At).Cross(after.After!.Value - after.At).ShouldBe(0, 1e-7);
                (after.Before!.Value - after.At).Length.ShouldBe((before.Before!.Value - before.At).Length, 1e-9);
            }
        }
    }

    [Fact]
    public void A_removed_point_is_gone_and_the_others_stay()
    {
        var pose = new Pose(new(0, 0, 100, 100), -20);
        var before = OutlinePoints.Of(pose, Outlines.Polygon(6));
        var (moved, shape) = OutlinePoints.Removed(pose, Outlines.Polygon(6), 1);
        var after = OutlinePoints.Of(moved, shape);
        foreach (var (now, was) in after.Zip(before.RemoveAt(1))) Near(now.At, was.At);
        BoxIsTight(moved, shape);
    }
}
