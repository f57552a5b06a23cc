using Formatum.Core.Publications;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Composing;

/// <summary>Text of a frame that is lost in print.</summary>
/// <param name="Frame">The frame.</param>
/// <param name="PageId">The page it is shown on.</param>
/// <param name="WordsLeftOver">How many words do not fit, in its frame or the chain that ends with it.</param>
/// <param name="Missing">How many have no glyph in their font, and print as a box.</param>
public sealed record LostText(Frame Frame, int PageId, int WordsLeftOver, int Missing);

/// <summary>Finds text that would be lost.</summary>
public static class TextFindings
{
    /// <summary>Every text frame that loses something, in the order of pages; a master's on the first page that shows it.</summary>
    public static IEnumerable<LostText> Of(Publication publication, ITypefaces typefaces)
    {
        var seen = new HashSet<int>();
        foreach (int page in publication.Order.Ids)
        {
            var shown = publication.FramesOnPage(page);
            if (publication.MasterPageOf(page) is { } master)
                shown = publication.FramesOnPage(master).Where(f => !publication.IsEmpty(f) && !seen.Contains(f.Id)).Concat(shown);
            foreach (var frame in shown.Where(f => f.IsText && !f.Hidden).ToList())
                if (Lost(publication, frame, page, typefaces) is { } lost && seen.Add(frame.Id)) yield return lost;
        }
    }

    private static LostText? Lost(Publication publication, Frame frame, int page, ITypefaces typefaces)
    {
        var set = Composition.TextOf(publication, frame, typefaces, page)!;
        return set.LeftOut > 0 || set.Missing > 0 ? new(frame, page, set.WordsLeftOver, set.Missing) : null;
    }
}
