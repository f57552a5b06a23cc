using System.Globalization;
using System.Text;
using System.Text.Json;
using Formatum.Core.Geometry;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using Formatum.Testing;

namespace Formatum.Output.Tests;

/// <summary>
/// Where lines begin and end beside shapes and in columns, held against Chromium: floats with shape-outside and shape-margin (CSS Shapes 1) and multi-column
/// layout (CSS Multi-column 1). A CSS pixel stands for a point.
/// </summary>
public sealed class TextFlowTests : IDisposable
{
    private readonly TempFolder _folder = new();
    private readonly Browser _browser = new(1400, 900);

    public void Dispose()
    {
        _browser.Dispose();
        _folder.Dispose();
    }

    private const int Seed = 20_261_126;

    private static readonly TextStyle Body = new() { Family = "Cabin", Size = 10, Leading = 13 };

    private const string Words = "Every kiln has its own weather and the people who fire it learn to read the colour of the flame before they trust any cone "
        + "so a shelf near the door comes out quiet while the one beneath the flue takes ash and turns to honey or to iron red when the wind is in the east ";

    private static string N(double value) => value.ToString("0.####", CultureInfo.InvariantCulture);

    /// <summary>A line as a browser set it: where it begins, where its box begins, and what it says.</summary>
    private sealed record TheirLine(double X, double Y, string Text);

    /// <summary>Sets each text in Chromium; the lines of each, a word at a time put together where they stand at one height and follow each other.</summary>
    private List<List<TheirLine>> InChromium(IEnumerable<string> blocks)
    {
        string font = _folder["face.ttf"];
        using (var file = Typefaces.File("Cabin", Typefaces.FaceName(Body))!)
        using (var copy = File.Create(font)) file.CopyTo(copy);
        var html = new StringBuilder("<!doctype html><meta charset=utf-8><style>@font-face{font-family:Face;src:url(face.ttf)}body{margin:0}" +
            "div.block{position:relative;margin-bottom:40px;text-rendering:geometricPrecision;font:10px/13px Face;orphans:1;widows:1}" +
            "p{margin:0}</style>");
        foreach (string block in blocks) html.Append(block);
        File.WriteAllText(_folder["page.html"], html.ToString());
        _browser.Driver.Navigate().GoToUrl("file://" + _folder["page.html"]);
        Browser.Until(() => _browser.Run<bool>("return document.fonts.status === 'loaded' && document.fonts.size === 1"), "the font");
        string json = _browser.Run<string>("""
            return JSON.stringify([...document.querySelectorAll('div.block')].map(block => {
              const from = block.getBoundingClientRect(), lines = [];
              for (const p of block.querySelectorAll('p')) {
                const node = p.firstChild, text = node.data, range = document.createRange();
                for (const word of text.matchAll(/\S+/g)) {
                  range.setStart(node, word.index);
                  range.setEnd(node, word.index + word[0].length);
                  const box = range.getClientRects()[0], x = box.left - from.left, y = box.top - from.top, last = lines.at(-1);
                  if (last && Math.abs(last.Y - y) < 1 && x > last.X && Math.abs(x - last.end) < 4) {
                    last.Text += ' ' + word[0];
                    last.end = box.right - from.left;
                  }
                  else lines.push({ X: x, Y: y, Text: word[0], end: box.right - from.left });
                }
              }
              return lines;
            }));
            """);
        return JsonSerializer.Deserialize<List<List<TheirLine>>>(json)!;
    }

    private sealed record ShapeCase(double Width, string Html, TextShape Shape);

    [Fact]
    public void Lines_keep_clear_of_shapes_as_Chromium_keeps_them()
    {
        var random = new Random(Seed);
        var cases = Enumerable.Range(0, 200).Select(i => CaseOf(random, i)).ToList();
        var theirs = InChromium(cases.Select(c => c.Html));
        int lines = 0;
        for (int i = 0; i < cases.Count; i++)
        {
            var ours = TextSetter.Set(StyledText.Of(new([new(Words.Trim(), Body)])), cases[i].Shape, Typefaces.All).Lines;
            string told = $"case {i}: {cases[i].Html}";
            ours.Select(l => l.Text).ShouldBe(theirs[i].Select(l => l.Text), told);
            for (int k = 0; k < ours.Length; k++)
            {
                // Chromium keeps places in 64ths of a pixel, and its shapes' as it lays out.
                ours[k].X.ShouldBe(theirs[i][k].X, 0.1, told);
                (ours[k].Bottom - 13).ShouldBe(theirs[i][k].Y - theirs[i][0].Y + (ours[0].Bottom - 13), 0.1, told);
            }
            lines += ours.Length;
        }
        lines.ShouldBeGreaterThan(900);
    }

    /// <summary>One shape at the left or the right, or one at each side, from a fixed seed.</summary>
    private static ShapeCase CaseOf(Random random, int number)
    {
        double width = random.Next(260, 420);
        var obstacles = new List<Obstacle>();
        var html = new StringBuilder($"<div class=block style='width:{N(width)}px'>");
        foreach (bool left in number % 3 == 2 ? [true, false] : new[] { number % 3 == 0 })
        {
            double margin = random.Next(3) == 0 ? 0 : random.Next(1, 12), w = random.Next(60, 110), h = random.Next(50, 150);
            var (css, shape) = Shape(random, w, h, margin);
            html.Append($"<div style='float:{(left ? "left" : "right")};width:{N(w)}px;height:{N(h)}px;shape-outside:{css};shape-margin:{N(margin)}px'></div>");
            double across = left ? 0 : width - w;
            obstacles.Add(new([.. shape.Select(p => p + new Vec(across, 0))], Inset.Even(margin), left ? WrapSides.End : WrapSides.Start, false));
        }
        html.Append($"<p>{Words.Trim()}</p><div style='clear:both'></div></div>");
        return new(width, html.ToString(), new(TextArea.Whole, width, 2000, Outline.Rectangle, [.. obstacles]));
    }

    /// <summary>A polygon, an ellipse or a box well within the float's own box, which would cut its margin off.</summary>
    private static (string Css, IEnumerable<Vec> Shape) Shape(Random random, double width, double height, double margin)
    {
        double Within(double length) => margin + random.NextDouble() * (length - 2 * margin);
        switch (random.Next(3))
        {
            case 0:
                var corners = Enumerable.Range(0, random.Next(3, 8)).Select(_ => new Vec(Math.Round(Within(width), 2), Math.Round(Within(height), 2)))
                    .OrderBy(p => Math.Atan2(p.Y - height / 2, p.X - width / 2)).ToArray();
                return ($"polygon({string.Join(", ", corners.Select(p => $"{N(p.X)}px {N(p.Y)}px"))})", corners);
            case 1:
                double Radius(double side) => Math.Round((0.3 + 0.7 * random.NextDouble()) * (side / 2 - margin), 2);
                // With a margin Chromium lengthens the radii, which is the same for circles alone.
                double rx = Radius(Math.Min(width, height)), ry = margin > 0 ? rx : Radius(height);
                return ($"ellipse({N(rx)}px {N(ry)}px at {N(width / 2)}px {N(height / 2)}px)",
                    // Finer than outlines are flattened: a word may fit by less than that.
                    Enumerable.Range(0, 720).Select(i => new Vec(width / 2 + rx * Math.Cos(Math.Tau * i / 720),
                        height / 2 + ry * Math.Sin(Math.Tau * i / 720))));
            default:
                double left = margin + random.Next(15), top = margin + random.Next(15), right = margin + random.Next(15), bottom = margin + random.Next(15);
                return ($"inset({N(top)}px {N(right)}px {N(bottom)}px {N(left)}px)",
                    [new(left, top), new(width - right, top), new(width - right, height - bottom), new(left, height - bottom)]);
        }
    }

    [Fact]
    public void Columns_take_the_lines_that_Chromium_gives_them()
    {
        var random = new Random(Seed);
        var cases = Enumerable.Range(0, 60).Select(_ => (Count: random.Next(1, 5), Width: (double)random.Next(260, 520), Gutter: (double)random.Next(0, 30),
            Height: 13.0 * random.Next(4, 14) + random.Next(0, 12), Space: (double)random.Next(0, 3) * 4, Paragraphs: random.Next(1, 5))).ToList();
        var texts = cases.Select(c => Enumerable.Range(0, c.Paragraphs).Select(i => string.Join(' ', Words.Trim().Split(' ').Skip(7 * i).Take(25 + 9 * i)))
            .ToList())
            .ToList();
        var theirs = InChromium(cases.Select((c, i) => $"<div class=block style='width:{N(c.Width)}px;height:{N(c.Height)}px;column-count:{c.Count};" +
            $"column-gap:{N(c.Gutter)}px;column-fill:auto'>{string.Concat(texts[i].Select(t => $"<p style='margin-bottom:{N(c.Space)}px'>{t}</p>"))}</div>"));
        for (int i = 0; i < cases.Count; i++)
        {
            var c = cases[i];
            var shape = new TextShape(new() { Columns = c.Count, Gutter = c.Gutter }, c.Width, c.Height, Outline.Rectangle, []);
            var set = TextSetter.Set(StyledText.Of(new([.. texts[i].Select(t => new Paragraph(t, Body with { SpaceAfter = c.Space }))])), shape,
                Typefaces.All);
            string told = $"case {i}: {c}";
            // What has no column goes on beyond them in Chromium, and is left over here.
            set.Lines.Select(l => l.Text).ShouldBe(theirs[i].Take(set.Lines.Length).Select(l => l.Text), told);
            if (set.LeftOut == 0) set.Lines.Length.ShouldBe(theirs[i].Count, told);
            for (int k = 0; k < set.Lines.Length; k++)
            {
                set.Lines[k].X.ShouldBe(theirs[i][k].X, 0.1, told);
                (set.Lines[k].Bottom - set.Lines[0].Bottom).ShouldBe(theirs[i][k].Y - theirs[i][0].Y, 0.1, told);
            }
        }
    }

    /// <summary>Chromium balances columns that have room to spare by CSS Multi-column 1, 7.1 (column-fill: balance): as short as they can be.</summary>
    [Fact]
    public void Balanced_columns_take_the_lines_that_Chromium_gives_them()
    {
        var random = new Random(Seed);
        var cases = Enumerable.Range(0, 40).Select(_ => (Count: random.Next(2, 5), Width: (double)random.Next(260, 520), Gutter: (double)random.Next(0, 30),
            Space: (double)random.Next(0, 3) * 4, Paragraphs: random.Next(1, 5))).ToList();
        var texts = cases.Select(c => Enumerable.Range(0, c.Paragraphs).Select(i => string.Join(' ', Words.Trim().Split(' ').Skip(7 * i).Take(20 + 9 * i)))
            .ToList()).ToList();
        var theirs = InChromium(cases.Select((c, i) => $"<div class=block style='width:{N(c.Width)}px;column-count:{c.Count};" +
            $"column-gap:{N(c.Gutter)}px;column-fill:balance'>" +
            $"{string.Concat(texts[i].Select(t => $"<p style='margin-bottom:{N(c.Space)}px'>{t}</p>"))}</div>"));
        int apart = 0;
        for (int i = 0; i < cases.Count; i++)
        {
            var c = cases[i];
            var shape = new TextShape(new() { Columns = c.Count, Gutter = c.Gutter, Balanced = true }, c.Width, 2000, Outline.Rectangle, []);
            var set = TextSetter.Set(StyledText.Of(new([.. texts[i].Select(t => new Paragraph(t, Body with { SpaceAfter = c.Space }))])), shape,
                Typefaces.All);
            // Chromium counts in 64ths of a pixel: a word that fits to within those may stand on either line.
            if (!set.Lines.Select(l => l.Text).SequenceEqual(theirs[i].Select(l => l.Text))) apart++;
            else for (int k = 0; k < set.Lines.Length; k++) set.Lines[k].X.ShouldBe(theirs[i][k].X, 0.1, $"case {i}, line {k}: {c}");
        }
        apart.ShouldBeLessThanOrEqualTo(2);
    }
}
