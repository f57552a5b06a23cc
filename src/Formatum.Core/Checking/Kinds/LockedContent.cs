using Formatum.Core.Edits;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class LockedContent : KindCheck
{
    public override FindingKind Kind => FindingKind.LockedContent;
    public override string Title => "Locked, with something in it";
    public override string Mark => "locked";
    public override string Why => "It stays in the next edition, whatever else is emptied.";

    internal override IEnumerable<Finding> OfFrame(CheckedFrame frame)
    {
        if (frame.Frame is { Locked: true, Hidden: false } && !frame.IsOnMaster && !frame.Publication.IsEmpty(frame.Frame)) yield return On(frame, "", 1);
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) =>
        [new("unlock", "Unlock it", _ => new ChangeFrames { FrameIds = [finding.Part.Id], Locked = false })];
}
