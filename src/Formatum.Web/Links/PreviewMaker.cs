using System.Collections.Concurrent;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Imaging.Apart;
using Formatum.Storage;

namespace Formatum.Web.Links;

/// <summary>Finds previews, and makes those again that are gone while their pictures are still there.</summary>
public sealed class PreviewMaker(PreviewStore previews, ProfileStore profiles, ReadersApart readers, PublicationStore store, LinkStates states,
    ILogger<PreviewMaker> log) : IDisposable
{
    private readonly ConcurrentDictionary<string, Lazy<Task>> _making = new();

    /// <summary>Making takes a core and some memory: one at a time, for this is nothing anybody waits long for.</summary>
    private readonly SemaphoreSlim _gate = new(1);

    /// <summary>Showing inks on another press takes a core for a moment.</summary>
    private readonly SemaphoreSlim _pressGate = new(1);

    /// <summary>The preview of a size; null where there is none and none can be made.</summary>
    /// <param name="hash">What the picture's file holds.</param>
    /// <param name="size">One of <see cref="PreviewStore.Sizes"/>.</param>
    /// <param name="press">Of a picture in inks, by the content of its profile, the press that prints them; null for the general one.</param>
    public async Task<string?> FindAsync(string hash, int size, string? press = null)
    {
        bool isThere = previews.Find(hash, size) is not null && (press is null || previews.HasInks(hash));
        if (!isThere && store.InMemory.SelectMany(p => p.Images.Values).FirstOrDefault(i => i.ContentHash == hash) is { } image)
            await MadeAsync(image);
        return press is null ? previews.Find(hash, size) : await OnPressAsync(hash, size, press);
    }

    /// <summary>Makes the previews of pictures that have none, as after a backup was put back.</summary>
    public async Task MakeMissingAsync(IEnumerable<LinkedImage> images)
    {
        foreach (var image in images.Where(i => PreviewStore.Sizes.Any(size => previews.Find(i.ContentHash, size) is null)).DistinctBy(i => i.ContentHash))
            await MadeAsync(image);
    }

    private async Task MadeAsync(LinkedImage image)
    {
        await _making.GetOrAdd(image.ContentHash, _ => new(() => MakeAsync(image))).Value;
        _making.TryRemove(image.ContentHash, out _);
    }

    private async Task<string?> OnPressAsync(string hash, int size, string press)
    {
        await _pressGate.WaitAsync();
        try
        {
            return previews.Find(hash, size, profiles.Shown(press));
        }
        finally
        {
            _pressGate.Release();
        }
    }

    public void Dispose()
    {
        _gate.Dispose();
        _pressGate.Dispose();
    }

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
