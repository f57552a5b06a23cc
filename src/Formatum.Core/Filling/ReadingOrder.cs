using System.Collections.Immutable;
using Formatum.Core.Publications;

namespace Formatum.Core.Filling;

/// <summary>The order in which a reader comes upon frames.</summary>
public static class ReadingOrder
{
    /// <summary>
    /// Pages in order; on a page row by row from the top, and in a row from left to right, or from right to left where the publication binds on
    /// the right. Frames are of one row where their vertical spans overlap by half the smaller height or more.
    /// </summary>
    public static ImmutableArray<Frame> Of(Publication publication, IEnumerable<Frame> frames) =>
        [.. frames.GroupBy(f => f.PageId).OrderBy(page => publication.Order.IndexOf(page.Key))
            .SelectMany(page => OnPage([.. page], publication.Setup.BindsRight))];

    private static IEnumerable<Frame> OnPage(List<Frame> frames, bool fromRight)
    {
        var seen = frames.Select(f => (Frame: f, Box: f.Pose.Bounds)).OrderBy(f => f.Box.Y).ThenBy(f => f.Frame.Id).ToList();
        var rows = new List<List<(Frame Frame, Geometry.Box Box)>>();
        foreach (var frame in seen)
        {
            // A frame may hang rows together that it overlaps both.
            var met = rows.Where(row => row.Any(other => SameRow(other.Box, frame.Box))).ToList();
            List<(Frame, Geometry.Box)> joined = [.. met.SelectMany(row => row), frame];
            rows.RemoveAll(met.Contains);
            rows.Add(joined);
        }
        return rows.OrderBy(row => row.Min(f => f.Box.Y)).SelectMany(row => row.OrderBy(f => fromRight ? -f.Box.Right : f.Box.X).ThenBy(f => f.Box.Y)
            .ThenBy(f => f.Frame.Id)).Select(f => f.Frame);
    }

    private static bool SameRow(in Geometry.Box a, in Geometry.Box b) =>
        Math.Min(a.Bottom, b.Bottom) - Math.Max(a.Y, b.Y) >= Math.Min(a.Height, b.Height) / 2;
}
