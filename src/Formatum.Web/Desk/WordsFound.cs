using System.Collections.Immutable;
using Formatum.Core.Composing;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Output;

namespace Formatum.Web.Desk;

/// <summary>A place in a text where something was found: the frame it stands in, and the words about it.</summary>
/// <param name="Frame">The frame; the last of the chain where it is left over.</param>
/// <param name="Before">Words before it.</param>
/// <param name="Found">What was found.</param>
/// <param name="Behind">Words behind it.</param>
public sealed record FoundWords(Frame Frame, string Before, string Found, string Behind);

/// <summary>What a search comes to.</summary>
/// <param name="Count">How often it was found.</param>
/// <param name="Texts">In how many texts.</param>
/// <param name="Shown">The first of the places.</param>
public sealed record WordsFound(int Count, int Texts, ImmutableArray<FoundWords> Shown)
{
    public const int Most = 60;

    private const int About = 28;

    /// <param name="publication">Where to look.</param>
    /// <param name="search">For what.</param>
    /// <param name="frameId">A frame of the one text that is meant; null for all.</param>
    public static WordsFound Of(Publication publication, WordSearch search, int? frameId)
    {
        var stories = frameId is { } id && publication.Frames.GetValueOrDefault(id) is { } frame && publication.StoryOf(frame) is { } one ? [one]
            : publication.Stories.Values.OrderBy(s => publication.Order.IndexOf(publication.Frames[s.FrameIds[0]].PageId)).ToList();
        int count = 0, texts = 0;
        var shown = ImmutableArray.CreateBuilder<FoundWords>();
        foreach (var story in stories)
        {
            var ranges = search.In(story.Text).ToList();
            if (ranges.Count == 0) continue;
            (count, texts) = (count + ranges.Count, texts + 1);
            if (shown.Count < Most) shown.AddRange(Places(publication, story, ranges.Take(Most - shown.Count)));
        }
        return new(count, texts, shown.ToImmutable());
    }

    private static IEnumerable<FoundWords> Places(Publication publication, Story story, IEnumerable<TextRange> ranges)
    {
        string plain = story.Text.Plain;
        var set = Composition.AsTyped(publication, story, Typefaces.All);
        foreach (var range in ranges)
        {
            var (paragraph, at) = story.Text.PlaceOf(range.From);
            int where = Array.FindIndex([.. set], f => f.Lines.Any(l => l.Paragraph == paragraph && at < l.End + 1));
            int from = Math.Max(0, range.From - About), to = Math.Min(plain.Length, range.To + About);
            yield return new(publication.Frames[story.FrameIds[where < 0 ? ^1 : where]], plain[from..range.From].Replace('\n', ' '),
                plain[range.From..range.To],
                plain[range.To..to].Replace('\n', ' '));
        }
    }
}
