using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Web.Wording;

/// <summary>Treatments of pictures as text: shown in fields, read back from what is typed.</summary>
public static class TreatmentText
{
    /// <summary>The figures of a treatment that are typed in per cent, each with what a slider reaches.</summary>
    public static readonly (string Name, string Label, int Least, int Most, Func<Treatment, double> Value)[] Shares =
    [
        ("brightness", "Brightness", -100, 100, t => t.Brightness), ("contrast", "Contrast", -100, 100, t => t.Contrast),
        ("saturation", "Saturation", 0, 200, t => t.Saturation), ("warmth", "Warmth", -100, 100, t => t.Warmth),
        ("black", "Black from", 0, 99, t => t.Black), ("white", "White from", 1, 100, t => t.White),
    ];

    public static readonly (string Name, string Label, Func<GreyMix, double> Value)[] Weights =
    [
        ("red", "Reds", m => m.Red), ("green", "Greens", m => m.Green), ("blue", "Blues", m => m.Blue), ("yellow", "Yellows", m => m.YellowWeight),
        ("cyan", "Cyans", m => m.CyanWeight), ("magenta", "Magentas", m => m.MagentaWeight),
    ];

    public static string Percent(double share) => (100 * share).ToString("0.#", CultureInfo.InvariantCulture);

    /// <summary>What a figure that was typed or chosen makes of a treatment.</summary>
    /// <param name="part">Which figure: "treatment.grey.red".</param>
    /// <param name="value">What was typed or chosen.</param>
    /// <param name="field">The name errors are told under.</param>
    /// <param name="publication">Whose palette is meant.</param>
    /// <param name="now">The treatment, and the figure as its field shows it, that "+1" is meant of.</param>
    /// <param name="errors">Takes what is wrong.</param>
    /// <exception cref="EditRefused">There is no such figure.</exception>
    public static Func<Treatment, Treatment> Change(string part, string value, string field, Publication publication,
        (Treatment Treatment, Func<double> Figure) now, FieldErrors errors)
    {
        if (part is "treatment.blur" or "treatment.sharpen.amount" or "treatment.sharpen.radius") return Softness(part, value, field, now.Treatment, errors);
        bool yes = value == "true";
        double share = 0;
        if (Shares.Any(s => part == "treatment." + s.Name) || part == "treatment.tint.strength" || part.StartsWith("treatment.grey.", StringComparison.Ordinal))
            share = Share(part, value, field, now.Figure(), errors);
        return part switch
        {
            "treatment" => t => t with { IsOff = !yes },
            "treatment.none" => _ => Treatment.None,
            "treatment.grey" => t => t with { Grey = yes ? t.Grey ?? GreyMix.Usual : null, IsOff = false },
            "treatment.grey.red" => t => t with { Grey = (t.Grey ?? GreyMix.Usual) with { Red = share } },
            "treatment.grey.green" => t => t with { Grey = (t.Grey ?? GreyMix.Usual) with { Green = share } },
            "treatment.grey.blue" => t => t with { Grey = (t.Grey ?? GreyMix.Usual) with { Blue = share } },
            "treatment.grey.yellow" => t => t with { Grey = (t.Grey ?? GreyMix.Usual) with { Yellow = share } },
            "treatment.grey.cyan" => t => t with { Grey = (t.Grey ?? GreyMix.Usual) with { Cyan = share } },
            "treatment.grey.magenta" => t => t with { Grey = (t.Grey ?? GreyMix.Usual) with { Magenta = share } },
            "treatment.brightness" => t => t with { Brightness = share },
            "treatment.contrast" => t => t with { Contrast = share },
            "treatment.saturation" => t => t with { Saturation = share },
            "treatment.warmth" => t => t with { Warmth = share },
            "treatment.black" => t => t with { Black = share },
            "treatment.white" => t => t with { White = share },
            "treatment.tint" => t => t with { Tint = yes ? t.Tint ?? new(DarkOf(publication), Tint.Usual) : null },
            "treatment.tint.strength" => t => t with { Tint = (t.Tint ?? new(DarkOf(publication), share)) with { Strength = share } },
            "treatment.tint.colour" => ColourText.Read(publication, field, value, errors) is { } colour
                ? t => t with { Tint = (t.Tint ?? new(colour, Tint.Usual)) with { Colour = colour } } : t => t,
            "treatment.gamma" => Gamma(value, field, now.Treatment.Gamma, errors),
            "treatment.invert" => t => t with { Invert = yes },
            "treatment.inks" => t => t with { Inks = yes ? t.Inks ?? new(DarkOf(publication), Colour.White) : null },
            "treatment.inks.dark" or "treatment.inks.light" => Ink(part, ColourText.Read(publication, field, value, errors), publication),
            _ => throw new EditRefused("look", $"A treatment has no \"{part}\"."),
        };
    }

    /// <summary>Blur and the radius of sharpening are typed in points; nothing takes either away.</summary>
    private static Func<Treatment, Treatment> Softness(string part, string value, string field, Treatment now, FieldErrors errors)
    {
        bool isNone = value is "" or "none";
        if (part == "treatment.blur")
        {
            double? blur = isNone ? 0 : SettingText.Length(field, value, LengthUnit.Point, now.Blur, false, errors);
            return t => t with { Blur = blur ?? t.Blur };
        }
        if (part == "treatment.sharpen.radius")
        {
            double? radius = SettingText.Length(field, value, LengthUnit.Point, now.Sharpen?.Radius ?? 0, false, errors);
            return t => radius is { } r ? t with { Sharpen = (t.Sharpen ?? Sharpening.Usual) with { Radius = r } } : t;
        }
        double amount = isNone ? 0 : Share(part, value, field, 100 * (now.Sharpen?.Amount ?? 0), errors);
        return t => t with { Sharpen = amount == 0 ? null : (t.Sharpen ?? Sharpening.Usual) with { Amount = amount } };
    }

    /// <summary>Of these, "-20" is a figure; of the others, twenty less than there is.</summary>
    private static bool MayBeNegative(string part) => part is "treatment.brightness" or "treatment.contrast" or "treatment.warmth"
        || part.StartsWith("treatment.grey.", StringComparison.Ordinal);

    private static double Share(string part, string value, string field, double current, FieldErrors errors)
    {
        if (FigureText.Share(value, current / 100, MayBeNegative(part)) is { } share) return share;
        errors.Add(field, $"\u201c{value}\u201d is not a percentage. Type a number, such as 20 or -20.");
        return 0;
    }

    private static Func<Treatment, Treatment> Gamma(string value, string field, double current, FieldErrors errors)
    {
        if (FigureText.Read(value, current) is not { } gamma)
        {
            errors.Add(field, $"\u201c{value}\u201d is no number. Type one, such as 1.2.");
            return t => t;
        }
        return t => t with { Gamma = gamma };
    }

    private static Func<Treatment, Treatment> Ink(string part, Colour? colour, Publication publication) => t =>
    {
        if (colour is null) return t;
        var inks = t.Inks ?? new(DarkOf(publication), Colour.White);
        return t with { Inks = part.EndsWith("dark", StringComparison.Ordinal) ? inks with { Dark = colour } : inks with { Light = colour } };
    };

    /// <summary>The palette's first colour that is dark enough for shadows; black where there is none.</summary>
    private static Colour DarkOf(Publication publication) => publication.Colours.Values.OrderBy(c => c.Id).FirstOrDefault(c =>
        c.Colour.Shown.Luminance < 0.2) is { } dark
        ? new NamedColour(dark.Id) : Colour.Black;
}
