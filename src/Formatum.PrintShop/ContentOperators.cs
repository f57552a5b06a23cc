using System.Globalization;
using System.Text;

namespace Formatum.PrintShop;

/// <summary>Reads the operators of a content stream (ISO 32000-1, 7.8.2), each with the numbers and names before it; strings and arrays are
/// passed over.</summary>
public static class ContentOperators
{
    /// <param name="content">The stream, decoded.</param>
    public static IEnumerable<(string Operator, List<double> Numbers, List<string> Names)> Of(ReadOnlyMemory<byte> content)
    {
        List<double> numbers = [];
        List<string> names = [];
        int at = 0;
        while (Next(content.Span, ref at) is { } token)
        {
            if (token.Length == 0) continue;
            if (token[0] == '/') names.Add(token[1..]);
            else if (double.TryParse(token, NumberStyles.Float, CultureInfo.InvariantCulture, out double number)) numbers.Add(number);
            else
            {
                yield return (token, numbers, names);
                if (token == "ID") at = AfterPicture(content.Span, at);
                (numbers, names) = ([], []);
            }
        }
    }

    /// <summary>The next token; empty for what is passed over; null at the end.</summary>
    private static string? Next(ReadOnlySpan<byte> content, ref int at)
    {
        while (at < content.Length && IsBlank(content[at])) at++;
        if (at >= content.Length) return null;
        int from = at;
        switch (content[at])
        {
            case (byte)'%':
                while (at < content.Length && content[at] is not ((byte)'\n' or (byte)'\r')) at++;
                return "";
            case (byte)'(':
                at = AfterString(content, at);
                return "";
            case (byte)'<' when at + 1 < content.Length && content[at + 1] == '<':
            case (byte)'>':
            case (byte)'[' or (byte)']' or (byte)'{' or (byte)'}':
                at++;
                return "";
            case (byte)'<':
                while (at < content.Length && content[at] != '>') at++;
                return "";
        }
        at++;
        while (at < content.Length && !IsBlank(content[at]) && !"()<>[]{}/%".Contains((char)content[at], StringComparison.Ordinal)) at++;
        return Encoding.Latin1.GetString(content[from..at]);
    }

    private static bool IsBlank(byte b) => b is 0 or 9 or 10 or 12 or 13 or 32;

    private static int AfterString(ReadOnlySpan<byte> content, int at)
    {
        int depth = 0;
        for (; at < content.Length; at++)
        {
            if (content[at] == '\\') at++;
            else if (content[at] == '(') depth++;
            else if (content[at] == ')' && --depth == 0) return at + 1;
        }
        return at;
    }

    /// <summary>Behind the data of a picture that stands in the stream itself: it ends with EI between blanks (8.9.7).</summary>
    private static int AfterPicture(ReadOnlySpan<byte> content, int at)
    {
        for (; at + 3 < content.Length; at++)
            if (IsBlank(content[at]) && content[at + 1] == 'E' && content[at + 2] == 'I' && IsBlank(content[at + 3])) return at + 1;
        return content.Length;
    }
}
