using System.Globalization;
using Formatum.Core.Comparing;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Documents;
using Formatum.Output;
using Formatum.Output.Pdf;

namespace Formatum.Bench;

/// <summary>
/// A PDF of 200 pages of words read, and set against one in which a page came and another was written anew; beside it, poppler telling where its words stand.
/// </summary>
internal static class CompareBench
{
    private const int Pages = 200;

    public static void Run(string folder)
    {
        Directory.CreateDirectory(folder);
        string before = Path.Combine(folder, "before.pdf"), after = Path.Combine(folder, "after.pdf");
        Write(before, [.. Enumerable.Range(0, Pages)]);
        // A page came amid them, and the last has other words.
        Write(after, [.. Enumerable.Range(0, Pages / 2), Pages + 7, .. Enumerable.Range(Pages / 2, Pages / 2 - 1), Pages * 3]);
        double theirs = Measured.Time("pdftotext", ["-bbox", before, Path.Combine(folder, "words.html")]);
        IReadOnlyList<PdfPage> was = [], now = [];
        double ours = Measured.Median(() => was = PdfPages.Read(before)) / 1000;
        now = PdfPages.Read(after);
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{Pages} pages, {was.Sum(p => p.Contents.Words.Length)} words read: {ours:0.00} s; " +
            $"pdftotext -bbox {theirs:0.00} s: ratio {ours / theirs:0.00}"));
        FileComparison? compared = null;
        PageContents[] one = [.. was.Select(p => p.Contents)], other = [.. now.Select(p => p.Contents)];
        double set = Measured.Median(() => compared = FileComparison.Of(one, other, LengthUnit.Millimetre));
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"set against the other: {set:0} ms, {compared!.Differences.Length} differences"));
    }

    private static void Write(string path, int[] texts)
    {
        var setup = new Setup { Name = "Compared", PageWidth = PaperSize.Named("A4")!.Width, PageHeight = PaperSize.Named("A4")!.Height, Facing = false };
        var publication = Publication.Create(setup, texts.Length);
        for (int page = 1; page <= texts.Length; page++)
        {
            string words = string.Join(' ', Enumerable.Range(texts[page - 1] * 5, 5).Select(WordsBench.Paragraph));
            var edit = new MakeFrame { Page = page, Box = new(50, 50, 480, 700), Text = new([new(words, TextStyle.Usual with { Family = "Spectral" })]) };
            publication = publication.With(edit.On(publication));
        }
        PdfWriter.Write(publication, PixelSource.Plain, new(Bleed: false), path);
    }
}
