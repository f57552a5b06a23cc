using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;
using SkiaSharp;

namespace Formatum.Output;

/// <summary>Sharpening and blur done to the pixels of a picture, as the filters of <see cref="TreatmentFilter"/> do on the screen.</summary>
internal static class SoftPictures
{
    /// <summary>Where a deviation would be more pixels, the picture is worked out with fewer: neighbours then differ by two steps of 255 at most.</summary>
    private const double MostDeviation = 64;

    /// <summary>Where a deviation is less than a pixel, it is worked out with so many, so that a coarse picture is softened between its pixels too; but
    /// never with finer ones than so many points, as a picture of 300 ppi has.</summary>
    private const double FineDeviation = 4, FinestPixel = Units.PointsPerInch / SceneImages.SvgPrintPpi;

    /// <summary>No picture gets more pixels by that.</summary>
    private const double MostPixels = 24_000_000;

    /// <param name="drawable">The picture; it is taken over, whatever comes of it.</param>
    /// <param name="treatment">What is done to it.</param>
    /// <param name="placed">From the upright picture's unit square to points.</param>
    public static DrawableImage Done(DrawableImage drawable, Treatment treatment, Affine placed)
    {
        if (treatment.Sharpen is null && treatment.Blur == 0) return drawable;
        using (drawable)
        {
            var own = placed.After(drawable.ToUpright);
            // Points a pixel goes over, along each side of the picture.
            double across = own.ScaleX / drawable.Image.Width, down = own.ScaleY / drawable.Image.Height;
            int width = Side(drawable.Image.Width, across, treatment.BlurDeviation), height = Side(drawable.Image.Height, down, treatment.BlurDeviation);
            if ((double)width * height > Math.Max(MostPixels, (double)drawable.Image.Width * drawable.Image.Height))
                (width, height) = (drawable.Image.Width, drawable.Image.Height);
            double wider = across * drawable.Image.Width / width, taller = down * drawable.Image.Height / height;
            using var source = Fitting(drawable.Image, new(width, height, SKColorType.Rgba8888, SKAlphaType.Premul, SKColorSpace.CreateSrgb()));
            SKImageFilter? Filter() => FilterOf(treatment, deviation => ((float)(deviation / wider), (float)(deviation / taller)));
            return drawable with { Image = Filtered(source, Filter, drawable.Image.AlphaType == SKAlphaType.Opaque) };
        }
    }

    /// <summary>A band has no fewer rows: each is worked out with what lies around it.</summary>
    private const int LeastRows = 500;

    /// <summary>
    /// The picture through a filter, band by band on all cores; not multiplied by alpha. Each band has a filter of its own: the drawing library keeps what one
    /// came to for the next time, and takes it up where it is not the same.
    /// </summary>
    private static SKImage Filtered(SKImage source, Func<SKImageFilter?> filterOf, bool opaque)
    {
        var info = new SKImageInfo(source.Width, source.Height, SKColorType.Rgba8888, opaque ? SKAlphaType.Opaque : SKAlphaType.Unpremul,
            SKColorSpace.CreateSrgb());
        using var pixels = SKData.Create(info.BytesSize64);
        nint into = pixels.Data;
        int bands = Math.Clamp(source.Height / LeastRows, 1, Environment.ProcessorCount);
        Parallel.For(0, bands, band =>
        {
            int top = (int)((long)source.Height * band / bands), bottom = (int)((long)source.Height * (band + 1) / bands);
            var rows = info.WithSize(info.Width, bottom - top);
            using var surface = SKSurface.Create(rows.WithAlphaType(SKAlphaType.Premul));
            surface.Canvas.Clear(SKColors.Transparent);
            using var filter = filterOf();
            using var paint = new SKPaint { ImageFilter = filter, BlendMode = SKBlendMode.Src };
            surface.Canvas.DrawImage(source, 0, -top, SKSamplingOptions.Default, paint);
            if (!surface.ReadPixels(rows.WithAlphaType(SKAlphaType.Unpremul), into + (nint)top * info.RowBytes, info.RowBytes, 0, 0))
                throw new InvalidOperationException("The pixels of a filtered picture could not be read.");
        });
        return SKImage.FromPixels(info, pixels, info.RowBytes);
    }

    /// <summary>With how many pixels a side is worked out.</summary>
    private static int Side(int pixels, double points, double deviation)
    {
        if (deviation == 0) return pixels;
        double has = deviation / points, works = has >= 1 ? Math.Min(has, MostDeviation) : Math.Max(has, Math.Min(FineDeviation, deviation / FinestPixel));
        return (int)Math.Clamp(Math.Ceiling(pixels * works / has), 1, Math.Max(pixels, Vips.LongestDrawnSide));
    }

    /// <summary>The picture with so many pixels, each the mean of those it takes the place of, and multiplied by alpha, which filters rely on.</summary>
    private static SKImage Fitting(SKImage image, SKImageInfo info)
    {
        using var surface = SKSurface.Create(info);
        surface.Canvas.Clear(SKColors.Transparent);
        using var paint = new SKPaint { BlendMode = SKBlendMode.Src };
        var sampling = image.Width == info.Width && image.Height == info.Height ? SKSamplingOptions.Default
            : new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear);
        surface.Canvas.DrawImage(image, SKRect.Create(info.Width, info.Height), sampling, paint);
        return surface.Snapshot();
    }

    private static SKImageFilter? FilterOf(Treatment treatment, Func<double, (float Across, float Down)> pixels)
    {
        SKImageFilter? done = null;
        if (treatment.Sharpen is { } sharpen)
        {
            var soft = Softened(null, pixels(sharpen.Deviation));
            done = SKImageFilter.CreateArithmetic(0, (float)(1 + sharpen.Amount), (float)-sharpen.Amount, 0, enforcePMColor: true, soft, null);
        }
        return treatment.Blur > 0 ? Softened(done, pixels(treatment.BlurDeviation)) : done;
    }

    /// <summary>Blurred within the picture alone: what lies beyond its edges, or shows nothing, weighs nothing, and transparency stays.</summary>
    private static SKImageFilter Softened(SKImageFilter? from, (float Across, float Down) deviation)
    {
        var blurred = SKImageFilter.CreateBlur(deviation.Across, deviation.Down, SKShaderTileMode.Decal, from);
        var covering = SKColorFilter.CreateColorMatrix([1, 0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 0, 1]);
        return SKImageFilter.CreateBlendMode(SKBlendMode.SrcIn, null, SKImageFilter.CreateColorFilter(covering, blurred));
    }
}
