using System.Collections.Immutable;
using Formatum.Core.Geometry;

namespace Formatum.Core.Publications;

/// <summary>A page where it lies on its spread.</summary>
/// <param name="Page">The page.</param>
/// <param name="Number">Where it stands in the publication, from 1; below 0 for a page of a master, as <see cref="Publication.NumberOf"/> gives it.</param>
/// <param name="Folio">The page number it bears; 0 for a page of a master.</param>
/// <param name="Trim">Its trim, in points from the upper left of the spread's trim.</param>
/// <param name="Recto">Whether it is a right-hand page.</param>
public sealed record PlacedPage(Page Page, int Number, int Folio, Box Trim, bool Recto)
{
    /// <summary>What it is called in the middle of a sentence.</summary>
    public string Words => Folio > 0 ? $"page {Folio}" : $"the {(Recto ? "right" : "left")}-hand page";
}

/// <summary>What lies open: one page, or two facing pages, from left to right.</summary>
/// <param name="Index">Which spread, from 0; -1, -2 ... for that of the first master, the second ...</param>
/// <param name="Pages">Its pages.</param>
/// <param name="Master">The master whose pages these are; null for pages of the publication.</param>
public sealed record Spread(int Index, ImmutableArray<PlacedPage> Pages, MasterPage? Master = null)
{
    /// <summary>The number it is called by: from 1, and below 0 for that of a master.</summary>
    public int Number => Index < 0 ? Index : Index + 1;

    /// <summary>The number of the spread that a page lies on.</summary>
    public static int NumberOfPage(Publication publication, int pageId) => IndexOfPage(publication, publication.NumberOf(pageId)) is var index && index < 0
        ? index : index + 1;

    /// <summary>The index of a spread that is called by a number, the nearest where there is none of that number.</summary>
    public static int IndexOfNumber(Publication publication, int number) =>
        number < 0 && !publication.Masters.IsEmpty ? Math.Max(number, -publication.Masters.Count) : Math.Clamp(number, 1, CountOf(publication)) - 1;

    /// <summary>How far from the left edge of its spread's trim a page begins, in points.</summary>
    public static double AcrossOf(Publication publication, int pageId) =>
        At(publication, IndexOfPage(publication, publication.NumberOf(pageId))).Pages.First(p => p.Page.Id == pageId).Trim.X;

    public Box Trim => Pages[0].Trim.Union(Pages[^1].Trim);

    /// <summary>The page a point of the spread belongs to: the one it lies on, or the nearest.</summary>
    public PlacedPage PageAt(Vec point) => Pages.Length == 1 || point.X < Pages[1].Trim.X ? Pages[0] : Pages[1];

    /// <summary>The page numbers it bears, in reading order.</summary>
    public string Folios => Master is { } master ? master.Name : string.Join('\u2013', Pages.Select(p => p.Folio).Order());

    public string Label => Master is not null ? $"Master {Folios}" : (Pages.Length == 1 ? "Page " : "Pages ") + Folios;

    /// <summary>
    /// How many spreads the publication has. Facing pages bear odd numbers on the side the reader comes to first when turning a leaf, so the first
    /// page stands alone where its number is odd.
    /// </summary>
    public static int CountOf(Publication publication) => publication.Setup.Facing ? (publication.PageCount + FirstAlone(publication) + 1) / 2
        : publication.PageCount;

    /// <summary>The index of the spread that a page lies on, by the number it is called by.</summary>
    public static int IndexOfPage(Publication publication, int number) => number < 0 ? (number - 1) / 2 : publication.Setup.Facing
        ? (number - 1 + FirstAlone(publication)) / 2 : number - 1;

    private static int FirstAlone(Publication publication) => publication.Setup.FirstFolio & 1;

    /// <param name="publication">The publication.</param>
    /// <param name="index">Which spread, from 0; below 0 for those of masters.</param>
    /// <exception cref="ArgumentOutOfRangeException">There is no such spread.</exception>
    public static Spread At(Publication publication, int index)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(index, -publication.Masters.Count);
        ArgumentOutOfRangeException.ThrowIfGreaterThanOrEqual(index, CountOf(publication));
        var setup = publication.Setup;
        if (index < 0) return OfMaster(publication, index, publication.Masters.Values.ElementAt(-1 - index));
        int alone = FirstAlone(publication), first = setup.Facing ? Math.Max(0, 2 * index - alone) : index;
        int count = setup.Facing ? Math.Min(publication.PageCount, 2 * index - alone + 2) - first : 1;
        var pages = ImmutableArray.CreateBuilder<PlacedPage>(count);
        for (int place = 0; place < count; place++)
        {
            int i = first + (setup.BindsRight ? count - 1 - place : place);
            int folio = setup.FirstFolio + i;
            pages.Add(new(publication.Pages[publication.Order.Ids[i]], i + 1, folio, new(place * setup.PageWidth, 0, setup.PageWidth, setup.PageHeight),
                setup.IsRecto(folio)));
        }
        return new(index, pages.MoveToImmutable());
    }

    private static Spread OfMaster(Publication publication, int index, MasterPage master)
    {
        var setup = publication.Setup;
        PlacedPage Placed(bool recto, int place)
        {
            int id = master.Side(recto);
            return new(publication.Pages[id], publication.NumberOf(id), 0, new(place * setup.PageWidth, 0, setup.PageWidth, setup.PageHeight), recto);
        }
        return new(index, setup.Facing ? [Placed(false, 0), Placed(true, 1)] : [Placed(true, 0)], master);
    }

    /// <summary>The frames that keep to the spread's pages, from the lowest to the topmost, each with its box in the spread's points.</summary>
    public ImmutableArray<(Frame Frame, Box Box)> FramesOf(Publication publication) =>
    [
        .. Pages.SelectMany(p => publication.FramesOnPage(p.Page.Id).Select(f => (Frame: f, Box: f.Box.Moved(p.Trim.X, p.Trim.Y))))
            .OrderBy(f => f.Frame.Depth).ThenBy(f => f.Frame.Id),
    ];
}
