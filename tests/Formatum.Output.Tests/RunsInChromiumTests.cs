using System.Globalization;
using System.Text;
using System.Text.Json;
using Formatum.Core.Geometry;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using Formatum.Testing;

namespace Formatum.Output.Tests;

/// <summary>
/// Lines whose characters are set in several ways, held against Chromium's inline layout (CSS Inline Layout 3, CSS Text 3, CSS Fonts 4): every word at the same
/// place, every baseline at the same height.
/// </summary>
public sealed class RunsInChromiumTests : IDisposable
{
    private readonly TempFolder _folder = new();
    private readonly Browser _browser = new(1200, 900);

    public void Dispose()
    {
        _browser.Dispose();
        _folder.Dispose();
    }

    private const int Seed = 20_261_127;

    /// <summary>Chromium rounds a face's ascent to whole pixels: so much larger, that is less than an eightieth of a point.</summary>
    private const double Scale = 40;

    private static readonly string[] Words = (
        "The old price stands beside the new one in a line of its own and a reader in a hurry sees both at once while 12.50 and " +
        "1984 keep their figures and WATER or fire give the glaze its name").Split(' ');

    private static string N(double value) => value.ToString("0.####", CultureInfo.InvariantCulture);

    private static TextStyle AnyStyle(Random random, bool paragraph) => new()
    {
        Family = TextStyle.Families[random.Next(paragraph ? 2 : 4)],
        Bold = random.Next(3) == 0,
        Italic = random.Next(3) == 0,
        Size = paragraph ? 10 : random.Next(6, 22),
        Leading = random.Next(9, 26),
        Tracking = random.Next(3) == 0 ? random.Next(-20, 120) : 0,
        Case = random.Next(4) == 0 ? TextCase.Capitals : TextCase.AsTyped,
        Figures = (FigureStyle)random.Next(3),
        TabularFigures = random.Next(4) == 0,
        Ligatures = random.Next(4) != 0,
        Shift = random.Next(5) == 0 ? random.Next(-3, 4) : 0,
    };

    private static string Css(TextStyle s) => $"font-family:\"{SvgWriter.FontName(s.Family)}\";font-weight:{(s.Bold ? 700 : 400)};font-style:" +
        $"{(s.Italic ? "italic" : "normal")};font-size:{N(s.Size * Scale)}px;line-height:{N(s.LineHeight * Scale)}px;letter-spacing:" +
        $"{N(s.Tracking / 1000 * s.Size * Scale)}px;text-transform:{(s.Case == TextCase.Capitals ? "uppercase" : "none")};font-variant-numeric:" +
        $"{s.Figures switch { FigureStyle.Lining => "lining-nums", FigureStyle.OldStyle => "oldstyle-nums", _ => "" }} " +
        $"{(s.TabularFigures ? "tabular-nums" : "")}" +
        $"{(s is { Figures: FigureStyle.Usual, TabularFigures: false } ? "normal" : "")};" +
        $"font-variant-ligatures:{(s.Ligatures ? "normal" : "no-common-ligatures")}";

    private sealed record Case(double Width, StyledText Text, string Html);

    private static Case CaseOf(Random random)
    {
        double width = random.Next(120, 260);
        var own = AnyStyle(random, paragraph: true) with { Alignment = (TextAlignment)random.Next(3), Indent = random.Next(3) * 8 };
        var (text, html, runs) = (new StringBuilder(), new StringBuilder(), new List<StyledRun>());
        html.Append($"<p style='width:{N(width * Scale)}px;" +
            $"text-align:{(own.Alignment switch { TextAlignment.Centre => "center", TextAlignment.Right => "right", _ => "left" })};" +
            $"text-indent:{N(own.Indent * Scale)}px;{Css(own).Replace("\"", "&quot;", StringComparison.Ordinal)}'>");
        for (int word = 0; word < Words.Length;)
        {
            int count = random.Next(1, 6);
            string piece = string.Concat(Words.Skip(word).Take(count).Select(w => w + " "));
            var style = random.Next(2) == 0 ? own with { Shift = 0 } : AnyStyle(random, paragraph: false);
            runs.Add(new(text.Length, piece.Length, style));
            text.Append(piece);
            html.Append($"<span style='{Css(style).Replace("\"", "&quot;", StringComparison.Ordinal)}'>{piece}</span>");
            word += count;
        }
        html.Append("</p>");
        return new(width, new([new(text.ToString(), own with { Shift = 0 }, [.. runs])]), html.ToString());
    }

    private sealed record Place(string Text, double X, double Baseline);

    private List<List<Place>> InChromium(IReadOnlyList<Case> cases)
    {
        var html = new StringBuilder("<!doctype html><meta charset=utf-8><style>body{margin:0}p{margin:0;text-rendering:geometricPrecision;position:relative}");
        foreach (string family in TextStyle.Families)
        {
            foreach (var (bold, italic) in new[] { (false, false), (true, false), (false, true), (true, true) })
            {
                string face = Typefaces.FaceName(new() { Bold = bold, Italic = italic }), name = $"{family}-{face}.ttf".Replace(' ', '-');
                using (var file = Typefaces.File(family, face)!)
                using (var copy = File.Create(_folder[name])) file.CopyTo(copy);
                html.Append(SvgWriter.FontFace(family, bold, italic, name));
            }
        }
        html.Append("</style>").AppendJoin("", cases.Select(c => c.Html));
        File.WriteAllText(_folder["page.html"], html.ToString());
        _browser.Driver.Navigate().GoToUrl("file://" + _folder["page.html"]);
        Browser.Until(() => _browser.Run<bool>("return document.fonts.status === 'loaded' && [...document.fonts].every(f => f.status !== 'loading')"),
            "the fonts");
        // Where a word's box begins, its face's ascent lies above the baseline.
        string json = _browser.Run<string>("""
            const canvas = document.createElement('canvas').getContext('2d');
            return JSON.stringify([...document.querySelectorAll('p')].map(p => {
              const from = p.getBoundingClientRect(), places = [];
              for (const span of p.querySelectorAll('span')) {
                const style = getComputedStyle(span), node = span.firstChild, range = document.createRange();
                canvas.font = `${style.fontStyle} ${style.fontWeight} ${style.fontSize} ${style.fontFamily}`;
                const ascent = canvas.measureText('x').fontBoundingBoxAscent;
                for (const word of node.data.matchAll(/\S+/g)) {
                  range.setStart(node, word.index);
                  range.setEnd(node, word.index + word[0].length);
                  const box = range.getClientRects()[0];
                  places.push({ Text: word[0], X: box.left - from.left, Baseline: box.top - from.top + Math.round(ascent) });
                }
              }
              return places;
            }));
            """);
        return JsonSerializer.Deserialize<List<List<Place>>>(json)!;
    }

    private static IEnumerable<Place> WordsOf(SetText set, string text)
    {
        foreach (var line in set.Lines)
        {
            foreach (var run in line.Runs)
            {
                double x = run.X;
                foreach (var glyph in run.Glyphs)
                {
                    int at = run.Start + glyph.Cluster;
                    if (text[at] != ' ' && (at == 0 || text[at - 1] == ' '))
                        yield return new(text[at..(text.IndexOf(' ', at) is var end and >= 0 ? end : text.Length)], x, line.Baseline);
                    x += glyph.Advance;
                }
            }
        }
    }

    [Fact]
    public void Words_of_many_sizes_stand_where_Chromium_sets_them()
    {
        var random = new Random(Seed);
        var cases = Enumerable.Range(0, 80).Select(_ => CaseOf(random)).ToList();
        var theirs = InChromium(cases);
        for (int i = 0; i < cases.Count; i++)
        {
            string text = cases[i].Text.Paragraphs[0].Text, told = $"case {i}: {cases[i].Html}";
            var ours = WordsOf(TextSetter.Set(cases[i].Text, TextShape.Box(cases[i].Width, 5000), Typefaces.All), text).ToList();
            ours.Select(w => w.Text).ShouldBe(theirs[i].Select(w => w.Text), told);
            for (int k = 0; k < ours.Count; k++)
            {
                ours[k].X.ShouldBe(theirs[i][k].X / Scale, 0.1, $"{ours[k].Text}, {told}");
                // From line to line, what Chromium rounds would add up.
                double Down(List<Place> places) => places[k].Baseline - (k == 0 ? 0 : places[k - 1].Baseline);
                Down(ours).ShouldBe(Down(theirs[i]) / Scale, 0.1, $"{ours[k].Text}, {told}");
            }
        }
    }

    private static readonly string[] Mixed = ("\u05e9\u05dc\u05d5\u05dd \u05db\u05d1\u05e9\u05df \u05d7\u05d3\u05e9 kiln fire (glaze) 12.50 1984 100% - " +
        "\u0645\u0631\u062d\u0628\u0627 \u0641\u0631\u0646 \u0643\u0628\u064a\u0631 (\u05d0\u05e9) \u05de\u05d9\u05dd, clay: \u05d7\u05d5\u05de\u05e8 3/4")
        .Split(' ');

    /// <summary>Right-to-left words among others (UAX #9): in the order in which Chromium puts them, whichever way the paragraph runs (CSS Writing Modes 4,
    /// unicode-bidi: plaintext). Each blank between may be that of another face there: so much farther on a word may stand.</summary>
    [Fact]
    public void Words_from_right_to_left_stand_in_the_order_in_which_Chromium_puts_them()
    {
        var random = new Random(Seed);
        var style = new TextStyle { Family = "Cabin", Size = 10, Leading = 20 };
        string families = string.Join(',', FallbackFonts.ChainOf("Cabin").Prepend("Cabin").Select(f => $"\"{SvgWriter.FontName(f)}\""))
            .Replace("\"", "&quot;", StringComparison.Ordinal);
        var cases = Enumerable.Range(0, 60).Select(_ =>
        {
            const double width = 900;
            string text = string.Join(' ', Enumerable.Range(0, random.Next(4, 24)).Select(_ => Mixed[random.Next(Mixed.Length)]));
            string html = $"<p style='width:{N(width * Scale)}px;unicode-bidi:plaintext;text-align:left;" +
                $"font-size:{N(10 * Scale)}px;line-height:{N(20 * Scale)}px;" +
                $"font-family:{families}'><span>{text}</span></p>";
            return new Case(width, FallbackFonts.Applied(StyledText.Of(new([new(text, style)])), Typefaces.All), html);
        }).ToList();
        var theirs = InChromium(cases);
        int right = 0;
        for (int i = 0; i < cases.Count; i++)
        {
            string text = cases[i].Text.Paragraphs[0].Text;
            var set = TextSetter.Set(cases[i].Text, cases[i].Width, 10_000, Typefaces.All);
            set.Missing.ShouldBe(0, text);
            right += set.Lines.SelectMany(l => l.Runs).Count(r => r.RightToLeft);
            var ours = LeftEdges(set, text);
            ours.Select(w => w.Text).ShouldBe(theirs[i].Select(w => w.Text), $"case {i}: {text}");
            int[] Order(List<Place> words) => [.. Enumerable.Range(0, words.Count).OrderBy(k => words[k].X)];
            Order(ours).ShouldBe(Order(theirs[i]), $"case {i}: {text}");
            for (int k = 0; k < ours.Count; k++) ours[k].X.ShouldBe(theirs[i][k].X / Scale, 0.6 * ours.Count, $"case {i}, {ours[k].Text}, in {text}");
        }
        right.ShouldBeGreaterThan(200);
    }

    /// <summary>Words in the order they are written, each with where its leftmost glyph stands.</summary>
    private static List<Place> LeftEdges(SetText set, string text)
    {
        var glyphs = new List<(int At, double X, double Baseline)>();
        foreach (var line in set.Lines)
        {
            foreach (var run in line.Runs)
            {
                double x = run.X;
                foreach (var glyph in run.Glyphs)
                {
                    glyphs.Add((run.Start + glyph.Cluster, x, line.Baseline));
                    x += glyph.Advance;
                }
            }
        }
        return [.. glyphs.Where(g => text[g.At] != ' ').GroupBy(g => text.AsSpan(0, g.At).Count(' ')).OrderBy(g => g.Key)
            .Select(g => new Place(text.Split(' ')[g.Key], g.Min(x => x.X), g.First().Baseline))];
    }
}
