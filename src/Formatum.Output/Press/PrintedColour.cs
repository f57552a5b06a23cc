using Formatum.Core.Colours;
using Formatum.Imaging;

namespace Formatum.Output.Press;

/// <summary>What becomes of a colour on a press.</summary>
/// <param name="Inks">The four inks it is printed in; of a spot colour, those that stand in for its own.</param>
/// <param name="Shown">How it looks once printed, as a screen shows that.</param>
/// <param name="IsBeyond">Whether that is seen to differ from what was asked for: light that no inks come near to.</param>
public sealed record PrintedColour(CmykColour Inks, RgbColour Shown, bool IsBeyond)
{
    public static PrintedColour Of(Colour colour, PressConversion press)
    {
        var inks = PressInks.Of(colour, press);
        var shown = press.OnScreen(inks);
        // Inks are what they are: only light can lie beyond them.
        bool isBeyond = PressInks.Plain(colour, press) is null && ColourDistance.Of(Bytes(colour.Shown), Bytes(shown), 1, 1)[0] > PressView.Visible;
        return new(inks, shown, isBeyond);
    }

    private static byte[] Bytes(RgbColour colour) => [colour.Red, colour.Green, colour.Blue];
}
