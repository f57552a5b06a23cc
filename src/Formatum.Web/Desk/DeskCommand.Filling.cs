using System.Collections.Immutable;
using Formatum.Core.Arranging;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Filling;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Web.Desk;

/// <summary>Which placeholders pictures are poured into.</summary>
public enum PourInto { Chosen, Page, Spread, Range, Publication, Grid, Tray }

/// <summary>Which pages are copied until the tray is empty.</summary>
public enum PourLayout { None, Page, Spread }

/// <summary>The tray, pouring, pictures replaced and swapped.</summary>
public sealed partial record DeskCommand
{
    /// <summary>Ids of images, with commas between.</summary>
    public string? Images { get; init; }

    /// <summary>For the tray: the image before which others come; null for the end.</summary>
    public int? Before { get; init; }

    public PourInto Into { get; init; } = PourInto.Publication;
    public int? FirstPage { get; init; }
    public int? LastPage { get; init; }
    public PourOrder Order { get; init; }
    public PourLayout Layout { get; init; }
    public bool RemoveLeftovers { get; init; }

    private ImmutableArray<int> ImageIds => [.. DeskView.Ids(Images)];

    private Edit? Fill(Publication publication, Spread spread) => Do switch
    {
        "tray-add" => new ChangeTray(ImageIds, TrayMove.Add),
        "tray-add-unplaced" => new ChangeTray([.. publication.UnplacedImages], TrayMove.Add),
        "tray-remove" => new ChangeTray(ImageIds, TrayMove.Remove),
        "tray-clear" => new ChangeTray(publication.Tray.ImageIds, TrayMove.Remove),
        "tray-reorder" => new ChangeTray(ImageIds, TrayMove.Reorder, Before),
        "tray-place" => new PlaceFromTray(Only(publication).Id, Image ?? throw new EditRefused("image", "Take up a picture of the tray.")),
        "pour" => Pour(publication, spread),
        "arrive" => Arrive(publication, spread),
        "send-back" => new ReplaceImages([.. Filled(publication).Select(f => (f.Id, (int?)null))], true, "Send back to tray"),
        "swap" => Filled(publication) is [var one, var two]
            ? new ReplaceImages([(one.Id, two.ImageId), (two.Id, one.ImageId)], false, "Swap images")
            : throw new EditRefused("frame", "Swapping takes two frames with pictures. Choose two."),
        "replace-everywhere" => ReplaceEverywhere(publication),
        _ => null,
    };

    /// <summary>The empty placeholders that are chosen; where none is, those of the spread.</summary>
    public static ImmutableArray<Frame> OpenPlaceholders(Publication publication, Spread spread, IEnumerable<int> chosen)
    {
        static bool Open(Frame frame) => frame is { IsPlaceholder: true, Hidden: false };
        ImmutableArray<Frame> meant = [.. chosen.Select(id => publication.Frames.GetValueOrDefault(id)).OfType<Frame>().Where(Open)];
        return meant.IsEmpty && spread.Master is null ? [.. spread.Pages.SelectMany(p => publication.FramesOnPage(p.Page.Id)).Where(Open)] : meant;
    }

    /// <summary>Where pictures go that have just come in.</summary>
    private Edit Arrive(Publication publication, Spread spread)
    {
        switch (Into)
        {
            case PourInto.Tray: return new ChangeTray(ImageIds, TrayMove.Add);
            case PourInto.Grid:
                var page = spread.PageAt(To);
                var area = publication.Setup.TypeArea(page.Recto).Moved(page.Trim.X, page.Trim.Y);
                var shown = ImageIds.Select(id => publication.Images.GetValueOrDefault(id)).OfType<LinkedImage>().Take(MakeFrames.Most).ToList();
                if (shown.Count == 0) throw new EditRefused("images", "No picture came in. Bring some in first.");
                double ratio = Math.Exp(shown.Average(i => Math.Log((double)i.WidthPx / i.HeightPx)));
                var grid = FrameGrid.For(shown.Count, area, ratio, publication.Setup.Columns.Gutter);
                return new MakeFrames(spread.Index, [.. grid.Fill(area).Take(shown.Count)], Core.Geometry.Outline.Rectangle,
                    Rule)
                { ImageIds = [.. shown.Select(i => i.Id)] };
            default:
                return new ArriveImages
                {
                    ImageIds = ImageIds,
                    FrameIds = [.. OpenPlaceholders(publication, spread, FrameIds).Select(f => f.Id)],
                    Order = Order
                };
        }
    }

    private ImmutableArray<Frame> Filled(Publication publication)
    {
        ImmutableArray<Frame> filled = [.. FramesOf(publication).Where(f => f.ImageId is not null)];
        return filled.IsEmpty ? throw new EditRefused("frame", "No frame with a picture is chosen. Choose one first.") : filled;
    }

    /// <summary>Every frame that shows the picture of the chosen one comes to show another.</summary>
    private ReplaceImages ReplaceEverywhere(Publication publication)
    {
        int was = Filled(publication)[0].ImageId!.Value, now = Image ?? throw new EditRefused("image", "Choose the picture that takes its place.");
        return new([.. publication.Frames.Values.Where(f => f.ImageId == was).OrderBy(f => f.Id).Select(f => (f.Id, (int?)now))], false,
            "Replace image everywhere");
    }

    /// <summary>The pour that is asked for, of all that waits in the tray.</summary>
    public PourImages Pour(Publication publication, Spread spread)
    {
        if (spread.Master is not null)
            throw new EditRefused("into", "Pictures are poured into pages; on a master, each would be the same on all. Open a spread of the publication, " +
                "and pour there.");
        var frames = Into switch
        {
            PourInto.Chosen => FramesOf(publication),
            PourInto.Page => OnPages(publication, FirstPage ?? spread.Pages[0].Number, FirstPage ?? spread.Pages[0].Number),
            PourInto.Spread => spread.Pages.SelectMany(p => publication.FramesOnPage(p.Page.Id)),
            PourInto.Range => OnPages(publication, FirstPage ?? 1, LastPage ?? publication.PageCount),
            _ => publication.PageFrames,
        };
        var layoutPage = spread.Pages.FirstOrDefault(p => p.Number == FirstPage) ?? spread.Pages.FirstOrDefault(p => publication.FramesOnPage(p.Page.Id)
            .Any(f => !f.IsText)) ?? spread.Pages[0];
        return new()
        {
            ImageIds = publication.Tray.ImageIds,
            FrameIds = [.. frames.Select(f => f.Id)],
            Order = Order,
            LayoutPages = Layout switch { PourLayout.Page => [layoutPage.Number], PourLayout.Spread => [.. spread.Pages.Select(p => p.Number)], _ => [] },
            RemoveLeftovers = RemoveLeftovers,
        };
    }

    private static IEnumerable<Frame> OnPages(Publication publication, int first, int last)
    {
        if (first < 1 || last > publication.PageCount || first > last)
            throw new EditRefused("pages", $"There are no pages {first} to {last}; the publication has pages 1 to {publication.PageCount}.");
        return publication.Order.Ids.Skip(first - 1).Take(last - first + 1).SelectMany(publication.FramesOnPage);
    }
}
