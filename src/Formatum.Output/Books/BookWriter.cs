using System.Globalization;
using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;
using SkiaSharp;

namespace Formatum.Output.Books;

/// <summary>Publications as books for reading programs: pages stay as they are laid out, and their words stay words (EPUB 3.2, fixed layout).</summary>
public static class BookWriter
{
    /// <summary>The longer side of the picture that reading programs show of a book on their shelf.</summary>
    private const double CoverPx = 1600;

    private const int CoverQuality = 85;

    /// <param name="publication">The publication.</param>
    /// <param name="source">Where the pixels of pictures come from.</param>
    /// <param name="options">What is wanted.</param>
    /// <param name="path">The file to write; what is there is replaced.</param>
    /// <param name="done">Told after each page how many are written.</param>
    /// <param name="cancel">Says that nobody wants it any more.</param>
    /// <exception cref="BadPicture">A linked file is gone or no longer a picture.</exception>
    /// <exception cref="NotWritten">The disk is full.</exception>
    public static void Write(Publication publication, PixelSource source, BookOptions options, string path, Action<int>? done = null,
        CancellationToken cancel = default)
    {
        var pages = PagesOf(publication, options);
        if (!options.Proof) SceneImages.ThrowIfMissing(pages.SelectMany(p => Composer.ImagesOn(publication, p.Spread, p.Page.Trim)).DistinctBy(i => i.Id));
        try
        {
            using var book = new BookFile(path, options.Time);
            Write(book, publication, options.Proof ? source : source with { StandIns = null }, options, pages, done, cancel);
        }
        catch (IOException e) when (e is not (NotWritten or FileNotFoundException or DirectoryNotFoundException))
        {
            throw new NotWritten(e);
        }
    }

    private static List<(Spread Spread, PlacedPage Page)> PagesOf(Publication publication, BookOptions options)
    {
        Spread? last = null;
        return [.. options.Pages.Select(number =>
        {
            int index = Spread.IndexOfPage(publication, number);
            last = last?.Index == index ? last : Spread.At(publication, index);
            return (last, last.Pages.Single(p => p.Number == number));
        })];
    }

    private static void Write(BookFile book, Publication publication, PixelSource source, BookOptions options, List<(Spread Spread, PlacedPage Page)> pages,
        Action<int>? done, CancellationToken cancel)
    {
        string language = TextCascade.LanguageOf(publication);
        var paths = pages.ToDictionary(p => p.Page.Number, p => string.Create(CultureInfo.InvariantCulture, $"pages/{p.Page.Number:0000}.xhtml"));
        var writer = new BookPage(publication, language, index => paths.TryGetValue(index + 1, out string? path) ? Path.GetFileName(path) : null);
        var pictures = new BookPictures(book, options, source, Showings(publication, pages));
        var fonts = new BookFonts();
        var items = new List<BookItem>();
        (Spread? Spread, Scene? Scene) composed = default;
        foreach (var (spread, page) in pages)
        {
            cancel.ThrowIfCancellationRequested();
            if (!ReferenceEquals(composed.Spread, spread)) composed = (spread, Composer.Compose(publication, spread, Typefaces.All));
            if (items.Count == 0) book.Add("cover.jpg", "image/jpeg", Cover(composed.Scene!, page, source, cancel), "cover-image");
            var frames = SceneCanvas.Visible(composed.Scene!, page.Trim).ToList();
            fonts.Take(frames);
            string html = writer.Write(spread, page, frames, image => "../" + pictures.PathOf(image));
            items.Add(new(page, book.Add(paths[page.Number], "application/xhtml+xml", html, "svg"), paths[page.Number]));
            done?.Invoke(items.Count);
        }
        fonts.Write(book);
        var package = new BookPackage(publication, items, language, options.Time);
        var headings = Headings.Nested(Headings.Of(publication, Typefaces.All).Where(h => paths.ContainsKey(h.PageIndex + 1)));
        book.Add("contents.xhtml", "application/xhtml+xml", package.Navigation(headings), "nav");
        book.End(package.Write(book.Items));
    }

    private static byte[] Cover(Scene scene, PlacedPage page, PixelSource source, CancellationToken cancel)
    {
        double ppi = CoverPx / Math.Max(page.Trim.Width, page.Trim.Height) * Units.PointsPerInch;
        using var picture = PageRaster.Draw(scene, page.Trim, Math.Clamp(ppi, PageRaster.SmallestPpi, PageRaster.LargestPpi), source, cancel: cancel);
        using var data = picture.Encode(SKEncodedImageFormat.Jpeg, CoverQuality);
        return data.ToArray();
    }

    /// <summary>The largest showing of each picture, without setting any text.</summary>
    private static Dictionary<int, Affine> Showings(Publication publication, List<(Spread Spread, PlacedPage Page)> pages)
    {
        var largest = new Dictionary<int, Affine>();
        foreach (var spread in pages.Select(p => p.Spread).Distinct())
            foreach (var (image, map) in Composer.ShowingsOn(publication, spread))
                if (!largest.TryGetValue(image.Id, out var known) || map.ScaleX * map.ScaleY > known.ScaleX * known.ScaleY) largest[image.Id] = map;
        return largest;
    }
}
