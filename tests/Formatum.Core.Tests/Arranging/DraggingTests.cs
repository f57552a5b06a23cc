using CsCheck;
using Formatum.Core.Arranging;
using Formatum.Core.Geometry;

namespace Formatum.Core.Tests.Arranging;

public class DraggingTests
{
    private static readonly Gen<Box> AnyBox = Gen.Select(Gen.Double[-100, 500], Gen.Double[-100, 500], Gen.Double[20, 400], Gen.Double[20, 400],
        (x, y, w, h) => new Box(x, y, w, h));
    private static readonly Gen<Grip> AnyGrip = Gen.OneOfConst("nw", "n", "ne", "e", "se", "s", "sw", "w").Select(n => Grip.Named(n)!.Value);

    [Fact]
    public void A_box_is_drawn_in_any_direction_and_square_where_asked()
    {
        Dragging.Drawn(new(100, 100), new(40, 160), even: false).ShouldBe(new Box(40, 100, 60, 60));
        Dragging.Drawn(new(100, 100), new(60, 190), even: true).ShouldBe(new Box(10, 100, 90, 90));
    }

    [Fact]
    public void The_side_across_from_the_grip_stays() => Gen.Select(AnyBox, AnyGrip, Gen.Double[-1000, 1000], Gen.Double[-1000, 1000])
        .Sample((box, grip, dx, dy) =>
    {
        var after = Dragging.Resized(box, grip, new(dx, dy), keepRatio: false);
        if (grip.X < 0) after.Right.ShouldBe(box.Right, 1e-9);
        if (grip.X >= 0) after.X.ShouldBe(box.X, 1e-9);
        if (grip.Y < 0) after.Bottom.ShouldBe(box.Bottom, 1e-9);
        if (grip.Y >= 0) after.Y.ShouldBe(box.Y, 1e-9);
        after.Width.ShouldBeGreaterThanOrEqualTo(Dragging.SmallestSide);
        after.Height.ShouldBeGreaterThanOrEqualTo(Dragging.SmallestSide);
    });

    [Fact]
    public void The_ratio_is_kept_where_asked() => Gen.Select(AnyBox, AnyGrip, Gen.Double[-15, 1000], Gen.Double[-15, 1000]).Sample((box, grip, dx, dy) =>
    {
        var after = Dragging.Resized(box, grip, new(dx, dy), keepRatio: true);
        (after.Width / after.Height).ShouldBe(box.Width / box.Height, 1e-9 * box.Width / box.Height);
    });

    [Fact]
    public void There_and_back_is_nowhere() => Gen.Select(AnyBox, AnyGrip, Gen.Double[0, 300], Gen.Double[0, 300]).Sample((box, grip, dx, dy) =>
    {
        var by = new Vec(grip.X * dx, grip.Y * dy);
        var back = Dragging.Resized(Dragging.Resized(box, grip, by, false), grip, -1 * by, false);
        back.X.ShouldBe(box.X, 1e-9);
        back.Y.ShouldBe(box.Y, 1e-9);
        back.Width.ShouldBe(box.Width, 1e-9);
        back.Height.ShouldBe(box.Height, 1e-9);
    });
}
