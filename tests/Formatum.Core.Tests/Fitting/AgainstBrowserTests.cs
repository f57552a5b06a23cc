using System.Globalization;
using System.Text;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Testing;
using NetVips;

namespace Formatum.Core.Tests.Fitting;

/// <summary>Placements held against headless Chromium: SVG 2's preserveAspectRatio, and CSS Images 3's object-fit and object-position.</summary>
public sealed class AgainstBrowserTests(AgainstBrowserTests.OneBrowser one) : IClassFixture<AgainstBrowserTests.OneBrowser>
{
    public sealed class OneBrowser : IDisposable
    {
        public Browser Browser { get; } = new(1300, 1100);
        public void Dispose() => Browser.Dispose();
    }

    private readonly Browser _browser = one.Browser;

    private static string N(double value) => value.ToString("R", CultureInfo.InvariantCulture);

    private static Affine Ours(double width, double height, double a, double b, FitKind fit, double alignX, double alignY) =>
        Fitter.Place(width, height, Outline.Rectangle, new Picture(a, b, 72, 72), ResolvedFit.Default with { Fit = fit, AlignX = alignX, AlignY = alignY },
            null, Recrop.None).Matrix;

    [Fact]
    public void Fill_Fit_and_Stretch_place_as_preserveAspectRatio_does_in_nine_alignments()
    {
        var random = new Random(20);
        string[] names = ["Min", "Mid", "Max"];
        var cases = new List<(double W, double H, double A, double B, FitKind Fit, int X, int Y)>();
        for (int i = 0; i < 360; i++)
        {
            cases.Add((Math.Round(5 + 600 * random.NextDouble(), 3), Math.Round(5 + 600 * random.NextDouble(), 3), 1 + random.Next(6000), 1 + random.Next(6000),
                (i % 3) switch { 0 => FitKind.Fill, 1 => FitKind.Fit, _ => FitKind.Stretch }, i / 3 % 3, i / 9 % 3));
        }
        var html = new StringBuilder("<!doctype html><title>p</title><svg id=o xmlns='http://www.w3.org/2000/svg' width='700' height='700'>");
        foreach (var c in cases)
        {
            string ratio = c.Fit == FitKind.Stretch ? "none" : $"x{names[c.X]}Y{names[c.Y]} {(c.Fit == FitKind.Fill ? "slice" : "meet")}";
            html.Append(CultureInfo.InvariantCulture, $"<svg width='{N(c.W)}' height='{N(c.H)}' viewBox='0 0 {c.A} {c.B}' " +
                $"preserveAspectRatio='{ratio}'><rect class='i' width='{c.A}' height='{c.B}'/></svg>");
        }
        Open(html.Append("</svg>").ToString());

        var theirs = _browser.Run<IReadOnlyCollection<object>>("""
            const outer = document.getElementById('o').getScreenCTM().inverse();
            return [...document.querySelectorAll('.i')].flatMap(r => { const m = outer.multiply(r.getScreenCTM()); return [m.a, m.b, m.c, m.d, m.e, m.f]; });
            """).Select(v => Convert.ToDouble(v, CultureInfo.InvariantCulture)).ToArray();

        theirs.Length.ShouldBe(6 * cases.Count);
        for (int i = 0; i < cases.Count; i++)
        {
            var c = cases[i];
            var m = Ours(c.W, c.H, c.A, c.B, c.Fit, c.X / 2.0, c.Y / 2.0);
            // Theirs is from the picture's units, ours from its unit square. Chromium computes with single precision.
            double[] ours = [m.A / c.A, m.B / c.A, m.C / c.B, m.D / c.B, m.E, m.F];
            double size = Math.Max(Math.Abs(m.A), Math.Abs(m.D));
            for (int k = 0; k < 6; k++)
                ours[k].ShouldBe(theirs[6 * i + k], k < 4 ? 1e-5 * Math.Max(1, Math.Abs(ours[k])) : 1e-5 * Math.Max(100, size), $"case {i}: {c}, element {k}");
        }
    }

    [Fact]
    public void Five_fits_paint_as_object_fit_and_object_position_do()
    {
        const int Cell = 100, Columns = 12, PerPage = 96;
        var fits = new[] { (FitKind.Fill, "cover"), (FitKind.Fit, "contain"), (FitKind.Stretch, "fill"), (FitKind.Natural, "none"),
            (FitKind.Shrink, "scale-down") };
        var random = new Random(21);
        int compared = 0;
        for (int sheet = 0; sheet < 3; sheet++)
        {
            var cases = Enumerable.Range(0, PerPage).Select(i => (
                W: 30 + random.Next(70), H: 30 + random.Next(70), A: 8 + random.Next(180), B: 8 + random.Next(180),
                Fit: fits[i % fits.Length], X: i % 4 == 0 ? 0.5 : random.Next(0, 101) / 100.0, Y: i % 4 == 0 ? 0.5 : random.Next(0, 101) / 100.0)).ToList();
            var html = new StringBuilder("<!doctype html><title>o</title><style>body{margin:0;background:#fff}img{position:absolute;background:#000}</style>");
            for (int i = 0; i < cases.Count; i++)
            {
                var c = cases[i];
                html.Append(CultureInfo.InvariantCulture,
                    $"<img style='left:{i % Columns * Cell}px;top:{i / Columns * Cell}px;width:{c.W}px;height:{c.H}px;" +
                    $"object-fit:{c.Fit.Item2};object-position:{N(c.X * 100)}% {N(c.Y * 100)}%' src=\"{Quarters(c.A, c.B)}\">");
            }
            Open(html.ToString());
            Browser.Until(() => _browser.Run<bool>("return [...document.images].every(i => i.complete && i.naturalWidth)"), "the images");
            var (seen, across, bands) = Screenshot();
            for (int i = 0; i < cases.Count; i++)
            {
                var c = cases[i];
                var inverse = Ours(c.W, c.H, c.A, c.B, c.Fit.Item1, c.X, c.Y).Inverse();
                for (int py = 1; py < c.H; py += 4)
                {
                    for (int px = 1; px < c.W; px += 4)
                    {
                        var at = inverse.Apply(new(px + 0.5, py + 0.5));
                        if (NearEdge(at.X, inverse.A) || NearEdge(at.Y, inverse.D)) continue;
                        var expected = Colour(at);
                        int pixel = bands * ((i / Columns * Cell + py) * across + i % Columns * Cell + px);
                        for (int band = 0; band < 3; band++)
                        {
                            if (Math.Abs(seen[pixel + band] - expected[band]) > 40)
                                Assert.Fail($"sheet {sheet}, case {i}: {c}, at {px}, {py}: {seen[pixel + band]} instead of {expected[band]}");
                        }
                        compared++;
                    }
                }
            }
        }
        compared.ShouldBeGreaterThan(20_000);
    }

    /// <summary>Within a pixel and a half of an edge of the image or of its quarters, where Chromium smooths.</summary>
    private static bool NearEdge(double fraction, double perPixel) =>
        new[] { 0, 0.5, 1 }.Any(edge => Math.Abs(fraction - edge) < 1.5 * Math.Abs(perPixel));

    private static double[] Colour(Vec at) => (at.X, at.Y) switch
    {
        ( < 0 or > 1, _) or (_, < 0 or > 1) => [0, 0, 0],
        ( < 0.5, < 0.5) => [255, 0, 0],
        (_, < 0.5) => [0, 255, 0],
        ( < 0.5, _) => [0, 0, 255],
        _ => [255, 255, 0],
    };

    private static string Quarters(int a, int b) => "data:image/svg+xml," + Uri.EscapeDataString(
        $"<svg xmlns='http://www.w3.org/2000/svg' width='{a}' height='{b}' viewBox='0 0 2 2' preserveAspectRatio='none' " +
            $"shape-rendering='crispEdges'><path fill='#f00' d='M0 0h1v1H0z'/><path fill='#0f0' d='M1 0h1v1H1z'/><path fill='#00f' d='M0 1h1v1H0z'/><path " +
            $"fill='#ff0' d='M1 1h1v1H1z'/></svg>");

    private void Open(string html)
    {
        using var folder = new TempFolder();
        File.WriteAllText(folder["page.html"], html);
        _browser.Driver.Navigate().GoToUrl("file://" + folder["page.html"]);
    }

    /// <summary>All pixels from the upper left, row by row, with so many bands each.</summary>
    private (byte[] Pixels, int Width, int Bands) Screenshot()
    {
        Imaging.Vips.Prepare();
        using var image = Image.PngloadBuffer(_browser.Driver.GetScreenshot().AsByteArray);
        return (image.WriteToMemory<byte>(), image.Width, image.Bands);
    }
}
