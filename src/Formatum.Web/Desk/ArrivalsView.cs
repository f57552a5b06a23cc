using System.Collections.Immutable;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Web.Desk.Commands;

namespace Formatum.Web.Desk;

/// <summary>Where pictures that have just come in may go.</summary>
/// <param name="Images">How many there are.</param>
/// <param name="Chosen">How many empty placeholders are chosen.</param>
/// <param name="Open">How many there are on the spread.</param>
/// <param name="PageWords">The page a grid of new frames would be made on.</param>
public sealed record ArrivalsView(int Images, int Chosen, int Open, string PageWords)
{
    public static ArrivalsView Of(DeskView view, ImmutableArray<int> images, Vec at)
    {
        var ground = new Ground(view.Publication, view.Spread);
        var chosen = view.Chosen.Select(f => f.Id).ToHashSet();
        var open = Arrive.OpenPlaceholders(ground, []);
        int ofChosen = Arrive.OpenPlaceholders(ground, chosen).Count(f => chosen.Contains(f.Id));
        return new(images.Count(view.Publication.Images.ContainsKey), ofChosen, open.Length, view.Spread.PageAt(at).Words);
    }
}
