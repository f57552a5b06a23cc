using Formatum.Core.Arranging;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk.Commands;

/// <summary>A picture in its frame, and how the hand's places lie in the frame.</summary>
internal readonly record struct PictureInFrame(Ground Ground, Frame Frame, PictureFit Fit)
{
    /// <exception cref="EditRefused">The frame has no picture.</exception>
    public static PictureInFrame Of(Ground ground, Frame frame) => new(ground, frame, ground.Publication.PictureFitOf(frame)
        ?? throw new EditRefused("frame", $"{frame.Label} has no picture yet. Place one first."));

    /// <summary>How far the frame is turned, in degrees.</summary>
    public double Angle => Frame.Angle;

    /// <summary>The point of the picture that its scale goes about; null for what lies on the alignment point, as a recrop holds it.</summary>
    public Vec? Held => Frame.Recrop.Point is null ? Fit.Subject : null;

    /// <summary>How far the picture is turned in it, in degrees.</summary>
    public double Turned => Recropping.Turned(Recropping.Measures(Fit.Rule, Placement.Matrix).Angle);

    public Placement Placement => Ground.Publication.PlacementOf(Frame)!.Value;

    public Vec ToFrame(Vec onSpread) => Ground.PoseOf(Frame).ToPage.Inverse().Apply(onSpread);
}

/// <summary>The picture of a frame is moved, scaled or turned by the hand.</summary>
public abstract record PictureDrag : Drag
{
    /// <summary>Whether the picture keeps covering its frame.</summary>
    public bool NoBareArea { get; init; } = true;

    private protected abstract HandMove Move(PictureInFrame picture);

    protected override Attempt Attempt(Ground ground)
    {
        var frame = FirstFrame(ground);
        var picture = PictureInFrame.Of(ground, frame);
        var move = Move(picture);
        return new(new RecropFrame(frame.Id, move, NoBareArea), [], IsHeldBack(picture, move) ? "held: no bare area" : "");
    }

    private bool IsHeldBack(PictureInFrame picture, HandMove move)
    {
        var map = picture.Placement.Matrix;
        var wanted = move.On(picture.Fit, map);
        return NoBareArea && wanted.IsFinite && Recropping.Covers(picture.Fit, map) && !Recropping.Covers(picture.Fit, wanted);
    }

    protected static double Zoom(double? factor) => factor is > 0 and < 1e6 ? factor.Value : throw new EditRefused("factor", "Zoom by a factor above 0.");
}

public sealed record PanPicture : PictureDrag
{
    private protected override HandMove Move(PictureInFrame picture) => new HandMove.Pan(picture.ToFrame(To) - picture.ToFrame(From));
}

public sealed record NudgePicture : PictureDrag
{
    public int StepsX { get; init; }
    public int StepsY { get; init; }

    private protected override HandMove Move(PictureInFrame picture) =>
        new HandMove.Pan(Affine.Rotation(-picture.Angle).Apply(picture.Ground.Step * new Vec(StepsX, StepsY)));
}

/// <summary>About the pointer.</summary>
public sealed record ZoomPicture : PictureDrag
{
    public double? Factor { get; init; }

    private protected override HandMove Move(PictureInFrame picture) => new HandMove.Zoom(Zoom(Factor), picture.ToFrame(From));
}

/// <summary>About the middle of what the picture is fitted into.</summary>
public sealed record ZoomPictureMiddle : PictureDrag
{
    public double? Factor { get; init; }

    private protected override HandMove Move(PictureInFrame picture) => new HandMove.Zoom(Zoom(Factor), picture.Fit.FitBox.Centre);
}

/// <summary>Two fingers: apart or together, and along.</summary>
public sealed record PinchPicture : PictureDrag
{
    public double? Factor { get; init; }

    private protected override HandMove Move(PictureInFrame picture) => new HandMove.Pinch(Zoom(Factor), picture.ToFrame(From), picture.ToFrame(To));
}

public sealed record PullPictureCorner : PictureDrag
{
    public string? Grip { get; init; }

    private protected override HandMove Move(PictureInFrame picture)
    {
        var grip = Core.Arranging.Grip.Named(Grip) is { X: not 0, Y: not 0 } corner ? corner
            : throw new EditRefused("grip", $"A picture has no corner \"{Grip}\".");
        return new HandMove.Corner((grip.X + 1) / 2.0, (grip.Y + 1) / 2.0, picture.ToFrame(To));
    }
}

public sealed record TurnPicture : PictureDrag
{
    private protected override HandMove Move(PictureInFrame picture)
    {
        double turn = Turned(picture.Fit.FitBox.Centre, picture.ToFrame(From), picture.ToFrame(To));
        if (!Even) return new HandMove.Turn(turn);
        double angle = Recropping.Measures(picture.Fit.Rule, picture.Placement.Matrix).Angle;
        return new HandMove.Turn(Math.Round((angle + turn) / TurnStep) * TurnStep - angle);
    }
}

/// <summary>By the slider of scales.</summary>
public sealed record SlidePicture : PictureDrag
{
    /// <summary>Where it stands, from 0 to 1.</summary>
    public double? Slide { get; init; }

    private protected override HandMove Move(PictureInFrame picture)
    {
        double scale = PictureView.ScaleAt(picture.Fit, Slide ?? 0);
        var now = picture.Placement;
        return new HandMove.Figures(scale, scale * now.ScaleY / now.ScaleX, null, null, null, picture.Held);
    }
}

/// <summary>Scale, place or angle of the picture are typed.</summary>
public sealed record TypePicture : PictureDrag
{
    public string? ScaleX { get; init; }
    public string? ScaleY { get; init; }

    /// <summary>Whether the other scale goes with the one that was typed, keeping what the two are to each other now.</summary>
    public bool Linked { get; init; } = true;

    public string? OffsetX { get; init; }
    public string? OffsetY { get; init; }
    public string? Angle { get; init; }

    private protected override HandMove Move(PictureInFrame picture)
    {
        var errors = new FieldErrors();
        var now = picture.Placement;
        double? x = ReadScale("scaleX", ScaleX, now.ScaleX, errors), y = ReadScale("scaleY", ScaleY, now.ScaleY, errors);
        if (Linked && x is { } sx && y is null) y = sx * now.ScaleY / now.ScaleX;
        else if (Linked && y is { } sy && x is null) x = sy * now.ScaleX / now.ScaleY;
        var offset = now.Matrix.Apply(new(0.5, 0.5)) - picture.Fit.FitBox.Centre;
        double? Offset(string field, string? text, double current) => text is null ? null : picture.Ground.Length(field, text, errors, current);
        var figures = new HandMove.Figures(x, y, Offset("offsetX", OffsetX, offset.X), Offset("offsetY", OffsetY, offset.Y),
            Angle is null ? null : SettingText.Angle("angle", Angle, picture.Turned, errors), picture.Held);
        errors.ThrowIfAny();
        return figures;
    }

    private static double? ReadScale(string field, string? text, double current, FieldErrors errors)
    {
        if (text is null) return null;
        if (FigureText.Share(text, current) is > 0 and { } share) return share;
        errors.Add(field, $"\u201c{text}\u201d is not a scale. Type a percentage above 0; 100 % is natural size.");
        return null;
    }
}

/// <summary>What was done by hand and let go is taken up again.</summary>
public sealed record RecropBack : Gesture
{
    public override Edit ToEdit(Ground ground) => new ChangeFrames { FrameIds = FrameIds, RecropBack = true };
}

/// <summary>What was done by hand is taken back.</summary>
public sealed record ResetPicture : Gesture
{
    public override Edit ToEdit(Ground ground) => new ChangeFrames { FrameIds = FrameIds, Recrop = Recrop.None };
}

/// <summary>The frame takes on a measure of its picture.</summary>
public sealed record TakeOnMeasure : Gesture
{
    public FrameTakes Takes { get; init; }

    /// <summary>The point of the frame that stays, in shares of it.</summary>
    public double ReferenceX { get; init; } = 0.5;
    public double ReferenceY { get; init; } = 0.5;

    public override Edit ToEdit(Ground ground) => new TakeMeasure(FrameIds, Takes, new(ReferenceX, ReferenceY));
}

public sealed record PlacePicture : Gesture
{
    public int? Image { get; init; }

    public override Edit ToEdit(Ground ground) =>
        new ChangeFrames { FrameIds = FrameIds, ImageId = new(Image ?? throw new EditRefused("image", "Choose an image.")) };
}

public sealed record TakeOutPicture : Gesture
{
    public override Edit ToEdit(Ground ground) => new ChangeFrames { FrameIds = FrameIds, ImageId = new(null) };
}

public sealed record Unlink : Gesture
{
    public int? Image { get; init; }

    public override Edit ToEdit(Ground ground) => new UnlinkImages([Image ?? throw new EditRefused("image", "Choose an image.")]);
}
