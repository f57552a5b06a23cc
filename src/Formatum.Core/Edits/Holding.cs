using Formatum.Core.Fitting;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>
/// Keeps what frames hold in step with whether they stay fitted: one that stops staying fitted holds its image as it is fitted at that moment,
/// one that starts again lets go. A frame that holds and is sized crops its picture, or uncovers it: that is a recrop like any other.
/// </summary>
internal static class Holding
{
    public static void Settle(Draft draft)
    {
        if (!draft.Touched.Any(key => key.Kind is PartKind.Frame or PartKind.Rule or PartKind.Setup)) return;
        var before = draft.Origin;
        var after = before.With(draft.Changes());
        bool rulesChanged = !ReferenceEquals(before.Rules, after.Rules) || before.Setup.DefaultRuleId != after.Setup.DefaultRuleId;
        var frames = rulesChanged ? after.Frames.Values : draft.Touched.Where(key => key.Kind == PartKind.Frame).Select(key => draft.Frame(key.Id))
            .OfType<Frame>().ToList();
        foreach (var frame in frames)
        {
            var settled = Recropped(before, after, Settled(after, frame));
            if (settled != frame) draft.Put(settled);
        }
    }

    private static Frame Settled(Publication publication, Frame frame)
    {
        bool holds = frame.ImageId is not null && !publication.FitOf(frame).StaysFitted;
        if (!holds) return frame.Held is null ? frame : frame with { Held = null };
        return frame.Held is not null || publication.PlacementOf(frame) is not { } placement ? frame
            : frame with { Held = new(placement.Matrix, placement.Applied) };
    }

    private static Frame Recropped(Publication before, Publication after, Frame frame)
    {
        if (frame.Held is not { } held || before.Frames.GetValueOrDefault(frame.Id) is not { Held: not null } was || was.Recrop != frame.Recrop
            || (was.Box.Width == frame.Box.Width && was.Box.Height == frame.Box.Height) || after.PictureFitOf(frame) is not { } fit) return frame;
        return frame with { Recrop = Recropping.Towards(fit, held.Matrix), FormerRecrop = null };
    }
}
