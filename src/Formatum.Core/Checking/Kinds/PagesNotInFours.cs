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

    /// <summary>A sheet that is folded once has so many pages.</summary>
    private const int Fold = 4;

    /// <summary>Whether a number of pages is told. Single leaves are not stitched.</summary>
    internal static bool IsFound(Setup setup, int pages) => setup.Facing && pages > 2 && pages % Fold != 0;

    internal override IEnumerable<Finding> OfWhole(CheckedWhole whole)
    {
        int pages = whole.Publication.PageCount, over = pages % Fold;
        if (!IsFound(whole.Publication.Setup, pages)) yield break;
        int last = whole.Publication.Order.Ids[^1];
        var setup = whole.Publication.Setup;
        yield return On(whole.Publication.Order.Key, "Pages", "", Fold - over, new Figure("Pages", pages, pages + Fold - over, FigureUnit.Count)) with
        {
            Places = [new(last, null, new Box(0, 0, setup.PageWidth, setup.PageHeight))],
        };
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding)
    {
        if (context.Publication.PageCount % Fold is not (> 0 and var now)) yield break;
        yield return new("addPages", $"Add {Fold - now} blank {(Fold - now == 1 ? "page" : "pages")} at the end",
            publication => publication.PageCount % Fold is > 0 and var over
                ? new AddPages(publication.PageCount + 1, Fold - over, publication.Pages[publication.Order.Ids[^1]].MasterId) : null);
    }
}
