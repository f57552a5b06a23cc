namespace Formatum.Core.Typesetting;

/// <summary>
/// Chooses the lines of a justified paragraph together, so that its blanks are as even as they can be throughout: the least sum of demerits over all ways of
/// breaking it (Knuth and Plass, Breaking Paragraphs into Lines, 1981), also with lines of different length.
/// </summary>
public static class WholeParagraph
{
    /// <summary>A blank may be widened by half of itself before that counts as bad, and narrowed by a third. From Knuth and Plass.</summary>
    public const double Stretch = 1 / 2.0, Shrink = 1 / 3.0;

    /// <summary>What a line costs at least, a hyphen at its end, two such lines in a row, and a tight one beside a loose one: those of plain TeX, from
    /// memory.</summary>
    public const double LinePenalty = 10, HyphenPenalty = 50, TwoHyphens = 10_000, UnlikeNeighbours = 10_000;

    /// <summary>Blanks are widened by so many times their stretch at most; where no way of breaking keeps to the first, the next is tried.</summary>
    private static readonly double[] Tolerances = [1.26, 3, 10];

    /// <summary>What is to be broken.</summary>
    /// <param name="Breaks">Where lines may end.</param>
    /// <param name="UpTo">How far the text reaches up to each place, in points.</param>
    /// <param name="TrimmedEnd">Where what a line shows ends, whose blanks hang over: from its beginning and its end.</param>
    /// <param name="Blanks">How many blanks there are before each place.</param>
    /// <param name="Blank">Width of a blank, in points.</param>
    /// <param name="Hyphen">Width of a hyphen, in points.</param>
    public sealed record Measured(LineBreak[] Breaks, double[] UpTo, Func<int, int, int> TrimmedEnd, int[] Blanks, double Blank, double Hyphen);

    /// <summary>A place where a line may end, on the best way to it.</summary>
    /// <param name="At">Where in the text.</param>
    /// <param name="Line">How many lines end by then.</param>
    /// <param name="Demerits">What they cost together.</param>
    /// <param name="Fitness">How tight the last of them is: 0 to 3, from tight to very loose.</param>
    /// <param name="Hyphened">Whether it ends with a hyphen.</param>
    /// <param name="Before">The end of the line before it.</param>
    private sealed record Node(int At, int Line, double Demerits, int Fitness, bool Hyphened, Node? Before);

    /// <summary>Where the lines end; null where there is no way that keeps blanks within bounds.</summary>
    /// <param name="text">The paragraph.</param>
    /// <param name="width">How long a line is, by its number from 0, in points.</param>
    /// <param name="start">Where its first line begins.</param>
    public static IReadOnlyList<int>? Ends(Measured text, Func<int, double> width, int start = 0)
    {
        foreach (double tolerance in Tolerances)
            if (Best(text, width, tolerance, start) is { } last) return Path(last);
        return null;
    }

    /// <summary>What the lines of a way of breaking cost together; infinite where one of them cannot be set so.</summary>
    public static double Demerits(Measured text, Func<int, double> width, IReadOnlyList<int> ends)
    {
        var node = new Node(0, 0, 0, 1, false, null);
        foreach (int end in ends)
        {
            if (After(text, node, end, text.TrimmedEnd(node.At, end), width(node.Line), Tolerances[^1]) is not { } next) return double.PositiveInfinity;
            node = next;
        }
        return node.Demerits;
    }

    private static List<int> Path(Node last)
    {
        var ends = new List<int>();
        for (var node = last; node.Before is { } before; node = before) ends.Add(node.At);
        ends.Reverse();
        return ends;
    }

    private static Node? Best(Measured text, Func<int, double> width, double tolerance, int start)
    {
        var active = new List<Node> { new(start, 0, 0, 1, false, null) };
        var found = new List<Node>();
        for (int at = start + 1; at < text.Breaks.Length && active.Count > 0; at++)
        {
            if (text.Breaks[at] == LineBreak.Prohibited) continue;
            bool required = text.Breaks[at] == LineBreak.Required;
            int shown = text.TrimmedEnd(start, at);
            found.Clear();
            foreach (var from in active)
            {
                double room = width(from.Line);
                if (After(text, from, at, shown, room, tolerance) is { } node) Keep(found, node);
            }
            // What is too long already only gets longer; behind a place where a line must end nothing goes on.
            active.RemoveAll(from => required || IsTooLong(text, from, shown, width(from.Line)));
            active.AddRange(found);
        }
        return active.Where(n => n.At == text.Breaks.Length - 1).MinBy(n => n.Demerits);
    }

    /// <summary>Of ways to the same place with as many lines, the last as tight, only the best may be part of the best of all.</summary>
    private static void Keep(List<Node> found, Node node)
    {
        int known = found.FindIndex(other => other.Line == node.Line && other.Fitness == node.Fitness);
        if (known < 0) found.Add(node);
        else if (node.Demerits < found[known].Demerits) found[known] = node;
    }

    private static bool IsTooLong(Measured text, Node from, int shown, double width)
    {
        int end = Math.Max(from.At, shown);
        return text.UpTo[end] - text.UpTo[from.At] - (text.Blanks[end] - text.Blanks[from.At]) * text.Blank * Shrink > width;
    }

    /// <summary>The line from a place to another; null where it cannot be set within bounds.</summary>
    /// <param name="text">The paragraph.</param>
    /// <param name="from">The end of the line before it.</param>
    /// <param name="at">Where it ends.</param>
    /// <param name="trimmed">Where what it shows ends.</param>
    /// <param name="width">How long it is, in points.</param>
    /// <param name="tolerance">By how many times their stretch its blanks may be widened.</param>
    private static Node? After(Measured text, Node from, int at, int trimmed, double width, double tolerance)
    {
        int shown = Math.Max(from.At, trimmed), blanks = text.Blanks[shown] - text.Blanks[from.At];
        bool hyphened = text.Breaks[at] == LineBreak.Hyphen;
        double room = width - (text.UpTo[shown] - text.UpTo[from.At]) - (hyphened ? text.Hyphen : 0);
        // The last line, and one that is ended by hand, runs out.
        bool runsOut = text.Breaks[at] == LineBreak.Required && room >= 0;
        double give = blanks * text.Blank * (room >= 0 ? Stretch : Shrink);
        double ratio = runsOut ? 0 : give > 0 ? room / give : Math.Abs(room) < 1e-9 ? 0 : room > 0 ? double.PositiveInfinity : double.NegativeInfinity;
        if (ratio < -1 || ratio > tolerance) return null;
        double badness = 100 * Math.Abs(ratio * ratio * ratio), penalty = hyphened ? HyphenPenalty : 0;
        double demerits = (LinePenalty + badness) * (LinePenalty + badness) + penalty * penalty;
        int fitness = ratio < -0.5 ? 0 : ratio <= 0.5 ? 1 : ratio <= 1 ? 2 : 3;
        if (hyphened && from.Hyphened) demerits += TwoHyphens;
        if (Math.Abs(fitness - from.Fitness) > 1) demerits += UnlikeNeighbours;
        return new(at, from.Line + 1, from.Demerits + demerits, fitness, hyphened, from);
    }
}
