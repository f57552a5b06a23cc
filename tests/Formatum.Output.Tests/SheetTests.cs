using System.Globalization;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Imaging;
using Formatum.Testing;
using UglyToad.PdfPig;

namespace Formatum.Output.Tests;

/// <summary>Pages laid on sheets, read back from the PDF.</summary>
public sealed class SheetTests : IDisposable
{
    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    /// <summary>Pages of 200 x 300 points, each with its number at its upper left and a bar at its outer edge that bleeds.</summary>
    private static Publication Numbered(int pages, bool bindsRight = false)
    {
        var p = Publication.Create(Workshop.A4(facing: true) with { PageWidth = 200, PageHeight = 300, Bleed = 9, BindsRight = bindsRight }, pages);
        for (int page = 1; page <= pages; page++)
            p = Workshop.Do(p, new MakeFrame
            {
                Page = page,
                Box = new(20, 20, 100, 30),
                Text = new([new(string.Create(CultureInfo.InvariantCulture, $"<{page}>"), TextStyle.Usual)]),
            });
        return p;
    }

    private string Write(Publication p, PdfOptions options)
    {
        string path = _shop.Folder["sheets.pdf"];
        PdfWriter.Write(p, new(_shop.Previews), options, path);
        Tool.Run("qpdf", "--check", path).ShouldContain("No syntax or stream encoding errors");
        return path;
    }

    /// <summary>The numbers on each side with where they stand, from left to right.</summary>
    private static List<(string Words, double X)[]> Read(string path)
    {
        using var pdf = PdfDocument.Open(path);
        return [.. pdf.GetPages().Select(page => page.GetWords().Where(w => w.Text.StartsWith('<')).Select(w => (w.Text, w.Letters[0].StartBaseLine.X))
            .OrderBy(w => w.X).ToArray())];
    }

    [Theory]
    [InlineData(8, false, "<8> <1>|<2> <7>|<6> <3>|<4> <5>")]
    [InlineData(8, true, "<1> <8>|<7> <2>|<3> <6>|<5> <4>")]
    [InlineData(6, false, "<1>|<2>|<6> <3>|<4> <5>")]
    public void A_booklet_is_printed_where_the_fold_wants_it(int pages, bool bindsRight, string scheme)
    {
        string path = Write(Numbered(pages, bindsRight), new() { Imposition = new() { Kind = ImpositionKind.Booklet } });
        string.Join('|', Read(path).Select(side => string.Join(' ', side.Select(w => w.Words)))).ShouldBe(scheme);
        using var pdf = PdfDocument.Open(path);
        foreach (var page in pdf.GetPages())
        {
            var (trim, media) = (page.GetBox("TrimBox"), page.MediaBox.Bounds);
            (trim.Width, trim.Height, media.Width, media.Height).ShouldBe((400, 300, 418, 318));
        }
    }

    [Fact]
    public void Creep_moves_the_inner_sheets_words_towards_the_fold()
    {
        var p = Numbered(12);
        var still = Read(Write(p, new() { Imposition = new() { Kind = ImpositionKind.Booklet } }));
        var moved = Read(Write(p, new() { Imposition = new() { Kind = ImpositionKind.Booklet, Creep = 6 } }));
        for (int side = 0; side < 6; side++)
        {
            double creep = 6.0 * (side / 2) / 2;
            moved[side][0].X.ShouldBe(still[side][0].X + creep, 0.001);
            moved[side][1].X.ShouldBe(still[side][1].X - creep, 0.001);
        }
    }

    /// <summary>Nothing of one page shows on the one beside it in a booklet; between cut pages each has half the gutter.</summary>
    [Fact]
    public void Bleed_ends_at_the_fold_and_in_the_middle_of_a_gutter()
    {
        var p = Numbered(4);
        // Beyond all four sides of page 1, which lies at the right of the fold.
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(-9, 100, 218, 100), Look = new() { Background = Colour.Of("#000000") } });
        double[] Row(PdfOptions options)
        {
            Tool.Run("pdftoppm", "-r", "72", "-png", "-gray", "-f", "1", "-l", "1", "-singlefile", Write(p, options), _shop.Folder["row"]);
            using var side = NetVips.Image.Pngload(_shop.Folder["row.png"]);
            return [.. Enumerable.Range(0, side.Width).Select(x => side.Getpoint(x, side.Height / 2)[0])];
        }
        double[] fold = Row(new() { Imposition = new() { Kind = ImpositionKind.Booklet } });
        (fold[207], fold[210], fold[416]).ShouldBe((255, 0, 0));
        double[] gutter = Row(new() { Imposition = new() { Kind = ImpositionKind.Several, Across = 2, Down = 1, Gutter = 10 } });
        // The first page at the left: from the edge of the sheet to half the gutter behind its trim.
        (gutter[1], gutter[212], gutter[216]).ShouldBe((0, 0, 255));
    }

    /// <summary>A4 on its side, 3 mm narrower where it folds in: folds at 97 and 197 mm outside, at 100 and 200 mm inside.</summary>
    [Fact]
    public void A_folded_sheet_has_a_mark_at_each_of_its_folds()
    {
        var setup = Workshop.A4() with
        {
            PageWidth = Units.Millimetres(297),
            PageHeight = Units.Millimetres(210),
            Folding = new() { Narrower = Units.Millimetres(3) },
        };
        string path = Write(Publication.Create(setup, 2), new() { Marks = new() { Fold = true } });
        using var pdf = PdfDocument.Open(path);
        foreach (var (page, folds) in new[] { (1, new[] { 97.0, 197 }), (2, [100, 200]) })
        {
            var read = pdf.GetPage(page);
            double left = (read.Width - Units.Millimetres(297)) / 2;
            read.Paths.Where(s => s.IsStroked).Select(s => s.GetBoundingRectangle()!.Value).Select(r => (r.Left + r.Right) / 2 - left).Distinct().Order()
                .Select(x => Math.Round(x / Units.PointsPerMillimetre, 2)).Distinct().ShouldBe(folds);
        }
    }

    [Fact]
    public void Sheets_for_print_are_PDF_X_4_with_marks_at_every_cut_and_none_at_the_fold()
    {
        string path = Write(Numbered(8), new()
        {
            Press = new(ColourProfile.GeneralPress),
            Marks = new() { Crop = true, Fold = true, Information = true },
            Imposition = new() { Kind = ImpositionKind.Booklet, SheetWidth = Units.Millimetres(320), SheetHeight = Units.Millimetres(225) },
        });
        PrintFile.Faults(path).ShouldBeEmpty();
        using var pdf = PdfDocument.Open(path);
        var lines = pdf.GetPage(1).Paths.Where(s => s.IsStroked).Select(s => s.GetBoundingRectangle()).OfType<UglyToad.PdfPig.Core.PdfRectangle>().ToList();
        double middle = Units.Millimetres(160);
        var uprights = lines.Where(l => l.Width < 0.1).Select(l => Math.Round((l.Left + l.Right) / 2 - middle)).GroupBy(x => x)
            .ToDictionary(g => g.Key, g => g.Count());
        // Two at each side of the block, and the two of the fold.
        uprights.ShouldBe(new Dictionary<double, int> { [-200] = 2, [200] = 2, [0] = 2 }, ignoreOrder: true);
        lines.Count(l => l.Height < 0.1).ShouldBe(4);
        Tool.Run("pdftotext", path, "-").ShouldContain("Sheet 2, back");
    }
}
