using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Checking.Kinds;

/// <summary>Brings frames away from the trim.</summary>
internal static class Inwards
{
    /// <summary>Moves a frame until a box in it keeps a distance from the trim; where there is no room for it, the frame is made smaller.</summary>
    /// <param name="publication">The publication.</param>
    /// <param name="frame">The frame.</param>
    /// <param name="box">What is to keep clear, in points from the upper left of its page's trim.</param>
    /// <param name="distance">How far, in points.</param>
    /// <param name="words">What it is called in the history.</param>
    public static Edit Moved(Publication publication, Frame frame, Box box, double distance, string words)
    {
        int number = publication.NumberOf(frame.PageId);
        var spread = Spread.At(publication, Spread.IndexOfPage(publication, number));
        var page = spread.Pages.First(p => p.Page.Id == frame.PageId);
        var across = Room(box.X, box.Right, page.Trim.Width, distance, -page.Trim.X, spread.Trim.Right - page.Trim.X);
        var down = Room(box.Y, box.Bottom, page.Trim.Height, distance, 0, page.Trim.Height);
        double x = Shift(box.X, box.Right, across), y = Shift(box.Y, box.Bottom, down);
        double narrower = Math.Max(0, box.Width - across.Width), lower = Math.Max(0, box.Height - down.Width);
        var moved = frame.Box.Moved(x, y);
        // Too large to keep clear on both sides: from its first edge on it is cut to what fits.
        moved = moved with { Width = Math.Max(Frame.SmallestSide, moved.Width - narrower), Height = Math.Max(Frame.SmallestSide, moved.Height - lower) };
        return new PlaceFrames([new(frame.Id, number, moved)], narrower + lower > 0 ? PictureAtSizing.Refitted : PictureAtSizing.GoesAlong, words);
    }

    /// <summary>Where a stretch may lie on its page: a distance from the trim, and up to a fold that it does not cross already.</summary>
    private static Interval Room(double from, double to, double page, double distance, double trimFrom, double trimTo)
    {
        // At a fold the trim lies a page farther off.
        double first = trimFrom < 0 && from >= 0 ? 0 : trimFrom + distance, last = trimTo > page && to <= page ? page : trimTo - distance;
        return new(first, last);
    }

    /// <summary>How far a stretch has to move to lie within its room; one too large keeps clear at its first edge.</summary>
    private static double Shift(double from, double to, Interval room) =>
        from < room.From || to - from > room.Width ? room.From - from : to > room.To ? room.To - to : 0;
}
