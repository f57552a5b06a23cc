using Formatum.Core.Colours;
using Formatum.Imaging;

namespace Formatum.Output.Press;

/// <summary>What becomes of a colour on a press, whoever asks: the PDF, the separated page and the screen.</summary>
internal static class PressInks
{
    /// <summary>The inks that a colour says itself; null for light, which has to be converted. Black is ink black alone, however it was given; a spot colour is
    /// none of these inks.</summary>
    public static CmykColour? Plain(Colour colour) => colour switch
    {
        CmykColour four => four,
        GreyColour grey => new(0, 0, 0, grey.Ink),
        RgbColour { Red: 0, Green: 0, Blue: 0 } => new(0, 0, 0, 1),
        RgbColour { Red: 255, Green: 255, Blue: 255 } => new(0, 0, 0, 0),
        _ => null,
    };

    /// <summary>The inks a colour comes to, light by the profile of the press.</summary>
    public static CmykColour Of(Colour colour, PressConversion press) => Plain(colour) ?? press.Inks(colour.Shown);

    /// <summary>Whether letters of this colour print over what lies beneath: ink black alone does.</summary>
    public static bool Overprints(Colour colour) => Plain(colour) is { Cyan: 0, Magenta: 0, Yellow: 0, Key: 1 };
}
