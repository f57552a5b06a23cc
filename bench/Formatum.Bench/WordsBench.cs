using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Geometry;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using Formatum.Output;
using Formatum.Testing;

namespace Formatum.Bench;

/// <summary>How long a long text takes to be set through the frames of 100 pages; beside it, Chromium laying out the same text in columns of the same
/// size.</summary>
internal static class WordsBench
{
    private const int Runs = 9, Pages = 100, Columns = 2;
    private const double Width = 470, Height = 700, Gutter = 16;

    public static void Run(string folder)
    {
        var style = new TextStyle { Family = "Spectral", Size = 10.5, Leading = 14 };
        string[] paragraphs = [.. Enumerable.Range(0, 1100).Select(Paragraph)];
        Directory.CreateDirectory(folder);
        double theirs = InChromium(folder, paragraphs);
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
            $"{paragraphs.Sum(p => p.Count(c => c == ' ') + 1)} words; Chromium, ragged, not divided: {theirs:0} ms"));
        foreach (var (name, set) in new[] { ("ragged", style), ("justified together", style with { Alignment = TextAlignment.Justified }),
            ("justified together, divided", style with { Alignment = TextAlignment.Justified, Hyphenate = true }) })
        {
            var shape = new TextShape(new() { Columns = Columns, Gutter = Gutter }, Width, Height, Outline.Rectangle, []);
            ImmutableArray<TextShape> chain = [.. Enumerable.Repeat(shape, Pages + 20)];
            var text = StyledText.Of(new([.. paragraphs.Select(p => new Core.Stories.Paragraph(p, set))]));
            int pages = 0, key = 0;
            // A text of its own each time: nothing that was worked out before serves again.
            double ours = Measured.Median(() => pages = TextSetter.Set(text, chain, Typefaces.All, ++key).Count(f => f.Lines.Length > 0));
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
                $"{name}: {pages} pages in {ours:0} ms, {ours / pages:0.00} ms a page; ratio {ours / theirs:0.00}"));
        }
    }

    /// <summary>Paragraphs of so many words together, or a few more.</summary>
    public static IEnumerable<string> Paragraphs(int words)
    {
        for (int number = 0; words > 0; number++)
        {
            string paragraph = Paragraph(number);
            words -= paragraph.Count(c => c == ' ') + 1;
            yield return paragraph;
        }
    }

    internal static string Paragraph(int number)
    {
        string[] words = ("every kiln has its own weather and the people who fire it learn to read the colour of the flame before they trust any cone so " +
            "a shelf near the door comes " +
            "out quiet while the one beneath the flue takes ash and turns to honey or to iron red when the wind is in the east").Split(' ');
        return string.Join(' ', Enumerable.Range(0, 60 + number * 7 % 60).Select(i => words[(number * 13 + i * 5) % words.Length]));
    }

    private static double InChromium(string folder, string[] paragraphs)
    {
        using (var file = Typefaces.File("Spectral", "regular")!)
        using (var copy = File.Create(Path.Combine(folder, "face.ttf"))) file.CopyTo(copy);
        File.WriteAllText(Path.Combine(folder, "words.html"), "<!doctype html><meta charset=utf-8><style>@font-face{font-family:Face;src:url(face.ttf)}" +
            string.Create(CultureInfo.InvariantCulture, $"#text{{width:{Width}px;height:{Height}px;columns:{Columns};column-gap:{Gutter}px;column-fill:auto;") +
            "font:10.5px/14px Face;text-rendering:geometricPrecision}p{margin:0}</style><p style='font-family:Face'>a</p><div id=text></div>");
        using var browser = new Browser();
        browser.Driver.Navigate().GoToUrl("file://" + Path.Combine(folder, "words.html"));
        Browser.Until(() => browser.Run<bool>("return document.fonts.status === 'loaded'"), "the font");
        return Convert.ToDouble(browser.Run<object>("""
            const [paragraphs, runs] = arguments, text = document.getElementById('text'), times = [];
            for (let run = 0; run < runs; run++) {
              text.replaceChildren(...paragraphs.map(p => Object.assign(document.createElement('p'), { textContent: p })));
              const from = performance.now();
              text.scrollWidth;
              times.push(performance.now() - from);
            }
            return times.sort((a, b) => a - b)[Math.floor(runs / 2)];
            """, paragraphs, Runs), CultureInfo.InvariantCulture);
    }
}
