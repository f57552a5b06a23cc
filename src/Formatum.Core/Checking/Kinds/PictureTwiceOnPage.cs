using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class PictureTwiceOnPage : KindCheck
{
    public override FindingKind Kind => FindingKind.PictureTwiceOnPage;
    public override string Title => "Same picture twice on a page";
    public override string Mark => "twice on the page";
    public override string Why => "One of them may have been meant to be another.";

    internal override IEnumerable<Finding> OfSpread(CheckedSpread spread)
    {
        foreach (var page in spread.Spread.Pages)
            foreach (var twice in spread.Publication.FramesOnPage(page.Page.Id).Where(f => f.ImageId is not null && !f.Hidden)
                .GroupBy(f => f.ImageId!.Value).Where(g => g.Count() > 1))
            {
                var image = spread.Publication.Images[twice.Key];
                yield return On(image.Key, image.Name, "", twice.Count(), new Figure("On one page", twice.Count(), 1, FigureUnit.Times)) with
                {
                    Places = [.. twice.Select(f => new FindingPlace(f.PageId, f.Id, f.Pose.Bounds))],
                };
            }
    }
}
