using System.Collections.Immutable;
using Formatum.Core.Arranging;
using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Output;
using Formatum.Storage;

namespace Formatum.Web.Desk.Commands;

/// <summary>Another outline for frames that are there.</summary>
public sealed record ChooseOutline : Gesture
{
    public string? Outline { get; init; }
    public int Sides { get; init; } = 6;

    /// <summary>How deep the points of a star are, in percent; 0 for a polygon.</summary>
    public double Depth { get; init; }

    public override Edit ToEdit(Ground ground) => new ChangeFrames { FrameIds = FrameIds, Outline = new FrameShape(Outline, Sides, Depth).Outline };
}

/// <summary>A frame takes on the outline of the largest form in its drawing, where that lies on the page.</summary>
public sealed record TakeDrawingOutline : DeskCommand
{
    public override async Task<EditOutcome> DoAsync(Hand hand)
    {
        var ground = await hand.GroundAsync();
        var (publication, frame) = (ground.Publication, ground.Frames(FrameIds)[0]);
        if (publication.ImageOf(frame) is not { Format: "svg" } image)
            throw new EditRefused("outline", "An outline is taken from a drawing. Place an SVG in the frame first.");
        var drawing = await Task.Run(() => hand.Pixels.DrawingOf(image));
        if (drawing is null || DrawingOutline.Largest(drawing) is not { } form)
            throw new EditRefused("outline",
                $"No outline can be taken from {image.Name}: nothing in it is filled as lines alone, or it is too fine. Simplify it "
                + "in the program it was drawn with.");
        var scene = Composer.Compose(publication, frame, ground.PoseOf(frame).Box, Typefaces.All);
        var toSpread = scene.ToSpread.After(scene.Image!.Matrix);
        var (box, outline) = Outlines.Free([.. form.Select(p => p.Mapped(toSpread.Apply))]);
        var placed = ground.Placed([new(frame, new(box, 0))], PictureAtSizing.Refitted, "Take the drawing's outline");
        return await hand.EditAsync(placed with { Places = [placed.Places[0] with { Outline = outline }] });
    }
}

/// <summary>A frame whose outline is changed at its points.</summary>
internal readonly record struct Shaping(Ground Ground, Frame Frame, Pose Pose, ImmutableArray<PathPoint> Points)
{
    /// <exception cref="EditRefused">The frame holds text.</exception>
    public static Shaping Of(Ground ground, Frame frame)
    {
        if (frame.IsText) throw new EditRefused("outline", $"{frame.Label} holds text, and keeps its four sides.");
        var pose = ground.PoseOf(frame);
        return new(ground, frame, pose, OutlinePoints.Of(pose, frame.Outline));
    }

    /// <exception cref="EditRefused">It has no such point.</exception>
    public PathPoint Point(int index) => index >= 0 && index < Points.Length ? Points[index]
        : throw new EditRefused("outline", "That point is no longer there. Look at the outline again.");

    public PlaceFrames Edit((Pose Pose, Outline Outline) changed)
    {
        var placed = Ground.Placed([new(Frame, changed.Pose)], PictureAtSizing.Refitted, "Change outline");
        return placed with { Places = [placed.Places[0] with { Outline = changed.Outline }] };
    }
}

/// <summary>A point of an outline is moved, or a control of it. What is drawn catches; with Alt, a control leaves the one across from it as it is.</summary>
public sealed record MovePoint : Drag
{
    public int Point { get; init; }
    public PointPart Part { get; init; }

    protected override bool ShowsPoints => true;

    protected override Attempt Attempt(Ground ground)
    {
        var shape = Shaping.Of(ground, FirstFrame(ground));
        shape.Point(Point);
        var to = Scale > 0 && Part == PointPart.At
            ? new Snapping(ground.Publication, ground.Spread, new HashSet<int> { shape.Frame.Id }).Point(To, Reach) : To;
        return new(shape.Edit(OutlinePoints.Moved(shape.Pose, shape.Frame.Outline, Point, Part, to, alone: FromCentre)));
    }
}

public sealed record NudgePoint : Gesture
{
    public int Point { get; init; }
    public int StepsX { get; init; }
    public int StepsY { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        var shape = Shaping.Of(ground, FirstFrame(ground));
        var to = shape.Point(Point).At + ground.Step * new Vec(StepsX, StepsY);
        return shape.Edit(OutlinePoints.Moved(shape.Pose, shape.Frame.Outline, Point, PointPart.At, to));
    }
}

/// <summary>A point is added where the outline is nearest to the pointer.</summary>
public sealed record AddPoint : Gesture
{
    public double ToX { get; init; }
    public double ToY { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        var shape = Shaping.Of(ground, FirstFrame(ground));
        return shape.Edit(OutlinePoints.Added(shape.Pose, shape.Frame.Outline, new(ToX, ToY)));
    }
}

/// <summary>A point is added half way to the next.</summary>
public sealed record AddPointAfter : Gesture
{
    public int Point { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        var shape = Shaping.Of(ground, FirstFrame(ground));
        var half = 0.5 * (shape.Point(Point).At + shape.Point((Point + 1) % shape.Points.Length).At);
        return shape.Edit(OutlinePoints.Added(shape.Pose, shape.Frame.Outline, half));
    }
}

public sealed record RemovePoint : Gesture
{
    public int Point { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        var shape = Shaping.Of(ground, FirstFrame(ground));
        shape.Point(Point);
        if (shape.Points.Length <= PathOutline.FewestPoints)
            throw new EditRefused("outline", $"An outline has at least {PathOutline.FewestPoints} points. Remove the frame instead, or move its points.");
        return shape.Edit(OutlinePoints.Removed(shape.Pose, shape.Frame.Outline, Point));
    }
}

/// <summary>A point becomes a bend, or a bend a corner.</summary>
public sealed record BendPoint : Gesture
{
    public int Point { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        var shape = Shaping.Of(ground, FirstFrame(ground));
        shape.Point(Point);
        return shape.Edit(OutlinePoints.Bent(shape.Pose, shape.Frame.Outline, Point));
    }
}
