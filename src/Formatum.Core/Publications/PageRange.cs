using System.Globalization;
using Formatum.Core.Checks;

namespace Formatum.Core.Publications;

/// <summary>Pages as people write them, by the numbers they bear: "1-4, 9".</summary>
public static class PageRange
{
    private static readonly string[] Dashes = ["-", "\u2013", "\u2014"];

    /// <summary>The numbers that are named, from first to last; null for all.</summary>
    /// <exception cref="EditRefused">The text names no pages.</exception>
    public static IReadOnlyList<(int From, int To)>? Parse(string text)
    {
        if (string.IsNullOrWhiteSpace(text)) return null;
        var ranges = new List<(int From, int To)>();
        foreach (string part in text.Split([',', ';'], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            string[] ends = part.Split(Dashes, StringSplitOptions.TrimEntries);
            if (ends.Length > 2 || !TryNumber(ends[0], out int from) || !TryNumber(ends[^1], out int to))
                throw new EditRefused("pages", $"\u201c{part}\u201d names no pages. Write their numbers, such as 1-4, 9.");
            if (to < from) throw new EditRefused("pages", $"\u201c{part}\u201d runs backwards. Write {to}-{from}.");
            ranges.Add((from, to));
        }
        return ranges.Count > 0 ? ranges : throw new EditRefused("pages", "No page is named. Write their numbers, such as 1-4, 9, or nothing for all.");
    }

    private static bool TryNumber(string text, out int number) => int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out number);

    public static void Check(string text, FieldErrors errors)
    {
        try
        {
            Parse(text);
        }
        catch (EditRefused e)
        {
            foreach (var error in e.Errors) errors.Add(error.Field, error.Message);
        }
    }

    /// <summary>Where the pages stand in a publication, from 1, in the order they are named, each once.</summary>
    /// <exception cref="EditRefused">The text names no pages, or some that are not there.</exception>
    public static IReadOnlyList<int> Of(string text, Publication publication)
    {
        int first = publication.Setup.FirstFolio, last = first + publication.PageCount - 1;
        if (Parse(text) is not { } ranges) return [.. Enumerable.Range(1, publication.PageCount)];
        foreach (var (from, to) in ranges.Where(r => r.From < first || r.To > last))
            throw new EditRefused("pages", $"There is no page {(from < first ? from : to)}: the pages bear the numbers {first} to {last}.");
        return [.. ranges.SelectMany(r => Enumerable.Range(r.From - first + 1, r.To - r.From + 1)).Distinct()];
    }
}
