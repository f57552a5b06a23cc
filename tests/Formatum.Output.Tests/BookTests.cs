using System.IO.Compression;
using System.Xml.Linq;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Imaging;
using Formatum.Output.Books;
using Formatum.Testing;

namespace Formatum.Output.Tests;

/// <summary>Books for reading programs, held to EPUB 3.2 by the checker of the W3C, and read back.</summary>
public sealed class BookTests : IDisposable
{
    private static readonly DateTimeOffset Time = new(2026, 11, 3, 9, 30, 0, TimeSpan.Zero);
    private static readonly XNamespace Package = "http://www.idpf.org/2007/opf", Html = "http://www.w3.org/1999/xhtml", Svg = "http://www.w3.org/2000/svg";

    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private static FrameText Text(params (string Words, int Heading)[] paragraphs) => new([.. paragraphs.Select(p =>
    {
        var plain = new Paragraph(p.Words, TextStyle.Usual);
        return p.Heading == 0 ? plain : plain with { Set = plain.Set with { Heading = p.Heading } };
    })]);

    /// <summary>Facing pages with JPEGs upright and turned, a PNG with transparency, a drawing, a treatment, looks of every kind, headings and links.</summary>
    private Publication Made(bool bindsRight = false)
    {
        var p = Publication.Create(Workshop.A4(facing: true) with { BindsRight = bindsRight, Edition = "Autumn <2>" }, 4);
        string drawing = _shop.Folder["mark.svg"];
        File.WriteAllText(drawing, "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"40\" height=\"40\"><circle cx=\"20\" cy=\"20\" r=\"18\" " +
            "fill=\"#2f6f4f\"/></svg>");
        p = Workshop.Link(p, _shop.Quarters("jug & bowl.jpg", 1200, 800) with { Caption = "A jug, \"glazed\" <twice>" }, _shop.Quarters("turned.jpg", 300, 200,
            150, 6),
            _shop.Quarters("bowl.png", 200, 200), _shop.Quarters("plate.tif", 300, 200), _shop.Reader.Read(drawing, "mark.svg"));
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(50, 400, 200, 120), Text = Text(("Second words, at kiln@brackenfold.example.", 0)) });
        p = Workshop.Do(p, new MakeFrame
        {
            Page = 1,
            Box = new(50, 100, 200, 120),
            Text = Text(("Firing", 1),
            ("See https://brackenfold.example/firing?a=1&b=2", 0))
        });
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(300, 100, 200, 150), ImageId = Workshop.IdOf(p, "jug & bowl.jpg"), Look = Looks.Everything });
        p = Workshop.Do(p, new MakeFrame { Page = 2, Box = new(50, 100, 300, 200), Text = Text(("{contents}", 0)) });
        p = Workshop.Do(p, new MakeFrame { Page = 2, Box = new(50, 400, 100, 100), ImageId = Workshop.IdOf(p, "turned.jpg") });
        p = Workshop.Do(p, new MakeFrame
        {
            Page = 3,
            Box = new(50, 100, 200, 120),
            Text = Text(("Glazes", 1), ("Celadon", 2),
            ("fi ffi \u05e9\u05dc\u05d5\u05dd", 0))
        });
        foreach (var (name, i) in new[] { "bowl.png", "plate.tif", "mark.svg", "jug & bowl.jpg" }.Select((n, i) => (n, i)))
            p = Workshop.Do(p, new MakeFrame
            {
                Page = 4,
                Box = new(50 + 120 * i, 300, 100, 100),
                ImageId = Workshop.IdOf(p, name),
                Outline = i == 1 ? Outline.Ellipse : Outline.Rectangle
            });
        return p;
    }

    private static class Looks
    {
        public static readonly Look Everything = new()
        {
            Shadow = new(3, 3, 4, Colour.Black, 0.5),
            Border = new(2, Colour.Black) { Kind = BorderKind.Dashed },
            Opacity = 0.9,
            Blend = Blend.Multiply,
            SoftEdge = 5,
            Treatment = new() { Brightness = 0.1, Blur = 1 },
        };
    }

    private string Write(Publication publication, BookOptions? options = null, string name = "book.epub")
    {
        string path = _shop.Folder[name];
        BookWriter.Write(publication, new(_shop.Previews), options ?? new([.. Enumerable.Range(1, publication.PageCount)], Time), path);
        return path;
    }

    // Compiled once and simply, on one thread: it runs for a few seconds.
    private static string Checked(string path) => Tool.Run("java", "-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC", "-jar",
        "/usr/share/java/epubcheck.jar", "--failonwarnings", path);

    private static XElement Xml(string path, string entry)
    {
        using var zip = ZipFile.OpenRead(path);
        using var content = (zip.GetEntry(entry)
            ?? throw new ShouldAssertException($"There is no {entry} in {string.Join(", ", zip.Entries.Select(e => e.FullName))}."))
            .Open();
        return XElement.Load(content);
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void A_book_holds_to_the_standard(bool bindsRight)
    {
        string said = Checked(Write(Made(bindsRight)));
        said.ShouldContain("No errors or warnings detected");
    }

    [Fact]
    public void A_checker_that_is_given_a_spoiled_book_says_so()
    {
        string path = Write(Made());
        using (var zip = ZipFile.Open(path, ZipArchiveMode.Update)) zip.Entries.First(e => e.FullName.EndsWith(".jpg", StringComparison.Ordinal)).Delete();
        Should.Throw<InvalidOperationException>(() => Checked(path));
    }

    [Fact]
    public void Pages_stand_on_their_sides_and_lead_on()
    {
        string path = Write(Made());
        var package = Xml(path, "EPUB/package.opf");
        package.Descendants(Package + "itemref").Select(i => (string?)i.Attribute("properties"))
            .ShouldBe(["page-spread-right", "page-spread-left", "page-spread-right", "page-spread-left"]);
        package.Descendants(Package + "meta").Where(m => (string?)m.Attribute("property") is "rendition:layout" or "rendition:spread").Select(m => m.Value)
            .ShouldBe(["pre-paginated", "landscape"]);
        Xml(Write(Made(bindsRight: true), name: "right.epub"), "EPUB/package.opf").Element(Package + "spine")!.Attribute("page-progression-direction")!.Value
            .ShouldBe("rtl");

        var contents = Xml(path, "EPUB/contents.xhtml");
        contents.Descendants(Html + "nav").First().Descendants(Html + "a").Select(a => (a.Value, (string?)a.Attribute("href")))
            .ShouldBe([("Firing", "pages/0001.xhtml"), ("Glazes", "pages/0003.xhtml"), ("Celadon", "pages/0003.xhtml")]);
        Xml(path, "EPUB/pages/0002.xhtml").Descendants(Svg + "a").Select(a => (string?)a.Attribute("href"))
            .ShouldBe(["0001.xhtml", "0003.xhtml", "0003.xhtml"]);
        Xml(path, "EPUB/pages/0001.xhtml").Descendants(Svg + "a").Select(a => (string?)a.Attribute("href"))
            .ShouldBe(["mailto:kiln@brackenfold.example", "https://brackenfold.example/firing?a=1&b=2"]);
    }

    [Fact]
    public void Pages_are_as_large_as_they_are_and_say_what_is_on_them_in_reading_order()
    {
        var page = Xml(Write(Made()), "EPUB/pages/0001.xhtml");
        page.Descendants(Html + "meta").Single().Attribute("content")!.Value.ShouldBe("width=794, height=1123");
        var svg = page.Descendants(Svg + "svg").Single();
        svg.Attribute("aria-owns")!.Value.Split(' ').Select(id => svg.Descendants().Single(e => (string?)e.Attribute("id") == id))
            .Select(e => (string?)e.Attribute("aria-label") ?? string.Concat(e.Descendants(Svg + "tspan").Select(t => t.Value))[..6])
            .ShouldBe(["Firing", "A jug, \"glazed\" <twice>", "Second"]);
    }

    [Fact]
    public void Pictures_go_in_once_as_they_are_or_reduced()
    {
        var publication = Made();
        string asTheyAre = Write(publication), reduced = Write(publication, new([1, 2, 3, 4], Time) { MostPpi = 72, Quality = 80 }, "reduced.epub");
        int jug = Workshop.IdOf(publication, "jug & bowl.jpg"), turned = Workshop.IdOf(publication, "turned.jpg");
        using (var zip = ZipFile.OpenRead(asTheyAre))
        {
            zip.Entries[0].FullName.ShouldBe("mimetype");
            zip.Entries.Count(e => e.FullName.StartsWith("EPUB/pictures/", StringComparison.Ordinal)).ShouldBe(5);
            zip.GetEntry($"EPUB/pictures/{jug}.jpg")!.Length.ShouldBe(publication.Images[jug].Bytes);
        }
        Size(asTheyAre, turned).ShouldBe((300, 200));
        // Shown 225 pt wide at the largest, cut to 200 by its frame: 72 ppi are as many pixels as points.
        Size(reduced, jug).ShouldBe((225, 150));
    }

    private (int Width, int Height) Size(string path, int image)
    {
        using var zip = ZipFile.OpenRead(path);
        string to = _shop.Folder[$"{Guid.NewGuid()}.jpg"];
        zip.GetEntry($"EPUB/pictures/{image}.jpg")!.ExtractToFile(to);
        using var read = SkiaSharp.SKBitmap.Decode(to);
        return (read.Width, read.Height);
    }

    [Fact]
    public void The_same_publication_gives_the_same_book()
    {
        var publication = Made();
        File.ReadAllBytes(Write(publication, name: "one.epub")).ShouldBe(File.ReadAllBytes(Write(publication, name: "two.epub")));
    }

    [Fact]
    public void A_missing_picture_is_named_or_shown_by_its_preview()
    {
        var publication = Made();
        File.Delete(publication.Images[Workshop.IdOf(publication, "turned.jpg")].Path);
        Should.Throw<BadPicture>(() => Write(publication)).Message.ShouldContain("turned.jpg");
        Checked(Write(publication, new([1, 2], Time) { Proof = true })).ShouldContain("No errors or warnings detected");
    }
}
