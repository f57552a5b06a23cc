using Formatum.Imaging;

namespace Formatum.Output.Press;

/// <summary>The inks of the pixels of drawings: what is neutral is ink black alone, as it is where they are lines and areas.</summary>
internal static class DrawnInks
{
    private const int Parts = 4;

    /// <param name="rgb">sRGB, three bytes a pixel.</param>
    /// <param name="width">In pixels.</param>
    /// <param name="height">In pixels.</param>
    /// <param name="press">The press.</param>
    /// <returns>Four bytes a pixel; 255 is full.</returns>
    public static byte[] Of(byte[] rgb, int width, int height, PressConversion press)
    {
        byte[] four = PressPixels.ToInks(rgb, width, height, press.Press);
        for (int from = 0, to = 0; from < rgb.Length; from += 3, to += Parts)
        {
            if (rgb[from] != rgb[from + 1] || rgb[from] != rgb[from + 2]) continue;
            four.AsSpan(to, Parts).Clear();
            four[to + 3] = (byte)Math.Round(255 * press.BlackFor(rgb[from]));
        }
        return four;
    }
}
