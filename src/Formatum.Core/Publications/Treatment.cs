using Formatum.Core.Checks;
using Formatum.Core.Colours;

namespace Formatum.Core.Publications;

/// <summary>How much of each colour of a picture goes into its grey: weights, which may be below 0, but come to more than 0 together.</summary>
public sealed record GreyMix(double Red, double Green, double Blue)
{
    /// <summary>As bright as the colours look (Filter Effects 1, "saturate").</summary>
    public static readonly GreyMix Usual = new(0.213, 0.715, 0.072);
}

/// <summary>A picture in two colours: its shadows in one, its lights in the other.</summary>
public sealed record TwoInk(Colour Dark, Colour Light);

/// <summary>
/// What is done to a picture as it is shown and printed, never to its file. Figures work on red, green and blue from 0 to 1 as sRGB has them, in this order:
/// grey or saturation, brightness with contrast, gamma, inversion, two inks. Formulas stand in docs/looks.md.
/// </summary>
public sealed record Treatment
{
    public static readonly Treatment None = new();

    public const double LargestSaturation = 4, SmallestGamma = 0.1, LargestGamma = 10, LargestWeight = 3;

    /// <summary>The least that weights of a grey come to together.</summary>
    private const double LeastWeights = 0.05;

    /// <summary>At full contrast, tones are spread so many times less than beyond all measure.</summary>
    private const double Strongest = 0.9;

    public GreyMix? Grey { get; init; }

    /// <summary>1 leaves colours as they are, 0 takes them away.</summary>
    public double Saturation { get; init; } = 1;

    /// <summary>-1 for black to 1 for white; 0 leaves tones as they are.</summary>
    public double Brightness { get; init; }

    /// <summary>-1 for one grey to 1 for the most; 0 leaves tones as they are.</summary>
    public double Contrast { get; init; }

    /// <summary>Above 1 lightens tones between black and white, below 1 darkens them.</summary>
    public double Gamma { get; init; } = 1;

    public bool Invert { get; init; }
    public TwoInk? Inks { get; init; }

    /// <summary>Whether it is put aside, with all its figures.</summary>
    public bool IsOff { get; init; }

    /// <summary>Whether it changes anything.</summary>
    public bool Works => !IsOff && this != None;

    /// <summary>From red, green and blue to themselves, row by row: the grey, or the saturation (Filter Effects 1, feColorMatrix "saturate").</summary>
    public double[] Matrix()
    {
        if (Grey is { } mix)
        {
            double all = mix.Red + mix.Green + mix.Blue;
            double[] row = [mix.Red / all, mix.Green / all, mix.Blue / all];
            return [.. row, .. row, .. row];
        }
        double s = Saturation;
        var (r, g, b) = (GreyMix.Usual.Red, GreyMix.Usual.Green, GreyMix.Usual.Blue);
        return [r + (1 - r) * s, g - g * s, b - b * s, r - r * s, g + (1 - g) * s, b - b * s, r - r * s, g - g * s, b + (1 - b) * s];
    }

    /// <summary>Brightness and contrast: a tone times <c>Slope</c> plus <c>Intercept</c>. Contrast turns about middle grey.</summary>
    public (double Slope, double Intercept) Line
    {
        get
        {
            double slope = Contrast <= 0 ? 1 + Contrast : 1 / (1 - Strongest * Contrast);
            return (slope, 0.5 * (1 - slope) + Brightness);
        }
    }

    /// <summary>A tone, 0 to 1, after brightness, contrast, gamma and inversion.</summary>
    public double Curve(double tone)
    {
        var (slope, intercept) = Line;
        double v = Math.Pow(Math.Clamp(slope * tone + intercept, 0, 1), 1 / Gamma);
        return Invert ? 1 - v : v;
    }

    /// <summary>The treatment with every colour put in another's place.</summary>
    public Treatment Recoloured(Func<Colour, Colour> colour) => Inks is { } inks ? this with { Inks = new(colour(inks.Dark), colour(inks.Light)) } : this;

    public void Check(FieldErrors errors)
    {
        if (Grey is { } mix)
        {
            foreach (var (name, weight) in new[] { ("red", mix.Red), ("green", mix.Green), ("blue", mix.Blue) })
                errors.Range($"look.treatment.grey.{name}", weight, -LargestWeight, LargestWeight, "A weight is from -3 to 3, or -300 to 300 %.");
            if (mix.Red + mix.Green + mix.Blue < LeastWeights)
                errors.Add("look.treatment.grey", "The three weights come to nothing together, and the picture to black. Raise one of them.");
        }
        errors.Range("look.treatment.saturation", Saturation, 0, LargestSaturation, "Saturation is from 0 to 4, or 0 to 400 %.");
        errors.Range("look.treatment.brightness", Brightness, -1, 1, "Brightness is from -1 to 1, or -100 to 100 %.");
        errors.Range("look.treatment.contrast", Contrast, -1, 1, "Contrast is from -1 to 1, or -100 to 100 %.");
        errors.Range("look.treatment.gamma", Gamma, SmallestGamma, LargestGamma, "Gamma is from 0.1 to 10.");
        Inks?.Dark.Check("look.treatment.inks.dark", errors);
        Inks?.Light.Check("look.treatment.inks.light", errors);
    }
}
