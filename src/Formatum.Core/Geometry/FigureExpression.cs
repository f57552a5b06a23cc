namespace Formatum.Core.Geometry;

/// <summary>Plain figures with arithmetic, as <see cref="LengthExpression"/> reads lengths: percentages, degrees, resolutions, counts.</summary>
public static class FigureExpression
{
    /// <param name="text">What was typed. A leading +, * or / goes on from the current value; so does a leading - where no figure may be negative.</param>
    /// <param name="current">The current value.</param>
    /// <param name="mayBeNegative">Whether a leading - makes a negative figure.</param>
    /// <param name="sign">What may stand behind each number, and says no more than the field does: "%", "ppi"; empty for nothing.</param>
    /// <param name="value">The value; 0 where the text is none.</param>
    /// <returns>False where the text is no such expression.</returns>
    public static bool TryRead(string? text, double current, bool mayBeNegative, string sign, out double value)
    {
        string bare = sign.Length == 0 ? text ?? "" : (text ?? "").Replace(sign, "", StringComparison.OrdinalIgnoreCase);
        value = 0;
        // No unit of a length, and no share of what there is: neither means anything here.
        return !bare.Any(c => char.IsLetter(c) || c is '%' or '"') && LengthExpression.TryRead(bare, LengthUnit.Point, current, mayBeNegative, out value);
    }
}
