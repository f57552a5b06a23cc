using System.Globalization;
using System.Text;
using Formatum.Core.Colours;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Testing;
using NetVips;

namespace Formatum.Output.Tests;

/// <summary>Soft edges and inner shadows: on screen, in PNG and PDF against each other, against CSS, and against tables.</summary>
public sealed class EdgeTests : IDisposable
{
    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private static readonly Colour Moss = Colour.Of("#2f6f4f");

    private static Publication Page(params (Outline Outline, Look Look, double Angle)[] frames)
    {
        var p = Publication.Create(Workshop.A4() with { PageWidth = 600, PageHeight = 480, Bleed = 0 }, 1);
        for (int i = 0; i < frames.Length; i++)
            p = Workshop.Do(p, new MakeFrame
            {
                Page = 1,
                Box = new(30 + i % 4 * 140, 30 + i / 4 * 150, 110, 120),
                Outline = frames[i].Outline,
                Look = frames[i].Look,
                Angle = frames[i].Angle,
            });
        return p;
    }

    private static Image Png(Publication p)
    {
        using var stream = new MemoryStream();
        PngWriter.Page(Composer.Compose(p, Spread.At(p, 0), Typefaces.All), Spread.At(p, 0).Pages[0], 72, stream);
        return Image.PngloadBuffer(stream.ToArray()).ExtractBand(0, n: 3).CopyMemory();
    }

    private static Image Shot(Browser browser, string file)
    {
        browser.Driver.Navigate().GoToUrl("file://" + file);
        return Image.PngloadBuffer(browser.Driver.GetScreenshot().AsByteArray).ExtractBand(0, n: 3).CopyMemory();
    }

    private static void ShouldAgree(Image a, Image b, string which, double mostMean = 0.6)
    {
        using var apart = (a.Crop(0, 0, 600, 480) - b.Crop(0, 0, 600, 480)).Abs().Bandmean();
        apart.Avg().ShouldBeLessThan(mostMean, which);
        ((apart > 24).Avg() / 255).ShouldBeLessThan(0.004, which);
    }

    [Fact]
    public void Screen_PNG_and_PDF_agree()
    {
        var free = Outlines.Free([new(new(0, 0), null, new(60, -30)), new(new(100, 20)), new(new(90, 110), new(120, 60)), new(new(10, 100))]).Outline;
        Outline[] outlines = [Outline.Rectangle, Outline.Ellipse, Outlines.Polygon(5), free];
        Look[] looks =
        [
            new() { Background = Moss, SoftEdge = 24 },
            new() { Background = Moss, SoftEdge = 10, InnerShadow = new(5, 8, 12, Colour.Black, 0.8), Shadow = new(4, 4, 6, Colour.Black, 0.5) },
            new() { Background = Colour.Of("#dfe5d8"), InnerShadow = new(-6, 3, 0, Moss, 0.6), Border = new(2, Moss),
                Corners = Corners.Even(CornerKind.Round, 20) },
        ];
        var p = Page([.. looks.SelectMany((look, row) => outlines.Select((outline, i) => (outline, look, 20.0 * row * i)))]);
        var scene = Composer.Compose(p, Spread.At(p, 0), Typefaces.All);
        using var png = Png(p);
        PdfWriter.Write(p, new(_shop.Previews), new(), _shop.Folder["e.pdf"]);
        Tool.Run("pdftoppm", "-r", "288", "-png", _shop.Folder["e.pdf"], _shop.Folder["e"]);
        using var fine = Image.Pngload(_shop.Folder["e-1.png"]);
        using var pdf = fine.Shrink(4, 4);
        string svg = SvgWriter.Page(scene, Spread.At(p, 0).Pages[0], "Edges", _ => "").Replace("width=\"600pt\" height=\"480pt\"",
            "width=\"600\" height=\"480\"", StringComparison.Ordinal);
        File.WriteAllText(_shop.Folder["e.html"], $"<!doctype html><style>body{{margin:0}}svg{{display:block}}</style>{svg}");
        using var browser = new Browser(620, 520);
        using var screen = Shot(browser, _shop.Folder["e.html"]);
        // Poppler sets every picture to whole pixels: a quarter of a point.
        ShouldAgree(png, pdf, "PNG and PDF", 0.9);
        ShouldAgree(png, screen, "PNG and SVG");
    }

    /// <summary>CSS Backgrounds and Borders 3, 6.1: box-shadow with "inset".</summary>
    [Fact]
    public void Inner_shadows_are_those_of_CSS()
    {
        (double Across, double Down, double Blur, double Radius)[] shadows =
            [(0, 0, 20, 0), (8, 4, 12, 0), (-10, -6, 4, 30), (6, 6, 0, 0), (0, 12, 30, 55), (5, 0, 0, 25), (200, 0, 10, 0), (0, 0, 60, 12)];
        var css = new StringBuilder();
        var frames = new List<(Outline, Look, double)>();
        for (int i = 0; i < shadows.Length; i++)
        {
            var (across, down, blur, radius) = shadows[i];
            frames.Add((Outline.Rectangle, new()
            {
                Background = Colour.Of("#dfe5d8"),
                InnerShadow = new(across, down, blur, Moss, 0.75),
                Corners = radius > 0 ? Corners.Even(CornerKind.Round, radius) : null,
            }, 0));
            css.Append(CultureInfo.InvariantCulture, $"<div style='left:{30 + i % 4 * 140}px;top:{30 + i / 4 * 150}px;border-radius:{radius}px;" +
                $"box-shadow:inset {across}px {down}px {blur}px rgb(47 111 79 / 75%)'></div>");
        }
        File.WriteAllText(_shop.Folder["css.html"], "<!doctype html><style>body{margin:0}div{position:absolute;width:110px;height:120px;" +
            $"background:#dfe5d8}}</style>{css}");
        using var browser = new Browser(620, 520);
        using var expected = Shot(browser, _shop.Folder["css.html"]);
        using var seen = Png(Page([.. frames]));
        ShouldAgree(seen, expected, "PNG and CSS");
    }

    /// <summary>Within one, two and three deviations of its mean lie 68.27, 95.45 and 99.73 % of a normal distribution (any table of it).</summary>
    [Fact]
    public void A_soft_edge_rises_as_the_normal_distribution_does()
    {
        // Ten points to the deviation. Black on white: what is there darkens.
        using var seen = Png(Page((Outline.Rectangle, new() { Background = Colour.Black, SoftEdge = 20 }, 0)));
        double[] there = [.. new[] { 0, 10, 20, 30 }.Select(d => 1 - (seen.Getpoint(30 + d, 90)[0] + seen.Getpoint(29 + d, 90)[0]) / 510)];
        there[0].ShouldBe(0, 0.03);
        there[1].ShouldBe(0.6827, 0.02);
        there[2].ShouldBe(0.9545, 0.02);
        there[3].ShouldBe(0.9973, 0.01);
    }
}
