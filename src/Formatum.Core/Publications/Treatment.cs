using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Geometry;

namespace Formatum.Core.Publications;

/// <summary>How light each colour of a picture becomes in its grey: weights, which may be below 0; the three first come to more than 0 together, and all
/// are meant of what they come to.</summary>
public sealed record GreyMix(double Red, double Green, double Blue)
{
    /// <summary>The weight of yellows; null for that of red and green together, as in a plain sum of the three.</summary>
    public double? Yellow { get; init; }

    /// <summary>The weight of cyans; null for that of green and blue together.</summary>
    public double? Cyan { get; init; }

    /// <summary>The weight of magentas; null for that of blue and red together.</summary>
    public double? Magenta { get; init; }

    /// <summary>Whether it is a plain sum of red, green and blue.</summary>
    public bool IsSum => (Yellow, Cyan, Magenta) == default;

    public double YellowWeight => Yellow ?? Red + Green;
    public double CyanWeight => Cyan ?? Green + Blue;
    public double MagentaWeight => Magenta ?? Blue + Red;

    /// <summary>The weights of the three, as shares of what they come to.</summary>
    public (double Red, double Green, double Blue) Primaries => (Red / All, Green / All, Blue / All);

    /// <summary>The weights of yellow, cyan and magenta, as shares of the same.</summary>
    public (double Yellow, double Cyan, double Magenta) Secondaries => (YellowWeight / All, CyanWeight / All, MagentaWeight / All);

    private double All => Red + Green + Blue;

    /// <summary>As bright as the colours look (Filter Effects 1, "saturate").</summary>
    public static readonly GreyMix Usual = new(0.213, 0.715, 0.072);
}

/// <summary>A picture in two colours: its shadows in one, its lights in the other.</summary>
public sealed record TwoInk(Colour Dark, Colour Light);

/// <summary>A colour laid over a picture.</summary>
/// <param name="Colour">The colour.</param>
/// <param name="Strength">How much of it, 0 to 1: the share of the picture that it takes the place of.</param>
public sealed record Tint(Colour Colour, double Strength)
{
    public const double Usual = 0.3;
}

/// <summary>Edges within a picture made clearer: what it differs by from itself softened is added to it (an unsharp mask).</summary>
/// <param name="Amount">How many times that difference is added, 0 to 5.</param>
/// <param name="Radius">How far it is softened for that, in points on the page: a Gaussian blur whose standard deviation is half of it.</param>
public sealed record Sharpening(double Amount, double Radius)
{
    /// <summary>Three to four pixels of a picture of 300 ppi: common practice for print, no source.</summary>
    public static readonly Sharpening Usual = new(1, 0.85);

    public const double LargestAmount = 5, SmallestRadius = 0.05, LargestRadius = 36;

    public double Deviation => Radius / 2;
}

/// <summary>
/// What is done to a picture as it is shown and printed, never to its file. Figures work on red, green and blue from 0 to 1 as sRGB has them, in this order:
/// sharpening, blur, grey or saturation with warmth, levels, brightness with contrast, gamma, inversion, two inks, tint. Formulas stand in docs/looks.md.
/// </summary>
public sealed record Treatment
{
    public static readonly Treatment None = new();

    public const double LargestSaturation = 4, SmallestGamma = 0.1, LargestGamma = 10, LargestWeight = 3;

    /// <summary>The least that weights of a grey come to together.</summary>
    private const double LeastWeights = 0.05;

    /// <summary>The most that a picture is blurred, in points.</summary>
    public const double LargestBlur = 144;

    /// <summary>At full contrast, tones are spread so many times less than beyond all measure.</summary>
    private const double Strongest = 0.9;

    /// <summary>At full warmth red is raised, and blue lowered, by this share. Our own measure, no source.</summary>
    private const double WarmthShare = 0.3;

    /// <summary>Levels lie at least so far apart.</summary>
    public const double NearestLevels = 0.01;

    public Sharpening? Sharpen { get; init; }

    /// <summary>How far what it shows is softened, in points on the page: a Gaussian blur whose standard deviation is half of it.</summary>
    public double Blur { get; init; }

    public GreyMix? Grey { get; init; }

    /// <summary>1 leaves colours as they are, 0 takes them away.</summary>
    public double Saturation { get; init; } = 1;

    /// <summary>-1 for cold, which is bluer, to 1 for warm, which is redder; 0 leaves colours as they are.</summary>
    public double Warmth { get; init; }

    /// <summary>The tone that becomes black, 0 to 1; what is darker does too.</summary>
    public double Black { get; init; }

    /// <summary>The tone that becomes white, above that of black; what is lighter does too.</summary>
    public double White { get; init; } = 1;

    /// <summary>-1 for black to 1 for white; 0 leaves tones as they are.</summary>
    public double Brightness { get; init; }

    /// <summary>-1 for one grey to 1 for the most; 0 leaves tones as they are.</summary>
    public double Contrast { get; init; }

    /// <summary>Above 1 lightens tones between black and white, below 1 darkens them.</summary>
    public double Gamma { get; init; } = 1;

    public bool Invert { get; init; }
    public TwoInk? Inks { get; init; }
    public Tint? Tint { get; init; }

    /// <summary>Whether it is put aside, with all its figures.</summary>
    public bool IsOff { get; init; }

    /// <summary>Whether it changes anything.</summary>
    public bool Works => !IsOff && this != None;

    /// <summary>Whether nothing but greys comes of it.</summary>
    public bool MakesGrey => Grey is not null && Inks is null && Tint is null && Warmth == 0;

    /// <summary>Whether a picture in greys stays one: nothing in it has a colour of its own.</summary>
    public bool KeepsGrey => Inks is null && Warmth == 0 && (Tint is null || Tint.Colour is GreyColour or CmykColour { Cyan: 0, Magenta: 0, Yellow: 0 }
        || (Tint.Colour is RgbColour { Red: var red, Green: var green, Blue: var blue } && red == green && green == blue));

    /// <summary>The standard deviation of its blur, in points.</summary>
    public double BlurDeviation => Blur / 2;

    /// <summary>How far from a place something changes what it becomes, in points: beyond three deviations a Gaussian has nothing left to see.</summary>
    public double Reach => 3 * (BlurDeviation + (Sharpen?.Deviation ?? 0));

    /// <summary>From red, green and blue to themselves, row by row: the grey, or the saturation (Filter Effects 1, feColorMatrix "saturate"), then the
    /// warmth.</summary>
    public double[] Matrix()
    {
        double[] m = Mixed();
        for (int i = 0; i < 3; i++) (m[i], m[6 + i]) = (m[i] * (1 + WarmthShare * Warmth), m[6 + i] * (1 - WarmthShare * Warmth));
        return m;
    }

    private double[] Mixed()
    {
        if (Grey is { } mix)
        {
            // Where the six colours go their own ways, it is grey already.
            if (!mix.IsSum) return [1, 0, 0, 0, 1, 0, 0, 0, 1];
            var (red, green, blue) = mix.Primaries;
            double[] row = [red, green, blue];
            return [.. row, .. row, .. row];
        }
        double s = Saturation;
        var (r, g, b) = (GreyMix.Usual.Red, GreyMix.Usual.Green, GreyMix.Usual.Blue);
        return [r + (1 - r) * s, g - g * s, b - b * s, r - r * s, g + (1 - g) * s, b - b * s, r - r * s, g - g * s, b + (1 - b) * s];
    }

    /// <summary>Levels: a tone times <c>Slope</c> plus <c>Intercept</c>, held between 0 and 1.</summary>
    public (double Slope, double Intercept) Levels => (1 / (White - Black), -Black / (White - Black));

    /// <summary>Brightness and contrast: a tone times <c>Slope</c> plus <c>Intercept</c>. Contrast turns about middle grey.</summary>
    public (double Slope, double Intercept) Line
    {
        get
        {
            double slope = Contrast <= 0 ? 1 + Contrast : 1 / (1 - Strongest * Contrast);
            return (slope, 0.5 * (1 - slope) + Brightness);
        }
    }

    /// <summary>A tone, 0 to 1, after levels, brightness, contrast, gamma and inversion.</summary>
    public double Curve(double tone)
    {
        var (levels, line) = (Levels, Line);
        double spread = Math.Clamp(levels.Slope * tone + levels.Intercept, 0, 1);
        double v = Math.Pow(Math.Clamp(line.Slope * spread + line.Intercept, 0, 1), 1 / Gamma);
        return Invert ? 1 - v : v;
    }

    /// <summary>The treatment with every colour put in another's place.</summary>
    public Treatment Recoloured(Func<Colour, Colour> colour) => Inks is null && Tint is null ? this : this with
    {
        Inks = Inks is { } inks ? new(colour(inks.Dark), colour(inks.Light)) : null,
        Tint = Tint is { } tint ? tint with { Colour = colour(tint.Colour) } : null,
    };

    public void Check(FieldErrors errors)
    {
        errors.Range("look.treatment.sharpen.amount", Sharpen?.Amount, 0, Sharpening.LargestAmount, "Sharpening is from 0 to 5, or 0 to 500 %.");
        errors.Range("look.treatment.sharpen.radius", Sharpen?.Radius, Sharpening.SmallestRadius, Sharpening.LargestRadius,
            "The radius of sharpening is from 0.05 to 36 points.");
        errors.Length("look.treatment.blur", Blur, 0, LargestBlur, "Blur is from 0 to 144 points.");
        if (Grey is { } mix)
        {
            foreach (var (name, weight) in new (string, double?)[] { ("red", mix.Red), ("green", mix.Green), ("blue", mix.Blue), ("yellow", mix.Yellow),
                ("cyan", mix.Cyan), ("magenta", mix.Magenta) })
                errors.Range($"look.treatment.grey.{name}", weight, -LargestWeight, LargestWeight, "A weight is from -3 to 3, or -300 to 300 %.");
            if (mix.Red + mix.Green + mix.Blue < LeastWeights)
                errors.Add("look.treatment.grey", "The three weights come to nothing together, and the picture to black. Raise one of them.");
        }
        errors.Range("look.treatment.saturation", Saturation, 0, LargestSaturation, "Saturation is from 0 to 4, or 0 to 400 %.");
        errors.Range("look.treatment.warmth", Warmth, -1, 1, "Warmth is from -1 to 1, or -100 to 100 %.");
        errors.Range("look.treatment.black", Black, 0, 1 - NearestLevels, "The level of black is from 0 to 0.99, or 0 to 99 %.");
        errors.Range("look.treatment.white", White, NearestLevels, 1, "The level of white is from 0.01 to 1, or 1 to 100 %.");
        if (White - Black < NearestLevels) errors.Add("look.treatment.white", "The level of white lies above that of black. Raise it, or lower the other.");
        errors.Range("look.treatment.brightness", Brightness, -1, 1, "Brightness is from -1 to 1, or -100 to 100 %.");
        errors.Range("look.treatment.contrast", Contrast, -1, 1, "Contrast is from -1 to 1, or -100 to 100 %.");
        errors.Range("look.treatment.gamma", Gamma, SmallestGamma, LargestGamma, "Gamma is from 0.1 to 10.");
        errors.Range("look.treatment.tint.strength", Tint?.Strength, 0, 1, "A tint is from 0 to 1 strong, or 0 to 100 %.");
        Tint?.Colour.Check("look.treatment.tint.colour", errors);
        Inks?.Dark.Check("look.treatment.inks.dark", errors);
        Inks?.Light.Check("look.treatment.inks.light", errors);
    }
}
