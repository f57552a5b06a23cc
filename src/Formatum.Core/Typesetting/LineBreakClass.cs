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
    private static readonly CodePointTable<LineBreakClass> Table = new("LineBreakClasses.txt", LineBreakClass.AL);

    public static LineBreakClass Of(int codePoint) => Table.Of(codePoint) is var found && found == LineBreakClass.SA ? OfSouthEastAsian(codePoint) : found;

    /// <summary>Rule LB1: without a dictionary of the language, marks go with what they stand on and letters keep together.</summary>
    private static LineBreakClass OfSouthEastAsian(int codePoint) =>
        CharUnicodeInfo.GetUnicodeCategory(codePoint) is UnicodeCategory.NonSpacingMark or UnicodeCategory.SpacingCombiningMark ? LineBreakClass.CM
            : LineBreakClass.AL;
}
