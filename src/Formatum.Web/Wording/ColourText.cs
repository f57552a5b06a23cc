using System.Globalization;
using System.Text.RegularExpressions;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Publications;

namespace Formatum.Web.Wording;

/// <summary>Colours as text: shown in fields, read back from what is typed or chosen.</summary>
public static partial class ColourText
{
    private const string Remedy = "Type a colour's name, or figures such as #2f6f4f, C 0 M 80 Y 100 K 0 or grey 50 %.";

    private static readonly string[] InkNames = ["c", "m", "y", "k"];

    /// <summary>The colour as a field shows it: what <see cref="Read"/> reads.</summary>
    public static string Value(Publication publication, Colour colour) => colour is NamedColour named
        ? publication.Colours.GetValueOrDefault(named.Id)?.Name ?? publication.ColourOf(named).Text : colour.Text;

    /// <summary>The colour as a choice of a list says it: "@12" for one of the palette.</summary>
    public static string Choice(Colour colour) => colour is NamedColour named ? string.Create(CultureInfo.InvariantCulture, $"@{named.Id}") : colour.Text;

    /// <summary>Reads a colour: a name of the palette, figures, or the choice of a list.</summary>
    /// <param name="publication">Whose palette is meant.</param>
    /// <param name="field">What it is for.</param>
    /// <param name="text">What was typed or chosen.</param>
    /// <param name="errors">Takes what is wrong.</param>
    public static Colour? Read(Publication publication, string field, string text, FieldErrors errors)
    {
        string typed = text.Trim();
        if (typed.StartsWith('@') && int.TryParse(typed.AsSpan(1), NumberStyles.None, CultureInfo.InvariantCulture, out int id)) return new NamedColour(id);
        if (publication.Colours.Values.FirstOrDefault(c => string.Equals(c.Name, typed, StringComparison.OrdinalIgnoreCase)) is { } named)
            return new NamedColour(named.Id);
        if (Figures(typed) is { } colour) return colour;
        errors.Add(field, $"\u201c{(typed.Length > 60 ? typed[..60] + "..." : typed)}\u201d is no colour here. {Remedy}");
        return null;
    }

    /// <summary>A colour by its figures alone; null where it is none.</summary>
    public static Colour? Figures(string typed)
    {
        if (RgbColour.TryParse(typed, out var rgb)) return rgb;
        if (Grey().Match(typed) is { Success: true } grey) return Share(grey.Groups["k"].Value) is { } ink ? new GreyColour(ink) : null;
        if (Inks().Match(typed) is not { Success: true } inks) return null;
        var shares = InkNames.Select(g => Share(inks.Groups[g].Value)).ToList();
        return shares.Any(s => s is null) ? null : new CmykColour(shares[0]!.Value, shares[1]!.Value, shares[2]!.Value, shares[3]!.Value);
    }

    private static double? Share(string percent) => double.TryParse(percent.Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture,
        out double value) && value <= 100 ? value / 100 : null;

    [GeneratedRegex(@"^gr[ea]y\s*(?<k>[\d.,]+)\s*%?$", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Grey();

    [GeneratedRegex(@"^(cmyk\s*)?C?\s*(?<c>[\d.]+)\s*%?[\s,;/]+M?\s*(?<m>[\d.]+)\s*%?[\s,;/]+Y?\s*(?<y>[\d.]+)\s*%?[\s,;/]+K?\s*(?<k>[\d.]+)\s*%?$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Inks();
}
