using Formatum.Core.Colours;
using Formatum.Core.Composing;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Testing;
using NetVips;

namespace Formatum.Output.Tests;

/// <summary>The same page as SVG in Chromium, as PNG, and as PDF through poppler: three programs' eyes on one scene.</summary>
public sealed class RenderingTests : IDisposable
{
    /// <summary>Edges are smoothed differently by each program, and JPEG previews are not the originals: few pixels may differ much, none by much on
    /// average.</summary>
    private const double MostPixelsApart = 0.006, FarApart = 48, MostMean = 1.5;

    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    [Fact]
    public void Screen_PNG_and_PDF_agree()
    {
        var publication = _shop.Sampler();
        var spread = Spread.At(publication, 0);
        var scene = Composer.Compose(publication, spread, Typefaces.All);
        const double Ppi = 96;

        using var stream = new MemoryStream();
        PngWriter.Page(scene, spread.Pages[0], Ppi, stream);
        using var png = Image.PngloadBuffer(stream.ToArray()).ExtractBand(0, n: 3);

        PdfWriter.Write(publication, new(_shop.Previews), new(Bleed: false), _shop.Folder["page.pdf"]);
        Tool.Run("pdftoppm", "-r", "96", "-png", _shop.Folder["page.pdf"], _shop.Folder["pdf"]);
        using var pdf = Image.Pngload(_shop.Folder["pdf-1.png"]);

        string svg = SvgWriter.Page(scene, spread.Pages[0], "Sampler", image => "file://" + _shop.Previews.Find(image.ContentHash, 1600));
        File.WriteAllText(_shop.Folder["page.svg"], svg);
        File.WriteAllText(_shop.Folder["page.html"], $"<!doctype html><style>body{{margin:0}}svg{{display:block}}</style>{svg}");
        using var browser = new Browser(900, 1300);
        browser.Driver.Navigate().GoToUrl("file://" + _shop.Folder["page.html"]);
        using var screen = Image.PngloadBuffer(browser.Driver.GetScreenshot().AsByteArray).ExtractBand(0, n: 3);

        Books.BookWriter.Write(publication, new(_shop.Previews), new([1], DateTimeOffset.UnixEpoch), _shop.Folder["page.epub"]);
        System.IO.Compression.ZipFile.ExtractToDirectory(_shop.Folder["page.epub"], _shop.Folder["book"]);
        browser.Driver.Navigate().GoToUrl($"file://{_shop.Folder["book"]}/EPUB/pages/0001.xhtml");
        using var book = Image.PngloadBuffer(browser.Driver.GetScreenshot().AsByteArray).ExtractBand(0, n: 3);

        ShouldAgree(png, book, "PNG and EPUB");
        ShouldAgree(png, pdf, "PNG and PDF");
        ShouldAgree(png, screen, "PNG and SVG");
        ShouldAgree(pdf, screen, "PDF and SVG");
    }

    private static void ShouldAgree(Image a, Image b, string which)
    {
        int width = Math.Min(a.Width, b.Width), height = Math.Min(a.Height, b.Height);
        width.ShouldBeInRange(792, 796);
        height.ShouldBeInRange(1121, 1125);
        using var apart = (a.Crop(0, 0, width, height) - b.Crop(0, 0, width, height)).Abs().Bandmean();
        apart.Avg().ShouldBeLessThan(MostMean, which);
        ((apart > FarApart).Avg() / 255).ShouldBeLessThan(MostPixelsApart, which);
    }

    /// <summary>
    /// Across a straight edge, a Gaussian blur leaves the share that the standard normal distribution has below: at the edge half, one and two deviations
    /// outside 15.87 % and 2.28 % (any table of it). Read from the PDF by poppler, and from the PNG.
    /// </summary>
    [Fact]
    public void A_shadow_fades_as_the_normal_distribution_does()
    {
        var p = Publication.Create(Workshop.A4() with { PageWidth = 400, PageHeight = 300, Bleed = 0 }, 1);
        // Its right edge is at 250 + 40 = 290, ten points to the deviation; its own frame covers it up to 250.
        p = Workshop.Do(p, new Core.Edits.MakeFrame
        {
            Page = 1,
            Box = new(50, 50, 200, 200),
            Look = new()
            {
                Shadow = new(40, 0, 20, Colour.Of("#000000"),
            0.8)
            }
        });
        PdfWriter.Write(p, new(_shop.Previews), new(), _shop.Folder["s.pdf"]);
        // Four pixels to a point: poppler sets every picture to whole pixels, and makes it one larger.
        Tool.Run("pdftoppm", "-r", "288", "-png", _shop.Folder["s.pdf"], _shop.Folder["s"]);
        using var paper = Image.Pngload(_shop.Folder["s-1.png"]);
        using var stream = new MemoryStream();
        PngWriter.Page(Composer.Compose(p, Spread.At(p, 0), Typefaces.All), Spread.At(p, 0).Pages[0], 72, stream);
        using var raster = Image.PngloadBuffer(stream.ToArray());
        foreach (var (seen, fine) in new[] { (paper, 4), (raster, 1) })
            foreach (var (outside, share) in new[] { (-30, 0.99865), (-10, 0.84134), (0, 0.5), (10, 0.15866), (20, 0.02275), (40, 0.00003) })
                // Between two pixels, whose middles lie half a pixel to either side.
                ((seen.Getpoint(fine * (290 + outside) - 1, fine * 150)[0] + seen.Getpoint(fine * (290 + outside), fine * 150)[0]) / 2)
                    .ShouldBe(255 * (1 - 0.8 * share), 5, $"{outside} pt outside");
    }

    /// <summary>All eight files hold the same upright picture: each must come out with red in the upper left.</summary>
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    [InlineData(5)]
    [InlineData(6)]
    [InlineData(7)]
    [InlineData(8)]
    public void Every_orientation_comes_out_upright_on_paper_and_in_previews(int orientation)
    {
        var image = _shop.Quarters("o.jpg", 400, 300, 72, orientation);
        (image.WidthPx, image.HeightPx).ShouldBe((400, 300));
        var p = Workshop.Link(Publication.Create(Workshop.A4() with { PageWidth = 400, PageHeight = 300, Bleed = 0 }, 1), image);
        p = Workshop.Do(p, new Core.Edits.MakeFrame { Page = 1, Box = new(0, 0, 400, 300), ImageId = Workshop.IdOf(p, "o.jpg") });
        PdfWriter.Write(p, new(_shop.Previews), new(), _shop.Folder["o.pdf"]);
        Tool.Run("pdftoppm", "-r", "72", "-png", _shop.Folder["o.pdf"], _shop.Folder["o"]);
        using var paper = Image.Pngload(_shop.Folder["o-1.png"]);
        ShouldBeQuarters(paper);
        using var preview = Image.Jpegload(_shop.Previews.Find(image.ContentHash, 240)!);
        ShouldBeQuarters(preview);
    }

    private static void ShouldBeQuarters(Image seen)
    {
        double[][] colours = [[220, 30, 30], [30, 160, 60], [30, 60, 200], [245, 245, 245]];
        for (int i = 0; i < 4; i++)
        {
            var pixel = seen.Getpoint((int)(seen.Width * (0.25 + 0.5 * (i % 2))), (int)(seen.Height * (0.25 + 0.5 * (i / 2))));
            for (int band = 0; band < 3; band++) pixel[band].ShouldBe(colours[i][band], 8);
        }
    }
}
