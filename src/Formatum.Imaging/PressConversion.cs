using System.Runtime.InteropServices;
using Formatum.Core.Colours;
using NetVips;

namespace Formatum.Imaging;

/// <summary>Colours of the screen as inks of a press, and the other way: relative colorimetric with black-point compensation, by Little CMS.</summary>
/// <param name="press">The profile of the press.</param>
public sealed class PressConversion(ColourProfile press)
{
    private const double Full = ushort.MaxValue;

    /// <summary>As many values of each part as Little CMS takes itself for colours of three and of four parts.</summary>
    private const int LightSide = 33, InksSide = 23;

    private readonly ColourGrid _inks = new(3, 4, LightSide, lights => Converted(lights, Enums.Interpretation.Rgb16, ColourProfile.Srgb, press));
    private readonly ColourGrid _shown = new(4, 3, InksSide, inks => Converted(inks, Enums.Interpretation.Cmyk, press, ColourProfile.Srgb));

    public ColourProfile Press => press;

    /// <summary>The inks that come nearest to a colour of the screen.</summary>
    public CmykColour Inks(RgbColour colour)
    {
        double[] inks = _inks.Converted([colour.Red / 255.0, colour.Green / 255.0, colour.Blue / 255.0]);
        return new(inks[0], inks[1], inks[2], inks[3]);
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
