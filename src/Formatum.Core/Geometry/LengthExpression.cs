namespace Formatum.Core.Geometry;

/// <summary>Lengths with arithmetic, as people type them: "210mm/3", "2*20mm + 4", "+5mm" for five more than there is.</summary>
public static class LengthExpression
{
    /// <param name="text">What was typed. A leading +, * or / goes on from the current value; so does a leading - where no length may be negative.</param>
    /// <param name="unit">The unit of numbers that name none.</param>
    /// <param name="current">The current value, in points.</param>
    /// <param name="mayBeNegative">Whether a leading - makes a negative length.</param>
    /// <param name="points">The value, in points; 0 where the text is none.</param>
    /// <returns>False where the text is no such expression.</returns>
    public static bool TryRead(string? text, LengthUnit unit, double current, bool mayBeNegative, out double points)
    {
        points = 0;
        string typed = (text ?? "").Trim().Replace(',', '.').Replace('\u2212', '-').Replace('\u00d7', '*').Replace(':', '/');
        if (typed.Length is 0 or > 200) return false;
        bool goesOn = typed[0] is '+' or '*' or '/' || (typed[0] == '-' && !mayBeNegative);
        var reader = new Reader(goesOn ? typed : "0" + (typed[0] == '-' ? typed : "+" + typed), unit);
        return reader.TryRead(goesOn ? new(current, IsLength: true) : null, out points);
    }

    /// <summary>A length in points, or a bare number, which becomes a length of the usual unit where one is wanted.</summary>
    private readonly record struct Amount(double Value, bool IsLength);

    private sealed class Reader(string text, LengthUnit unit)
    {
        private int _at;

        /// <summary>Sums of products, from the left.</summary>
        public bool TryRead(Amount? start, out double points)
        {
            points = 0;
            Amount? sum = start;
            if (sum is null && !TryProduct(null, out sum)) return false;
            while (Next() is { } sign)
            {
                if (sign is '*' or '/')
                {
                    // Only right after the current value: within a sum, products are read whole.
                    _at--;
                    if (!TryProduct(sum, out sum)) return false;
                    continue;
                }
                if (sign is not ('+' or '-') || !TryProduct(null, out var term)) return false;
                sum = new(Points(sum!.Value) + (sign == '+' ? 1 : -1) * Points(term!.Value), IsLength: true);
            }
            points = Points(sum!.Value);
            return double.IsFinite(points);
        }

        private bool TryProduct(Amount? start, out Amount? product)
        {
            product = start;
            if (product is null && !TryAmount(out product)) return false;
            while (Peek() is '*' or '/')
            {
                char sign = Next()!.Value;
                if (!TryAmount(out var factor) || product is not { } left || factor is not { } right) return false;
                if (sign == '*' && left.IsLength && right.IsLength) return false;
                if (sign == '/' && (right.IsLength || right.Value == 0)) return false;
                product = new(sign == '*' ? left.Value * right.Value : left.Value / right.Value, left.IsLength || right.IsLength);
            }
            return true;
        }

        private bool TryAmount(out Amount? amount)
        {
            amount = null;
            int from = _at;
            if (Peek() is '+' or '-') _at++;
            while (_at < text.Length && text[_at] is not ('+' or '-' or '*' or '/')) _at++;
            string word = text[from.._at].Trim();
            if (word.Length == 0) return false;
            // A bare number is read in points, so that it is itself.
            bool isNumber = char.IsDigit(word[^1]) && !word.Contains('p', StringComparison.OrdinalIgnoreCase) || word[^1] == '.';
            if (!Units.TryParse(word, isNumber ? LengthUnit.Point : unit, out double value)) return false;
            amount = new(value, !isNumber);
            return true;
        }

        private double Points(Amount amount) => amount.IsLength ? amount.Value : amount.Value * Units.PointsPer(unit);

        private char? Peek()
        {
            while (_at < text.Length && text[_at] == ' ') _at++;
            return _at < text.Length ? text[_at] : null;
        }

        private char? Next()
        {
            var next = Peek();
            if (next is not null) _at++;
            return next;
        }
    }
}
