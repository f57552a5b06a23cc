using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class PictureTwice : KindCheck
{
    public override FindingKind Kind => FindingKind.PictureTwice;
    public override string Title => "Same picture on several pages";
    public override string Mark => "on several pages";
    public override string Why => "Readers notice a picture they have seen already.";

    internal override IEnumerable<Finding> OfWhole(CheckedWhole whole)
    {
        var places = new Dictionary<int, List<FindingPlace>>();
        foreach (var frame in whole.Frames)
        {
            if (frame.ImageId is not { } id) continue;
            if (!places.TryGetValue(id, out var known)) places[id] = known = [];
            known.Add(frame.Place);
        }
        foreach (var (id, shown) in places)
        {
            // Frames of one page come one after the other.
            int pages = 1;
            for (int i = 1; i < shown.Count; i++) if (shown[i].PageId != shown[i - 1].PageId) pages++;
            if (pages < 2) continue;
            var image = whole.Publication.Images[id];
            yield return On(image.Key, image.Name, "", pages, new Figure("Pages", pages, 1, FigureUnit.Count)) with { Places = [.. shown] };
        }
    }
}
