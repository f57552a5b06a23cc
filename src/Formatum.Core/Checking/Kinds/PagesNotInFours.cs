using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class PagesNotInFours : KindCheck
{
    public override FindingKind Kind => FindingKind.PagesNotInFours;
    public override string Title => "Pages not a multiple of four";
    public override string Mark => "pages";
    public override string Why => "A sheet that is folded once has four pages: a stitched booklet cannot have others.";

    internal override IEnumerable<Finding> OfWhole(CheckedWhole whole)
    {
        int pages = whole.Publication.PageCount, over = pages % 4;
        // Single leaves are not stitched.
        if (!whole.Publication.Setup.Facing || pages <= 2 || over == 0) yield break;
        int last = whole.Publication.Order.Ids[^1];
        var setup = whole.Publication.Setup;
        yield return On(whole.Publication.Order.Key, "Pages", "", 4 - over, new Figure("Pages", pages, pages + 4 - over, FigureUnit.Count)) with
        {
            Places = [new(last, null, new Box(0, 0, setup.PageWidth, setup.PageHeight))],
        };
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) =>
    [
        new("addPages", "Add pages to a multiple of four", publication => publication.PageCount % 4 is > 0 and var over
            ? new AddPages(publication.PageCount + 1, 4 - over, publication.Pages[publication.Order.Ids[^1]].MasterId) : null),
    ];
}
