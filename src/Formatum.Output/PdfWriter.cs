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
    /// <param name="previews">Where a proof finds what it shows for missing files.</param>
    /// <param name="options">Marks, bleed, proof.</param>
    /// <param name="path">The file to write; what is there is replaced.</param>
    /// <param name="firstPage">First page, from 1.</param>
    /// <param name="lastPage">Last page; null for the publication's last.</param>
    /// <exception cref="EditRefused">There are no such pages.</exception>
    /// <exception cref="BadPicture">A linked file is gone or no longer a picture.</exception>
    public static void Write(Publication publication, PreviewStore previews, PdfOptions options, string path, int firstPage = 1, int? lastPage = null)
    {
        int last = lastPage ?? publication.PageCount;
        if (firstPage < 1 || last > publication.PageCount || firstPage > last)
            throw new EditRefused("pages", $"There are no pages {firstPage} to {last}; the publication has pages 1 to {publication.PageCount}.");
        var setup = publication.Setup;
        double bleed = options.Bleed ? setup.Bleed : 0;
        double markStart = Math.Max(bleed, MarkNearest), border = options.Marks ? markStart + MarkLength : bleed;
        double mediaWidth = setup.PageWidth + 2 * border, mediaHeight = setup.PageHeight + 2 * border;
        if (Math.Max(mediaWidth, mediaHeight) > Setup.LargestSide)
            throw new EditRefused("marks", $"With {(options.Marks ? "marks" : "the bleed")} the sheet would be " +
                $"{Units.Text(Math.Max(mediaWidth, mediaHeight), setup.Unit)}; {Units.Text(Setup.LargestSide, setup.Unit)} (200 inches) is the most a PDF " +
                $"page can have. Leave {(options.Marks ? "the marks" : "the bleed")} out, or make the page smaller.");
        double canvasWidth = Math.Ceiling(mediaWidth / Grid) * Grid, canvasHeight = Math.Ceiling(mediaHeight / Grid) * Grid;

        var pages = Spreads(publication, firstPage, last).SelectMany(spread => spread.Pages.Where(p => p.Number >= firstPage && p.Number <= last)
            .Select(page => (Spread: spread, Page: page)))
            .OrderBy(p => p.Page.Number).ToList();
        // The pages of a spread come one after the other: what is composed for one serves the other.
        (Spread? Spread, Scene? Scene) composed = default;
        Scene SceneOf(Spread spread)
        {
            if (!ReferenceEquals(composed.Spread, spread)) composed = (spread, Composer.Compose(publication, spread, Typefaces.Shipped));
            return composed.Scene!;
        }
        // An image is kept until it was shown for the last time, so that the library knows it again and writes it once.
        var shown = pages.SelectMany(p => SceneCanvas.Visible(SceneOf(p.Spread), p.Page.Trim.Grown(bleed))).Select(f => f.Image?.Source).OfType<LinkedImage>()
            .ToList();
        var usesLeft = shown.GroupBy(i => i.Id).ToDictionary(g => g.Key, g => g.Count());
        if (!options.Proof) SceneImages.ThrowIfMissing(shown);
        var kept = new Dictionary<(int Id, Affine Placed), DrawableImage>();
        try
        {
            using var stream = new SKFileWStream(path);
            // Above 100 the library would not compress again what it cannot pass through: such pixels go in without loss.
            var metadata = new SKDocumentPdfMetadata
            {
                Title = setup.Name,
                Creator = "Formatum",
                Producer = "Formatum",
                RasterDpi = 300,
                EncodingQuality = 101
            };
            using var document = SKDocument.CreatePdf(stream, metadata);
            foreach (var (spread, page) in pages)
            {
                var visible = page.Trim.Grown(bleed);
                var canvas = document.BeginPage((float)canvasWidth, (float)canvasHeight);
                // PDF counts from the lower left: leave what the canvas has too much at the top and the right.
                canvas.Translate((float)(border - page.Trim.X), (float)(border - page.Trim.Y + canvasHeight - mediaHeight));
                canvas.Save();
                canvas.ClipRect(SKRect.Create((float)visible.X, (float)visible.Y, (float)visible.Width, (float)visible.Height));
                SceneCanvas.Draw(canvas, SceneCanvas.Visible(SceneOf(spread), visible), (image, placed) =>
                    {
                        // Drawn pictures have the pixels of their place; all others have their own, and are written once.
                        var key = (image.Source.Id, SceneImages.IsDrawnToSize(image.Source) ? placed with { E = 0, F = 0 } : default);
                        return kept.TryGetValue(key, out var known) ? known : kept[key] = SceneImages.ForPrint(image.Source, placed, options.Proof ? previews
                            : null);
                    },
                    image =>
                    {
                        if (--usesLeft[image.Source.Id] > 0) return;
                        foreach (var key in kept.Keys.Where(k => k.Id == image.Source.Id).ToList())
                            if (kept.Remove(key, out var done)) done.Dispose();
                    }, boundShadows: true);
                canvas.Restore();
                if (options.Marks) DrawMarks(canvas, page.Trim, markStart);
                document.EndPage();
            }
            document.Close();
        }
        finally
        {
            foreach (var drawable in kept.Values) drawable.Dispose();
        }
        var media = new Box(0, 0, mediaWidth, mediaHeight);
        var trim = new Box(border, border, setup.PageWidth, setup.PageHeight);
        PdfBoxes.Set(path, media, trim.Grown(bleed), trim);
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
