using CsCheck;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;

namespace Formatum.Core.Tests.Fitting;

public class FitterTests
{
    private static readonly Picture FourByThree = new(4000, 3000, 300, 300);

    private static Placement Place(double w, double h, Picture picture, ResolvedFit rule, Vec? subject = null, Recrop? recrop = null) =>
        Fitter.Place(w, h, Outline.Rectangle, picture, rule, subject, recrop ?? Recrop.None);

    /// <summary>A picture of 3000 px at 254 mm (10 in) has 300 ppi: a worked example common in the trade, no source.</summary>
    [Fact]
    public void Three_thousand_pixels_over_254_mm_are_300_ppi()
    {
        double width = Units.Millimetres(254);
        var picture = new Picture(3000, 2000, 72, 72);
        var placement = Place(width, 1000, picture, ResolvedFit.Default with { Fit = FitKind.Width });
        Coverage.Measure(width, 1000, Outline.Rectangle, picture, placement).PpiX.ShouldBe(300, 1e-9);
    }

    /// <summary>Natural size is pixels over resolution: 4000 px at 300 ppi are 13.333 in, 960 pt (arithmetic of the definition).</summary>
    [Fact]
    public void Natural_size_is_pixels_over_resolution()
    {
        FourByThree.NaturalWidth.ShouldBe(960, 1e-9);
        FourByThree.NaturalHeight.ShouldBe(720, 1e-9);
    }

    [Fact]
    public void Fill_of_a_wide_frame_cuts_equally_above_and_below()
    {
        var fitted = Fitted.Of(200, 120, Outline.Rectangle, FourByThree, ResolvedFit.Default, null, Recrop.None);
        fitted.Placement.Matrix.ShouldBe(new Affine(200, 0, 0, 150, 0, -15));
        fitted.Coverage.CropLoss.ShouldBe(0.2, 1e-12);
        fitted.Coverage.BareArea.ShouldBe(0);
        fitted.Coverage.Ppi.ShouldBe(300 * 960 / 200.0, 1e-9);
    }

    /// <summary>The smallest cover of a turned picture, found by search without the formula: scales tried by halving, places by trying many.</summary>
    [Fact]
    public void A_turned_Fill_is_the_smallest_that_covers() => Cases.Of(FitKind.Fill, Gen.Double[1, 89], subject: false).Sample(c =>
    {
        c = c with { Rule = c.Rule with { Inset = default, AlignX = 0.5, AlignY = 0.5 } };
        double a = c.Picture.NaturalWidth, b = c.Picture.NaturalHeight, q = c.Rule.Rotation * Math.PI / 180;
        // By symmetry the centred picture covers first; it covers where the frame's corners lie within it.
        bool Covers(double s) => new[] { (c.Width / 2, c.Height / 2), (-c.Width / 2, c.Height / 2) }.All(p =>
            Math.Abs(p.Item1 * Math.Cos(q) + p.Item2 * Math.Sin(q)) <= a * s / 2 && Math.Abs(p.Item2 * Math.Cos(q) - p.Item1 * Math.Sin(q)) <= b * s / 2);
        c.Place().ScaleX.ShouldBe(Smallest(Covers), 1e-6 * c.Place().ScaleX);
    }, iter: 300);

    [Fact]
    public void A_turned_Fit_is_the_largest_that_stays_inside() => Cases.Of(FitKind.Fit, Gen.Double[1, 89], subject: false).Sample(c =>
    {
        c = c with { Rule = c.Rule with { Inset = default } };
        double a = c.Picture.NaturalWidth, b = c.Picture.NaturalHeight, q = c.Rule.Rotation * Math.PI / 180;
        bool SticksOut(double s) => new[] { (a * s / 2, b * s / 2), (-a * s / 2, b * s / 2) }.Any(p =>
            Math.Abs(p.Item1 * Math.Cos(q) - p.Item2 * Math.Sin(q)) > c.Width / 2 || Math.Abs(p.Item1 * Math.Sin(q) + p.Item2 * Math.Cos(q)) > c.Height / 2);
        c.Place().ScaleX.ShouldBe(Smallest(SticksOut), 1e-6 * c.Place().ScaleX);
    }, iter: 300);

    private static double Smallest(Func<double, bool> holds)
    {
        double low = 0, high = 1;
        while (!holds(high)) high *= 2;
        for (int i = 0; i < 80; i++)
        {
            double middle = (low + high) / 2;
            if (holds(middle)) high = middle;
            else low = middle;
        }
        return high;
    }

    [Fact]
    public void Stretch_takes_both_measures_and_says_how_much_it_distorts()
    {
        var fitted = Fitted.Of(100, 300, Outline.Rectangle, FourByThree, ResolvedFit.Default with { Fit = FitKind.Stretch }, null, Recrop.None);
        fitted.Placement.Matrix.ShouldBe(new Affine(100, 0, 0, 300, 0, 0));
        fitted.Coverage.Distortion.ShouldBe(100 / 960.0 / (300 / 720.0), 1e-12);
        fitted.Placement.Flags.ShouldBe(FitFlags.Stretched);
    }

    [Fact]
    public void An_inset_that_leaves_no_box_is_flagged_and_the_picture_takes_its_natural_size()
    {
        var placement = Place(100, 100, FourByThree, ResolvedFit.Default with { Inset = Inset.Even(60) });
        placement.Flags.ShouldBe(FitFlags.NoFitBox);
        placement.ScaleX.ShouldBe(1);
        placement.Matrix.IsFinite.ShouldBeTrue();
    }

    [Fact]
    public void A_negative_inset_lets_the_picture_run_past_the_edge()
    {
        var placement = Place(100, 100, new(1000, 1000, 72, 72), ResolvedFit.Default with { Inset = Inset.Even(-10) });
        placement.Matrix.ShouldBe(new Affine(120, 0, 0, 120, -10, -10));
    }

    [Fact]
    public void The_subject_point_is_put_on_the_alignment_point_as_far_as_the_frame_stays_full()
    {
        var square = new Picture(1000, 1000, 72, 72);
        // Room to move: 200 of 100 high. The subject at 0.3 goes to the middle, 50: the picture's top to 50 - 60.
        Place(200, 100, square, ResolvedFit.Default, new(0.5, 0.3)).Matrix.F.ShouldBe(-10, 1e-9);
        // At 0.1 it cannot get there without bare area; the top edge stays at the frame's.
        Place(200, 100, square, ResolvedFit.Default, new(0.5, 0.1)).Matrix.F.ShouldBe(0, 1e-9);
    }

    [Fact]
    public void A_recrop_zooms_about_its_point_and_flags_what_it_leaves_bare()
    {
        var square = new Picture(1000, 1000, 72, 72);
        Place(100, 100, square, ResolvedFit.Default, recrop: new(2, new(0.25, 0.5))).Matrix.ShouldBe(new Affine(200, 0, 0, 200, 0, -50));
        var small = Fitted.Of(100, 100, Outline.Rectangle, square, ResolvedFit.Default, null, new(0.5, null));
        small.Coverage.BareArea.ShouldBe(0.75, 1e-12);
        small.Placement.Flags.ShouldBe(FitFlags.BareArea);
    }

    [Theory]
    [InlineData(1.0, 20_000.0)]
    [InlineData(20_000.0, 1.0)]
    public void A_hair_of_a_picture_is_fitted_like_any_other(double width, double height)
    {
        foreach (var fit in Enum.GetValues<FitKind>())
        {
            var fitted = Fitted.Of(200, 120, Outline.Ellipse, new(width, height, 72, 72), ResolvedFit.Default with { Fit = fit, Rotation = 17 }, null,
                Recrop.None);
            fitted.Placement.Matrix.IsFinite.ShouldBeTrue();
            fitted.Coverage.CropLoss.ShouldBeInRange(0, 1);
            fitted.Coverage.BareArea.ShouldBeInRange(0, 1);
        }
    }

    [Fact]
    public void Limits_that_only_flag_leave_the_scale_and_tell()
    {
        var coarse = new Picture(300, 300, 72, 72);
        var rule = ResolvedFit.Default with { SmallestPpi = 150, LargestEnlargement = 0.5 };
        var flagged = Place(300, 300, coarse, rule);
        flagged.ScaleX.ShouldBe(1);
        flagged.Flags.ShouldBe(FitFlags.BelowSmallestPpi | FitFlags.AboveLargestEnlargement);
        var held = Place(300, 300, coarse, rule with { Limits = LimitAction.Hold });
        held.ScaleX.ShouldBe(72 / 150.0, 1e-12);
        held.Flags.ShouldBe(FitFlags.HeldBack);
    }
}
