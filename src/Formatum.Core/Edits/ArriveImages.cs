using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Filling;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>Places pictures that have just come in: into empty placeholders, as many as there are; the others wait in the tray.</summary>
public sealed record ArriveImages : Edit
{
    /// <summary>The images, in the order they came.</summary>
    public required ImmutableArray<int> ImageIds { get; init; }

    /// <summary>The frames they may go into; those that are not empty are passed over.</summary>
    public required ImmutableArray<int> FrameIds { get; init; }

    public PourOrder Order { get; init; }

    public override string Words => ImageIds.Length == 1 ? "Place image" : $"Place {ImageIds.Length} images";

    protected override void Make(Draft draft)
    {
        if (ImageIds.IsDefaultOrEmpty) throw new EditRefused("images", "No picture came in. Bring some in first.");
        ImmutableArray<LinkedImage> images = [.. ImageIds.Distinct().Select(id => ImageOf(draft, id))];
        var frames = ReadingOrder.Of(draft.Origin, FrameIds.Distinct().Select(id => FrameOf(draft, id)).Where(PourImages.IsOpen));
        if (frames.IsEmpty) throw new EditRefused("frames", "There is no empty placeholder here any more. Choose another way.");
        var plan = Pouring.Plan(draft.Origin, images, frames, Order);
        foreach (var (frameId, imageId) in plan) Placing.Put(draft, FrameOf(draft, frameId), imageId);
        var placed = plan.Select(p => p.ImageId).ToHashSet();
        var waiting = draft.Tray.ImageIds;
        draft.Put(new Tray([.. waiting, .. images.Select(i => i.Id).Where(id => !placed.Contains(id)).Except(waiting)]));
    }
}
