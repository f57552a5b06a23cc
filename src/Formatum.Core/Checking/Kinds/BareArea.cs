using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class BareArea : KindCheck
{
    /// <summary>A smaller share of the frame nobody sees.</summary>
    private const double Seen = 0.001;

    public override FindingKind Kind => FindingKind.BareArea;
    public override string Title => "Frame not filled";
    public override string Mark => "bare";
    public override string Why => "Part of a frame that should be full shows no picture.";

    internal override IEnumerable<Finding> OfFrame(CheckedFrame frame)
    {
        // A picture that is held back leaves room because its limits ask for it.
        if (frame.Fitted is not { } fitted || (fitted.Placement.Flags & (FitFlags.BareArea | FitFlags.HeldBack)) != FitFlags.BareArea
            || fitted.BareUnasked < Seen) yield break;
        yield return On(frame, "", fitted.BareUnasked, new Figure("Bare", 100 * fitted.BareUnasked, 0, FigureUnit.Percent));
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) => [FittingAgain("Fit again", finding.Part.Id)];

    /// <summary>Lets the rule place the picture, without what a hand did.</summary>
    internal static Remedy FittingAgain(string words, int frameId) => new("fitAgain", words,
        _ => new ChangeFrames { FrameIds = [frameId], Recrop = Recrop.None, FitOnce = true });
}
