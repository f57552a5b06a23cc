using System.Text.RegularExpressions;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Filling;

/// <summary>Text that names columns of a table in braces, "{Title}": each is filled from a row, and stays set as it was.</summary>
public sealed partial class RowForm
{
    private readonly Dictionary<string, int> _columns = new(StringComparer.OrdinalIgnoreCase);

    public RowForm(Table table)
    {
        // What a text can say by itself is never meant for a table.
        for (int i = 0; i < table.Columns.Length; i++)
            if (!TextFields.IsField(table.Columns[i])) _columns.TryAdd(table.Columns[i].Trim(), i);
    }

    [GeneratedRegex(@"\{([^{}]{1,200})\}", RegexOptions.CultureInvariant)]
    private static partial Regex Named();

    private int? ColumnOf(Match match) => _columns.TryGetValue(match.Groups[1].Value.Trim(), out int column) ? column : null;

    /// <summary>The columns that a text names, in their order.</summary>
    public IReadOnlyList<int> ColumnsOf(FrameText text) => [.. text.Paragraphs.Where(p => p.Text.Contains('{', StringComparison.Ordinal))
        .SelectMany(p => p.Runs).SelectMany(r => Named().Matches(r.Text)).Select(ColumnOf).OfType<int>().Distinct().Order()];

    /// <summary>The text with a row's cells in the place of their columns' names. A cell's line ends stay within its paragraph.</summary>
    public FrameText Filled(FrameText text, IReadOnlyList<string> row) => new([.. text.Paragraphs.Select(p => p.Of(p.Runs.Select(r => r with
    {
        Text = Named().Replace(r.Text, m => ColumnOf(m) is { } column ? FrameText.Clean(row[column].Trim()).Replace('\n', FrameText.LineSeparator) : m.Value)
    })))]);
}
