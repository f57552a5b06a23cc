using System.Globalization;
using System.Text;
using HarfBuzzSharp;

namespace Formatum.Output.Fonts;

/// <summary>A stretch of text of one script, which a face is asked for together: each script has rules of its own for how characters join.</summary>
/// <param name="From">Where it begins, in UTF-16 units.</param>
/// <param name="To">Where it ends.</param>
/// <param name="Script">Its script; Common where no character tells.</param>
public readonly record struct ScriptRun(int From, int To, Script Script)
{
    /// <summary>
    /// The stretches of a text, in its order, none where it is empty (UAX #24, 5.1 and 5.2): what is common to many scripts goes with what stands before it,
    /// at the beginning with what follows, and a bracket that closes with the one that opens.
    /// </summary>
    public static List<ScriptRun> In(string text)
    {
        var runs = new List<ScriptRun>();
        var open = new List<(int Closing, Script Script)>();
        var (from, current) = (0, Script.Common);
        for (int at = 0; at < text.Length;)
        {
            Rune.DecodeFromUtf16(text.AsSpan(at), out var rune, out int length);
            var script = UnicodeFunctions.Default.GetScript(rune.Value);
            if (IsShared(script)) script = Within(open, rune, current);
            if (IsShared(current))
            {
                current = script;
                for (int i = 0; i < open.Count; i++) open[i] = open[i] with { Script = script };
            }
            else if (!IsShared(script) && script != current)
            {
                runs.Add(new(from, at, current));
                (from, current) = (at, script);
            }
            at += length;
        }
        if (text.Length > 0) runs.Add(new(from, text.Length, current));
        return runs;
    }

    /// <summary>Whether all characters are Latin or shared by many scripts, as in most text: it is one stretch, and need not be looked at any closer.</summary>
    public static bool IsPlain(ReadOnlySpan<char> text)
    {
        foreach (char c in text)
            if (c > LastOfLatin && c is < FirstOfPunctuation or > LastOfCurrencies) return false;
        return true;
    }

    /// <summary>Ends of blocks of Unicode: Latin Extended-B, General Punctuation, Currency Symbols.</summary>
    private const char LastOfLatin = '\u024f', FirstOfPunctuation = '\u2000', LastOfCurrencies = '\u20cf';

    private static bool IsShared(Script script) => script == Script.Common || script == Script.Inherited || script == Script.Unknown;

    /// <summary>The script that a shared character stands in.</summary>
    private static Script Within(List<(int Closing, Script Script)> open, Rune rune, Script current)
    {
        var category = Rune.GetUnicodeCategory(rune);
        if (category == UnicodeCategory.OpenPunctuation) open.Add((UnicodeFunctions.Default.GetMirroring(rune.Value), current));
        if (category != UnicodeCategory.ClosePunctuation) return current;
        int opened = open.FindLastIndex(o => o.Closing == rune.Value);
        if (opened < 0) return current;
        var script = open[opened].Script;
        open.RemoveRange(opened, open.Count - opened);
        return IsShared(script) ? current : script;
    }
}
