using CsCheck;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using NetTopologySuite.Geometries;

namespace Formatum.Core.Tests.Geometry;

/// <summary>Shaped corners against areas worked by hand, CSS's reduction of radii, and NetTopologySuite.</summary>
public class CorneredOutlineTests
{
    private static Outline Shaped(Outline outline, CornerKind kind, params double[] radii) => outline.With(radii.Length == 1
        ? Corners.Even(kind, radii[0]) : new(kind, radii[0], radii[1], radii[2], radii[3]));

    /// <summary>A quarter of a circle is left or taken (round, scoop), half a square or a whole one (bevel, notch).</summary>
    [Theory]
    [InlineData(CornerKind.Round, 1 - Math.PI / 4)]
    [InlineData(CornerKind.Bevel, 0.5)]
    [InlineData(CornerKind.Scoop, Math.PI / 4)]
    [InlineData(CornerKind.Notch, 1)]
    public void A_corner_takes_its_share_of_the_radius_squared(CornerKind kind, double share)
    {
        double area = Shaped(Outline.Rectangle, kind, 10, 20, 0, 40).Area(200, 100);
        area.ShouldBe(20_000 - share * (100 + 400 + 1600), 0.0005 * 20_000);
    }

    /// <summary>A regular polygon of n sides loses r squared (n tan(pi/n) - pi) to an arc in each corner that touches its sides.</summary>
    [Theory]
    [InlineData(3)]
    [InlineData(6)]
    [InlineData(12)]
    public void An_arc_touches_the_sides_of_a_polygon(int sides)
    {
        var plain = Outlines.Polygon(sides);
        double width = 300 * Outlines.RegularRatio(sides), lost = plain.Area(width, 300) - Shaped(plain, CornerKind.Round, 20).Area(width, 300);
        lost.ShouldBe(400 * (sides * Math.Tan(Math.PI / sides) - Math.PI), 0.0001 * plain.Area(width, 300));
    }

    /// <summary>CSS Backgrounds and Borders 3, 4.5: f is the least of the sides over the radii on them, and all radii are multiplied by it.</summary>
    [Fact]
    public void Radii_too_large_for_a_rectangle_are_all_reduced_by_one_factor()
    {
        var seen = ((CorneredOutline)Shaped(Outline.Rectangle, CornerKind.Bevel, 80, 40, 20, 0)).At(100, 60).Points.Select(p => p.At).ToList();
        // The sides hold 80 + 40 of 100, 40 + 20 of 60, 20 + 0 of 100, 0 + 80 of 60: f = 0.75.
        (double X, double Y)[] expected = [(0, 60), (60, 0), (70, 0), (100, 30), (100, 45), (85, 60), (0, 60)];
        seen.Count.ShouldBe(expected.Length);
        foreach (var (at, (x, y)) in seen.Zip(expected)) (new Vec(at.X * 100, at.Y * 60) - new Vec(x, y)).Length.ShouldBe(0, 1e-9);
        // A circle comes of a square with radii beyond all measure.
        Shaped(Outline.Rectangle, CornerKind.Round, Corners.Largest).Area(100, 100).ShouldBe(Math.PI * 2500, Outline.Tolerance * Math.PI * 100);
    }

    [Fact]
    public void Every_outline_stays_within_its_box_and_a_picture_that_fills_leaves_nothing_bare()
    {
        Gen.Select(Gen.Double[1, 500], Gen.Double[1, 500], Gen.Double[0, 400].Array[4], Gen.OneOfConst(Enum.GetValues<CornerKind>()), Gen.Int[2, 9])
            .Sample((width, height, radii, kind, sides) =>
        {
            var outline = Shaped(sides < 3 ? Outline.Rectangle : Outlines.Polygon(sides), kind, radii);
            foreach (var corner in outline.Flatten(width, height)) new Box(0, 0, width, height).Grown(1e-6).Contains(corner).ShouldBeTrue($"{corner}");
            outline.Area(width, height).ShouldBeLessThanOrEqualTo(width * height * (1 + 1e-9));
            Fitted.Of(width, height, outline, new(300, 200, 72, 72), ResolvedFit.Default, null, Recrop.None).Coverage.BareArea.ShouldBe(0, 1e-9);
        }, iter: 2000);
    }

    [Fact]
    public void Crop_and_bare_area_are_those_of_the_shaped_outline()
    {
        var factory = new GeometryFactory();
        Polygon Ring(IEnumerable<Vec> corners)
        {
            var ring = corners.Select(c => new Coordinate(c.X, c.Y)).ToList();
            return factory.CreatePolygon([.. ring, ring[0].Copy()]);
        }
        // A rounded box grown by nothing: NetTopologySuite's buffer of the box without its corners' squares.
        double width = 240, height = 160, r = 50;
        var expected = Ring([new(r, r), new(width - r, r), new(width - r, height - r), new(r, height - r)]).Buffer(r, 64);
        var outline = Shaped(Outline.Rectangle, CornerKind.Round, r);
        var rule = new FitSettings { Fit = FitKind.Natural, AlignX = 0.1, AlignY = 0.3, Rotation = 20 }.Resolve();
        var fitted = Fitted.Of(width, height, outline, Picture.FromStored(200, 120, 72, 72, 1), rule, null, Recrop.None);
        var m = fitted.Placement.Matrix;
        var picture = Ring([m.Apply(new(0, 0)), m.Apply(new(1, 0)), m.Apply(new(1, 1)), m.Apply(new(0, 1))]);
        double shared = expected.Intersection(picture).Area;
        fitted.Coverage.CropLoss.ShouldBe(1 - shared / picture.Area, 1e-3);
        fitted.Coverage.BareArea.ShouldBe(1 - shared / expected.Area, 1e-3);
        fitted.Coverage.BareArea.ShouldBeGreaterThan(0.1);
    }

    [Fact]
    public void Corners_that_stay_sharp_change_nothing_and_curves_have_none()
    {
        Shaped(Outline.Rectangle, CornerKind.Notch, 0).ShouldBe(Outline.Rectangle);
        Shaped(Outline.Ellipse, CornerKind.Notch, 5).ShouldBe(Outline.Ellipse);
        // Two corners at one place, a spike, three in a line: nothing to shape there, and nothing that is no number.
        var odd = new PolygonOutline([new(0, 0), new(0, 0), new(0.5, 0), new(1, 0), new(0, 0.0001), new(0, 1)]);
        foreach (var kind in Enum.GetValues<CornerKind>())
            Shaped(odd, kind, 30).Flatten(100, 100).ShouldAllBe(p => double.IsFinite(p.X) && double.IsFinite(p.Y));
        new Corners(CornerKind.Round, 1, 2, 3, 4).Mirrored(true).ShouldBe(new(CornerKind.Round, 2, 1, 4, 3));
        new Corners(CornerKind.Round, 1, 2, 3, 4).Mirrored(false).ShouldBe(new(CornerKind.Round, 4, 3, 2, 1));
    }
}
