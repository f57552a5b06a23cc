using System.Collections.Immutable;
using CsCheck;
using Formatum.Core.Geometry;

namespace Formatum.Core.Tests.Geometry;

/// <summary>Strokes of the hand made into outlines.</summary>
public class StrokesTests
{
    private static double Off(Vec p, ImmutableArray<Vec> line) => Enumerable.Range(0, line.Length).Min(i =>
    {
        Vec a = line[i], b = line[(i + 1) % line.Length], along = b - a;
        double square = along.X * along.X + along.Y * along.Y, t = square == 0 ? 0 : Math.Clamp(((p - a).X * along.X + (p - a).Y * along.Y) / square, 0, 1);
        return (p - (a + t * along)).Length;
    });

    [Fact]
    public void A_circle_drawn_by_hand_becomes_few_smooth_points_close_to_it()
    {
        ImmutableArray<Vec> stroke = [.. Enumerable.Range(0, 400).Select(i => new Vec(100 + 80 * Math.Cos(i * Math.PI / 200),
            100 + 80 * Math.Sin(i * Math.PI / 200)))];
        var points = Strokes.Smoothed(stroke, 1.5);
        points.Length.ShouldBeInRange(8, 40);
        points.ShouldAllBe(p => p.Before != null && p.After != null);
        var flat = new PathOutline(points).Flatten(1, 1);
        stroke.Max(p => Off(p, flat)).ShouldBeLessThan(1.5);
        Math.Abs(PolygonMeasure.SignedArea(flat.AsSpan())).ShouldBe(Math.PI * 6400, Math.PI * 6400 * 0.02);
    }

    [Fact]
    public void Corners_stay_corners()
    {
        ImmutableArray<Vec> square = [.. new[] { (0, 0), (100, 0), (100, 100), (0, 100), (0, 0) }.Zip(new[] { (100, 0), (100, 100), (0, 100), (0, 0), (0, 0) })
            .SelectMany(leg => Enumerable.Range(0, 20).Select(i => new Vec(leg.First.Item1 + (leg.Second.Item1 - leg.First.Item1) * i / 20.0,
                leg.First.Item2 + (leg.Second.Item2 - leg.First.Item2) * i / 20.0)))];
        Strokes.Smoothed(square, 1).ShouldBe([new(new(0, 0)), new(new(100, 0)), new(new(100, 100)), new(new(0, 100))], ignoreOrder: true);
    }

    [Fact]
    public void Whatever_is_scribbled_comes_out_finite()
    {
        Gen.Select(Gen.Double[-1e4, 1e4], Gen.Double[-1e4, 1e4]).Array[0, 60].Sample(points =>
        {
            var smoothed = Strokes.Smoothed([.. points.Select(p => new Vec(p.Item1, p.Item2))], 1);
            smoothed.ShouldAllBe(p => double.IsFinite(p.At.X) && double.IsFinite((p.Before ?? p.At).Y) && double.IsFinite((p.After ?? p.At).X));
            smoothed.Length.ShouldBeLessThanOrEqualTo(points.Length);
        }, iter: 500);
    }
}
