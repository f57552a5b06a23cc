using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;

namespace Formatum.Web.Desk.Commands;

/// <summary>Pictures that wait in the tray, or come to.</summary>
public abstract record TrayGesture : Gesture
{
    /// <summary>Ids of images, with commas between.</summary>
    public string? Images { get; init; }

    protected ImmutableArray<int> ImageIds => [.. DeskView.Ids(Images)];
}

public sealed record AddToTray : TrayGesture
{
    public override Edit ToEdit(Ground ground) => new ChangeTray(ImageIds, TrayMove.Add);
}

/// <summary>Every picture that is placed nowhere.</summary>
public sealed record AddUnplacedToTray : Gesture
{
    public override Edit ToEdit(Ground ground) => new ChangeTray([.. ground.Publication.UnplacedImages], TrayMove.Add);
}

public sealed record RemoveFromTray : TrayGesture
{
    public override Edit ToEdit(Ground ground) => new ChangeTray(ImageIds, TrayMove.Remove);
}

public sealed record ClearTray : Gesture
{
    public override Edit ToEdit(Ground ground) => new ChangeTray(ground.Publication.Tray.ImageIds, TrayMove.Remove);
}

public sealed record ReorderTray : TrayGesture
{
    /// <summary>The image before which these come; null for the end.</summary>
    public int? Before { get; init; }

    public override Edit ToEdit(Ground ground) => new ChangeTray(ImageIds, TrayMove.Reorder, Before);
}

/// <summary>The picture in hand goes into a frame.</summary>
public sealed record PlaceInHand : Gesture
{
    public int? Image { get; init; }

    public override Edit ToEdit(Ground ground) =>
        new PlaceFromTray(FirstFrame(ground).Id, Image ?? throw new EditRefused("image", "Take up a picture of the tray."));
}

/// <summary>The very picture in hand in the frame under the pointer, as it would be fitted. Nothing is done.</summary>
public sealed record PreviewInHand : DeskCommand, IUnderHand
{
    public int? Image { get; init; }

    public UnderWay UnderWay(Ground ground, bool inside)
    {
        var after = ground.Publication.With(new PlaceInHand { Frames = Frames, Image = Image }.ToEdit(ground).On(ground.Publication));
        if (ground.Spread.FramesOf(after).FirstOrDefault(f => FrameIds.Contains(f.Frame.Id)) is not { Frame: { } frame, Box: var box })
            throw new EditRefused("frame", "That frame is not on this spread.");
        return Desk.UnderWay.Nothing with { Words = Desk.UnderWay.SharpnessOf(after, frame), Preview = SpreadView.Preview(after, frame, box) };
    }

    public override Task<Storage.EditOutcome> DoAsync(Hand hand) => throw new EditRefused("do", "A preview changes nothing. Place the picture.");
}

/// <summary>Frames give up their pictures, which wait in the tray again.</summary>
public sealed record SendBack : Gesture
{
    public override Edit ToEdit(Ground ground) => new ReplaceImages([.. Filled(FramesOf(ground)).Select(f => (f.Id, (int?)null))], true, "Send back to tray");

    /// <exception cref="EditRefused">None has a picture.</exception>
    internal static ImmutableArray<Frame> Filled(IEnumerable<Frame> frames)
    {
        ImmutableArray<Frame> filled = [.. frames.Where(f => f.ImageId is not null)];
        return filled.IsEmpty ? throw new EditRefused("frame", "No frame with a picture is chosen. Choose one first.") : filled;
    }
}

/// <summary>Two frames give each other their pictures.</summary>
public sealed record Swap : Gesture
{
    public override Edit ToEdit(Ground ground) => SendBack.Filled(FramesOf(ground)) is [var one, var two]
        ? new ReplaceImages([(one.Id, two.ImageId), (two.Id, one.ImageId)], false, "Swap images")
        : throw new EditRefused("frame", "Swapping takes two frames with pictures. Choose two.");
}

/// <summary>Every frame that shows the picture of the chosen one comes to show another.</summary>
public sealed record ReplaceEverywhere : Gesture
{
    public int? Image { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        int was = SendBack.Filled(FramesOf(ground))[0].ImageId!.Value, now = Image ?? throw new EditRefused("image",
            "Choose the picture that takes its place.");
        return new ReplaceImages([.. ground.Publication.Frames.Values.Where(f => f.ImageId == was).OrderBy(f => f.Id).Select(f => (f.Id, (int?)now))], false,
            "Replace image everywhere");
    }
}
