using System.Collections.Immutable;
using Formatum.Core.Geometry;
using Formatum.Core.Stories;

namespace Formatum.Core.Typesetting;

/// <summary>A column of a frame, in points from its upper left.</summary>
public readonly record struct Column(double Left, double Top, double Width, double Bottom)
{
    public Interval Across => new(Left, Left + Width);
}

/// <summary>The lines on which baselines stand.</summary>
/// <param name="First">One of them, in points from the top of the frame.</param>
/// <param name="Step">From one to the next, in points, more than 0.</param>
public readonly record struct BaselineGrid(double First, double Step)
{
    /// <summary>The next at or below a place; a hair above it counts as at it.</summary>
    public double AtOrBelow(double y) => First + Math.Ceiling((y - First) / Step - 1e-6) * Step;
}

/// <summary>Where lines may stand in a frame: its columns, within its outline, clear of what they keep clear of.</summary>
public sealed class TextShape : IEquatable<TextShape>
{
    private readonly (TextArea Area, double Width, double Height, Outline Outline, BaselineGrid? Grid, double Foot) _made;
    private readonly BandShape? _outline;
    private readonly double _within;
    private readonly ImmutableArray<Obstacle> _obstacles;

    public ImmutableArray<Column> Columns { get; }

    public VerticalPlace Vertical { get; }

    /// <summary>The publication's baseline grid; null for none.</summary>
    public BaselineGrid? Grid => _made.Grid;

    /// <summary>Whether its columns come out equally long where the text ends in it.</summary>
    public bool IsBalanced => _made.Area.Balanced && Columns.Length > 1;

    /// <summary>Whether a line may find less room than its column is wide.</summary>
    public bool IsUneven => _outline is not null || !_obstacles.IsEmpty;

    /// <param name="area">Where in the frame the text is set.</param>
    /// <param name="width">Width of the frame, in points.</param>
    /// <param name="height">Its height.</param>
    /// <param name="outline">Its outline.</param>
    /// <param name="obstacles">What lines keep clear of.</param>
    /// <param name="grid">The baseline grid; text that is moved up or down in its frame does not keep to one.</param>
    /// <param name="foot">Where its columns end at the latest, in points from the top.</param>
    public TextShape(TextArea area, double width, double height, Outline outline, ImmutableArray<Obstacle> obstacles, BaselineGrid? grid = null,
        double foot = double.PositiveInfinity)
    {
        _made = (area, width, height, outline, area.Vertical == VerticalPlace.Top ? grid : null, foot);
        Vertical = area.Vertical;
        _obstacles = area.IgnoresWrap ? [] : [.. obstacles.Where(o => o.Reaches(width, height))];
        var inset = area.Inset;
        bool isBox = outline is RectangleOutline;
        _outline = isBox ? null : new(outline.Flatten(width, height));
        // Along a slanted or round edge there is one distance; the greatest keeps to all four. Beside a box's shaped corners its sides keep their own.
        bool hasSides = outline is CorneredOutline { Base: RectangleOutline };
        double[] distances = [inset.Top, inset.Right, inset.Bottom, inset.Left];
        _within = hasSides ? distances.Min() : distances.Max();
        if (!isBox && !hasSides) inset = default;
        double room = width - inset.Left - inset.Right, each = (room - (area.Columns - 1) * area.Gutter) / area.Columns;
        Columns = each <= 0 ? [] : [.. Enumerable.Range(0, area.Columns).Select(i => new Column(inset.Left + i * (each + area.Gutter), inset.Top, each,
            Math.Min(foot, height - inset.Bottom)))];
    }

    /// <summary>The same with columns that end higher up.</summary>
    public TextShape Until(double foot) => new(_made.Area, _made.Width, _made.Height, _made.Outline, _obstacles, _made.Grid, foot);

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
