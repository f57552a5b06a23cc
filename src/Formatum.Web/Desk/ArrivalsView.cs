using System.Collections.Immutable;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Web.Desk.Commands;

namespace Formatum.Web.Desk;

/// <summary>Where pictures that have just come in may go.</summary>
/// <param name="Images">How many there are.</param>
/// <param name="Open">How many empty placeholders they may go into.</param>
/// <param name="OfSelection">Whether those are the ones that are chosen, rather than those of the spread.</param>
/// <param name="PageWords">The page a grid of new frames would be made on.</param>
public sealed record ArrivalsView(int Images, int Open, bool OfSelection, string PageWords)
{
    public static ArrivalsView Of(DeskView view, ImmutableArray<int> images, Vec at)
    {
        var open = Arrive.OpenPlaceholders(new(view.Publication, view.Spread), view.Chosen.Select(f => f.Id));
        return new(images.Count(view.Publication.Images.ContainsKey), open.Length, open.Any(f => view.Chosen.Contains(f)), view.Spread.PageAt(at).Words);
    }
}
