using System.Collections.Concurrent;
using System.Collections.Immutable;
using Formatum.Core.Checking;
using Formatum.Core.Publications;
using Formatum.Output;
using Formatum.Storage;
using Formatum.Web.Hosting;
using Formatum.Web.Links;

namespace Formatum.Web.Checking;

/// <summary>The findings on every publication that is looked at: the one place that all screens ask.</summary>
public sealed class Checker(PublicationStore store, LinkStates links, InkMeasures inks, HeavyWork heavy)
{
    /// <summary>So many publications are kept, each with so many profiles.</summary>
    private const int MostKept = 40, MostProfiles = 6;

    /// <summary>How long what was seen of files holds, in milliseconds.</summary>
    private const int LinksHold = 1000;

    private sealed class Keeper
    {
        public SemaphoreSlim Gate { get; } = new(1);
        public Dictionary<int, PublicationFindings> Findings { get; } = [];
        public (object? Images, long At, ImmutableDictionary<int, LinkState> States) Links { get; set; } = (null, 0, CheckFacts.None.Links);
        public long Used { get; set; }
    }

    private readonly ConcurrentDictionary<int, Keeper> _kept = new();

    /// <summary>The findings on a publication.</summary>
    /// <param name="standing">The publication as it stands.</param>
    /// <param name="profile">What it is checked by; null for its own.</param>
    public async Task<PublicationFindings> OfAsync(Standing standing, CheckProfile? profile = null)
    {
        var publication = standing.Publication;
        var by = profile ?? publication.Profile;
        var keeper = KeeperOf(standing.Id);
        await keeper.Gate.WaitAsync();
        try
        {
            keeper.Findings.TryGetValue(by.Id, out var kept);
            var facts = Facts(keeper, publication) with { Inks = kept?.Facts.Inks ?? CheckFacts.None.Inks };
            // Measuring all of a large publication takes a core for a while; an edit's share of it does not.
            var found = kept is null || kept.Profile != by
                ? await heavy.RunAsync(_ => PublicationFindings.Of(publication, by, facts, Typefaces.All), CancellationToken.None)
                : ReferenceEquals(kept.Publication, publication) && kept.Facts == facts ? kept : kept.After(publication, facts);
            if (keeper.Findings.Count >= MostProfiles && !keeper.Findings.ContainsKey(by.Id)) keeper.Findings.Clear();
            return keeper.Findings[by.Id] = WithInk(found);
        }
        finally
        {
            keeper.Gate.Release();
        }
    }

    /// <summary>The same with what was measured on pages as they are now.</summary>
    private PublicationFindings WithInk(PublicationFindings found)
    {
        var now = inks.Of(found);
        var was = found.Facts.Inks;
        bool same = now.Count == was.Count && now.All(n => was.TryGetValue(n.Key, out var known) && ReferenceEquals(known, n.Value));
        return same ? found : found.After(found.Publication, found.Facts with { Inks = now });
    }

    /// <summary>The findings with the ink measured on every page, or on some, which may take a while.</summary>
    public async Task<PublicationFindings> WithAllInkAsync(Standing standing, CheckProfile? profile, IReadOnlySet<int>? pages = null)
    {
        var findings = await OfAsync(standing, profile);
        foreach (int index in inks.Unmeasured(findings, ImmutableHashSet<int>.Empty))
        {
            if (pages is not null && !Spread.At(findings.Publication, index).Pages.Any(p => pages.Contains(p.Page.Id))) continue;
            await heavy.RunAsync(cancel =>
            {
                inks.Measure(findings, index, cancel);
                return true;
            }, CancellationToken.None);
        }
        return await OfAsync(standing, profile);
    }

    /// <summary>The pages whose ink was not measured as they are now, by their numbers; none where the profile does not ask for it.</summary>
    public IReadOnlyList<int> WithoutInk(PublicationFindings findings) => [.. inks.Unmeasured(findings, ImmutableHashSet<int>.Empty)
        .SelectMany(index => Spread.At(findings.Publication, index).Pages).Select(p => p.Number).Order()];

    public async Task<PublicationFindings> OfAsync(int id) => await OfAsync(await store.OpenAsync(id));

    private Keeper KeeperOf(int id)
    {
        var keeper = _kept.GetOrAdd(id, _ => new());
        keeper.Used = Environment.TickCount64;
        if (_kept.Count > MostKept && _kept.MinBy(k => k.Value.Used) is var oldest && oldest.Key != id) _kept.TryRemove(oldest);
        return keeper;
    }

    private CheckFacts Facts(Keeper keeper, Publication publication)
    {
        var (images, at, states) = keeper.Links;
        if (!ReferenceEquals(images, publication.Images) || Environment.TickCount64 - at > LinksHold)
        {
            var now = publication.PlacedCounts.Keys.Select(id => publication.Images[id]).Select(i => (i.Id, State: links.Of(i)))
                .Where(i => i.State != LinkState.Current).ToImmutableDictionary(i => i.Id, i => i.State);
            // The same states stay the same thing, so that nothing is measured again for them.
            if (now.Count != states.Count || now.Any(n => !states.TryGetValue(n.Key, out var was) || was != n.Value)) states = now;
            keeper.Links = (publication.Images, Environment.TickCount64, states);
        }
        return CheckFacts.None with { Links = states };
    }
}
