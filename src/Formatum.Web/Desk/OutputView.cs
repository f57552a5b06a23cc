using System.Collections.Immutable;
using Formatum.Core.Composing;
using Formatum.Core.Publications;
using Formatum.Output;
using Formatum.Web.Links;

namespace Formatum.Web.Desk;

/// <summary>What is worth knowing before a publication is printed.</summary>
/// <param name="Desk">The Desk it is asked from.</param>
/// <param name="Missing">Names of placed images whose files are gone.</param>
/// <param name="Changed">Names of placed images whose files are others than were read.</param>
/// <param name="Lost">Text that would be lost.</param>
/// <param name="Empty">How many placeholders are empty.</param>
public sealed record OutputView(DeskView Desk, ImmutableArray<string> Missing, ImmutableArray<string> Changed, ImmutableArray<LostText> Lost, int Empty)
{
    public Publication Publication => Desk.Publication;

    public static OutputView Of(DeskView desk, LinkStates states)
    {
        var publication = desk.Publication;
        var placed = publication.Frames.Values.Where(f => !f.Hidden).Select(publication.ImageOf).OfType<LinkedImage>().DistinctBy(i => i.Id).OrderBy(i => i.Id)
            .Select(i => (i.Name, State: states.Of(i))).ToList();
        ImmutableArray<string> Named(LinkState state) => [.. placed.Where(p => p.State == state).Select(p => p.Name)];
        return new(desk, Named(LinkState.Missing), Named(LinkState.Changed), [.. TextFindings.Of(publication, Typefaces.All)],
            publication.PageFrames.Count(f => f.IsPlaceholder && !f.Hidden));
    }
}
