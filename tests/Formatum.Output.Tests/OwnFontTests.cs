using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Output.Bundles;
using Formatum.Output.Fonts;
using Formatum.Testing;
using NetVips;

namespace Formatum.Output.Tests;

/// <summary>Text set in fonts that a publication brought itself.</summary>
public sealed class OwnFontTests : IDisposable
{
    private readonly Workshop _shop = new();
    private readonly FontStore _fonts;
    private readonly IDisposable _looked;

    public OwnFontTests()
    {
        _fonts = new(_shop.Folder["fonts"]);
        _looked = Typefaces.All.LookIn(_fonts);
    }

    public void Dispose()
    {
        _looked.Dispose();
        _shop.Dispose();
    }

    private Publication With(params string[] names)
    {
        var p = Publication.Create(Workshop.A4(), 1);
        foreach (string name in names)
        {
            var read = FontReader.Read(File.ReadAllBytes(FontReaderTests.PathOf(name)), name);
            foreach (var face in read) _fonts.Keep(face.Font, face.File);
            p = Workshop.Do(p, new AddFonts([.. read.Select(r => r.Font)]));
        }
        return p;
    }

    private static Publication Typed(Publication p, string family, string words = "Efficient AVATAR flows, 12.50", bool bold = false) =>
        Workshop.Do(p, new MakeFrame
        {
            Page = 1,
            Box = new(50, 60, 420, 200),
            Text = new([new Paragraph(words, new TextStyle { Family = family, Size = 30,
            Bold = bold })])
        });

    private string Pdf(Publication p)
    {
        PdfWriter.Write(p, new(_shop.Previews), new(Bleed: false), _shop.Folder["own.pdf"]);
        return _shop.Folder["own.pdf"];
    }

    /// <summary>The page in the three ways it is drawn, as pixels.</summary>
    private (Image Screen, Image Png, Image Pdf) Drawn(Publication p)
    {
        var spread = Spread.At(p, 0);
        var scene = Core.Composing.Composer.Compose(p, spread, Typefaces.All);
        using var stream = new MemoryStream();
        PngWriter.Page(scene, spread.Pages[0], 96, stream);
        string drawn = Guid.NewGuid().ToString("n");
        // Large, and made small: poppler smooths text otherwise than shapes.
        Tool.Run("pdftoppm", "-r", "384", "-png", Pdf(p), _shop.Folder[drawn]);
        File.WriteAllText(_shop.Folder["t.html"], $"<!doctype html><meta charset=utf-8><style>body{{margin:0}}svg{{display:block}}</style>" +
            SvgWriter.Page(scene, spread.Pages[0], "T", _ => ""));
        using var browser = new Browser(900, 1300);
        browser.Driver.Navigate().GoToUrl("file://" + _shop.Folder["t.html"]);
        return (Image.PngloadBuffer(browser.Driver.GetScreenshot().AsByteArray).ExtractBand(0, n: 3), Image.PngloadBuffer(stream.ToArray()).ExtractBand(0,
            n: 3),
            Image.Pngload(_shop.Folder[$"{drawn}-1.png"]).Shrink(4, 4).CopyMemory());
    }

    private static double Apart(Image a, Image b) => (a.Crop(0, 0, 790, 400) - b.Crop(0, 0, 790, 400)).Abs().Bandmean().Avg();

    [Theory]
    [InlineData("bearings.woff2", "Squeezed", true)]
    [InlineData("restricted.ttf", "Type restricted", false)]
    [InlineData("whole.ttf", "Type whole", true)]
    public void Screen_PNG_and_PDF_show_the_face_that_was_brought(string file, string family, bool embeds)
    {
        var shipped = Drawn(Typed(Publication.Create(Workshop.A4(), 1), "Spectral"));
        var p = Typed(With(file), family);
        var own = Drawn(p);
        // The same outlines under another name.
        Apart(own.Screen, shipped.Screen).ShouldBeLessThan(0.3);
        Apart(own.Png, shipped.Png).ShouldBeLessThan(0.3);
        Apart(own.Pdf, shipped.Pdf).ShouldBeLessThan(0.5);
        var other = Drawn(Typed(p, "Cabin"));
        foreach (var (a, b) in new[] { (other.Screen, shipped.Screen), (other.Png, shipped.Png), (other.Pdf, shipped.Pdf) })
            Apart(a, b).ShouldBeGreaterThan(1.5);
        string fonts = Tool.Run("pdffonts", Pdf(p)), read = Tool.Run("pdftotext", Pdf(p), "-");
        if (embeds)
        {
            fonts.ShouldContain(" yes ");
            read.ShouldContain("Efficient AVATAR flows, 12.50");
        }
        else
        {
            // As shapes, without the font.
            fonts.Split('\n', StringSplitOptions.RemoveEmptyEntries).Length.ShouldBe(2);
            read.ShouldNotContain("AVATAR");
            SvgWriter.Page(Core.Composing.Composer.Compose(p, Spread.At(p, 0), Typefaces.All), Spread.At(p, 0).Pages[0], "T", _ => "")
                .ShouldNotContain("@font-face");
        }
    }

    [Fact]
    public void The_bold_face_of_a_varying_font_is_set_where_text_is_bold()
    {
        var p = With("varying.ttf");
        double Width(bool bold) => Typefaces.All.ReachOf(Style(p, bold)).Ascent is > 0 ? Typefaces.All.Shape("AB", Style(p, bold)).Sum(g => g.Advance) : 0;
        // 600 and 700 units, each 120 wider at 900 than at 300: 20 more at 400, 80 more at 700, by arithmetic.
        Width(false).ShouldBe(134, 0.1);
        Width(true).ShouldBe(146, 0.1);
    }

    private static TextStyle Style(Publication p, bool bold) => new() { Family = "Varying", Files = p.FilesOf("Varying"), Bold = bold, Size = 100 };

    [Fact]
    public void Characters_it_lacks_are_set_in_the_families_that_stand_in()
    {
        var p = Typed(With("cubic.otf"), "Cubic", "AB Mug \u05d0");
        var runs = Core.Composing.Composer.Compose(p, Spread.At(p, 0), Typefaces.All).Items[0].Text!.Lines.SelectMany(l => l.Runs).ToList();
        runs.SelectMany(r => r.Glyphs).ShouldAllBe(g => g.Id != 0);
        runs.Select(r => r.Style.Family).Distinct().ShouldBe(["Cubic", "Noto Sans", "Noto Sans Hebrew"], ignoreOrder: true);
    }

    [Fact]
    public void Text_whose_font_file_has_gone_is_set_in_the_first_family()
    {
        var p = Typed(With("plain.woff"), "Squeezed");
        var style = TextCascade.StyleOf(p, p.Stories.Values.Single().Text.Paragraphs[0]) with { Files = new("0", "0", "0", "0") };
        Typefaces.All.IsOwn(style).ShouldBeFalse();
        Typefaces.All.Shape("Jug", style).ShouldBe(Typefaces.All.Shape("Jug", new() { Size = style.Size }));
    }

    [Fact]
    public async Task Bundles_carry_fonts_that_may_go_along_and_name_those_that_may_not()
    {
        var p = Typed(With("bearings.woff2", "restricted.ttf"), "Squeezed");
        string path = _shop.Folder["b.zip"];
        await using (var file = File.Create(path)) await BundleWriter.WriteAsync(p, _shop.Previews, _fonts, DateTimeOffset.UnixEpoch, file);
        using var bundle = BundleReader.Open(path, new());
        var (squeezed, restricted) = (p.Fonts.Values.Single(f => f.Family == "Squeezed"), p.Fonts.Values.Single(f => f.Family != "Squeezed"));
        bundle.Publication.Fonts.Values.OrderBy(f => f.Id).ShouldBe(p.Fonts.Values.OrderBy(f => f.Id));
        (bundle.HasFileOf(squeezed.Id), bundle.HasFileOf(restricted.Id)).ShouldBe((true, false));
        bundle.UnpackFile(squeezed.Id, _shop.Folder["f"]);
        FontReader.Read(File.ReadAllBytes(_shop.Folder["f"]), "f").Single().Font.ContentHash.ShouldBe(squeezed.ContentHash);
        string report = Tool.Run("unzip", "-p", path, "report.txt");
        report.ShouldContain("The publication's own fonts: 1");
        report.ShouldContain("Type restricted regular: restricted.ttf");
    }
}
