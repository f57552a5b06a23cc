using System.Globalization;
using Formatum.Core.Publications;
using Formatum.Storage;

namespace Formatum.Web.Desk;

/// <summary>What the Desk shows: one spread of a publication, and perhaps frames chosen on it.</summary>
/// <param name="Standing">The publication as it stands.</param>
/// <param name="Spread">The spread.</param>
/// <param name="Chosen">The frames chosen on it.</param>
/// <param name="Inside">Whether somebody has gone into the picture of the one chosen frame.</param>
public sealed record DeskView(Standing Standing, Spread Spread, IReadOnlyList<Frame> Chosen, bool Inside = false)
{
    public Publication Publication => Standing.Publication;

    public int SpreadCount => Spread.CountOf(Publication);

    /// <summary>The number of the spread before this one, or of the master before; null where this is the first.</summary>
    public int? Before => Spread.Master is null ? (Spread.Number > 1 ? Spread.Number - 1 : null) : Spread.Number < -1 ? Spread.Number + 1 : null;

    /// <summary>The number of the spread after this one, or of the master after; null where this is the last.</summary>
    public int? After => Spread.Master is null ? (Spread.Number < SpreadCount ? Spread.Number + 1 : null) : Spread.Number > -Publication.Masters.Count ? Spread.Number - 1 : null;

    /// <param name="standing">The publication.</param>
    /// <param name="spreadNumber">The spread, from 1, or below 0 for that of a master; the nearest where there is none of that number.</param>
    /// <param name="frames">Ids of chosen frames, with commas between.</param>
    /// <param name="inside">Whether to go into the picture of the one that is chosen.</param>
    public static DeskView Of(Standing standing, int spreadNumber, string? frames = null, bool inside = false)
    {
        var publication = standing.Publication;
        var spread = Spread.At(publication, Spread.IndexOfNumber(publication, spreadNumber));
        var chosen = Ids(frames).Select(id => publication.Frames.GetValueOrDefault(id)).OfType<Frame>().Where(f => spread.Pages.Any(p => p.Page.Id == f.PageId)).ToList();
        return new(standing, spread, chosen, inside && chosen is [{ ImageId: not null }]);
    }

    /// <summary>Reads ids with commas between; what is no id is passed over.</summary>
    public static IEnumerable<int> Ids(string? text) =>
        (text ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries).Select(t => int.TryParse(t, NumberStyles.None, CultureInfo.InvariantCulture, out int id) ? id : 0).Where(id => id > 0).Distinct();

    /// <summary>In how many frames each image is placed.</summary>
    public static IReadOnlyDictionary<int, int> PlacedCounts(Publication publication) =>
        publication.Frames.Values.Where(f => f.ImageId is not null).GroupBy(f => f.ImageId!.Value).ToDictionary(g => g.Key, g => g.Count());
}

/// <summary>An image in the contact sheet.</summary>
/// <param name="Image">The image.</param>
/// <param name="Publication">Its publication.</param>
/// <param name="Placed">In how many frames it is placed.</param>
/// <param name="Swap">Whether it is sent to take the place of the one shown.</param>
public sealed record SheetItem(LinkedImage Image, Publication Publication, int Placed, bool Swap = false);

/// <summary>The answer to an edit: the inspector, and every piece of the Desk that the edit changed.</summary>
public sealed record DeskAnswer(DeskView View, EditOutcome Outcome)
{
    public Publication Publication => Outcome.Standing.Publication;

    private IEnumerable<Change> FrameChanges => Outcome.Changes.Items.Where(c => c.Key.Kind == PartKind.Frame);

    private IEnumerable<Change> ImageChanges => Outcome.Changes.Items.Where(c => c.Key.Kind == PartKind.Image);

    /// <summary>Whether frames came, went or changed places in the stack, or everything may look different: then all are sent anew.</summary>
    public bool AllFrames => Outcome.Changes.Items.Any(c => c.Key.Kind is PartKind.Setup or PartKind.PageOrder or PartKind.Rule
        || (c.Key.Kind == PartKind.Frame && (c.Before is not Frame before || c.After is not Frame after || before.Depth != after.Depth || before.PageId != after.PageId || before.Hidden != after.Hidden)));

    /// <summary>The frames of the spread that changed, or whose images did, where only they did.</summary>
    public IEnumerable<string> Frames()
    {
        var changed = FrameChanges.Select(c => c.Key.Id).ToHashSet();
        var images = ImageChanges.Select(c => c.Key.Id).ToHashSet();
        return View.Spread.FramesOf(Publication).Where(f => !f.Frame.Hidden).Where(f => changed.Contains(f.Frame.Id) || (f.Frame.ImageId is { } image && images.Contains(image)))
            .Select(f => SpreadView.Frame(Publication, f.Frame, f.Box));
    }

    /// <summary>The images of which a frame let go or took hold.</summary>
    public IEnumerable<SheetItem> Images()
    {
        if (WholeSheet) return [];
        var touched = FrameChanges.Where(c => (c.Before as Frame)?.ImageId != (c.After as Frame)?.ImageId)
            .SelectMany(c => new[] { (c.Before as Frame)?.ImageId, (c.After as Frame)?.ImageId }).OfType<int>().Distinct().ToList();
        if (touched.Count == 0) return [];
        var counts = DeskView.PlacedCounts(Publication);
        return touched.Where(Publication.Images.ContainsKey).Select(id => new SheetItem(Publication.Images[id], Publication, counts.GetValueOrDefault(id), Swap: true));
    }

    /// <summary>Whether pages or masters came, went or changed places, pages came to another master, or the set-up changed: the Desk is then made anew.</summary>
    public static bool MovesPages(EditOutcome outcome) => outcome.Changes.Items.Any(c => c.Key.Kind is PartKind.Setup or PartKind.PageOrder or PartKind.Master
        || (c.Key.Kind == PartKind.Page && (c.Before as Page)?.MasterId != (c.After as Page)?.MasterId));

    /// <summary>Whether something is printed on the spread that stands on a master.</summary>
    public bool HasMasters => View.Spread.Pages.Any(p => p.Page.MasterId is not null);

    public bool TrayChanged => Outcome.Changes.Items.Any(c => c.Key.Kind is PartKind.Tray or PartKind.Image
        || (c.Before as Frame)?.ImageId != (c.After as Frame)?.ImageId);

    /// <summary>Whether images came, went or changed.</summary>
    public bool WholeSheet => ImageChanges.Any();
}
