using System.Globalization;
using System.Text.Json.Serialization;
using Formatum.Core.Checks;

namespace Formatum.Core.Colours;

/// <summary>A colour as it is given: grey, red, green and blue, four inks, or one of the publication's palette.</summary>
[JsonConverter(typeof(ColourJson))]
public abstract record Colour
{
    public static readonly Colour Black = new RgbColour(0, 0, 0), White = new RgbColour(255, 255, 255);

    /// <summary>As it shows on a screen, as sRGB. One of the palette is looked up first; by itself it is black.</summary>
    public abstract RgbColour Shown { get; }

    /// <summary>The same, which shows inks as a press prints them. Light is light.</summary>
    public virtual Colour On(InkTable press) => this;

    /// <summary>"#rrggbb" of what shows.</summary>
    public string Hex => Shown.Text;

    /// <summary>In words: "#2f6f4f", "grey 50 %", "C 0 M 80 Y 100 K 0".</summary>
    public abstract string Text { get; }

    public abstract void Check(string field, FieldErrors errors);

    public sealed override string ToString() => Text;

    /// <param name="hex">"#rrggbb".</param>
    /// <exception cref="FormatException">It is no such colour.</exception>
    public static Colour Of(string hex) => RgbColour.TryParse(hex, out var colour) ? colour : throw new FormatException($"\u201c{hex}\u201d is no colour.");
}

/// <summary>A shade of black ink.</summary>
/// <param name="Ink">How much of it, 0 for paper to 1 for full.</param>
[JsonConverter(typeof(ColourJson<GreyColour>))]
public sealed record GreyColour(double Ink) : Colour
{
    /// <summary>How it looks once printed, where that is known.</summary>
    public RgbColour? Printed { get; init; }

    public override RgbColour Shown => Printed ?? new CmykColour(0, 0, 0, Ink).Shown;
    public override Colour On(InkTable press) => this with { Printed = press.Shown(0, 0, 0, Ink) };
    public override string Text => string.Create(CultureInfo.InvariantCulture, $"grey {100 * Ink:0.##} %");

    public override void Check(string field, FieldErrors errors) => errors.Range(field, Ink, 0, 1, "A grey has from 0 to 1 of ink, or 0 to 100 %.");
}

/// <summary>Light of a screen, as sRGB.</summary>
public sealed record RgbColour(byte Red, byte Green, byte Blue) : Colour
{
    public override RgbColour Shown => this;
    public override string Text => $"#{Red:x2}{Green:x2}{Blue:x2}";

    public override void Check(string field, FieldErrors errors)
    {
    }

    public static bool TryParse(string? text, [System.Diagnostics.CodeAnalysis.NotNullWhen(true)] out RgbColour? colour)
    {
        colour = text is { Length: 7 } && text[0] == '#' && text.AsSpan(1).IndexOfAnyExcept(HexDigits) < 0
            ? new(Part(text, 1), Part(text, 3), Part(text, 5)) : null;
        return colour is not null;
    }

    private static readonly System.Buffers.SearchValues<char> HexDigits = System.Buffers.SearchValues.Create("0123456789abcdefABCDEF");

    private static byte Part(string text, int at) => byte.Parse(text.AsSpan(at, 2), NumberStyles.HexNumber, CultureInfo.InvariantCulture);

    /// <summary>Relative luminance, 0 to 1 (WCAG 2.2, "relative luminance").</summary>
    public double Luminance => 0.2126 * Linear(Red) + 0.7152 * Linear(Green) + 0.0722 * Linear(Blue);

    private static double Linear(byte part) => part / 255.0 is var v && v <= 0.04045 ? v / 12.92 : Math.Pow((v + 0.055) / 1.055, 2.4);

    /// <summary>Contrast with another, 1 to 21 (WCAG 2.2, "contrast ratio").</summary>
    public double ContrastWith(RgbColour other)
    {
        double one = Luminance + 0.05, two = other.Luminance + 0.05;
        return Math.Max(one, two) / Math.Min(one, two);
    }
}

/// <summary>Four inks, each 0 to 1.</summary>
[JsonConverter(typeof(ColourJson<CmykColour>))]
public sealed record CmykColour(double Cyan, double Magenta, double Yellow, double Key) : Colour
{
    /// <summary>How they look once printed, where that is known.</summary>
    public RgbColour? Printed { get; init; }

    public override Colour On(InkTable press) => this with { Printed = press.Shown(Cyan, Magenta, Yellow, Key) };

    /// <summary>As they look once printed. Where no press is known: CSS Color 5, "naive conversion" of device-cmyk().</summary>
    public override RgbColour Shown
    {
        get
        {
            if (Printed is not null) return Printed;
            byte Part(double ink) => (byte)Math.Round(255 * (1 - Math.Min(1, ink * (1 - Key) + Key)), MidpointRounding.AwayFromZero);
            return new(Part(Cyan), Part(Magenta), Part(Yellow));
        }
    }

    public override string Text => string.Create(CultureInfo.InvariantCulture,
        $"C {100 * Cyan:0.##} M {100 * Magenta:0.##} Y {100 * Yellow:0.##} K {100 * Key:0.##}");

    public override void Check(string field, FieldErrors errors)
    {
        foreach (double ink in new[] { Cyan, Magenta, Yellow, Key }) errors.Range(field, ink, 0, 1, "An ink is from 0 to 1, or 0 to 100 %.");
    }
}

/// <summary>A colour of the publication's palette: it follows whenever that one is changed.</summary>
/// <param name="Id">Which.</param>
[JsonConverter(typeof(ColourJson<NamedColour>))]
public sealed record NamedColour(int Id) : Colour
{
    public override RgbColour Shown => (RgbColour)Black;
    public override string Text => $"palette {Id}";

    public override void Check(string field, FieldErrors errors)
    {
    }
}
