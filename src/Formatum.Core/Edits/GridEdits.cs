using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>Makes several placeholders at once.</summary>
/// <param name="Spread">The spread, by its index from 0.</param>
/// <param name="Boxes">Their boxes, in points of that spread.</param>
/// <param name="Outline">Their outline.</param>
/// <param name="RuleId">Their rule; null for none.</param>
public sealed record MakeFrames(int Spread, ImmutableArray<Box> Boxes, Outline Outline, int? RuleId) : Edit
{
    public const int Most = 3600;

    /// <summary>The images they hold, the first in the first; the frames after them are empty. They leave the tray.</summary>
    public ImmutableArray<int> ImageIds { get; init; } = [];

    public override string Words => ImageIds.IsEmpty ? $"Make {Boxes.Length} placeholders" : $"Make {Boxes.Length} frames with images";

    protected override void Make(Draft draft)
    {
        if (Boxes.IsEmpty || Boxes.Length > Most) throw new EditRefused("grid", $"Make from 1 to {Most} placeholders at once.");
        if (Boxes.Any(b => b.Width < Frame.SmallestSide || b.Height < Frame.SmallestSide))
            throw new EditRefused("grid", "The gutters leave no room for placeholders. Make them narrower, take fewer rows or columns, or a larger area.");
        var spread = Publications.Spread.At(draft.Origin, Spread);
        int depth = spread.FramesOf(draft.Origin).Select(f => f.Frame.Depth).DefaultIfEmpty(0).Max();
        for (int i = 0; i < Boxes.Length; i++)
        {
            var page = spread.PageAt(Boxes[i].Centre);
            var frame = new Frame
            {
                Id = draft.NewId(),
                PageId = page.Page.Id,
                Box = Boxes[i].Moved(-page.Trim.X, -page.Trim.Y),
                Outline = Outline,
                Depth = ++depth,
                RuleId = RuleId
            };
            Placing.Put(draft, UsualLooks.With(draft, frame), i < ImageIds.Length ? ImageOf(draft, ImageIds[i]).Id : null);
        }
    }
}

/// <summary>Mirrors frames with their pictures.</summary>
/// <param name="FrameIds">The frames.</param>
/// <param name="Spread">The spread they are on, by its index from 0.</param>
/// <param name="Across">Left to right, or top to bottom.</param>
public sealed record FlipFrames(ImmutableArray<int> FrameIds, int Spread, bool Across) : Edit
{
    public override string Words => Across ? "Flip left to right" : "Flip top to bottom";

    protected override void Make(Draft draft)
    {
        if (FrameIds.IsEmpty) throw new EditRefused("frame", "No frame is chosen. Choose one first.");
        var placed = Publications.Spread.At(draft.Origin, Spread).FramesOf(draft.Origin).Where(f => FrameIds.Contains(f.Frame.Id)).ToList();
        if (placed.Count == 0) return;
        var centre = placed.Select(f => (f.Frame.Pose with { Box = f.Box }).Bounds).Aggregate((p, q) => p.Union(q)).Centre;
        foreach (var (frame, box) in placed)
        {
            FrameChecks.Unlocked(frame);
            var pose = (frame.Pose with { Box = box }).Mirrored(Across, centre);
            var fit = draft.Origin.FitOf(frame);
            var mirror = Across ? new Affine(-1, 0, 0, 1, box.Width, 0) : new Affine(1, 0, 0, -1, 0, box.Height);
            // What holds at the left holds at the right now: settings that have a side change it, so that the picture is the mirrored one.
            var inset = fit.Inset;
            var own = frame.Own.With(Across
                ? new FitSettings { FlipX = !fit.FlipX, AlignX = 1 - fit.AlignX, InsetLeft = inset.Right, InsetRight = inset.Left, Rotation = -fit.Rotation }
                : new FitSettings { FlipY = !fit.FlipY, AlignY = 1 - fit.AlignY, InsetTop = inset.Bottom, InsetBottom = inset.Top, Rotation = -fit.Rotation },
                    fit);
            draft.Put(frame with
            {
                Box = frame.Box.Moved(pose.Box.X - box.X, pose.Box.Y - box.Y),
                Angle = pose.Angle,
                Outline = Outlines.Mirrored(frame.Outline, Across),
                Look = Mirrored(frame.Look, draft.Origin.LookOf(frame).Corners),
                Own = own,
                Recrop = frame.Recrop.Mirrored(),
                FormerRecrop = frame.FormerRecrop is { } former ? former with { Recrop = former.Recrop.Mirrored() } : null,
                Held = frame.Held is { } held ? held with { Matrix = mirror.After(held.Matrix) } : null,
            });
        }
    }

    /// <summary>Corners that differ change sides, also where a named look shapes them.</summary>
    private LookSettings Mirrored(LookSettings look, Corners? corners) =>
        corners?.Mirrored(Across) is { } mirrored && mirrored != corners ? look with { Corners = mirrored } : look;
}
