using System.Diagnostics;
using System.Globalization;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Imaging;
using Formatum.Output.Pdf;
using NetVips;

namespace Formatum.Bench;

/// <summary>
/// Files for print: pictures in four inks and such with transparency, beside img2pdf; pictures turned into inks, beside the command-line tool of libvips
/// doing the same; and a book of text, beside Chromium printing the same words.
/// </summary>
internal static class PressBench
{
    private const int Inks = 300, Through = 100, Converted = 100, Each = 4, TextPages = 300, Chapter = 30, EachPage = 7;
    private const double Side = 595, Height = 842;

    public static void Run(string folder)
    {
        string[] photos = Pictures.Make(Path.Combine(folder, "press"), Inks, 1500, 1000);
        string[] inks = InInks(folder, photos), through = WithAlpha(folder, photos), plain = [.. through.Select(
            f => f.Replace("alpha-", "plain-", StringComparison.Ordinal))];
        Measured.Warm([.. inks, .. through, .. plain]);
        var (ours, memory) = Measured.Child("press-child", folder, "inks");
        double theirs = Measured.Time("img2pdf", ["-o", Path.Combine(folder, "img2pdf.pdf"), .. inks]);
        Say($"{Inks} JPEGs in four inks: ours {ours:0.00} s, peak {memory:0} MB; img2pdf {theirs:0.00} s", ours / theirs);
        (ours, memory) = Measured.Child("press-child", folder, "alpha");
        theirs = Measured.Time("img2pdf", ["-o", Path.Combine(folder, "img2pdf.pdf"), .. plain]);
        Say($"{Through} PNGs with transparency: ours {ours:0.00} s, peak {memory:0} MB; img2pdf, without it, {theirs:0.00} s", ours / theirs);

        string profile = Path.Combine(folder, "press.icc");
        File.WriteAllBytes(profile, Image.ProfileLoad("cmyk"));
        (ours, memory) = Measured.Child("press-child", folder, "convert");
        var watch = Stopwatch.StartNew();
        foreach (string photo in photos[..Converted])
            Measured.Time("vips", "icc_transform", photo, Path.Combine(folder, "converted.jpg[Q=92,subsample_mode=off]"), profile, "--intent", "relative",
                "--black-point-compensation", "--input-profile", "srgb");
        Say($"{Converted} pictures of 1.5 MP into inks: ours {ours:0.00} s, peak {memory:0} MB; vips icc_transform, file by file, " +
            $"{watch.Elapsed.TotalSeconds:0.00} s",
            ours / watch.Elapsed.TotalSeconds);

        (ours, memory) = Measured.Child("press-child", folder, "text");
        string html = Path.Combine(folder, "text.html");
        File.WriteAllText(html, "<!doctype html><style>@page{size:A4;margin:20mm}p{font:11pt/14pt serif;margin:0}</style>" +
            string.Concat(Paragraphs().Select(p => $"<p>{p}</p>")));
        theirs = Measured.Time("chromium", "--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
            "--disable-component-update", "--disable-sync", $"--user-data-dir={folder}/profile", "--no-pdf-header-footer",
            $"--print-to-pdf={folder}/text-chromium.pdf",
            $"file://{html}");
        double Kilobytes(string name) => new FileInfo(Path.Combine(folder, name)).Length / 1024.0;
        Say($"text of {TextPages} pages: ours {ours:0.00} s from words to PDF/X-4, {Kilobytes("text.pdf"):0} kB, peak {memory:0} MB; " +
            $"Chromium {theirs:0.00} s, " +
            $"{Kilobytes("text-chromium.pdf"):0} kB", ours / theirs);
    }

    private static void Say(string what, double ratio) => Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{what}: ratio {ratio:0.00}"));

    private static string[] InInks(string folder, string[] photos) => Made(folder, "inks-", ".jpg", photos, (photo, path) =>
    {
        using var image = Image.NewFromFile(photo);
        using var inks = image.IccTransform("cmyk", intent: Enums.Intent.Relative, blackPointCompensation: true, inputProfile: "srgb");
        inks.Jpegsave(path, q: 85, keep: Enums.ForeignKeep.None);
    });

    private static string[] WithAlpha(string folder, string[] photos) => Made(folder, "alpha-", ".png", photos[..Through], (photo, path) =>
    {
        using var read = Image.Thumbnail(photo, 750);
        using var image = read.CopyMemory();
        image.Pngsave(path.Replace("alpha-", "plain-", StringComparison.Ordinal));
        using var rows = Image.Xyz(image.Width, image.Height);
        using var cover = rows.ExtractBand(1).Linear([0.5], [0.0]).Cast(Enums.BandFormat.Uchar);
        using var joined = image.Bandjoin(cover);
        using var whole = joined.CopyMemory();
        whole.Pngsave(path);
    });

    private static string[] Made(string folder, string start, string ending, string[] photos, Action<string, string> make)
    {
        string[] paths = [.. photos.Select((_, i) => Path.Combine(folder, "press", string.Create(CultureInfo.InvariantCulture, $"{start}{i:000}{ending}")))];
        Parallel.For(0, photos.Length, i =>
        {
            if (!File.Exists(paths[i])) make(photos[i], paths[i]);
        });
        return paths;
    }

    private static IEnumerable<string> Paragraphs() => Enumerable.Range(0, TextPages * EachPage).Select(WordsBench.Paragraph);

    public static void Child(string folder, string what)
    {
        Vips.Prepare();
        var publication = what == "text" ? Text() : Showing(folder, what switch
        {
            "inks" => "inks-*.jpg",
            "alpha" => "alpha-*.png",
            _ => "p*.jpg",
        }, what == "inks" ? Inks : Converted);
        var options = new PdfOptions(Bleed: false) { Press = new(ColourProfile.GeneralPress), Convert = what == "convert" };
        var watch = Stopwatch.StartNew();
        PdfWriter.Write(publication, new(new PreviewStore(Path.Combine(folder, "previews-press"))), options, Path.Combine(folder, $"{what}.pdf"));
        Measured.Report(watch);
    }

    private static Publication Showing(string folder, string pattern, int most)
    {
        var reader = new PictureReader(new(), new(Path.Combine(folder, "previews-press")));
        string[] files = [.. Directory.GetFiles(Path.Combine(folder, "press"), pattern)
            .Where(f => !Path.GetFileName(f).StartsWith("plain", StringComparison.Ordinal)).Order().Take(most)];
        var publication = Publication.Create(new Setup { Name = "Bench", PageWidth = Side, PageHeight = Height, Bleed = 0 }, (files.Length + Each - 1) / Each);
        publication = publication.With(new LinkImages([.. files.Select(f => reader.Read(f, Path.GetFileName(f)))]).On(publication));
        int[] ids = [.. publication.Images.Keys.Order()];
        for (int i = 0; i < ids.Length; i++)
            publication = publication.With(new MakeFrame
            {
                Page = 1 + i / Each,
                Box = new(20 + i % 2 * 280, 20 + i / 2 % 2 * 400, 270, 380),
                ImageId = ids[i]
            }.On(publication));
        return publication;
    }

    private static Publication Text()
    {
        var publication = Publication.Create(new Setup { Name = "Bench", PageWidth = Side, PageHeight = Height, Bleed = 0 }, TextPages);
        double margin = Units.Millimetres(20);
        for (int page = 1; page <= TextPages; page++)
            publication = publication.With(new MakeFrame { Page = page, Box = new(margin, margin, Side - 2 * margin, Height - 2 * margin) }.On(publication));
        var style = TextStyle.Usual with { Family = "Spectral", Size = 11, Leading = 14 };
        // A chapter each: a story holds 200,000 characters at most.
        foreach (var (frames, words) in publication.Frames.Keys.Order().Chunk(Chapter).Zip(Paragraphs().Chunk(Chapter * EachPage)))
            publication = publication.With(new MakeStory([.. frames], new([.. words.Select(p => new Paragraph(p, style))])).On(publication));
        return publication;
    }
}
