using NetVips;

namespace Formatum.Imaging;

/// <summary>How far colours lie from each other.</summary>
public static class ColourDistance
{
    /// <summary>CIEDE2000 (CIE 142:2001) of two pictures, pixel by pixel.</summary>
    /// <param name="one">sRGB, three bytes a pixel.</param>
    /// <param name="other">The same.</param>
    /// <param name="width">In pixels.</param>
    /// <param name="height">In pixels.</param>
    public static float[] Of(byte[] one, byte[] other, int width, int height)
    {
        Vips.Prepare();
        using Image a = Lab(one, width, height), b = Lab(other, width, height);
        using var apart = a.DE00(b);
        return apart.WriteToMemory<float>();
    }

    private static Image Lab(byte[] rgb, int width, int height)
    {
        using var plain = Image.NewFromMemoryCopy(rgb, width, height, 3, Enums.BandFormat.Uchar);
        using var meant = plain.Copy(interpretation: Enums.Interpretation.Srgb);
        return meant.Colourspace(Enums.Interpretation.Lab);
    }
}
