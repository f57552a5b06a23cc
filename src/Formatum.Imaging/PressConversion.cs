using System.Runtime.InteropServices;
using Formatum.Core.Colours;
using NetVips;

namespace Formatum.Imaging;

/// <summary>Colours of the screen as inks of a press, and the other way: relative colorimetric with black-point compensation, by Little CMS.</summary>
/// <param name="press">The profile of the press.</param>
public sealed class PressConversion(ColourProfile press)
{
    private const double Full = ushort.MaxValue;

    /// <summary>Values of each part on the grids; Little CMS itself takes 33 for colours of three parts, and 23 for those of four.</summary>
    private const int LightSide = 33, InksSide = 27;

    private readonly ColourGrid _inks = new(3, 4, LightSide, lights => Converted(lights, Enums.Interpretation.Rgb16, ColourProfile.Srgb, press));
    private readonly ColourGrid _shown = new(4, 3, InksSide, inks => Converted(inks, Enums.Interpretation.Cmyk, press, ColourProfile.Srgb));

    public ColourProfile Press => press;

    /// <summary>The inks that come nearest to a colour of the screen.</summary>
    public CmykColour Inks(RgbColour colour)
    {
        double[] inks = _inks.Converted([colour.Red / 255.0, colour.Green / 255.0, colour.Blue / 255.0]);
        return new(inks[0], inks[1], inks[2], inks[3]);
    }

    private double[]? _black;

    /// <summary>How much ink black alone shows a neutral tone of the screen; the darkest tones are all there is of it.</summary>
    /// <param name="tone">Red, green and blue of it.</param>
    /// <returns>0 to 1.</returns>
    public double BlackFor(byte tone) => (_black ??= BlackForAll())[tone];

    private double[] BlackForAll()
    {
        // In steps of a byte, as pictures have them.
        const int Steps = byte.MaxValue;
        byte[] shown = [.. Enumerable.Range(0, Steps + 1).Select(ink => OnScreen(new(0, 0, 0, (double)ink / Steps)).Green)];
        var black = new double[Steps + 1];
        for (int tone = 0, ink = Steps; tone <= Steps; tone++)
        {
            // The least ink that shows the tone or a darker one; the one before it where that is nearer.
            while (ink > 0 && shown[ink - 1] <= tone) ink--;
            bool before = ink > 0 && shown[ink - 1] - tone < tone - shown[ink];
            black[tone] = tone == 0 ? 1 : tone == Steps ? 0 : (before ? ink - 1.0 : ink) / Steps;
        }
        return black;
    }

    /// <summary>How inks look once printed.</summary>
    public RgbColour OnScreen(CmykColour colour)
    {
        double[] shown = _shown.Converted([colour.Cyan, colour.Magenta, colour.Yellow, colour.Key]);
        byte Part(int i) => (byte)Math.Round(shown[i] * 255);
        return new(Part(0), Part(1), Part(2));
    }

    /// <summary>How mixtures of inks look, to be kept with a publication (<see cref="InkTable"/>), in base 64.</summary>
    public string Table()
    {
        ushort[] inks = [.. InkTable.Grid().SelectMany(c => new[] { c.Cyan, c.Magenta, c.Yellow, c.Key }).Select(ink => (ushort)Math.Round(ink * Full))];
        return Convert.ToBase64String([.. Converted(inks, Enums.Interpretation.Cmyk, press, ColourProfile.Srgb)
            .Select(part => (byte)Math.Round(part / Full * 255))]);
    }

    private static ushort[] Converted(ushort[] parts, Enums.Interpretation kind, ColourProfile from, ColourProfile to)
    {
        Vips.Prepare();
        int bands = kind == Enums.Interpretation.Cmyk ? 4 : 3;
        using var colours = Image.NewFromMemoryCopy(MemoryMarshal.AsBytes(parts.AsSpan()).ToArray(), parts.Length / bands, 1, bands, Enums.BandFormat.Ushort);
        using var meant = colours.Copy(interpretation: kind);
        using var converted = meant.IccTransform(to.Source, intent: Enums.Intent.Relative, blackPointCompensation: true, inputProfile: from.Source, depth: 16);
        return converted.WriteToMemory<ushort>();
    }
}
