using System.Collections.Concurrent;
using System.Collections.Frozen;

namespace Formatum.Core.Typesetting;

/// <summary>
/// Where words of a language may be divided: by patterns, as Liang found it (Word Hy-phen-a-tion by Com-put-er, 1983). At least two letters stay on either
/// side, and words of fewer than five are left whole (CSS Text 4, hyphenate-limit-chars: auto).
/// </summary>
public sealed class Hyphenation
{
    private const int ShortestWord = 5, LeastAtEdge = 2;

    private static readonly Lazy<FrozenDictionary<string, Hyphenation>> Known = new(Load);

    /// <summary>The languages that are known, as in BCP 47: "en-GB", "de".</summary>
    public static IReadOnlyCollection<string> Languages => Known.Value.Keys;

    /// <summary>The hyphenation of a language; null where it is not known.</summary>
    public static Hyphenation? Of(string language) => Known.Value.GetValueOrDefault(language);

    private sealed class Node
    {
        public Dictionary<char, Node> Next { get; } = [];

        /// <summary>How strongly the places within the letters up to here are for a division (odd) or against one (even); null where no pattern ends.</summary>
        public byte[]? Levels { get; set; }
    }

    private readonly Node _patterns = new();
    private readonly Dictionary<string, int[]> _exceptions = [];
    private readonly ConcurrentDictionary<string, int[]> _found = new();

    /// <summary>So many words are remembered; then it begins anew.</summary>
    private const int MostRemembered = 50_000;

    private static FrozenDictionary<string, Hyphenation> Load()
    {
        var all = new Dictionary<string, Hyphenation>();
        using var file = new StreamReader(typeof(Hyphenation).Assembly.GetManifestResourceStream("hyphenation.txt")!);
        Hyphenation current = new();
        while (file.ReadLine() is { } line)
        {
            string[] parts = line.Split(' ');
            if (parts[0] == "#") all[parts[1]] = current = new();
            else if (parts[0][0] == '=')
                current._exceptions[parts[0][1..]] = [.. parts[1].Split(',', StringSplitOptions.RemoveEmptyEntries).Select(int.Parse)];
            else current.Add(parts[0], parts[1]);
        }
        return all.ToFrozenDictionary();
    }

    private void Add(string letters, string levels)
    {
        var node = _patterns;
        foreach (char letter in letters)
        {
            if (!node.Next.TryGetValue(letter, out var next)) node.Next[letter] = next = new();
            node = next;
        }
        node.Levels = [.. levels.Select(l => (byte)(l - '0'))];
    }

    /// <summary>The places in a word before which it may be divided, in UTF-16 units from its beginning.</summary>
    public int[] PlacesIn(string word)
    {
        if (word.Length < ShortestWord) return [];
        if (_found.TryGetValue(word, out int[]? known)) return known;
        string lower = word.ToLowerInvariant();
        if (_found.Count >= MostRemembered) _found.Clear();
        return _found[word] = lower.Length != word.Length ? [] : _exceptions.TryGetValue(lower, out int[]? given) ? given : ByPatterns(lower);
    }

    private int[] ByPatterns(string word)
    {
        string dotted = $".{word}.";
        var levels = new byte[word.Length + 1];
        for (int start = 0; start < dotted.Length; start++)
        {
            // The levels of a pattern that begins with the word count from its first letter.
            int at = Math.Max(0, start - 1);
            var node = _patterns;
            for (int i = start; i < dotted.Length && node.Next.TryGetValue(dotted[i], out node!); i++)
            {
                if (node.Levels is not { } pattern) continue;
                for (int k = 0; k < pattern.Length && at + k < levels.Length; k++) levels[at + k] = Math.Max(levels[at + k], pattern[k]);
            }
        }
        return [.. Enumerable.Range(LeastAtEdge, Math.Max(0, word.Length - 2 * LeastAtEdge + 1)).Where(i => levels[i] % 2 == 1)];
    }

    /// <summary>Marks the places in a text where a line may end with a hyphen, besides those where it may end anyway.</summary>
    public void Mark(string text, LineBreak[] breaks)
    {
        var known = _found.GetAlternateLookup<ReadOnlySpan<char>>();
        for (int start = 0; start < text.Length; start++)
        {
            if (!char.IsLetter(text[start])) continue;
            int end = start + 1;
            while (end < text.Length && char.IsLetter(text[end])) end++;
            var word = text.AsSpan(start, end - start);
            foreach (int place in known.TryGetValue(word, out int[]? places) ? places : PlacesIn(word.ToString()))
                if (breaks[start + place] == LineBreak.Prohibited) breaks[start + place] = LineBreak.Hyphen;
            start = end;
        }
    }
}
