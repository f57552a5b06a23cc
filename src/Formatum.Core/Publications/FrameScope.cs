using System.Collections.Immutable;

namespace Formatum.Core.Publications;

/// <summary>Which frames are meant, by whether they hold an image.</summary>
public enum FrameFilling { All, Empty, Filled }

/// <summary>Frames named by where they are.</summary>
public static class FrameScope
{
    /// <param name="publication">The publication.</param>
    /// <param name="page">A page, by its number from 1; null for the whole publication.</param>
    /// <param name="which">By whether they hold an image.</param>
    /// <exception cref="EditRefused">There is no such page, or no such frames.</exception>
    public static ImmutableArray<int> FramesIn(Publication publication, int? page, FrameFilling which)
    {
        if (page is { } number && (number < 1 || number > publication.PageCount))
            throw new EditRefused("page", $"There is no page {number}; the publication has pages 1 to {publication.PageCount}.");
        var frames = page is { } p ? publication.FramesOnPage(publication.Order.Ids[p - 1]) : publication.Frames.Values;
        ImmutableArray<int> ids = [.. frames.Where(f => which switch { FrameFilling.Empty => f.IsPlaceholder, FrameFilling.Filled => f.ImageId is not null, _ => !f.IsText }).Select(f => f.Id).Order()];
        if (ids.IsEmpty) throw new EditRefused("which", $"There are no {(which == FrameFilling.Empty ? "empty placeholders" : which == FrameFilling.Filled ? "filled frames" : "frames")} {(page is null ? "in this publication" : $"on page {page}")}. Choose others.");
        return ids;
    }
}
