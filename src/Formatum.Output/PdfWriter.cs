using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;
using SkiaSharp;

namespace Formatum.Output;

/// <summary>What is wanted of a PDF.</summary>
/// <param name="Marks">Crop marks outside the bleed.</param>
/// <param name="Bleed">Keep the bleed; without it, pages are cut at their trim.</param>
/// <param name="Proof">Show the preview of an image whose file is missing, for looking at and not for print.</param>
public sealed record PdfOptions(bool Marks = false, bool Bleed = true, bool Proof = false);

/// <summary>Publications as print PDF, a page of it for each of theirs.</summary>
public static class PdfWriter
{
    /// <summary>Crop marks are 5 mm long and begin where the bleed ends, but no nearer to the trim than 2 mm: common practice, no source.</summary>
    private const double MarkLength = 5 * Units.PointsPerMillimetre, MarkNearest = 2 * Units.PointsPerMillimetre;

    private const float MarkWidth = 0.25f;

    /// <summary>The canvas is this many points larger than the media asks, at most: the drawing library rounds a page to its raster, a divisor of
    /// this.</summary>
    private const double Grid = 6;

    /// <summary>Writes pages of a publication.</summary>
    /// <param name="publication">The publication.</param>
    /// <param name="source">Where the pixels of pictures come from; the stand-ins are for proofs alone.</param>
    /// <param name="options">Marks, bleed, proof.</param>
    /// <param name="path">The file to write; what is there is replaced.</param>
    /// <param name="firstPage">First page, from 1.</param>
    /// <param name="lastPage">Last page; null for the publication's last.</param>
    /// <param name="cancel">Says that nobody wants it any more.</param>
    /// <exception cref="EditRefused">There are no such pages.</exception>
    /// <exception cref="BadPicture">A linked file is gone or no longer a picture.</exception>
    /// <exception cref="NotWritten">The disk is full.</exception>
    public static void Write(Publication publication, PixelSource source, PdfOptions options, string path, int firstPage = 1, int? lastPage = null,
        CancellationToken cancel = default)
    {
        int last = lastPage ?? publication.PageCount;
        if (firstPage < 1 || last > publication.PageCount || firstPage > last)
            throw new EditRefused("pages", $"There are no pages {firstPage} to {last}; the publication has pages 1 to {publication.PageCount}.");
        var sheet = Sheet.Of(publication.Setup, options);
        var pages = Spreads(publication, firstPage, last).SelectMany(spread => spread.Pages.Where(p => p.Number >= firstPage && p.Number <= last)
            .Select(page => (Spread: spread, Page: page)))
            .OrderBy(p => p.Page.Number).ToList();
        // The pages of a spread come one after the other: what is composed for one serves the other.
        (Spread? Spread, Scene? Scene) composed = default;
        IEnumerable<SceneFrame> Shown(Spread spread, PlacedPage page)
        {
            if (!ReferenceEquals(composed.Spread, spread)) composed = (spread, Composer.Compose(publication, spread, Typefaces.All));
            return SceneCanvas.Visible(composed.Scene!, page.Trim.Grown(sheet.Bleed));
        }
        var shown = pages.SelectMany(p => Shown(p.Spread, p.Page)).Select(f => f.Image?.Source).OfType<LinkedImage>().ToList();
        if (!options.Proof) SceneImages.ThrowIfMissing(shown);
        using (var images = new PdfImages(shown, options.Proof ? source : source with { StandIns = null }, cancel))
        using (var stream = new SKFileWStream(path))
        using (var document = SKDocument.CreatePdf(stream, MetadataOf(publication.Setup)))
        {
            foreach (var (spread, page) in pages) DrawPage(document, sheet, page, Shown(spread, page), images, options.Marks);
            document.Close();
            stream.Flush();
            // The library goes on where the disk is full, and says so nowhere else.
            if (!stream.IsValid || stream.BytesWritten != new FileInfo(path).Length) throw new NotWritten();
        }
        try
        {
            PdfBoxes.Set(path, new(0, 0, sheet.Width, sheet.Height), sheet.Trim.Grown(sheet.Bleed), sheet.Trim);
        }
        catch (IOException e)
        {
            throw new NotWritten(e);
        }
    }

    // Above a quality of 100 the library would not compress again what it cannot pass through: such pixels go in without loss.
    private static SKDocumentPdfMetadata MetadataOf(Setup setup) => new()
    {
        Title = setup.Name,
        Creator = "Formatum",
        Producer = "Formatum",
        RasterDpi = 300,
        EncodingQuality = 101,
    };

    private static void DrawPage(SKDocument document, in Sheet sheet, PlacedPage page, IEnumerable<SceneFrame> shown, PdfImages images, bool marks)
    {
        var visible = page.Trim.Grown(sheet.Bleed);
        double canvasHeight = OnGrid(sheet.Height);
        var canvas = document.BeginPage((float)OnGrid(sheet.Width), (float)canvasHeight);
        // PDF counts from the lower left: leave what the canvas has too much at the top and the right.
        canvas.Translate((float)(sheet.Border - page.Trim.X), (float)(sheet.Border - page.Trim.Y + canvasHeight - sheet.Height));
        canvas.Save();
        canvas.ClipRect(SKRect.Create((float)visible.X, (float)visible.Y, (float)visible.Width, (float)visible.Height));
        var frames = shown.ToList();
        if (frames.Any(f => f.Look.Blend != Blend.Normal)) LayPaper(canvas, visible);
        SceneCanvas.Draw(canvas, frames, visible, images.Take, images.Shown, boundShadows: true);
        canvas.Restore();
        if (marks) DrawMarks(canvas, page.Trim, sheet.MarkStart);
        document.EndPage();
    }

    /// <summary>White beneath it all: frames that are mixed with the bare paper would else be mixed with nothing, which looks otherwise. White prints no
    /// ink.</summary>
    private static void LayPaper(SKCanvas canvas, Box page)
    {
        using var white = new SKPaint { Color = SKColors.White };
        canvas.DrawRect((float)page.X, (float)page.Y, (float)page.Width, (float)page.Height, white);
    }

    private static double OnGrid(double length) => Math.Ceiling(length / Grid) * Grid;

    /// <summary>What a page is printed on; all in points.</summary>
    /// <param name="Bleed">How far beyond the trim is printed.</param>
    /// <param name="MarkStart">How far from the trim the crop marks begin.</param>
    /// <param name="Border">How far the sheet reaches beyond the trim.</param>
    /// <param name="Trim">Where the trimmed page lies on it.</param>
    private readonly record struct Sheet(double Bleed, double MarkStart, double Border, Box Trim)
    {
        public double Width => Trim.Width + 2 * Border;
        public double Height => Trim.Height + 2 * Border;

        /// <exception cref="EditRefused">It would be larger than a page of a PDF can be.</exception>
        public static Sheet Of(Setup setup, PdfOptions options)
        {
            double bleed = options.Bleed ? setup.Bleed : 0, markStart = Math.Max(bleed, MarkNearest), border = options.Marks ? markStart + MarkLength : bleed;
            var sheet = new Sheet(bleed, markStart, border, new(border, border, setup.PageWidth, setup.PageHeight));
            double longest = Math.Max(sheet.Width, sheet.Height);
            string what = options.Marks ? "the marks" : "the bleed";
            return longest <= Setup.LargestSide ? sheet
                : throw new EditRefused("marks", $"With {what} the sheet would be {Units.Text(longest, setup.Unit)}; " +
                    $"{Units.Text(Setup.LargestSide, setup.Unit)} (200 inches) is the most a PDF page can have. Leave {what} out, or make the page smaller.");
        }
    }

    private static IEnumerable<Spread> Spreads(Publication publication, int firstPage, int lastPage)
    {
        for (int i = Spread.IndexOfPage(publication, firstPage); i <= Spread.IndexOfPage(publication, lastPage); i++) yield return Spread.At(publication, i);
    }

    private static void DrawMarks(SKCanvas canvas, Box trim, double start)
    {
        using var paint = new SKPaint { Color = SKColors.Black, StrokeWidth = MarkWidth, IsStroke = true };
        double end = start + MarkLength;
        foreach (double x in new[] { trim.X, trim.Right })
        {
            canvas.DrawLine((float)x, (float)(trim.Y - end), (float)x, (float)(trim.Y - start), paint);
            canvas.DrawLine((float)x, (float)(trim.Bottom + start), (float)x, (float)(trim.Bottom + end), paint);
        }
        foreach (double y in new[] { trim.Y, trim.Bottom })
        {
            canvas.DrawLine((float)(trim.X - end), (float)y, (float)(trim.X - start), (float)y, paint);
            canvas.DrawLine((float)(trim.Right + start), (float)y, (float)(trim.Right + end), (float)y, paint);
        }
    }
}
