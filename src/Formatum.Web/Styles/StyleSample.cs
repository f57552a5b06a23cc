using System.Collections.Immutable;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Web.Rules;

namespace Formatum.Web.Styles;

/// <summary>A style shown on words of the publication's own.</summary>
public static class StyleSample
{
    /// <summary>Size of the sample, in points: a column as newsletters have them.</summary>
    private const double Width = 190, Height = 330;

    private const int MostParagraphs = 6, LongestParagraph = 420;

    private const string OwnWords = "Nine cords of split ash came up the lane in the last dry week of the month, and the big kiln will be fired again.";

    /// <param name="publication">Where the style stands as it is to be shown.</param>
    /// <param name="styleId">The style; null shows how text is set without one.</param>
    public static string Draw(Publication publication, int? styleId)
    {
        var text = Of(publication, styleId is { } id ? publication.Styles.GetValueOrDefault(id) : null);
        var frame = new Frame { Id = 1, PageId = 1, Box = new(0, 0, Width, Height), StoryId = 2 };
        var sample = Publication.FromParts(publication.NextId, [publication.Setup, new PageOrder([1]), new Page(1), frame,
            new Story { Id = 2, FrameIds = [1], Text = text }, .. publication.Styles.Values, .. publication.Rules.Values,
            .. publication.Fonts.Values, .. publication.Colours.Values]);
        return FramePicture.Draw(sample, frame, "sample");
    }

    private static FrameText Of(Publication publication, NamedStyle? style)
    {
        if (style is not null && Found(publication, style.Id) is { } found) return found;
        string words = publication.Stories.Values.OrderBy(s => s.Id).SelectMany(s => s.Text.Paragraphs).Select(p => p.Text)
            .FirstOrDefault(t => t.Length is > 60 and < LongestParagraph) ?? OwnWords;
        int first = words.IndexOf(' ', StringComparison.Ordinal) + 1, second = Math.Max(first, words.IndexOf(' ', Math.Min(words.Length, first + 12)));
        return style switch
        {
            { Kind: StyleKind.Character } => new([new Paragraph().Of([new(words[..first]), new(words[first..second], style.Id), new(words[second..])])]),
            _ => new([new Paragraph(words, style?.Id), new Paragraph(words, style?.Id)]),
        };
    }

    /// <summary>The first words that have the style, with what stands about them; null where none have.</summary>
    private static FrameText? Found(Publication publication, int styleId)
    {
        foreach (var story in publication.Stories.Values.OrderBy(s => s.Id))
        {
            int at = IndexOf(story.Text.Paragraphs, styleId);
            if (at < 0) continue;
            var shown = story.Text.Paragraphs.Skip(Math.Max(0, at - 1)).Take(MostParagraphs);
            return new([.. shown.Select(p => p.Text.Length > LongestParagraph && p.StyleId != styleId
                ? p.Of([p.Runs[0] with { Text = p.Text[..LongestParagraph] + " ..." }])
                : p)]);
        }
        return null;
    }

    private static int IndexOf(ImmutableArray<Paragraph> paragraphs, int styleId)
    {
        for (int i = 0; i < paragraphs.Length; i++)
            if (paragraphs[i].StyleId == styleId || paragraphs[i].Runs.Any(r => r.StyleId == styleId)) return i;
        return -1;
    }
}
