using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Testing;
using NetVips;
using SkiaSharp;

namespace Formatum.Output.Tests;

/// <summary>What a picture shows, told from its ground.</summary>
public sealed class ContourTests : IDisposable
{
    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private LinkedImage Read(string name, int width, int height, SKColor ground, Action<SKCanvas> draw, int orientation = 1)
    {
        using var bitmap = new SKBitmap(new SKImageInfo(width, height, SKColorType.Rgba8888, SKAlphaType.Premul));
        using (var canvas = new SKCanvas(bitmap))
        {
            canvas.Clear(ground);
            draw(canvas);
        }
        using var encoded = bitmap.Encode(SKEncodedImageFormat.Png, 100);
        File.WriteAllBytes(_shop.Folder["drawn.png"], encoded.ToArray());
        using var picture = Image.NewFromFile(_shop.Folder["drawn.png"]);
        using var kept = ground.Alpha == 255 ? picture.ExtractBand(0, n: 3) : picture.Copy();
        return _shop.Reader.Read(TestPictures.Save(kept, _shop.Folder[name], orientation: orientation), name);
    }

    private static void Ellipse(SKCanvas canvas, SKColor colour)
    {
        using var paint = new SKPaint { Color = colour, IsAntialias = true };
        canvas.DrawOval(1200, 500, 600, 300, paint);
    }

    /// <summary>How far the ring strays from an ellipse of half the picture's width and 0.6 of its height, in its radii.</summary>
    private static double Strays(IEnumerable<Vec> ring, double x = 0.6, double y = 0.5, double rx = 0.3, double ry = 0.3) =>
        ring.Max(p => Math.Abs(Math.Sqrt((p.X - x) * (p.X - x) / (rx * rx) + (p.Y - y) * (p.Y - y) / (ry * ry)) - 1));

    [Theory]
    [InlineData("cut.png", true)]
    [InlineData("cut.webp", true)]
    [InlineData("plain.jpg", false)]
    [InlineData("plain.tif", false)]
    public void A_piece_on_clear_or_plain_ground_is_found_by_itself(string name, bool clear)
    {
        var image = Read(name, 2000, 1000, clear ? SKColors.Transparent : new SKColor(236, 232, 224), canvas => Ellipse(canvas, new SKColor(60, 110, 90)));
        var ring = image.Contour.ShouldNotBeNull().Rings.ShouldHaveSingleItem();
        image.Contour!.Strength.ShouldBe(Contour.UsualStrength);
        // The preview is 720 pixels wide: two of them are a hundredth of the radius.
        Strays(ring).ShouldBeLessThan(0.015);
    }

    [Fact]
    public void Another_file_in_its_place_is_told_from_its_ground_as_strongly()
    {
        var finder = new ContourFinder(_shop.Previews);
        var image = Read("first.png", 2000, 1000, SKColors.White, canvas => Ellipse(canvas, SKColors.Black));
        var now = Read("second.png", 2000, 1000, SKColors.White, canvas => Ellipse(canvas, new SKColor(200, 200, 200)));
        finder.AsStrongAs(now, image).ShouldBe(now);
        var strong = finder.AsStrongAs(now, image with { Contour = finder.Find(image.ContentHash, 0.3) });
        strong.Contour.ShouldBe(finder.Find(now.ContentHash, 0.3));
        strong.Contour!.Rings.ShouldNotBeEmpty();
        // Too pale for what was asked, it has none, and the strength stays for the next.
        finder.AsStrongAs(now, image with { Contour = finder.Find(image.ContentHash, 0.9) }).Contour.ShouldBe(new Contour(0.9, []));
    }

    [Fact]
    public void It_lies_as_the_picture_is_seen_upright()
    {
        var image = Read("turned.jpg", 2000, 1000, SKColors.White, canvas => Ellipse(canvas, SKColors.Black), orientation: 6);
        (image.WidthPx, image.HeightPx).ShouldBe((2000, 1000));
        Strays(image.Contour!.Rings[0]).ShouldBeLessThan(0.015);
    }

    [Fact]
    public void A_drawing_has_the_contour_it_draws()
    {
        File.WriteAllText(_shop.Folder["star.svg"], "<svg xmlns='http://www.w3.org/2000/svg' width='100' height='100'><path d='M20 20H80V80H20Z'/></svg>");
        var ring = _shop.Reader.Read(_shop.Folder["star.svg"], "star.svg").Contour!.Rings.ShouldHaveSingleItem();
        (ring.Min(p => p.X), ring.Max(p => p.X), ring.Min(p => p.Y), ring.Max(p => p.Y)).ShouldBe((0.2, 0.8, 0.2, 0.8));
    }

    [Fact]
    public void Photographs_that_fill_their_frame_have_none()
    {
        foreach (string path in TestPictures.Photographs.Take(4))
        {
            var contour = _shop.Reader.Read(path, Path.GetFileName(path)).Contour;
            // Where the edges are of one colour, a sky say, what stands out of it may be found: it never is the whole picture.
            if (contour is not null) contour.Rings.Sum(r => PolygonMeasure.SignedArea(r.AsSpan())).ShouldBeLessThan(0.99);
        }
        _shop.Quarters("q.jpg", 300, 200, 72).Contour.ShouldBeNull();
    }

    [Fact]
    public void The_strength_decides_how_much_of_a_soft_edge_counts()
    {
        var image = Read("soft.png", 1000, 1000, SKColors.Transparent, canvas =>
        {
            using var paint = new SKPaint
            {
                Shader = SKShader.CreateRadialGradient(new(500, 500), 500, [SKColors.Black, new SKColor(0, 0, 0, 0)], SKShaderTileMode.Clamp)
            };
            canvas.DrawRect(0, 0, 1000, 1000, paint);
        });
        double Reach(double strength) => new ContourFinder(_shop.Previews).Find(image.ContentHash, strength)!.Rings[0].Max(p => p.X) - 0.5;
        // Alpha falls evenly from the middle to the edge: a tenth of it is left nine tenths of the way.
        foreach (double strength in new[] { 0.1, 0.25, 0.5, 0.9 }) Reach(strength).ShouldBe(0.5 * (1 - strength), 0.006);
    }

    [Fact]
    public void Noise_has_a_bounded_contour_and_one_that_is_the_same_each_time()
    {
        var random = new Random(5);
        byte[] noise = new byte[700 * 700 * 4];
        random.NextBytes(noise);
        using var picture = Image.NewFromMemory<byte>(noise, 700, 700, 4, Enums.BandFormat.Uchar);
        using var srgb = picture.Copy(interpretation: Enums.Interpretation.Srgb);
        string path = TestPictures.Save(srgb, _shop.Folder["noise.png"]);
        var contour = _shop.Reader.Read(path, "noise.png").Contour.ShouldNotBeNull();
        contour.Rings.Length.ShouldBeLessThanOrEqualTo(Contour.MostRings);
        contour.Rings.Sum(r => r.Length).ShouldBeLessThanOrEqualTo(Contour.MostPoints);
        new ContourFinder(_shop.Previews).Find(_shop.Reader.Read(path, "again.png").ContentHash).ShouldBe(contour);
    }
}
