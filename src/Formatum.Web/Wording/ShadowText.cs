using Formatum.Core.Checks;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Web.Wording;

/// <summary>Shadows, outside and within, as text: shown in fields, read back from what is typed.</summary>
public static class ShadowText
{
    /// <summary>The figures of a shadow that are lengths, each as people read it.</summary>
    public static readonly (string Name, string Label, Func<Shadow, double> Value)[] Distances =
        [("across", "Across", s => s.Across), ("down", "Down", s => s.Down), ("blur", "Blur", s => s.Blur)];

    /// <summary>What comes behind the shadow's name in "innerShadow.blur"; empty for the shadow itself.</summary>
    private static string FigureOf(string part) => part.IndexOf('.', StringComparison.Ordinal) is var dot and >= 0 ? part[(dot + 1)..] : "";

    /// <summary>A figure as its field shows it; empty where there is no shadow.</summary>
    public static string Value(Publication publication, Shadow? shadow, string part)
    {
        var unit = publication.Setup.Unit;
        string Length(double points) => unit == LengthUnit.Pica ? Units.Text(points, unit) : Units.Number(points, unit);
        string figure = FigureOf(part);
        if (figure.Length == 0) return shadow is null ? "false" : "true";
        if (shadow is null) return "";
        return figure switch
        {
            "colour" => ColourText.Value(publication, shadow.Colour),
            "strength" => TreatmentText.Percent(shadow.Strength),
            _ => Length(Distances.First(d => d.Name == figure).Value(shadow)),
        };
    }

    /// <summary>What a figure that was typed or chosen makes of a shadow; the usual one comes to be where there was none.</summary>
    /// <param name="part">Which figure: "shadow.blur".</param>
    /// <param name="value">What was typed or chosen.</param>
    /// <param name="field">The name errors are told under.</param>
    /// <param name="publication">Whose unit and palette are meant.</param>
    /// <param name="now">The shadow that "+1" is meant of.</param>
    /// <param name="errors">Takes what is wrong.</param>
    /// <exception cref="EditRefused">There is no such figure.</exception>
    public static Func<Shadow?, Shadow?> Change(string part, string value, string field, Publication publication, Shadow? now, FieldErrors errors)
    {
        double? Length(double? current, bool negative) => SettingText.Length(field, value, publication.Setup.Unit, current ?? 0, negative, errors);
        static Func<Shadow?, Shadow?> With(Func<Shadow, Shadow> change) => shadow => change(shadow ?? Shadow.Usual);
        switch (FigureOf(part))
        {
            case "": return shadow => value == "true" ? shadow ?? Shadow.Usual : null;
            case "across": return Length(now?.Across, true) is { } across ? With(s => s with { Across = across }) : Same;
            case "down": return Length(now?.Down, true) is { } down ? With(s => s with { Down = down }) : Same;
            case "blur": return Length(now?.Blur, false) is { } blur ? With(s => s with { Blur = blur }) : Same;
            case "colour": return ColourText.Read(publication, field, value, errors) is { } colour ? With(s => s with { Colour = colour }) : Same;
            case "strength" when FigureText.Share(value, (now ?? Shadow.Usual).Strength) is { } share: return With(s => s with { Strength = share });
            case "strength":
                errors.Add(field, $"\u201c{value}\u201d is not a percentage. Type a number from 0 to 100.");
                return Same;
            default: throw new EditRefused("look", $"A look has no \"{part}\".");
        }
    }

    private static Shadow? Same(Shadow? shadow) => shadow;
}
