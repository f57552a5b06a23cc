using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Imaging;
using SkiaSharp;

namespace Formatum.Output;

/// <summary>Pages and spreads as pixels.</summary>
public static class PageRaster
{
    public const double SmallestPpi = 9, LargestPpi = 1200;
    public const int MostPixels = 200_000_000;

    /// <summary>What a scene shows within a box, on white.</summary>
    /// <param name="scene">The scene.</param>
    /// <param name="trim">The box, in the spread's points.</param>
    /// <param name="ppi">Pixels per inch, 9 to 1200.</param>
    /// <param name="source">Where the pixels of pictures come from; null for this process.</param>
    /// <param name="mostPixels">The picture has no more pixels.</param>
    /// <param name="cancel">Says that nobody wants it any more.</param>
    /// <exception cref="EditRefused">The resolution is out of range, or comes to too many pixels.</exception>
    /// <exception cref="BadPicture">A linked file is gone or no longer a picture.</exception>
    public static SKImage Draw(Scene scene, Box trim, double ppi, PixelSource? source = null, int mostPixels = MostPixels,
        CancellationToken cancel = default) => Draw(scene, trim, ppi, mostPixels, CanvasInk.Screen, source ?? PixelSource.Plain, cancel);

    /// <summary>The same, with colours shown otherwise; pictures are as a screen shows them.</summary>
    internal static SKImage Draw(Scene scene, Box trim, double ppi, int mostPixels, CanvasInk ink, PixelSource source, CancellationToken cancel)
    {
        double scale = ppi / Units.PointsPerInch;
        // Drawn at once on a raster, so each image can go before the next comes.
        DrawableImage? held = null;
        try
        {
            return Draw(scene, trim, ppi, mostPixels, ink, (image, placed, part) =>
            {
                cancel.ThrowIfCancellationRequested();
                var drawable = SceneImages.ForRaster(image.Source, Affine.Scaling(scale, scale).After(placed), part, source);
                return held = SceneImages.Treated(drawable, image.Treatment, placed);
            }, _ => held?.Dispose());
        }
        finally
        {
            held?.Dispose();
        }
    }

    /// <summary>The same, with pictures that the caller gives and takes back.</summary>
    internal static SKImage Draw(Scene scene, Box trim, double ppi, int mostPixels, CanvasInk ink, Func<SceneImage, Affine, Box, DrawableImage> take,
        Action<SceneImage> release)
    {
        var (width, height) = Size(trim, ppi, mostPixels);
        using var surface = SKSurface.Create(new SKImageInfo(width, height, SKColorType.Rgba8888, SKAlphaType.Premul, SKColorSpace.CreateSrgb()));
        var canvas = surface.Canvas;
        canvas.Clear(SKColors.White);
        canvas.Scale((float)(ppi / Units.PointsPerInch));
        canvas.Translate((float)-trim.X, (float)-trim.Y);
        SceneCanvas.Draw(canvas, SceneCanvas.Visible(scene, trim), trim, take, release, ink);
        return surface.Snapshot();
    }

    /// <summary>How many pixels that comes to.</summary>
    /// <exception cref="EditRefused">The resolution is out of range, or comes to too many pixels.</exception>
    public static (int Width, int Height) Size(Box trim, double ppi, int mostPixels = MostPixels)
    {
        if (!(ppi >= SmallestPpi && ppi <= LargestPpi)) throw new EditRefused("ppi", $"Give a resolution from {SmallestPpi} to {LargestPpi} ppi.");
        double scale = ppi / Units.PointsPerInch;
        int width = Math.Max(1, (int)Math.Round(trim.Width * scale)), height = Math.Max(1, (int)Math.Round(trim.Height * scale));
        return (long)width * height <= mostPixels ? (width, height)
            : throw new EditRefused("ppi", $"At {ppi} ppi this page has {width} x {height} pixels; {mostPixels / 1_000_000} megapixels is the most. Ask for " +
                $"a lower resolution.");
    }
}
