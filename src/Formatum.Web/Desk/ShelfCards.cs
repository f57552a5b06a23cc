using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Composing;
using Formatum.Core.Publications;
using Formatum.Output;
using Formatum.Storage;
using Formatum.Web.Hosting;
using Formatum.Web.Links;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk;

/// <summary>A publication as it lies on the shelf.</summary>
public sealed record ShelfItem(int Id, string Name, string Edition, string Facts, string Cover, IReadOnlyList<string> Attention);

/// <summary>What the shelf shows of each publication: worked out once for each revision, so that the shelf opens only what changed.</summary>
public sealed class ShelfCards(PublicationStore store, LinkStates links, HeavyWork heavy)
{
    private const int Most = 500;

    private sealed record Card(long Revision, ShelfItem Item, ImmutableArray<LinkedImage> Images);

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
            return new(entry.Id, entry.Name, "", "", "", [e.Message]);
        }
    }

    private async Task<ShelfItem> ReadAsync(ShelfEntry entry)
    {
        if (!_cards.TryGetValue(entry.Id, out var card) || card.Revision != entry.Revision)
            card = await _inTheMaking.GetOrAdd((entry.Id, entry.Revision), key => new(() => MakeAsync(key))).Value;
        // Files change without the publication doing so.
        var (changed, missing) = links.Count(card.Images);
        return changed + missing == 0 ? card.Item : card.Item with
        {
            Attention = [.. card.Item.Attention, .. changed > 0 ? [Words.Count(changed, "linked file") + " changed"] : Array.Empty<string>(), .. missing > 0
                ? [Words.Count(missing, "linked file") + " missing"] : Array.Empty<string>()],
        };
    }

    private async Task<Card> MakeAsync((int Id, long Revision) key)
    {
        try
        {
            var standing = await store.OpenAsync(key.Id);
            var card = await heavy.RunAsync(_ => new Card(standing.Revision, Describe(standing), [.. standing.Publication.Images.Values]), default);
            if (_cards.Count >= Most) _cards.Clear();
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
        int empty = p.PageFrames.Count(f => f.IsPlaceholder);
        int soft = p.Frames.Values.Count(f => p.FittedOf(f) is { } fitted && setup.SharpnessOf(fitted.Coverage.Ppi) == Sharpness.TooCoarse);
        int lost = TextFindings.Of(p, Typefaces.All).Count();
        var attention = new List<string>();
        if (empty > 0) attention.Add(Words.Count(empty, "placeholder") + " empty");
        if (soft > 0) attention.Add(Words.Count(soft, "picture") + string.Create(CultureInfo.InvariantCulture, $" below {setup.FloorPpi:0.#} ppi"));
        if (lost > 0) attention.Add(Words.Count(lost, "text frame loses", "text frames lose") + " text in print");
        return new(standing.Id, setup.Name, setup.Edition, facts, SpreadView.Miniature(p, Spread.At(p, 0), $"shelf{standing.Id}-"), attention);
    }
}
