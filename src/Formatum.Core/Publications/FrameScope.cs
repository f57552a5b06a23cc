using System.Collections.Immutable;
using Formatum.Core.Checks;

namespace Formatum.Core.Publications;

/// <summary>Which frames are meant, by whether they hold an image.</summary>
public enum FrameFilling { All, Empty, Filled }

/// <summary>Frames named by where they are.</summary>
public static class FrameScope
{
    /// <param name="publication">The publication.</param>
    /// <param name="page">A page, by its number: from 1, or below 0 for one of a master; null for the whole publication, with its masters.</param>
    /// <param name="which">By whether they hold an image.</param>
    /// <exception cref="EditRefused">There is no such page, or no such frames.</exception>
    public static ImmutableArray<int> FramesIn(Publication publication, int? page, FrameFilling which)
    {
        int? pageId = page is { } given ? publication.PageIdAt(given) : null;
        if (page is not null && pageId is null)
            throw new EditRefused("page", $"There is no page {page}; the publication has pages 1 to {publication.PageCount}.");
        var frames = pageId is { } id ? publication.FramesOnPage(id) : publication.Frames.Values;
        ImmutableArray<int> ids = [.. frames.Where(f => which switch { FrameFilling.Empty => f.IsPlaceholder, FrameFilling.Filled => f.ImageId is not null,
            _ => !f.IsText }).Select(f => f.Id).Order()];
        if (ids.IsEmpty)
            throw new EditRefused("which", $"There are no " +
                $"{(which == FrameFilling.Empty ? "empty placeholders" : which == FrameFilling.Filled ? "filled frames" : "frames")} " +
                $"{(page is null ? "in this publication" : $"on {publication.WordsOf(pageId!.Value)}")}. Choose others.");
        return ids;
    }
}
