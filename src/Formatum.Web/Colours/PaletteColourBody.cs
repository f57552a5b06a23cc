using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Publications;

namespace Formatum.Web.Colours;

/// <summary>A colour of the palette in a request or a file: its name, and one of "rgb", "cmyk" and "grey".</summary>
public sealed record PaletteColourBody
{
    public string? Name { get; init; }

    /// <summary>"#rrggbb".</summary>
    public string? Rgb { get; init; }

    /// <summary>Four inks, each 0 to 1.</summary>
    public double[]? Cmyk { get; init; }

    /// <summary>How much black ink, 0 to 1.</summary>
    public double? Grey { get; init; }

    /// <summary>Whether it is an ink of its own, for which the figures stand in.</summary>
    public bool Spot { get; init; }

    /// <exception cref="EditRefused">It has no figures, or several.</exception>
    public PaletteColour ToColour()
    {
        if (new object?[] { Rgb, Cmyk, Grey }.Count(v => v is not null) != 1)
            throw new EditRefused("colour", $"Give \u201c{Name}\u201d as one of rgb (\"#rrggbb\"), cmyk ([c,m,y,k] from 0 to 1) and grey (0 to 1).");
        Colour colour = this switch
        {
            { Grey: { } ink } => new GreyColour(ink),
            { Cmyk: [var c, var m, var y, var k] } => new CmykColour(c, m, y, k),
            { Rgb: { } hex } when RgbColour.TryParse(hex, out var rgb) => rgb,
            _ => throw new EditRefused("colour",
                $"The figures of \u201c{Name}\u201d are none: rgb is # and six hexadecimal digits, cmyk four inks from 0 to 1."),
        };
        return new() { Id = 1, Name = Name ?? "", Colour = colour, IsSpot = Spot };
    }
}
