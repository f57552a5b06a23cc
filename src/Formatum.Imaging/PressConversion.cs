using System.Collections.Concurrent;
using System.Runtime.InteropServices;
using Formatum.Core.Colours;
using NetVips;

namespace Formatum.Imaging;

/// <summary>Colours of the screen as inks of a press, and the other way: relative colorimetric with black-point compensation, by Little CMS.</summary>
/// <param name="press">The profile of the press.</param>
public sealed class PressConversion(ColourProfile press)
{
    private const double Full = ushort.MaxValue;

    /// <summary>A publication has few colours of its own; more than so many are not kept.</summary>
    private const int MostKept = 5000;

    private readonly ConcurrentDictionary<RgbColour, CmykColour> _inks = new();
    private readonly ConcurrentDictionary<CmykColour, RgbColour> _shown = new();

    public ColourProfile Press => press;

    /// <summary>The inks that come nearest to a colour of the screen.</summary>
    public CmykColour Inks(RgbColour colour)
    {
        if (_inks.TryGetValue(colour, out var known)) return known;
        const double Step = Full / 255;
        ushort[] inks = Converted([(ushort)(colour.Red * Step), (ushort)(colour.Green * Step), (ushort)(colour.Blue * Step)], Enums.Interpretation.Rgb16,
            ColourProfile.Srgb, press);
        var found = new CmykColour(inks[0] / Full, inks[1] / Full, inks[2] / Full, inks[3] / Full);
        if (_inks.Count < MostKept) _inks[colour] = found;
        return found;
    }

    /// <summary>How inks look once printed.</summary>
    public RgbColour OnScreen(CmykColour colour)
    {
        if (_shown.TryGetValue(colour, out var known)) return known;
        ushort[] shown = Converted([.. new[] { colour.Cyan, colour.Magenta, colour.Yellow, colour.Key }.Select(ink => (ushort)Math.Round(ink * Full))],
            Enums.Interpretation.Cmyk, press, ColourProfile.Srgb);
        byte Part(int i) => (byte)Math.Round(shown[i] / Full * 255);
        var found = new RgbColour(Part(0), Part(1), Part(2));
        if (_shown.Count < MostKept) _shown[colour] = found;
        return found;
    }

    /// <summary>How mixtures of inks look, to be kept with a publication (<see cref="InkTable"/>), in base 64.</summary>
    public string Table()
    {
        ushort[] inks = [.. InkTable.Grid().SelectMany(c => new[] { c.Cyan, c.Magenta, c.Yellow, c.Key }).Select(ink => (ushort)Math.Round(ink * Full))];
        return Convert.ToBase64String([.. Converted(inks, Enums.Interpretation.Cmyk, press, ColourProfile.Srgb, inks.Length / 4)
            .Select(part => (byte)Math.Round(part / Full * 255))]);
    }

    private static ushort[] Converted(ushort[] parts, Enums.Interpretation kind, ColourProfile from, ColourProfile to, int count = 1)
    {
        Vips.Prepare();
        using var one = Image.NewFromMemoryCopy(MemoryMarshal.AsBytes(parts.AsSpan()).ToArray(), count, 1, parts.Length / count, Enums.BandFormat.Ushort);
        using var meant = one.Copy(interpretation: kind);
        using var converted = meant.IccTransform(to.Source, intent: Enums.Intent.Relative, blackPointCompensation: true, inputProfile: from.Source, depth: 16);
        return converted.WriteToMemory<ushort>();
    }
}
