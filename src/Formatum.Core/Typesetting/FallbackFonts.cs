using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Formatum.Core.Stories;

namespace Formatum.Core.Typesetting;

/// <summary>
/// Characters that a style's own face does not have are set in the first family of a chain that has them: on the screen and in print alike, where a browser
/// or a viewer would each take what it finds.
/// </summary>
public static class FallbackFonts
{
    /// <summary>All that Latin letters of western Europe need is in every face that is shipped.</summary>
    private const char LastEverywhere = '\u00ff';

    private static readonly ImmutableArray<string> Upright = ["Noto Sans", "Noto Serif", "Noto Sans Hebrew", "Noto Sans Arabic"],
        Seriffed = ["Noto Serif", "Noto Sans", "Noto Sans Hebrew", "Noto Sans Arabic"];

    /// <summary>The families that stand in for one.</summary>
    public static ImmutableArray<string> ChainOf(string family) => family is "Spectral" or "Fraunces" or "Noto Serif" ? Seriffed : Upright;

    /// <summary>The text with such characters in runs of their own.</summary>
    public static StyledText Applied(StyledText text, ITypefaces typefaces)
    {
        ImmutableArray<StyledParagraph>.Builder? changed = null;
        for (int i = 0; i < text.Paragraphs.Length; i++)
        {
            var paragraph = text.Paragraphs[i];
            if (paragraph.Text.AsSpan().IndexOfAnyExceptInRange('\0', LastEverywhere) < 0 && paragraph.Runs.All(r => r.Style.Files is null)) continue;
            ImmutableArray<StyledRun> runs = [.. paragraph.Runs.SelectMany(run => Split(paragraph.Text, run, typefaces))];
            if (runs.AsSpan().SequenceEqual(paragraph.Runs.AsSpan())) continue;
            changed ??= text.Paragraphs.ToBuilder();
            changed[i] = paragraph with { Runs = runs };
        }
        return changed is null ? text : new(changed.ToImmutable());
    }

    /// <summary>A run cut where its characters as people see them (UAX #29) go from one family to another.</summary>
    private static IEnumerable<StyledRun> Split(string text, StyledRun run, ITypefaces typefaces)
    {
        int end = run.Start + run.Length, from = run.Start;
        string? family = null;
        for (int at = run.Start; at < end;)
        {
            int length = Math.Min(StringInfo.GetNextTextElementLength(text, at), end - at);
            string needed = FamilyOf(text.AsSpan(at, length), run.Style, typefaces);
            if (family is not null && needed != family)
            {
                yield return Part(run, from, at, family);
                from = at;
            }
            family = needed;
            at += length;
        }
        yield return Part(run, from, end, family ?? run.Style.Family);
    }

    private static StyledRun Part(StyledRun run, int from, int to, string family) =>
        new(from, to - from, family == run.Style.Family ? run.Style : run.Style with { Family = family, Files = null });

    private static string FamilyOf(ReadOnlySpan<char> cluster, TextStyle style, ITypefaces typefaces)
    {
        if ((style.Files is null && cluster is [<= LastEverywhere]) || HasAll(cluster, style, typefaces)) return style.Family;
        foreach (string family in ChainOf(style.Family))
            if (HasAll(cluster, style with { Family = family, Files = null }, typefaces)) return family;
        return style.Family;
    }

    private static bool HasAll(ReadOnlySpan<char> cluster, TextStyle style, ITypefaces typefaces)
    {
        foreach (var rune in cluster.EnumerateRunes())
            if (!IsUnseen(rune) && !typefaces.Has(style, rune.Value)) return false;
        return true;
    }

    /// <summary>Tabs, line ends, soft hyphens, joiners and the like show nothing of their own.</summary>
    private static bool IsUnseen(Rune rune) => Rune.GetUnicodeCategory(rune) is UnicodeCategory.Control or UnicodeCategory.Format
        or UnicodeCategory.LineSeparator or UnicodeCategory.ParagraphSeparator or UnicodeCategory.SpaceSeparator;
}
