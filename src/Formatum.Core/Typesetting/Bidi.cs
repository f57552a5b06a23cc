using System.Collections.Immutable;
using System.Text;

namespace Formatum.Core.Typesetting;

/// <summary>
/// Which characters of a paragraph run from right to left, and in which order those of a line stand: the Unicode Bidirectional Algorithm (UAX #9, version 15).
/// Its rules are named where they are kept.
/// </summary>
public sealed class Bidi
{
    /// <summary>BD2: deeper embeddings count for nothing.</summary>
    private const int Deepest = 125;

    private readonly int[] _points;
    private readonly BidiClass[] _original, _types;
    private readonly int[] _levels, _matches;

    /// <summary>The level of the paragraph: 0 from left to right, 1 from right to left.</summary>
    public int ParagraphLevel { get; }

    /// <summary>Whether nothing in it runs from right to left: then all of it stands as it is written.</summary>
    public bool IsPlain => ParagraphLevel == 0 && _levels.All(l => l == 0);

    /// <param name="points">The code points of a paragraph.</param>
    /// <param name="level">Its level; null to take that of its first strong character (P2, P3).</param>
    public Bidi(ReadOnlySpan<int> points, int? level = null)
    {
        _points = points.ToArray();
        _original = [.. _points.Select(BidiClasses.Of)];
        _types = [.. _original];
        _levels = new int[_points.Length];
        _matches = Matches();
        ParagraphLevel = level ?? FirstStrong(0, _points.Length);
        Explicit();
        // All are found before the levels of any change.
        foreach (var sequence in BidiSequence.Of(this).ToList()) sequence.Resolve();
        // What rule X9 takes out stands with what is before it (5.2).
        for (int i = 0; i < _levels.Length; i++) if (IsRemoved(i)) _levels[i] = i > 0 ? _levels[i - 1] : ParagraphLevel;
    }

    /// <summary>How a text runs; null where nothing in it runs from right to left.</summary>
    public static BidiLevels? LevelsOf(string text)
    {
        // All that runs so lies behind Greek and Cyrillic.
        if (text.AsSpan().IndexOfAnyExceptInRange('\0', '\u058f') < 0) return null;
        int[] points = [.. text.EnumerateRunes().Select(r => r.Value)];
        var bidi = new Bidi(points);
        if (bidi.IsPlain) return null;
        return new([.. points.SelectMany((point, i) => Enumerable.Repeat((byte)bidi._levels[i], new Rune(point).Utf16SequenceLength))],
            bidi.ParagraphLevel == 1);
    }

    internal int Length => _points.Length;
    internal int PointAt(int i) => _points[i];
    internal BidiClass OriginalAt(int i) => _original[i];
    internal ref BidiClass TypeAt(int i) => ref _types[i];
    internal ref int LevelAt(int i) => ref _levels[i];

    /// <summary>Where the isolate that begins at a place ends; past the end where it does not, and -1 for what begins none.</summary>
    internal int MatchOf(int i) => _matches[i];

    /// <summary>X9: what has no place of its own.</summary>
    public bool IsRemoved(int i) => _original[i] is BidiClass.LRE or BidiClass.LRO or BidiClass.RLE or BidiClass.RLO or BidiClass.PDF or BidiClass.BN;

    internal static bool BeginsIsolate(BidiClass type) => type is BidiClass.LRI or BidiClass.RLI or BidiClass.FSI;

    /// <summary>BD9.</summary>
    private int[] Matches()
    {
        int[] matches = [.. Enumerable.Repeat(-1, _points.Length)];
        var open = new Stack<int>();
        for (int i = 0; i < _points.Length; i++)
        {
            if (BeginsIsolate(_original[i]))
            {
                matches[i] = _points.Length;
                open.Push(i);
            }
            else if (_original[i] == BidiClass.PDI && open.TryPop(out int begun)) matches[begun] = i;
            else if (_original[i] == BidiClass.B) open.Clear();
        }
        return matches;
    }

    /// <summary>P2 and P3: of the first strong character, without what stands in isolates.</summary>
    private int FirstStrong(int from, int to)
    {
        for (int i = from; i < to; i++)
        {
            if (_original[i] == BidiClass.L) return 0;
            if (_original[i] is BidiClass.R or BidiClass.AL) return 1;
            if (BeginsIsolate(_original[i])) i = _matches[i];
        }
        return 0;
    }

    /// <summary>X1 to X8.</summary>
    private void Explicit()
    {
        var stack = new Stack<(int Level, BidiClass? Override, bool Isolate)>([(ParagraphLevel, null, false)]);
        int overflowIsolates = 0, overflowEmbeddings = 0, isolates = 0;
        for (int i = 0; i < _points.Length; i++)
        {
            var (level, forced, _) = stack.Peek();
            var type = _original[i];
            if (type == BidiClass.PDI)
            {
                if (overflowIsolates > 0) overflowIsolates--;
                else if (isolates > 0)
                {
                    overflowEmbeddings = 0;
                    while (!stack.Peek().Isolate) stack.Pop();
                    stack.Pop();
                    isolates--;
                }
                (level, forced, _) = stack.Peek();
            }
            _levels[i] = type == BidiClass.B ? ParagraphLevel : level;
            if (forced is { } over && !IsRemoved(i) && type != BidiClass.B) _types[i] = over;
            if (BeginsIsolate(type) || type is BidiClass.LRE or BidiClass.RLE or BidiClass.LRO or BidiClass.RLO)
            {
                bool right = type is BidiClass.RLE or BidiClass.RLO or BidiClass.RLI || (type == BidiClass.FSI && FirstStrong(i + 1, _matches[i]) == 1);
                int next = right ? (level + 1) | 1 : (level + 2) & ~1;
                bool isolate = BeginsIsolate(type);
                if (next <= Deepest && overflowIsolates == 0 && overflowEmbeddings == 0)
                {
                    if (isolate) isolates++;
                    stack.Push((next, type switch { BidiClass.LRO => BidiClass.L, BidiClass.RLO => BidiClass.R, _ => null }, isolate));
                }
                else if (isolate) overflowIsolates++;
                else if (overflowIsolates == 0) overflowEmbeddings++;
            }
            else if (type == BidiClass.PDF && overflowIsolates == 0)
            {
                if (overflowEmbeddings > 0) overflowEmbeddings--;
                else if (!stack.Peek().Isolate && stack.Count > 1) stack.Pop();
            }
        }
    }

    /// <summary>L1: the levels of a line, with the blanks at its end and before its separators at that of the paragraph.</summary>
    public int[] LevelsOfLine(int from, int to)
    {
        int[] levels = _levels[from..to];
        bool ends = true;
        for (int i = to - 1; i >= from; i--)
        {
            bool separates = _original[i] is BidiClass.B or BidiClass.S;
            bool blank = _original[i] == BidiClass.WS || BeginsIsolate(_original[i]) || _original[i] == BidiClass.PDI || IsRemoved(i);
            if (separates || (ends && blank)) levels[i - from] = ParagraphLevel;
            ends = separates || (ends && blank);
        }
        return levels;
    }

    /// <summary>L2: the places of a line, or of pieces of it, in the order in which they stand from left to right.</summary>
    public static int[] InOrder(IReadOnlyList<int> levels)
    {
        int[] order = [.. Enumerable.Range(0, levels.Count)];
        if (levels.Count == 0) return order;
        for (int level = levels.Max(); level > 0; level--)
        {
            for (int i = 0; i < order.Length; i++)
            {
                int end = i;
                while (end < order.Length && levels[order[end]] >= level) end++;
                if (end > i) Array.Reverse(order, i, end - i);
                i = Math.Max(i, end - 1);
            }
        }
        return order;
    }
}

/// <summary>How a paragraph runs.</summary>
/// <param name="Of">The level of each UTF-16 unit: odd ones run from right to left.</param>
/// <param name="FromRight">Whether the paragraph as a whole does.</param>
public sealed record BidiLevels(ImmutableArray<byte> Of, bool FromRight)
{
    public bool IsRight(int at) => Of[at] % 2 != 0;

    /// <summary>Where the stretch of one level that a place lies in ends.</summary>
    public int EndAt(int at)
    {
        int end = at + 1;
        while (end < Of.Length && Of[end] == Of[at]) end++;
        return end;
    }
}
