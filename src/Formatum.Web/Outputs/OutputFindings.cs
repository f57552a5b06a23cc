using System.Collections.Immutable;
using Formatum.Core.Composing;
using Formatum.Core.Publications;
using Formatum.Output;
using Formatum.Web.Links;

namespace Formatum.Web.Outputs;

/// <summary>What is worth knowing before a publication is printed.</summary>
/// <param name="Missing">Names of placed images whose files are gone.</param>
/// <param name="Changed">Names of placed images whose files are others than were read.</param>
/// <param name="Lost">Text that would be lost.</param>
/// <param name="Empty">How many placeholders are empty.</param>
public sealed record OutputFindings(ImmutableArray<string> Missing, ImmutableArray<string> Changed, ImmutableArray<LostText> Lost, int Empty)
{
    public bool Any => Missing.Length + Changed.Length + Lost.Length + Empty > 0;

    public static OutputFindings Of(Publication publication, LinkStates states)
    {
        var placed = publication.Frames.Values.Where(f => !f.Hidden).Select(publication.ImageOf).OfType<LinkedImage>().DistinctBy(i => i.Id).OrderBy(i => i.Id)
            .Select(i => (i.Name, State: states.Of(i))).ToList();
        ImmutableArray<string> Named(LinkState state) => [.. placed.Where(p => p.State == state).Select(p => p.Name)];
        return new(Named(LinkState.Missing), Named(LinkState.Changed), [.. TextFindings.Of(publication, Typefaces.All)],
            publication.PageFrames.Count(f => f.IsPlaceholder && !f.Hidden));
    }
}
