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
        var before = IsTurn && frame.Recrop.Grown is { } was ? Grown(fit, map, 1 / was) : map;
        var wanted = Move.On(fit, before);
        if (!wanted.IsFinite || Math.Abs(wanted.Determinant) < 1e-12)
            throw new EditRefused("recrop", "That would leave nothing of the picture. Give numbers above 0.");
        double? grown = Move is HandMove.Pan ? frame.Recrop.Grown : null;
        if (NoBareArea && Recropping.Covers(fit, map))
        {
            var covering = Recropping.Covering(fit, wanted);
            if (IsTurn && covering.ScaleX / wanted.ScaleX is > 1 + 1e-9 and var by) grown = by;
            wanted = covering;
        }
        Inside.Put(draft, frame, fit, wanted, grown);
    }

    private bool IsTurn => Move is HandMove.Turn or HandMove.Figures { Angle: not null };

    private static Affine Grown(in PictureFit fit, in Affine map, double by) =>
        Recropping.Scaled(map, by, by, Recropping.Measures(fit.Rule, map).Angle, fit.FitBox.Centre);
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
    /// <param name="draft">The publication under way.</param>
    /// <param name="frame">The frame as it is to be.</param>
    /// <param name="fit">What decides where its picture lies.</param>
    /// <param name="wanted">From the image's unit square to the frame, in points.</param>
    /// <param name="grown">As of <see cref="Recrop.Grown"/>.</param>
    public static void Put(Draft draft, Frame frame, in PictureFit fit, in Affine wanted, double? grown = null)
    {
        var recrop = Recropping.Towards(fit, wanted) with { Grown = grown };
        // Whole and in the middle is what the rule does by itself: then there is nothing to keep.
        if (recrop is { Zoom: 1, ZoomY: null, Turn: 0, Grown: null }
            && SamePlace(fit.Place(recrop).Matrix, fit.Place(Recrop.None).Matrix)) recrop = Recrop.None;
        draft.Put(frame with { Recrop = recrop, FormerRecrop = null, Held = frame.Held is { } held ? held with { Matrix = wanted } : null });
    }

    /// <summary>
    /// The same where the picture has to stay just where it is. A fit that would move it, since it leaves nothing bare, or cuts nothing, that it need not,
    /// gives way to the one that scales alike and leaves the place to the hand.
    /// </summary>
    public static void PutStill(Draft draft, Frame frame, in PictureFit fit, in Affine wanted)
    {
        Put(draft, frame, fit, wanted);
        if (frame.Held is not null || IsNear(fit.Place(draft.Frame(frame.Id)!.Recrop).Matrix, wanted)) return;
        var free = FreeKind(fit);
        Put(draft, frame with { Own = frame.Own with { Fit = free } }, fit with { Rule = fit.Rule with { Fit = free } }, wanted);
    }

    /// <summary>Of the fits that leave the place to a hand, the one that scales as this one does, or comes nearest.</summary>
    private static FitKind FreeKind(PictureFit fit)
    {
        double scale = fit.Place(Recrop.None).ScaleX;
        double Off(FitKind kind) => Math.Abs((fit with { Rule = fit.Rule with { Fit = kind } }).Place(Recrop.None).ScaleX - scale);
        return Off(FitKind.Width) <= Off(FitKind.Height) ? FitKind.Width : FitKind.Height;
    }

    private static bool IsNear(in Affine p, in Affine q)
    {
        // A thousandth of a point, anywhere on the picture.
        foreach (var corner in new[] { new Vec(0, 0), new Vec(1, 0), new Vec(0, 1) })
            if ((p.Apply(corner) - q.Apply(corner)).Length > 0.001) return false;
        return true;
    }

    private static bool SamePlace(in Affine p, in Affine q) => Math.Abs(p.E - q.E) < 1e-6 && Math.Abs(p.F - q.F) < 1e-6;
}
