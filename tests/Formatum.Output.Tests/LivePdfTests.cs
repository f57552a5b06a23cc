using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Testing;
using UglyToad.PdfPig;

namespace Formatum.Output.Tests;

/// <summary>PDFs to be read on a screen: bookmarks, links, the order in which they are read, and what stands for pictures; read back by poppler and
/// PdfPig.</summary>
public sealed class LivePdfTests : IDisposable
{
    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private static FrameText Text(params (string Words, int Heading)[] paragraphs) => new([.. paragraphs.Select(p =>
    {
        var plain = new Paragraph(p.Words, TextStyle.Usual);
        return p.Heading == 0 ? plain : plain with { Set = plain.Set with { Heading = p.Heading } };
    })]);

    private Publication Made()
    {
        var p = Publication.Create(Workshop.A4(facing: true), 4);
        p = Workshop.Link(p, _shop.Quarters("jug.jpg", 300, 200) with { Caption = "A jug, glazed twice" }, _shop.Quarters("bowl.jpg", 200, 200));
        // Made from below upwards: read from above downwards.
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(50, 400, 200, 120), Text = Text(("Second words, at kiln@brackenfold.example.", 0)) });
        p = Workshop.Do(p, new MakeFrame
        {
            Page = 1,
            Box = new(50, 100, 200, 120),
            Text = Text(("Firing", 1),
            ("See https://brackenfold.example/firing?a=1 for more.", 0))
        });
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(50, 250, 120, 100), ImageId = Workshop.IdOf(p, "jug.jpg"), Look = new() { Opacity = 0.5 } });
        p = Workshop.Do(p, new MakeFrame { Page = 2, Box = new(50, 100, 200, 120), Text = Text(("Glazes", 1), ("Celadon", 2), ("Words of celadon", 0)) });
        p = Workshop.Do(p, new MakeFrame { Page = 3, Box = new(50, 100, 200, 100), ImageId = Workshop.IdOf(p, "bowl.jpg") });
        return Workshop.Do(p, new MakeFrame { Page = 4, Box = new(50, 100, 300, 200), Text = Text(("{contents}", 0)) });
    }

    private string Write(bool spreads)
    {
        string path = _shop.Folder[$"live-{spreads}.pdf"];
        PdfWriter.Write(Made(), new(_shop.Previews), new() { Live = true, Spreads = spreads, Bleed = false }, path);
        Tool.Run("qpdf", "--check", path).ShouldContain("No syntax or stream encoding errors");
        return path;
    }

    [Theory]
    [InlineData(false, 4, new[] { 1, 2, 2 })]
    [InlineData(true, 3, new[] { 1, 2, 2 })]
    public void Headings_are_bookmarks_on_the_sheets_they_stand_on(bool spreads, int sheets, int[] at)
    {
        using var pdf = PdfDocument.Open(Write(spreads));
        pdf.NumberOfPages.ShouldBe(sheets);
        pdf.TryGetBookmarks(out var bookmarks).ShouldBeTrue();
        var all = bookmarks.GetNodes().OfType<UglyToad.PdfPig.Outline.DocumentBookmarkNode>().ToList();
        all.Select(b => (b.Title, b.Level, b.PageNumber)).ShouldBe([("Firing", 0, at[0]), ("Glazes", 0, at[1]), ("Celadon", 1, at[2])]);
    }

    [Fact]
    public void Addresses_and_contents_lead_on_from_where_they_stand()
    {
        using var pdf = PdfDocument.Open(Write(spreads: false));
        var addresses = new[] { 1, 2, 3, 4 }.SelectMany(n => pdf.GetPage(n).GetAnnotations()).ToList();
        addresses.Select(a => a.Content).ShouldBe(["mailto:kiln@brackenfold.example", "https://brackenfold.example/firing?a=1", "Firing", "Glazes", "Celadon"]);
        // Where its letters are, says PdfPig.
        var letters = pdf.GetPage(1).Letters.Where(l => l.BoundingBox.Bottom > 600).ToList();
        string line = string.Concat(letters.Select(l => l.Value));
        int from = line.IndexOf("https", StringComparison.Ordinal);
        var rectangle = addresses[1].Rectangle;
        rectangle.Left.ShouldBe(letters[from].BoundingBox.Left, 1.5);
        rectangle.Right.ShouldBe(letters[from + "https://brackenfold.example/firing?a=1".Length - 1].BoundingBox.Right, 1.5);
        (rectangle.Bottom < letters[from].BoundingBox.Bottom, rectangle.Top > letters[from].BoundingBox.Top).ShouldBe((true, true));
        Tool.Run("pdfinfo", "-url", _shop.Folder["live-False.pdf"]).ShouldContain("https://brackenfold.example/firing?a=1");
    }

    [Fact]
    public void It_is_read_aloud_in_order_with_words_for_its_pictures()
    {
        string path = Write(spreads: true);
        Tool.Run("pdfinfo", path).ShouldMatch(@"Tagged:\s+yes");
        string read = string.Join('\n', Tool.Run("pdfinfo", "-struct-text", path).Split('\n').Select(l => l.Trim()).Where(l => l.Length > 0));
        string[] order = ["H1", "\"Firing\"", "https://brackenfold", "Figure", "Second words", "H1", "\"Glazes\"", "H2", "Words of celadon", "Figure",
            "Celadon"];
        int at = -1;
        foreach (string word in order)
        {
            int found = read.IndexOf(word, at + 1, StringComparison.Ordinal);
            found.ShouldBeGreaterThan(at, $"{word} in {read}");
            at = found;
        }
        string objects = Tool.Run("qpdf", "--json", path);
        foreach (string said in new[] { "\"/Alt\": \"u:A jug, glazed twice\"", "\"/Alt\": \"u:bowl\"", "\"/Lang\": \"u:en-GB\"" }) objects.ShouldContain(said);
    }

    /// <summary>Where a line is broken there is a blank between words, and a hyphen that only divides one is told as such (ISO 32000-1, 14.8.2.2.3).</summary>
    [Fact]
    public void Words_are_read_across_the_ends_of_lines()
    {
        string words = string.Join(' ', Enumerable.Repeat("Visitors watch the firing of extraordinary stoneware", 8));
        var set = TextStyle.Usual with { Hyphenate = true, Size = 12 };
        var frame = new MakeFrame { Page = 1, Box = new(50, 50, 190, 700), Text = new([new Paragraph(words, set)]) };
        var p = Workshop.Do(Publication.Create(Workshop.A4(), 1), frame);
        string path = _shop.Folder["words.pdf"];
        PdfWriter.Write(p, new(_shop.Previews), new() { Live = true, Bleed = false }, path);
        var lines = Core.Composing.Composer.Compose(p, Spread.At(p, 0), Typefaces.All).Items.Single().Text!.Lines;
        lines.Count(l => l.Hyphened).ShouldBeGreaterThan(0);
        lines.Count(l => !l.Hyphened).ShouldBeGreaterThan(2);
        // By mupdf, which shows the hyphens: poppler loses what stands behind words that are told otherwise than they are drawn.
        string said = Tool.Run("mutool", "draw", "-q", "-F", "txt", path).ReplaceLineEndings("").Trim('\f', ' ');
        said.Replace("-", "", StringComparison.Ordinal).ShouldBe(words);
        said.Count(c => c == '-').ShouldBe(lines.Count(l => l.Hyphened));
        Tool.Run("qpdf", "--qdf", "--object-streams=disable", path, "-").Split("/Span<</ActualText").Length.ShouldBe(1 + lines.Count(l => l.Hyphened));
    }

    /// <summary>A link stands in the tree where its words are read, with its annotation, which names its place there (14.8.4.4.2).</summary>
    [Fact]
    public void Links_are_part_of_what_is_read()
    {
        string read = string.Join('\n', Tool.Run("pdfinfo", "-struct-text", Write(spreads: true)).Split('\n').Select(l => l.TrimEnd()));
        read.ShouldContain("Link");
        int see = read.IndexOf("See ", StringComparison.Ordinal), link = read.IndexOf("Link", see, StringComparison.Ordinal);
        int address = read.IndexOf("https://brackenfold.example/firing", link, StringComparison.Ordinal), more = read.IndexOf("for more",
            StringComparison.Ordinal);
        (see < link, link < address, address < more, read.IndexOf("H1", see, StringComparison.Ordinal) > more).ShouldBe((true, true, true, true), read);
        var objects = System.Text.Json.JsonDocument.Parse(Tool.Run("qpdf", "--json=1", "--json-key=objects", _shop.Folder["live-True.pdf"])).RootElement
            .GetProperty("objects").EnumerateObject().ToDictionary(o => o.Name, o => o.Value);
        var annotations = objects.Where(o => o.Value.ValueKind == System.Text.Json.JsonValueKind.Object && o.Value.TryGetProperty("/Subtype", out var s)
            && s.GetString() == "/Link").ToList();
        annotations.Count.ShouldBe(5);
        var numbers = objects.Values.Single(o => o.ValueKind == System.Text.Json.JsonValueKind.Object && o.TryGetProperty("/ParentTree", out _))
            .GetProperty("/ParentTree").GetProperty("/Nums").EnumerateArray().ToList();
        foreach (var (name, annotation) in annotations)
        {
            int at = numbers.FindIndex(n => n.ValueKind == System.Text.Json.JsonValueKind.Number && n.GetInt32() == annotation.GetProperty("/StructParent")
                .GetInt32());
            var element = objects[numbers[at + 1].GetString()!];
            element.GetProperty("/S").GetString().ShouldBe("/Link");
            element.GetProperty("/K").EnumerateArray().Where(k => k.ValueKind == System.Text.Json.JsonValueKind.Object).Select(k => k.GetProperty("/Obj")
                .GetString())
                .ShouldBe([name]);
        }
    }

    [Fact]
    public void A_file_for_print_has_none_of_that()
    {
        string path = _shop.Folder["print.pdf"];
        PdfWriter.Write(Made(), new(_shop.Previews), new() { Press = new(Imaging.ColourProfile.GeneralPress) }, path);
        PrintFile.Faults(path).ShouldBeEmpty();
        Tool.Run("pdfinfo", path).ShouldMatch(@"Tagged:\s+no");
    }
}
