using System.Collections.Immutable;
using Formatum.Core.Comparing;
using Formatum.Core.Geometry;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Exceptions;
using UglyToad.PdfPig.Tokens;

namespace Formatum.Documents;

/// <summary>A page of a PDF.</summary>
/// <param name="Trim">Its trim, in points from the upper left of what viewers show of it, turned as they turn it.</param>
/// <param name="Contents">What is on it.</param>
public sealed record PdfPage(Box Trim, PageContents Contents);

/// <summary>Reads what is on the pages of a PDF, whoever made it.</summary>
public static class PdfPages
{
    /// <summary>More pages are not read; of a page no more words, and lines and areas, than these.</summary>
    public const int MostPages = 2000, MostWords = 50_000, MostDrawn = 20_000;

    /// <summary>A picture of so few pixels is a colour laid through a mask, such as a shadow.</summary>
    private const int FewPixels = 4;

    /// <param name="path">The file.</param>
    /// <param name="next">Told before each page.</param>
    /// <exception cref="BadPdf">It is none, is locked, or has too many pages.</exception>
    public static IReadOnlyList<PdfPage> Read(string path, Action? next = null)
    {
        try
        {
            using var document = PdfDocument.Open(path, new() { SkipMissingFonts = true });
            if (document.NumberOfPages > MostPages)
                throw new BadPdf($"It has {document.NumberOfPages} pages; {MostPages} is the most. Split it.");
            var pages = new List<PdfPage>();
            for (int number = 1; number <= document.NumberOfPages; number++)
            {
                next?.Invoke();
                pages.Add(PageOf(document.GetPage(number)));
            }
            return pages.Count > 0 ? pages : throw new BadPdf("It has no pages. Save it again in the program it was made with.");
        }
        catch (PdfDocumentEncryptedException)
        {
            throw new BadPdf("It is locked by a password. Save it without one.");
        }
        catch (Exception e) when (e is not (BadPdf or OutOfMemoryException))
        {
            // Its reader meets broken files with exceptions of many kinds.
            throw new BadPdf("It cannot be read as a PDF. Save it again in the program it was made with.");
        }
    }

    private static PdfPage PageOf(Page page)
    {
        var trim = TrimOf(page);
        // What stands beside the trim is cut away: marks, and words for the printer.
        bool IsKept(Box box) => box.Right > 0 && box.Bottom > 0 && box.X < trim.Width && box.Y < trim.Height;
        var crop = page.CropBox.Bounds;
        double height = page.Rotation.SwapsAxis ? crop.Width : crop.Height;
        Box Shown(PdfRectangle box) => BoxOf(box, height).Moved(-trim.X, -trim.Y);
        ImmutableArray<PlacedPicture> pictures = [.. page.GetImages().Where(i => !i.IsImageMask && (long)i.WidthInSamples * i.HeightInSamples > FewPixels
            && IsKept(Shown(i.BoundingBox))).Select(i => new PlacedPicture(Shown(i.BoundingBox), PictureGreys.Of(i)))];
        ImmutableArray<Box> drawn = [.. page.Paths.Where(p => !p.IsClipping && (p.IsFilled || p.IsStroked)).Select(p => p.GetBoundingRectangle())
            .OfType<PdfRectangle>().Select(Shown).Where(IsKept).Take(MostDrawn)];
        return new(trim, new(trim.Width, trim.Height, [.. PdfWords.Of(page.Letters, Shown).Where(w => IsKept(w.Box))], pictures, drawn));
    }

    /// <summary>Its trim as viewers show it (ISO 32000-2, 14.11.2; rotation clockwise: 7.7.3.3). Without one it is what is shown.</summary>
    private static Box TrimOf(Page page)
    {
        var crop = page.CropBox.Bounds;
        var trim = page.Dictionary.TryGet(NameToken.TrimBox, out ArrayToken array) && array.Data is [NumericToken a, NumericToken b, NumericToken c,
            NumericToken d] ? Box.Between(new(a.Double, b.Double), new(c.Double, d.Double))
            : new Box(crop.Left, crop.Bottom, crop.Width, crop.Height);
        var upright = trim with { X = trim.X - crop.Left, Y = crop.Top - trim.Bottom };
        return page.Rotation.Value switch
        {
            90 => new(crop.Height - upright.Bottom, upright.X, upright.Height, upright.Width),
            180 => new(crop.Width - upright.Right, crop.Height - upright.Bottom, upright.Width, upright.Height),
            270 => new(upright.Y, crop.Width - upright.Right, upright.Height, upright.Width),
            _ => upright,
        };
    }

    /// <summary>A box, which may stand askew, from the upper left of what is shown.</summary>
    private static Box BoxOf(PdfRectangle box, double height)
    {
        double[] across = [box.TopLeft.X, box.TopRight.X, box.BottomLeft.X, box.BottomRight.X];
        double[] up = [box.TopLeft.Y, box.TopRight.Y, box.BottomLeft.Y, box.BottomRight.Y];
        return Box.Between(new(across.Min(), height - up.Max()), new(across.Max(), height - up.Min()));
    }
}
