using Formatum.Imaging;
using SkiaSharp;

namespace Formatum.Output;

/// <summary>Pixels taken apart.</summary>
internal static class PixelParts
{
    /// <summary>Colours and cover apart.</summary>
    public static (byte[] Plain, byte[]? Cover) Apart(byte[] samples, int parts, bool hasCover)
    {
        if (!hasCover) return (samples, null);
        int count = samples.Length / (parts + 1);
        byte[] plain = new byte[count * parts], cover = new byte[count];
        for (int i = 0, from = 0, to = 0; i < count; i++)
        {
            for (int part = 0; part < parts; part++) plain[to++] = samples[from++];
            cover[i] = samples[from++];
        }
        return (plain, cover);
    }

    /// <summary>The sRGB of an image, and how much each pixel covers; null where all cover.</summary>
    public static (byte[] Rgb, byte[]? Cover) Of(SKImage image)
    {
        bool opaque = image.AlphaType == SKAlphaType.Opaque;
        var info = new SKImageInfo(image.Width, image.Height, SKColorType.Rgba8888, opaque ? SKAlphaType.Opaque : SKAlphaType.Unpremul,
            SKColorSpace.CreateSrgb());
        byte[] rgba = new byte[info.BytesSize];
        unsafe
        {
            fixed (byte* into = rgba)
                if (!image.ReadPixels(info, (nint)into, info.RowBytes, 0, 0)) throw new BadPicture("Its pixels could not be read. Link it anew.");
        }
        var (rgb, cover) = Apart(rgba, 3, true);
        return (rgb, opaque ? null : cover);
    }

    public static byte[] FirstOf(byte[] rgb)
    {
        byte[] grey = new byte[rgb.Length / 3];
        for (int i = 0; i < grey.Length; i++) grey[i] = rgb[3 * i];
        return grey;
    }
}
