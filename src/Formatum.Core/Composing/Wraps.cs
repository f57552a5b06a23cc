using System.Collections.Immutable;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Composing;

/// <summary>What the text of a frame keeps clear of on the spread where it is shown, whatever lies above.</summary>
internal static class Wraps
{
    /// <param name="publication">The publication.</param>
    /// <param name="frame">The text frame.</param>
    /// <param name="pageId">The page it is shown on.</param>
    public static ImmutableArray<Obstacle> Of(Publication publication, Frame frame, int pageId)
    {
        if (publication.WrappedFrames.Count == 0) return [];
        var spread = Spread.At(publication, Spread.IndexOfPage(publication, publication.NumberOf(pageId)));
        var own = spread.Pages.First(p => p.Page.Id == pageId);
        // From the spread to the text's own unturned frame.
        var back = (frame.Pose with { Box = frame.Box.Moved(own.Trim.X, own.Trim.Y) }).ToPage.Inverse();
        return [.. from placed in spread.Pages
                   let master = publication.MasterPageOf(placed.Page.Id)
                   from other in publication.WrappedFrames
                   where other.Id != frame.Id && (other.PageId == placed.Page.Id || (other.PageId == master && !publication.IsEmpty(other)))
                   select ObstacleOf(other, other.Box.Moved(placed.Trim.X, placed.Trim.Y), back)];
    }

    private static Obstacle ObstacleOf(Frame frame, Box box, Affine back)
    {
        var wrap = frame.Wrap!;
        bool byOutline = wrap.Around == WrapAround.Outline && frame.Outline is not RectangleOutline;
        var (distance, pose) = (wrap.Distance, new Pose(box, frame.Angle));
        if (byOutline)
            return new([.. frame.Outline.Flatten(box.Width, box.Height).Select(p => back.Apply(pose.ToPage.Apply(p)))], distance, wrap.Sides, false);
        // Along straight sides each has a distance of its own, wherever the frame is turned.
        var (left, top) = (-distance.Left, -distance.Top);
        var (right, bottom) = (box.Width + distance.Right, box.Height + distance.Bottom);
        return new([.. new Vec[] { new(left, top), new(right, top), new(right, bottom), new(left, bottom) }.Select(p => back.Apply(pose.ToPage.Apply(p)))],
            default, wrap.Sides, wrap.Around == WrapAround.Clear);
    }
}
