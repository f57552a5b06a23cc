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
        // What belongs to one page may lie on the one beside it.
        Box[] printed =
        [
            .. spread.Spread.FramesOf(publication).Where(f => Prints(f.Frame)).Select(f => (f.Frame.Pose with { Box = f.Box }).Bounds),
            .. spread.Spread.Pages.SelectMany(page => publication.MasterPageOf(page.Page.Id) is not { } master ? []
                : publication.FramesOnPage(master).Where(f => !publication.IsEmpty(f) && Prints(f)).Select(f => f.Pose.Bounds.Moved(page.Trim.X, page.Trim.Y))),
        ];
        foreach (var page in spread.Spread.Pages)
        {
            if (printed.Any(box => box.Overlaps(page.Trim))) continue;
            // Called by its number only where it is shown: that changes with the pages before it.
            yield return On(new(PartKind.Page, page.Page.Id), "", "", 1) with
            {
                Places = [new(page.Page.Id, null, new Box(0, 0, page.Trim.Width, page.Trim.Height))],
            };
        }
    }

    /// <summary>Where a page less would be told as a page too few, it is no remedy.</summary>
    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding)
    {
        var now = context.Publication;
        if (context.Profile.SeverityOf(FindingKind.PagesNotInFours) != Severity.Off && PagesNotInFours.IsFound(now.Setup, now.PageCount - 1)
            && !PagesNotInFours.IsFound(now.Setup, now.PageCount)) yield break;
        yield return new("removePage", "Remove the page", publication => publication.Order.IndexOf(finding.Part.Id) is >= 0 and var at
            && publication.PageCount > 1
            ? new RemovePages([at + 1]) : null);
    }
}
