using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class LinkMissing : LinkStands
{
    public override FindingKind Kind => FindingKind.LinkMissing;
    public override string Title => "Linked file missing";
    public override string Mark => "file missing";
    public override string Why => "Only a small preview is left of the picture, and no press can print from that.";
    protected override LinkState State => LinkState.Missing;
    protected override string Detail => "The file is no longer where it was read.";
    protected override Remedy Remedy => Remedy.OfFile(FileRemedy.Find, "Find the file");
}
