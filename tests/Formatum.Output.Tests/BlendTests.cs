using Formatum.Core.Colours;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Testing;
using NetVips;

namespace Formatum.Output.Tests;

/// <summary>Opacity of a frame, its picture and its background, and blending: Chromium, PNG and PDF against each other and the standard's formulas.</summary>
public sealed class BlendTests : IDisposable
{
    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private (Image Png, Image Pdf, Image Screen) Seen(Publication p, Browser browser)
    {
        var scene = Composer.Compose(p, Spread.At(p, 0), Typefaces.All);
        using var stream = new MemoryStream();
        PngWriter.Page(scene, Spread.At(p, 0).Pages[0], 72, stream);
        PdfWriter.Write(p, new(_shop.Previews), new(Bleed: false), _shop.Folder["b.pdf"]);
        // Not poppler, which holds hue and its like within bounds otherwise than the standard: of #336699 over #cc8844, hue is #5da1e5, by hand.
        Tool.Run("mutool", "draw", "-q", "-r", "72", "-o", _shop.Folder["b-1.png"], _shop.Folder["b.pdf"]);
        string svg = SvgWriter.Page(scene, Spread.At(p, 0).Pages[0], "B", image => "file://" + image.Path).Replace("pt\"", "\"", StringComparison.Ordinal);
        File.WriteAllText(_shop.Folder["b.html"], $"<!doctype html><meta charset=utf-8><style>body{{margin:0}}svg{{display:block}}</style>{svg}");
        browser.Driver.Navigate().GoToUrl("file://" + _shop.Folder["b.html"]);
        return (Image.PngloadBuffer(stream.ToArray()).ExtractBand(0, n: 3).CopyMemory(),
            Image.Pngload(_shop.Folder["b-1.png"]).Colourspace(Enums.Interpretation.Srgb).ExtractBand(0, n: 3).CopyMemory(),
            Image.PngloadBuffer(browser.Driver.GetScreenshot().AsByteArray).ExtractBand(0, n: 3).CopyMemory());
    }

    private static void ShouldBe(Image page, int x, int y, string colour, string which, double within = 2)
    {
        var expected = Colour.Of(colour).Shown;
        var seen = page.Getpoint(x, y);
        foreach (var (a, b) in new[] { (seen[0], expected.Red), (seen[1], expected.Green), (seen[2], expected.Blue) })
            a.ShouldBe(b, within, $"{which} at {x}, {y}: {string.Join(' ', seen)}");
    }

    /// <summary>Compositing and Blending 1, 10.1, of #336699 over #cc8844, worked by hand in shares of 255: multiply is the product, screen one less the
    /// product of what is missing, darken and lighten the lesser and the greater, difference and exclusion as their names say.</summary>
    private static readonly (Blend Blend, string Seen)[] Worked =
    [
        (Blend.Normal, "#336699"), (Blend.Multiply, "#293629"), (Blend.Screen, "#d6b8b4"), (Blend.Darken, "#336644"), (Blend.Lighten, "#cc8899"),
        (Blend.Difference, "#992255"), (Blend.Exclusion, "#ad818b"), (Blend.Hue, "#5da1e5"),
    ];

    [Fact]
    public void Blending_is_that_of_the_standard_on_screen_and_in_print()
    {
        var blends = Enum.GetValues<Blend>();
        var p = Publication.Create(Workshop.A4() with { PageWidth = 500, PageHeight = 400, Bleed = 0 }, 1);
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(0, 0, 500, 200), Look = new() { Background = Colour.Of("#cc8844") } });
        for (int i = 0; i < blends.Length; i++)
            p = Workshop.Do(p, new MakeFrame
            {
                Page = 1,
                Box = new(10 + 30 * i, 150, 25, 100),
                Look = new()
                {
                    Background = Colour.Of("#336699"),
                    Blend = blends[i],
                    Opacity = i == blends.Length - 1 ? 0.5 : 1
                }
            });
        using var browser = new Browser(520, 420);
        var (png, pdf, screen) = Seen(p, browser);
        foreach (var (blend, colour) in Worked)
            foreach (var (page, which) in new[] { (png, "PNG"), (pdf, "PDF"), (screen, "screen") })
                ShouldBe(page, 22 + 30 * (int)blend, 175, colour, $"{blend}, {which}");
        for (int i = 0; i < blends.Length; i++)
            // Over the other frame, and over bare paper.
            foreach (int y in new[] { 175, 225 })
            {
                var expected = screen.Getpoint(22 + 30 * i, y);
                foreach (var (page, which) in new[] { (png, "PNG"), (pdf, "PDF") })
                    for (int part = 0; part < 3; part++) page.Getpoint(22 + 30 * i, y)[part].ShouldBe(expected[part], 3, $"{blends[i]}, {which}, {y}");
            }
    }

    [Fact]
    public void Picture_and_background_are_opaque_apart_and_a_JPEG_stays_as_it_is()
    {
        using var plain = (Image.Black(120, 120) + new double[] { 200, 40, 40 }).Cast(Enums.BandFormat.Uchar).Copy(interpretation: Enums.Interpretation.Srgb);
        var image = _shop.Reader.Read(TestPictures.Save(plain, _shop.Folder["plain.jpg"], 72), "plain.jpg");
        var p = Workshop.Link(Publication.Create(Workshop.A4() with { PageWidth = 500, PageHeight = 400, Bleed = 0 }, 1), image);
        Look[] looks =
        [
            new() { PictureOpacity = 0.25, Background = Colour.Of("#0000ff") }, new() { BackgroundOpacity = 0.25, Background = Colour.Of("#0000ff") },
            new() { PictureOpacity = 0.5, BackgroundOpacity = 0.5, Opacity = 0.5, Background = Colour.Of("#0000ff") },
        ];
        for (int i = 0; i < looks.Length; i++)
            p = Workshop.Do(p, new MakeFrame
            {
                Page = 1,
                Box = new(20 + 160 * i, 20, 120, 240),
                Look = looks[i],
                ImageId = p.Images.Keys.Single(),
                Own = new() { Fit = Core.Fitting.FitKind.Natural, AlignY = 0 }
            });
        using var browser = new Browser(520, 420);
        var (png, pdf, screen) = Seen(p, browser);
        // A quarter of the picture over blue; the picture over a faint blue, and that alone; each over white.
        (int X, int Y, string Colour)[] expected =
        [
            (80, 80, "#320ac9"), (80, 200, "#0000ff"), (240, 80, "#c82828"), (240, 200, "#bfbfff"), (400, 80, "#d1a9c9"), (400, 200, "#bfbfff"),
        ];
        foreach (var (x, y, colour) in expected)
            foreach (var (page, which) in new[] { (png, "PNG"), (pdf, "PDF"), (screen, "screen") }) ShouldBe(page, x, y, colour, which, 3);
        Tool.Run("pdfimages", "-list", _shop.Folder["b.pdf"]).ShouldContain("jpeg");
    }
}
