using System.Collections.Immutable;
using Formatum.Core.Geometry;

namespace Formatum.Core.Publications;

/// <summary>A page where it lies on its spread.</summary>
/// <param name="Page">The page.</param>
/// <param name="Number">Where it stands in the publication, from 1.</param>
/// <param name="Folio">The page number it bears.</param>
/// <param name="Trim">Its trim, in points from the upper left of the spread's trim.</param>
/// <param name="Recto">Whether it is a right-hand page.</param>
public sealed record PlacedPage(Page Page, int Number, int Folio, Box Trim, bool Recto);

/// <summary>What lies open: one page, or two facing pages, from left to right.</summary>
public sealed record Spread(int Index, ImmutableArray<PlacedPage> Pages)
{
    public Box Trim => Pages[0].Trim.Union(Pages[^1].Trim);

    /// <summary>The page a point of the spread belongs to: the one it lies on, or the nearest.</summary>
    public PlacedPage PageAt(Vec point) => Pages.Length == 1 || point.X < Pages[1].Trim.X ? Pages[0] : Pages[1];

    /// <summary>The page numbers it bears, in reading order.</summary>
    public string Folios => string.Join('\u2013', Pages.Select(p => p.Folio).Order());

    public string Label => (Pages.Length == 1 ? "Page " : "Pages ") + Folios;

    /// <summary>
    /// How many spreads the publication has. Facing pages bear odd numbers on the side the reader comes to first when turning a leaf, so the first
    /// page stands alone where its number is odd.
    /// </summary>
    public static int CountOf(Publication publication) => publication.Setup.Facing ? (publication.PageCount + FirstAlone(publication) + 1) / 2 : publication.PageCount;

    /// <summary>The index, from 0, of the spread that a page number (from 1) lies on.</summary>
    public static int IndexOfPage(Publication publication, int number) => publication.Setup.Facing ? (number - 1 + FirstAlone(publication)) / 2 : number - 1;

    private static int FirstAlone(Publication publication) => publication.Setup.FirstFolio & 1;

    /// <param name="publication">The publication.</param>
    /// <param name="index">Which spread, from 0.</param>
    /// <exception cref="ArgumentOutOfRangeException">There is no such spread.</exception>
    public static Spread At(Publication publication, int index)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(index);
        ArgumentOutOfRangeException.ThrowIfGreaterThanOrEqual(index, CountOf(publication));
        var setup = publication.Setup;
        int alone = FirstAlone(publication), first = setup.Facing ? Math.Max(0, 2 * index - alone) : index;
        int count = setup.Facing ? Math.Min(publication.PageCount, 2 * index - alone + 2) - first : 1;
        var pages = ImmutableArray.CreateBuilder<PlacedPage>(count);
        for (int place = 0; place < count; place++)
        {
            int i = first + (setup.BindsRight ? count - 1 - place : place);
            int folio = setup.FirstFolio + i;
            pages.Add(new(publication.Pages[publication.Order.Ids[i]], i + 1, folio, new(place * setup.PageWidth, 0, setup.PageWidth, setup.PageHeight), setup.IsRecto(folio)));
        }
        return new(index, pages.MoveToImmutable());
    }

    /// <summary>The frames that keep to the spread's pages, from the lowest to the topmost, each with its box in the spread's points.</summary>
    public ImmutableArray<(Frame Frame, Box Box)> FramesOf(Publication publication) =>
    [
        .. Pages.SelectMany(p => publication.FramesOnPage(p.Page.Id).Select(f => (Frame: f, Box: f.Box.Moved(p.Trim.X, p.Trim.Y))))
            .OrderBy(f => f.Frame.Depth).ThenBy(f => f.Frame.Id),
    ];
}
