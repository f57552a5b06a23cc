using NetVips;

namespace Formatum.Imaging;

/// <summary>Pixels that were made here, on their way into a file for print.</summary>
public static class PressPixels
{
    /// <summary>sRGB of three bytes a pixel as inks of four, by the profile of a press.</summary>
    public static byte[] ToInks(byte[] rgb, int width, int height, ColourProfile press)
    {
        using var image = Meant(rgb, width, height, SampleKind.Rgb);
        using var inks = image.IccTransform(press.Source, intent: Enums.Intent.Relative, blackPointCompensation: true, inputProfile: ColourProfile.Srgb.Source,
            depth: 8);
        return inks.WriteToMemory<byte>();
    }

    /// <summary>Inks of four bytes a pixel as they look once printed, as sRGB of three.</summary>
    public static byte[] OnScreen(byte[] inks, int width, int height, ColourProfile press)
    {
        using var image = Meant(inks, width, height, SampleKind.Inks);
        using var shown = image.IccTransform(ColourProfile.Srgb.Source, intent: Enums.Intent.Relative, blackPointCompensation: true, inputProfile: press.Source,
            depth: 8);
        return shown.WriteToMemory<byte>();
    }

    /// <summary>Samples as a JPEG file, every pixel with its own colour; inks are stored the other way round, as the file says.</summary>
    /// <param name="samples">Grey, RGB or inks, without alpha.</param>
    /// <param name="width">In pixels.</param>
    /// <param name="height">In pixels.</param>
    /// <param name="kind">What the samples are.</param>
    /// <param name="quality">1 to 100.</param>
    public static byte[] Jpeg(byte[] samples, int width, int height, SampleKind kind, int quality)
    {
        using var image = Meant(samples, width, height, kind);
        return image.JpegsaveBuffer(q: quality, subsampleMode: Enums.ForeignSubsample.Off, keep: Enums.ForeignKeep.None);
    }

    private static Image Meant(byte[] samples, int width, int height, SampleKind kind)
    {
        Vips.Prepare();
        using var plain = Image.NewFromMemoryCopy(samples, width, height, PictureSamples.PartsOf(kind), Enums.BandFormat.Uchar);
        return plain.Copy(interpretation: kind switch
        {
            SampleKind.Grey => Enums.Interpretation.Bw,
            SampleKind.Inks => Enums.Interpretation.Cmyk,
            _ => Enums.Interpretation.Srgb,
        });
    }
}
