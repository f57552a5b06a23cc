using System.Collections.Immutable;
using Formatum.Core.Arranging;
using Formatum.Core.Checks;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>Moves the picture inside its frame by hand.</summary>
/// <param name="FrameId">The frame.</param>
/// <param name="Move">What the hand does.</param>
/// <param name="NoBareArea">Where the picture covers the fit box, it goes on covering it.</param>
public sealed record RecropFrame(int FrameId, HandMove Move, bool NoBareArea) : Edit
{
    public override string Words => Move is HandMove.Turn or HandMove.Figures { Angle: not null } ? "Turn picture" : "Recrop";

    protected override void Make(Draft draft)
    {
        var frame = FrameOf(draft, FrameId);
        var (fit, map) = Inside.Of(draft, frame);
        var wanted = Move.On(fit, map);
        if (!wanted.IsFinite || Math.Abs(wanted.Determinant) < 1e-12)
            throw new EditRefused("recrop", "That would leave nothing of the picture. Give numbers above 0.");
        if (NoBareArea && Recropping.Covers(fit, map)) wanted = Recropping.Covering(fit, wanted);
        Inside.Put(draft, frame, fit, wanted);
    }
}

/// <summary>Gives frames the measure of their pictures.</summary>
/// <param name="FrameIds">The frames, each with an image.</param>
/// <param name="Takes">What they take on.</param>
/// <param name="Reference">The point, in fractions of each frame's box, that stays where it is.</param>
public sealed record TakeMeasure(ImmutableArray<int> FrameIds, FrameTakes Takes, Vec Reference) : Edit
{
    public override string Words => Takes switch
    {
        FrameTakes.Size => "Frame to picture",
        FrameTakes.NaturalSize => "Frame to natural size",
        _ => "Frame to picture's ratio",
    };

    protected override void Make(Draft draft)
    {
        if (FrameIds.IsEmpty) throw new EditRefused("frame", "No frame is chosen. Choose one first.");
        var errors = new FieldErrors();
        errors.Range("reference", Reference.X, 0, 1, "A reference point is given in fractions of the frame, 0 to 1.");
        errors.Range("reference", Reference.Y, 0, 1, "A reference point is given in fractions of the frame, 0 to 1.");
        errors.ThrowIfAny();
        foreach (int id in FrameIds)
        {
            var frame = FrameOf(draft, id);
            var (fit, map) = Inside.Of(draft, frame);
            if (fit.FitBox is not { Width: > 0, Height: > 0 })
                throw new EditRefused("inset", $"{frame.Label} has insets that leave no room for a picture. Make them smaller first.");
            var (box, wanted) = FrameToPicture.Sized(frame.Box, fit, map, Takes, Reference);
            var sized = frame with { Box = box };
            FrameChecks.Check(draft, sized);
            Inside.Put(draft, sized, fit with { Width = box.Width, Height = box.Height }, wanted);
        }
    }
}

/// <summary>How the picture lies inside a frame, before and after a hand is on it.</summary>
internal static class Inside
{
    /// <exception cref="EditRefused">The frame has no picture.</exception>
    public static (PictureFit Fitting, Affine Map) Of(Draft draft, Frame frame)
    {
        if (draft.Origin.PictureFitOf(frame) is not { } fit || draft.Origin.PlacementOf(frame) is not { } placement)
            throw new EditRefused("frame", $"{frame.Label} has no picture yet. Place one first.");
        return (fit, placement.Matrix);
    }

    /// <summary>Puts the frame with the recrop that brings the picture where it is wanted; one that does not stay fitted holds it just there.</summary>
    public static void Put(Draft draft, Frame frame, in PictureFit fit, in Affine wanted)
    {
        var recrop = Recropping.Towards(fit, wanted);
        // Whole and in the middle is what the rule does by itself: then there is nothing to keep.
        if (recrop is { Zoom: 1, ZoomY: null, Turn: 0 } && SamePlace(fit.Place(recrop).Matrix, fit.Place(Recrop.None).Matrix)) recrop = Recrop.None;
        draft.Put(frame with { Recrop = recrop, Held = frame.Held is { } held ? held with { Matrix = wanted } : null });
    }

    private static bool SamePlace(in Affine p, in Affine q) => Math.Abs(p.E - q.E) < 1e-6 && Math.Abs(p.F - q.F) < 1e-6;
}
