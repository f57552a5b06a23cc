using System.Collections.Concurrent;
using System.Collections.Immutable;
using Formatum.Core.Checking;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Checking;
using Formatum.Web.Hosting;
using Formatum.Web.Links;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk;

/// <summary>A publication as it lies on the shelf.</summary>
public sealed record ShelfItem(int Id, string Name, string Edition, string Facts, string Cover, IReadOnlyList<(Severity Severity, string Words)> Attention);

/// <summary>What the shelf shows of each publication: worked out once for each revision, so that the shelf opens only what changed.</summary>
public sealed class ShelfCards(PublicationStore store, Checker checker, LinkStates links, HeavyWork heavy)
{
    private const int Most = 500;

    private sealed record Card(long Revision, ShelfItem Item, ImmutableArray<LinkedImage> Images, (int Changed, int Missing) Links);

    private readonly ConcurrentDictionary<int, Card> _cards = new();

    /// <summary>Readers who come at once wait for the same card.</summary>
    private readonly ConcurrentDictionary<(int Id, long Revision), Lazy<Task<Card>>> _inTheMaking = new();

    public async Task<ShelfItem> OfAsync(ShelfEntry entry)
    {
        try
        {
            return await ReadAsync(entry);
        }
        catch (UnreadablePublication e)
        {
            return new(entry.Id, entry.Name, "", "", "", [(Severity.Fault, e.Message)]);
        }
    }

    private async Task<ShelfItem> ReadAsync(ShelfEntry entry)
    {
        if (!_cards.TryGetValue(entry.Id, out var card) || card.Revision != entry.Revision)
            card = await _inTheMaking.GetOrAdd((entry.Id, entry.Revision), key => new(() => MakeAsync(key))).Value;
        // Files change without the publication doing so.
        var now = links.Count(card.Images);
        if (now == card.Links) return card.Item;
        var item = card.Item with { Attention = AttentionOf(await checker.OfAsync(entry.Id)) };
        _cards[entry.Id] = card with { Item = item, Links = now };
        return item;
    }

    /// <summary>So many kinds are told, those that count most.</summary>
    private const int MostTold = 5;

    private static List<(Severity Severity, string Words)> AttentionOf(PublicationFindings findings)
    {
        var told = FindingText.Summary(findings.Open.Where(f => f.Severity > Severity.Note)).ToList();
        if (told.Count > MostTold) told = [.. told.Take(MostTold - 1), (Severity.Note, $"and {Words.Count(told.Count - MostTold + 1, "more kind")}")];
        return told;
    }

    private async Task<Card> MakeAsync((int Id, long Revision) key)
    {
        try
        {
            var standing = await store.OpenAsync(key.Id);
            ImmutableArray<LinkedImage> images = [.. standing.Publication.PlacedCounts.Keys.Select(id => standing.Publication.Images[id])];
            var states = links.Count(images);
            var attention = AttentionOf(await checker.OfAsync(standing));
            var card = await heavy.RunAsync(_ => new Card(standing.Revision, Describe(standing) with { Attention = attention }, images, states), default);
            // The one that is farthest from it goes: whoever looks through the shelf comes back to those near by.
            if (_cards.Count >= Most && !_cards.ContainsKey(key.Id)) _cards.TryRemove(_cards.Keys.MaxBy(id => Math.Abs(id - key.Id)), out _);
            return _cards[key.Id] = card;
        }
        finally
        {
            _inTheMaking.TryRemove(key, out _);
        }
    }

    private static ShelfItem Describe(Standing standing)
    {
        var p = standing.Publication;
        var setup = p.Setup;
        string size = PaperSize.Of(setup.PageWidth, setup.PageHeight)?.Name ?? Words.Size(setup.PageWidth, setup.PageHeight, setup.Unit);
        string facts = string.Join(" \u00b7 ", new[] { Words.Count(p.PageCount, "page"), size, setup.Facing ? "facing" : "single",
            Words.Count(p.Images.Count, "image") });
        return new(standing.Id, setup.Name, setup.Edition, facts, SpreadView.Miniature(p, Spread.At(p, 0), $"shelf{standing.Id}-"), []);
    }
}
