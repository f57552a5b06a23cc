using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Filling;
using Formatum.Core.Publications;
using Formatum.Output;

namespace Formatum.Web.Desk;

/// <summary>The chain that a text frame is in, and where its text could run on.</summary>
/// <param name="Publication">The publication.</param>
/// <param name="Frame">The frame.</param>
/// <param name="Story">Its story.</param>
public sealed record ChainView(Publication Publication, Frame Frame, Story Story)
{
    /// <summary>So many frames before and behind are named.</summary>
    private const int Beside = 3;

    /// <summary>Which of the chain's frames it is, from 1.</summary>
    public int Number => Story.FrameIds.IndexOf(Frame.Id) + 1;

    public bool IsLast => Number == Story.FrameIds.Length;

    /// <summary>The frames near it in the chain, with their numbers.</summary>
    public IEnumerable<(int Number, Frame Frame)> Near => Story.FrameIds.Select((id, i) => (i + 1, Publication.Frames[id]))
        .Where(f => Math.Abs(f.Item1 - Number) <= Beside);

    /// <summary>The next empty text frame behind it in reading order; null where there is none.</summary>
    public Frame? NextEmpty
    {
        get
        {
            int at = Publication.Order.IndexOf(Frame.PageId);
            if (at < 0) return null;
            var behind = ReadingOrder.Of(Publication, Publication.Order.Ids.Skip(at).SelectMany(Publication.FramesOnPage)).ToList();
            return behind.Skip(behind.FindIndex(f => f.Id == Frame.Id) + 1)
                .FirstOrDefault(f => f is { IsText: true, Hidden: false, Locked: false } && f.StoryId != Story.Id && Publication.IsEmpty(f));
        }
    }

    /// <summary>Whether it is on a page, and so can run on to others.</summary>
    public bool CanRunOn => IsLast && Publication.Order.IndexOf(Frame.PageId) >= 0;

    /// <summary>The number the next page bears.</summary>
    public int NextFolio => Publication.Setup.FirstFolio + Publication.Order.IndexOf(Frame.PageId) + 1;

    /// <summary>The edit that adds as many pages as the text takes to end.</summary>
    /// <exception cref="EditRefused">It ends already, or would not end with as many as can be added.</exception>
    public static RunOnPages UntilItEnds(Publication publication, Frame frame)
    {
        int LeftOut(Publication after, int id) => Composition.TextOf(after, after.Frames[id], Typefaces.All)?.LeftOut ?? 0;
        int left = LeftOut(publication, frame.Id);
        if (left == 0) throw new EditRefused("into", "All of the text has its place already.");
        int LeftWith(int count)
        {
            var after = publication.With(new RunOnPages(frame.Id, count, OnNewPages: true).On(publication));
            return LeftOut(after, after.StoryOf(after.Frames[frame.Id])!.FrameIds[^1]);
        }
        int with1 = LeftWith(1), takes = left - with1;
        if (takes <= 0) throw new EditRefused("into", "Not a line of the text fits on such a page. Make the frame larger, or the type smaller.");
        // About as many as one takes into all; then to the exact number.
        int count = Math.Clamp((int)Math.Ceiling((double)left / takes), 1, RunOnPages.Most);
        while (count > 1 && LeftWith(count - 1) == 0) count--;
        while (LeftWith(count) > 0)
            if (++count > RunOnPages.Most) throw new EditRefused("into", $"It would take more than {RunOnPages.Most} pages. Make the frame larger first.");
        return new(frame.Id, count, OnNewPages: true);
    }
}
