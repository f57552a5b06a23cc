using System.Collections.Immutable;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking;

/// <summary>The most ink that comes together on a page, as measured on its plates.</summary>
/// <param name="Percent">In per cent of one ink in full.</param>
/// <param name="At">Where, in points from the upper left of the page's trim.</param>
public sealed record InkFact(double Percent, Vec At);

/// <summary>What has to be looked up outside a publication: how its files stand, and what was measured on pixels.</summary>
/// <param name="Links">The images whose files are not as they were read, by id.</param>
/// <param name="Inks">The most ink on each page, by the page's id; pages that were not measured yet are left out.</param>
public sealed record CheckFacts(ImmutableDictionary<int, LinkState> Links, ImmutableDictionary<int, InkFact> Inks)
{
    public static readonly CheckFacts None = new(ImmutableDictionary<int, LinkState>.Empty, ImmutableDictionary<int, InkFact>.Empty);

    public LinkState Of(LinkedImage image) => Links.GetValueOrDefault(image.Id);

    /// <summary>The images whose files stand otherwise than in another set of facts.</summary>
    public IEnumerable<int> LinksOtherThan(CheckFacts other) => ReferenceEquals(Links, other.Links) ? []
        : Links.Keys.Union(other.Links.Keys).Where(id => Links.GetValueOrDefault(id) != other.Links.GetValueOrDefault(id));
}
