using System.Collections.Concurrent;
using System.Globalization;
using System.Net;
using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using System.Text.Json;
using System.Threading.Channels;
using Formatum.Storage;

namespace Formatum.Web.Hosting;

/// <summary>Where somebody types.</summary>
/// <param name="Window">Their window's own name.</param>
/// <param name="Name">Theirs.</param>
/// <param name="Frame">The text frame.</param>
/// <param name="Place">The caret's place in its text, in UTF-16 units.</param>
public sealed record TypingCaret(string Window, string Name, int Frame, int Place);

/// <summary>
/// Tells every window that looks at a publication when it has changed, wherever the change came from. One line may listen to several publications.
/// </summary>
public sealed class ChangeEvents
{
    /// <summary>Lines from one address, and from all together.</summary>
    private const int MostOfOne = 200, MostOfAll = 4000;

    /// <summary>One line listens to no more publications.</summary>
    private const int MostPublications = 100;

    private sealed record Line(IPAddress? From, Channel<SseItem<string>> Items, IReadOnlyCollection<int> Publications);

    private readonly ConcurrentDictionary<Line, bool> _lines = new();
    private readonly CancellationToken _stopping;

    public ChangeEvents(PublicationStore store, IHostApplicationLifetime life)
    {
        // Browsers listen for as long as they are open; a server that stops must not wait for them.
        _stopping = life.ApplicationStopping;
        store.Changed += outcome => Tell(outcome.Standing.Id, Changed(outcome.Standing.Id, outcome.Standing.Revision));
    }

    public static void Map(WebApplication app) => app.MapGet("/events", async (string of, HttpContext context, PublicationStore store, ChangeEvents events,
        Activity activity, CancellationToken cancel) =>
    {
        var ids = of.Split(',').Select(text => int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out int id) ? id : 0).Distinct()
            .Take(MostPublications).ToHashSet();
        var standing = (await store.ListAsync()).Where(p => ids.Contains(p.Id)).ToDictionary(p => p.Id, p => p.Revision);
        // Somebody has just opened them, and is still being shown them.
        foreach (int id in standing.Keys) activity.Note(id);
        return TypedResults.ServerSentEvents(events.Of(context.Connection.RemoteIpAddress, standing, cancel));
    }).ExcludeFromDescription();

    /// <summary>The publications that somebody looks at.</summary>
    public IReadOnlyCollection<int> Open => [.. _lines.Keys.SelectMany(l => l.Publications).Distinct()];

    /// <summary>Tells that the links of a publication are in another state than before.</summary>
    public void TellLinks(int publicationId) => Tell(publicationId, new($"{publicationId}", "links"));

    /// <summary>Tells that more was measured on a publication's pages, which itself is as it was.</summary>
    public void TellFound(int publicationId) => Tell(publicationId, new($"{publicationId}", "found"));

    /// <summary>Tells where somebody types. It takes no room from what must be heard.</summary>
    public void TellCaret(int publicationId, TypingCaret caret) => Tell(publicationId, new($"{publicationId} {JsonSerializer.Serialize(caret,
        JsonSerializerOptions.Web)}", "caret"), most: 4);

    private void Tell(int publicationId, SseItem<string> item, int most = int.MaxValue)
    {
        foreach (var line in _lines.Keys)
            if (line.Items.Reader.Count < most && line.Publications.Contains(publicationId)) line.Items.Writer.TryWrite(item);
    }

    /// <summary>The publications' revisions as they come, and word of their links; where a browser is slow, only the newest.</summary>
    /// <exception cref="TooBusy">There are too many lines.</exception>
    private IAsyncEnumerable<SseItem<string>> Of(IPAddress? from, Dictionary<int, long> standing, CancellationToken cancel)
    {
        if (_lines.Count >= MostOfAll || _lines.Keys.Count(l => Equals(l.From, from)) >= MostOfOne) throw new TooBusy();
        var items = Channel.CreateBounded<SseItem<string>>(new BoundedChannelOptions(8 + standing.Count) { FullMode = BoundedChannelFullMode.DropOldest });
        var line = new Line(from, items, [.. standing.Keys]);
        _lines[line] = true;
        // Who leaves before anything is sent never comes to the end of the reading.
        cancel.Register(() => _lines.TryRemove(line, out _));
        // What changed between the page's making and now is told at once.
        foreach (var (id, revision) in standing) items.Writer.TryWrite(Changed(id, revision));
        return ReadAsync(line, cancel);
    }

    private async IAsyncEnumerable<SseItem<string>> ReadAsync(Line line, [EnumeratorCancellation] CancellationToken cancel)
    {
        using var ends = CancellationTokenSource.CreateLinkedTokenSource(cancel, _stopping);
        try
        {
            await foreach (var next in line.Items.Reader.ReadAllAsync(ends.Token)) yield return next;
        }
        finally
        {
            _lines.TryRemove(line, out _);
        }
    }

    private static SseItem<string> Changed(int id, long revision) => new(string.Create(CultureInfo.InvariantCulture, $"{id} {revision}"), "changed");
}
