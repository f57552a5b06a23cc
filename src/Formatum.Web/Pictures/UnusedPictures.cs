using Formatum.Imaging;
using Formatum.Storage;
using Formatum.Web.Hosting;

namespace Formatum.Web.Pictures;

/// <summary>Pictures that are kept and that no publication knows, at any step of its history: how many, and how much room they take, in bytes.</summary>
public sealed record Unused(int Pictures, long Bytes);

/// <summary>Finds pictures that nothing uses, and removes them when asked.</summary>
public sealed class UnusedPictures(ServerOptions options, PreviewStore previews, PublicationStore store, TimeProvider clock)
{
    /// <summary>What came in less than this ago may be on its way into a publication.</summary>
    private static readonly TimeSpan OnItsWay = TimeSpan.FromHours(1);

    public async Task<Unused> FindAsync()
    {
        var files = await FilesAsync();
        return new(files.Count, files.Sum(f => f.Length));
    }

    /// <summary>Removes them with their previews.</summary>
    public async Task<Unused> RemoveAsync()
    {
        var files = await FilesAsync();
        foreach (var file in files)
        {
            previews.Remove(HashOf(file));
            file.Delete();
        }
        return new(files.Count, files.Sum(f => f.Length));
    }

    private async Task<List<FileInfo>> FilesAsync()
    {
        if (!Directory.Exists(options.PictureFolder)) return [];
        // The files first: what a publication takes up meanwhile is known by then.
        var before = clock.GetUtcNow() - OnItsWay;
        var files = new DirectoryInfo(options.PictureFolder).EnumerateFiles("*", SearchOption.AllDirectories).Where(f => f.LastWriteTimeUtc < before).ToList();
        var known = await store.KnownPicturesAsync();
        return [.. files.Where(f => !known.Contains(HashOf(f)))];
    }

    private static string HashOf(FileInfo file) => Path.GetFileNameWithoutExtension(file.Name);
}
