using System.Collections.Frozen;

namespace Formatum.Core.Typesetting;

/// <summary>The bidirectional classes of Unicode, by their names in UAX #9, table 4.</summary>
internal enum BidiClass { L, R, AL, EN, ES, ET, AN, CS, NSM, BN, B, S, WS, ON, LRE, LRO, RLE, RLO, PDF, LRI, RLI, FSI, PDI }

/// <summary>The class of each code point and the pairs of brackets, from the table that lies beside this file.</summary>
internal static class BidiClasses
{
    private static readonly CodePointTable<BidiClass> Table = new("BidiClasses.txt", BidiClass.L);

    private static readonly FrozenDictionary<int, int> Closing = Table.Further.ToFrozenDictionary(f => CodePointTable<BidiClass>.Hex(f[0]),
        f => CodePointTable<BidiClass>.Hex(f[1]));

    private static readonly FrozenSet<int> Ends = Closing.Values.ToFrozenSet();

    public static BidiClass Of(int codePoint) => Table.Of(codePoint);

    /// <summary>The bracket that closes an opening one; null for all else. Angle brackets count as their canonical equivalents (BD16).</summary>
    public static int? ClosingOf(int codePoint) => Closing.TryGetValue(codePoint, out int closing) ? Canonical(closing) : null;

    /// <summary>Whether it closes a pair.</summary>
    public static bool Closes(int codePoint) => Ends.Contains(codePoint);

    public static int Canonical(int bracket) => bracket switch { 0x2329 => 0x3008, 0x232a => 0x3009, _ => bracket };
}
