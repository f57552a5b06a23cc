using System.Collections.Immutable;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Composing;

/// <summary>What the text of a frame keeps clear of on the spread where it is shown, whatever lies above.</summary>
public static class Wraps
{
    /// <param name="publication">The publication.</param>
    /// <param name="frame">The text frame.</param>
    /// <param name="pageId">The page it is shown on.</param>
    internal static ImmutableArray<Obstacle> Of(Publication publication, Frame frame, int pageId)
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
                   from obstacle in ObstaclesOf(publication, other, other.Box.Moved(placed.Trim.X, placed.Trim.Y), back)
                   select obstacle];
    }

    private static IEnumerable<Obstacle> ObstaclesOf(Publication publication, Frame frame, Box box, Affine back)
    {
        var wrap = publication.WrapOf(frame);
        var toText = back.After(new Pose(box, frame.Angle).ToPage);
        Obstacle Shape(IEnumerable<Vec> corners, Inset distance) => new([.. corners.Select(toText.Apply)], distance, wrap.Sides,
            wrap.Around == WrapAround.Clear);
        var shape = publication.ShapeOf(frame);
        var outline = shape.Flatten(box.Width, box.Height);
        if (wrap.Around == WrapAround.Contour && ContourOf(publication, frame, outline) is { } rings) return rings.Select(r => Shape(r, wrap.Distance));
        if (wrap.Around is WrapAround.Outline or WrapAround.Contour && shape is not RectangleOutline) return [Shape(outline, wrap.Distance)];
        // Along straight sides each has a distance of its own, wherever the frame is turned.
        var distance = wrap.Distance;
        var (left, top) = (-distance.Left, -distance.Top);
        var (right, bottom) = (box.Width + distance.Right, box.Height + distance.Bottom);
        return [Shape([new(left, top), new(right, top), new(right, bottom), new(left, bottom)], default)];
    }

    /// <summary>What is seen of the contour of a frame's picture, in points from the upper left of the unturned frame; null where there is none.</summary>
    public static ImmutableArray<ImmutableArray<Vec>>? ContourOf(Publication publication, Frame frame, ImmutableArray<Vec> outline)
    {
        if (publication.ImageOf(frame)?.Contour is not { Rings.IsEmpty: false } contour || publication.FittedOf(frame) is not { } fitted) return null;
        var matrix = fitted.Placement.Matrix;
        // Outside a hollow outline nothing is seen either, but there lines keep clear all the same.
        bool clips = PolygonMeasure.IsConvex(outline.AsSpan());
        var placed = contour.Rings.Select(ring => ring.Select(matrix.Apply).ToArray());
        return [.. placed.Select(r => clips ? [.. PolygonMeasure.Clipped(r, outline.AsSpan())] : r.ToImmutableArray()).Where(r => r.Length >= 3)];
    }
}
