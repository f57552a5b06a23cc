using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class LinkChanged : LinkStands
{
    public override FindingKind Kind => FindingKind.LinkChanged;
    public override string Title => "Linked file changed";
    public override string Mark => "file changed";
    public override string Why => "The pages show what the file held when it was read, and printing takes what it holds now.";
    protected override LinkState State => LinkState.Changed;
    protected override string Detail => "The file holds something else than when it was read.";
    protected override Remedy Remedy => Remedy.OfFile(FileRemedy.Update, "Update from the file");
}
