using System.Collections.Immutable;

namespace Formatum.Core.Comparing;

/// <summary>A page of a file and the page of another that came from it; one of both is null where a page came or went.</summary>
public readonly record struct PagePair(int? Before, int? After);

/// <summary>Finds which pages of two files belong together, though some came or went between.</summary>
public static class PagePairs
{
    /// <summary>Pages as like as this belong together without looking further.</summary>
    private const double Alike = 0.9;

    /// <summary>Two pages are set against each other rather than counted as gone and come, also where nothing on them is alike.</summary>
    private const double ForPairing = 0.01;

    /// <summary>
    /// Pairs in the order of both such that they are as like as can be in sum (Needleman and Wunsch 1970, with no price for gaps).
    /// </summary>
    public static ImmutableArray<PagePair> Of(IReadOnlyList<PageContents> before, IReadOnlyList<PageContents> after)
    {
        string[][] was = [.. before.Select(Signs)], now = [.. after.Select(Signs)];
        int least = Math.Min(was.Length, now.Length), lead = 0, tail = 0;
        while (lead < least && Likeness(was[lead], now[lead]) >= Alike) lead++;
        while (tail < least - lead && Likeness(was[^(tail + 1)], now[^(tail + 1)]) >= Alike) tail++;
        return
        [
            .. Enumerable.Range(0, lead).Select(i => new PagePair(i, i)),
            .. Between(was[lead..^tail], now[lead..^tail]).Select(p => new PagePair(p.Before + lead, p.After + lead)),
            .. Enumerable.Range(0, tail).Select(i => new PagePair(was.Length - tail + i, now.Length - tail + i)),
        ];
    }

    private static List<PagePair> Between(string[][] was, string[][] now)
    {
        double[,] best = new double[was.Length + 1, now.Length + 1], paired = new double[was.Length, now.Length];
        for (int i = was.Length - 1; i >= 0; i--)
            for (int j = now.Length - 1; j >= 0; j--)
            {
                paired[i, j] = best[i + 1, j + 1] + Likeness(was[i], now[j]) + ForPairing;
                best[i, j] = Math.Max(paired[i, j], Math.Max(best[i + 1, j], best[i, j + 1]));
            }
        var pairs = new List<PagePair>();
        int before = 0, after = 0;
        while (before < was.Length || after < now.Length)
            if (before < was.Length && after < now.Length && best[before, after] == paired[before, after]) pairs.Add(new(before++, after++));
            else if (after == now.Length || (before < was.Length && best[before, after] == best[before + 1, after])) pairs.Add(new(before++, null));
            else pairs.Add(new(null, after++));
        return pairs;
    }

    /// <summary>What a page is known by, in order: its words, where its pictures lie to about a millimetre, and its size.</summary>
    private static string[] Signs(PageContents page)
    {
        static int Near(double points) => (int)Math.Round(points / 3);
        string[] signs =
        [
            FormattableString.Invariant($"\nsize {Near(page.Width)} {Near(page.Height)}"),
            .. page.Pictures.Select(p => FormattableString.Invariant($"\npicture {Near(p.Box.X)} {Near(p.Box.Y)} {Near(p.Box.Width)} {Near(p.Box.Height)}")),
            .. page.Words.Select(w => w.Text),
        ];
        Array.Sort(signs, StringComparer.Ordinal);
        return signs;
    }

    /// <summary>How much of two pages is the same, 0 to 1 (the coefficient of Dice 1945).</summary>
    private static double Likeness(string[] was, string[] now)
    {
        int common = 0;
        for (int i = 0, j = 0; i < was.Length && j < now.Length;)
            switch (string.CompareOrdinal(was[i], now[j]))
            {
                case 0: common++; i++; j++; break;
                case < 0: i++; break;
                default: j++; break;
            }
        return 2.0 * common / (was.Length + now.Length);
    }
}
