namespace Formatum.Core.Publications;

/// <summary>A guide on a page or across a spread: nothing prints, things catch on it.</summary>
/// <param name="Upright">Whether it runs from top to bottom.</param>
/// <param name="At">Its x where it is upright, else its y, in points from the upper left of its page's trim.</param>
/// <param name="AcrossSpread">Whether a level guide runs over both pages of the spread.</param>
public readonly record struct PageGuide(bool Upright, double At, bool AcrossSpread = false);

/// <summary>A guide where it lies on a spread, in the spread's points.</summary>
/// <param name="PageNumber">The page it belongs to, from 1.</param>
/// <param name="Index">Which of that page's guides it is, from 0.</param>
public readonly record struct Guide(bool Upright, double At, bool AcrossSpread, int PageNumber, int Index)
{
    public static IEnumerable<Guide> On(Publication publication, Spread spread) =>
        from page in spread.Pages
        from i in Enumerable.Range(0, page.Page.Guides.Length)
        let guide = page.Page.Guides[i]
        select new Guide(guide.Upright, guide.At + (guide.Upright ? page.Trim.X : page.Trim.Y), guide.AcrossSpread, page.Number, i);
}
