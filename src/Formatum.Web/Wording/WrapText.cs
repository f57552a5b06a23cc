using Formatum.Core.Checks;
using Formatum.Core.Geometry;
using Formatum.Core.Stories;

namespace Formatum.Web.Wording;

/// <summary>How text keeps clear of frames, in words, and read back from what is typed or chosen.</summary>
public static class WrapText
{
    public static readonly (WrapAround Around, string Words)[] Ways =
    [
        (WrapAround.None, "does not keep clear"), (WrapAround.Box, "keeps clear of its box"), (WrapAround.Outline, "keeps clear of its outline"),
        (WrapAround.Contour, "keeps clear of its contour"), (WrapAround.Clear, "stands above and below alone"),
    ];

    public static readonly (WrapSides Sides, string Words)[] Sides =
        [(WrapSides.Both, "on both sides"), (WrapSides.Wider, "on the wider side"), (WrapSides.Start, "on the left"), (WrapSides.End, "on the right")];

    /// <summary>What a figure that was typed or chosen makes of a wrap; a distance is that of all four sides.</summary>
    public static Func<Wrap, Wrap> Change(string part, string value, string field, LengthUnit unit, Wrap now, FieldErrors errors)
    {
        switch (part)
        {
            case "wrap.around": return SettingText.Choice<WrapAround>(field, value, errors) is { } around ? w => w with { Around = around } : w => w;
            case "wrap.sides": return SettingText.Choice<WrapSides>(field, value, errors) is { } sides ? w => w with { Sides = sides } : w => w;
            default:
                return SettingText.Length(field, value, unit, now.Distance.Top, false, errors) is { } distance
                    ? w => w with { Distance = new(distance, distance, distance, distance) } : w => w;
        }
    }
}
