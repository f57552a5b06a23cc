using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class Enlarged : KindCheck
{
    public override FindingKind Kind => FindingKind.Enlarged;
    public override string Title => "Enlarged beyond its rule";
    public override string Mark => "enlarged";
    public override string Why => "The rule of the frame says how large a picture may get, and this one is larger.";

    internal override IEnumerable<Finding> OfFrame(CheckedFrame frame)
    {
        if (frame.Fitted is not { Placement: var p } || (p.Flags & FitFlags.AboveLargestEnlargement) == 0) yield break;
        double scale = Math.Max(p.ScaleX, p.ScaleY), most = frame.Publication.FitOf(frame.Frame).LargestEnlargement;
        yield return On(frame, "", scale / most, new Figure("Enlargement", 100 * scale, 100 * most, FigureUnit.Percent));
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) =>
        [HoldingBack(finding.Part.Id, () => new() { Limits = LimitAction.Hold })];

    /// <summary>Keeps a picture as large as limits let it be, and takes back what a hand enlarged beyond.</summary>
    internal static Remedy HoldingBack(int frameId, Func<FitSettings> limits) => new("holdBack", "Hold back the enlargement",
        publication => publication.Frames.GetValueOrDefault(frameId) is not { } frame ? null : new ChangeFrames
        {
            FrameIds = [frameId],
            Set = limits(),
            Recrop = frame.Recrop with { Zoom = Math.Min(1, frame.Recrop.Zoom), ZoomY = frame.Recrop.ZoomY is { } down ? Math.Min(1, down) : null },
            FitOnce = true,
        });
}
