using Formatum.Core.Checks;
using Formatum.Core.Geometry;

namespace Formatum.Core.Stories;

/// <summary>Where text stands in its columns from top to bottom.</summary>
public enum VerticalPlace { Top, Middle, Bottom, Justified }

/// <summary>Where in its frame a text is set.</summary>
public sealed record TextArea
{
    public const int MostColumns = 40;

    /// <summary>No gutter or inset is larger, in points.</summary>
    public const double Farthest = 5000;

    /// <summary>All of the frame, in one column from the top.</summary>
    public static readonly TextArea Whole = new();

    public int Columns { get; init; } = 1;

    /// <summary>From one column to the next, in points. 12 is common practice, no source.</summary>
    public double Gutter { get; init; } = 12;

    /// <summary>How far the text keeps from the frame's edges, in points, 0 or more.</summary>
    public Inset Inset { get; init; }

    public VerticalPlace Vertical { get; init; }

    /// <summary>Whether its columns come out equally long where the text ends in it (CSS Multi-column 1, column-fill: balance).</summary>
    public bool Balanced { get; init; }

    /// <summary>Whether, from a master, the text of each page runs on into the frame of that name on the next.</summary>
    public bool RunsOn { get; init; }

    /// <summary>Whether the text runs on over what other text keeps clear of.</summary>
    public bool IgnoresWrap { get; init; }

    public void Check(FieldErrors errors)
    {
        errors.Choice("columns.vertical", Vertical);
        errors.Range("columns.count", Columns, 1, MostColumns, $"A text frame has 1 to {MostColumns} columns.");
        errors.Length("columns.gutter", Gutter, 0, Farthest, "The gutter between columns is 0 or more.");
        foreach (var (name, value) in new[] { ("top", Inset.Top), ("right", Inset.Right), ("bottom", Inset.Bottom), ("left", Inset.Left) })
            errors.Length($"columns.inset.{name}", value, 0, Farthest, "Text keeps 0 or more from the edges of its frame.");
    }
}
