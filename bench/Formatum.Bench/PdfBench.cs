using System.Diagnostics;
using System.Globalization;
using System.Text;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Output;
using Formatum.Output.Pdf;

namespace Formatum.Bench;

/// <summary>
/// A print PDF of pages with six different JPEGs of 6 megapixels each, against img2pdf, which only puts the same files one to a page, and against Chromium
/// printing the same pages.
/// </summary>
internal static class PdfBench
{
    private const int EachPage = 6, FewPages = 50, MostPages = 200;

    /// <summary>Chromium is not waited for any longer, in seconds.</summary>
    private const int Patience = 300;

    public static void Run(string folder)
    {
        var all = Pictures.Make(Path.Combine(folder, "six"), MostPages * EachPage, 3000, 2000);
        foreach (int pages in new[] { FewPages, MostPages })
        {
            var files = all[..(pages * EachPage)];
            Measured.Warm(files);
            double Megabytes(params IEnumerable<string> paths) => paths.Sum(f => new FileInfo(f).Length) / 1048576.0;
            string path = Path.Combine(folder, "ours.pdf"), their = Path.Combine(folder, "img2pdf.pdf");
            var (ours, memory) = Measured.Child("pdf-child", folder, pages.ToString(CultureInfo.InvariantCulture));
            double theirs = Measured.Time("img2pdf", ["-o", their, .. files]);
            Console.WriteLine($"PDF of {pages} pages, {files.Length} JPEGs of 6 MP ({Megabytes(files):0} MB): ours {ours:0.00} s, {Megabytes(path):0} MB, " +
                $"peak {memory:0} MB");
            Console.WriteLine($"  img2pdf {theirs:0.00} s, {Megabytes(their):0} MB: ratio {ours / theirs:0.00} in time, " +
                $"{Megabytes(path) / Megabytes(their):0.000} in size");
            if (pages == FewPages) AgainstChromium(folder, files, ours);
        }
    }

    private static void AgainstChromium(string folder, string[] files, double ours)
    {
        var html = new StringBuilder("<!doctype html><style>@page{size:210mm 297mm;margin:0}body{margin:0}" +
            ".p{position:relative;width:210mm;height:297mm;break-after:page;overflow:hidden}" +
            "img{position:absolute;object-fit:cover;width:85mm;height:80mm}</style>");
        foreach (var page in files.Chunk(EachPage))
        {
            html.Append("<div class=p>");
            for (int i = 0; i < page.Length; i++)
                html.Append(CultureInfo.InvariantCulture, $"<img src='{page[i]}' style='left:{15 + i % 2 * 95}mm;top:{15 + i / 2 * 90}mm'>");
            html.Append("</div>");
        }
        File.WriteAllText(Path.Combine(folder, "pages.html"), html.ToString());
        double? theirs = Measured.Time(Patience, "chromium", "--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
            "--disable-background-networking", "--disable-component-update", "--disable-sync",
            "--allow-file-access-from-files", $"--user-data-dir={folder}/profile", "--no-pdf-header-footer", $"--print-to-pdf={folder}/chromium.pdf",
                $"file://{folder}/pages.html");
        Console.WriteLine(theirs is { } seconds ? $"  Chromium printing the same pages {seconds:0.0} s: ratio {ours / seconds:0.0000}"
            : $"  Chromium printing the same pages: not done after {Patience} s, stopped: ratio below {ours / Patience:0.0000}");
    }

    public static void Child(string folder, int pages)
    {
        var previews = new PreviewStore(Path.Combine(folder, "previews-pdf"));
        // Linked without being decoded, so that the memory measured is that of writing alone.
        var images = Directory.GetFiles(Path.Combine(folder, "six")).Order().Take(pages * EachPage).Select(file => new LinkedImage
        {
            Id = 0,
            Name = Path.GetFileName(file),
            Path = file,
            Bytes = new FileInfo(file).Length,
            Modified = default,
            ContentHash = Path.GetFileName(file),
            Format = "jpeg",
            StoredWidthPx = 3000,
            StoredHeightPx = 2000,
            StoredPpiX = 300,
            StoredPpiY = 300,
        });
        var publication = Publication.Create(new Setup { Name = "Bench", PageWidth = Units.Millimetres(210), PageHeight = Units.Millimetres(297) }, pages);
        publication = publication.With(new LinkImages([.. images]).On(publication));
        int[] ids = [.. publication.Images.Keys.Order()];
        for (int i = 0; i < ids.Length; i++)
        {
            var edit = new MakeFrame
            {
                Page = 1 + i / EachPage,
                Box = new(Units.Millimetres(15 + i % 2 * 95), Units.Millimetres(15 + i % EachPage / 2 * 90),
                Units.Millimetres(85), Units.Millimetres(80)),
                ImageId = ids[i]
            };
            publication = publication.With(edit.On(publication));
        }
        var watch = Stopwatch.StartNew();
        PdfWriter.Write(publication, new(previews), new(), Path.Combine(folder, "ours.pdf"));
        Measured.Report(watch);
    }
}
