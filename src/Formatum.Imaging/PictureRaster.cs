using Formatum.Core.Publications;
using NetVips;

namespace Formatum.Imaging;

/// <summary>The pixels of a picture, upright, sRGB with straight alpha: four bytes a pixel, rows from the top.</summary>
public sealed record PictureRaster(int Width, int Height, bool HasAlpha, byte[] Rgba)
{
    /// <summary>Decodes a picture, reduced while reading where it has more pixels than asked for.</summary>
    /// <param name="image">The linked image; its file must be there.</param>
    /// <param name="widthPx">Most pixels across wanted; a drawing is drawn at just this size.</param>
    /// <param name="heightPx">Most pixels down wanted.</param>
    /// <exception cref="BadPicture">The file is gone, or no longer the picture it was.</exception>
    public static PictureRaster Decode(LinkedImage image, int widthPx, int heightPx)
    {
        try
        {
            using var read = Vips.Reduced(image.Path, image.Format, Math.Max(1, widthPx), Math.Max(1, heightPx));
            using var bytes = read.Cast(Enums.BandFormat.Uchar);
            using var rgb = bytes.Bands >= 3 ? bytes.Copy() : bytes.Colourspace(Enums.Interpretation.Srgb);
            bool alpha = rgb.HasAlpha();
            using var rgba = alpha ? rgb.Copy() : rgb.Bandjoin(255);
            return new(rgba.Width, rgba.Height, alpha, rgba.WriteToMemory<byte>());
        }
        catch (VipsException e)
        {
            throw new BadPicture($"{image.Name} can no longer be read as a picture. Look at its file, or link it anew.", e);
        }
    }
}
