using CsCheck;
using Formatum.Core.Arranging;
using Formatum.Core.Geometry;

namespace Formatum.Core.Tests.Arranging;

/// <summary>Lining up, spreading out, grids, turned frames, typed lengths.</summary>
public class ArrangingTests
{
    internal static readonly Gen<Box> AnyBox = Gen.Select(Gen.Double[-200, 500], Gen.Double[-200, 500], Gen.Double[10, 300], Gen.Double[10, 300],
        (x, y, w, h) => new Box(x, y, w, h));
    private static readonly Gen<Pose> AnyPose = Gen.Select(AnyBox, Gen.OneOf(Gen.OneOfConst(0.0, 90, 180, 270), Gen.Double[0, 360]), (b, a) => new Pose(b, a));

    private static Box[] After(Box[] boxes, IReadOnlyList<Vec> moves) => [.. boxes.Select((b, i) => b.Moved(moves[i].X, moves[i].Y))];

    [Fact]
    public void Boxes_are_brought_into_line() => AnyBox.Array[1, 8].Sample(boxes =>
    {
        var around = boxes.Aggregate((p, q) => p.Union(q));
        After(boxes, Aligning.Aligned(boxes, Alignment.Left, around)).ShouldAllBe(b => Math.Abs(b.X - around.X) < 1e-9);
        After(boxes, Aligning.Aligned(boxes, Alignment.Right, around)).ShouldAllBe(b => Math.Abs(b.Right - around.Right) < 1e-9);
        After(boxes, Aligning.Aligned(boxes, Alignment.Centre, around)).ShouldAllBe(b => Math.Abs(b.Centre.X - around.Centre.X) < 1e-9);
        After(boxes, Aligning.Aligned(boxes, Alignment.Top, around)).ShouldAllBe(b => Math.Abs(b.Y - around.Y) < 1e-9);
        After(boxes, Aligning.Aligned(boxes, Alignment.Middle, around)).ShouldAllBe(b => Math.Abs(b.Centre.Y - around.Centre.Y) < 1e-9);
        After(boxes, Aligning.Aligned(boxes, Alignment.Bottom, around)).ShouldAllBe(b => Math.Abs(b.Bottom - around.Bottom) < 1e-9);
    });

    [Fact]
    public void Spread_out_boxes_have_equal_gaps_and_doing_it_again_changes_nothing() => Gen.Select(AnyBox.Array[2, 8], Gen.Bool, Gen.Bool, Gen.Double[0, 40])
        .Sample((boxes, across, given, gap) =>
    {
        double From(Box b) => across ? b.X : b.Y;
        double To(Box b) => across ? b.Right : b.Bottom;
        var after = After(boxes, Aligning.Distributed(boxes, across, gap: given ? gap : null));
        var order = after.OrderBy(b => From(b) + To(b)).ToArray();
        double[] gaps = [.. order.Zip(order.Skip(1), (p, q) => From(q) - To(p))], middles = [.. order.Zip(order.Skip(1),
            (p, q) => (From(q) + To(q) - From(p) - To(p)) / 2)];
        if (gaps.Min() >= -1e-9) foreach (double g in gaps) g.ShouldBe(given ? gap : gaps[0], 1e-6);
        else foreach (double m in middles) m.ShouldBe(middles[0], 1e-6);
        // The others stay on their own line, and nothing changes its size.
        after.Select(b => (across ? b.Y : b.X, b.Width, b.Height)).ShouldBe(boxes.Select(b => (across ? b.Y : b.X, b.Width, b.Height)));
        foreach (var move in Aligning.Distributed(after, across, gap: given ? gap : null)) move.Length.ShouldBeLessThan(1e-6);
        From(order[0]).ShouldBe(From(boxes.OrderBy(b => From(b) + To(b)).First()), 1e-6);
    });

    [Fact]
    public void Spread_out_within_a_page_they_reach_from_edge_to_edge()
    {
        Box[] boxes = [new(50, 0, 20, 20), new(100, 5, 30, 20), new(300, 9, 50, 20)];
        var after = After(boxes, Aligning.Distributed(boxes, true, new Box(0, 0, 400, 300)));
        after.Select(b => b.X).ShouldBe([0, 170, 350]);
    }

    [Fact]
    public void A_grid_fills_its_area_with_equal_boxes_and_equal_gutters()
    {
        var boxes = new FrameGrid(2, 3, 6, 10).Fill(new(10, 20, 312, 210));
        boxes.Length.ShouldBe(6);
        boxes.ShouldAllBe(b => b.Width == 100 && b.Height == 100);
        boxes.Select(b => (b.X, b.Y)).ShouldBe([(10, 20), (116, 20), (222, 20), (10, 130), (116, 130), (222, 130)]);
        new FrameGrid(2, 9, 0, 10).FillColumns([new(0, 0, 80, 210), new(100, 0, 60, 210)])
            .ShouldBe([new(0, 0, 80, 100), new(100, 0, 60, 100), new(0, 110, 80, 100), new(100, 110, 60, 100)]);
    }

    [Fact]
    public void Turned_by_the_nth_part_of_a_circle_n_times_a_frame_is_where_it_was_about_any_point() =>
        Gen.Select(AnyPose, Gen.Int[1, 24], Gen.OneOfConst(0.0, 0.5, 1), Gen.OneOfConst(0.0, 0.5, 1)).Sample((pose, n, fx, fy) =>
        {
            var about = pose.At(fx, fy);
            var turned = pose;
            for (int i = 0; i < n; i++)
            {
                turned = turned.Turned(360.0 / n, about);
                (turned.At(fx, fy) - about).Length.ShouldBeLessThan(1e-6);
            }
            (turned.Box.UpperLeft - pose.Box.UpperLeft).Length.ShouldBeLessThan(1e-6);
            Math.Abs(Math.IEEERemainder(turned.Angle - pose.Angle, 360)).ShouldBeLessThan(1e-6);
        });

    [Fact]
    public void Whatever_grip_of_a_turned_frame_is_drawn_the_one_across_stays_on_the_page() =>
        Gen.Select(AnyPose, Gen.OneOfConst("nw", "n", "ne", "e", "se", "s", "sw", "w"), Gen.Double[-100, 100], Gen.Double[-100, 100], Gen.Bool)
            .Sample((pose, name, dx, dy, fromCentre) =>
        {
            var grip = Grip.Named(name)!.Value;
            double fx = fromCentre ? 0.5 : (1 - grip.X) / 2.0, fy = fromCentre ? 0.5 : (1 - grip.Y) / 2.0;
            var sized = Dragging.Resized(pose, grip, new Vec(dx, dy), keepRatio: false, fromCentre);
            sized.Angle.ShouldBe(pose.Angle);
            (sized.At(fx, fy) - pose.At(fx, fy)).Length.ShouldBeLessThan(1e-6);
        });

    [Fact]
    public void The_bounds_hold_the_corners_and_no_more() => AnyPose.Sample(pose =>
    {
        Vec[] corners = [pose.At(0, 0), pose.At(1, 0), pose.At(1, 1), pose.At(0, 1)];
        var bounds = pose.Bounds;
        corners.Min(c => c.X).ShouldBe(bounds.X, 1e-6);
        corners.Max(c => c.X).ShouldBe(bounds.Right, 1e-6);
        corners.Min(c => c.Y).ShouldBe(bounds.Y, 1e-6);
        corners.Max(c => c.Y).ShouldBe(bounds.Bottom, 1e-6);
    });

    [Theory]
    [InlineData("210mm/3", 0, 70)]
    [InlineData("+5mm", 40, 45)]
    [InlineData("+ 5", 40, 45)]
    [InlineData("-5", 40, 35)]
    [InlineData("*2", 40, 80)]
    [InlineData("/4", 40, 10)]
    [InlineData("*1.5 + 2mm", 40, 62)]
    [InlineData("2*20mm + 4", 0, 44)]
    [InlineData("20mm*2 - 1cm", 0, 30)]
    [InlineData("1in + 0.6mm", 0, 26)]
    [InlineData("6p0+0", 0, 25.4)]
    [InlineData("84", 0, 84)]
    [InlineData("84,5", 0, 84.5)]
    [InlineData("100 / 2 / 5", 0, 10)]
    [InlineData("(210-40)/3", 0, 170.0 / 3)]
    [InlineData("((210 - 2*15) - 2*5) / 3", 0, 170.0 / 3)]
    [InlineData("50%", 84, 42)]
    [InlineData("+25 %", 40, 50)]
    [InlineData("2*(1cm+5)", 0, 30)]
    [InlineData("10--5", 0, 15)]
    [InlineData("*(1+1)", 21, 42)]
    [InlineData("210mm/(2+1)", 0, 70)]
    [InlineData("2*(1cm+5)-(3+4)", 0, 23)]
    public void Lengths_are_typed_with_arithmetic(string text, double current, double millimetres)
    {
        LengthExpression.TryRead(text, LengthUnit.Millimetre, Units.Millimetres(current), false, out double points).ShouldBeTrue();
        points.ShouldBe(Units.Millimetres(millimetres), 1e-9);
    }

    [Fact]
    public void A_leading_minus_is_a_sign_where_lengths_may_be_negative()
    {
        LengthExpression.TryRead("-3", LengthUnit.Millimetre, 100, true, out double points).ShouldBeTrue();
        points.ShouldBe(Units.Millimetres(-3), 1e-9);
    }

    [Theory]
    [InlineData("")]
    [InlineData("wide")]
    [InlineData("3mm*4mm")]
    [InlineData("10mm/2mm")]
    [InlineData("10/0")]
    [InlineData("5+")]
    [InlineData("(5")]
    [InlineData("5)")]
    [InlineData("()")]
    [InlineData("%")]
    [InlineData("5 5mm")]
    [InlineData("*")]
    [InlineData("1e300*1e300")]
    public void What_is_no_length_is_refused(string text) => LengthExpression.TryRead(text, LengthUnit.Millimetre, 10, true, out _).ShouldBeFalse();

    [Theory]
    [InlineData("50", "%", 20, false, 50)]
    [InlineData("50 %", "%", 20, false, 50)]
    [InlineData("+5", "%", 20, false, 25)]
    [InlineData("+ 5 %", "%", 20, false, 25)]
    [InlineData("-5", "%", 20, false, 15)]
    [InlineData("-5", "%", 20, true, -5)]
    [InlineData("*2", "", 20, false, 40)]
    [InlineData("/4", "ppi", 300, false, 75)]
    [InlineData("300ppi/2", "ppi", 72, false, 150)]
    [InlineData("90\u00b0 + 3\u00b0", "\u00b0", 0, true, 93)]
    [InlineData("(3+4)*2", "", 1, false, 14)]
    [InlineData("1,5", "", 1, false, 1.5)]
    public void Plain_figures_are_typed_with_arithmetic(string text, string sign, double current, bool mayBeNegative, double expected)
    {
        FigureExpression.TryRead(text, current, mayBeNegative, sign, out double value).ShouldBeTrue();
        value.ShouldBe(expected, 1e-9);
    }

    [Theory]
    [InlineData("")]
    [InlineData("five")]
    [InlineData("5 mm")]
    [InlineData("3p6")]
    [InlineData("5\"")]
    [InlineData("5 %")]
    [InlineData("5/0")]
    [InlineData("5+")]
    public void What_is_no_figure_is_refused(string text) => FigureExpression.TryRead(text, 10, true, "\u00b0", out _).ShouldBeFalse();

    [Fact]
    public void Regular_polygons_have_equal_sides_in_a_box_of_their_own_ratio()
    {
        for (int sides = Outlines.FewestSides; sides <= 12; sides++)
        {
            double ratio = Outlines.RegularRatio(sides);
            var corners = Outlines.Polygon(sides).Flatten(100 * ratio, 100);
            corners.Length.ShouldBe(sides);
            double[] lengths = [.. corners.Select((c, i) => (corners[(i + 1) % sides] - c).Length)];
            lengths.ShouldAllBe(l => Math.Abs(l - lengths[0]) < 1e-9);
            corners.Min(c => c.X).ShouldBe(0, 1e-9);
            corners.Max(c => c.Y).ShouldBe(100, 1e-9);
        }
    }

    [Fact]
    public void A_free_outline_is_flattened_within_its_tolerance_and_fills_its_box()
    {
        // A circle of four cubic curves: the usual constant 4/3 (sqrt 2 - 1) strays from it by less than 0.03 % of its radius.
        double k = 4.0 / 3 * (Math.Sqrt(2) - 1), r = 200;
        PathPoint Point(double x, double y, double dx, double dy) => new(new(300 + r * x, 300 + r * y), new(300 + r * (x - k * dx), 300 + r * (y - k * dy)),
            new(300 + r * (x + k * dx), 300 + r * (y + k * dy)));
        var (box, outline) = Outlines.Free([Point(1, 0, 0, 1), Point(0, 1, -1, 0), Point(-1, 0, 0, -1), Point(0, -1, 1, 0)]);
        box.X.ShouldBe(100, 0.01);
        box.Width.ShouldBe(400, 0.01);
        outline.Area(box.Width, box.Height).ShouldBe(Math.PI * r * r, 0.001 * Math.PI * r * r);
        outline.Flatten(box.Width, box.Height).ShouldAllBe(p => Math.Abs((p - new Vec(r, r)).Length - r) < 0.06 + 0.0003 * r);
        var mirrored = (PathOutline)Outlines.Mirrored(Outlines.Mirrored(outline, true), true);
        mirrored.Points.Zip(outline.Points).ShouldAllBe(p => (p.First.At - p.Second.At).Length < 1e-12);
    }
}
