using Formatum.Imaging;
using Formatum.Output.Fonts;
using Formatum.Storage;
using Formatum.Web.Hosting;

namespace Formatum.Web.Pictures;

/// <summary>Pictures and fonts that are kept and that no publication knows, at any step of its history: how many, and how much room they take, in
/// bytes.</summary>
public sealed record Unused(int Pictures, int Fonts, long Bytes);

/// <summary>Finds pictures and fonts that nothing uses, and removes them when asked.</summary>
public sealed class UnusedFiles(ServerOptions options, PreviewStore previews, FontStore fonts, PublicationStore store, TimeProvider clock)
{
    /// <summary>What came in less than this ago may be on its way into a publication.</summary>
    private static readonly TimeSpan OnItsWay = TimeSpan.FromHours(1);

    public async Task<Unused> FindAsync() => Of(await FilesAsync());

    /// <summary>Removes them, pictures with their previews.</summary>
    public async Task<Unused> RemoveAsync()
    {
        var files = await FilesAsync();
        foreach (var file in files)
        {
            if (!IsFont(file)) previews.Remove(HashOf(file));
            file.Delete();
        }
        return Of(files);
    }

    private Unused Of(List<FileInfo> files) => new(files.Count(f => !IsFont(f)), files.Count(IsFont), files.Sum(f => f.Length));

    private async Task<List<FileInfo>> FilesAsync()
    {
        // The files first: what a publication takes up meanwhile is known by then.
        var before = clock.GetUtcNow() - OnItsWay;
        var files = new[] { options.PictureFolder, fonts.Folder }.Select(folder => new DirectoryInfo(folder)).Where(folder => folder.Exists)
            .SelectMany(folder => folder.EnumerateFiles("*", SearchOption.AllDirectories)).Where(f => f.LastWriteTimeUtc < before).ToList();
        var known = await store.KnownFilesAsync();
        return [.. files.Where(f => !known.Contains(HashOf(f)))];
    }

    private bool IsFont(FileInfo file) => file.DirectoryName == Path.GetFullPath(fonts.Folder);

    private static string HashOf(FileInfo file) => Path.GetFileNameWithoutExtension(file.Name);
}
