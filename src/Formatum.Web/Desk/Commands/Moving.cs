using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Arranging;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk.Commands;

/// <summary>Frames are moved; with Alt, copies of them.</summary>
public sealed record MoveFrames : Drag
{
    protected override Attempt Attempt(Ground ground)
    {
        var poses = ground.Poses(FramesOf(ground));
        var around = FramePose.Around(poses);
        var by = To - From;
        // With Shift, along the page or across it alone.
        if (Even) by = Math.Abs(by.X) >= Math.Abs(by.Y) ? by with { Y = 0 } : by with { X = 0 };
        var moved = around.Moved(by.X, by.Y);
        var caught = Scale > 0 && !WithPicture
            ? new Snapping(ground.Publication, ground.Spread, FrameIds.ToHashSet()).Moved(moved, Reach) : new Snapped(moved, []);
        by = caught.Box.UpperLeft - around.UpperLeft;
        Edit edit = FromCentre ? new RepeatFrames(FrameIds, ground.Spread.Index, by, 1)
            : ground.Placed(poses.Select(p => p with { Pose = p.Pose.Moved(by.X, by.Y) }), PictureAtSizing.GoesAlong);
        return new(edit, caught.Marks, caught.Words);
    }
}

/// <summary>Frames are sized by a grip of theirs, or of the box around several.</summary>
public sealed record ResizeFrames : Drag
{
    public string? Grip { get; init; }

    /// <summary>Whether pictures stay where they are on the page, and the grips crop them.</summary>
    public bool Crops { get; init; }

    private PictureAtSizing Picture => WithPicture ? PictureAtSizing.Scaled : Crops ? PictureAtSizing.Cropped : PictureAtSizing.Refitted;

    protected override Attempt Attempt(Ground ground)
    {
        var poses = ground.Poses(FramesOf(ground));
        var grip = Core.Arranging.Grip.Named(Grip) ?? throw new EditRefused("grip", $"A frame has no grip \"{Grip}\".");
        var (sized, marks) = poses is [var only] ? One(ground, only, grip) : Several(ground, poses, grip);
        return new(ground.Placed(sized, Picture, Crops ? "Crop" : null), marks, new Snapped(default, marks).Words);
    }

    private (ImmutableArray<FramePose> Poses, ImmutableArray<SnapMark> Marks) One(Ground ground, FramePose only, Grip grip)
    {
        bool keepRatio = Even || WithPicture;
        var free = Dragging.Resized(only.Pose, grip, To - From, keepRatio, FromCentre);
        var caught = Caught(ground, free.Box, grip, keepRatio || only.Pose.Angle != 0);
        var pose = free with { Box = caught.Box };
        return ([only with { Pose = Crops && !keepRatio && !FromCentre ? WithinPicture(ground, only, pose, grip) : pose }], caught.Marks);
    }

    /// <summary>The frame whose edge stops where its picture ends, where a filled one is to stay filled.</summary>
    private static Pose WithinPicture(Ground ground, FramePose only, Pose sized, Grip grip)
    {
        var publication = ground.Publication;
        if (publication.PictureFitOf(only.Frame) is not { } fit || publication.PlacementOf(only.Frame) is not { Matrix: var map }) return sized;
        bool fills = fit.Rule.Fit is FitKind.Fill or FitKind.Stretch or FitKind.FillOrFit;
        return fills && Recropping.Covers(fit, map) ? Dragging.Within(only.Pose, sized, grip, map) : sized;
    }

    private (ImmutableArray<FramePose> Poses, ImmutableArray<SnapMark> Marks) Several(Ground ground, ImmutableArray<FramePose> poses, Grip grip)
    {
        var around = FramePose.Around(poses);
        bool keepRatio = Even || WithPicture || poses.Any(p => p.Pose.Angle != 0);
        var (now, marks) = Caught(ground, Dragging.Resized(around, grip, To - From, keepRatio, FromCentre), grip, keepRatio);
        double across = now.Width / around.Width, down = now.Height / around.Height;
        return ([.. poses.Select(p =>
        {
            var b = p.Pose.Box;
            var box = new Box(now.X + (b.X - around.X) * across, now.Y + (b.Y - around.Y) * down, b.Width * across, b.Height * down);
            return p with { Pose = p.Pose with { Box = box } };
        })], marks);
    }

    // Turned frames and kept ratios would leave the line they caught on again.
    private Snapped Caught(Ground ground, Box box, Grip grip, bool isBound) => Scale <= 0 || isBound || FromCentre ? new(box, [])
        : new Snapping(ground.Publication, ground.Spread, FrameIds.ToHashSet()).Sized(box, grip, Reach);
}

/// <summary>Frames are turned about a point of theirs, or of the box around several.</summary>
public sealed record TurnFrames : Drag
{
    public double ReferenceX { get; init; } = 0.5;
    public double ReferenceY { get; init; } = 0.5;

    protected override Attempt Attempt(Ground ground)
    {
        var poses = ground.Poses(FramesOf(ground));
        Vec about = poses is [var one] ? one.Pose.At(ReferenceX, ReferenceY) : FramePose.Around(poses).At(ReferenceX, ReferenceY);
        double turn = Turned(about, From, To);
        if (Even) turn = Math.Round((poses[0].Pose.Angle + turn) / TurnStep) * TurnStep - poses[0].Pose.Angle;
        ImmutableArray<FramePose> turned = [.. poses.Select(p => p with { Pose = p.Pose.Turned(turn, about) })];
        return new(ground.Placed(turned, PictureAtSizing.GoesAlong, "Turn"), [],
            $"{Recropping.Turned(turned[0].Pose.Angle).ToString("0.#", CultureInfo.InvariantCulture)}\u00b0");
    }
}

/// <summary>Frames are moved by so many steps right and down.</summary>
public sealed record NudgeFrames : Gesture
{
    public int StepsX { get; init; }
    public int StepsY { get; init; }

    public override Edit ToEdit(Ground ground) => ground.Placed(ground.Poses(FramesOf(ground))
        .Select(p => p with { Pose = p.Pose.Moved(StepsX * ground.Step, StepsY * ground.Step) }), PictureAtSizing.GoesAlong);
}

/// <summary>The gap under the place where the drag began is dragged along; with Alt, widened; or takes the width that was typed.</summary>
public sealed record DragGap : Drag
{
    public string? Gap { get; init; }

    protected override Attempt Attempt(Ground ground)
    {
        var (gutter, frames, boxes) = ground.GapAt(From, Scale) ?? throw new EditRefused("gutter", "There is no gap between frames here.");
        var by = To - From;
        double along = gutter.Upright ? by.X : by.Y;
        var drawn = (Gap is not null ? gutter.Widened(boxes, TypedGap.Read(ground, Gap)) : FromCentre ? gutter.Widened(boxes, gutter.Width + 2 * along)
            : gutter.Dragged(boxes, along)).ToList();
        double before = drawn.Where(d => gutter.Before.Contains(d.Index)).Max(d => gutter.Upright ? d.Box.Right : d.Box.Bottom),
            after = drawn.Where(d => gutter.After.Contains(d.Index)).Min(d => gutter.Upright ? d.Box.X : d.Box.Y);
        return new(ground.Placed(drawn.Select(d => new FramePose(frames[d.Index], new Pose(d.Box, 0))), PictureAtSizing.Refitted, "Drag gutter,"), [],
            $"gap {Units.Text(Math.Max(0, after - before), ground.Setup.Unit)}");
    }
}

internal static class TypedGap
{
    /// <exception cref="EditRefused">It is no length, or none that a gap can have.</exception>
    public static double Read(Ground ground, string text)
    {
        var errors = new FieldErrors();
        double gap = ground.Length("gap", text, errors) ?? 0;
        errors.Length("gap", gap, 0, Setup.LargestSide, "A gap is 0 or wider.");
        errors.ThrowIfAny();
        return gap;
    }
}

/// <summary>Whether there is a gap to drag under the pointer. Nothing is done.</summary>
public sealed record FindGap : DeskCommand, IUnderHand
{
    public double FromX { get; init; }
    public double FromY { get; init; }

    /// <summary>Screen pixels to a point.</summary>
    public double Scale { get; init; }

    public UnderWay UnderWay(Ground ground, bool inside) => Desk.UnderWay.Nothing with { Gap = Patch(ground) };

    private GapPatch? Patch(Ground ground)
    {
        if (ground.GapAt(new(FromX, FromY), Scale) is not { Gutter: var gutter }) return null;
        string words = "gap " + Units.Text(Math.Max(0, gutter.Width), ground.Setup.Unit);
        return gutter.Upright ? new(gutter.From, gutter.Start, gutter.Width, gutter.End - gutter.Start, true, words)
            : new(gutter.Start, gutter.From, gutter.End - gutter.Start, gutter.Width, false, words);
    }

    public override Task<Storage.EditOutcome> DoAsync(Hand hand) => throw new EditRefused("do", "Looking for a gap changes nothing. Drag the gap.");
}

/// <summary>A frame's name, place, size or angle is typed.</summary>
public sealed record TypeFrame : Gesture
{
    public string? Name { get; init; }
    public string? X { get; init; }
    public string? Y { get; init; }
    public string? Width { get; init; }
    public string? Height { get; init; }
    public string? Angle { get; init; }

    /// <summary>The point of the frame that stays as it turns, in shares of it.</summary>
    public double ReferenceX { get; init; } = 0.5;
    public double ReferenceY { get; init; } = 0.5;

    public override Edit ToEdit(Ground ground)
    {
        if (Name is not null) return new ChangeFrames { FrameIds = FrameIds, Name = Name };
        var errors = new FieldErrors();
        var poses = FramesOf(ground).Select(frame => Typed(ground, frame, errors)).ToImmutableArray();
        errors.ThrowIfAny();
        return ground.Placed(poses, PictureAtSizing.GoesAlong, Width is not null || Height is not null ? "Resize" : Angle is not null ? "Turn" : null);
    }

    private FramePose Typed(Ground ground, Frame frame, FieldErrors errors)
    {
        double Read(string field, string? text, double current, bool negative) => text is null ? current
            : SettingText.Length(field, text, ground.Setup.Unit, current, negative, errors) ?? current;
        var lies = ground.PoseOf(frame);
        var from = ground.Spread.PageAt(lies.Box.UpperLeft).Trim;
        var b = lies.Box.Moved(-from.X, -from.Y);
        var box = new Box(Read("x", X, b.X, true), Read("y", Y, b.Y, true), Read("width", Width, b.Width, false), Read("height", Height, b.Height, false));
        var pose = new Pose(box.Moved(from.X, from.Y), frame.Angle);
        if (Angle is not null && SettingText.Angle("angle", Angle, frame.Angle, errors) is { } angle)
            pose = lies.Turned(angle - frame.Angle, lies.At(ReferenceX, ReferenceY));
        return new(frame, pose);
    }
}
