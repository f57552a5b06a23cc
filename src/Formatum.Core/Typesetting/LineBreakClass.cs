using System.Collections.Immutable;
using System.Globalization;

namespace Formatum.Core.Typesetting;

/// <summary>The line-breaking classes of Unicode, by their names in UAX #14; OPW and CPW are the wide ones of OP and CP, IDX unassigned pictographs.</summary>
internal enum LineBreakClass
{
    AL, B2, BA, BB, BK, CB, CL, CM, CP, CPW, CR, EB, EM, EX, GL, H2, H3, HL, HY, ID, IDX, IN, IS, JL, JT, JV, LF, NL, NS, NU, OP, OPW, PO, PR, QU, RI, SA, SP,
    SY, WJ, ZW, ZWJ,
}

/// <summary>The class of each code point, from the table that lies beside this file.</summary>
internal static class LineBreakClasses
{
    private static readonly ImmutableArray<(int First, int Last, LineBreakClass Class)> Ranges = Read();

    public static LineBreakClass Of(int codePoint)
    {
        int low = 0, high = Ranges.Length - 1;
        while (low <= high)
        {
            int middle = (low + high) / 2;
            var (first, last, found) = Ranges[middle];
            if (codePoint < first) high = middle - 1;
            else if (codePoint > last) low = middle + 1;
            else return found == LineBreakClass.SA ? OfSouthEastAsian(codePoint) : found;
        }
        return LineBreakClass.AL;
    }

    /// <summary>Rule LB1: without a dictionary of the language, marks go with what they stand on and letters keep together.</summary>
    private static LineBreakClass OfSouthEastAsian(int codePoint) =>
        CharUnicodeInfo.GetUnicodeCategory(codePoint) is UnicodeCategory.NonSpacingMark or UnicodeCategory.SpacingCombiningMark ? LineBreakClass.CM
            : LineBreakClass.AL;

    private static ImmutableArray<(int, int, LineBreakClass)> Read()
    {
        using var stream = typeof(LineBreakClasses).Assembly.GetManifestResourceStream("LineBreakClasses.txt")!;
        using var reader = new StreamReader(stream);
        var ranges = ImmutableArray.CreateBuilder<(int, int, LineBreakClass)>();
        while (reader.ReadLine() is { } line)
        {
            if (line.StartsWith('#')) continue;
            int blank = line.IndexOf(' ', StringComparison.Ordinal);
            string[] ends = line[..blank].Split("..");
            ranges.Add((Hex(ends[0]), Hex(ends[^1]), Enum.Parse<LineBreakClass>(line.AsSpan(blank + 1))));
        }
        return ranges.ToImmutable();
    }

    private static int Hex(string text) => int.Parse(text, NumberStyles.HexNumber, CultureInfo.InvariantCulture);
}
