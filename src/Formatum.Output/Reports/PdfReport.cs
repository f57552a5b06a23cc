using System.Collections.Immutable;
using System.Globalization;
using System.Security.Cryptography;
using Formatum.Core.Checking;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Output.Pdf;

namespace Formatum.Output.Reports;

/// <summary>A report as PDF: laid out as a publication of its own, and written as any other.</summary>
public static class PdfReport
{
    private const double Margin = 42, Gap = 18, CaptionHeight = 14;
    private const int Across = 2, Down = 2;
    private static readonly Colour Plum = Colour.Of("#7a3b69"), Soft = Colour.Of("#55615a"), Line = Colour.Of("#c9d1c0");
    private static readonly TextStyle Small = new() { Size = 8.5, Leading = 11.5 };

    /// <param name="report">The report.</param>
    /// <param name="path">The file to write; what is there is replaced.</param>
    /// <param name="cancel">Says that nobody wants it any more.</param>
    public static void Write(CheckReport report, string path, CancellationToken cancel = default)
    {
        var folder = Directory.CreateTempSubdirectory("formatum-report-");
        try
        {
            PdfWriter.Write(LaidOut(report, folder.FullName), PixelSource.Plain, new(Bleed: false) { Live = true }, path, cancel: cancel);
        }
        finally
        {
            folder.Delete(recursive: true);
        }
    }

    private static Publication LaidOut(CheckReport report, string folder)
    {
        var (width, height) = (Units.Millimetres(210), Units.Millimetres(297));
        var p = Publication.Create(new() { Name = $"Check of {report.Publication.Setup.Name}", PageWidth = width, PageHeight = height, Bleed = 0 }, 1);
        p = Do(p, new MakeFrame { Page = 1, Box = new(Margin, Margin, width - 2 * Margin, height - 2 * Margin), Text = Listed(report) });
        var frame = p.Frames.Values.Single();
        if (Core.Composing.Composition.TextOf(p, frame, Typefaces.All) is { Overflows: true }) p = Do(p, TextRoom.UntilItEnds(p, frame, Typefaces.All));
        foreach (var pages in report.Pages.Chunk(Across * Down)) p = WithSheet(p, pages, folder);
        return p;
    }

    private static Publication Do(Publication p, Edit edit) => p.With(edit.On(p));

    private static FrameText Listed(CheckReport report)
    {
        var paragraphs = ImmutableArray.CreateBuilder<Paragraph>();
        void Say(string words, TextStyle style) => paragraphs.Add(new(words, style));
        Say(ReportText.Title(report), new() { Family = "Fraunces", Size = 20, Leading = 25, Heading = 1 });
        Say(ReportText.Sum(report), new() { Size = 10, Leading = 14, SpaceAfter = 8 });
        foreach (var (title, findings) in new[] { ("What counts", report.Open), ("Accepted", report.Accepted) })
        {
            if (findings.IsEmpty) continue;
            Say(title, new() { Size = 12, Bold = true, Leading = 16, SpaceBefore = 8, SpaceAfter = 3, KeepWithNext = true, Heading = 2 });
            foreach (var (number, finding) in findings)
            {
                string where = finding.Where(report.Publication);
                string words = string.Create(CultureInfo.InvariantCulture, $"{number}\t{FindingText.Name(finding.Severity)}\t")
                    + (where.Length > 0 ? where + ": " : "") + ReportText.Said(finding, report.Publication);
                Say(words, Small with
                {
                    IndentLeft = 84,
                    Indent = -84,
                    SpaceAfter = 2,
                    KeepTogether = true,
                    Tabs = new([new(28), new(84)]),
                });
            }
        }
        return new(paragraphs.ToImmutable());
    }

    /// <summary>A page more, with pictures of pages and their marks.</summary>
    private static Publication WithSheet(Publication p, ReportedPage[] pages, string folder)
    {
        p = Do(p, new AddPages(p.PageCount + 1, 1));
        int sheet = p.PageCount;
        double cellWidth = (p.Setup.PageWidth - 2 * Margin - (Across - 1) * Gap) / Across;
        double cellHeight = (p.Setup.PageHeight - 2 * Margin - (Down - 1) * Gap) / Down;
        for (int i = 0; i < pages.Length; i++)
        {
            var page = pages[i];
            double scale = Math.Min(cellWidth / page.Width, (cellHeight - CaptionHeight) / page.Height);
            var box = new Box(Margin + i % Across * (cellWidth + Gap), Margin + i / Across * (cellHeight + Gap), page.Width * scale, page.Height * scale);
            var picture = Linked(page, folder);
            p = Do(p, new LinkImages([picture]));
            // Pages that look the same share one picture.
            int image = p.Images.Values.First(known => known.ContentHash == picture.ContentHash).Id;
            p = Do(p, new MakeFrame
            {
                Page = sheet,
                Box = box,
                ImageId = image,
                Own = new() { Fit = FitKind.Stretch },
                Look = new() { Border = new(0.5, Line) },
            });
            p = Do(p, new MakeFrame
            {
                Page = sheet,
                Box = new(box.X, box.Bottom + 2, cellWidth, CaptionHeight),
                Text = new([new(page.Words, Small with { Colour = Soft })]),
            });
            foreach (var (number, _, mark) in page.Marks)
                p = Marked(p, sheet, new(box.X + mark.X * scale, box.Y + mark.Y * scale, mark.Width * scale, mark.Height * scale), box, number);
        }
        return p;
    }

    private static Publication Marked(Publication p, int sheet, Box mark, Box page, int number)
    {
        // What hangs off the page is marked at its edge.
        var seen = mark.Intersect(page.Grown(2));
        if (seen.Width <= 0 || seen.Height <= 0)
            seen = new(Math.Clamp(mark.X, page.X, page.Right - 8), Math.Clamp(mark.Y, page.Y, page.Bottom - 8), 8, 8);
        p = Do(p, new MakeFrame
        {
            Page = sheet,
            Box = seen,
            Look = new() { Border = new(1, Plum) { Kind = BorderKind.Dashed } },
        });
        string words = number.ToString(CultureInfo.InvariantCulture);
        return Do(p, new MakeFrame
        {
            Page = sheet,
            Box = new(seen.X, seen.Y, 5 + 4.2 * words.Length, 9.5),
            Text = new([new(words, new TextStyle { Size = 7, Leading = 9, Bold = true, Colour = Colour.White, Indent = 2.5 })]),
            Look = new() { Background = Plum },
        });
    }

    private static LinkedImage Linked(ReportedPage page, string folder)
    {
        string file = Path.Combine(folder, string.Create(CultureInfo.InvariantCulture, $"{page.PageId}.jpg"));
        File.WriteAllBytes(file, page.Jpeg);
        return new()
        {
            Id = 0,
            Name = $"{page.Words}.jpg",
            Path = file,
            Bytes = page.Jpeg.Length,
            Modified = File.GetLastWriteTimeUtc(file),
            ContentHash = Convert.ToHexStringLower(SHA256.HashData(page.Jpeg)),
            Format = "jpeg",
            StoredWidthPx = page.WidthPx,
            StoredHeightPx = page.HeightPx,
            Caption = page.Words,
        };
    }
}
