using Formatum.Core.Colours;
using Formatum.Core.Publications;

namespace Formatum.Imaging;

/// <summary>A treatment done to pixels, by the formulas of docs/looks.md.</summary>
public sealed class PixelTreatment
{
    /// <summary>Fractions of a unit of the matrix, which is worked out in whole numbers.</summary>
    private const int FractionBits = 16;

    private readonly int[] _matrix;

    /// <summary>The weights of red, green, blue, yellow, cyan and magenta, where they go their own ways in a grey; null where they do not.</summary>
    private readonly int[]? _six;

    private readonly byte[] _curve = new byte[256];
    private readonly byte[]? _inks;

    /// <summary>What each value of each part becomes under a tint; null for none.</summary>
    private readonly byte[]? _tint;

    /// <summary>What each grey becomes, where all is made grey first; null where it is not.</summary>
    private readonly byte[]? _ofGrey;

    /// <summary>Brightness of what has been worked on so far, for two inks.</summary>
    private static readonly int[] Luma = [.. new[] { GreyMix.Usual.Red, GreyMix.Usual.Green, GreyMix.Usual.Blue }.Select(w =>
        (int)Math.Round(w * (1 << FractionBits)))];

    public PixelTreatment(Treatment treatment)
    {
        _matrix = [.. treatment.Matrix().Select(m => (int)Math.Round(m * (1 << FractionBits)))];
        if (treatment.Grey is { IsSum: false } mix)
        {
            var ((r, g, b), (y, c, m)) = (mix.Primaries, mix.Secondaries);
            _six = [.. new[] { r, g, b, y, c, m }.Select(w => (int)Math.Round(w * (1 << FractionBits)))];
        }
        for (int v = 0; v < 256; v++) _curve[v] = (byte)Math.Round(255 * treatment.Curve(v / 255.0));
        if (treatment.Inks is { } inks) _inks = InksOf(inks.Dark.Shown, inks.Light.Shown);
        if (treatment.Tint is { } tint) _tint = TintOf(tint.Colour.Shown, tint.Strength);
        if (treatment.Grey is not { IsSum: true } || treatment.Warmth != 0) return;
        _ofGrey = new byte[256 * 3];
        for (int v = 0; v < 256; v++)
            for (int part = 0; part < 3; part++)
            {
                byte tone = _inks is null ? _curve[v] : _inks[3 * _curve[v] + part];
                _ofGrey[3 * v + part] = _tint is null ? tone : _tint[3 * tone + part];
            }
    }

    private static byte[] InksOf(RgbColour dark, RgbColour light)
    {
        byte[] table = new byte[256 * 3];
        byte Between(byte from, byte to, int v) => (byte)Math.Round(from + (to - from) * (v / 255.0));
        for (int v = 0; v < 256; v++)
            (table[3 * v], table[3 * v + 1], table[3 * v + 2]) = (Between(dark.Red, light.Red, v), Between(dark.Green, light.Green, v), Between(dark.Blue,
                light.Blue, v));
        return table;
    }

    private static byte[] TintOf(RgbColour colour, double strength)
    {
        byte[] table = new byte[256 * 3];
        byte Under(byte tint, int v) => (byte)Math.Round(v * (1 - strength) + tint * strength);
        for (int v = 0; v < 256; v++)
            (table[3 * v], table[3 * v + 1], table[3 * v + 2]) = (Under(colour.Red, v), Under(colour.Green, v), Under(colour.Blue, v));
        return table;
    }

    /// <summary>Changes pixels where they are.</summary>
    /// <param name="rgba">Four bytes a pixel, sRGB, not multiplied by alpha, which stays.</param>
    public void Apply(Span<byte> rgba)
    {
        if (_ofGrey is not null)
        {
            ApplyGrey(rgba, _ofGrey);
            return;
        }
        for (int i = 0; i + 3 < rgba.Length; i += 4)
        {
            int r = rgba[i], g = rgba[i + 1], b = rgba[i + 2];
            if (_six is not null) r = g = b = Six(_six, r, g, b);
            byte red = _curve[Part(_matrix, 0, r, g, b)], green = _curve[Part(_matrix, 3, r, g, b)], blue = _curve[Part(_matrix, 6, r, g, b)];
            if (_inks is not null)
            {
                int tone = 3 * Part(Luma, 0, red, green, blue);
                (red, green, blue) = (_inks[tone], _inks[tone + 1], _inks[tone + 2]);
            }
            if (_tint is not null) (red, green, blue) = (_tint[3 * red], _tint[3 * green + 1], _tint[3 * blue + 2]);
            (rgba[i], rgba[i + 1], rgba[i + 2]) = (red, green, blue);
        }
    }

    private void ApplyGrey(Span<byte> rgba, byte[] ofGrey)
    {
        for (int i = 0; i + 3 < rgba.Length; i += 4)
        {
            int tone = 3 * Part(_matrix, 0, rgba[i], rgba[i + 1], rgba[i + 2]);
            (rgba[i], rgba[i + 1], rgba[i + 2]) = (ofGrey[tone], ofGrey[tone + 1], ofGrey[tone + 2]);
        }
    }

    /// <summary>The grey of a pixel of which each colour goes its own way: what is white in it stays, and what it has beyond that of one of the three and
    /// of one of the colours between them is added by its weight.</summary>
    private static int Six(int[] weights, int r, int g, int b)
    {
        int white = Math.Min(r, Math.Min(g, b));
        Span<int> parts = [Math.Max(0, r - Math.Max(g, b)), Math.Max(0, g - Math.Max(b, r)), Math.Max(0, b - Math.Max(r, g)),
            Math.Min(r, g) - white, Math.Min(g, b) - white, Math.Min(b, r) - white];
        int more = 0, less = 0;
        for (int i = 0; i < parts.Length; i++)
        {
            if (weights[i] > 0) more += weights[i] * parts[i];
            else less -= weights[i] * parts[i];
        }
        const int Half = 1 << (FractionBits - 1);
        return Math.Clamp(Math.Min(255, white + ((more + Half) >> FractionBits)) - ((less + Half) >> FractionBits), 0, 255);
    }

    private static int Part(int[] matrix, int row, int r, int g, int b) =>
        Math.Clamp((matrix[row] * r + matrix[row + 1] * g + matrix[row + 2] * b + (1 << (FractionBits - 1))) >> FractionBits, 0, 255);
}
