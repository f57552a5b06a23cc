using CsCheck;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;

namespace Formatum.Core.Tests.Fitting;

/// <summary>What must hold of every placement, whatever the case.</summary>
public class FitterPropertyTests
{
    private static Vec[] Corners(Affine m) => [m.Apply(new(0, 0)), m.Apply(new(1, 0)), m.Apply(new(1, 1)), m.Apply(new(0, 1))];

    [Fact]
    public void Fill_covers_the_whole_fit_box() => Cases.Of(FitKind.Fill).Sample(c =>
    {
        var inverse = c.Place().Matrix.Inverse();
        var box = c.FitBox;
        foreach (var corner in new Vec[] { new(box.X, box.Y), new(box.Right, box.Y), new(box.Right, box.Bottom), new(box.X, box.Bottom) })
        {
            var at = inverse.Apply(corner);
            at.X.ShouldBeInRange(-1e-7, 1 + 1e-7);
            at.Y.ShouldBeInRange(-1e-7, 1 + 1e-7);
        }
    });

    [Fact]
    public void Fit_and_Shrink_only_leave_nothing_outside_the_fit_box() => Gen.OneOf(Cases.Of(FitKind.Fit), Cases.Of(FitKind.Shrink)).Sample(c =>
    {
        var box = c.FitBox.Grown(1e-6);
        foreach (var corner in Corners(c.Place().Matrix)) box.Contains(corner).ShouldBeTrue();
    });

    [Fact]
    public void Every_fit_but_Stretch_keeps_the_ratio() =>
        Gen.OneOf(Cases.Of(FitKind.Fill), Cases.Of(FitKind.Fit), Cases.Of(FitKind.Natural), Cases.Of(FitKind.Shrink), Cases.Of(FitKind.Width),
            Cases.Of(FitKind.Height)).Sample(c =>
        {
            var p = c.Place();
            p.ScaleX.ShouldBe(p.ScaleY);
            p.Flags.HasFlag(FitFlags.Stretched).ShouldBeFalse();
            var m = p.Matrix;
            double across = Math.Sqrt(m.A * m.A + m.B * m.B), down = Math.Sqrt(m.C * m.C + m.D * m.D);
            (across / down).ShouldBe(c.Picture.NaturalWidth / c.Picture.NaturalHeight, 1e-6 * across / down);
        });

    [Fact]
    public void To_width_and_To_height_take_just_that_measure() => Gen.Select(Cases.Of(FitKind.Width), Gen.Bool).Sample((c, width) =>
    {
        c = c with { Rule = c.Rule with { Fit = width ? FitKind.Width : FitKind.Height } };
        var corners = Corners(c.Place().Matrix);
        if (width) (corners.Max(p => p.X) - corners.Min(p => p.X)).ShouldBe(c.FitBox.Width, 1e-6 * c.FitBox.Width);
        else (corners.Max(p => p.Y) - corners.Min(p => p.Y)).ShouldBe(c.FitBox.Height, 1e-6 * c.FitBox.Height);
    });

    [Fact]
    public void More_pixels_at_as_much_more_resolution_change_nothing_but_the_resolution() =>
        Gen.Select(Cases.Of(FitKind.Fill), Gen.Double[0.2, 5], Gen.OneOfConst(Enum.GetValues<FitKind>())).Sample((c, k, fit) =>
    {
        c = c with { Rule = c.Rule with { Fit = fit } };
        var finer = c with { Picture = new(c.Picture.WidthPx * k, c.Picture.HeightPx * k, c.Picture.PpiX * k, c.Picture.PpiY * k) };
        ShouldBeSame(finer.Place().Matrix, c.Place().Matrix);
        finer.Measure().PpiX.ShouldBe(c.Measure().PpiX * k, 1e-6 * c.Measure().PpiX * k);
    });

    [Fact]
    public void What_is_mirrored_going_in_is_mirrored_coming_out() => Gen.Select(Cases.Of(FitKind.Fill), Gen.OneOfConst(Enum.GetValues<FitKind>()))
        .Sample((c, fit) =>
    {
        var rule = c.Rule with { Fit = fit, LargestCrop = 1 };
        var mirrored = c with
        {
            Rule = rule with
            {
                AlignX = 1 - rule.AlignX,
                FlipX = !rule.FlipX,
                Rotation = -rule.Rotation,
                Inset = rule.Inset with { Left = rule.Inset.Right, Right = rule.Inset.Left },
            },
        };
        var mirror = new Affine(-1, 0, 0, 1, c.Width, 0);
        ShouldBeSame(mirrored.Place().Matrix, mirror.After((c with { Rule = rule }).Place().Matrix));
    });

    [Fact]
    public void A_recrop_shows_the_same_in_a_frame_of_any_size() => Gen.Select(Cases.Of(FitKind.Fill), Gen.Double[0.5, 4], Gen.Double[0, 1], Gen.Double[0, 1],
        Gen.Double[0.1, 10]).Sample((c, zoom, u, v, larger) =>
    {
        var recrop = new Recrop(zoom, new Vec(u, v));
        var inset = c.Rule.Inset;
        var scaled = c with
        {
            Width = c.Width * larger,
            Height = c.Height * larger,
            Rule = c.Rule with { Inset = new(inset.Top * larger, inset.Right * larger, inset.Bottom * larger, inset.Left * larger) },
        };
        ShouldBeSame(scaled.Place(recrop).Matrix, new Affine(larger, 0, 0, larger, 0, 0).After(c.Place(recrop).Matrix));
    });

    [Fact]
    public void The_subject_is_kept_in_sight_by_Fill() => Cases.Of(FitKind.Fill, Gen.Const(0.0)).Sample(c =>
    {
        if (c.Subject is not { } subject) return;
        c = c with { Rule = c.Rule with { Inset = default } };
        var at = c.Place().Matrix.Apply(subject);
        new Box(0, 0, c.Width, c.Height).Grown(1e-6).Contains(at).ShouldBeTrue();
    });

    [Fact]
    public void A_limit_that_holds_is_kept_to() => Gen.Select(Cases.Of(FitKind.Fill), Gen.Double[50, 400], Gen.Double[0.1, 3]).Sample((c, ppi, enlargement) =>
    {
        c = c with { Rule = c.Rule with { SmallestPpi = ppi, LargestEnlargement = enlargement, Limits = LimitAction.Hold } };
        var p = c.Place();
        c.Measure().Ppi.ShouldBeGreaterThanOrEqualTo(ppi * (1 - 1e-9));
        p.ScaleX.ShouldBeLessThanOrEqualTo(enlargement * (1 + 1e-9));
        (p.Flags & (FitFlags.BelowSmallestPpi | FitFlags.AboveLargestEnlargement)).ShouldBe(FitFlags.None);
    });

    [Fact]
    public void Fill_or_fit_fills_just_where_that_hides_no_more_than_allowed() => Gen.Select(Cases.Of(FitKind.FillOrFit, Gen.Const(0.0)), Gen.Double[0, 1])
        .Sample((c, largest) =>
    {
        c = c with { Rule = c.Rule with { LargestCrop = largest } };
        double loss = (c with { Rule = c.Rule with { Fit = FitKind.Fill } }).Measure().CropLoss;
        if (Math.Abs(loss - largest) < 1e-6) return;
        c.Place().Applied.ShouldBe(loss <= largest ? FitKind.Fill : FitKind.Fit);
    });

    internal static void ShouldBeSame(Affine actual, Affine expected, double within = 1e-7)
    {
        double size = within * new[] { expected.A, expected.B, expected.C, expected.D, expected.E, expected.F, 1 }.Max(Math.Abs);
        actual.A.ShouldBe(expected.A, size);
        actual.B.ShouldBe(expected.B, size);
        actual.C.ShouldBe(expected.C, size);
        actual.D.ShouldBe(expected.D, size);
        actual.E.ShouldBe(expected.E, size);
        actual.F.ShouldBe(expected.F, size);
    }
}
