using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>What is done to the tray.</summary>
public enum TrayMove
{
    /// <summary>Picked up, behind what waits there.</summary>
    Add,
    /// <summary>Taken away again.</summary>
    Remove,
    /// <summary>Put before another, or at the end.</summary>
    Reorder,
}

/// <summary>Changes what waits in the tray.</summary>
/// <param name="ImageIds">The images meant, in the order they come to lie.</param>
/// <param name="Move">What is done with them.</param>
/// <param name="Before">For reordering, the image before which they come; null for the end.</param>
public sealed record ChangeTray(ImmutableArray<int> ImageIds, TrayMove Move, int? Before = null) : Edit
{
    public override string Words => Move switch
    {
        TrayMove.Add => "Put in tray",
        TrayMove.Remove => "Take out of tray",
        _ => "Reorder tray",
    } + (ImageIds.Length == 1 ? "" : $", {ImageIds.Length} images");

    protected override void Make(Draft draft)
    {
        if (ImageIds.IsDefaultOrEmpty) throw new EditRefused("images", "No image is chosen. Choose some first.");
        foreach (int id in ImageIds) ImageOf(draft, id);
        ImmutableArray<int> moved = [.. ImageIds.Distinct()];
        var rest = draft.Tray.Without(moved).ImageIds;
        draft.Put(new Tray(Move switch
        {
            TrayMove.Add => [.. draft.Tray.ImageIds, .. moved.Except(draft.Tray.ImageIds)],
            TrayMove.Remove => rest,
            _ => rest.InsertRange(Before is { } before && rest.IndexOf(before) is >= 0 and var at ? at : rest.Length, moved),
        }));
    }
}

/// <summary>Places an image of the tray in a frame, and takes it out of the tray. What was in the frame goes, with its recrop; its rule stays.</summary>
public sealed record PlaceFromTray(int FrameId, int ImageId) : Edit
{
    public override string Words => "Place from tray";

    protected override void Make(Draft draft)
    {
        ImageOf(draft, ImageId);
        Placing.Put(draft, FrameOf(draft, FrameId), ImageId);
    }
}

/// <summary>Puts images in the place of others: in one frame each, in two frames crosswise, or wherever an image is shown.</summary>
/// <param name="Places">The frames, and what each comes to show; null to leave it empty.</param>
/// <param name="ToTray">Whether the images that go are put in the tray, in front.</param>
/// <param name="As">What it is called in the history.</param>
/// <param name="KeepRecrop">Whether they show the same as those they replace, and are cropped by hand as those were.</param>
public sealed record ReplaceImages(ImmutableArray<(int FrameId, int? ImageId)> Places, bool ToTray, string As, bool KeepRecrop = false) : Edit
{
    public override string Words => As + (Places.Length == 1 ? "" : $", {Places.Length} frames");

    protected override void Make(Draft draft)
    {
        if (Places.IsDefaultOrEmpty) throw new EditRefused("frame", "No frame is meant. Choose one first.");
        var gone = new List<int>();
        foreach (var (frameId, imageId) in Places)
        {
            var frame = FrameOf(draft, frameId);
            if (frame.ImageId is { } was && was != imageId) gone.Add(was);
            Placing.Put(draft, frame, imageId);
            if (KeepRecrop) draft.Put(draft.Frame(frameId)! with { Recrop = frame.Recrop, FormerRecrop = frame.FormerRecrop });
        }
        if (ToTray) draft.Put(new Tray([.. gone.Distinct(), .. draft.Tray.Without(gone).ImageIds]));
    }
}

internal static class Placing
{
    /// <summary>Shows another image in a frame, as its rule fits it. An image that is placed no longer waits in the tray.</summary>
    public static void Put(Draft draft, Frame frame, int? imageId)
    {
        var placed = frame.Showing(imageId);
        FrameChecks.Check(draft, placed);
        draft.Put(placed);
        if (imageId is { } image) TakeFromTray(draft, image);
    }

    public static void TakeFromTray(Draft draft, int imageId)
    {
        if (draft.Tray.ImageIds.Contains(imageId)) draft.Put(draft.Tray.Without([imageId]));
    }
}
