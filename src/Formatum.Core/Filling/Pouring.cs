using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Filling;

/// <summary>Which picture goes into which placeholder.</summary>
public enum PourOrder
{
    /// <summary>The first into the first, and so on.</summary>
    Tray,
    /// <summary>Those for which least is cropped or left bare, and which are sharp enough.</summary>
    Best,
    /// <summary>Those whose file has the name of the frame.</summary>
    Name,
}

/// <summary>An image, and the placeholder it is to go into.</summary>
public readonly record struct Pairing(int FrameId, int ImageId);

/// <summary>Finds which picture goes into which placeholder.</summary>
public static class Pouring
{
    /// <summary>So many may be matched at once; beyond, the table of what each pairing costs would not fit into memory.</summary>
    public const int MostMatched = 5000;

    /// <param name="publication">The publication.</param>
    /// <param name="images">The images in the order of the tray.</param>
    /// <param name="frames">The placeholders in reading order.</param>
    /// <param name="order">How to match them.</param>
    public static ImmutableArray<Pairing> Plan(Publication publication, IReadOnlyList<LinkedImage> images, IReadOnlyList<Frame> frames, PourOrder order)
    {
        if (order == PourOrder.Name) return ByName(images, frames);
        if (order == PourOrder.Tray || images.Count == 0 || frames.Count == 0)
            return [.. frames.Zip(images, (frame, image) => new Pairing(frame.Id, image.Id))];
        if (Math.Max(images.Count, frames.Count) > MostMatched)
            throw new EditRefused("order", $"Best match takes up to {MostMatched} pictures and placeholders at once. Pour fewer, or in the order of the tray.");

        // Pictures of one size into frames of one size and fit cost the same: each is worked out once.
        var imageKinds = new Kinds<LinkedImage, ImageKind>(images, i => new(i.Picture(publication.Setup.AssumedPpi), i.Subject));
        var frameKinds = new Kinds<Frame, FrameKind>(frames, f => new(f.Box.Width, f.Box.Height, publication.ShapeOf(f), publication.FitOf(f)));
        var kindCosts = new double[frameKinds.Count, imageKinds.Count];
        Parallel.For(0, frameKinds.Count, f =>
        {
            for (int i = 0; i < imageKinds.Count; i++) kindCosts[f, i] = Cost(publication.Setup, frameKinds.Kind(f), imageKinds.Kind(i));
        });
        var costs = new double[frames.Count, images.Count];
        for (int f = 0; f < frames.Count; f++)
            for (int i = 0; i < images.Count; i++) costs[f, i] = kindCosts[frameKinds.Of(f), imageKinds.Of(i)];
        return InOrder(Assignment.Solve(costs).ColumnOf, images, frames, imageKinds);
    }

    private static ImmutableArray<Pairing> ByName(IReadOnlyList<LinkedImage> images, IReadOnlyList<Frame> frames)
    {
        var names = new ImageNames(images);
        var taken = new HashSet<int>();
        return [.. frames.Where(f => f.Name.Length > 0).Select(f => (f.Id, Image: names.Find(f.Name))).Where(p => p.Image is { } image && taken.Add(image))
            .Select(p => new Pairing(p.Id, p.Image!.Value))];
    }

    /// <summary>
    /// What is wrong with a picture in a placeholder: the shares cropped away and left bare, and for one that falls below the smallest resolution
    /// (its rule's, else the publication's floor) 1 and the share by which it does.
    /// </summary>
    public static double Cost(Setup setup, in PictureFit fit)
    {
        var coverage = Fitted.Measure(fit.Width, fit.Height, fit.Outline, fit.Picture, fit.Place(Recrop.None), fit.Rule, false).Coverage;
        double smallest = fit.Rule.SmallestPpi > 0 ? fit.Rule.SmallestPpi : setup.FloorPpi;
        return coverage.CropLoss + coverage.BareArea + (!Resolutions.Reaches(coverage.Ppi, smallest) ? 2 - coverage.Ppi / smallest : 0);
    }

    private static double Cost(Setup setup, FrameKind frame, ImageKind image)
    {
        var (natural, subject) = image;
        return Cost(setup, new PictureFit(frame.Width, frame.Height, frame.Outline, natural, frame.Fit, subject));
    }

    private readonly record struct ImageKind(Picture Picture, Vec? Subject);

    private readonly record struct FrameKind(double Width, double Height, Outline Outline, ResolvedFit Fit);

    /// <summary>Pictures that are alike come in the order of the tray: which of them goes where costs the same.</summary>
    private static ImmutableArray<Pairing> InOrder(int[] imageOf, IReadOnlyList<LinkedImage> images, IReadOnlyList<Frame> frames, Kinds<LinkedImage,
        ImageKind> kinds)
    {
        var waiting = new Dictionary<int, Queue<int>>();
        for (int i = 0; i < images.Count; i++)
        {
            if (!waiting.TryGetValue(kinds.Of(i), out var queue)) waiting[kinds.Of(i)] = queue = new();
            queue.Enqueue(i);
        }
        var plan = ImmutableArray.CreateBuilder<Pairing>();
        for (int f = 0; f < frames.Count; f++)
            if (imageOf[f] >= 0) plan.Add(new(frames[f].Id, images[waiting[kinds.Of(imageOf[f])].Dequeue()].Id));
        return plan.ToImmutable();
    }

    /// <summary>Things sorted by what they have in common.</summary>
    private sealed class Kinds<TItem, TKind> where TKind : notnull
    {
        private readonly Dictionary<TKind, int> _index = [];
        private readonly List<TKind> _kinds = [];
        private readonly int[] _of;

        public Kinds(IReadOnlyList<TItem> items, Func<TItem, TKind> kind)
        {
            _of = [.. items.Select(item =>
            {
                var k = kind(item);
                if (_index.TryGetValue(k, out int at)) return at;
                _kinds.Add(k);
                return _index[k] = _kinds.Count - 1;
            })];
        }

        public int Count => _kinds.Count;

        public TKind Kind(int index) => _kinds[index];

        public int Of(int item) => _of[item];
    }
}
