using NetVips;

namespace Formatum.Imaging;

/// <summary>How many pixels of a picture have each value.</summary>
/// <param name="Counts">For red, green, blue and brightness (the usual grey of treatments): 256 counts each.</param>
public sealed record Histogram(int[][] Counts)
{
    /// <summary>Counted in a preview.</summary>
    /// <param name="path">The preview's file.</param>
    public static Histogram Of(string path)
    {
        Vips.Prepare();
        using var preview = Image.NewFromFile(path);
        using var colours = preview.Colourspace(Enums.Interpretation.Srgb);
        using var flat = colours.HasAlpha() ? colours.Flatten(background: [255]) : colours.Copy();
        byte[] pixels = flat.Cast(Enums.BandFormat.Uchar).WriteToMemory<byte>();
        int[][] counts = [.. Enumerable.Range(0, 4).Select(_ => new int[256])];
        for (int i = 0; i + 2 < pixels.Length; i += 3)
        {
            for (int part = 0; part < 3; part++) counts[part][pixels[i + part]]++;
            counts[3][(int)Math.Round(0.213 * pixels[i] + 0.715 * pixels[i + 1] + 0.072 * pixels[i + 2])]++;
        }
        return new(counts);
    }
}
