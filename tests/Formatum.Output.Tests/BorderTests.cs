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

/// <summary>Borders and corners on screen, in PNG and PDF against each other, and against what Chromium makes of CSS's own.</summary>
public sealed class BorderTests : IDisposable
{
    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private static readonly Colour Moss = Colour.Of("#2f6f4f"), Plum = Colour.Of("#7a3b69");

    private static Publication Page(IEnumerable<(Outline Outline, Look Look)> frames, double width = 90, double height = 110, double angle = 0)
    {
        var p = Publication.Create(Workshop.A4() with { PageWidth = 600, PageHeight = 800, Bleed = 0 }, 1);
        int i = 0;
        foreach (var (outline, look) in frames)
        {
            p = Workshop.Do(p, new MakeFrame
            {
                Page = 1,
                Box = new(30 + i % 5 * 115, 30 + i / 5 * 150, width, height),
                Outline = outline,
                Look = look,
                Angle = angle * i
            });
            i++;
        }
        return p;
    }

    private static Image Png(Publication p, double ppi = 72)
    {
        using var stream = new MemoryStream();
        PngWriter.Page(Composer.Compose(p, Spread.At(p, 0), Typefaces.All), Spread.At(p, 0).Pages[0], ppi, stream);
        return Image.PngloadBuffer(stream.ToArray()).ExtractBand(0, n: 3).CopyMemory();
    }

    private static Image Shot(Browser browser, string file)
    {
        browser.Driver.Navigate().GoToUrl("file://" + file);
        return Image.PngloadBuffer(browser.Driver.GetScreenshot().AsByteArray).ExtractBand(0, n: 3).CopyMemory();
    }

    /// <summary>Edges are smoothed differently, and there are many: few pixels differ much, and little on average.</summary>
    private static void ShouldAgree(Image a, Image b, string which, double mostFar = 0.004, double mostMean = 0.6)
    {
        using var apart = (a.Crop(0, 0, 600, 800) - b.Crop(0, 0, 600, 800)).Abs().Bandmean();
        apart.Avg().ShouldBeLessThan(mostMean, which);
        ((apart > 64).Avg() / 255).ShouldBeLessThan(mostFar, which);
    }

    [Fact]
    public void Screen_PNG_and_PDF_agree()
    {
        var lines = new Border(3, Moss) { Second = new(2, 4, Plum), Third = new(1, 1) };
        var free = Outlines.Free([new(new(0, 0), null, new(60, -30)), new(new(100, 20)), new(new(90, 110), new(120, 60)), new(new(10, 100))]).Outline;
        var dotted = new Border(5, Moss) { Kind = BorderKind.Dotted };
        var dashed = new Border(4, Plum) { Kind = BorderKind.Dashed };
        Border[] borders =
        [
            new(9, Moss) { Kind = BorderKind.Double }, dotted, dashed with { Dashes = new([10, 4, 2]), End = LineEnd.Round },
            lines with { Place = BorderPlace.Outside, Join = LineJoin.Round }, lines with { Place = BorderPlace.Inside },
            new(6, Moss) { Kind = BorderKind.ThickThin, Place = BorderPlace.Inside }, dotted with { Place = BorderPlace.Outside },
            dashed with { Place = BorderPlace.Inside }, new(6, Plum) { Sides = Sides.Top | Sides.Left | Sides.Bottom, Place = BorderPlace.Inside },
            new(6, Plum) { Sides = Sides.Right, Kind = BorderKind.ThinThick, Place = BorderPlace.Outside, End = LineEnd.Square },
        ];
        Outline[] outlines = [Outline.Rectangle, Outline.Ellipse, Outlines.Polygon(5), free, Outline.Rectangle];
        var kinds = Enum.GetValues<CornerKind>();
        var p = Page(Enumerable.Range(0, 25).Select(i => (outlines[i % 5], new Look
        {
            Border = borders[(i + i / 5) % borders.Length],
            Background = Colour.Of("#dfe5d8"),
            Corners = i / 5 is 0 or 3 ? null : Corners.Even(kinds[i % 4], 6 + i),
        })), angle: 3);
        var scene = Composer.Compose(p, Spread.At(p, 0), Typefaces.All);
        using var png = Png(p);
        PdfWriter.Write(p, new(_shop.Previews), new(), _shop.Folder["b.pdf"]);
        Tool.Run("pdftoppm", "-r", "72", "-png", _shop.Folder["b.pdf"], _shop.Folder["b"]);
        using var pdf = Image.Pngload(_shop.Folder["b-1.png"]);
        string svg = SvgWriter.Page(scene, Spread.At(p, 0).Pages[0], "Borders", _ => "").Replace("width=\"600pt\" height=\"800pt\"",
            "width=\"600\" height=\"800\"", StringComparison.Ordinal);
        File.WriteAllText(_shop.Folder["b.html"], $"<!doctype html><style>body{{margin:0}}svg{{display:block}}</style>{svg}");
        using var browser = new Browser(620, 820);
        using var screen = Shot(browser, _shop.Folder["b.html"]);
        ShouldAgree(png, pdf, "PNG and PDF", mostMean: 1.2);
        ShouldAgree(png, screen, "PNG and SVG", mostMean: 1.2);
    }

    /// <summary>What CSS has too: solid and double borders within the box, every shape of corner, radii too large.</summary>
    [Fact]
    public void Borders_and_corners_are_those_of_CSS()
    {
        string[] shapes = ["round", "bevel", "scoop", "notch"];
        double[][] radii = [[0, 0, 0, 0], [12, 12, 12, 12], [40, 10, 0, 25], [90, 70, 60, 80], [400, 400, 400, 400]];
        var frames = new List<(Outline, Look)>();
        var css = new StringBuilder();
        for (int i = 0; i < 25; i++)
        {
            int shape = i / 5 % 4;
            var r = radii[i % 5];
            // The inner edge beside a hollow corner is CSS's own matter: borders are compared where corners are round.
            Border? border = i < 5 ? new(9, Moss) { Kind = BorderKind.Double, Place = BorderPlace.Inside }
                : i >= 20 ? new(5, Plum) { Place = BorderPlace.Inside } : null;
            frames.Add((Outline.Rectangle, new()
            {
                Border = border,
                Background = Colour.Of("#dfe5d8"),
                Corners = new((CornerKind)shape, r[0], r[1], r[2], r[3])
            }));
            string edge = border is null ? "" : $"border:{border.Width}px {border.Kind.ToString().ToLowerInvariant()} {border.Colour.Hex};";
            css.Append(CultureInfo.InvariantCulture, $"<div style='left:{30 + i % 5 * 115}px;top:{30 + i / 5 * 150}px;{edge}" +
                $"border-radius:{string.Join(' ', r.Select(v => $"{v}px"))};corner-shape:{shapes[shape]}'></div>");
        }
        File.WriteAllText(_shop.Folder["css.html"], "<!doctype html><style>body{margin:0}div{position:absolute;box-sizing:border-box;width:90px;" +
            $"height:110px;background:#dfe5d8}}</style>{css}");
        using var browser = new Browser(620, 820);
        using var expected = Shot(browser, _shop.Folder["css.html"]);
        browser.Run<bool>("return CSS.supports('corner-shape', 'notch')").ShouldBeTrue("Chromium knows the shapes of corners.");
        using var seen = Png(Page(frames));
        ShouldAgree(seen, expected, "PNG and CSS", 0.0025);
    }

    /// <summary>The middle of a line within the outline runs where it should: dots are whole, and as many as come out even.</summary>
    [Fact]
    public void Dots_are_whole_wherever_the_border_lies()
    {
        foreach (var (place, edge) in new[] { (BorderPlace.Inside, 4.0), (BorderPlace.On, 0), (BorderPlace.Outside, -4) })
        {
            using var seen = Png(Page([(Outline.Rectangle, new() { Border = new(8, Colour.Black) { Kind = BorderKind.Dotted, Place = place } })], 100, 100),
                288);
            double around = 4 * (100 - 2 * edge);
            double dots = Math.Round(around / 16), expected = dots * Math.PI * 16, ink = (255 - seen[0].Avg()) / 255 * 600 * 800;
            ink.ShouldBe(expected, 0.01 * expected, $"{place}");
        }
    }

    [Fact]
    public void A_line_for_which_there_is_no_room_is_left_out()
    {
        using var seen = Png(Page([(Outline.Rectangle, new() { Border = new(30, Moss) { Place = BorderPlace.Inside, Second = new(40, 10) } }),
            (Outline.Ellipse, new() { Border = new(1, Moss) { Place = BorderPlace.Inside, Second = new(200, 10) } })]));
        seen.Getpoint(30 + 45, 30 + 55)[0].ShouldBe(255, "Nothing in the middle.");
        seen.Getpoint(30 + 15, 30 + 55)[0].ShouldBe(0x2f);
    }
}
