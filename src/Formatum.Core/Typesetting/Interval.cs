namespace Formatum.Core.Typesetting;

/// <summary>A stretch of a line's band from left to right, in points.</summary>
public readonly record struct Interval(double From, double To)
{
    public double Width => To - From;
}

/// <summary>What stretches have in common, and what is left of them.</summary>
internal static class Intervals
{
    /// <summary>Intervals that lie over or against each other made one, from left to right.</summary>
    public static List<Interval> Merged(List<Interval> intervals)
    {
        intervals.Sort((a, b) => a.From.CompareTo(b.From));
        var merged = new List<Interval>();
        foreach (var next in intervals)
        {
            if (merged.Count > 0 && next.From <= merged[^1].To) merged[^1] = merged[^1] with { To = Math.Max(merged[^1].To, next.To) };
            else merged.Add(next);
        }
        return merged;
    }

    /// <summary>What is left of intervals without others; both from left to right.</summary>
    public static List<Interval> Without(List<Interval> intervals, IEnumerable<Interval> others)
    {
        var left = intervals;
        foreach (var other in others)
            left = [.. left.SelectMany(i => new[] { new Interval(i.From, Math.Min(i.To, other.From)), new Interval(Math.Max(i.From, other.To), i.To) })
                .Where(i => i.Width > 0)];
        return left;
    }

    public static List<Interval> Common(List<Interval> one, List<Interval> other) =>
        [.. from a in one from b in other let c = new Interval(Math.Max(a.From, b.From), Math.Min(a.To, b.To)) where c.Width > 0 orderby c.From select c];
}
