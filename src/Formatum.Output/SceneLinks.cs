using System.Globalization;
using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Typesetting;

namespace Formatum.Output;

/// <summary>A place in a frame that leads on.</summary>
/// <param name="Frame">The frame.</param>
/// <param name="Line">The line it stands on.</param>
/// <param name="From">Where it begins, in characters of its paragraph.</param>
/// <param name="To">And where it ends.</param>
/// <param name="Place">The place, in frame-local points.</param>
/// <param name="Words">Where to, for people.</param>
/// <param name="Address">The address it leads to; null where it leads to a page.</param>
/// <param name="PageIndex">The place of the page it leads to, from 0.</param>
internal sealed record SceneLink(SceneFrame Frame, SetLine Line, int From, int To, Box Place, string Words, string? Address, int PageIndex);

/// <summary>What leads on from a scene: addresses in texts, and lists of contents.</summary>
internal static class SceneLinks
{
    /// <summary>How far letters reach above and below their baseline, in sizes: common practice, no source.</summary>
    private const double Above = 0.8, Below = 0.25;

    public static IEnumerable<SceneLink> Of(Publication publication, IEnumerable<SceneFrame> frames)
    {
        foreach (var frame in frames)
        {
            if (frame.Text is not { } text) continue;
            foreach (var paragraph in text.Lines.GroupBy(l => l.Paragraph))
                foreach (var link in AddressesOf(frame, [.. paragraph])) yield return link;
            if (!ListsContents(publication, frame)) continue;
            foreach (var paragraph in text.Lines.GroupBy(l => l.Paragraph))
                if (HeadingOf(publication, string.Concat(paragraph.Select(l => l.Text))) is { } heading)
                    foreach (var line in paragraph)
                        yield return new(frame, line, line.Start, line.End, PlaceOf(line, line.X, line.X + line.Width), heading.Words, null, heading.PageIndex);
        }
    }

    private static Box PlaceOf(SetLine line, double from, double to)
    {
        double size = line.Runs.Select(r => r.Size).DefaultIfEmpty(10).Max();
        return new(from, line.Baseline - Above * size, to - from, (Above + Below) * size);
    }

    /// <summary>Addresses in the lines of a paragraph: each leads on from every line on which some of it stands.</summary>
    private static IEnumerable<SceneLink> AddressesOf(SceneFrame frame, IReadOnlyList<SetLine> lines)
    {
        int begin = lines.Min(l => l.Start);
        char[] text = Enumerable.Repeat(' ', lines.Max(l => l.End) - begin).ToArray();
        foreach (var line in lines)
            line.Text.AsSpan(0, Math.Min(line.Text.Length, line.End - line.Start)).CopyTo(text.AsSpan(line.Start - begin));
        foreach (var (from, to) in Addresses.In(new(text)))
        {
            string words = new(text, from, to - from);
            string address = words.Contains("://", StringComparison.Ordinal) ? words : words.Contains('@', StringComparison.Ordinal) ? $"mailto:{words}"
                : $"https://{words}";
            if (!Uri.TryCreate(address, UriKind.Absolute, out var uri)) continue;
            foreach (var line in lines)
                if (Reach(line, begin + from, begin + to) is var (left, right))
                    yield return new(frame, line, begin + from, begin + to, PlaceOf(line, left, right), uri.AbsoluteUri, uri.AbsoluteUri, -1);
        }
    }

    /// <summary>From where to where some characters of a paragraph reach on a line, in points; null where none of them stands on it.</summary>
    private static (double From, double To)? Reach(SetLine line, int from, int to)
    {
        var there = line.Runs.Where(r => r.IsTyped && !r.RightToLeft && r.Start < to && r.Start + r.Text.Length > from).ToList();
        if (there.Count == 0) return null;
        double At(SetRun run, int place) => run.X + run.Glyphs.Where(g => run.Start + g.Cluster < place).Sum(g => g.Advance);
        return (there.Min(r => At(r, from)), there.Max(r => At(r, to)));
    }

    private static bool ListsContents(Publication publication, SceneFrame frame) => publication.Frames.TryGetValue(frame.FrameId, out var own)
        && own.StoryId is { } story && publication.Stories[story].Text.Paragraphs.Any(p => TextFields.Alone(p) is { Name: TextFields.Contents });

    /// <summary>The heading that an entry of a list names: its words, and behind them the number of its page.</summary>
    private static Heading? HeadingOf(Publication publication, string entry) => Headings.Of(publication, Typefaces.All)
        .FirstOrDefault(h => entry.StartsWith(h.Words, StringComparison.Ordinal)
            && entry.EndsWith((publication.Setup.FirstFolio + h.PageIndex).ToString(CultureInfo.InvariantCulture), StringComparison.Ordinal));
}
