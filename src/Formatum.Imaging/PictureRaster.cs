using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using NetVips;

namespace Formatum.Imaging;

/// <summary>Has the pixels of linked pictures.</summary>
public interface IPixelReader
{
    /// <summary>Decodes a picture, reduced while reading where it has more pixels than asked for. A drawing is drawn at just this size.</summary>
    /// <param name="image">The linked image.</param>
    /// <param name="widthPx">Most pixels across wanted of the whole.</param>
    /// <param name="heightPx">Most pixels down wanted.</param>
    /// <param name="part">What will be seen of it, in the unit square of the upright picture. Of a drawing no more is drawn.</param>
    /// <param name="press">The profile of the press whose inks a picture in inks shows, by its source; null for the general one.</param>
    /// <exception cref="BadPicture">The file is gone, or no longer the picture it was; the message does not name it.</exception>
    PictureRaster Pixels(LinkedImage image, int widthPx, int heightPx, Box part, string? press = null);

    /// <summary>Decodes a picture in its own colours. Not for drawings.</summary>
    /// <param name="image">The linked image.</param>
    /// <param name="wish">How many pixels, and which colours.</param>
    /// <exception cref="BadPicture">The file is gone, or no longer the picture it was; the message does not name it.</exception>
    PictureSamples Samples(LinkedImage image, SampleWish wish);

    /// <summary>A drawing as lines and areas.</summary>
    /// <param name="image">The linked image, an SVG.</param>
    /// <returns>The drawing; null where it can only be shown as pixels.</returns>
    /// <exception cref="BadPicture">The file is gone, or no longer the picture it was; the message does not name it.</exception>
    Drawing? Drawing(LinkedImage image);
}

/// <summary>The pixels of a picture, upright, sRGB with straight alpha: four bytes a pixel, rows from the top.</summary>
/// <param name="Covers">What of the picture they show, in its unit square.</param>
public sealed record PictureRaster(int Width, int Height, bool HasAlpha, Box Covers, byte[] Rgba)
{
    /// <summary>Reads pictures in this process.</summary>
    public static IPixelReader Here { get; } = new ReaderHere();

    private sealed class ReaderHere : IPixelReader
    {
        public PictureRaster Pixels(LinkedImage image, int widthPx, int heightPx, Box part, string? press) => Decode(image, new(widthPx, heightPx, press), part,
            (pixels, alpha, covers) => new PictureRaster(pixels.Width, pixels.Height, alpha, covers, pixels.WriteToMemory<byte>()));

        public PictureSamples Samples(LinkedImage image, SampleWish wish) => PictureSamples.Decode(image, wish,
            (samples, kind, alpha, profile) => new PictureSamples(samples.Width, samples.Height, kind, alpha, profile, samples.WriteToMemory<byte>()));

        public Drawing? Drawing(LinkedImage image) => DrawingReader.Read(image);
    }

    /// <summary>Decodes as <see cref="IPixelReader.Pixels"/> says, and gives the pixels, still to be computed, to whoever takes them.</summary>
    internal static T Decode<T>(LinkedImage image, SampleWish wish, Box part, Func<Image, bool, Box, T> take)
    {
        try
        {
            var (read, covers) = image.Format == "svg" ? Vips.Drawn(image.Path, wish.WidthPx, wish.HeightPx, part)
                : (Vips.Reduced(image.Path, image.Format, Math.Max(1, wish.WidthPx), Math.Max(1, wish.HeightPx), wish.Press), new(0, 0, 1, 1));
            using var whole = read;
            using var bytes = read.Cast(Enums.BandFormat.Uchar);
            using var rgb = bytes.Bands >= 3 ? bytes.Copy() : bytes.Colourspace(Enums.Interpretation.Srgb);
            bool alpha = rgb.HasAlpha();
            using var rgba = alpha ? rgb.Copy() : rgb.Bandjoin(255);
            return take(rgba, alpha, covers);
        }
        catch (VipsException e) when (Vips.IsFull(e))
        {
            throw new IOException("The disk is full.", e);
        }
        catch (VipsException e)
        {
            throw new BadPicture("It can no longer be read as a picture. Look at its file, or link it anew.", e);
        }
    }
}
