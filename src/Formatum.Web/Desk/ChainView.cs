using Formatum.Core.Checking;
using Formatum.Core.Publications;

namespace Formatum.Web.Desk;

/// <summary>The chain that a text frame is in, and where its text could run on.</summary>
/// <param name="Id">The publication's id.</param>
/// <param name="Publication">The publication.</param>
/// <param name="Frame">The frame.</param>
/// <param name="Story">Its story.</param>
public sealed record ChainView(int Id, Publication Publication, Frame Frame, Story Story)
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
    public Frame? NextEmpty => TextRoom.NextEmpty(Publication, Frame);

    /// <summary>Whether it is on a page, and so can run on to others.</summary>
    public bool CanRunOn => IsLast && Publication.Order.IndexOf(Frame.PageId) >= 0;

    /// <summary>The number the next page bears.</summary>
    public int NextFolio => Publication.Setup.FirstFolio + Publication.Order.IndexOf(Frame.PageId) + 1;
}
