using System.Security.Cryptography;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Testing;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Core;

namespace Formatum.Output.Tests;

/// <summary>PDFs read back by programs that share nothing with the one that wrote them.</summary>
public sealed class PdfTests : IDisposable
{
    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private string Write(Publication publication, PdfOptions options)
    {
        string path = _shop.Folder[$"{Guid.NewGuid():n}.pdf"];
        PdfWriter.Write(publication, new(_shop.Previews), options, path);
        return path;
    }

    private static void ShouldBe(PdfRectangle box, double left, double bottom, double width, double height)
    {
        box.Left.ShouldBe(left, 0.001);
        box.Bottom.ShouldBe(bottom, 0.001);
        box.Width.ShouldBe(width, 0.001);
        box.Height.ShouldBe(height, 0.001);
    }

    /// <summary>A4 is 210 x 297 mm (ISO 216), 595.276 x 841.890 pt.</summary>
    [Theory]
    [InlineData(false, false)]
    [InlineData(false, true)]
    [InlineData(true, true)]
    [InlineData(true, false)]
    public void The_boxes_are_exact_and_nested(bool marks, bool bleed)
    {
        var publication = Publication.Create(Workshop.A4(facing: true), 3);
        string path = Write(publication, new(bleed) { Marks = marks ? PrintMarks.CropMarks : PrintMarks.None });
        Tool.Run("qpdf", "--check", path).ShouldContain("No syntax or stream encoding errors");
        double trimmed = bleed ? Units.Millimetres(3) : 0, border = marks ? Math.Max(trimmed, Units.Millimetres(2)) + Units.Millimetres(5) : trimmed;
        using (var pdf = PdfDocument.Open(path))
        {
            pdf.NumberOfPages.ShouldBe(3);
            foreach (var page in pdf.GetPages())
            {
                ShouldBe(page.GetBox("TrimBox"), border, border, 595.27559, 841.88976);
                ShouldBe(page.GetBox("BleedBox"), border - trimmed, border - trimmed, 595.27559 + 2 * trimmed, 841.88976 + 2 * trimmed);
                ShouldBe(page.MediaBox.Bounds, 0, 0, 595.27559 + 2 * border, 841.88976 + 2 * border);
            }
            pdf.Information.Title.ShouldBe("Proof (1) \\ \u201cquoted\u201d");
        }
        string poppler = string.Join(' ', Tool.Run("pdfinfo", "-box", path).Split(' ', StringSplitOptions.RemoveEmptyEntries));
        poppler.ShouldContain(string.Create(System.Globalization.CultureInfo.InvariantCulture,
            $"TrimBox: {border:0.00} {border:0.00} {border + 595.27559:0.00} {border + 841.88976:0.00}"));
    }

    [Theory]
    [InlineData(15, 14_400)]
    [InlineData(611.3, 333.333)]
    public void Odd_sizes_are_exact_too(double width, double height)
    {
        string path = Write(Publication.Create(Workshop.A4() with { PageWidth = width, PageHeight = height, Bleed = 0 }, 1), new());
        using var pdf = PdfDocument.Open(path);
        ShouldBe(pdf.GetPage(1).MediaBox.Bounds, 0, 0, width, height);
    }

    /// <summary>A publication bound on the right opens the other way; its pages still come in the order they are read.</summary>
    [Fact]
    public void Pages_come_in_reading_order_whichever_side_is_bound()
    {
        foreach (bool right in new[] { false, true })
        {
            var p = Publication.Create(Workshop.A4(facing: true) with { BindsRight = right }, 6);
            for (int page = 1; page <= 6; page++)
                p = Workshop.Do(p, new MakeFrame { Page = page, Box = new(50, 50, 200, 60), Text = new([new($"Leaf {page}", Core.Stories.TextStyle.Usual)]) });
            string path = Write(p, new());
            for (int page = 1; page <= 6; page++)
                Tool.Run("pdftotext", "-f", $"{page}", "-l", $"{page}", path, "-").ShouldContain($"Leaf {page}", customMessage: $"bound right: {right}");
        }
    }

    /// <summary>Each showing of a drawing that has to be pixels has what its size asks for: its smallest does not decide for its largest.</summary>
    [Fact]
    public void A_drawing_is_as_sharp_where_it_is_large_as_where_it_is_small()
    {
        File.WriteAllText(_shop.Folder["d.svg"], """
            <svg xmlns="http://www.w3.org/2000/svg" width="100" height="50"><path d="M0 0h100v50z" fill="#204060"/><text x="9" y="20">Pixels</text></svg>
            """);
        var p = Workshop.Link(Publication.Create(Workshop.A4(), 1), _shop.Reader.Read(_shop.Folder["d.svg"], "d.svg"));
        foreach (double width in new[] { 24.0, 480 })
            p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(40, width, width, width / 2), ImageId = Workshop.IdOf(p, "d.svg") });
        var rows = Tool.Run("pdfimages", "-list", Write(p, new())).Split('\n').Skip(2).Where(l => l.Length > 0)
            .Select(l => l.Split(' ', StringSplitOptions.RemoveEmptyEntries)).Where(c => c[2] == "image").ToList();
        // The column x-ppi. At least 300 for both, as for any picture that is to print well: common practice, no source.
        rows.Count.ShouldBe(2);
        rows.ShouldAllBe(c => int.Parse(c[12], System.Globalization.CultureInfo.InvariantCulture) >= 299);
    }

    [Fact]
    public void A_shadow_on_a_very_large_page_is_there_and_bounded()
    {
        double side = Units.Millimetres(4800);
        var look = new Look { Background = Colour.Of("#ffffff"), Shadow = new(400, 400, 300, Colour.Of("#000000"), 1) };
        var p = Publication.Create(Workshop.A4() with { PageWidth = side, PageHeight = side }, 1);
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(600, 600, side - 2400, side - 2400), Look = look });
        string path = Write(p, new(Bleed: false));
        new FileInfo(path).Length.ShouldBeLessThan(30 << 20);
        Tool.Run("pdftoppm", "-r", "4", "-png", "-singlefile", path, _shop.Folder["large"]);
        using var page = NetVips.Image.Pngload(_shop.Folder["large.png"]);
        // Just outside the frame's lower right corner the shadow is at its darkest, far from it the paper is white.
        double At(double points) => page.Getpoint((int)(points / 72 * 4), (int)(points / 72 * 4))[0];
        At(side - 1800 + 100).ShouldBeLessThan(140);
        At(200).ShouldBe(255);
    }

    [Fact]
    public void JPEGs_pass_through_byte_for_byte_in_colour_and_grey_in_every_orientation_and_beneath_a_look()
    {
        var p = Publication.Create(Workshop.A4(), 1);
        var originals = new List<LinkedImage>();
        for (int o = 1; o <= 8; o++) originals.Add(_shop.Quarters($"o{o}.jpg", 401, 300, 150, o));
        using (var grey = TestPictures.Quarters(300, 300).Colourspace(NetVips.Enums.Interpretation.Bw))
            originals.Add(_shop.Reader.Read(TestPictures.Save(grey, _shop.Folder["grey.jpg"]), "grey.jpg"));
        originals.Add(_shop.Reader.Read(TestPictures.Photographs.First(f => f.EndsWith("Storm.jpg", StringComparison.Ordinal)), "photo.jpg"));
        p = Workshop.Link(p, [.. originals]);
        var veiled = new Look { Opacity = 0.5, Background = Colour.Of("#dfe5d8"), Border = new(2, Colour.Of("#000000")) };
        foreach (var image in originals)
            p = Workshop.Do(p, new MakeFrame
            {
                Page = 1,
                Box = new(50, 50, 200, 200),
                ImageId = Workshop.IdOf(p, image.Name),
                Look = image.Orientation % 2 == 0
                ? veiled : Look.Plain
            });

        string path = Write(p, new());
        Directory.CreateDirectory(_shop.Folder["out"]);
        Tool.Run("pdfimages", "-all", path, _shop.Folder["out/i"]);
        var extracted = Directory.GetFiles(_shop.Folder["out"]).Order().ToList();
        extracted.Count.ShouldBe(originals.Count);
        for (int i = 0; i < extracted.Count; i++)
        {
            var expected = File.ReadAllBytes(originals[i].Path);
            SHA256.HashData(File.ReadAllBytes(extracted[i])).ShouldBe(SHA256.HashData(expected), originals[i].Name);
        }
    }

    [Fact]
    public void An_image_shown_many_times_is_written_once()
    {
        var p = Workshop.Link(Publication.Create(Workshop.A4(), 3), _shop.Quarters("a.jpg", 800, 600));
        for (int i = 0; i < 12; i++)
            p = Workshop.Do(p, new MakeFrame { Page = 1 + i % 3, Box = new(40, 20 + 50 * i, 60, 40), ImageId = Workshop.IdOf(p, "a.jpg") });
        string path = Write(p, new());
        // Poppler lists every showing of an image; the object's number tells which.
        Tool.Run("pdfimages", "-list", path).Split('\n').Skip(2).Where(l => l.Length > 0).Select(l => l.Split(' ', StringSplitOptions.RemoveEmptyEntries)[10])
            .Distinct().Count().ShouldBe(1);
    }

    [Fact]
    public void Clearing_the_orientation_changes_one_byte_pair_only()
    {
        _shop.Quarters("o7.jpg", 100, 80, 150, 7);
        var before = File.ReadAllBytes(_shop.Folder["o7.jpg"]);
        var after = before.ToArray();
        JpegOrientation.Clear(after);
        before.Zip(after).Count(p => p.First != p.Second).ShouldBe(1);
        File.WriteAllBytes(_shop.Folder["cleared.jpg"], after);
        _shop.Reader.Read(_shop.Folder["cleared.jpg"], "cleared.jpg").Orientation.ShouldBe(1);
        Should.NotThrow(() => JpegOrientation.Clear([0xFF, 0xD8, 0xFF, 0xE1, 0xFF, 0xFF, 1]));
    }

    [Theory]
    [InlineData("gone.jpg")]
    [InlineData("gone.svg")]
    public void A_missing_file_is_named_and_a_proof_shows_its_preview(string name)
    {
        bool isDrawing = name.EndsWith(".svg", StringComparison.Ordinal);
        if (isDrawing)
            File.WriteAllText(_shop.Folder[name], "<svg xmlns='http://www.w3.org/2000/svg'><rect width='200' height='90' fill='#848'/></svg>");
        var image = isDrawing ? _shop.Reader.Read(_shop.Folder[name], name) : _shop.Quarters(name, 400, 300);
        var p = Workshop.Link(Publication.Create(Workshop.A4(), 1), image);
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(0, 0, 200, 150), ImageId = Workshop.IdOf(p, name) });
        File.Delete(_shop.Folder[name]);
        Should.Throw<BadPicture>(() => Write(p, new())).Message.ShouldContain(name);
        Tool.Run("pdfimages", "-list", Write(p, new(Proof: true))).ShouldContain("jpeg");
    }

    /// <summary>The first page is written, and then the second page's picture is gone.</summary>
    [Theory]
    [InlineData("b.jpg", false)]
    [InlineData("b.jpg", true)]
    [InlineData("b.png", true)]
    public void A_picture_that_goes_half_way_is_named(string name, bool print)
    {
        var p = Workshop.Link(Publication.Create(Workshop.A4(), 2), _shop.Quarters("a.jpg", 200, 200), _shop.Quarters(name, 300, 300));
        foreach (var (page, file) in new[] { (1, "a.jpg"), (2, name) })
            p = Workshop.Do(p, new MakeFrame { Page = page, Box = new(40, 40, 200, 200), ImageId = Workshop.IdOf(p, file) });
        var options = new PdfOptions { Press = print ? new(ColourProfile.GeneralPress) : null };
        Should.Throw<BadPicture>(() => PdfWriter.Write(p, new(_shop.Previews), options, _shop.Folder["half.pdf"],
            done => { if (done == 1) File.Delete(_shop.Folder[name]); })).Message.ShouldContain(name);
    }

    [Fact]
    public void Crop_marks_stand_at_the_trim_and_outside_the_bleed()
    {
        string path = Write(Publication.Create(Workshop.A4(), 1), new() { Marks = PrintMarks.CropMarks });
        using var pdf = PdfDocument.Open(path);
        var page = pdf.GetPage(1);
        var (trim, bleed) = (page.GetBox("TrimBox"), page.GetBox("BleedBox"));
        var lines = page.Paths.Where(s => s.IsStroked).Select(s => s.GetBoundingRectangle()).OfType<PdfRectangle>().ToList();
        lines.Count.ShouldBe(8);
        foreach (var line in lines)
        {
            bool upright = line.Width < line.Height;
            double at = upright ? (line.Left + line.Right) / 2 : (line.Bottom + line.Top) / 2;
            Math.Min(Math.Abs(at - (upright ? trim.Left : trim.Bottom)), Math.Abs(at - (upright ? trim.Right : trim.Top))).ShouldBeLessThan(0.01);
            bool outside = upright ? line.Top <= bleed.Bottom + 0.01 || line.Bottom >= bleed.Top - 0.01 : line.Right <= bleed.Left + 0.01
                || line.Left >= bleed.Right - 0.01;
            outside.ShouldBeTrue();
        }
    }

    [Fact]
    public void Pages_that_are_not_there_are_refused() =>
        Should.Throw<EditRefused>(() => PdfWriter.Write(Publication.Create(Workshop.A4(), 2), new(_shop.Previews), new() { Pages = [2, 3] },
            _shop.Folder["x.pdf"])).Errors[0].Field.ShouldBe("pages");
}

internal static class PdfPageBoxes
{
    private static double Number(UglyToad.PdfPig.Tokens.IToken token) => ((UglyToad.PdfPig.Tokens.NumericToken)token).Data;

    /// <summary>A page box as its dictionary gives it.</summary>
    public static PdfRectangle GetBox(this UglyToad.PdfPig.Content.Page page, string name)
    {
        page.Dictionary.TryGet(UglyToad.PdfPig.Tokens.NameToken.Create(name), out UglyToad.PdfPig.Tokens.ArrayToken array).ShouldBeTrue();
        return new(Number(array[0]), Number(array[1]), Number(array[2]), Number(array[3]));
    }
}
