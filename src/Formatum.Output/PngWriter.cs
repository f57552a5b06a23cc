using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;
using SkiaSharp;

namespace Formatum.Output;

/// <summary>Pages as PNG.</summary>
public static class PngWriter
{
    public const double SmallestPpi = 9, LargestPpi = 1200;
    public const int MostPixels = 200_000_000;

    /// <summary>A page cut at its trim.</summary>
    /// <param name="scene">The scene of the page's spread.</param>
    /// <param name="page">The page.</param>
    /// <param name="ppi">Pixels per inch, 9 to 1200.</param>
    /// <param name="stream">Takes the PNG.</param>
    /// <param name="source">Where the pixels of pictures come from; null for this process.</param>
    /// <param name="mostPixels">The picture has no more pixels.</param>
    /// <param name="cancel">Says that nobody wants it any more.</param>
    /// <exception cref="EditRefused">The resolution is out of range, or comes to too many pixels.</exception>
    /// <exception cref="BadPicture">A linked file is gone or no longer a picture.</exception>
    public static void Page(Scene scene, PlacedPage page, double ppi, Stream stream, PixelSource? source = null,
        int mostPixels = MostPixels, CancellationToken cancel = default)
    {
        if (!(ppi >= SmallestPpi && ppi <= LargestPpi)) throw new EditRefused("ppi", $"Give a resolution from {SmallestPpi} to {LargestPpi} ppi.");
        double scale = ppi / Units.PointsPerInch;
        int width = Math.Max(1, (int)Math.Round(page.Trim.Width * scale)), height = Math.Max(1, (int)Math.Round(page.Trim.Height * scale));
        if ((long)width * height > mostPixels)
            throw new EditRefused("ppi", $"At {ppi} ppi this page has {width} x {height} pixels; {mostPixels / 1_000_000} megapixels is the most. Ask for " +
                $"a lower resolution.");

        using var surface = SKSurface.Create(new SKImageInfo(width, height, SKColorType.Rgba8888, SKAlphaType.Premul, SKColorSpace.CreateSrgb()));
        var canvas = surface.Canvas;
        canvas.Clear(SKColors.White);
        canvas.Scale((float)scale);
        canvas.Translate((float)-page.Trim.X, (float)-page.Trim.Y);
        // Drawn at once on a raster, so each image can go before the next comes.
        DrawableImage? held = null;
        try
        {
            SceneCanvas.Draw(canvas, SceneCanvas.Visible(scene, page.Trim), page.Trim,
                (image, placed, part) =>
                {
                    cancel.ThrowIfCancellationRequested();
                    return held = SceneImages.Treated(SceneImages.ForRaster(image.Source, Affine.Scaling(scale, scale).After(placed), part,
                        source ?? PixelSource.Plain), image.Treatment, placed);
                },
                _ => held?.Dispose());
        }
        finally
        {
            held?.Dispose();
        }
        using var picture = surface.Snapshot();
        using var png = picture.Encode(SKEncodedImageFormat.Png, 100);
        png.SaveTo(stream);
    }
}
