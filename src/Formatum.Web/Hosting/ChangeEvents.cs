using System.Collections.Concurrent;
using System.Globalization;
using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using System.Threading.Channels;
using Formatum.Storage;

namespace Formatum.Web.Hosting;

/// <summary>Tells every window open on a publication when it has changed, wherever the change came from.</summary>
public sealed class ChangeEvents
{
    private readonly ConcurrentDictionary<Channel<SseItem<string>>, int> _windows = new();

    private readonly CancellationToken _stopping;

    public ChangeEvents(PublicationStore store, IHostApplicationLifetime life)
    {
        // Windows listen for as long as they are open; a server that stops must not wait for them.
        _stopping = life.ApplicationStopping;
        store.Changed += outcome =>
        {
            foreach (var (window, id) in _windows)
                if (id == outcome.Standing.Id) window.Writer.TryWrite(Item(outcome.Standing.Revision));
        };
    }

    /// <summary>The publications that windows are open on.</summary>
    public IReadOnlyCollection<int> Open => [.. _windows.Values.Distinct()];

    /// <summary>Tells that the links of a publication are in another state than before.</summary>
    public void TellLinks(int publicationId)
    {
        foreach (var (window, id) in _windows)
            if (id == publicationId) window.Writer.TryWrite(new("", "links"));
    }

    /// <summary>The publication's revisions as they come, and word of its links; where a window is slow, only the newest.</summary>
    public async IAsyncEnumerable<SseItem<string>> Of(int publicationId, long revision, [EnumeratorCancellation] CancellationToken cancel)
    {
        using var ends = CancellationTokenSource.CreateLinkedTokenSource(cancel, _stopping);
        var window = Channel.CreateBounded<SseItem<string>>(new BoundedChannelOptions(8) { FullMode = BoundedChannelFullMode.DropOldest });
        _windows[window] = publicationId;
        try
        {
            // What changed between the page's making and now is told at once.
            yield return Item(revision);
            await foreach (var next in window.Reader.ReadAllAsync(ends.Token)) yield return next;
        }
        finally
        {
            _windows.TryRemove(window, out _);
        }
    }

    private static SseItem<string> Item(long revision) => new(revision.ToString(CultureInfo.InvariantCulture), "changed");
}
