using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Comparing;

/// <summary>
/// What is otherwise in one publication than in another that it came from: two moments of a history, or an edition and the one before it. Parts are the same
/// where they bear the same id, which both keep.
/// </summary>
/// <param name="Before">The one that is compared with.</param>
/// <param name="After">The one that is looked at.</param>
/// <param name="Differences">In the order of the pages.</param>
public sealed record Comparison(Publication Before, Publication After, ImmutableArray<Difference> Differences)
{
    /// <summary>What differs by less, in points, lies at the same place.</summary>
    private const double Same = 0.01;

    /// <summary>The pages on which something differs, by their ids: in the order of the one that is looked at, those that went at the end.</summary>
    public ImmutableArray<int> Pages => [.. Differences.SelectMany(d => new[] { d.After?.PageId, d.Before?.PageId }).OfType<int>().Distinct()
        .OrderBy(PlaceOf).ThenBy(id => id)];

    /// <summary>What differs on a page, before or after.</summary>
    public IEnumerable<Difference> On(int pageId) => Differences.Where(d => d.After?.PageId == pageId || d.Before?.PageId == pageId);

    /// <summary>A publication on the press of another: how inks look otherwise there is told once, of the set-up.</summary>
    private static Publication OnPressOf(Publication before, Publication after) => before.Setup.Press == after.Setup.Press ? before
        : before.With(new Changes([new(before.Setup.Key, before.Setup, before.Setup with { Press = after.Setup.Press })]));

    private int PlaceOf(int pageId) => After.Order.IndexOf(pageId) is >= 0 and var at ? at : After.Pages.ContainsKey(pageId) ? -1 : int.MaxValue;

    public static Comparison Of(Publication before, Publication after)
    {
        var alike = OnPressOf(before, after);
        var found = SetUp(before, after).Concat(PagesBetween(before, after)).Concat(Frames(alike, after)).Concat(Stories(alike, after)).ToList();
        var made = new Comparison(before, after, []);
        return made with
        {
            Differences = [.. found.OrderBy(d => d.After is { } now ? made.PlaceOf(now.PageId) : d.Before is { } was ? made.PlaceOf(was.PageId) : -2)
                .ThenBy(d => d.Part.Kind).ThenBy(d => d.Part.Id).ThenBy(d => d.Kind)],
        };
    }

    private static IEnumerable<Difference> SetUp(Publication before, Publication after)
    {
        // What it is called is no change of it.
        var was = before.Setup with { Name = after.Setup.Name, Edition = after.Setup.Edition };
        if (was == after.Setup) yield break;
        string size = was.PageWidth != after.Setup.PageWidth || was.PageHeight != after.Setup.PageHeight
            ? $"Pages were {Size(was)}, and are {Size(after.Setup)}." : "";
        yield return new(DifferenceKind.SetUp, after.Setup.Key, "Set-up", size, null, null);
    }

    private static string Size(Setup setup) => $"{Units.Text(setup.PageWidth, setup.Unit)} x {Units.Text(setup.PageHeight, setup.Unit)}";

    private static IEnumerable<Difference> PagesBetween(Publication before, Publication after)
    {
        static Box Whole(Publication p) => new(0, 0, p.Setup.PageWidth, p.Setup.PageHeight);
        static string Named(Publication p, int id) => p.WordsOf(id) is var words ? char.ToUpperInvariant(words[0]) + words[1..] : "";
        foreach (int id in after.Order.Ids.Where(id => before.Order.IndexOf(id) < 0))
            yield return new(DifferenceKind.PageCame, new(PartKind.Page, id), Named(after, id), "", null, new(id, Whole(after)));
        foreach (int id in before.Order.Ids.Where(id => after.Order.IndexOf(id) < 0))
            yield return new(DifferenceKind.PageWent, new(PartKind.Page, id), Named(before, id), "", new(id, Whole(before)), null);
        // What others that came or went push on has not moved: only the order among those that stayed tells.
        var stayed = after.Order.Ids.Where(id => before.Order.IndexOf(id) >= 0).ToList();
        var kept = InOrder(stayed.Select(before.Order.IndexOf).ToList());
        for (int i = 0; i < stayed.Count; i++)
            if (!kept[i])
                yield return new(DifferenceKind.PageMoved, new(PartKind.Page, stayed[i]), Named(after, stayed[i]), $"It was {before.WordsOf(stayed[i])}.",
                    new(stayed[i], Whole(before)), new(stayed[i], Whole(after)));
    }

    /// <summary>For each of some places whether it is one of the longest run that grows: those stayed in their order.</summary>
    private static bool[] InOrder(List<int> places)
    {
        int[] length = new int[places.Count], from = new int[places.Count];
        int best = -1;
        for (int i = 0; i < places.Count; i++)
        {
            (length[i], from[i]) = (1, -1);
            for (int j = 0; j < i; j++)
                if (places[j] < places[i] && length[j] + 1 > length[i]) (length[i], from[i]) = (length[j] + 1, j);
            if (best < 0 || length[i] > length[best]) best = i;
        }
        bool[] kept = new bool[places.Count];
        for (int i = best; i >= 0; i = from[i]) kept[i] = true;
        return kept;
    }

    private static IEnumerable<Difference> Frames(Publication before, Publication after)
    {
        static ComparedPlace At(Frame frame) => new(frame.PageId, frame.Pose.Bounds);
        foreach (var now in after.Frames.Values)
            if (!before.Frames.TryGetValue(now.Id, out var was)) yield return new(DifferenceKind.FrameCame, now.Key, now.Label, "", null, At(now));
            else
            {
                foreach (var (kind, detail) in Between(before, was, after, now)) yield return new(kind, now.Key, now.Label, detail, At(was), At(now));
            }
        foreach (var was in before.Frames.Values.Where(f => !after.Frames.ContainsKey(f.Id)))
            yield return new(DifferenceKind.FrameWent, was.Key, was.Label, "", At(was), null);
    }

    private static IEnumerable<(DifferenceKind Kind, string Detail)> Between(Publication before, Frame was, Publication after, Frame now)
    {
        var unit = after.Setup.Unit;
        if (was.PageId != now.PageId && before.Pages.ContainsKey(was.PageId))
            yield return (DifferenceKind.Moved, $"From {before.WordsOf(was.PageId)} to {after.WordsOf(now.PageId)}.");
        else if (Apart(was.Box.Centre, now.Box.Centre) && !Resized(was.Box, now.Box))
            yield return (DifferenceKind.Moved, DifferenceText.Moved(now.Box.Centre - was.Box.Centre, unit, Same));
        if (Resized(was.Box, now.Box))
            yield return (DifferenceKind.Sized, $"From {Units.Text(was.Box.Width, unit)} x {Units.Text(was.Box.Height, unit)} to "
                + $"{Units.Text(now.Box.Width, unit)} x {Units.Text(now.Box.Height, unit)}.");
        if (was.Angle != now.Angle)
            yield return (DifferenceKind.Turned, string.Create(CultureInfo.InvariantCulture, $"From {was.Angle:0.##}° to {now.Angle:0.##}°."));
        if (was.Outline != now.Outline) yield return (DifferenceKind.Outline, "");
        if (was.Hidden != now.Hidden) yield return (DifferenceKind.Hidden, now.Hidden ? "It is hidden now." : "It is shown now.");
        string? pictureWas = before.ImageOf(was)?.ContentHash, pictureNow = after.ImageOf(now)?.ContentHash;
        if (pictureWas != pictureNow)
            yield return (DifferenceKind.Picture, $"{before.ImageOf(was)?.Name ?? "No picture"}, then {after.ImageOf(now)?.Name ?? "no picture"}.");
        else if (pictureNow is not null && !Resized(was.Box, now.Box) && before.PlacementOf(was)?.Matrix != after.PlacementOf(now)?.Matrix)
            yield return (DifferenceKind.Crop, "");
        if (before.LookOf(was).Recoloured(before.ColourOf) != after.LookOf(now).Recoloured(after.ColourOf)) yield return (DifferenceKind.Look, "");
    }

    private static bool Apart(Vec p, Vec q) => (p - q).Length > Same;

    private static bool Resized(Box was, Box now) => Math.Abs(was.Width - now.Width) > Same || Math.Abs(was.Height - now.Height) > Same;

    /// <summary>Words are told once for a story, at its first frame.</summary>
    private static IEnumerable<Difference> Stories(Publication before, Publication after)
    {
        foreach (var now in after.Stories.Values)
        {
            if (!before.Stories.TryGetValue(now.Id, out var was) || !before.Frames.TryGetValue(was.FrameIds[0], out var first)
                || !after.Frames.TryGetValue(now.FrameIds[0], out var frame)) continue;
            ComparedPlace wasAt = new(first.PageId, first.Pose.Bounds), isAt = new(frame.PageId, frame.Pose.Bounds);
            if (was.Text.Plain != now.Text.Plain)
                yield return new(DifferenceKind.Words, now.Key, frame.Label, WordsBetween(was.Text.Plain, now.Text.Plain), wasAt, isAt);
            else if (TextCascade.Styled(before, was.Text) != TextCascade.Styled(after, now.Text))
                yield return new(DifferenceKind.Setting, now.Key, frame.Label, "", wasAt, isAt);
        }
    }

    private static string WordsBetween(string was, string now)
    {
        static List<string> Words(string text) => [.. text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)];
        var counts = Words(was).CountBy(w => w).ToDictionary();
        int came = 0;
        foreach (string word in Words(now))
            if (counts.TryGetValue(word, out int left) && left > 0) counts[word] = left - 1;
            else came++;
        int went = counts.Values.Sum();
        return (came, went) switch
        {
            (0, 0) => "The same words, in another order or with other blanks.",
            (_, 0) => $"{DifferenceText.Words(came)} came.",
            (0, _) => $"{DifferenceText.Words(went)} went.",
            _ => $"{DifferenceText.Words(came)} came, {DifferenceText.Words(went)} went.",
        };
    }
}
