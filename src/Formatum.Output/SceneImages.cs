using Formatum.Core.Composing;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;
using SkiaSharp;

namespace Formatum.Output;

/// <summary>An image ready to draw, and the map from its own unit square to the upright image's.</summary>
public sealed record DrawableImage(SKImage Image, Affine ToUpright) : IDisposable
{
    public void Dispose() => Image.Dispose();
}

/// <summary>How the pixels of linked images are had for drawing.</summary>
public static class SceneImages
{
    /// <summary>Drawings without pixels of their own are printed at this resolution: common practice for print, no source.</summary>
    public const double SvgPrintPpi = 300;

    /// <summary>Whether the picture has no pixels of its own, and is drawn as large as it is placed.</summary>
    public static bool IsDrawnToSize(LinkedImage image) => image.Format == "svg";

    private const double MostSvgPixels = 60_000_000;

    /// <summary>On a raster no image is decoded to more pixels: 4 bytes each, and little more can be seen of it.</summary>
    private const double MostRasterPixels = 64_000_000;

    /// <exception cref="BadPicture">Files of linked images are gone; the message names them.</exception>
    public static void ThrowIfMissing(IEnumerable<LinkedImage> images)
    {
        var missing = images.Where(i => !PictureFile.IsThere(i.Path)).Select(i => i.Name).Distinct().ToList();
        if (missing.Count == 0) return;
        string named = string.Join(", ", missing.Take(5)) + (missing.Count > 5 ? $" and {missing.Count - 5} more" : "");
        throw new BadPicture($"{(missing.Count == 1 ? "A linked file is" : $"{missing.Count} linked files are")} missing: {named}. Put " +
            $"{(missing.Count == 1 ? "it back where it was" : "them back where they were")}, or ask for a proof, which shows previews in their place.");
    }

    /// <summary>
    /// The image as a PDF takes it: a JPEG in RGB or grey goes in byte for byte as it is compressed; of everything else, all the pixels.
    /// </summary>
    /// <param name="image">The linked image.</param>
    /// <param name="placed">From the unit square to the page, to know how large a drawing has to be drawn.</param>
    /// <param name="part">What is seen of it, in the unit square.</param>
    /// <param name="source">Where its pixels come from.</param>
    /// <param name="most">With how many pixels at most; null for all of them.</param>
    /// <exception cref="BadPicture">The file is gone, or no longer the picture it was.</exception>
    public static DrawableImage ForPrint(LinkedImage image, Affine placed, Box part, PixelSource source, (int Width, int Height)? most = null)
    {
        if (StandIn(image, source) is { } standIn) return standIn;
        if (most is var (width, height)) return Decoded(image, width, height, part, source);
        if (image.Format == "jpeg" && image.Colour is "RGB" or "grey")
        {
            using var data = JpegData(image);
            var encoded = SKImage.FromEncodedData(data);
            if (encoded is not null && encoded.Width == image.StoredWidthPx && encoded.Height == image.StoredHeightPx)
                return new(encoded, Orientation.ToUpright(image.Orientation));
            encoded?.Dispose();
            throw Changed(image);
        }
        if (!IsDrawnToSize(image)) return Decoded(image, image.WidthPx, image.HeightPx, part, source);
        double pixels = (double)image.WidthPx * image.HeightPx;
        double wanted = Math.Sqrt(Math.Abs(placed.Determinant) / pixels) * SvgPrintPpi / Units.PointsPerInch;
        double scale = Math.Clamp(wanted, 1 / Math.Sqrt(pixels), Math.Sqrt(MostSvgPixels / (pixels * Seen(part))));
        return Decoded(image, Pixels(image.WidthPx * scale), Pixels(image.HeightPx * scale), part, source);
    }

    /// <summary>The image with about as many pixels as it covers on a raster.</summary>
    /// <param name="image">The linked image.</param>
    /// <param name="onRaster">From the unit square to the raster's pixels.</param>
    /// <param name="part">What is seen of it, in the unit square.</param>
    /// <param name="source">Where its pixels come from.</param>
    /// <exception cref="BadPicture">The file is gone, or no longer the picture it was.</exception>
    public static DrawableImage ForRaster(LinkedImage image, Affine onRaster, Box part, PixelSource source)
    {
        if (StandIn(image, source) is { } standIn) return standIn;
        double across = onRaster.ScaleX, down = onRaster.ScaleY;
        if (source.PreviewsServe && Preview(image, Math.Max(across, down), source) is { } preview) return preview;
        double had = Math.Max(1, across * down * (IsDrawnToSize(image) ? Seen(part) : 1));
        double scale = Math.Min(1, Math.Sqrt(MostRasterPixels / had));
        return Decoded(image, Pixels(across * scale), Pixels(down * scale), part, source);
    }

    /// <summary>Whether a picture has one channel where it is printed: greys that no treatment gives a colour, or what a treatment makes grey.</summary>
    internal static bool IsGrey(SceneImage image) => image.Treatment is not { } treatment ? image.Source.Colour == "grey"
        : treatment.MakesGrey || (image.Source.Colour == "grey" && treatment.KeepsGrey);

    /// <summary>Whether greys are meant as a profile of the picture's own says; others are as they are on a screen.</summary>
    internal static bool HasOwnGreys(PictureSamples samples) => samples.Kind == SampleKind.Grey && samples.Profile is { } profile && IsOfGreys(profile);

    internal static bool IsOfGreys(byte[] profile) => new ColourProfile("", profile) is { IsWhole: true, Parts: 1 };

    /// <summary>A picture is not reduced for less than this, in times of the resolution that is asked for.</summary>
    private const double WorthReducing = 1.1;

    /// <summary>With how many pixels a picture goes into an output that has more than were asked for; null for all of its own.</summary>
    /// <param name="image">The picture.</param>
    /// <param name="placed">From its unit square to points.</param>
    /// <param name="mostPpi">The most it may have on an inch; null for as many as there are.</param>
    internal static (int Width, int Height)? Reduced(LinkedImage image, Affine placed, double? mostPpi)
    {
        if (mostPpi is not { } most) return null;
        double fine = most / Units.PointsPerInch;
        double scale = Math.Max(placed.ScaleX * fine / image.WidthPx, placed.ScaleY * fine / image.HeightPx);
        return scale * WorthReducing >= 1 ? null : (Pixels(image.WidthPx * scale), Pixels(image.HeightPx * scale));
    }

    /// <summary>The share of a picture that is seen, never quite nothing.</summary>
    private static double Seen(Box part) => Math.Max(part.Area, 1e-6);

    private static DrawableImage? StandIn(LinkedImage image, PixelSource source)
    {
        if (PictureFile.IsThere(image.Path) || source.Preview(image, PreviewStore.Sizes[^1]) is not { } path) return null;
        using var data = SKData.Create(path);
        return new(SKImage.FromEncodedData(data), Affine.Identity);
    }

    /// <summary>The smallest preview whose longer side has so many pixels, or that shows all there are; null where there is none.</summary>
    private static DrawableImage? Preview(LinkedImage image, double pixels, PixelSource source)
    {
        int longest = Math.Max(image.WidthPx, image.HeightPx);
        foreach (int size in PreviewStore.Sizes)
        {
            if (size < Math.Min(pixels, IsDrawnToSize(image) ? double.PositiveInfinity : longest)
                || source.Preview(image, size) is not { } path) continue;
            using var data = SKData.Create(path);
            return new(SKImage.FromEncodedData(data), Affine.Identity);
        }
        return null;
    }

    /// <summary>The image with a treatment done to its pixels; it is taken over, whatever comes of it.</summary>
    /// <param name="drawable">The image.</param>
    /// <param name="treatment">What is done to it; null for nothing.</param>
    /// <param name="placed">From the upright image's unit square to points.</param>
    public static DrawableImage Treated(DrawableImage drawable, Treatment? treatment, Affine placed)
    {
        if (treatment is null) return drawable;
        drawable = SoftPictures.Done(drawable, treatment, placed);
        if (treatment with { Sharpen = null, Blur = 0 } == Treatment.None) return drawable;
        using (drawable)
        {
            var info = new SKImageInfo(drawable.Image.Width, drawable.Image.Height, SKColorType.Rgba8888,
                drawable.Image.AlphaType == SKAlphaType.Opaque ? SKAlphaType.Opaque : SKAlphaType.Unpremul, SKColorSpace.CreateSrgb());
            using var pixels = SKData.Create(info.BytesSize64);
            if (!drawable.Image.ReadPixels(info, pixels.Data, info.RowBytes, 0, 0)) throw new BadPicture("Its pixels could not be read. Link it anew.");
            new PixelTreatment(treatment).Apply(pixels.Span);
            return drawable with { Image = SKImage.FromPixels(info, pixels, info.RowBytes) };
        }
    }

    private static int Pixels(double length) => (int)Math.Clamp(Math.Ceiling(length), 1, Vips.LongestDrawnSide);

    /// <summary>The picture in its own colours.</summary>
    /// <exception cref="BadPicture">The file is gone, or no longer the picture it was.</exception>
    internal static PictureSamples Samples(LinkedImage image, SampleWish wish, PixelSource source)
    {
        if (!PictureFile.IsThere(image.Path)) throw Gone(image);
        return Named(image, () => (source.Reader ?? PictureRaster.Here).Samples(image, wish));
    }

    /// <summary>A drawing as lines and areas; null for whatever else, or where it has to be pixels.</summary>
    internal static Drawing? AsLines(LinkedImage image, PixelSource source) => IsDrawnToSize(image) && PictureFile.IsThere(image.Path)
        ? Named(image, () => (source.Reader ?? PictureRaster.Here).Drawing(image)) : null;

    private static DrawableImage Decoded(LinkedImage image, int widthPx, int heightPx, Box part, PixelSource source)
    {
        if (!PictureFile.IsThere(image.Path)) throw Gone(image);
        var raster = Named(image, () => (source.Reader ?? PictureRaster.Here).Pixels(image, widthPx, heightPx, part, source.Press?.Source));
        var info = new SKImageInfo(raster.Width, raster.Height, SKColorType.Rgba8888, raster.HasAlpha ? SKAlphaType.Unpremul : SKAlphaType.Opaque,
            SKColorSpace.CreateSrgb());
        using var data = SKData.CreateCopy(raster.Rgba);
        var covers = raster.Covers;
        return new(SKImage.FromPixels(info, data, info.RowBytes), new(covers.Width, 0, 0, covers.Height, covers.X, covers.Y));
    }

    /// <summary>Reads, and names the picture where that fails.</summary>
    private static T Named<T>(LinkedImage image, Func<T> read)
    {
        try
        {
            return read();
        }
        catch (BadPicture e)
        {
            throw new BadPicture($"{image.Name}: {e.Message}", e);
        }
        catch (IOException e)
        {
            // Its pixels found no room on their way here: no fault of the picture.
            throw new NotWritten(e);
        }
    }

    /// <summary>The file's bytes; with its orientation cleared where it has one, for the matrix turns it upright.</summary>
    private static SKData JpegData(LinkedImage image)
    {
        try
        {
            if (image.Orientation == 1 && SKData.Create(image.Path) is { } mapped) return mapped;
            var bytes = File.ReadAllBytes(image.Path);
            JpegOrientation.Clear(bytes);
            return SKData.CreateCopy(bytes);
        }
        catch (IOException)
        {
            throw Gone(image);
        }
    }

    internal static BadPicture Gone(LinkedImage image) => new($"{image.Name} is no longer where it was linked. Put the file back, or link it anew.");

    internal static BadPicture Changed(LinkedImage image) => new($"{image.Name} is no longer the picture that was linked. Link it anew.");
}
