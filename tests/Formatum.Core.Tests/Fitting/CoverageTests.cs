using CsCheck;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using NetTopologySuite.Geometries;

namespace Formatum.Core.Tests.Fitting;

/// <summary>Crop loss and bare area held against NetTopologySuite's overlays, which share no code with ours.</summary>
public class CoverageTests
{
    private static readonly GeometryFactory Factory = new();

    private static Polygon PolygonOf(IEnumerable<Vec> corners)
    {
        var ring = corners.Select(c => new Coordinate(c.X, c.Y)).ToList();
        ring.Add(ring[0].Copy());
        return Factory.CreatePolygon([.. ring]);
    }

    /// <summary>An ellipse of many more corners than ours, laid out anew.</summary>
    private static Polygon FineEllipse(double width, double height) =>
        PolygonOf(Enumerable.Range(0, 1000).Select(i => new Vec(width / 2 * (1 + Math.Cos(i * Math.PI / 500)),
            height / 2 * (1 + Math.Sin(i * Math.PI / 500)))));

    private static Polygon PictureOf(Affine m) => PolygonOf([m.Apply(new(0, 0)), m.Apply(new(1, 0)), m.Apply(new(1, 1)), m.Apply(new(0, 1))]);

    private static readonly PolygonOutline Arrow = new([new(0, 0.3), new(0.6, 0.3), new(0.6, 0), new(1, 0.5), new(0.6, 1), new(0.6, 0.7), new(0, 0.7),
        new(0.2, 0.5)]);

    /// <summary>Worked by hand: a bow tie is half its square; a five-pointed star winds about all of its inside, its middle pentagon twice.</summary>
    [Fact]
    public void An_outline_that_crosses_itself_has_the_area_it_is_drawn_with()
    {
        var tie = new PolygonOutline([new(0, 0), new(1, 1), new(1, 0), new(0, 1)]);
        tie.Area(200, 100).ShouldBe(10_000, 1e-9);
        Vec Tip(int i) => new(0.5 + 0.5 * Math.Sin(2 * Math.PI * i / 5), 0.5 - 0.5 * Math.Cos(2 * Math.PI * i / 5));
        var star = new PolygonOutline([Tip(0), Tip(2), Tip(4), Tip(1), Tip(3)]);
        // With circumradius R the star of five points has the area R^2 * 10 tan(18 deg) / (3 - tan(18 deg)^2) (MathWorld, Pentagram).
        double tan = Math.Tan(Math.PI / 10);
        star.Area(2, 2).ShouldBe(10 * tan / (3 - tan * tan), 1e-9);
        // Whole under a picture that covers the frame; half of the tie under one over its left half.
        var whole = Fitted.Of(200, 100, tie, Picture.FromStored(400, 200, 72, 72, 1), FitSettings.Open.Resolve(), null, Recrop.None);
        whole.Coverage.CropLoss.ShouldBe(0.5, 1e-9);
        whole.Coverage.BareArea.ShouldBe(0, 1e-9);
        var left = Fitted.Of(200, 100, tie, Picture.FromStored(100, 100, 72, 72, 1), new FitSettings { Fit = FitKind.Natural, AlignX = 0 }.Resolve(), null,
            Recrop.None);
        left.Coverage.CropLoss.ShouldBe(0.5, 1e-9);
        left.Coverage.BareArea.ShouldBe(0.5, 1e-9);
    }

    /// <summary>Against NetTopologySuite: the union of the triangles that a star-shaped crossing outline is made of.</summary>
    [Fact]
    public void Crossing_outlines_agree_with_an_independent_union()
    {
        Gen.Select(Gen.Double[0, 1], Gen.Double[0, 1]).Array[4].Sample(points =>
        {
            Vec[] c = [.. points.Select(p => new Vec(p.Item1, p.Item2))];
            var outline = new PolygonOutline([.. c]);
            double seen = outline.Area(100, 100);
            // Edges of a quadrilateral cross in one point at most: it is then two triangles, and else one simple polygon.
            var ring = PolygonOf(c.Select(p => new Vec(100 * p.X, 100 * p.Y)));
            double expected = ring.IsValid ? ring.Area : NetTopologySuite.Geometries.Utilities.GeometryFixer.Fix(ring).Area;
            Math.Abs(seen - expected).ShouldBeLessThan(1e-6 * Math.Max(1, expected));
        }, iter: 2000);
    }

    [Theory]
    [InlineData("rectangle", 1e-9)]
    [InlineData("ellipse", 2e-3)]
    [InlineData("arrow", 1e-7)]
    public void Shares_agree_with_an_independent_overlay(string shape, double tolerance)
    {
        Gen.Select(Cases.Of(FitKind.Fill), Gen.OneOfConst(Enum.GetValues<FitKind>()), Gen.Double[0.3, 3], Gen.Double[0, 1]).Sample((c, fit, zoom, u) =>
        {
            Outline outline = shape switch { "ellipse" => Outline.Ellipse, "arrow" => Arrow, _ => Outline.Rectangle };
            var rule = c.Rule with { Fit = fit };
            var placement = Fitter.Place(c.Width, c.Height, outline, c.Picture, rule, null, new(zoom, new(u, 0.5)));
            var coverage = Coverage.Measure(c.Width, c.Height, outline, c.Picture, placement);
            var frame = shape switch { "ellipse" => FineEllipse(c.Width, c.Height), _ => PolygonOf(outline.Flatten(c.Width, c.Height)) };
            var picture = PictureOf(placement.Matrix);
            if (picture.Area < 1e-3 * frame.Area) return;
            double shared = frame.Intersection(picture).Area;
            coverage.CropLoss.ShouldBe(1 - shared / picture.Area, tolerance * Math.Max(1, frame.Area / picture.Area));
            coverage.BareArea.ShouldBe(1 - shared / frame.Area, tolerance * Math.Max(1, picture.Area / frame.Area));
        }, iter: 300);
    }

    [Fact]
    public void A_picture_that_fills_its_frame_leaves_nothing_bare_and_none_is_flagged()
    {
        Gen.Select(Gen.Double[5, 3000], Gen.Double[5, 3000], Gen.Int[1, 9000], Gen.Int[1, 9000], Gen.OneOf(Gen.Const(0.0), Gen.Double[-180, 180]), Gen.Bool)
            .Sample((width, height, across, down, angle, ellipse) =>
        {
            var rule = ResolvedFit.Default with { Rotation = angle };
            var fitted = Fitted.Of(width, height, ellipse ? Outline.Ellipse : Outline.Rectangle, new(across, down, 72, 72), rule, null, Recrop.None);
            fitted.Coverage.BareArea.ShouldBe(0, 1e-12);
            fitted.Placement.Flags.HasFlag(FitFlags.BareArea).ShouldBeFalse();
        }, iter: 2000);
    }

    [Fact]
    public void A_flattened_ellipse_keeps_its_area_and_strays_less_than_said()
    {
        Gen.Select(Gen.Double[1, 3000], Gen.Double[1, 3000]).Sample((width, height) =>
        {
            var corners = Outline.Ellipse.Flatten(width, height);
            PolygonMeasure.SignedArea(corners.AsSpan()).ShouldBe(Math.PI / 4 * width * height, 1e-9 * width * height);
            double rx = width / 2, ry = height / 2;
            double Off(Vec p) => (Math.Sqrt(Math.Pow((p.X - rx) / rx, 2) + Math.Pow((p.Y - ry) / ry, 2)) - 1) * Math.Max(rx, ry);
            for (int i = 0; i < corners.Length; i++)
            {
                Math.Abs(Off(corners[i])).ShouldBeLessThanOrEqualTo(Outline.Tolerance);
                new Box(0, 0, width, height).Contains(corners[i]).ShouldBeTrue();
                Math.Abs(Off(0.5 * (corners[i] + corners[(i + 1) % corners.Length]))).ShouldBeLessThanOrEqualTo(Outline.Tolerance);
            }
        }, iter: 200);
    }
}
