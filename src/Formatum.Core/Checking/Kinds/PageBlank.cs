using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class PageBlank : KindCheck
{
    public override FindingKind Kind => FindingKind.PageBlank;
    public override string Title => "Page blank";
    public override string Mark => "blank";
    public override string Why => "Nothing is printed on it.";

    internal override IEnumerable<Finding> OfSpread(CheckedSpread spread)
    {
        if (spread.Spread.Master is not null) yield break;
        var publication = spread.Publication;
        bool Prints(Frame f) => !f.Hidden && (!publication.IsEmpty(f) || publication.LookOf(f).Prints);
        foreach (var page in spread.Spread.Pages)
        {
            bool ofMaster = publication.MasterPageOf(page.Page.Id) is { } master
                && publication.FramesOnPage(master).Any(f => !publication.IsEmpty(f) && Prints(f));
            if (ofMaster || publication.FramesOnPage(page.Page.Id).Any(Prints)) continue;
            // Called by its number only where it is shown: that changes with the pages before it.
            yield return On(new(PartKind.Page, page.Page.Id), "", "", 1) with
            {
                Places = [new(page.Page.Id, null, new Box(0, 0, page.Trim.Width, page.Trim.Height))],
            };
        }
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) =>
    [
        new("removePage", "Remove the page", publication => publication.Order.IndexOf(finding.Part.Id) is >= 0 and var at && publication.PageCount > 1
            ? new RemovePages([at + 1]) : null),
    ];
}
