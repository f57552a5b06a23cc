using System.Diagnostics;
using System.Globalization;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Output;
using Formatum.Output.Pdf;
using NetVips;

namespace Formatum.Bench;

/// <summary>A page of twenty treated JPEGs of 24 megapixels as a PDF; beside it, libvips reading the same files, doing the same operations and compressing the
/// pixels as losslessly.</summary>
internal static class TreatedPdfBench
{
    private const int Count = 20, Width = 6000, Height = 4000;

    public static void Run(string folder)
    {
        string[] files = Pictures.Make(Path.Combine(folder, "treated"), Count, Width, Height);
        Measured.Warm(files);
        foreach (var (what, treatment) in new[] { ("in two inks", TreatBench.Grey), ("blurred", new Treatment { Blur = 4 }) })
        {
            var publication = Page(files, treatment);
            string path = Path.Combine(folder, "treated.pdf");
            var watch = Stopwatch.StartNew();
            PdfWriter.Write(publication, new(new PreviewStore(Path.Combine(folder, "previews-treated"))), new(), path);
            double ours = watch.Elapsed.TotalSeconds;
            watch.Restart();
            long size = 0;
            foreach (string file in files) size += ByVips(file, treatment);
            double theirs = watch.Elapsed.TotalSeconds;
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{Count} pictures of 24 megapixels {what} to PDF: ours {ours:0.0} s, " +
                $"{new FileInfo(path).Length / 1048576.0:0} MB; libvips {theirs:0.0} s, {size / 1048576.0:0} MB; ratio {ours / theirs:0.00}"));
        }
    }

    private static Publication Page(string[] files, Treatment treatment)
    {
        var images = files.Select(file => new LinkedImage
        {
            Id = 0,
            Name = Path.GetFileName(file),
            Path = file,
            Bytes = new FileInfo(file).Length,
            Modified = default,
            ContentHash = Path.GetFileName(file),
            Format = "jpeg",
            StoredWidthPx = Width,
            StoredHeightPx = Height,
            StoredPpiX = 300,
            StoredPpiY = 300,
        });
        var p = Publication.Create(new Setup { Name = "Treated", PageWidth = Units.Millimetres(420), PageHeight = Units.Millimetres(297) }, 1);
        p = p.With(new LinkImages([.. images]).On(p));
        foreach (var (id, i) in p.Images.Keys.Order().Select((id, i) => (id, i)))
            p = p.With(new MakeFrame
            {
                Page = 1,
                Box = new(Units.Millimetres(15 + i % 5 * 80), Units.Millimetres(15 + i / 5 * 65), Units.Millimetres(75), Units.Millimetres(50)),
                ImageId = id,
                Look = new() { Treatment = treatment },
            }.On(p));
        return p;
    }

    private static long ByVips(string file, Treatment treatment)
    {
        using var image = Image.Jpegload(file).CopyMemory();
        // The picture is 75 mm wide.
        using var done = treatment.Blur > 0 ? image.Gaussblur(treatment.BlurDeviation * Width / Units.Millimetres(75)).CopyMemory()
            : TreatBench.Treated(image, treatment);
        return done.PngsaveBuffer(compression: 6, filter: Enums.ForeignPngFilter.None).Length;
    }
}
