using Formatum.Core.Geometry;

namespace Formatum.Web.Wording;

/// <summary>Figures as people type them in any field: a number, or arithmetic that goes on from what stands there. Null where it is none.</summary>
public static class FigureText
{
    /// <param name="text">What was typed.</param>
    /// <param name="current">The current value: "+2" and "*2" are meant of it.</param>
    /// <param name="mayBeNegative">Whether "-2" is a figure, rather than two less than there is.</param>
    /// <param name="sign">What may stand behind a number.</param>
    public static double? Read(string? text, double current, bool mayBeNegative = false, string sign = "") =>
        FigureExpression.TryRead(text, current, mayBeNegative, sign, out double value) ? value : null;

    /// <summary>A share, typed as a percentage.</summary>
    public static double? Share(string? text, double current, bool mayBeNegative = false) => Read(text, 100 * current, mayBeNegative, "%") / 100;

    /// <summary>An angle, typed in degrees.</summary>
    public static double? Degrees(string? text, double current) => Read(text, current, mayBeNegative: true, "\u00b0");

    /// <summary>A whole number.</summary>
    public static int? Whole(string? text, int current, bool mayBeNegative = false) =>
        Read(text, current, mayBeNegative) is { } value && value == Math.Round(value) && Math.Abs(value) <= int.MaxValue ? (int)value : null;
}
