using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>What an edit was done to, for the history and for whoever has to find it again.</summary>
public static class Touched
{
    /// <summary>In words: "Picture 3, page 5", "12 frames, pages 2 to 4", "Rule Product shot"; empty where nothing can be named.</summary>
    public static string Words(Publication before, Publication after, Changes changes)
    {
        var frames = changes.Items.Where(c => c.Key.Kind == PartKind.Frame).Select(c => (Frame)(c.After ?? c.Before)!).ToList();
        if (frames.Count == 0) frames = [.. changes.Items.Select(c => HeadOf(after, c)).OfType<Frame>()];
        var others = changes.Items.Where(c => c.Key.Kind is PartKind.Rule or PartKind.Image or PartKind.Master or PartKind.Font or PartKind.Colour
            or PartKind.Recipe or PartKind.CheckProfile).ToList();
        if (others.Count > 0 && (others.Count < frames.Count || others[0].Key.Kind == PartKind.Rule || frames.Count == 0)) return NameOthers(others);
        if (frames.Count == 0) return "";
        string what = frames is [var one] ? one.Label : $"{frames.Count} frames";
        string where = PagesOf(before, after, frames);
        return where.Length == 0 ? what : $"{what}, {where}";
    }

    /// <summary>The page, by its id, of the first frame that an edit touched and that is still there; null where it touched none.</summary>
    public static int? PageOf(Publication after, Changes changes) => changes.Items
        .Select(c => c.Key.Kind == PartKind.Frame ? ((Frame)(c.After ?? c.Before)!).PageId : c.Key.Kind == PartKind.Page ? c.Key.Id
            : HeadOf(after, c)?.PageId ?? 0)
        .Where(after.Pages.ContainsKey).Select(id => (int?)id).FirstOrDefault();

    /// <summary>The first frame of a story that was changed.</summary>
    private static Frame? HeadOf(Publication after, Change change) =>
        (change.After ?? change.Before) is Story story ? after.Frames.GetValueOrDefault(story.FrameIds[0]) : null;

    private static string NameOthers(List<Change> changed)
    {
        if (changed.Count > 1) return $"{changed.Count} {PartKinds.Of(changed[0].Key.Kind).Noun}s";
        return (changed[0].After ?? changed[0].Before) switch
        {
            FittingRule rule => $"rule {rule.Name}",
            LinkedImage image => image.Name,
            MasterPage master => $"master {master.Name}",
            PaletteColour colour => $"colour {colour.Name}",
            Recipe recipe => $"recipe {recipe.Name}",
            CheckProfile profile => $"check profile {profile.Name}",
            OwnFont font => $"{font.Family} {font.Face.ToLowerInvariant()}",
            _ => "",
        };
    }

    private static string PagesOf(Publication before, Publication after, List<Frame> frames)
    {
        var numbers = frames.Select(f => f.PageId).Distinct().Select(id => (Id: id, In: after.Pages.ContainsKey(id) ? after : before)).ToList();
        if (numbers is [var (id, publication)]) return publication.WordsOf(id);
        var pages = numbers.Where(n => n.In.Order.IndexOf(n.Id) >= 0).Select(n => n.In.Setup.FirstFolio + n.In.Order.IndexOf(n.Id)).Order().ToList();
        return pages.Count == 0 ? "masters" : $"pages {pages[0]} to {pages[^1]}";
    }
}
