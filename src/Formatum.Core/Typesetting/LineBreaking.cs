using System.Text;
using static Formatum.Core.Typesetting.LineBreakClass;

namespace Formatum.Core.Typesetting;

/// <summary>Whether a line may, must or must not end at a place in a text, or may with a hyphen.</summary>
public enum LineBreak : byte { Prohibited, Allowed, Required, Hyphen }

/// <summary>
/// Where lines may end: the Unicode Line Breaking Algorithm, UAX #14 of Unicode 15.0, with numbers kept together as its section 8.2, example 7
/// describes. Rules bear their numbers from there.
/// </summary>
public static class LineBreaking
{
    /// <summary>A character with the marks on it (LB9), as the rules see it.</summary>
    /// <param name="Class">Its class.</param>
    /// <param name="Start">Where it begins, in UTF-16 units.</param>
    /// <param name="EndsJoined">Whether it ends with a zero-width joiner.</param>
    /// <param name="OddRegional">Whether it is the first, third ... of a run of regional indicators: with the next one it makes a flag.</param>
    private readonly record struct Unit(LineBreakClass Class, int Start, bool EndsJoined, bool OddRegional = false);

    /// <summary>For each place in the text, from 0 to its length in UTF-16 units, whether a line may end there. None may at 0; one must at the end.</summary>
    public static LineBreak[] In(string text)
    {
        var breaks = new LineBreak[text.Length + 1];
        if (text.Length == 0) return breaks;
        breaks[text.Length] = LineBreak.Required; // LB3
        var units = UnitsOf(text);
        var numbers = InsideNumbers(units);
        for (int i = 1; i < units.Count; i++)
            breaks[units[i].Start] = numbers[i] ? LineBreak.Prohibited : Between(units, i);
        return breaks;
    }

    private static List<Unit> UnitsOf(string text)
    {
        var units = new List<Unit>(text.Length);
        int at = 0;
        void Add(LineBreakClass found, bool joined)
        {
            bool afterOdd = units.Count > 0 && units[^1].OddRegional;
            units.Add(new(found, at, joined, found == RI && !afterOdd));
        }
        foreach (var rune in text.EnumerateRunes())
        {
            var found = LineBreakClasses.Of(rune.Value);
            if (found is CM or ZWJ)
            {
                // LB9: marks go with what they stand on. LB10: without it, they are letters.
                if (units.Count > 0 && units[^1].Class is not (BK or CR or LF or NL or SP or ZW)) units[^1] = units[^1] with { EndsJoined = found == ZWJ };
                else Add(AL, found == ZWJ);
            }
            else Add(found, false);
            at += rune.Utf16SequenceLength;
        }
        return units;
    }

    /// <summary>LB25 as a pattern: (PR | PO)? (OP | HY)? NU (NU | SY | IS)* (CL | CP)? (PR | PO)?. True where a unit goes on with one.</summary>
    private static bool[] InsideNumbers(List<Unit> units)
    {
        var inside = new bool[units.Count];
        LineBreakClass At(int i) => i >= 0 && i < units.Count ? units[i].Class : BK;
        for (int i = 0; i < units.Count; i++)
        {
            if (units[i].Class != NU) continue;
            int start = i;
            if (At(start - 1) is OP or OPW or HY) start--;
            if (At(start - 1) is PR or PO) start--;
            int end = i;
            while (At(end + 1) is NU or SY or IS) end++;
            if (At(end + 1) is CL or CP or CPW) end++;
            if (At(end + 1) is PR or PO) end++;
            for (int j = start + 1; j <= end; j++) inside[j] = true;
            i = Math.Max(i, end - 1);
        }
        return inside;
    }

    private static LineBreak Between(List<Unit> units, int i)
    {
        var (a, b) = (units[i - 1].Class, units[i].Class);
        if (a == AL && b == AL) return LineBreak.Prohibited; // LB28, ahead of all others: most of a text is this
        if (a == BK || (a == CR && b != LF) || a is LF or NL) return LineBreak.Required; // LB4, LB5
        if (b is BK or CR or LF or NL or SP or ZW) return LineBreak.Prohibited; // LB5, LB6, LB7
        // The last that is no space, for the rules that look over spaces.
        int k = i - 1;
        while (k >= 0 && units[k].Class == SP) k--;
        var before = k >= 0 ? units[k].Class : SP;
        if (before == ZW) return LineBreak.Allowed; // LB8
        return units[i - 1].EndsJoined || Keeps(a, b) || KeepsOverSpaces(before, b) || (a != SP && KeepsClose(units, i, a, b)) ? LineBreak.Prohibited
            : LineBreak.Allowed; // LB8a, LB31
    }

    /// <summary>Rules 11 to 13, which no space between would change.</summary>
    private static bool Keeps(LineBreakClass a, LineBreakClass b) =>
        a == WJ || b == WJ // LB11
        || a == GL || (b == GL && a is not (SP or BA or HY)) // LB12, LB12a
        || b is CL or CP or CPW or EX or IS or SY; // LB13

    private static bool KeepsOverSpaces(LineBreakClass before, LineBreakClass b) =>
        before is OP or OPW // LB14
        || (before == QU && b is OP or OPW) // LB15
        || (before is CL or CP or CPW && b == NS) // LB16
        || (before == B2 && b == B2); // LB17

    /// <summary>Rules 19 to 30b; with a space between, a line may end there (LB18).</summary>
    private static bool KeepsClose(List<Unit> units, int i, LineBreakClass a, LineBreakClass b)
    {
        if (a == QU || b == QU) return true; // LB19
        if (a == CB || b == CB) return false; // LB20
        if (b is BA or HY or NS || a == BB) return true; // LB21
        if (a is HY or BA && i >= 2 && units[i - 2].Class == HL) return true; // LB21a
        bool letterA = a is AL or HL, letterB = b is AL or HL;
        return (a == SY && b == HL) // LB21b
            || b == IN // LB22
            || (letterA && b == NU) || (a == NU && letterB) // LB23
            || (a == PR && IsIdeographic(b)) || (IsIdeographic(a) && b == PO) // LB23a
            || (a is PR or PO && letterB) || (letterA && b is PR or PO) // LB24
            || (a == JL && b is JL or JV or H2 or H3) || (a is JV or H2 && b is JV or JT) || (a is JT or H3 && b == JT) // LB26
            || (IsHangul(a) && b == PO) || (a == PR && IsHangul(b)) // LB27
            || (letterA && letterB) // LB28
            || (a == IS && letterB) // LB29
            || ((letterA || a == NU) && b == OP) || (a == CP && (letterB || b == NU)) // LB30
            || (a == RI && b == RI && units[i - 1].OddRegional) // LB30a
            || (a is EB or IDX && b == EM); // LB30b
    }

    private static bool IsIdeographic(LineBreakClass c) => c is ID or IDX or EB or EM;

    private static bool IsHangul(LineBreakClass c) => c is JL or JV or JT or H2 or H3;
}
