using Formatum.Core.Colours;
using Formatum.Imaging;

namespace Formatum.Output.Press;

/// <summary>What becomes of a colour on a press, whoever asks: the PDF, the separated page and the screen.</summary>
internal static class PressInks
{
    /// <summary>The inks that a colour says itself; null for light that has to be converted. Light without a colour is ink black alone, in the tone it shows:
    /// four inks would tint it wherever one of them prints a little more than it should.</summary>
    public static CmykColour? Plain(Colour colour, PressConversion press) => colour switch
    {
        CmykColour four => four,
        GreyColour grey => new(0, 0, 0, grey.Ink),
        RgbColour light when IsNeutral(light) => new(0, 0, 0, press.BlackFor(light.Green)),
        _ => null,
    };

    private static bool IsNeutral(RgbColour light) => light.Red == light.Green && light.Green == light.Blue;

    /// <summary>The inks a colour comes to, light by the profile of the press.</summary>
    public static CmykColour Of(Colour colour, PressConversion press) => Plain(colour, press) ?? press.Inks(colour.Shown);

    /// <summary>Whether letters of this colour print over what lies beneath: ink black alone does.</summary>
    public static bool Overprints(Colour colour, PressConversion press) => Plain(colour, press) is { Cyan: 0, Magenta: 0, Yellow: 0, Key: 1 };
}
