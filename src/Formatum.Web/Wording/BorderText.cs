using System.Text.RegularExpressions;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Web.Wording;

/// <summary>Borders and corners as text: shown in fields, read back from what is typed or chosen.</summary>
public static partial class BorderText
{
    public static readonly (BorderKind Kind, string Words)[] Kinds =
    [
        (BorderKind.Solid, "Solid"), (BorderKind.Dashed, "Dashed"), (BorderKind.Dotted, "Dotted"), (BorderKind.Double, "Double"),
        (BorderKind.ThickThin, "Thick, thin"), (BorderKind.ThinThick, "Thin, thick"),
    ];

    public static readonly (BorderPlace Place, string Words)[] Places =
        [(BorderPlace.On, "on the edge"), (BorderPlace.Inside, "inside"), (BorderPlace.Outside, "outside")];

    public static readonly (LineJoin Join, string Words)[] Joins = [(LineJoin.Miter, "Sharp"), (LineJoin.Round, "Round"), (LineJoin.Bevel, "Cut off")];

    public static readonly (LineEnd End, string Words)[] Ends = [(LineEnd.Butt, "Flat"), (LineEnd.Round, "Round"), (LineEnd.Square, "Square, longer")];

    public static readonly (Sides Side, string Words)[] EachSide =
        [(Sides.Top, "Top"), (Sides.Right, "Right"), (Sides.Bottom, "Bottom"), (Sides.Left, "Left")];

    public static readonly (CornerKind Kind, string Words)[] CornerKinds =
        [(CornerKind.Round, "Round"), (CornerKind.Bevel, "Bevelled"), (CornerKind.Scoop, "Scooped"), (CornerKind.Notch, "Notched")];

    /// <summary>Dashes and gaps as they are typed, in points.</summary>
    public static string Dashes(Dashes? dashes) => dashes is null ? "" : string.Join(' ', dashes.Lengths.Select(SettingText.Number));

    /// <summary>A radius for all, or four from the upper left on clockwise, in the publication's unit.</summary>
    public static string Radii(Corners? corners, LengthUnit unit) => corners is null ? "0"
        : string.Join(' ', (corners.IsEven ? [corners.UpperLeft] : corners.Radii()).Select(r => Units.Number(r, unit)));

    /// <summary>What a figure that was typed or chosen makes of a border.</summary>
    /// <param name="part">Which figure: "border.second.gap".</param>
    /// <param name="value">What was typed or chosen.</param>
    /// <param name="field">The name errors are told under.</param>
    /// <param name="publication">Whose palette is meant.</param>
    /// <param name="now">The border that "+1" and "50 %" are meant of.</param>
    /// <param name="errors">Takes what is wrong.</param>
    /// <exception cref="EditRefused">There is no such figure.</exception>
    public static Func<Border?, Border?> Change(string part, string value, string field, Publication publication, Border? now, FieldErrors errors)
    {
        if (part == "border.width") return Width(value, field, now, errors);
        if (part.StartsWith("border.second.", StringComparison.Ordinal))
            return Line(part[14..], value, field, publication, now?.Second, errors, (b, change) => change(b.Second) is { } second
                ? b with { Second = second } : b with { Second = null, Third = null });
        if (part.StartsWith("border.third.", StringComparison.Ordinal))
            return Line(part[13..], value, field, publication, now?.Third, errors, (b, change) => b with { Third = change(b.Third) });
        Func<Border, Border> change = part switch
        {
            "border.colour" when ColourText.Read(publication, field, value, errors) is { } colour => b => b with { Colour = colour },
            "border.kind" when SettingText.Choice<BorderKind>(field, value, errors) is { } kind => b => b with { Kind = kind },
            "border.place" when SettingText.Choice<BorderPlace>(field, value, errors) is { } place => b => b with { Place = place },
            "border.join" when SettingText.Choice<LineJoin>(field, value, errors) is { } join => b => b with { Join = join },
            "border.end" when SettingText.Choice<LineEnd>(field, value, errors) is { } end => b => b with { End = end },
            "border.dashes" => Dashes(value, field, errors) is var dashes ? b => b with { Dashes = dashes } : b => b,
            _ when part.StartsWith("border.sides.", StringComparison.Ordinal) && SettingText.Choice<Sides>(field, part[13..], errors) is { } side =>
                b => b with { Sides = value == "true" ? b.Sides | side : b.Sides & ~side },
            "border.colour" or "border.kind" or "border.place" or "border.join" or "border.end" => b => b,
            _ => throw new EditRefused("look", $"A border has no \"{part}\"."),
        };
        return border => change(border ?? Border.Usual);
    }

    private static Func<Border?, Border?> Width(string value, string field, Border? now, FieldErrors errors)
    {
        double? width = value is "" or "none" ? 0 : SettingText.Length(field, value, LengthUnit.Point, now?.Width ?? 0, false, errors);
        return width == 0 ? _ => null : border => (border ?? Border.Usual) with { Width = width ?? Border.Usual.Width };
    }

    private static Func<Border?, Border?> Line(string part, string value, string field, Publication publication, BorderLine? now, FieldErrors errors,
        Func<Border, Func<BorderLine?, BorderLine?>, Border> put)
    {
        bool isNone = value is "" or "none";
        double? length = isNone || part is not ("width" or "gap") ? null : SettingText.Length(field, value, LengthUnit.Point, (part == "gap" ? now?.Gap
            : now?.Width) ?? 0, false, errors);
        var colour = isNone || part != "colour" ? null : ColourText.Read(publication, field, value, errors);
        // A new line is as wide as the first, as far from it.
        Func<BorderLine?, BorderLine?> Change(Border b) => line => part switch
        {
            "width" when isNone || length == 0 => null,
            "width" => (line ?? new(b.Width, b.Width)) with { Width = length ?? b.Width },
            "gap" => (line ?? new(b.Width, b.Width)) with { Gap = length ?? b.Width },
            "colour" => (line ?? new(b.Width, b.Width)) with { Colour = colour },
            _ => throw new EditRefused("look", $"A line of a border has no \"{part}\"."),
        };
        return border => put(border ?? Border.Usual, Change(border ?? Border.Usual));
    }

    private static Dashes? Dashes(string value, string field, FieldErrors errors)
    {
        if (value is "" or "none" || Lengths(value, LengthUnit.Point, field, errors) is not { } lengths) return null;
        return new([.. lengths]);
    }

    /// <summary>What a figure that was typed or chosen makes of corners.</summary>
    /// <exception cref="EditRefused">There is no such figure.</exception>
    public static Func<Corners, Corners> Corners(string part, string value, string field, LengthUnit unit, Corners? now, FieldErrors errors)
    {
        if (part == "corners.kind")
        {
            // A shape that was chosen is to be seen; 3 mm is common practice, no source.
            double usual = Units.Millimetres(3);
            if (value.Length == 0) return c => Core.Geometry.Corners.Even(c.Kind, 0);
            return SettingText.Choice<CornerKind>(field, value, errors) is { } kind
                ? c => c.IsSharp ? Core.Geometry.Corners.Even(kind, usual) : c with { Kind = kind } : c => c;
        }
        if (part != "corners.radius") throw new EditRefused("look", $"Corners have no \"{part}\".");
        if (value is "" or "none") value = "0";
        var radii = LengthsOrOne(value, unit, now?.UpperLeft ?? 0, field, errors);
        if (radii is { Length: > 4 }) errors.Add(field, "A rectangle has four corners. Give one radius for all, or four from the upper left on clockwise.");
        return radii is not { Length: >= 1 and <= 4 } r ? c => c : c => Of(c.Kind, r);
    }

    /// <summary>One to four radii, those left out as the opposite corner's (CSS Backgrounds and Borders 3, 4.1).</summary>
    public static Corners Of(CornerKind kind, IReadOnlyList<double> radii)
    {
        double second = radii.Count > 1 ? radii[1] : radii[0];
        return new(kind, radii[0], second, radii.Count > 2 ? radii[2] : radii[0], radii.Count > 3 ? radii[3] : second);
    }

    /// <summary>One length with whatever arithmetic, or several.</summary>
    private static double[]? LengthsOrOne(string value, LengthUnit unit, double current, string field, FieldErrors errors) =>
        LengthExpression.TryRead(value, unit, current, false, out double one) ? [one] : Lengths(value, unit, field, errors);

    private static double[]? Lengths(string value, LengthUnit unit, string field, FieldErrors errors)
    {
        string[] each = Between().Split(BeforeUnit().Replace(value.Trim(), ""));
        double?[] read = [.. each.Take(20).Select(text => SettingText.Length(field, text, unit, 0, false, errors))];
        return read.All(r => r is not null) ? [.. read.Select(r => r!.Value)] : null;
    }

    [GeneratedRegex(@"\s*[,;]\s*|\s+")]
    private static partial Regex Between();

    [GeneratedRegex(@"(?<=\d)\s+(?=\p{L})")]
    private static partial Regex BeforeUnit();
}
