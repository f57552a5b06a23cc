using System.Collections.Immutable;
using Formatum.Core.Arranging;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Filling;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Web.Desk.Commands;

/// <summary>Which placeholders pictures are poured into.</summary>
public enum PourInto { Chosen, Page, Spread, Range, Publication, Grid, Here, Tray }

/// <summary>Which pages are copied until the tray is empty.</summary>
public enum PourLayout { None, Page, Spread }

/// <summary>Where pictures go that have just come in: the tray, a frame of its own where one was dropped, a grid of new frames, or the empty
/// placeholders.</summary>
public sealed record Arrive : TrayGesture, IUnderHand
{
    /// <summary>So many pictures are drawn where many would be placed.</summary>
    private const int MostShown = 60;

    public PourInto Into { get; init; } = PourInto.Publication;
    public PourOrder Order { get; init; }
    public double ToX { get; init; }
    public double ToY { get; init; }

    /// <summary>The rule of new frames; null for the publication's own.</summary>
    public int? Rule { get; init; }

    public override Edit ToEdit(Ground ground) => Into switch
    {
        PourInto.Tray => new ChangeTray(ImageIds, TrayMove.Add),
        PourInto.Grid => Grid(ground),
        PourInto.Here => Here(ground),
        _ => new ArriveImages { ImageIds = ImageIds, FrameIds = [.. OpenPlaceholders(ground, FrameIds).Select(f => f.Id)], Order = Order },
    };

    private MakeFrame Here(Ground ground)
    {
        var image = ground.Image(ImageIds.Length == 1 ? ImageIds[0] : null);
        return SetDownPicture.Made(ground, image, SetDownPicture.About(ground, image.Picture(ground.Setup.AssumedPpi), new(ToX, ToY)));
    }

    private MakeFrames Grid(Ground ground)
    {
        var area = ground.TypeArea(ground.Spread.PageAt(new(ToX, ToY)), new(ToX, ToY));
        var shown = ImageIds.Select(id => ground.Publication.Images.GetValueOrDefault(id)).OfType<LinkedImage>().Take(MakeFrames.Most).ToList();
        if (shown.Count == 0) throw new EditRefused("images", "No picture came in. Bring some in first.");
        double ratio = Math.Exp(shown.Average(i => Math.Log((double)i.WidthPx / i.HeightPx)));
        var grid = FrameGrid.For(shown.Count, area, ratio, ground.Setup.Columns.Gutter);
        return new(ground.Spread.Index, [.. grid.Fill(area).Take(shown.Count)], Outline.Rectangle, Rule) { ImageIds = [.. shown.Select(i => i.Id)] };
    }

    /// <summary>The empty placeholders that are chosen; where none is, those of the spread.</summary>
    public static ImmutableArray<Frame> OpenPlaceholders(Ground ground, IEnumerable<int> chosen)
    {
        static bool Open(Frame frame) => frame is { IsPlaceholder: true, Hidden: false };
        var (publication, spread) = ground;
        ImmutableArray<Frame> meant = [.. chosen.Select(id => publication.Frames.GetValueOrDefault(id)).OfType<Frame>().Where(Open)];
        return meant.IsEmpty && spread.Master is null ? [.. spread.Pages.SelectMany(p => publication.FramesOnPage(p.Page.Id)).Where(Open)] : meant;
    }

    /// <summary>Every picture where it would be placed on this spread.</summary>
    public UnderWay UnderWay(Ground ground, bool inside)
    {
        if (Into == PourInto.Tray) return Desk.UnderWay.Nothing with { Preview = "" };
        var changes = ToEdit(ground).On(ground.Publication);
        var after = ground.Publication.With(changes);
        var touched = changes.Items.Where(c => c.Key.Kind == PartKind.Frame).Select(c => c.Key.Id).ToHashSet();
        var drawn = Spread.At(after, ground.Spread.Index).FramesOf(after).Where(f => touched.Contains(f.Frame.Id) && f.Frame.ImageId is not null)
            .Take(MostShown);
        return Desk.UnderWay.Nothing with { Preview = string.Concat(drawn.Select((f, i) => SpreadView.Preview(after, f.Frame, f.Box, $"arriving{i}-"))) };
    }
}

/// <summary>The pour that is asked for, of all that waits in the tray: a form of its own, shown as a proposal before it is taken.</summary>
public sealed record PourForm
{
    /// <summary>Ids of the frames that were chosen, with commas between.</summary>
    public string? Frames { get; init; }

    public PourInto Into { get; init; } = PourInto.Publication;

    /// <summary>The page to fill, or the first and the last.</summary>
    public int? FirstPage { get; init; }
    public int? LastPage { get; init; }

    public PourOrder Order { get; init; }
    public PourLayout Layout { get; init; }
    public bool RemoveLeftovers { get; init; }

    /// <exception cref="EditRefused">It cannot be poured there.</exception>
    public PourImages ToEdit(Ground ground)
    {
        var (publication, spread) = ground;
        if (spread.Master is not null)
            throw new EditRefused("into", "Pictures are poured into pages; on a master, each would be the same on all. Open a spread of the publication, " +
                "and pour there.");
        var layoutPage = spread.Pages.FirstOrDefault(p => p.Number == FirstPage) ?? spread.Pages.FirstOrDefault(p => publication.FramesOnPage(p.Page.Id)
            .Any(f => !f.IsText)) ?? spread.Pages[0];
        return new()
        {
            ImageIds = publication.Tray.ImageIds,
            FrameIds = [.. Target(ground).Select(f => f.Id)],
            Order = Order,
            LayoutPages = Layout switch { PourLayout.Page => [layoutPage.Number], PourLayout.Spread => [.. spread.Pages.Select(p => p.Number)], _ => [] },
            RemoveLeftovers = RemoveLeftovers,
        };
    }

    private IEnumerable<Frame> Target(Ground ground)
    {
        var (publication, spread) = ground;
        int only = FirstPage ?? spread.Pages[0].Number;
        return Into switch
        {
            PourInto.Chosen => ground.Frames([.. DeskView.Ids(Frames)]),
            PourInto.Page => OnPages(publication, only, only),
            PourInto.Spread => spread.Pages.SelectMany(p => publication.FramesOnPage(p.Page.Id)),
            PourInto.Range => OnPages(publication, FirstPage ?? 1, LastPage ?? publication.PageCount),
            _ => publication.PageFrames,
        };
    }

    private static IEnumerable<Frame> OnPages(Publication publication, int first, int last)
    {
        if (first < 1 || last > publication.PageCount || first > last)
            throw new EditRefused("pages", $"There are no pages {first} to {last}; the publication has pages 1 to {publication.PageCount}.");
        return publication.Order.Ids.Skip(first - 1).Take(last - first + 1).SelectMany(publication.FramesOnPage);
    }
}
