namespace Formatum.Core.Geometry;

/// <summary>Lengths with arithmetic, as people type them: "210mm/3", "(210-40)/3", "50%" of what there is, "+5mm" for five more than there is.</summary>
public static class LengthExpression
{
    private const int LongestText = 200, DeepestBrackets = 20;

    /// <param name="text">What was typed. A leading +, * or / goes on from the current value; so does a leading - where no length may be negative.</param>
    /// <param name="unit">The unit of numbers that name none.</param>
    /// <param name="current">The current value, in points.</param>
    /// <param name="mayBeNegative">Whether a leading - makes a negative length.</param>
    /// <param name="points">The value, in points; 0 where the text is none.</param>
    /// <returns>False where the text is no such expression.</returns>
    public static bool TryRead(string? text, LengthUnit unit, double current, bool mayBeNegative, out double points)
    {
        points = 0;
        string typed = (text ?? "").Trim().Replace(',', '.').Replace('\u2212', '-').Replace('\u00d7', '*').Replace('\u00f7', '/').Replace(':', '/');
        if (typed.Length is 0 or > LongestText) return false;
        bool goesOn = typed[0] is '+' or '*' or '/' || (typed[0] == '-' && !mayBeNegative);
        var reader = new Reader(typed, unit, current);
        if (reader.Sum(goesOn ? new(current, IsLength: true) : null) is not { } sum || !reader.IsAtEnd) return false;
        points = sum.IsLength ? sum.Value : sum.Value * Units.PointsPer(unit);
        return double.IsFinite(points);
    }

    /// <summary>A length in points, or a bare number, which becomes a length of the usual unit where one is wanted.</summary>
    private readonly record struct Amount(double Value, bool IsLength);

    /// <summary>Reads sums of products of amounts, from the left; null where there is none.</summary>
    private sealed class Reader(string text, LengthUnit unit, double current)
    {
        private int _at, _depth;

        public bool IsAtEnd => Peek() is null;

        /// <param name="start">What a leading sign goes on from; null where the text stands by itself.</param>
        public Amount? Sum(Amount? start)
        {
            // A sign in front of everything goes on from what there is, or turns what follows round.
            var sum = start is { } there ? (Peek() is '*' or '/' ? Product(there) : there) : Product(null);
            while (sum is { } left && Peek() is '+' or '-')
            {
                int sign = text[_at++] == '+' ? 1 : -1;
                // Bare numbers add up to a number: "210mm/(2+1)".
                sum = Product(null) is not { } right ? null : left.IsLength || right.IsLength ? new(Points(left) + sign * Points(right), IsLength: true)
                    : new(left.Value + sign * right.Value, IsLength: false);
            }
            return sum;
        }

        private Amount? Product(Amount? start)
        {
            var product = start ?? Factor();
            while (product is { } left && Peek() is '*' or '/')
            {
                bool times = text[_at++] == '*';
                product = Factor() is { } right ? (times ? Times(left, right) : Over(left, right)) : null;
            }
            return product;
        }

        private static Amount? Times(Amount left, Amount right) => left.IsLength && right.IsLength ? null
            : new(left.Value * right.Value, left.IsLength || right.IsLength);

        private static Amount? Over(Amount left, Amount right) => right.IsLength || right.Value == 0 ? null : new(left.Value / right.Value, left.IsLength);

        private Amount? Factor()
        {
            switch (Peek())
            {
                case '-':
                    _at++;
                    return Factor() is { } negative ? negative with { Value = -negative.Value } : null;
                case '+':
                    _at++;
                    return Factor();
                case '(':
                    if (++_depth > DeepestBrackets) return null;
                    _at++;
                    var inner = Sum(null);
                    if (Peek() != ')') return null;
                    _at++;
                    _depth--;
                    return inner;
                default: return Single();
            }
        }

        private Amount? Single()
        {
            int from = _at;
            while (_at < text.Length && text[_at] is not ('+' or '-' or '*' or '/' or '(' or ')')) _at++;
            string word = text[from.._at].Trim();
            if (word.Length == 0) return null;
            if (word[^1] == '%')
                return Units.TryParse(word[..^1].TrimEnd(), LengthUnit.Point, out double share) ? new(share / 100 * current, IsLength: true) : null;
            // A bare number is read in points, so that it is itself.
            bool isNumber = (char.IsDigit(word[^1]) && !word.Contains('p', StringComparison.OrdinalIgnoreCase)) || word[^1] == '.';
            return Units.TryParse(word, isNumber ? LengthUnit.Point : unit, out double value) ? new(value, !isNumber) : null;
        }

        private double Points(Amount amount) => amount.IsLength ? amount.Value : amount.Value * Units.PointsPer(unit);

        private char? Peek()
        {
            while (_at < text.Length && text[_at] == ' ') _at++;
            return _at < text.Length ? text[_at] : null;
        }
    }
}
