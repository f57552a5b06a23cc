using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Geometry;

namespace Formatum.Core.Stories;

/// <summary>What of the words behind a tab stands at its stop.</summary>
public enum TabAlignment { Left, Right, Centre, Decimal }

/// <summary>A place in the line that a tab goes to.</summary>
/// <param name="At">How far from the left edge of the column, in points, above 0.</param>
/// <param name="Alignment">What of the words behind it stands there.</param>
/// <param name="Leader">What fills the room before it, again and again; nothing where empty.</param>
public sealed record TabStop(double At, TabAlignment Alignment = TabAlignment.Left, string Leader = "")
{
    public const int LongestLeader = 8;
}

/// <summary>The tab stops of a paragraph, from left to right. Behind the last, stops follow at even distances.</summary>
public sealed record TabStops(ImmutableArray<TabStop> Stops)
{
    public const int Most = 100;

    /// <summary>From one stop to the next where none is set, in points: half an inch. Common practice, no source.</summary>
    public const double UsualDistance = 36;

    public static readonly TabStops None = new([]);

    /// <summary>The first stop behind a place in the line.</summary>
    public TabStop After(double x)
    {
        foreach (var stop in Stops)
            if (stop.At > x + 0.01) return stop;
        return new((Math.Floor((x + 0.01) / UsualDistance) + 1) * UsualDistance);
    }

    public void Check(string field, FieldErrors errors)
    {
        if (Stops.IsDefault || Stops.Length > Most || Stops.Any(s => s is null)) errors.Add(field, $"A paragraph has {Most} tab stops at most.");
        else foreach (var stop in Stops)
        {
            errors.Choice(field, stop.Alignment);
            errors.Length(field, stop.At, 0.1, 5000, "A tab stop lies from 0.1 to 5000 points from the left edge of the column.");
            if (stop.Leader is null || stop.Leader.Length > TabStop.LongestLeader || stop.Leader.Any(char.IsControl))
                errors.Add(field, $"A leader has up to {TabStop.LongestLeader} characters, such as \".\".");
        }
    }

    public bool Equals(TabStops? other) => other is not null && Stops.AsSpan().SequenceEqual(other.Stops.AsSpan());

    public override int GetHashCode() => Stops.Aggregate(0, HashCode.Combine);
}
