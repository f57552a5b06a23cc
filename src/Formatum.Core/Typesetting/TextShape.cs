using System.Collections.Immutable;
using Formatum.Core.Geometry;
using Formatum.Core.Stories;

namespace Formatum.Core.Typesetting;

/// <summary>A column of a frame, in points from its upper left.</summary>
public readonly record struct Column(double Left, double Top, double Width, double Bottom)
{
    public Interval Across => new(Left, Left + Width);
}

/// <summary>Where lines may stand in a frame: its columns, within its outline, clear of what they keep clear of.</summary>
public sealed class TextShape : IEquatable<TextShape>
{
    private readonly (TextArea Area, double Width, double Height, Outline Outline) _made;
    private readonly BandShape? _outline;
    private readonly double _within;
    private readonly ImmutableArray<Obstacle> _obstacles;

    public ImmutableArray<Column> Columns { get; }

    public VerticalPlace Vertical { get; }

    /// <summary>Whether a line may find less room than its column is wide.</summary>
    public bool IsUneven => _outline is not null || !_obstacles.IsEmpty;

    /// <param name="area">Where in the frame the text is set.</param>
    /// <param name="width">Width of the frame, in points.</param>
    /// <param name="height">Its height.</param>
    /// <param name="outline">Its outline.</param>
    /// <param name="obstacles">What lines keep clear of.</param>
    public TextShape(TextArea area, double width, double height, Outline outline, ImmutableArray<Obstacle> obstacles)
    {
        _made = (area, width, height, outline);
        Vertical = area.Vertical;
        _obstacles = area.IgnoresWrap ? [] : obstacles;
        var inset = area.Inset;
        bool isBox = outline is RectangleOutline;
        _outline = isBox ? null : new(outline.Flatten(width, height));
        // Along a slanted or round edge there is one distance; the greatest keeps to all four.
        _within = Math.Max(Math.Max(inset.Top, inset.Right), Math.Max(inset.Bottom, inset.Left));
        if (!isBox) inset = default;
        double room = width - inset.Left - inset.Right, each = (room - (area.Columns - 1) * area.Gutter) / area.Columns;
        Columns = each <= 0 ? [] : [.. Enumerable.Range(0, area.Columns).Select(i => new Column(inset.Left + i * (each + area.Gutter), inset.Top, each,
            height - inset.Bottom))];
    }

    /// <summary>A whole frame of four sides, in one column.</summary>
    public static TextShape Box(double width, double height) => new(TextArea.Whole, width, height, Outline.Rectangle, []);

    /// <summary>The stretches of a band in which a line of a column may stand, from left to right.</summary>
    public IReadOnlyList<Interval> Free(in Column column, double top, double bottom)
    {
        List<Interval> free = [column.Across];
        if (!IsUneven) return free;
        if (_outline is not null)
        {
            free = [.. from inside in _outline.Inside(top, bottom)
                       let both = new Interval(Math.Max(inside.From, free[0].From), Math.Min(inside.To, free[0].To))
                       where both.Width > 0
                       select both];
            // What lies nearer to the outline than the inset is left out.
            free = Intervals.Without(free, _outline.NearEdges(top, bottom, _within));
        }
        foreach (var obstacle in _obstacles) free = Intervals.Without(free, obstacle.Takes(top, bottom, column.Across));
        return free;
    }

    /// <summary>Whether lines find the same room in both.</summary>
    public bool Equals(TextShape? other) => ReferenceEquals(this, other) || (other is not null && _made == other._made
        && _obstacles.AsSpan().SequenceEqual(other._obstacles.AsSpan()));

    public override bool Equals(object? obj) => Equals(obj as TextShape);

    public override int GetHashCode() => HashCode.Combine(_made.Width, _made.Height, _obstacles.Length);
}
