using System.Globalization;
using System.Text.Json;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using Formatum.Testing;

namespace Formatum.Output.Tests;

/// <summary>Set text held against programs that share nothing with the one that set it: another build of HarfBuzz, and poppler.</summary>
public sealed class TextTests : IDisposable
{
    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private const string Sample = "Efficient AVATAR flows: \u201cTo fit\u201d, 12.50 \u2013 W\u00f6lfe & Caf\u00e9";

    public static TheoryData<string, bool, bool> Faces()
    {
        var data = new TheoryData<string, bool, bool>();
        foreach (string family in TextStyle.Families)
            foreach (bool bold in new[] { false, true })
                foreach (bool italic in new[] { false, true }) data.Add(family, bold, italic);
        return data;
    }

    /// <summary>Lines take their glyphs from the whole paragraph's where HarfBuzz says that they may: they are those of the line shaped alone.</summary>
    [Theory]
    [MemberData(nameof(Faces))]
    public void Every_line_shows_the_glyphs_of_its_words_alone(string family, bool bold, bool italic)
    {
        var random = new Random(11);
        string[] words = [.. Sample.Split(' '), "office", "ffl", "To.", "VA", "Te\u0301l\u00e9", "1/2", "fi", "AV\u2014A", "f\u2019"];
        var style = new TextStyle { Family = family, Bold = bold, Italic = italic, Size = 11, Leading = 14 };
        foreach (var set in new[] { style, style with { Tracking = 40 }, style with { Case = TextCase.Capitals, Hyphenate = true } })
        {
            string text = string.Join(' ', Enumerable.Range(0, 120).Select(_ => words[random.Next(words.Length)]));
            foreach (double width in new[] { 60.0, 97, 151 })
            {
                var lines = TextSetter.Set(StyledText.Of(new([new Paragraph(text, set)])), width, 20_000, Typefaces.All).Lines;
                lines.Length.ShouldBeGreaterThan(10);
                foreach (var run in lines.SelectMany(l => l.Runs))
                    Placed(run.Glyphs).ShouldBe(Placed(Typefaces.All.Shape(run.Text, run.Style)), run.Text);
            }
        }
    }

    private static IEnumerable<(ushort, int, double, double, double)> Placed(IEnumerable<Glyph> glyphs) =>
        glyphs.Select(g => (g.Id, g.Cluster, Math.Round(g.Advance, 9), Math.Round(g.OffsetX, 9), Math.Round(g.OffsetY, 9)));

    /// <summary>Debian's hb-shape, in the face's own units.</summary>
    [Theory]
    [MemberData(nameof(Faces))]
    public void Glyphs_and_advances_are_those_of_hb_shape(string family, bool bold, bool italic)
    {
        var style = new TextStyle { Family = family, Bold = bold, Italic = italic, Size = 1000 };
        string path = _shop.Folder["face.ttf"];
        using (var file = Typefaces.File(family, Typefaces.FaceName(style))!)
        using (var copy = File.Create(path)) file.CopyTo(copy);
        using var json = JsonDocument.Parse(Tool.Run("hb-shape", "--output-format=json", "--no-glyph-names", "--font-size=1000", path, Sample));
        var theirs = json.RootElement.EnumerateArray().Select(g => (g.GetProperty("g").GetInt32(), g.GetProperty("ax").GetInt32())).ToList();
        var ours = Typefaces.All.Shape(Sample, style);
        ours.Length.ShouldBe(theirs.Count);
        for (int i = 0; i < ours.Length; i++)
        {
            ((int)ours[i].Id).ShouldBe(theirs[i].Item1);
            // hb-shape rounds to whole units of the size asked for.
            ours[i].Advance.ShouldBe(theirs[i].Item2, 1.01);
        }
        ours.Sum(g => g.Advance).ShouldBe(theirs.Sum(g => g.Item2), ours.Length);
    }

    private static readonly string[] Typed =
    [
        "Shape follows fire", "Glazes from the autumn kiln, each fired twice: \u201cefficient\u201d flames & offset flues, 12.50 \u2013 W\u00f6lfe <b>.", "",
            "Last line, with a name-that-is-hyphenated.",
    ];

    private static Publication WithText(TextStyle style, double width = 180, params string[] more)
    {
        var p = Publication.Create(Workshop.A4(), 1);
        var paragraphs = Typed.Concat(more).Select(t => new Paragraph(t, style));
        return Workshop.Do(p, new MakeFrame { Page = 1, Box = new(50, 60, width, 400), Text = new([.. paragraphs]) });
    }

    [Theory]
    [MemberData(nameof(Faces))]
    public void The_PDF_gives_back_the_lines_that_were_set(string family, bool bold, bool italic)
    {
        var p = WithText(new() { Family = family, Bold = bold, Italic = italic, Size = 14, Alignment = bold ? TextAlignment.Justified : TextAlignment.Left });
        string path = _shop.Folder["text.pdf"];
        PdfWriter.Write(p, new(_shop.Previews), new(), path);
        var frame = p.Frames.Values.Single();
        var set = TextSetter.Set(StyledText.Of(p.StoryOf(frame)!.Text), 180, 400, Typefaces.All);
        string[] read = [.. Tool.Run("pdftotext", "-raw", path, "-").Split('\n', '\f').Select(l => l.TrimEnd()).Where(l => l.Length > 0)];
        read.ShouldBe(set.Lines.Select(l => l.Text).Where(t => t.Length > 0).ToArray());
        string.Concat(read).Replace(" ", "", StringComparison.Ordinal).ShouldBe(string.Concat(Typed).Replace(" ", "", StringComparison.Ordinal));
        Tool.Run("pdffonts", path).ShouldContain(" yes yes yes ");
    }

    /// <summary>Each word stands in the PDF where it was set, as poppler measures it.</summary>
    [Fact]
    public void Words_stand_where_they_were_set()
    {
        var p = WithText(new() { Size = 12, Alignment = TextAlignment.Justified });
        string path = _shop.Folder["words.pdf"];
        PdfWriter.Write(p, new(_shop.Previews), new(Bleed: false), path);
        var set = TextSetter.Set(StyledText.Of(p.Stories.Values.Single().Text), 180, 400, Typefaces.All);
        var words = System.Text.RegularExpressions.Regex.Matches(Tool.Run("pdftotext", "-bbox", path, "-"),
            "<word xMin=\"([\\d.]+)\" yMin=\"([\\d.]+)\" xMax=\"([\\d.]+)\"[^>]*>([^<]*)</word>")
            .Select(m => (X: double.Parse(m.Groups[1].Value, CultureInfo.InvariantCulture),
                Right: double.Parse(m.Groups[3].Value, CultureInfo.InvariantCulture), Text: m.Groups[4].Value)).ToList();
        var line = set.Lines.First(l => l.Text.StartsWith("Glazes", StringComparison.Ordinal));
        words.First(w => w.Text == "Glazes").X.ShouldBe(50, 0.02);
        string last = line.Text.Split(' ')[^1];
        words.First(w => w.Text == last).Right.ShouldBe(50 + 180, 0.05);
    }

    [Fact]
    public void Screen_PNG_and_PDF_show_the_same_text()
    {
        // The face has none of the last three kinds of character: all print as its box, and so must the screen show them.
        var p = WithText(new() { Family = "Spectral", Size = 22 }, 420, "Jug \u6f22\u5b57 and \u0e2b bowl \ud83c\udffa.");
        Core.Composing.Composer.Compose(p, Spread.At(p, 0), Typefaces.All).Items[0].Text!.Missing.ShouldBe(4);
        LooksTheSame(p);
    }

    [Fact]
    public void Runs_tabs_and_strokes_look_the_same_too()
    {
        var p = Publication.Create(Workshop.A4(), 1);
        p = Workshop.Do(p, new DefineStyle
        {
            Name = "Old price",
            Kind = StyleKind.Character,
            Settings = new()
            {
                StrikeThrough = true,
                Colour = Colour.Of("#000000")
            }
        });
        var price = new TextStyle { Size = 18, Leading = 30, Tabs = new([new(300, TabAlignment.Decimal, " ."), new(400, TabAlignment.Right)]), LineBelow = 2 };
        FrameText text = new([
            new Paragraph("", price).Of([new("Jug, tenmoku\t"), new("38.00", p.Styles.Keys.Single()), new("\t32.00") { Set = new() { Bold = true } }]),
            new("Choose by the foot, not by the rim.", price with { List = ListKind.Number, Indent = -30, IndentLeft = 30, Underline = true }),
            new Paragraph("", price with { InitialLines = 2 }).Of([new("H"), new("2") { Set = new() { Position = TextPosition.Subscript } }, new("O and "),
                new("efficient capitals") { Set = new() { Case = TextCase.Capitals, Tracking = 80 } }, new(" 1984 1/2 and more words for a second line")
                { Set = new() { Figures = FigureStyle.Lining, TabularFigures = true, Fractions = true, Size = 26 } }]),
        ]);
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(50, 60, 420, 400), Text = text });
        LooksTheSame(p);
        // What was typed can be copied from the PDF; the marks of lists and leaders come with it.
        string read = Tool.Run("pdftotext", "-layout", _shop.Folder["t.pdf"], "-");
        foreach (string words in new[] { "Jug, tenmoku", "38.00", "32.00", "1.", "Choose by the foot" }) read.ShouldContain(words);
    }

    /// <summary>Draws a page in all three ways, and compares what is dark in each.</summary>
    private void LooksTheSame(Publication p)
    {
        var spread = Spread.At(p, 0);
        var scene = Core.Composing.Composer.Compose(p, spread, Typefaces.All);
        using var stream = new MemoryStream();
        PngWriter.Page(scene, spread.Pages[0], 96, stream);
        using var png = NetVips.Image.PngloadBuffer(stream.ToArray()).ExtractBand(0, n: 3);
        PdfWriter.Write(p, new(_shop.Previews), new(Bleed: false), _shop.Folder["t.pdf"]);
        Tool.Run("pdftoppm", "-r", "96", "-png", _shop.Folder["t.pdf"], _shop.Folder["t"]);
        using var pdf = NetVips.Image.Pngload(_shop.Folder["t-1.png"]);
        File.WriteAllText(_shop.Folder["t.html"], $"<!doctype html><meta " +
            $"charset=utf-8><style>body{{margin:0}}svg{{display:block}}</style>{SvgWriter.Page(scene, spread.Pages[0], "T", _ => "")}");
        using var browser = new Browser(900, 1300);
        browser.Driver.Navigate().GoToUrl("file://" + _shop.Folder["t.html"]);
        Browser.Until(() => browser.Run<string>("return document.fonts.status") == "loaded", "the fonts");
        using var screen = NetVips.Image.PngloadBuffer(browser.Driver.GetScreenshot().AsByteArray).ExtractBand(0, n: 3);
        foreach (var other in new[] { pdf, screen })
        {
            // Strokes are smoothed differently by each program: what is dark in one lies within a pixel of some ink in the other.
            foreach (var (one, two) in new[] { (png, other), (other, png) })
            {
                using var dark = Ink(one, 130);
                using var near = Ink(two, 230).Rank(3, 3, 8);
                dark.Avg().ShouldBeGreaterThan(1);
                (dark & near.Invert()).Avg().ShouldBeLessThan(0.02 * dark.Avg());
            }
        }
    }

    private static NetVips.Image Ink(NetVips.Image picture, double lighterThan) => picture.Crop(0, 0, 792, 1120).Bandmean() < lighterThan;
}
