using System.Collections.Immutable;
using Formatum.Core.Arranging;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk.Commands;

/// <summary>The spread of a publication on which something is done.</summary>
public sealed record Ground(Publication Publication, Spread Spread)
{
    public static Ground Of(Standing standing, int spreadNumber) => new(standing.Publication, DeskView.Of(standing, spreadNumber).Spread);

    public Setup Setup => Publication.Setup;

    /// <summary>How far an arrow key moves something, in points.</summary>
    public double Step => Setup.Unit switch { LengthUnit.Millimetre => Units.Millimetres(1), LengthUnit.Inch => Units.PointsPerInch / 32, _ => 1 };

    /// <exception cref="EditRefused">None is named, or one is gone.</exception>
    public IReadOnlyList<Frame> Frames(ImmutableArray<int> ids) => ids.IsEmpty ? throw new EditRefused("frame", "No frame is chosen. Choose one first.")
        : [.. ids.Select(id => Publication.Frames.GetValueOrDefault(id) ?? throw new NoSuchPart("frame",
            "That frame is no longer there. It may have been removed in another window."))];

    /// <exception cref="EditRefused">None is named.</exception>
    public LinkedImage Image(int? id) => id is { } given && Publication.Images.TryGetValue(given, out var found) ? found
        : throw new EditRefused("image", "Choose an image.");

    /// <summary>How a frame lies, in points of the spread.</summary>
    public Pose PoseOf(Frame frame)
    {
        var page = Spread.Pages.FirstOrDefault(p => p.Page.Id == frame.PageId) ?? throw new EditRefused("frame",
            "That frame is no longer on this spread. Look at the spread again.");
        return frame.Pose.Moved(page.Trim.X, page.Trim.Y);
    }

    public ImmutableArray<FramePose> Poses(IEnumerable<Frame> frames) => [.. frames.Select(frame => new FramePose(frame, PoseOf(frame)))];

    /// <summary>The frames in other poses on the spread; each keeps to the page its middle lies on.</summary>
    public PlaceFrames Placed(IEnumerable<FramePose> poses, PictureAtSizing picture, string? words = null) => new(
        [.. poses.Select(p =>
        {
            var page = Spread.PageAt(p.Pose.Box.Centre);
            return new FramePlace(p.Frame.Id, page.Number, p.Pose.Box.Moved(-page.Trim.X, -page.Trim.Y), p.Pose.Angle);
        })], picture, words);

    /// <summary>What the margins leave of a page, in points of the spread; of a folded one, of its panel at a point.</summary>
    public Box TypeArea(PlacedPage page, Vec at) => TypeAreas(page).MinBy(area => Math.Abs(at.X - area.Centre.X));

    /// <summary>What the margins leave of a page, in points of the spread: of each panel where it is folded.</summary>
    public IEnumerable<Box> TypeAreas(PlacedPage page) => Setup.TypeAreas(page).Select(a => a.Moved(page.Trim.X, page.Trim.Y));

    /// <summary>The columns of a page, in points of the spread.</summary>
    public ImmutableArray<Box> Columns(PlacedPage page) => [.. Setup.ColumnBoxes(page).Select(c => c.Moved(page.Trim.X, page.Trim.Y))];

    /// <summary>A length that was typed; null where it is none, which is told under the field's name.</summary>
    public double? Length(string field, string text, FieldErrors errors, double current = 0) =>
        SettingText.Length(field, text, Setup.Unit, current, true, errors);

    /// <summary>A length that was typed, or another where nothing was.</summary>
    public double LengthOr(string field, string? text, double otherwise, FieldErrors errors) =>
        string.IsNullOrWhiteSpace(text) ? otherwise : Length(field, text, errors) ?? 0;

    /// <summary>The gap between frames at a point of the spread; null where there is none.</summary>
    /// <param name="point">Where, in points of the spread.</param>
    /// <param name="scale">Screen pixels to a point.</param>
    public FoundGap? GapAt(Vec point, double scale)
    {
        // Turned frames have no facing edges, and locked ones do not follow.
        var there = Spread.FramesOf(Publication).Where(f => f.Frame is { Angle: 0, Locked: false, Hidden: false }).ToList();
        ImmutableArray<Box> boxes = [.. there.Select(f => f.Box)];
        return Gutter.At(boxes, point, 4 / Math.Max(scale, 0.01)) is { } gutter ? new(gutter, [.. there.Select(f => f.Frame)], boxes) : null;
    }
}

/// <summary>A frame, and how it lies or would lie, in points of the spread.</summary>
public readonly record struct FramePose(Frame Frame, Pose Pose)
{
    public static Box Around(IEnumerable<FramePose> poses) => poses.Select(p => p.Pose.Bounds).Aggregate((p, q) => p.Union(q));
}

/// <summary>A gap, and the frames that its indices are of.</summary>
public sealed record FoundGap(Gutter Gutter, ImmutableArray<Frame> Frames, ImmutableArray<Box> Boxes);
