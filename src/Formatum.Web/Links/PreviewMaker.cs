using System.Collections.Concurrent;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Imaging.Apart;
using Formatum.Storage;

namespace Formatum.Web.Links;

/// <summary>Finds previews, and makes those again that are gone while their pictures are still there.</summary>
public sealed class PreviewMaker(PreviewStore previews, ReadersApart readers, PublicationStore store, LinkStates states, ILogger<PreviewMaker> log)
    : IDisposable
{
    private readonly ConcurrentDictionary<string, Lazy<Task>> _making = new();

    /// <summary>Making takes a core and some memory: one at a time, for this is nothing anybody waits long for.</summary>
    private readonly SemaphoreSlim _gate = new(1);

    /// <summary>The preview of a size; null where there is none and none can be made.</summary>
    public async Task<string?> FindAsync(string hash, int size)
    {
        if (previews.Find(hash, size) is { } found) return found;
        if (store.InMemory.SelectMany(p => p.Images.Values).FirstOrDefault(i => i.ContentHash == hash) is not { } image) return null;
        await _making.GetOrAdd(hash, _ => new(() => MakeAsync(image))).Value;
        _making.TryRemove(hash, out _);
        return previews.Find(hash, size);
    }

    public void Dispose() => _gate.Dispose();

    private async Task MakeAsync(LinkedImage image)
    {
        await _gate.WaitAsync();
        try
        {
            if (states.Of(image) == LinkState.Current) await readers.MakePreviewsAsync(image);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException or BadPicture)
        {
            log.LogWarning(e, "A preview could not be made again");
        }
        finally
        {
            _gate.Release();
        }
    }
}
