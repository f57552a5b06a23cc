using CsCheck;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;

namespace Formatum.Core.Tests.Fitting;

/// <summary>What a hand does to a picture, solved back into a recrop that the fitter gives the same placement for.</summary>
public class RecroppingTests
{
    /// <summary>Insets that leave a fit box, and zooms that stay within bounds.</summary>
    private static readonly Gen<Case> AnyCase = Gen.OneOf(Cases.Of(FitKind.Fill), Cases.Of(FitKind.Natural), Cases.Of(FitKind.Width), Cases.Of(FitKind.Height));

    private static PictureFit Fitting(Case c) => new(c.Width, c.Height, Outline.Rectangle, c.Picture, c.Rule, c.Subject);

    private static readonly Gen<HandMove> AnyMove = Gen.OneOf<HandMove>(
        Gen.Select(Gen.Double[-50, 50], Gen.Double[-50, 50], (x, y) => (HandMove)new HandMove.Pan(new(x, y))),
        Gen.Select(Gen.Double[1, 3], Gen.Double[0, 300], Gen.Double[0, 300], (f, x, y) => (HandMove)new HandMove.Zoom(f, new(x, y))),
        Gen.Select(Gen.Double[1, 2], Gen.Double[0, 200], Gen.Double[-20, 20], (f, x, d) => (HandMove)new HandMove.Pinch(f, new(x, x), new(x + d, x - d))),
        Gen.Double[-180, 180].Select(a => (HandMove)new HandMove.Turn(a)),
        Gen.Select(Gen.Double[-30, 30], Gen.Double[-180, 180], (o, a) => (HandMove)new HandMove.Figures(null, null, o, -o, a)));

    [Fact]
    public void The_recrop_of_a_filled_frame_puts_the_picture_where_the_hand_did() => Gen.Select(AnyCase, AnyMove.Array[1, 4]).Sample((c, moves) =>
    {
        var fitting = Fitting(c);
        var recrop = Recrop.None;
        foreach (var move in moves)
        {
            var placed = fitting.Place(recrop);
            var wanted = move.On(fitting, placed.Matrix);
            if (placed.Applied == FitKind.Fill) wanted = Recropping.Covering(fitting, wanted);
            recrop = Recropping.Towards(fitting, wanted);
            if (recrop.Zoom is Recrop.LargestZoom or Recrop.SmallestZoom) return;
            FitterPropertyTests.ShouldBeSame(fitting.Place(recrop).Matrix, wanted);
        }
    });

    [Fact]
    public void No_bare_area_keeps_a_filled_frame_filled_by_the_least_change() => Gen.Select(Cases.Of(FitKind.Fill), AnyMove).Sample((c, move) =>
    {
        var fitting = Fitting(c);
        var wanted = move.On(fitting, fitting.Place(Recrop.None).Matrix);
        var covering = Recropping.Covering(fitting, wanted);
        Recropping.Covers(fitting, covering).ShouldBeTrue();
        // What covers already is left as it is, but for the millionth of the picture by which it may fall short and still count as covering.
        if (Recropping.Covers(fitting, wanted)) FitterPropertyTests.ShouldBeSame(covering, wanted, within: 1e-5);
        FitterPropertyTests.ShouldBeSame(Recropping.Covering(fitting, covering), covering);
    });

    [Fact]
    public void A_zoom_keeps_the_point_under_the_pointer_and_the_proportions() => Gen.Select(AnyCase, Gen.Double[0.3, 3], Gen.Double[0, 1], Gen.Double[0, 1])
        .Sample((c, factor, u, v) =>
    {
        var fitting = Fitting(c);
        var map = fitting.Place(Recrop.None).Matrix;
        var about = map.Apply(new(u, v));
        var zoomed = new HandMove.Zoom(factor, about).On(fitting, map);
        var at = zoomed.Apply(new(u, v));
        at.X.ShouldBe(about.X, 1e-6 * (1 + Math.Abs(about.X)));
        at.Y.ShouldBe(about.Y, 1e-6 * (1 + Math.Abs(about.Y)));
        var (x, y, _) = Recropping.Measures(fitting.Rule, map);
        var (zx, zy, _) = Recropping.Measures(fitting.Rule, zoomed);
        (zx / x).ShouldBe(factor, 1e-9 * factor);
        (zy / y).ShouldBe(factor, 1e-9 * factor);
    });

    [Fact]
    public void A_corner_keeps_the_opposite_one_where_it_is() => Gen.Select(AnyCase, Gen.Int[0, 1], Gen.Int[0, 1], Gen.Double[0.2, 4])
        .Sample((c, u, v, factor) =>
    {
        var fitting = Fitting(c);
        var map = fitting.Place(Recrop.None).Matrix;
        Vec opposite = map.Apply(new(1 - u, 1 - v)), corner = map.Apply(new(u, v));
        var drawn = new HandMove.Corner(u, v, opposite + factor * (corner - opposite)).On(fitting, map);
        double size = 1e-6 * (1 + Math.Abs(opposite.X) + Math.Abs(opposite.Y) + Math.Abs(corner.X) + Math.Abs(corner.Y)) * factor;
        (drawn.Apply(new(1 - u, 1 - v)) - opposite).Length.ShouldBeLessThan(size + 1e-6);
        (drawn.Apply(new(u, v)) - (opposite + factor * (corner - opposite))).Length.ShouldBeLessThan(size + 1e-6);
    });

    [Fact]
    public void A_turn_and_back_is_as_it_was() => Gen.Select(AnyCase, Gen.Double[-360, 360]).Sample((c, angle) =>
    {
        var fitting = Fitting(c);
        var map = fitting.Place(Recrop.None).Matrix;
        FitterPropertyTests.ShouldBeSame(new HandMove.Turn(-angle).On(fitting, new HandMove.Turn(angle).On(fitting, map)), map);
    });

    [Fact]
    public void Figures_come_out_as_they_were_typed() => Gen.Select(Cases.Of(FitKind.Natural, subject: false), Gen.Double[0.2, 3], Gen.Double[0.2, 3],
        Gen.Double[-40, 40], Gen.Double[-179, 179]).Sample((c, sx, sy, offset, angle) =>
    {
        var fitting = Fitting(c);
        var recrop = Recropping.Towards(fitting, new HandMove.Figures(sx, sy, offset, 2 * offset, angle).On(fitting, fitting.Place(Recrop.None).Matrix));
        var placed = fitting.Place(recrop);
        placed.ScaleX.ShouldBe(sx, 1e-6);
        placed.ScaleY.ShouldBe(sy, 1e-6);
        recrop.IsUnlinked.ShouldBe(Math.Abs(sx - sy) > 1e-6);
        placed.Flags.HasFlag(FitFlags.Stretched).ShouldBe(Math.Abs(sx - sy) > 1e-5);
        var off = placed.Matrix.Apply(new(0.5, 0.5)) - fitting.FitBox.Centre;
        off.X.ShouldBe(offset, 1e-5);
        off.Y.ShouldBe(2 * offset, 1e-5);
        Math.Abs(Recropping.Turned(Recropping.Measures(fitting.Rule, placed.Matrix).Angle - angle)).ShouldBeLessThan(1e-6);
    });

    [Theory]
    [InlineData(181, -179)]
    [InlineData(-180, 180)]
    [InlineData(360, 0)]
    [InlineData(-90.0000000001, -90.0000000001)]
    public void Turns_are_told_as_hands_think_of_them(double degrees, double expected) => Recropping.Turned(degrees).ShouldBe(expected, 1e-8);

    [Fact]
    public void The_same_point_of_the_picture_is_held_at_any_size_of_the_frame()
    {
        // A portrait recropped to a face at (0.3, 0.2): the face stays on the alignment point, however the frame is drawn.
        var recrop = new Recrop(2.5, new Vec(0.3, 0.2));
        foreach (var (width, height) in new[] { (200.0, 100.0), (100, 200), (40, 300), (150, 150) })
        {
            var c = new Case(width, height, new(2000, 3000, 300, 300), ResolvedFit.Default, null);
            var at = c.Place(recrop).Matrix.Apply(new(0.3, 0.2));
            var edges = c.Place(recrop).Matrix;
            // Unless the picture's edge would come into the frame: then it is moved just so far.
            if (Math.Abs(at.X - width / 2) > 1e-9)
                Math.Min(Math.Abs(edges.Apply(default).X), Math.Abs(edges.Apply(new(1, 1)).X - width)).ShouldBeLessThan(1e-9);
            if (Math.Abs(at.Y - height / 2) > 1e-9)
                Math.Min(Math.Abs(edges.Apply(default).Y), Math.Abs(edges.Apply(new(1, 1)).Y - height)).ShouldBeLessThan(1e-9);
            c.Measure(recrop).BareArea.ShouldBe(0, 1e-12);
        }
    }
}
