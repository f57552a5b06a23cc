using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class PictureTwice : KindCheck
{
    public override FindingKind Kind => FindingKind.PictureTwice;
    public override string Title => "Same picture on several pages";
    public override string Why => "Readers notice a picture they have seen already.";

    internal override IEnumerable<Finding> OfWhole(CheckedWhole whole)
    {
        if (!whole.Showings.Values.Any(count => count > 1)) yield break;
        var places = whole.Publication.PageFrames.Where(f => f.ImageId is { } id && !f.Hidden && whole.Showings.GetValueOrDefault(id) > 1)
            .OrderBy(f => whole.Publication.Order.IndexOf(f.PageId)).ThenBy(f => f.Id).ToLookup(f => f.ImageId!.Value);
        foreach (var shown in places.OrderBy(p => p.Key))
        {
            int pages = shown.DistinctBy(f => f.PageId).Count();
            if (pages < 2) continue;
            var image = whole.Publication.Images[shown.Key];
            yield return On(image.Key, image.Name, "", pages, new Figure("Pages", pages, 1, FigureUnit.Count)) with
            {
                Places = [.. shown.Select(f => new FindingPlace(f.PageId, f.Id, f.Pose.Bounds))],
            };
        }
    }
}
