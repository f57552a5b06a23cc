using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class LinkMissing : KindCheck
{
    public override FindingKind Kind => FindingKind.LinkMissing;
    public override string Title => "Linked file missing";
    public override string Mark => "file missing";
    public override string Why => "Only a small preview is left of the picture, and no press can print from that.";

    internal override IEnumerable<Finding> OfFrame(CheckedFrame frame)
    {
        if (frame.Image is not { } image || frame.In.Facts.Of(image) != LinkState.Missing) yield break;
        yield return On(image.Key, image.Name, "The file is no longer where it was read.", 1) with { Places = [frame.Place] };
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) => [Remedy.OfFile(FileRemedy.Find, "Find the file")];
}
