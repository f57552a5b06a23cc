using System.Collections.Frozen;
using System.Collections.Immutable;
using System.Globalization;

namespace Formatum.Core.Typesetting;

/// <summary>The bidirectional classes of Unicode, by their names in UAX #9, table 4.</summary>
internal enum BidiClass { L, R, AL, EN, ES, ET, AN, CS, NSM, BN, B, S, WS, ON, LRE, LRO, RLE, RLO, PDF, LRI, RLI, FSI, PDI }

/// <summary>The class of each code point and the pairs of brackets, from the table that lies beside this file.</summary>
internal static class BidiClasses
{
    private static readonly ImmutableArray<(int First, int Last, BidiClass Class)> Ranges;
    private static readonly FrozenDictionary<int, int> Closing, Opening;

    static BidiClasses()
    {
        using var stream = typeof(BidiClasses).Assembly.GetManifestResourceStream("BidiClasses.txt")!;
        using var reader = new StreamReader(stream);
        var ranges = ImmutableArray.CreateBuilder<(int, int, BidiClass)>();
        var pairs = new Dictionary<int, int>();
        while (reader.ReadLine() is { } line)
        {
            if (line.StartsWith('#')) continue;
            string[] parts = line.Split(' '), ends = parts[0].Split("..");
            if (parts.Length == 3) pairs[Hex(parts[0])] = Hex(parts[1]);
            else ranges.Add((Hex(ends[0]), Hex(ends[^1]), Enum.Parse<BidiClass>(parts[1])));
        }
        Ranges = ranges.ToImmutable();
        Closing = pairs.ToFrozenDictionary();
        Opening = pairs.ToFrozenDictionary(p => p.Value, p => p.Key);
    }

    public static BidiClass Of(int codePoint)
    {
        int low = 0, high = Ranges.Length - 1;
        while (low <= high)
        {
            int middle = (low + high) / 2;
            var (first, last, found) = Ranges[middle];
            if (codePoint < first) high = middle - 1;
            else if (codePoint > last) low = middle + 1;
            else return found;
        }
        return BidiClass.L;
    }

    /// <summary>The bracket that closes an opening one; null for all else. Angle brackets count as their canonical equivalents (BD16).</summary>
    public static int? ClosingOf(int codePoint) => Closing.TryGetValue(codePoint, out int closing) ? Canonical(closing) : null;

    /// <summary>Whether it closes a pair.</summary>
    public static bool Closes(int codePoint) => Opening.ContainsKey(codePoint);

    public static int Canonical(int bracket) => bracket switch { 0x2329 => 0x3008, 0x232a => 0x3009, _ => bracket };

    private static int Hex(string text) => int.Parse(text, NumberStyles.HexNumber, CultureInfo.InvariantCulture);
}
