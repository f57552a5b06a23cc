using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Imaging.Apart;
using Formatum.Storage;
using Formatum.Web.Hosting;

namespace Formatum.Web.Pictures;

/// <summary>What became of one file: an image, or the reason why not.</summary>
public sealed record Arrival(string Name, LinkedImage? Image, string? Error);

/// <summary>Takes pictures in: sent by a browser, or named in a folder on this machine.</summary>
public sealed class PictureIntake(ServerOptions options, ReadersApart reader, SubjectFinder finder, PublicationStore store, DiskRoom room,
    ILogger<PictureIntake> log)
{
    public const int LongestName = 255, MostFilesInFolder = 10_000;

    /// <summary>As many pictures are read at a time as there are readers, and no more files than that are taken in before they are read.</summary>
    private SemaphoreSlim Reading { get; } = new(Environment.ProcessorCount);

    /// <summary>Gathers the files of one request; each is read while the next is still arriving.</summary>
    public sealed class Batch(PictureIntake intake)
    {
        private readonly List<Task<Arrival>> _arrivals = [];

        /// <summary>Copies a file in and starts to read it. Waits while too many are being read.</summary>
        public async Task AddUploadAsync(string name, Stream content, CancellationToken cancel)
        {
            var (incoming, problem) = await intake.TrySaveAsync(name, content, cancel);
            if (incoming is null)
            {
                _arrivals.Add(Task.FromResult(new Arrival(name, null, problem)));
                return;
            }
            await AddAsync(incoming, name, sent: true, cancel);
        }

        public Task AddLinkAsync(string path, string name, CancellationToken cancel) => AddAsync(path, name, sent: false, cancel);

        private async Task AddAsync(string path, string name, bool sent, CancellationToken cancel)
        {
            await intake.Reading.WaitAsync(cancel);
            _arrivals.Add(intake.TakeAsync(path, name, sent));
        }

        /// <summary>Links all that could be read, in the order they came, as one edit.</summary>
        public async Task<IReadOnlyList<Arrival>> LinkAsync(int publicationId, Maker maker)
        {
            var arrivals = await Task.WhenAll(_arrivals);
            var linked = new Queue<Linked>(await intake.LinkAsync(publicationId, [.. arrivals.Select(a => a.Image).OfType<LinkedImage>()], maker));
            return [.. arrivals.Select(a => a.Image is null ? a : a with { Image = linked.Dequeue().Image })];
        }
    }

    /// <summary>An image as it is linked, and the name it had there where its content was known before.</summary>
    public sealed record Linked(LinkedImage Image, string? SameAs);

    /// <summary>Links images as one edit. What is there already, by its content, stays one image.</summary>
    public async Task<IReadOnlyList<Linked>> LinkAsync(int publicationId, ImmutableArray<LinkedImage> images, Maker maker, EditBatch? batch = null)
    {
        if (images.IsEmpty) return [];
        var before = (await Store.OpenAsync(publicationId)).Publication;
        if (before.Setup.SuggestSubjects)
            images = [.. await Task.Run(() => images.Select(image => image with { SuggestedSubject = Finder.Suggest(image) }).ToArray())];
        var after = (await Store.EditAsync(publicationId, new LinkImages(images), Seen.Now(maker), batch)).Standing.Publication;
        var known = new Dictionary<string, LinkedImage>();
        foreach (var image in after.Images.Values.OrderBy(i => i.Id)) known.TryAdd(image.ContentHash, image);
        var seen = before.Images.Values.Select(i => i.ContentHash).ToHashSet();
        return [.. images.Select(i => new Linked(known[i.ContentHash], seen.Add(i.ContentHash) ? null : known[i.ContentHash].Name))];
    }

    /// <summary>Reads a file that is kept or linked.</summary>
    /// <param name="path">Where it lies.</param>
    /// <param name="name">What people call it.</param>
    /// <param name="sent">Whether it was sent, and is moved to where pictures are kept.</param>
    /// <param name="noted">Whether it is noted beside it where it goes, so that a server that starts again finds it there.</param>
    public async Task<Arrival> ReadAsync(string path, string name, bool sent, bool noted = false)
    {
        await Reading.WaitAsync();
        return await TakeAsync(path, name, sent, noted);
    }

    private Task<Arrival> TakeAsync(string path, string name, bool sent, bool noted = false)
    {
        if (!sent) return GuardedAsync(name, () => Reader.ReadAsync(path, name));
        return File.Exists(path) || KeptAt(path) is not { } kept ? TakeUploadAsync(path, name, noted) : GuardedAsync(name, () => Reader.ReadAsync(kept, name));
    }

    /// <summary>Beside a file that was sent: where it goes once it is read.</summary>
    public static string NoteOf(string incoming) => incoming + ".kept";

    /// <summary>Where a file that was sent is kept by now; null where it is not.</summary>
    public static string? KeptAt(string incoming) => File.Exists(NoteOf(incoming)) && File.ReadAllText(NoteOf(incoming)) is var kept && File.Exists(kept)
        ? kept : null;

    /// <summary>Keeps what is sent until it is read.</summary>
    /// <param name="name">The file's name.</param>
    /// <param name="content">What is sent; read to its end, whatever comes of it.</param>
    /// <param name="cancel">Stops it.</param>
    /// <param name="archive">Whether it is an archive of pictures, which may be as large as many of them.</param>
    /// <returns>Where it is kept, or why it is not.</returns>
    public async Task<(string? Path, string? Error)> TrySaveAsync(string name, Stream content, CancellationToken cancel, bool archive = false)
    {
        if (NameError(name) is { } error)
        {
            await content.CopyToAsync(Stream.Null, cancel);
            return (null, error);
        }
        try
        {
            return await SaveAsync(content, archive ? MostArchiveBytes : Options.Limits.MostBytes, cancel) is { } path ? (path, null)
                : (null, archive ? $"The archive is larger than {MostArchiveBytes >> 30} GB. Split it." : PictureReader.TooManyBytes(Options.Limits).Message);
        }
        catch (IOException e) when (e is not FileNotFoundException)
        {
            log.LogWarning(e, "Keeping a picture failed");
            return (null, e is NoRoom ? e.Message : NotKept);
        }
    }

    private const long MostArchiveBytes = 64L << 30;

    private const string NotKept = "The picture could not be kept on the server: its disk may be full, or the folder closed to it. Tell whoever runs it, " +
        "and try again.";

    private ServerOptions Options { get; } = options;
    private DiskRoom Room { get; } = room;
    private ReadersApart Reader { get; } = reader;
    private SubjectFinder Finder { get; } = finder;
    private PublicationStore Store { get; } = store;

    public Batch Begin() => new(this);

    /// <summary>The picture files of a folder below one of the configured roots, by name.</summary>
    /// <exception cref="EditRefused">The folder is not below a root, or is not there.</exception>
    /// <param name="folder">The folder.</param>
    /// <param name="within">Whether those of the folders in it are meant too.</param>
    public IReadOnlyList<string> FilesIn(string folder, bool within = false)
    {
        if (Options.PictureRoots.Length == 0)
            throw new EditRefused("folder", "No folders are open to linking on this server. Whoever runs it can name some with --pictures.");
        string path;
        try
        {
            path = PictureFile.RealPathOf(Path.GetFullPath(folder, Options.PictureRoots[0]));
        }
        catch (Exception e) when (e is ArgumentException or IOException or NotSupportedException or UnauthorizedAccessException)
        {
            throw new EditRefused("folder", "This is not the path of a folder.");
        }
        if (!Options.PictureRoots.Any(root => IsWithin(path, root)))
            throw new EditRefused("folder", $"Only folders below {string.Join(" or ", Options.PictureRoots)} are open to linking. Name one of those.");
        if (!Directory.Exists(path)) throw new EditRefused("folder", $"There is no folder {folder}. Look at its spelling.");
        try
        {
            var files = Directory.EnumerateFiles(path, "*", within ? Deep : new EnumerationOptions()).Where(f => !Path.GetFileName(f).StartsWith('.'))
                .Order(StringComparer.OrdinalIgnoreCase).Take(MostFilesInFolder + 1).ToList();
            if (files.Count > MostFilesInFolder)
                throw new EditRefused("folder", $"The folder holds more than {MostFilesInFolder} files. Split it into smaller ones.");
            // A link in the folder must not lead out of the roots either.
            return [.. files.Select(PictureFile.RealPathOf).Where(f => PictureFile.IsRegular(f) && Options.PictureRoots.Any(root => IsWithin(f, root)))];
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new EditRefused("folder", "The folder cannot be read: this program may not look into it.");
        }
    }

    private static readonly EnumerationOptions Deep = new()
    {
        RecurseSubdirectories = true,
        AttributesToSkip = FileAttributes.Hidden | FileAttributes.System | FileAttributes.ReparsePoint,
        MaxRecursionDepth = 20
    };

    private static bool IsWithin(string path, string root) =>
        path == root || path.StartsWith(root.EndsWith(Path.DirectorySeparatorChar) ? root : root + Path.DirectorySeparatorChar, StringComparison.Ordinal);

    /// <summary>Keeps a file that was sent, and reads it.</summary>
    /// <exception cref="BadPicture">It cannot be read as a picture.</exception>
    public async Task<LinkedImage> KeepAsync(string name, Stream content, CancellationToken cancel)
    {
        var (incoming, problem) = await TrySaveAsync(name, content, cancel);
        var arrival = incoming is null ? new Arrival(name, null, problem) : await ReadAsync(incoming, name, sent: true);
        return arrival.Image ?? throw new BadPicture(arrival.Error!);
    }

    private static string? NameError(string name)
    {
        if (string.IsNullOrWhiteSpace(name)) return "The file has no name. Give it one.";
        if (name.Length > LongestName) return $"The file's name has {name.Length} characters; {LongestName} is the most. Shorten it.";
        if (name.AsSpan().IndexOfAny('/', '\\') >= 0 || name is "." or "..") return "The file's name holds a path. Send the file under its bare name.";
        if (name.Any(char.IsControl)) return "The file's name holds control characters. Rename it.";
        return null;
    }

    /// <summary>While a file arrives, so often is looked whether there is still room for it, in bytes.</summary>
    private const long LookForRoomEvery = 1L << 20;

    /// <summary>Copies an upload to a file of its own; null where it is larger than allowed. The rest of it is then passed over.</summary>
    /// <exception cref="NoRoom">There is no room for it. It is read to its end all the same.</exception>
    private async Task<string?> SaveAsync(Stream content, long mostBytes, CancellationToken cancel)
    {
        Directory.CreateDirectory(Options.IncomingFolder);
        string path = Path.Combine(Options.IncomingFolder, Guid.NewGuid().ToString("n"));
        bool whole = false;
        try
        {
            await using var file = new FileStream(path, FileMode.CreateNew, FileAccess.Write, FileShare.None, 1 << 16, useAsync: true);
            var buffer = new byte[1 << 16];
            long total = 0;
            NoRoom? full = null;
            int read;
            while ((read = await content.ReadAsync(buffer, cancel)) > 0)
            {
                if (full is null && total % LookForRoomEvery < read) full = Room.Lacks(LookForRoomEvery);
                total += read;
                if (total <= mostBytes && full is null) await file.WriteAsync(buffer.AsMemory(0, read), cancel);
            }
            if (full is not null) throw full;
            whole = total <= mostBytes;
        }
        finally
        {
            if (!whole) File.Delete(path);
        }
        return whole ? path : null;
    }

    /// <summary>Moves a file that was read to where this program keeps pictures, by its content; what is there already is not kept twice.</summary>
    public LinkedImage Keep(LinkedImage image)
    {
        string kept = PathOf(image);
        Directory.CreateDirectory(Path.GetDirectoryName(kept)!);
        try
        {
            if (!File.Exists(kept)) File.Move(image.Path, kept);
        }
        catch (IOException) when (File.Exists(kept))
        {
            // The same content was read at the same time, and came there first.
        }
        return image with { Path = kept, Modified = new DateTimeOffset(File.GetLastWriteTimeUtc(kept)) };
    }

    /// <summary>Where a picture of this content is kept, if it is.</summary>
    public string PathOf(LinkedImage image) => Path.Combine(Options.PictureFolder, image.ContentHash[..2], $"{image.ContentHash}.{image.Format}");

    private async Task<Arrival> TakeUploadAsync(string incoming, string name, bool noted)
    {
        try
        {
            var arrival = await GuardedAsync(name, async () =>
            {
                var image = await Reader.ReadAsync(incoming, name);
                if (noted) File.WriteAllText(NoteOf(incoming), PathOf(image));
                return Keep(image);
            });
            if (arrival.Image is null) File.Delete(NoteOf(incoming));
            return arrival;
        }
        finally
        {
            File.Delete(incoming);
        }
    }

    private async Task<Arrival> GuardedAsync(string name, Func<Task<LinkedImage>> read)
    {
        try
        {
            return new(name, await read(), null);
        }
        catch (BadPicture e)
        {
            return new(name, null, e.Message);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            log.LogWarning(e, "Taking in a picture failed");
            return new(name, null, NotKept);
        }
        finally
        {
            Reading.Release();
        }
    }
}
