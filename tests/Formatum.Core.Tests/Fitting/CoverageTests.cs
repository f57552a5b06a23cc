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
        PolygonOf(Enumerable.Range(0, 1000).Select(i => new Vec(width / 2 * (1 + Math.Cos(i * Math.PI / 500)), height / 2 * (1 + Math.Sin(i * Math.PI / 500)))));

    private static Polygon PictureOf(Affine m) => PolygonOf([m.Apply(new(0, 0)), m.Apply(new(1, 0)), m.Apply(new(1, 1)), m.Apply(new(0, 1))]);

    private static readonly PolygonOutline Arrow = new([new(0, 0.3), new(0.6, 0.3), new(0.6, 0), new(1, 0.5), new(0.6, 1), new(0.6, 0.7), new(0, 0.7), new(0.2, 0.5)]);

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
        Gen.Select(Gen.Double[5, 3000], Gen.Double[5, 3000], Gen.Int[1, 9000], Gen.Int[1, 9000], Gen.OneOf(Gen.Const(0.0), Gen.Double[-180, 180]), Gen.Bool).Sample((width, height, across, down, angle, ellipse) =>
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
