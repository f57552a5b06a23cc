using System.Collections.Immutable;
using Formatum.Core.Geometry;

namespace Formatum.Core.Imposing;

/// <summary>A page where it lies on a sheet.</summary>
/// <param name="Page">Where it stands in the publication, from 1; null for a blank one that the fold asks for.</param>
/// <param name="Cell">What is cut and folded out for it, in points from the upper left of the sheet.</param>
/// <param name="Trim">Its trim: in a booklet nearer to the fold than what is cut out, the farther within it lies.</param>
/// <param name="Shown">What is printed of it and its bleed.</param>
public sealed record ImposedPage(int? Page, Box Cell, Box Trim, Box Shown);

/// <summary>One side of a sheet.</summary>
/// <param name="Sheet">Which, from 1.</param>
/// <param name="IsBack">Whether it is the back.</param>
/// <param name="Width">Of the sheet, in points.</param>
/// <param name="Height">Of the sheet, in points.</param>
/// <param name="Pages">The pages on it, row by row.</param>
/// <param name="Folds">Where it is folded, in points from the left.</param>
public sealed record SheetSide(int Sheet, bool IsBack, double Width, double Height, ImmutableArray<ImposedPage> Pages, ImmutableArray<double> Folds)
{
    /// <summary>All that is cut and folded out of it.</summary>
    public Box Block => Pages.Select(p => p.Cell).Aggregate((a, b) => a.Union(b));
}
