using System.Collections.Immutable;
using Formatum.Core.Publications;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Composing;

/// <summary>A text frame whose lines a change would set otherwise.</summary>
/// <param name="Before">The frame as it is.</param>
/// <param name="After">As it would be.</param>
/// <param name="WordsWas">How many words are left over at its end.</param>
/// <param name="WordsWill">How many would be.</param>
public sealed record TouchedText(Frame Before, Frame After, int WordsWas, int WordsWill)
{
    /// <summary>How many words more are left over.</summary>
    public int Worse => WordsWill - WordsWas;
}

/// <summary>What a change does to text, in every frame it touches; where more is left over comes first, then in the order of the pages.</summary>
public sealed record TextImpact(ImmutableArray<TouchedText> Frames)
{
    public static TextImpact Of(Publication before, Publication after, ITypefaces typefaces)
    {
        if (ReferenceEquals(before, after)) return new([]);
        var touched = new List<TouchedText>();
        foreach (var story in after.Stories.Values)
        {
            if (!before.Stories.TryGetValue(story.Id, out var was) || TextCascade.Styled(before, was.Text) == TextCascade.Styled(after, story.Text)) continue;
            foreach (int id in story.FrameIds.Where(before.Frames.ContainsKey))
            {
                SetText set = Composition.TextOf(before, before.Frames[id], typefaces)!, now = Composition.TextOf(after, after.Frames[id], typefaces)!;
                if (!IsSame(set, now)) touched.Add(new(before.Frames[id], after.Frames[id], set.WordsLeftOver, now.WordsLeftOver));
            }
        }
        return new([.. touched.OrderByDescending(t => t.Worse).ThenBy(t => before.Order.IndexOf(t.Before.PageId)).ThenBy(t => t.Before.Id)]);
    }

    private static bool IsSame(SetText one, SetText other) => one.LeftOut == other.LeftOut && one.Lines.Length == other.Lines.Length
        && one.Lines.Zip(other.Lines).All(pair => pair.First.Text == pair.Second.Text && pair.First.Baseline == pair.Second.Baseline
            && pair.First.Runs.Length == pair.Second.Runs.Length && pair.First.Strokes.AsSpan().SequenceEqual(pair.Second.Strokes.AsSpan())
            && pair.First.Runs.Zip(pair.Second.Runs).All(r => r.First.Style == r.Second.Style && r.First.X == r.Second.X && r.First.Text == r.Second.Text));
}
