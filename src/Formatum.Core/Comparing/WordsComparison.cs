using System.Collections.Immutable;
using Formatum.Core.Geometry;

namespace Formatum.Core.Comparing;

/// <summary>What became of words of a page; boxes in points from the upper left of its trim.</summary>
internal readonly record struct WordsDifference(DifferenceKind Kind, string Subject, string Detail, Box? Before, Box? After);

/// <summary>What is otherwise in the words of one page than in those of another.</summary>
/// <param name="before">The words made before.</param>
/// <param name="after">The words now.</param>
/// <param name="unit">In which lengths are told.</param>
internal sealed class WordsComparison(ImmutableArray<PlacedWord> before, ImmutableArray<PlacedWord> after, LengthUnit unit)
{
    /// <summary>More places, or ways to move, are told by their number alone.</summary>
    private const int MostPlaces = 12, MostWays = 3;

    /// <summary>For each word now its partner before; -1 for none.</summary>
    private readonly int[] _partner = [.. Enumerable.Repeat(-1, after.Length)];

    private readonly bool[] _paired = new bool[before.Length];

    public IEnumerable<WordsDifference> All()
    {
        Pair();
        var changed = Changed().ToList();
        return [.. changed.Take(MostPlaces), .. changed.Count > MostPlaces ? [Rest(changed.Skip(MostPlaces))] : Enumerable.Empty<WordsDifference>(),
            .. Moved()];
    }

    /// <summary>In the order in which they are read; then, whatever the order, those that stayed where they were: a frame that went behind another.</summary>
    private void Pair()
    {
        foreach (var (was, now) in CommonOrder.Of([.. before.Select(w => w.Text)], [.. after.Select(w => w.Text)])) Pair(was, now);
        var left = new NearBoxes();
        for (int i = 0; i < before.Length; i++)
            if (!_paired[i]) left.Add(i, before[i].Box);
        for (int j = 0; j < after.Length && left.Count > 0; j++)
            if (_partner[j] < 0 && left.Take(after[j].Box, i => before[i].Text == after[j].Text) is { } was) Pair(was, j);
    }

    private void Pair(int was, int now) => (_partner[now], _paired[was]) = (was, true);

    /// <summary>Runs of words that went, or came, or became others. What went at one place and came at another whole has moved.</summary>
    private IEnumerable<WordsDifference> Changed()
    {
        var gone = Runs(before, i => _paired[i]);
        var come = Runs(after, j => _partner[j] >= 0);
        foreach (var run in come)
        {
            int moved = gone.FindIndex(g => g.Words.Select(w => w.Text).SequenceEqual(run.Words.Select(w => w.Text)));
            int there = moved >= 0 ? moved : gone.FindIndex(g => g.Behind == (run.Start == 0 ? -1 : _partner[run.Start - 1]));
            if (there < 0)
            {
                yield return new(DifferenceKind.Words, Quoted(run.Words), "Came.", null, Around(run.Words));
                continue;
            }
            var old = gone[there];
            gone.RemoveAt(there);
            yield return moved >= 0 ? new(DifferenceKind.Moved, Quoted(run.Words), "To another place in the text.", Around(old.Words), Around(run.Words))
                : new(DifferenceKind.Words, Quoted(old.Words), $"Became {Quoted(run.Words)}.", Around(old.Words), Around(run.Words));
        }
        foreach (var run in gone) yield return new(DifferenceKind.Words, Quoted(run.Words), "Went.", Around(run.Words), null);
    }

    private readonly record struct Run(int Start, ImmutableArray<PlacedWord> Words)
    {
        /// <summary>The word before it.</summary>
        public int Behind => Start - 1;
    }

    private static List<Run> Runs(ImmutableArray<PlacedWord> words, Func<int, bool> isPaired)
    {
        var runs = new List<Run>();
        for (int i = 0; i < words.Length; i++)
        {
            int start = i;
            while (i < words.Length && !isPaired(i)) i++;
            if (i > start) runs.Add(new(start, words[start..i]));
        }
        return runs;
    }

    private static WordsDifference Rest(IEnumerable<WordsDifference> rest)
    {
        var all = rest.ToList();
        static Box? Joined(IEnumerable<Box?> boxes) => boxes.OfType<Box>().ToList() is { Count: > 0 } some ? some.Aggregate((p, q) => p.Union(q)) : null;
        return new(DifferenceKind.Words, FormattableString.Invariant($"{all.Count} places more"), "", Joined(all.Select(d => d.Before)),
            Joined(all.Select(d => d.After)));
    }

    /// <summary>Words that stand elsewhere than before, those together that moved alike; and those that are larger or smaller.</summary>
    private IEnumerable<WordsDifference> Moved()
    {
        var pairs = Enumerable.Range(0, after.Length).Where(j => _partner[j] >= 0).Select(j => (Was: before[_partner[j]], Now: after[j])).ToList();
        var sized = pairs.Where(p => IsSized(p.Was.Box, p.Now.Box)).ToList();
        var ways = pairs.Where(p => !NearBoxes.AreSame(p.Was.Box, p.Now.Box) && !IsSized(p.Was.Box, p.Now.Box))
            .GroupBy(p => ByHalfPoints(p.Now.Box, p.Was.Box)).ToList();
        if (sized.Count > 0) yield return Of(DifferenceKind.Setting, sized, "Larger or smaller, or in another font.");
        if (ways.Count > MostWays) yield return Of(DifferenceKind.Moved, [.. ways.SelectMany(w => w)], "Lines run otherwise.");
        else foreach (var way in ways) yield return Of(DifferenceKind.Moved, [.. way], DifferenceText.Moved(Mean(way), unit, 0));
    }

    private static bool IsSized(Box was, Box now) => Math.Abs(was.Width - now.Width) > NearBoxes.Near + was.Width / 50
        || Math.Abs(was.Height - now.Height) > NearBoxes.Near + was.Height / 50;

    private static Vec ByHalfPoints(Box now, Box was) => new(Math.Round((now.X - was.X) * 2) / 2, Math.Round((now.Bottom - was.Bottom) * 2) / 2);

    private Vec Mean(IEnumerable<(PlacedWord Was, PlacedWord Now)> pairs) => DifferenceText.Roughly(new Vec(pairs.Average(p => p.Now.Box.X - p.Was.Box.X),
        pairs.Average(p => p.Now.Box.Bottom - p.Was.Box.Bottom)), unit);

    private static WordsDifference Of(DifferenceKind kind, List<(PlacedWord Was, PlacedWord Now)> pairs, string detail) => new(kind,
        pairs.Count == 1 ? Quoted([pairs[0].Now]) : $"{DifferenceText.Words(pairs.Count)} from {Quoted([.. pairs.Take(3).Select(p => p.Now)])}", detail,
        Around(pairs.Select(p => p.Was)), Around(pairs.Select(p => p.Now)));

    private static Box Around(IEnumerable<PlacedWord> words) => words.Select(w => w.Box).Aggregate((p, q) => p.Union(q));

    /// <summary>Words as they are told: a few of them, in quotation marks.</summary>
    private static string Quoted(ImmutableArray<PlacedWord> words)
    {
        const int MostLetters = 60;
        string text = string.Join(' ', words.Select(w => w.Text));
        return $"\u201c{(text.Length <= MostLetters ? text : text[..MostLetters].TrimEnd() + " \u2026")}\u201d";
    }
}
