using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class Stretched : KindCheck
{
    /// <summary>Less than this, as a share of the other side, nobody sees.</summary>
    private const double Seen = 0.005;

    public override FindingKind Kind => FindingKind.Stretched;
    public override string Title => "Picture stretched";
    public override string Mark => "stretched";
    public override string Why => "The picture is out of its proportions.";

    internal override IEnumerable<Finding> OfFrame(CheckedFrame frame)
    {
        if (frame.Fitted is not { Placement: var p } || (p.Flags & FitFlags.Stretched) == 0) yield break;
        double ratio = Math.Max(p.ScaleX / p.ScaleY, p.ScaleY / p.ScaleX);
        if (ratio < 1 + Seen) yield break;
        yield return On(frame, p.ScaleX > p.ScaleY ? "It is wider than it should be." : "It is higher than it should be.", ratio,
            new Figure("One side against the other", 100 * ratio, 100, FigureUnit.Percent));
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) =>
    [
        new("fitAgain", "Fit again in proportion", publication => FrameOf(publication, finding) is not { } frame ? null : new ChangeFrames
        {
            FrameIds = [frame.Id],
            Recrop = frame.Recrop with { ZoomY = null },
            Set = publication.FitOf(frame).Fit == FitKind.Stretch ? new() { Fit = FitKind.Fill } : null,
            FitOnce = true,
        }),
    ];
}
