using System.Globalization;
using System.Text;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Testing;
using NetVips;

namespace Formatum.Output.Tests;

/// <summary>Drawings (SVG) in outputs: right in every place, and drawn only where they show.</summary>
public sealed class DrawingTests : IDisposable
{
    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private const int Cells = 20;

    /// <summary>A drawing whose every cell says by its colour where it lies.</summary>
    private LinkedImage Chart()
    {
        var svg = new StringBuilder("<svg xmlns='http://www.w3.org/2000/svg' width='400' height='200' viewBox='0 0 40 20'>");
        for (int x = 0; x < Cells; x++)
            for (int y = 0; y < Cells; y++)
                svg.Append(CultureInfo.InvariantCulture, $"<rect x='{2 * x}' y='{y}' width='2' height='1' fill='rgb({10 * x},{10 * y},128)'/>");
        File.WriteAllText(_shop.Folder["chart.svg"], svg.Append("</svg>").ToString());
        return _shop.Reader.Read(_shop.Folder["chart.svg"], "chart.svg");
    }

    /// <summary>Notes how many pixels were asked for.</summary>
    private sealed class Counting : IPixelReader
    {
        public long Pixels { get; private set; }

        PictureRaster IPixelReader.Pixels(LinkedImage image, int widthPx, int heightPx, Box part)
        {
            var raster = PictureRaster.Here.Pixels(image, widthPx, heightPx, part);
            Pixels += (long)raster.Width * raster.Height;
            return raster;
        }

        PictureSamples IPixelReader.Samples(LinkedImage image, SampleWish wish) => PictureRaster.Here.Samples(image, wish);
    }

    [Theory]
    [InlineData(1, 0, 0)]
    [InlineData(10, 0, 0)]
    [InlineData(10, 0, 30)]
    [InlineData(6, 25, 0)]
    [InlineData(40, 0, 0)]
    public void A_drawing_is_right_wherever_it_shows_however_far_it_is_zoomed(double zoom, double turn, double angle)
    {
        var p = Workshop.Link(Publication.Create(Workshop.A4() with { PageWidth = 400, PageHeight = 300, Bleed = 0 }, 1), Chart());
        // A part of the frame lies off the page.
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(60, -40, 300, 200), ImageId = Workshop.IdOf(p, "chart.svg"), Angle = angle });
        int frame = p.Frames.Keys.Single();
        p = Workshop.Do(p, new ChangeFrames { FrameIds = [frame], Recrop = new(zoom, new(0.33, 0.63), null, turn) });
        var spread = Spread.At(p, 0);
        var scene = Composer.Compose(p, spread, Typefaces.All);
        var counting = new Counting();

        using var stream = new MemoryStream();
        PngWriter.Page(scene, spread.Pages[0], 144, stream, new(Reader: counting));
        using var png = Image.PngloadBuffer(stream.ToArray());
        // Of what is seen, with turns and edges; not of the whole, which has up to 1,600 times as many.
        counting.Pixels.ShouldBeLessThan((long)(3.2 * 800 * 600));
        ShouldShowTheChart(png, scene);

        PdfWriter.Write(p, new(_shop.Previews), new(), _shop.Folder["c.pdf"]);
        Tool.Run("pdftoppm", "-r", "144", "-png", "-singlefile", _shop.Folder["c.pdf"], _shop.Folder["c"]);
        using var paper = Image.Pngload(_shop.Folder["c.png"]);
        ShouldShowTheChart(paper, scene);
    }

    private static void ShouldShowTheChart(Image seen, Scene scene)
    {
        var frame = scene.Items.Single();
        var toUnit = frame.ToSpread.After(frame.Image!.Matrix).Inverse();
        var toFrame = frame.ToSpread.Inverse();
        int looked = 0;
        for (int x = 4; x < seen.Width; x += 9)
        {
            for (int y = 4; y < seen.Height; y += 9)
            {
                var at = new Vec((x + 0.5) / 2, (y + 0.5) / 2);
                Vec inFrame = toFrame.Apply(at), unit = toUnit.Apply(at);
                if (inFrame.X < 2 || inFrame.Y < 2 || inFrame.X > frame.Width - 2 || inFrame.Y > frame.Height - 2) continue;
                double column = unit.X * Cells, row = unit.Y * Cells;
                // Near the edge of a cell two colours are mixed.
                if (Math.Abs(column - Math.Round(column)) < 0.2 || Math.Abs(row - Math.Round(row)) < 0.2 || Math.Min(unit.X, unit.Y) < 0
                    || Math.Max(unit.X, unit.Y) > 1) continue;
                double[] pixel = seen.Getpoint(x, y);
                pixel[0].ShouldBe(10 * Math.Floor(column), 4);
                pixel[1].ShouldBe(10 * Math.Floor(row), 4);
                looked++;
            }
        }
        looked.ShouldBeGreaterThan(200);
    }
}
