using System.Collections.Concurrent;
using System.IO.Compression;
using System.Text.Json;
using System.Threading.Channels;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Storage;
using Formatum.Web.Hosting;
using Formatum.Web.Wording;

namespace Formatum.Web.Pictures;

/// <summary>
/// Brings pictures in while people work on. As many are read at a time as there are cores, and arriving files wait for them, so that memory and disk
/// stay bounded however many there are.
/// </summary>
public sealed class ImportJobs(ServerOptions options, PictureIntake intake, ILogger<ImportJobs> log) : BackgroundService
{
    /// <summary>So many images are linked by one edit.</summary>
    private const int LinkedTogether = 100;

    /// <summary>So many files may have arrived and not been read yet.</summary>
    private const int MostWaiting = 64;

    private const int MostInZip = 10_000;

    private const string Unread = "It was stopped before this was read.", NotSent = "It was not sent: the page was left, or sending was stopped.";

    /// <summary>So many jobs that have ended are remembered, for those who look at their reports later.</summary>
    private const int MostEnded = 40;

    private readonly ConcurrentDictionary<string, Running> _jobs = new();

    /// <summary>Before anything could arrive.</summary>
    private readonly DateTime _started = DateTime.UtcNow;

    private sealed class Running(ImportJob job)
    {
        public ImportJob Job { get; } = job;
        public Channel<ImportItem> Waiting { get; } = Channel.CreateBounded<ImportItem>(MostWaiting);
        public CancellationTokenSource Stop { get; } = new();
        public DateTime Started { get; } = DateTime.UtcNow;
        public object Gate => Job.Items;
    }

    private string Folder => Path.Combine(options.DataFolder, "jobs");

    /// <summary>Begins a job that files are then added to.</summary>
    public string Begin(int publicationId, Maker maker)
    {
        var running = new Running(new() { Id = Guid.NewGuid().ToString("n"), PublicationId = publicationId, Maker = maker, Begun = DateTimeOffset.UtcNow });
        _jobs[running.Job.Id] = running;
        Save(running);
        _ = Task.Run(() => RunAsync(running));
        return running.Job.Id;
    }

    /// <summary>Tells which files are to come, so that those that never arrive can be named.</summary>
    public void Expect(string jobId, IEnumerable<string> names)
    {
        var running = _jobs[jobId];
        lock (running.Gate) running.Job.Expected = [.. names.Take(MostInZip)];
        Save(running);
    }

    /// <summary>Somebody has read the report of a job that ended.</summary>
    public bool MarkRead(int publicationId, string jobId)
    {
        if (!_jobs.TryGetValue(jobId, out var running) || running.Job.PublicationId != publicationId) return false;
        lock (running.Gate) running.Job.Read = true;
        Save(running);
        return true;
    }

    /// <summary>Adds a file that is sent: a picture, or a ZIP of pictures. Waits while too many have not been read.</summary>
    public async Task AddSentAsync(string jobId, string name, Stream content, CancellationToken cancel)
    {
        var running = _jobs[jobId];
        if (!name.EndsWith(".zip", StringComparison.OrdinalIgnoreCase))
        {
            await AddSentAsync(running, name, content, cancel, came: true);
            return;
        }
        await AddZipAsync(running, name, content, cancel);
        lock (running.Gate) running.Job.Came.Add(name);
    }

    private async Task AddSentAsync(Running running, string name, Stream content, CancellationToken cancel, bool came = false)
    {
        var (path, error) = await intake.TrySaveAsync(name, content, cancel);
        await AddAsync(running, new() { Name = name, Path = path ?? "", Sent = true, Error = error }, came);
    }

    private async Task AddZipAsync(Running running, string name, Stream content, CancellationToken cancel)
    {
        var (path, error) = await intake.TrySaveAsync(name, content, cancel, archive: true);
        if (path is null)
        {
            await AddAsync(running, new() { Name = name, Path = "", Sent = true, Error = error });
            return;
        }
        try
        {
            using var zip = ZipFile.OpenRead(path);
            var entries = zip.Entries.Where(e => e.Name.Length > 0 && e.Name[0] != '.' && !e.FullName.StartsWith("__", StringComparison.Ordinal)).ToList();
            if (entries.Count > MostInZip) throw new InvalidDataException($"It holds {entries.Count} files; {MostInZip} is the most.");
            foreach (var entry in entries)
            {
                if (running.Stop.IsCancellationRequested) break;
                await using var stream = await entry.OpenAsync(cancel);
                await AddSentAsync(running, entry.Name, stream, cancel);
            }
        }
        catch (Exception e) when (e is InvalidDataException or NotSupportedException or IOException)
        {
            await AddAsync(running, new()
            {
                Name = name,
                Path = "",
                Sent = true,
                Error = $"The ZIP cannot be read to its end: {e.Message} Pack it again, or send the pictures as they are."
            });
        }
        finally
        {
            File.Delete(path);
        }
    }

    /// <summary>Adds files that are linked where they lie, and waits until they are read or on their way.</summary>
    public async Task AddLinkedAsync(string jobId, IReadOnlyList<string> paths)
    {
        var running = _jobs[jobId];
        var items = paths.Select(path => new ImportItem { Name = Path.GetFileName(path), Path = path, Sent = false }).ToList();
        lock (running.Gate)
        {
            running.Job.Items.AddRange(items);
            running.Job.State = ImportState.Reading;
        }
        Save(running);
        foreach (var item in items) await WaitAsync(running, item);
    }

    private static Task AddAsync(Running running, ImportItem item, bool came = false)
    {
        lock (running.Gate)
        {
            running.Job.Items.Add(item);
            if (came) running.Job.Came.Add(item.Name);
        }
        return item.IsDone ? Task.CompletedTask : WaitAsync(running, item);
    }

    private static async Task WaitAsync(Running running, ImportItem item)
    {
        try
        {
            await running.Waiting.Writer.WriteAsync(item);
        }
        catch (ChannelClosedException)
        {
            item.Error = Unread;
            if (item.Sent) File.Delete(item.Path);
        }
    }

    /// <summary>Tells that no more files come.</summary>
    public void AllAdded(string jobId)
    {
        if (!_jobs.TryGetValue(jobId, out var running)) return;
        lock (running.Gate)
        {
            running.Job.Items.AddRange(NeverArrived(running.Job));
            if (running.Job.State == ImportState.Receiving) running.Job.State = ImportState.Reading;
        }
        running.Waiting.Writer.TryComplete();
        Save(running);
    }

    /// <summary>Files that were told of and did not come.</summary>
    private static IEnumerable<ImportItem> NeverArrived(ImportJob job)
    {
        var left = new List<string>(job.Expected);
        foreach (string name in job.Came) left.Remove(name);
        return left.Select(name => new ImportItem { Name = name, Path = "", Sent = true, Error = NotSent });
    }

    /// <summary>Stops a job; what has been read by then comes in.</summary>
    public bool Stop(int publicationId, string jobId)
    {
        if (!_jobs.TryGetValue(jobId, out var running) || running.Job.PublicationId != publicationId) return false;
        running.Stop.Cancel();
        return true;
    }

    /// <summary>The jobs of a publication that are under way, and those that ended while this server ran.</summary>
    public IEnumerable<ImportStatus> Of(int publicationId) => _jobs.Values.Where(j => j.Job.PublicationId == publicationId).OrderBy(j => j.Job.Begun)
        .Select(StatusOf);

    public ImportStatus? Find(int publicationId, string jobId) => _jobs.TryGetValue(jobId, out var running) && running.Job.PublicationId == publicationId
        ? StatusOf(running) : null;

    private static ImportStatus StatusOf(Running running)
    {
        var job = running.Job;
        lock (running.Gate)
        {
            bool ended = job.State is ImportState.Done or ImportState.Stopped;
            int total = job.State == ImportState.Receiving ? Math.Max(job.Items.Count, job.Expected.Count) : job.Items.Count;
            int done = job.Items.Count(i => i.IsRead || i.IsDone), left = total - done;
            double? seconds = ended ? 0 : done < 3 ? null : (DateTime.UtcNow - running.Started).TotalSeconds / done * left;
            return new(job.Id, job.State, job.Resumed, total, done, job.Items.Count(i => i.ImageId is not null && i.SameAs is null),
                job.Items.Count(i => i.SameAs is not null), seconds, job.Read,
                [.. job.Items.Where(i => i.Error is not null || i.SameAs is not null || ended)
                    .Select(i => new ImportReport(i.Name, i.ImageId, i.Error, i.SameAs))]);
        }
    }

    private async Task RunAsync(Running running)
    {
        var read = new List<(ImportItem Item, LinkedImage Image)>();
        var linking = new SemaphoreSlim(1);
        var end = ImportState.Stopped;
        try
        {
            await Parallel.ForEachAsync(running.Waiting.Reader.ReadAllAsync(running.Stop.Token),
                new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount, CancellationToken = running.Stop.Token },
                async (item, cancel) => await ReadAsync(item));
            end = ImportState.Done;
        }
        catch (OperationCanceledException)
        {
            // Somebody stopped it.
        }
        catch (Exception e)
        {
            log.LogError(e, "Bringing pictures in ended early");
        }
        try
        {
            await LinkAsync(running, read);
        }
        catch (Exception e)
        {
            log.LogError(e, "Linking pictures failed");
        }
        End(running, end);

        async Task ReadAsync(ImportItem item)
        {
            var arrival = await intake.ReadAsync(item.Path, item.Name, item.Sent, noted: true);
            item.IsRead = true;
            await linking.WaitAsync(CancellationToken.None);
            try
            {
                if (arrival.Image is { } image) read.Add((item, image));
                else item.Error = arrival.Error;
                if (read.Count >= LinkedTogether) await LinkAsync(running, read);
            }
            finally
            {
                linking.Release();
            }
        }
    }

    /// <summary>What was not read by the end is said so, and nothing of it is left lying about.</summary>
    private void End(Running running, ImportState state)
    {
        lock (running.Gate)
        {
            foreach (var item in running.Job.Items.Where(i => !i.IsDone))
            {
                item.Error = Unread;
                if (item.Sent) File.Delete(item.Path);
            }
            running.Job.State = state;
        }
        running.Waiting.Writer.TryComplete();
        Save(running);
        Forget();
    }

    /// <summary>Lets go of the oldest of the jobs that have ended.</summary>
    private void Forget()
    {
        foreach (var old in _jobs.Values.Where(j => j.Job.State is ImportState.Done or ImportState.Stopped).OrderByDescending(j => j.Job.Begun).Skip(MostEnded)
            .ToList())
        {
            if (!_jobs.TryRemove(old.Job.Id, out _)) continue;
            old.Stop.Dispose();
            File.Delete(Path.Combine(Folder, old.Job.Id + ".json"));
        }
    }

    /// <summary>Links what was read, in the order it came.</summary>
    private async Task LinkAsync(Running running, List<(ImportItem Item, LinkedImage Image)> read)
    {
        if (read.Count == 0) return;
        List<ImportItem> order;
        lock (running.Gate) order = [.. running.Job.Items];
        var batch = read.OrderBy(r => order.IndexOf(r.Item)).ToList();
        read.Clear();
        int count;
        lock (running.Gate) count = running.Job.Items.Count(i => i.ImageId is not null) + batch.Count;
        try
        {
            var linked = await intake.LinkAsync(running.Job.PublicationId, [.. batch.Select(b => b.Image)], running.Job.Maker,
                new EditBatch(running.Job.Id, Words.Count(count, "picture")));
            for (int i = 0; i < batch.Count; i++)
            {
                batch[i].Item.SameAs = linked[i].SameAs;
                batch[i].Item.ImageId = linked[i].Image.Id;
            }
        }
        catch (Exception e) when (e is EditRefused or NoSuchPublication or NotStored)
        {
            foreach (var (item, _) in batch) item.Error = e.Message;
        }
        // What came of each is known: nobody has to find it again.
        foreach (var (item, _) in batch.Where(b => b.Item.Sent)) File.Delete(PictureIntake.NoteOf(item.Path));
    }

    private void Save(Running running)
    {
        try
        {
            Directory.CreateDirectory(Folder);
            string path = Path.Combine(Folder, running.Job.Id + ".json"), part = path + ".part";
            string json;
            lock (running.Gate) json = JsonSerializer.Serialize(running.Job);
            File.WriteAllText(part, json);
            File.Move(part, path, overwrite: true);
        }
        catch (IOException e)
        {
            log.LogWarning(e, "A job could not be kept on the disk");
        }
    }

    /// <summary>Goes on with what the server was at when it stopped, and keeps the jobs on the disk while they run.</summary>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        Directory.CreateDirectory(Folder);
        var wanted = new HashSet<string>();
        foreach (string path in Directory.EnumerateFiles(Folder, "*.json"))
        {
            ImportJob? job = null;
            try
            {
                job = JsonSerializer.Deserialize<ImportJob>(await File.ReadAllTextAsync(path, stoppingToken));
            }
            catch (JsonException)
            {
                // Cut short by a power failure: there is nothing in it to go on with.
            }
            if (job is null || (job.Read && job.State is ImportState.Done or ImportState.Stopped))
            {
                File.Delete(path);
                continue;
            }
            if (job.State is ImportState.Done or ImportState.Stopped)
            {
                // Its report was not read yet.
                _jobs[job.Id] = new Running(job);
                continue;
            }
            wanted.UnionWith(job.Items.SelectMany(i => new[] { i.Path, PictureIntake.NoteOf(i.Path) }));
            _ = Task.Run(() => ResumeAsync(job), stoppingToken);
        }
        ClearIncoming(wanted);
        using var timer = new PeriodicTimer(TimeSpan.FromSeconds(1));
        while (await timer.WaitForNextTickAsync(stoppingToken))
        {
            foreach (var running in _jobs.Values.Where(j => j.Job.State is ImportState.Receiving or ImportState.Reading)) Save(running);
        }
    }

    /// <summary>Takes away what a server that was killed left half arrived or half unpacked, but for what a job goes on with.</summary>
    private void ClearIncoming(HashSet<string> wanted)
    {
        if (!Directory.Exists(options.IncomingFolder)) return;
        foreach (var left in new DirectoryInfo(options.IncomingFolder).EnumerateFileSystemInfos()
            .Where(f => f.LastWriteTimeUtc < _started && !wanted.Contains(f.FullName)))
        {
            try
            {
                if (left is DirectoryInfo folder) folder.Delete(recursive: true);
                else left.Delete();
            }
            catch (Exception e) when (e is IOException or UnauthorizedAccessException)
            {
                log.LogWarning(e, "{Path} could not be taken away", left.FullName);
            }
        }
    }

    private async Task ResumeAsync(ImportJob job)
    {
        job.Resumed = true;
        if (job.State == ImportState.Receiving) job.Items.AddRange(NeverArrived(job));
        job.State = ImportState.Reading;
        var left = job.Items.Where(i => !i.IsDone).ToList();
        var running = new Running(job);
        _jobs[job.Id] = running;
        _ = Task.Run(() => RunAsync(running));
        foreach (var item in left)
        {
            // Read already and not linked yet, it lies where pictures are kept.
            if (File.Exists(item.Path) || PictureIntake.KeptAt(item.Path) is not null) await running.Waiting.Writer.WriteAsync(item);
            else item.Error = "It had not arrived when the server stopped. Send it again.";
        }
        running.Waiting.Writer.TryComplete();
    }
}
