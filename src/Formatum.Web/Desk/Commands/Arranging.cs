using System.Collections.Immutable;
using Formatum.Core.Arranging;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Web.Desk.Commands;

/// <summary>What several frames are brought into line with.</summary>
public enum LineUpWith { EachOther, Margins, Page, Spread }

/// <summary>Frames are brought into line.</summary>
public sealed record LineUpFrames : Gesture
{
    public Alignment LineUp { get; init; }
    public LineUpWith With { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        var poses = ground.Poses(FramesOf(ground));
        var around = FramePose.Around(poses);
        return ground.Placed(poses.Select(p =>
        {
            var by = Aligning.Aligned([p.Pose.Bounds], LineUp, Reference(ground, p.Pose, With) ?? around)[0];
            return p with { Pose = p.Pose.Moved(by.X, by.Y) };
        }), PictureAtSizing.GoesAlong, "Line up");
    }

    /// <summary>The box gone by, on the page that a frame lies on; null for the frames themselves.</summary>
    internal static Box? Reference(Ground ground, Pose pose, LineUpWith with) => with switch
    {
        LineUpWith.Margins => ground.TypeArea(ground.Spread.PageAt(pose.Box.Centre), pose.Box.Centre),
        LineUpWith.Page => ground.Spread.PageAt(pose.Box.Centre).Trim,
        LineUpWith.Spread => ground.Spread.Trim,
        _ => null,
    };
}

/// <summary>Frames are spread out evenly, or with a given gap between.</summary>
public sealed record SpreadOutFrames : Gesture
{
    public bool Across { get; init; }
    public LineUpWith With { get; init; }
    public string? Gap { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        var poses = ground.Poses(FramesOf(ground));
        if (poses.Length < 2) throw new EditRefused("frame", "Spreading out takes two frames or more. Choose some more.");
        double? gap = string.IsNullOrWhiteSpace(Gap) ? null : TypedGap.Read(ground, Gap);
        var moves = Aligning.Distributed([.. poses.Select(p => p.Pose.Bounds)], Across, LineUpFrames.Reference(ground, poses[0].Pose, With), gap);
        return ground.Placed(poses.Select((p, i) => p with { Pose = p.Pose.Moved(moves[i].X, moves[i].Y) }), PictureAtSizing.GoesAlong, "Spread out");
    }
}

/// <summary>The others take the size of the frame that was chosen first.</summary>
public sealed record SizeAlike : Gesture
{
    public Sameness Same { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        var poses = ground.Poses(FramesOf(ground));
        if (poses.Length < 2) throw new EditRefused("frame", "Choose the frame to go by, then the others.");
        var by = poses[0].Pose.Box;
        Pose Sized(Pose pose) => pose.Sized(Same == Sameness.Height ? pose.Box.Width : by.Width, Same == Sameness.Width ? pose.Box.Height : by.Height, 0, 0);
        return ground.Placed(poses.Select(p => p with { Pose = Sized(p.Pose) }), PictureAtSizing.Refitted, "Same size,");
    }
}

/// <summary>Edges that lie on the trim, or between it and the bleed, go out to the bleed.</summary>
public sealed record ExtendToBleed : Gesture
{
    /// <summary>As near as this to a line, in points, an edge lies on it.</summary>
    private const double Touching = 1;

    public override Edit ToEdit(Ground ground) => ground.Placed(ground.Poses(FramesOf(ground))
        .Select(p => p with { Pose = p.Pose with { Box = Extended(ground, p.Pose.Box) } }), PictureAtSizing.Refitted, "Extend to bleed,");

    private static Box Extended(Ground ground, Box box)
    {
        double bleed = ground.Setup.Bleed;
        var trim = ground.Spread.Trim;
        bool Touches(double edge, double line, int outwards) => (edge - line) * outwards > -Touching && (edge - line) * outwards <= bleed + Touching;
        double left = Touches(box.X, trim.X, -1) ? trim.X - bleed : box.X, right = Touches(box.Right, trim.Right, 1) ? trim.Right + bleed : box.Right;
        double top = Touches(box.Y, trim.Y, -1) ? trim.Y - bleed : box.Y, bottom = Touches(box.Bottom, trim.Bottom, 1) ? trim.Bottom + bleed : box.Bottom;
        return new(left, top, right - left, bottom - top);
    }
}

public sealed record Flip : Gesture
{
    public bool Across { get; init; }

    public override Edit ToEdit(Ground ground) => new FlipFrames(FrameIds, ground.Spread.Index, Across);
}

/// <summary>Frames go up or down in the stack.</summary>
public sealed record Restack : Gesture
{
    public StackMove Stack { get; init; }

    public override Edit ToEdit(Ground ground) => new RestackFrames(FrameIds, Stack);
}

/// <summary>Copies in a row, or in rows and columns.</summary>
public sealed record Repeat : Gesture, IUnderHand
{
    /// <summary>How many there will be in a row, with what is there already.</summary>
    public int Columns { get; init; } = 2;

    /// <summary>And in how many rows.</summary>
    public int Rows { get; init; } = 1;

    /// <summary>From one copy to the next, as typed; side by side with a gutter between where nothing was.</summary>
    public string? ByX { get; init; }
    public string? ByY { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        var errors = new FieldErrors();
        var around = FramePose.Around(ground.Poses(FramesOf(ground)));
        double gap = ground.Setup.Columns.Gutter, x = ground.LengthOr("byX", ByX, around.Width + gap, errors),
            y = ground.LengthOr("byY", ByY, Rows > 1 ? around.Height + gap : 0, errors);
        errors.ThrowIfAny();
        if (Columns == 1 && Rows == 1) throw new EditRefused("columns", "There is one already. Ask for two or more in a row, or for several rows.");
        return new RepeatFrames(FrameIds, ground.Spread.Index, new(x, y), Columns - 1, Rows);
    }

    public UnderWay UnderWay(Ground ground, bool inside) => Desk.UnderWay.OfNew(ground, ToEdit(ground));
}

public sealed record Lock : Gesture
{
    public override Edit ToEdit(Ground ground) => new ChangeFrames { FrameIds = FrameIds, Locked = true };
}

public sealed record Unlock : Gesture
{
    public override Edit ToEdit(Ground ground) => new ChangeFrames { FrameIds = FrameIds, Locked = false };
}

public sealed record Hide : Gesture
{
    public override Edit ToEdit(Ground ground) => new ChangeFrames { FrameIds = FrameIds, Hidden = true };
}

public sealed record Show : Gesture
{
    public override Edit ToEdit(Ground ground) => new ChangeFrames { FrameIds = FrameIds, Hidden = false };
}

public sealed record Group : Gesture
{
    public override Edit ToEdit(Ground ground) => new GroupFrames(FrameIds, true);
}

public sealed record Ungroup : Gesture
{
    public override Edit ToEdit(Ground ground) => new GroupFrames(FrameIds, false);
}

public sealed record Remove : Gesture
{
    public override Edit ToEdit(Ground ground) => new RemoveFrames(FrameIds);
}
