using System.Collections.Concurrent;
using System.Security.Cryptography;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Storage;
using Formatum.Web.Hosting;

namespace Formatum.Web.Links;

/// <summary>Tells the state of links. Files are only looked at; what they hold is read where size or time differ, once.</summary>
public sealed class LinkStates
{
    private readonly ConcurrentDictionary<(string Path, long Bytes, DateTime Modified), string> _hashes = new();

    /// <summary>More hashes than any publication has files are not kept.</summary>
    private const int MostHashes = 20_000;

    public LinkState Of(LinkedImage image)
    {
        var file = new FileInfo(image.Path);
        if (!PictureFile.IsThere(image.Path)) return LinkState.Missing;
        if (file.Length == image.Bytes && file.LastWriteTimeUtc == image.Modified.UtcDateTime) return LinkState.Current;
        return file.Length == image.Bytes && HashOf(file) == image.ContentHash ? LinkState.Current : LinkState.Changed;
    }

    /// <summary>How many links are changed, and how many missing.</summary>
    public (int Changed, int Missing) Count(IEnumerable<LinkedImage> images)
    {
        var states = images.Select(Of).ToList();
        return (states.Count(s => s == LinkState.Changed), states.Count(s => s == LinkState.Missing));
    }

    /// <summary>Touched and copied files have another time and the same content.</summary>
    public string? HashOf(FileInfo file)
    {
        var key = (file.FullName, file.Length, file.LastWriteTimeUtc);
        if (_hashes.TryGetValue(key, out string? known)) return known;
        try
        {
            if (_hashes.Count >= MostHashes) _hashes.Clear();
            using var stream = file.OpenRead();
            return _hashes[key] = Convert.ToHexStringLower(SHA256.HashData(stream));
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return null;
        }
    }
}

/// <summary>Looks at the links of every publication that somebody has open, and tells its windows when one changed. It changes nothing itself.</summary>
public sealed class LinkWatch(PublicationStore store, ChangeEvents events, LinkStates states, ILogger<LinkWatch> log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(2);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var last = new Dictionary<int, string>();
        using var timer = new PeriodicTimer(Every);
        while (await timer.WaitForNextTickAsync(stoppingToken))
        {
            foreach (int id in events.Open)
            {
                try
                {
                    var images = (await store.OpenAsync(id)).Publication.Images.Values;
                    string now = string.Join(',', images.Select(i => (i.Id, State: states.Of(i))).Where(i => i.State != LinkState.Current).OrderBy(i => i.Id)
                        .Select(i => $"{i.Id}{i.State}"));
                    if (last.GetValueOrDefault(id, "") != now) events.TellLinks(id);
                    last[id] = now;
                }
                // Whatever is wrong with one publication, the others are looked at.
                catch (Exception e) when (e is not OperationCanceledException)
                {
                    log.LogWarning(e, "Looking at the links of publication {Id} failed", id);
                }
            }
        }
    }
}
