using System.Collections.Immutable;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Filling;

/// <summary>A table: a name for each column, and rows that all have as many cells.</summary>
public sealed record Table(ImmutableArray<string> Columns, ImmutableArray<ImmutableArray<string>> Rows);

/// <summary>Which frames a column goes into, by their name.</summary>
public readonly record struct ColumnTarget(int Column, string FrameName);

/// <summary>Something about a row that somebody should know before it is poured; rows are counted from 1.</summary>
public sealed record RowFinding(int Row, string Column, string Words);

/// <summary>What goes into a frame from a row: an image into a placeholder, or words into a text frame.</summary>
/// <param name="Row">The row, from 0.</param>
/// <param name="FrameId">The frame.</param>
/// <param name="ImageId">The image.</param>
/// <param name="Text">All its words, set as those are that stand there.</param>
/// <param name="Filled">Its own text with what it names of the row filled in.</param>
public readonly record struct CellPlace(int Row, int FrameId, int? ImageId, string? Text, FrameText? Filled = null)
{
    public bool IsText => Text is not null || Filled is not null;
}

/// <summary>Finds where the cells of a table go.</summary>
public static class RowPlan
{
    /// <summary>Columns and frames of the same name, whatever the case.</summary>
    public static ImmutableArray<ColumnTarget> Guess(Table table, IEnumerable<Frame> frames)
    {
        var names = frames.Where(f => f.Name.Length > 0).Select(f => f.Name).Distinct(StringComparer.OrdinalIgnoreCase)
            .ToDictionary(n => n, StringComparer.OrdinalIgnoreCase);
        return [.. table.Columns.Select((c, i) => (c, i)).Where(c => names.ContainsKey(c.c)).Select(c => new ColumnTarget(c.i, names[c.c]))];
    }

    /// <summary>
    /// The frames of each name take rows one after the other, in reading order: six frames named "Picture" on a page take six rows. Cells for
    /// which there is no frame any more find no place.
    /// </summary>
    /// <param name="table">The table.</param>
    /// <param name="targets">Which columns go where.</param>
    /// <param name="framesInOrder">The frames to fill, in reading order.</param>
    /// <param name="images">The publication's images, to find pictures by name.</param>
    /// <param name="findings">Takes what should be known: pictures that are not there, empty cells, rows without a place.</param>
    public static ImmutableArray<CellPlace> Of(Table table, IReadOnlyList<ColumnTarget> targets, IReadOnlyList<Frame> framesInOrder, ImageNames images,
        List<RowFinding> findings)
    {
        var places = ImmutableArray.CreateBuilder<CellPlace>();
        foreach (var (column, name) in targets)
        {
            string heading = table.Columns[column];
            var frames = framesInOrder.Where(f => string.Equals(f.Name, name, StringComparison.OrdinalIgnoreCase)).ToList();
            for (int row = 0; row < table.Rows.Length; row++)
            {
                string cell = table.Rows[row][column].Trim();
                if (row >= frames.Count)
                {
                    findings.Add(new(row + 1, heading, $"There is no frame named {name} left for it and the rows after it."));
                    break;
                }
                var frame = frames[row];
                if (cell.Length == 0) findings.Add(new(row + 1, heading, "The cell is empty."));
                if (frame.IsText) places.Add(new(row, frame.Id, null, cell));
                else if (cell.Length > 0 && images.Find(cell) is { } image) places.Add(new(row, frame.Id, image, null));
                else if (cell.Length > 0) findings.Add(new(row + 1, heading, images.Problem(cell)));
            }
        }
        return places.ToImmutable();
    }

    /// <summary>
    /// Text frames that name columns take rows as frames of one name do: those with the same words one after the other, in reading order.
    /// </summary>
    /// <param name="table">The table.</param>
    /// <param name="framesInOrder">The frames, in reading order.</param>
    /// <param name="textOf">The text of a frame; null where it has none.</param>
    /// <param name="findings">Takes what should be known.</param>
    public static IEnumerable<CellPlace> OfForms(Table table, IEnumerable<Frame> framesInOrder, Func<Frame, FrameText?> textOf, List<RowFinding> findings)
    {
        var form = new RowForm(table);
        foreach (var alike in Forms(form, framesInOrder, textOf))
        {
            var frames = alike.ToList();
            var columns = form.ColumnsOf(textOf(frames[0])!);
            for (int row = 0; row < table.Rows.Length && row < frames.Count; row++)
            {
                foreach (int column in columns.Where(c => table.Rows[row][c].Trim().Length == 0))
                    findings.Add(new(row + 1, table.Columns[column], "The cell is empty."));
                yield return new(row, frames[row].Id, null, null, form.Filled(textOf(frames[row])!, table.Rows[row]));
            }
            if (frames.Count < table.Rows.Length)
                findings.Add(new(frames.Count + 1, table.Columns[columns[0]], "There is no text that names this column left for it and the rows after it."));
        }
    }

    /// <summary>Frames whose text names columns, those with the same words together.</summary>
    private static IEnumerable<IGrouping<string, Frame>> Forms(RowForm form, IEnumerable<Frame> frames, Func<Frame, FrameText?> textOf) =>
        frames.Where(f => textOf(f) is { } text && form.ColumnsOf(text).Count > 0).GroupBy(f => textOf(f)!.Plain);

    /// <summary>How many rows the frames of a layout take: as many as frames have the same name, or name the same columns in the same words.</summary>
    public static int RowsPerCopy(Table table, IReadOnlyList<ColumnTarget> targets, IReadOnlyList<Frame> layout, Func<Frame, FrameText?> textOf) =>
        Named(targets, layout).Concat(Forms(new(table), layout, textOf).Select(g => g.Count())).DefaultIfEmpty(0).Min();

    private static IEnumerable<int> Named(IReadOnlyList<ColumnTarget> targets, IReadOnlyList<Frame> layout)
    {
        var counts = layout.GroupBy(f => f.Name, StringComparer.OrdinalIgnoreCase).ToDictionary(g => g.Key, g => g.Count(), StringComparer.OrdinalIgnoreCase);
        return targets.Select(t => counts.GetValueOrDefault(t.FrameName)).Where(n => n > 0);
    }
}

/// <summary>
/// Images found by the names of their files, with or without ending, whatever the case, and whatever folder is named before them; or by a number or code that
/// one name alone begins with.
/// </summary>
public sealed class ImageNames
{
    private readonly ILookup<string, int> _whole, _bare, _first;

    public ImageNames(IEnumerable<LinkedImage> images)
    {
        var names = images.SelectMany(i => i.OtherNames.Prepend(i.Name).Select(name => (Name: name, i.Id))).ToList();
        _whole = names.ToLookup(n => n.Name, n => n.Id, StringComparer.OrdinalIgnoreCase);
        _bare = names.ToLookup(n => Bare(n.Name), n => n.Id, StringComparer.OrdinalIgnoreCase);
        _first = names.Where(n => FirstPart(n.Name).Length < Bare(n.Name).Length).ToLookup(n => FirstPart(n.Name), n => n.Id, StringComparer.OrdinalIgnoreCase);
    }

    /// <summary>What stands before the first separator: "007" of "007-ladybird.jpg".</summary>
    private static string FirstPart(string name) => Bare(name).Split(['-', '_', ' ', '.'], 2)[0];

    /// <summary>The one image that is meant; null where there is none, or several.</summary>
    public int? Find(string name)
    {
        var found = Named(name);
        return found.Count == 1 ? found[0] : null;
    }

    /// <summary>Why no image was found.</summary>
    public string Problem(string name) => Named(name).Count == 0 ? $"There is no picture named {name}." : $"Several pictures are named {name}.";

    private List<int> Named(string name)
    {
        string file = name[(name.LastIndexOfAny(['/', '\\']) + 1)..];
        var whole = _whole[file].Distinct().ToList();
        if (whole.Count > 0) return whole;
        var bare = _bare[Bare(file)].Distinct().ToList();
        return bare.Count > 0 ? bare : [.. _first[Bare(file)].Distinct()];
    }

    public static string Bare(string name) => name.LastIndexOf('.') is > 0 and var dot && name.Length - dot <= 6 ? name[..dot] : name;
}
