using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class LinkChanged : KindCheck
{
    public override FindingKind Kind => FindingKind.LinkChanged;
    public override string Title => "Linked file changed";
    public override string Mark => "file changed";
    public override string Why => "The pages show what the file held when it was read, and printing takes what it holds now.";

    internal override IEnumerable<Finding> OfFrame(CheckedFrame frame)
    {
        if (frame.Image is not { } image || frame.In.Facts.Of(image) != LinkState.Changed) yield break;
        yield return On(image.Key, image.Name, "The file holds something else than when it was read.", 1) with { Places = [frame.Place] };
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) => [Remedy.OfFile(FileRemedy.Update, "Update from the file")];
}
