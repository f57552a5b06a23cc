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
    public static SKImage Draw(Scene scene, Box trim, double ppi, PixelSource? source = null, int mostPixels = MostPixels, CancellationToken cancel = default)
    {
        var (width, height) = Size(trim, ppi, mostPixels);
        double scale = ppi / Units.PointsPerInch;
        using var surface = SKSurface.Create(new SKImageInfo(width, height, SKColorType.Rgba8888, SKAlphaType.Premul, SKColorSpace.CreateSrgb()));
        var canvas = surface.Canvas;
        canvas.Clear(SKColors.White);
        canvas.Scale((float)scale);
        canvas.Translate((float)-trim.X, (float)-trim.Y);
        // Drawn at once on a raster, so each image can go before the next comes.
        DrawableImage? held = null;
        try
        {
            SceneCanvas.Draw(canvas, SceneCanvas.Visible(scene, trim), trim,
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
