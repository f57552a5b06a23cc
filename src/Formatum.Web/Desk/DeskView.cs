using System.Globalization;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
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

    /// <summary>The stretch of the one chosen text that is meant while it is typed in; null for all of it.</summary>
    public TextRange? Range { get; init; }

    /// <summary>Reads a stretch as the Desk sends it: "12-40"; null where it is none.</summary>
    public static TextRange? RangeOf(string? text) => text?.Split('-') is [var from, var to] && int.TryParse(from, CultureInfo.InvariantCulture, out int begin)
        && int.TryParse(to, CultureInfo.InvariantCulture, out int end) && begin <= end ? new(begin, end) : null;

    /// <summary>Whether this is shown in place of another spread, and not with the page.</summary>
    public bool Turns { get; init; }

    /// <summary>What to tell of how it came to be shown; empty for nothing.</summary>
    public string Told { get; init; } = "";

    /// <summary>How many images the contact sheet shows already.</summary>
    public int ImagesShown { get; init; }

    public int SpreadCount => Spread.CountOf(Publication);

    /// <summary>The number of the spread before this one, or of the master before; null where this is the first.</summary>
    public int? Before => Spread.Master is null ? (Spread.Number > 1 ? Spread.Number - 1 : null) : Spread.Number < -1 ? Spread.Number + 1 : null;

    /// <summary>The number of the spread after this one, or of the master after; null where this is the last.</summary>
    public int? After => Spread.Master is null ? (Spread.Number < SpreadCount ? Spread.Number + 1 : null) : Spread.Number > -Publication.Masters.Count
        ? Spread.Number - 1 : null;

    /// <param name="standing">The publication.</param>
    /// <param name="spreadNumber">The spread, from 1, or below 0 for that of a master; the nearest where there is none of that number.</param>
    /// <param name="frames">Ids of chosen frames, with commas between.</param>
    /// <param name="inside">Whether to go into the picture of the one that is chosen.</param>
    public static DeskView Of(Standing standing, int spreadNumber, string? frames = null, bool inside = false)
    {
        var publication = standing.Publication;
        var spread = Spread.At(publication, Spread.IndexOfNumber(publication, spreadNumber));
        var chosen = Ids(frames).Select(id => publication.Frames.GetValueOrDefault(id)).OfType<Frame>().Where(f => spread.Pages.Any(p => p.Page.Id == f.PageId))
            .ToList();
        return new(standing, spread, chosen, inside && chosen is [{ ImageId: not null }]);
    }

    /// <summary>Changes where pages or masters came, went or changed places, or the set-up did: what the Desk is made of then is made anew.</summary>
    public string Shape
    {
        get
        {
            var hash = new System.IO.Hashing.XxHash64();
            void Add(string text) => hash.Append(System.Text.Encoding.UTF8.GetBytes(text));
            Add(PartJson.Write(Publication.Setup));
            Add(PartJson.Write(Publication.Order));
            foreach (var master in Publication.Masters.Values) Add(PartJson.Write(master));
            foreach (int id in Publication.Order.Ids) Add($"{Publication.Pages[id].MasterId},");
            return hash.GetCurrentHashAsUInt64().ToString("x", CultureInfo.InvariantCulture);
        }
    }

    /// <summary>What the page's script has to know when it shows this anew.</summary>
    public string Head() => System.Text.Json.JsonSerializer.Serialize(new
    {
        revision = Standing.Revision,
        spread = Spread.Number,
        shape = Shape,
        fonts = Fonts,
        told = Told
    });

    /// <summary>Changes with the fonts that the publication brought itself.</summary>
    private string Fonts => string.Join(',', Publication.Fonts.Values.OrderBy(f => f.Id).Select(f => f.ContentHash[..8]));

    /// <summary>Reads ids with commas between; what is no id is passed over.</summary>
    public static IEnumerable<int> Ids(string? text) =>
        (text ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries).Select(t => int.TryParse(t, NumberStyles.None, CultureInfo.InvariantCulture, out int id)
            ? id : 0).Where(id => id > 0).Distinct();
}

/// <summary>A picture whose subject point is set.</summary>
/// <param name="Image">The picture.</param>
/// <param name="Setup">Of the publication that shows it.</param>
public sealed record SubjectView(LinkedImage Image, Setup Setup);

/// <summary>An image in the contact sheet.</summary>
/// <param name="Image">The image.</param>
/// <param name="Publication">Its publication.</param>
/// <param name="Placed">In how many frames it is placed.</param>
/// <param name="Swap">Whether it is sent to take the place of the one shown.</param>
public sealed record SheetItem(LinkedImage Image, Publication Publication, int Placed, bool Swap = false);

/// <summary>The history, as one maker sees it.</summary>
public sealed record HistoryView(IReadOnlyList<HistoryEntry> Entries, Maker Maker);

/// <summary>The answer to an edit: the inspector, and every piece of the Desk that the edit changed.</summary>
/// <param name="View">The Desk after it.</param>
/// <param name="Outcome">What it came to.</param>
/// <param name="FromHistory">Whether it takes something back or does it again, wherever that lies.</param>
public sealed record DeskAnswer(DeskView View, EditOutcome Outcome, bool FromHistory = false)
{
    /// <summary>The spread to go to, where all of what was taken back or done again lies on others; null to stay.</summary>
    public int? GoesTo
    {
        get
        {
            if (!FromHistory || Touched.PageOf(Publication, Outcome.Changes) is not { } page) return null;
            bool here = Outcome.Changes.Items.Any(c => View.Spread.Pages.Any(p => p.Page.Id == ((c.After ?? c.Before) switch
            {
                Frame f => f.PageId,
                Page p2 => p2.Id,
                Story s => Publication.Frames.GetValueOrDefault(s.FrameIds[0])?.PageId ?? 0,
                _ => 0
            })));
            return here ? null : Spread.NumberOfPage(Publication, page);
        }
    }

    /// <summary>What the page's script has to know besides the pieces: as JSON in plain ASCII, for a header.</summary>
    public string Head() => System.Text.Json.JsonSerializer.Serialize(new
    {
        revision = Outcome.Standing.Revision,
        before = Outcome.Changes.IsEmpty ? Outcome.Standing.Revision : Outcome.Standing.Revision - 1,
        stale = Outcome.WasMade,
        reload = MovesPages(Outcome),
        goesTo = GoesTo,
        told = FromHistory ? Told : "",
    });

    /// <summary>What to tell where the page goes elsewhere: "Undo move frame: Picture 3, page 5".</summary>
    public string Told => Outcome.Touched.Length == 0 ? Outcome.Words : $"{Outcome.Words}: {Outcome.Touched}";

    public Publication Publication => Outcome.Standing.Publication;

    private IEnumerable<Change> FrameChanges => Outcome.Changes.Items.Where(c => c.Key.Kind == PartKind.Frame);

    private IEnumerable<Change> ImageChanges => Outcome.Changes.Items.Where(c => c.Key.Kind == PartKind.Image);

    /// <summary>Whether frames came, went or changed places in the stack, or everything may look different: then all are sent anew.</summary>
    public bool AllFrames => Outcome.Changes.Items.Any(c => c.Key.Kind is PartKind.Setup or PartKind.PageOrder or PartKind.Rule
        || (c.Key.Kind == PartKind.Frame && (c.Before is not Frame before || c.After is not Frame after || before.Depth != after.Depth
            || before.PageId != after.PageId || before.Hidden != after.Hidden)));

    /// <summary>The frames of the spread that changed, or whose images did, or whose text flows otherwise, where only they did.</summary>
    public IEnumerable<string> Frames()
    {
        var changed = FrameChanges.Select(c => c.Key.Id).ToHashSet();
        changed.UnionWith(Outcome.Changes.Items.SelectMany(c => (c.Before as Story)?.FrameIds ?? []));
        changed.UnionWith(Outcome.Changes.Items.SelectMany(c => (c.After as Story)?.FrameIds ?? []));
        var images = ImageChanges.Select(c => c.Key.Id).ToHashSet();
        changed.UnionWith([.. Publication.ChainsOf(changed)]);
        bool flows = FrameChanges.Any(c => c.Before is Frame { Wrap: not null } || c.After is Frame { Wrap: not null })
            || Publication.WrappedFrames.Any(f => f.ImageId is { } pictured && images.Contains(pictured));
        // What stands elsewhere is told in contents, running heads and the pages a text goes on to.
        bool Follows(Frame frame) => Publication.StoryOf(frame)?.Text.FollowsOthers() == true;
        return View.Spread.FramesOf(Publication).Where(f => !f.Frame.Hidden).Where(f => changed.Contains(f.Frame.Id) || Follows(f.Frame)
            || (flows && f.Frame.IsText)
            || (f.Frame.ImageId is { } image && images.Contains(image)))
            .Select(f => SpreadView.Frame(Publication, f.Frame, f.Box));
    }

    /// <summary>The images of which a frame let go or took hold.</summary>
    public IEnumerable<SheetItem> Images()
    {
        if (WholeSheet) return [];
        var touched = FrameChanges.Where(c => (c.Before as Frame)?.ImageId != (c.After as Frame)?.ImageId)
            .SelectMany(c => new[] { (c.Before as Frame)?.ImageId, (c.After as Frame)?.ImageId }).OfType<int>().Distinct().ToList();
        if (touched.Count == 0) return [];
        var counts = Publication.PlacedCounts;
        return touched.Where(Publication.Images.ContainsKey).Select(id => new SheetItem(Publication.Images[id], Publication, counts.GetValueOrDefault(id),
            Swap: true));
    }

    /// <summary>Whether pages or masters came, went or changed places, pages came to another master, or the set-up changed: the Desk is then made
    /// anew.</summary>
    public static bool MovesPages(EditOutcome outcome) => outcome.Changes.Items.Any(c => c.Key.Kind is PartKind.Setup or PartKind.PageOrder or PartKind.Master
        || (c.Key.Kind == PartKind.Page && (c.Before as Page)?.MasterId != (c.After as Page)?.MasterId));

    /// <summary>Whether something is printed on the spread that stands on a master.</summary>
    public bool HasMasters => View.Spread.Pages.Any(p => p.Page.MasterId is not null);

    public bool TrayChanged => Outcome.Changes.Items.Any(c => c.Key.Kind is PartKind.Tray or PartKind.Image
        || (c.Before as Frame)?.ImageId != (c.After as Frame)?.ImageId);

    /// <summary>Whether images came, went or changed.</summary>
    public bool WholeSheet => ImageChanges.Any();
}
