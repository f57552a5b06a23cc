using System.Globalization;
using System.Text.RegularExpressions;
using System.Xml.Linq;
using Formatum.Core.Comparing;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Documents;
using Formatum.Imaging;
using Formatum.Testing;

namespace Formatum.Output.Tests;

/// <summary>What is read of PDFs is what other readers find in them.</summary>
public sealed class PdfPagesTests : IDisposable
{
    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private const string Words = "Earthenware photographs come up from the university by the river, wet and grey, and are left to lie throughout the "
        + "winter. In spring something weatherproof is manufactured, and whatever remains is kneaded until it is even.";

    private static readonly TextStyle Narrow = TextStyle.Usual with { Size = 11, Hyphenate = true, Alignment = TextAlignment.Justified };

    /// <summary>A narrow column of words, some parted at ends of lines, and a picture that lies turned in its file (ISO 32000-2, 8.9.5).</summary>
    private string Written(PdfOptions? options = null)
    {
        var p = Workshop.Link(Publication.Create(Workshop.A4(), 1), _shop.Quarters("q.png", 300, 300));
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(300, 400, 200, 100), ImageId = Workshop.IdOf(p, "q.png"), Angle = 20 });
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(60, 60, 130, 600), Text = new([new(string.Join(' ', Enumerable.Repeat(Words, 4)), Narrow)]) });
        PdfWriter.Write(p, new(_shop.Previews), options ?? new(false), _shop.Folder["w.pdf"]);
        return _shop.Folder["w.pdf"];
    }

    private static IReadOnlyList<(string Text, double X, double Right)> ByPoppler(string path)
    {
        var page = XDocument.Parse(Regex.Replace(Tool.Run("pdftotext", "-bbox", path, "-"), "<!DOCTYPE[^>]*>", "")).Descendants()
            .Where(e => e.Name.LocalName == "word");
        double Number(XElement word, string name) => double.Parse(word.Attribute(name)!.Value, CultureInfo.InvariantCulture);
        return [.. page.Select(w => (w.Value, Number(w, "xMin"), Number(w, "xMax")))];
    }

    [Fact]
    public void Words_are_those_that_poppler_finds_and_stand_where_it_finds_them()
    {
        string path = Written();
        var ours = PdfPages.Read(path).ShouldHaveSingleItem().Contents.Words;
        var theirs = ByPoppler(path);
        ours.Select(w => w.Text).ShouldBe(string.Join(' ', Enumerable.Repeat(Words, 4)).Split(' '));
        ours.Length.ShouldBeGreaterThan(100);
        // None reaches over two lines, which stand 13.2 points apart: a parted word is known by its first part.
        ours.Max(w => w.Box.Height).ShouldBeLessThan(13.2);
        theirs.ShouldContain(t => t.Text.EndsWith('-'));
        // Of what is parted it gives both parts.
        int near = ours.Count(w => theirs.Any(t => w.Text.StartsWith(t.Text.TrimEnd('-'), StringComparison.Ordinal)
            && Math.Abs(t.X - w.Box.X) < 1.5 && Math.Abs(t.Right - w.Box.Right) < 1.5));
        near.ShouldBeGreaterThan(ours.Length * 9 / 10);
    }

    /// <summary>A page that viewers turn and crop shows the same at the same places (7.7.3.3, 14.11.2).</summary>
    [Theory]
    [InlineData(0)]
    [InlineData(90)]
    [InlineData(180)]
    [InlineData(270)]
    public void Trim_and_turn_are_taken_as_viewers_show_them(int turn)
    {
        string path = Written(new(true) { Marks = PrintMarks.CropMarks with { Information = true } }), turned = _shop.Folder["t.pdf"];
        Tool.Run("qpdf", path, $"--rotate=+{turn}", turned);
        var page = PdfPages.Read(turned)[0];
        var (width, height) = turn % 180 == 0 ? (210, 297) : (297, 210);
        page.Trim.Width.ShouldBe(Units.Millimetres(width), 0.01);
        page.Trim.Height.ShouldBe(Units.Millimetres(height), 0.01);
        var first = page.Contents.Words[0].Box;
        // The first word begins where its frame does: at its upper left, wherever that is shown.
        var corner = turn switch
        {
            0 => first.UpperLeft,
            90 => new Vec(first.Right, first.Y),
            180 => new Vec(first.Right, first.Bottom),
            _ => new Vec(first.X, first.Bottom),
        };
        var expected = turn switch
        {
            0 => new Vec(60, 60),
            90 => new Vec(page.Trim.Width - 60, 60),
            180 => new Vec(page.Trim.Width - 60, page.Trim.Height - 60),
            _ => new Vec(60, page.Trim.Height - 60),
        };
        (corner - expected).Length.ShouldBeLessThan(6, $"{corner} and {expected}");
        // The marks beside the trim are no part of the page.
        page.Contents.Drawn.ShouldBeEmpty();
        page.Contents.Words.Length.ShouldBe(PdfPages.Read(Written(new(false)))[0].Contents.Words.Length);
        page.Contents.Pictures.ShouldHaveSingleItem().Greys.Length.ShouldBe(64);
    }

    /// <summary>The same picture as light and as inks, fine and coarse, lossless and as JPEG, is known again; another is not.</summary>
    [Fact]
    public void Pictures_are_known_again_however_they_are_kept()
    {
        FileComparison Between(PdfOptions before, PdfOptions after, int other = 1)
        {
            Publication With(int photograph)
            {
                var image = _shop.Reader.Read(TestPictures.Photographs[^photograph], "p.jpg");
                var p = Workshop.Link(Publication.Create(Workshop.A4(), 1), image);
                return Workshop.Do(p, new MakeFrame { Page = 1, Box = new(60, 60, 300, 180), ImageId = p.Images.Keys.Single() });
            }
            PdfWriter.Write(With(1), new(_shop.Previews), before, _shop.Folder["a.pdf"]);
            PdfWriter.Write(With(other), new(_shop.Previews), after, _shop.Folder["b.pdf"]);
            return FileComparison.Of([.. PdfPages.Read(_shop.Folder["a.pdf"]).Select(p => p.Contents)],
                [.. PdfPages.Read(_shop.Folder["b.pdf"]).Select(p => p.Contents)], LengthUnit.Millimetre);
        }
        PdfOptions light = new(), inks = new() { Press = new(ColourProfile.GeneralPress), Convert = true, MostPpi = 150 };
        PdfOptions coarse = new() { MostPpi = 72, Recompress = true, Quality = 60 };
        Between(light, light).Differences.ShouldBeEmpty();
        Between(light, inks).Differences.ShouldBeEmpty();
        Between(inks, coarse).Differences.ShouldBeEmpty();
        Between(light, light, 2).Differences.ShouldHaveSingleItem().Kind.ShouldBe(DifferenceKind.Picture);
    }

    [Fact]
    public void What_cannot_be_read_is_told_in_words()
    {
        string path = Written(), locked = _shop.Folder["l.pdf"], none = _shop.Folder["n.pdf"], cut = _shop.Folder["c.pdf"];
        Tool.Run("qpdf", path, "--encrypt", "open", "own", "256", "--", locked);
        File.WriteAllText(none, "This is a letter.");
        File.WriteAllBytes(cut, File.ReadAllBytes(path)[..400]);
        Should.Throw<BadPdf>(() => PdfPages.Read(locked)).Message.ShouldContain("password");
        Should.Throw<BadPdf>(() => PdfPages.Read(none)).Message.ShouldContain("cannot be read as a PDF");
        Should.Throw<BadPdf>(() => PdfPages.Read(cut));
    }
}
