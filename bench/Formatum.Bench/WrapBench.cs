using System.Collections.Immutable;
using System.Diagnostics;
using System.Globalization;
using Formatum.Core.Geometry;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using Formatum.Output;
using Formatum.Testing;

namespace Formatum.Bench;

/// <summary>A round picture moved through a page of text in two columns, a point or two at a time: how long the text takes to be set about it; beside it,
/// Chromium laying out the same text about a float of the same shape.</summary>
internal static class WrapBench
{
    private const int Steps = 150;
    private const double Width = 470, Height = 700, Gutter = 16, Across = 150;

    public static void Run(string folder)
    {
        string[] paragraphs = [.. WordsBench.Paragraphs(640)];
        var text = StyledText.Of(new([.. paragraphs.Select(p => new Paragraph(p, new TextStyle { Family = "Spectral", Size = 10.5, Leading = 14 }))]));
        var circle = Outline.Ellipse.Flatten(Across, Across);
        TextShape Around(int step) => new(new() { Columns = 2, Gutter = Gutter }, Width, Height, Outline.Rectangle,
            [new([.. circle.Select(p => p + new Vec(100 + step % 90, 40 + 2 * step))], Inset.Even(8), WrapSides.Both, false)]);
        for (int warm = 0; warm < 40; warm++) TextSetter.Set(text, [Around(warm)], Typefaces.All, 1);
        Directory.CreateDirectory(folder);
        Say("ours", [.. Enumerable.Range(0, Steps).Select(step =>
        {
            var watch = Stopwatch.StartNew();
            TextSetter.Set(text, [Around(step)], Typefaces.All, 1);
            return watch.Elapsed.TotalMilliseconds;
        })]);
        Say("Chromium", InChromium(folder, paragraphs));
    }

    private static void Say(string who, ImmutableArray<double> times)
    {
        double[] sorted = [.. times.Order()];
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
            $"{who}: half within {sorted[sorted.Length / 2]:0.0} ms, 95 of 100 within {sorted[sorted.Length * 95 / 100]:0.0} ms"));
    }

    private static ImmutableArray<double> InChromium(string folder, string[] paragraphs)
    {
        using (var file = Typefaces.File("Spectral", "regular")!)
        using (var copy = File.Create(Path.Combine(folder, "face.ttf"))) file.CopyTo(copy);
        File.WriteAllText(Path.Combine(folder, "wrap.html"), "<!doctype html><meta charset=utf-8><style>@font-face{font-family:Face;src:url(face.ttf)}" +
            string.Create(CultureInfo.InvariantCulture, $"#text{{width:{Width}px;height:{Height}px;columns:2;column-gap:{Gutter}px;column-fill:auto;") +
            "font:10.5px/14px Face;text-rendering:geometricPrecision}p{margin:0}#picture{float:right;width:150px;height:150px;shape-outside:circle();" +
            "shape-margin:8px}</style><p style='font-family:Face'>a</p><div id=text><div id=picture></div></div>");
        using var browser = new Browser();
        browser.Driver.Navigate().GoToUrl("file://" + Path.Combine(folder, "wrap.html"));
        Browser.Until(() => browser.Run<bool>("return document.fonts.status === 'loaded'"), "the font");
        return [.. browser.Run<IReadOnlyCollection<object>>("""
            const [paragraphs, steps] = arguments, text = document.getElementById('text'), picture = document.getElementById('picture'), times = [];
            text.append(...paragraphs.map(p => Object.assign(document.createElement('p'), { textContent: p })));
            for (let step = -40; step < steps; step++) {
              Object.assign(picture.style, { marginTop: `${40 + 2 * step}px`, marginRight: `${(step + 90) % 90}px` });
              const from = performance.now();
              text.scrollWidth;
              if (step >= 0) times.push(performance.now() - from);
            }
            return times;
            """, paragraphs, Steps).Select(t => Convert.ToDouble(t, CultureInfo.InvariantCulture))];
    }
}
