namespace Formatum.Core.Comparing;

/// <summary>What two sequences have in common, in the order of both.</summary>
public static class CommonOrder
{
    /// <summary>So much of each is set against each other beyond what both begin and end with: the table of 5,000 x 5,000 takes 50 MB.</summary>
    public const int Longest = 5000;

    /// <summary>
    /// The longest common subsequence, found by the table of lengths (Wagner and Fischer 1974; Hirschberg 1977). What lies beyond <see cref="Longest"/> items
    /// has no partner.
    /// </summary>
    /// <returns>Places in both of what is common, rising.</returns>
    public static IReadOnlyList<(int Before, int After)> Of(IReadOnlyList<string> before, IReadOnlyList<string> after)
    {
        int least = Math.Min(before.Count, after.Count), lead = 0, tail = 0;
        while (lead < least && before[lead] == after[lead]) lead++;
        while (tail < least - lead && before[before.Count - 1 - tail] == after[after.Count - 1 - tail]) tail++;
        var pairs = new List<(int, int)>(Enumerable.Range(0, lead).Select(i => (i, i)));
        int rows = Math.Min(Longest, before.Count - lead - tail), columns = Math.Min(Longest, after.Count - lead - tail);
        var lengths = Lengths(before, after, lead, rows, columns);
        for (int i = 0, j = 0; i < rows && j < columns;)
            if (before[lead + i] == after[lead + j]) pairs.Add((lead + i++, lead + j++));
            else if (lengths[i + 1, j] >= lengths[i, j + 1]) i++;
            else j++;
        pairs.AddRange(Enumerable.Range(0, tail).Select(i => (before.Count - tail + i, after.Count - tail + i)));
        return pairs;
    }

    /// <summary>How much is common behind each two places.</summary>
    private static ushort[,] Lengths(IReadOnlyList<string> before, IReadOnlyList<string> after, int lead, int rows, int columns)
    {
        var lengths = new ushort[rows + 1, columns + 1];
        for (int i = rows - 1; i >= 0; i--)
            for (int j = columns - 1; j >= 0; j--)
                lengths[i, j] = before[lead + i] == after[lead + j] ? (ushort)(lengths[i + 1, j + 1] + 1) : Math.Max(lengths[i + 1, j], lengths[i, j + 1]);
        return lengths;
    }
}
