using System.Globalization;
using Formatum.Core.Geometry;

namespace Formatum.Core.Comparing;

/// <summary>What is otherwise on one page of a file than on another.</summary>
/// <param name="was">The page made before, from 0.</param>
/// <param name="before">What is on it.</param>
/// <param name="now">The page now, from 0.</param>
/// <param name="after">What is on it.</param>
/// <param name="unit">In which lengths are told.</param>
internal sealed class PageComparison(int was, PageContents before, int now, PageContents after, LengthUnit unit)
{
    public IEnumerable<FileDifference> All()
    {
        if (!before.IsSizedAs(after))
            yield return new(DifferenceKind.Sized, "The page", Sizes(new(0, 0, before.Width, before.Height), new(0, 0, after.Width, after.Height)),
                Was(new(0, 0, before.Width, before.Height)), Now(new(0, 0, after.Width, after.Height)));
        foreach (var difference in new WordsComparison(before.Words, after.Words, unit).All())
            yield return new(difference.Kind, difference.Subject, difference.Detail, Was(difference.Before), Now(difference.After));
        foreach (var difference in Pictures()) yield return difference;
        if (Drawn() is { } drawn) yield return drawn;
    }

    private FilePlace? Was(Box? box) => box is { } at ? new(was, at) : null;

    private FilePlace? Now(Box? box) => box is { } at ? new(now, at) : null;

    private string Sizes(Box was, Box now) => $"From {Size(was)} to {Size(now)}.";

    private string Size(Box box) =>
        $"{Units.Text(DifferenceText.Roughly(box.Width, unit), unit)} x {Units.Text(DifferenceText.Roughly(box.Height, unit), unit)}";

    /// <summary>First those at the same place are set against each other, then those that look the same, then those that lie over each other.</summary>
    private IEnumerable<FileDifference> Pictures()
    {
        List<PlacedPicture> gone = [.. before.Pictures], come = [.. after.Pictures];
        foreach (var (old, @new) in Taken(gone, come, (p, q) => NearBoxes.AreSame(p.Box, q.Box)))
            if (!LooksAs(old, @new)) yield return Of(DifferenceKind.Picture, old, @new, "");
        foreach (var (old, @new) in Taken(gone, come, LooksAs).Concat(Taken(gone, come, (p, q) => p.Box.Intersect(q.Box).Area > p.Box.Union(q.Box).Area / 2)))
        {
            bool sized = Math.Abs(old.Box.Width - @new.Box.Width) > NearBoxes.Near || Math.Abs(old.Box.Height - @new.Box.Height) > NearBoxes.Near;
            yield return Of(!LooksAs(old, @new) ? DifferenceKind.Picture : sized ? DifferenceKind.Sized : DifferenceKind.Moved, old, @new,
                sized ? Sizes(old.Box, @new.Box) : DifferenceText.Moved(DifferenceText.Roughly(@new.Box.Centre - old.Box.Centre, unit), unit, 0));
        }
        foreach (var old in gone) yield return new(DifferenceKind.FrameWent, "A picture", "", Was(old.Box), null);
        foreach (var @new in come) yield return new(DifferenceKind.FrameCame, "A picture", "", null, Now(@new.Box));
    }

    private FileDifference Of(DifferenceKind kind, PlacedPicture old, PlacedPicture @new, string detail) =>
        new(kind, "A picture", detail, Was(old.Box), Now(@new.Box));

    /// <summary>Pairs of pictures that belong together, which are taken out of both lists.</summary>
    private static List<(PlacedPicture Old, PlacedPicture New)> Taken(List<PlacedPicture> gone, List<PlacedPicture> come,
        Func<PlacedPicture, PlacedPicture, bool> together)
    {
        var pairs = new List<(PlacedPicture, PlacedPicture)>();
        foreach (var old in gone.ToList())
        {
            if (come.FirstOrDefault(c => together(old, c)) is not { } @new) continue;
            pairs.Add((old, @new));
            gone.Remove(old);
            come.Remove(@new);
        }
        return pairs;
    }

    /// <summary>Whether two pictures show the same: their greys rise and fall together, whatever was done to colours and sharpness.</summary>
    private static bool LooksAs(PlacedPicture p, PlacedPicture q)
    {
        // The correlation of what is nearly flat is that of noise.
        const double Together = 0.9, Flat = 3;
        if (p.Greys.Length != q.Greys.Length || p.Greys.IsEmpty) return p.Greys.Length == q.Greys.Length;
        double meanP = p.Greys.Average(g => (double)g), meanQ = q.Greys.Average(g => (double)g), both = 0, squareP = 0, squareQ = 0;
        for (int i = 0; i < p.Greys.Length; i++)
        {
            double a = p.Greys[i] - meanP, b = q.Greys[i] - meanQ;
            (both, squareP, squareQ) = (both + a * b, squareP + a * a, squareQ + b * b);
        }
        double flat = Flat * Flat * p.Greys.Length;
        if (squareP < flat || squareQ < flat) return squareP < flat && squareQ < flat && Math.Abs(meanP - meanQ) < 40;
        return both / Math.Sqrt(squareP * squareQ) > Together;
    }

    private FileDifference? Drawn()
    {
        var gone = new NearBoxes();
        foreach (var box in before.Drawn) gone.Add(0, box);
        Box[] come = [.. after.Drawn.Where(box => gone.Take(box) is null)], went = [.. gone.Left.Select(b => b.Box)];
        if (come.Length == 0 && went.Length == 0) return null;
        static Box? Around(Box[] boxes) => boxes.Length == 0 ? null : boxes.Aggregate((p, q) => p.Union(q));
        string words = string.Join(", ", new[] { (come.Length, "came"), (went.Length, "went") }.Where(c => c.Item1 > 0)
            .Select(c => string.Create(CultureInfo.InvariantCulture, $"{c.Item1} {c.Item2}")));
        return new(DifferenceKind.Drawn, "Lines and areas", $"{words}.", Was(Around(went)), Now(Around(come)));
    }
}
