using Formatum.Core.Publications;

namespace Formatum.Web.Api;

/// <summary>How much of each colour goes into a grey: weights.</summary>
public sealed record GreyMixBody(double Red = 0, double Green = 0, double Blue = 0, double? Yellow = null, double? Cyan = null, double? Magenta = null);

/// <summary>The two colours of a picture in two inks.</summary>
public sealed record TwoInkBody(ColourBody Dark, ColourBody Light);

/// <summary>A colour laid over a picture, and how strongly.</summary>
public sealed record TintBody(ColourBody Colour, double Strength = Tint.Usual);

/// <summary>How edges within a picture are made clearer: how much (1 for 100 %), and how far around, 0.85 pt where left out.</summary>
public sealed record SharpeningBody(double Amount, Length? Radius = null)
{
    public Sharpening ToSharpening() => new(Amount, Radius?.Points ?? Sharpening.Usual.Radius);
}

/// <summary>What is done to a picture as it is shown and printed; formulas in docs/looks.md. What is left out leaves it as it is: saturation 1, brightness and
/// contrast 0 (-1 to 1), warmth 0 (-1 to 1), levels of black 0 and white 1, gamma 1.</summary>
public sealed record TreatmentBody
{
    public SharpeningBody? Sharpen { get; init; }

    /// <summary>How far what it shows is softened.</summary>
    public Length? Blur { get; init; }

    public GreyMixBody? Grey { get; init; }
    public double? Saturation { get; init; }
    public double? Brightness { get; init; }
    public double? Contrast { get; init; }
    public double? Gamma { get; init; }
    public double? Warmth { get; init; }
    public double? Black { get; init; }
    public double? White { get; init; }
    public bool? Invert { get; init; }
    public TwoInkBody? Inks { get; init; }
    public TintBody? Tint { get; init; }

    /// <summary>Whether it is put aside, with all its figures.</summary>
    public bool? Off { get; init; }

    public Treatment ToTreatment(Publication publication) => new()
    {
        Sharpen = Sharpen?.ToSharpening(),
        Blur = Blur?.Points ?? 0,
        Grey = Grey is { } g ? new(g.Red, g.Green, g.Blue) { Yellow = g.Yellow, Cyan = g.Cyan, Magenta = g.Magenta } : null,
        Saturation = Saturation ?? 1,
        Brightness = Brightness ?? 0,
        Contrast = Contrast ?? 0,
        Gamma = Gamma ?? 1,
        Warmth = Warmth ?? 0,
        Black = Black ?? 0,
        White = White ?? 1,
        Tint = Tint is { } tint ? new(tint.Colour.In(publication, "look.treatment.tint.colour"), tint.Strength) : null,
        Invert = Invert ?? false,
        Inks = Inks is { } inks ? new(inks.Dark.In(publication, "look.treatment.inks.dark"), inks.Light.In(publication, "look.treatment.inks.light")) : null,
        IsOff = Off ?? false,
    };
}

public sealed record SharpeningAnswer(double Amount, double Radius);

/// <summary>The same in an answer.</summary>
public sealed record TreatmentAnswer(SharpeningAnswer? Sharpen, double Blur, GreyMixBody? Grey,
    double Saturation, double Brightness, double Contrast, double Gamma, double Warmth,
    double Black, double White, bool Invert, object? Inks, object? Tint, bool Off)
{
    public static TreatmentAnswer? Of(Publication publication, Treatment? t) => t is null ? null : new(
        t.Sharpen is { } s ? new(s.Amount, s.Radius) : null, t.Blur,
        t.Grey is { } g ? new(g.Red, g.Green, g.Blue, g.Yellow, g.Cyan, g.Magenta) : null, t.Saturation, t.Brightness, t.Contrast, t.Gamma,
        t.Warmth, t.Black, t.White, t.Invert,
        t.Inks is { } inks ? new { Dark = ColourBody.Answer(publication, inks.Dark), Light = ColourBody.Answer(publication, inks.Light) } : null,
        t.Tint is { } tint ? new { Colour = ColourBody.Answer(publication, tint.Colour), tint.Strength } : null, t.IsOff);
}
