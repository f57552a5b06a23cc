using System.Collections.Immutable;
using Formatum.Core.Geometry;
using Formatum.Core.Stories;

namespace Formatum.Core.Typesetting;

/// <summary>Something lines keep clear of.</summary>
/// <param name="Shape">Its corners, in points from the upper left of the text's frame.</param>
/// <param name="Distance">How far they keep away, in points: as <see cref="Wrap.Distance"/> says.</param>
/// <param name="Sides">On which sides of it text stands.</param>
/// <param name="Clears">Whether nothing stands beside it.</param>
public sealed record Obstacle(ImmutableArray<Vec> Shape, Inset Distance, WrapSides Sides, bool Clears)
{
    /// <summary>Made when it is first asked for: most obstacles are only compared.</summary>
    private BandShape Bands => _bands ??= new(Shape);

    private BandShape? _bands;

    public bool Equals(Obstacle? other) => other is not null && Distance == other.Distance && Sides == other.Sides && Clears == other.Clears
        && Shape.AsSpan().SequenceEqual(other.Shape.AsSpan());

    public override int GetHashCode() => HashCode.Combine(Distance, Sides, Clears, Shape.Length);

    /// <summary>Whether it can take anything from a frame, in points from whose upper left it is given.</summary>
    public bool Reaches(double width, double height)
    {
        bool besides = Shape.Max(p => p.Y) + Distance.Bottom > 0 && Shape.Min(p => p.Y) - Distance.Top < height;
        // Where text stands on one side of it alone, or on none, it takes the other side however far away it lies.
        bool takesFar = Clears || Sides is WrapSides.Start or WrapSides.End;
        return besides && (takesFar || (Shape.Max(p => p.X) + Distance.Right > 0 && Shape.Min(p => p.X) - Distance.Left < width));
    }

    /// <summary>What it takes of a band, within a column that reaches from one side to another.</summary>
    public IEnumerable<Interval> Takes(double top, double bottom, Interval column)
    {
        var touched = Distance.IsEven ? Bands.Near(top, bottom, Distance.Top)
            : Intervals.Merged([.. Bands.Near(top - Distance.Bottom, bottom + Distance.Top, 0)
                .Select(i => new Interval(i.From - Distance.Left, i.To + Distance.Right))]);
        if (touched.Count == 0) return [];
        if (Clears) return [new(double.NegativeInfinity, double.PositiveInfinity)];
        var (from, to) = (touched[0].From, touched[^1].To);
        return Sides switch
        {
            WrapSides.Start => [new(from, double.PositiveInfinity)],
            WrapSides.End => [new(double.NegativeInfinity, to)],
            // As wrap-flow: maximum of CSS Exclusions 1: where it is wider, and nowhere else.
            WrapSides.Wider => from - column.From >= column.To - to ? [new(from, double.PositiveInfinity)] : [new(double.NegativeInfinity, to)],
            _ => touched,
        };
    }
}
