using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Output.Press;
using Formatum.Web.Wording;

namespace Formatum.Web.Colours;

/// <summary>What the figures of a colour are.</summary>
public enum ColourKind { Inks, Screen, Grey }

/// <summary>A colour of the palette as it is typed: text, so that nothing typed is lost however wrong it is.</summary>
public sealed class ColourForm
{
    public string? Name { get; set; }
    public ColourKind Kind { get; set; }
    public string? Cyan { get; set; }
    public string? Magenta { get; set; }
    public string? Yellow { get; set; }
    public string? Key { get; set; }
    public string? Hex { get; set; }
    public string? Grey { get; set; }
    public bool Spot { get; set; }

    /// <summary>The publication's revision when the form was made.</summary>
    public long Seen { get; set; }

    /// <param name="colour">The colour; null for a new one.</param>
    /// <param name="press">What it is printed on: inks show as it prints them, and light begins with the inks that come nearest.</param>
    /// <param name="start">What a new one begins with.</param>
    public static ColourForm Of(PaletteColour? colour, PressConversion press, Colour? start = null)
    {
        var now = colour?.Colour ?? start ?? new CmykColour(0, 0, 0, 1);
        var printed = PrintedColour.Of(now, press);
        var inks = now as CmykColour ?? Whole(printed.Inks);
        var shown = now as RgbColour ?? printed.Shown;
        return new()
        {
            Name = colour?.Name,
            Kind = now switch { RgbColour => ColourKind.Screen, GreyColour => ColourKind.Grey, _ => ColourKind.Inks },
            Cyan = Percent(inks.Cyan),
            Magenta = Percent(inks.Magenta),
            Yellow = Percent(inks.Yellow),
            Key = Percent(inks.Key),
            Hex = shown.Text,
            Grey = Percent((now as GreyColour)?.Ink ?? 1 - shown.Luminance),
            Spot = colour?.IsSpot ?? false,
        };
    }

    /// <summary>Figures to begin with, without decimals that nobody typed.</summary>
    private static CmykColour Whole(CmykColour inks) =>
        new(Math.Round(inks.Cyan, 2), Math.Round(inks.Magenta, 2), Math.Round(inks.Yellow, 2), Math.Round(inks.Key, 2));

    private static string Percent(double share) => (100 * share).ToString("0.##", CultureInfo.InvariantCulture);

    /// <summary>The edit that the form asks for; what cannot be read goes to <paramref name="errors"/>.</summary>
    /// <param name="changed">The colour that is changed, which arithmetic goes on from; null for a new one.</param>
    /// <param name="errors">Takes what is wrong.</param>
    public DefineColour Read(PaletteColour? changed, FieldErrors errors)
    {
        var (inks, grey) = (changed?.Colour as CmykColour ?? new(0, 0, 0, 0), (changed?.Colour as GreyColour)?.Ink ?? 0);
        double Share(string field, string? typed, double current)
        {
            if (FigureText.Share(typed, current) is { } share) return share;
            errors.Add(field, $"\u201c{typed}\u201d is not a percentage. Type a number from 0 to 100.");
            return 0;
        }
        Colour colour = Kind switch
        {
            ColourKind.Grey => new GreyColour(Share("grey", Grey, grey)),
            ColourKind.Screen => RgbColour.TryParse(Hex?.Trim(), out var rgb) ? rgb : Colour.Black,
            _ => new CmykColour(Share("cyan", Cyan, inks.Cyan), Share("magenta", Magenta, inks.Magenta), Share("yellow", Yellow, inks.Yellow),
                Share("key", Key, inks.Key)),
        };
        if (Kind == ColourKind.Screen && !RgbColour.TryParse(Hex?.Trim(), out _))
            errors.Add("hex", $"\u201c{Hex}\u201d is no colour. Type # and six hexadecimal digits, such as #2f6f4f.");
        return new() { ColourId = changed?.Id, Name = Name ?? "", Colour = colour, IsSpot = Spot };
    }
}
