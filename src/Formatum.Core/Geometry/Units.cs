using System.Globalization;
using System.Text.RegularExpressions;

namespace Formatum.Core.Geometry;

/// <summary>The units people see lengths in. Inside, every length is PostScript points: 72 to the inch, 25.4 mm to the inch.</summary>
public enum LengthUnit { Millimetre, Point, Inch, Pica }

/// <summary>Reading and writing lengths. A pica is 12 points; "3p6" is three picas and six points, as the trade writes it.</summary>
public static partial class Units
{
    public const double PointsPerInch = 72;
    public const double PointsPerMillimetre = PointsPerInch / 25.4;
    public const double PointsPerPica = 12;

    public static double Millimetres(double mm) => mm * PointsPerMillimetre;

    public static double PointsPer(LengthUnit unit) => unit switch
    {
        LengthUnit.Millimetre => PointsPerMillimetre,
        LengthUnit.Inch => PointsPerInch,
        LengthUnit.Pica => PointsPerPica,
        _ => 1,
    };

    public static string Symbol(LengthUnit unit) => unit switch
    {
        LengthUnit.Millimetre => "mm",
        LengthUnit.Inch => "in",
        LengthUnit.Pica => "p",
        _ => "pt",
    };

    /// <summary>The length as typed by people of the given unit, without the unit's symbol, rounded to about a thousandth of a millimetre.</summary>
    public static string Number(double points, LengthUnit unit)
    {
        int places = unit switch { LengthUnit.Inch => 4, LengthUnit.Millimetre => 3, _ => 3 };
        double value = Math.Round(points / PointsPer(unit), places);
        return (value == 0 ? 0 : value).ToString("0.####", CultureInfo.InvariantCulture);
    }

    /// <summary>The length with its unit: "84 mm", "0.5 in", "3p6".</summary>
    public static string Text(double points, LengthUnit unit)
    {
        if (unit != LengthUnit.Pica) return $"{Number(points, unit)} {Symbol(unit)}";
        double rounded = Math.Round(points, 3), picas = Math.Truncate(rounded / PointsPerPica);
        string rest = Math.Abs(rounded - picas * PointsPerPica).ToString("0.###", CultureInfo.InvariantCulture);
        return (rounded < 0 && picas == 0 ? "-0" : picas.ToString("0", CultureInfo.InvariantCulture)) + "p" + rest;
    }

    /// <summary>
    /// Reads a length such as "12", "12mm", "0.5 in", "3p6" or "-4,5 pt". A bare number is taken in <paramref name="bare"/>; a decimal comma
    /// counts as a point.
    /// </summary>
    /// <returns>False where the text is no length; <paramref name="points"/> is then 0.</returns>
    public static bool TryParse(string? text, LengthUnit bare, out double points)
    {
        points = 0;
        var match = LengthPattern().Match((text ?? "").Trim().Replace(',', '.').Replace('\u2212', '-'));
        if (!match.Success) return false;
        double sign = match.Groups["sign"].Value == "-" ? -1 : 1;
        double amount = Parse(match.Groups["amount"]);
        string unit = match.Groups["unit"].Value.ToLowerInvariant();
        double size = unit switch
        {
            "" => PointsPer(bare),
            "mm" => PointsPerMillimetre,
            "cm" => 10 * PointsPerMillimetre,
            "m" => 1000 * PointsPerMillimetre,
            "in" or "\"" => PointsPerInch,
            "p" or "pc" or "pica" or "picas" => PointsPerPica,
            _ => 1,
        };
        double value = sign * (amount * size + Parse(match.Groups["rest"]));
        if (!double.IsFinite(value)) return false;
        points = value;
        return true;
    }

    private static double Parse(Group digits) =>
        digits.Success && digits.Length > 0 ? double.Parse(digits.Value, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture) : 0;

    [GeneratedRegex("""^(?<sign>[+-]?)\s*(?<amount>\d{1,12}(?:\.\d{0,12})?|\.\d{1,12})\s*""" +
        """(?:(?<unit>p)(?<rest>\d{1,6}(?:\.\d{0,6})?)|(?<unit>mm|cm|m|in|"|pt|pc|picas?|p)?)$""",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex LengthPattern();
}
