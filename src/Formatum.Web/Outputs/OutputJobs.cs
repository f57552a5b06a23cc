using System.Collections.Concurrent;
using System.Text.Json;
using System.Text.Json.Serialization;
using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Output;
using Formatum.Output.Fonts;
using Formatum.Output.Making;
using Formatum.Output.Tickets;
using Formatum.Storage;
using Formatum.Web.Checking;
using Formatum.Web.Hosting;
using Formatum.Web.Links;

namespace Formatum.Web.Outputs;

/// <summary>
/// Makes outputs while people work on: so many at once, the rest in order. The newest of each publication are kept with what they were made by; half files
/// never are.
/// </summary>
public sealed class OutputJobs(ServerOptions options, HeavyWork heavy, PreviewStore previews, PicturePixels pixels, PreviewMaker maker, ProfileStore profiles,
    FontStore fonts, DiskRoom room, Checker checker, Reporter reporter, TimeProvider clock, ILogger<OutputJobs> log) : IHostedService, IDisposable
{
    /// <summary>So many outputs of a publication are kept, and no more of one wait or are made.</summary>
    public const int MostKept = 10, MostUnderWay = 10;

    private const string NoteEnding = ".json", FileEnding = ".out", HalfEnding = ".half", ReportEnding = ".report-";

    private static readonly JsonSerializerOptions Json = new() { Converters = { new JsonStringEnumConverter() } };

    private readonly ConcurrentDictionary<string, Running> _all = new();

    /// <summary>Fewer than the heavy work there is room for, so that whoever only wants to see a page need not wait for whole outputs.</summary>
    private readonly SemaphoreSlim _places = new(Math.Max(1, options.Heavy - 1));

    /// <summary>Outputs of few sheets have a place of their own beside those: a page need not wait for a whole book.</summary>
    private readonly SemaphoreSlim _shortPlace = new(1);

    private const int FewSheets = 8;

    private readonly CancellationTokenSource _end = new();

    private readonly Lock _ends = new();

    private sealed class Running(OutputNote note)
    {
        public OutputNote Note { get; set; } = note;
        public CancellationTokenSource Stop { get; } = new();
        public Lock Gate { get; } = new();
    }

    /// <summary>What was made before is there again; what was under way when the server ended is told.</summary>
    public Task StartAsync(CancellationToken cancellationToken)
    {
        if (!Directory.Exists(options.OutputFolder)) return Task.CompletedTask;
        foreach (string half in Directory.GetFiles(options.OutputFolder, "*" + HalfEnding + "*", SearchOption.AllDirectories)) File.Delete(half);
        foreach (string path in Directory.GetFiles(options.OutputFolder, "*" + NoteEnding, SearchOption.AllDirectories))
        {
            if (Read(path) is not { } note) continue;
            if (note.IsUnderWay)
                note = note with { State = OutputState.Failed, Ended = note.Begun, Error = "The server ended before this was made. Make it again." };
            note = note with { IsReporting = false, Handovers = [.. note.Handovers.Select(h => h.State == HandoverState.Sending ? h.Interrupted() : h)] };
            if (note.State == OutputState.Done && !File.Exists(PathOf(note, FileEnding)))
                note = note with { State = OutputState.Failed, Error = "Its file has gone from the server. Make it again." };
            _all[note.Id] = new(note);
        }
        return Task.CompletedTask;
    }

    private OutputNote? Read(string path)
    {
        try
        {
            return JsonSerializer.Deserialize<OutputNote>(File.ReadAllText(path), Json);
        }
        catch (Exception e) when (e is JsonException or IOException)
        {
            log.LogWarning(e, "What was noted of an output cannot be read: {Path}", path);
            return null;
        }
    }

    public async Task StopAsync(CancellationToken cancellationToken) => await _end.CancelAsync();

    public void Dispose()
    {
        _places.Dispose();
        _shortPlace.Dispose();
        _end.Dispose();
    }

    private string PathOf(OutputNote note, string ending) =>
        Path.Combine(options.OutputFolder, note.PublicationId.ToString(System.Globalization.CultureInfo.InvariantCulture), note.Id + ending);

    /// <summary>What is to be made, checked as far as it can be before it is begun.</summary>
    /// <exception cref="EditRefused">The recipe is impossible, or names pages that are not there.</exception>
    /// <exception cref="BadProfile">The press's profile has gone.</exception>
    public OutputWish Wish(Publication publication, Recipe recipe)
    {
        var errors = new FieldErrors();
        recipe.Check(errors);
        errors.ThrowIfAny();
        var setup = publication.Setup;
        // What is not printed can be made without the press's profile too.
        var wish = new OutputWish(publication, recipe, profiles.PressOf(recipe.Kind == OutputKind.Print ? setup : setup with { Press = null }),
            clock.GetLocalNow());
        _ = wish.Count;
        return wish;
    }

    /// <summary>Begins an output.</summary>
    /// <exception cref="EditRefused">The recipe is impossible, or too many are under way.</exception>
    /// <exception cref="NoRoom">The disk is full.</exception>
    public OutputNote Begin(Standing standing, Recipe recipe, Maker maker)
    {
        var wish = Wish(standing.Publication, recipe);
        if (room.Lacks(0) is { } full) throw full;
        if (Of(standing.Id).Count(n => n.IsUnderWay) >= MostUnderWay)
            throw new EditRefused("recipe", $"{MostUnderWay} outputs of this publication are under way already. Wait for one to end, or stop one.");
        var running = new Running(new()
        {
            Id = Guid.NewGuid().ToString("n"),
            PublicationId = standing.Id,
            Revision = standing.Revision,
            Recipe = recipe,
            Maker = maker,
            Begun = wish.Time,
            FileName = wish.FileName,
            Sheets = wish.Count,
            Product = PrintProduct.Of(wish),
        });
        Directory.CreateDirectory(Path.GetDirectoryName(PathOf(running.Note, NoteEnding))!);
        Save(running.Note);
        _all[running.Note.Id] = running;
        _ = Task.Run(() => RunAsync(running, wish, standing));
        return running.Note;
    }

    /// <summary>The outputs of a publication, the newest first.</summary>
    public IReadOnlyList<OutputNote> Of(int publicationId) =>
        [.. _all.Values.Select(r => r.Note).Where(n => n.PublicationId == publicationId).OrderByDescending(n => n.Begun).ThenBy(n => n.Id)];

    /// <exception cref="NoSuchPart">There is no such output of this publication.</exception>
    private Running Find(int publicationId, string id) => _all.TryGetValue(id, out var found) && found.Note.PublicationId == publicationId ? found
        : throw new NoSuchPart("output", $"There is no such output. The newest {MostKept} are kept; make it again.");

    /// <exception cref="NoSuchPart">There is no such output of this publication.</exception>
    public OutputNote NoteOf(int publicationId, string id) => Find(publicationId, id).Note;

    /// <summary>The file of an output that was made.</summary>
    /// <exception cref="NoSuchPart">There is none.</exception>
    public string FileOf(OutputNote note) => note.State == OutputState.Done && File.Exists(PathOf(note, FileEnding)) ? PathOf(note, FileEnding)
        : throw new NoSuchPart("output", "This output has no file: it is still to be made, or was not. Look at the list on Output.");

    /// <summary>Stops an output, or removes one that has ended.</summary>
    /// <exception cref="NoSuchPart">There is no such output of this publication.</exception>
    public void Drop(int publicationId, string id)
    {
        var running = Find(publicationId, id);
        if (running.Note.IsUnderWay) running.Stop.Cancel();
        else Forget(running.Note);
    }

    /// <summary>Stops and removes all outputs of a publication that is no more.</summary>
    public void DropAll(int publicationId)
    {
        foreach (var running in _all.Values.Where(r => r.Note.PublicationId == publicationId))
        {
            if (running.Note.IsUnderWay) running.Stop.Cancel();
            else Forget(running.Note);
        }
    }

    private async Task RunAsync(Running running, OutputWish wish, Standing standing)
    {
        string half = PathOf(running.Note, HalfEnding);
        Func<OutputNote, OutputNote> ended;
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(running.Stop.Token, _end.Token);
        try
        {
            var place = await PlaceAsync(running.Note.Sheets, stop.Token);
            try
            {
                Change(running, note => note with { State = OutputState.Making });
                await MakeAsync(running, wish, half, stop.Token);
            }
            finally
            {
                place.Release();
            }
            File.Move(half, PathOf(running.Note, FileEnding), overwrite: true);
            long bytes = new FileInfo(PathOf(running.Note, FileEnding)).Length;
            ended = note => note with { State = OutputState.Done, Made = note.Sheets, Bytes = bytes, IsReporting = true };
        }
        catch (OperationCanceledException)
        {
            ended = note => note with { State = OutputState.Stopped };
        }
        catch (Exception e)
        {
            if (Problems.Describe(e).Status >= StatusCodes.Status500InternalServerError) log.LogError(e, "An output was not made");
            ended = note => note with { State = OutputState.Failed, Error = Problems.Describe(e).Detail };
        }
        // First it is gone, then it is told: whoever hears that an output failed has the room it took.
        try
        {
            File.Delete(half);
        }
        finally
        {
            End(running, ended);
        }
        // The file is there for whoever waits for it; what was found on its pages follows.
        if (running.Note.State == OutputState.Done) await ReportAsync(running.Note, wish, standing);
    }

    /// <summary>Takes a place, to be given back.</summary>
    private async Task<SemaphoreSlim> PlaceAsync(int sheets, CancellationToken stop)
    {
        bool isShort = sheets <= FewSheets;
        if (isShort && _places.Wait(0, stop)) return _places;
        var place = isShort ? _shortPlace : _places;
        await place.WaitAsync(stop);
        return place;
    }

    /// <summary>Waits for its place among the heavy work as long as it takes: nobody waits for it with an open line.</summary>
    private async Task MakeAsync(Running running, OutputWish wish, string half, CancellationToken stop)
    {
        // Drawn pages show previews.
        if (wish.Recipe.Kind == OutputKind.Pictures) await maker.MakeMissingAsync(wish.Publication.Images.Values);
        while (true)
        {
            try
            {
                await heavy.RunAsync(cancel =>
                {
                    new OutputWriter(wish, pixels.Of(wish.Publication), previews, FilesOf(wish.Publication.Setup), heavy.MostPixels,
                        made => Made(running, made), cancel).Write(half);
                    return true;
                }, stop);
                return;
            }
            catch (TooBusy)
            {
                await Task.Delay(TimeSpan.FromSeconds(TooBusy.RetryAfter), stop);
            }
        }
    }

    /// <summary>What was found on its pages goes along with it. Without a report an output is an output all the same.</summary>
    private async Task ReportAsync(OutputNote note, OutputWish wish, Standing standing)
    {
        string? words = null;
        try
        {
            var pages = wish.Pages.Select(page => standing.Publication.Order.Ids[page - 1]).ToHashSet();
            var before = await BeforeOutput.OfAsync(checker, standing, wish.Recipe, pages, withInk: true);
            var report = await heavy.RunAsync(cancel => reporter.Gathered(before.Findings, before.All, cancel), _end.Token);
            foreach (var kind in Enum.GetValues<ReportKind>())
                await File.WriteAllBytesAsync(PathOf(note, ReportEnding + kind),
                    await heavy.RunAsync(cancel => Reporter.Made(report, kind, cancel), _end.Token), _end.Token);
            words = before.Words;
        }
        catch (Exception e)
        {
            if (e is not OperationCanceledException) log.LogWarning(e, "The report of an output was not made");
        }
        Amend(note, n => n with { IsReporting = false, Findings = words });
        // Removed meanwhile, it leaves nothing.
        if (!_all.ContainsKey(note.Id)) ForgetReports(note);
    }

    private void ForgetReports(OutputNote note)
    {
        foreach (var kind in Enum.GetValues<ReportKind>()) File.Delete(PathOf(note, ReportEnding + kind));
    }

    /// <summary>The report of an output, where there is one.</summary>
    public string? ReportOf(OutputNote note, ReportKind kind) => File.Exists(PathOf(note, ReportEnding + kind)) ? PathOf(note, ReportEnding + kind) : null;

    /// <summary>Between two sheets: an output that would take the last of the disk ends there, so that edits can still be stored.</summary>
    /// <exception cref="NoRoom">It would.</exception>
    private void Made(Running running, int made)
    {
        if (made < running.Note.Sheets && room.Lacks(0) is { } full) throw full;
        Change(running, note => note with { Made = made });
    }

    private BundleFiles FilesOf(Setup setup) => new(fonts, setup.Press is { } press ? profiles.Find(press.ContentHash) : null);

    /// <summary>Changes what is noted of an output, and keeps it.</summary>
    /// <returns>What is noted now; where the output is gone, what was.</returns>
    public OutputNote Amend(OutputNote note, Func<OutputNote, OutputNote> change)
    {
        if (!_all.TryGetValue(note.Id, out var running)) return note;
        lock (running.Gate)
        {
            // It may have been removed between one line and the other.
            if (!_all.ContainsKey(note.Id)) return note;
            running.Note = change(running.Note);
            Save(running.Note);
            return running.Note;
        }
    }

    private static void Change(Running running, Func<OutputNote, OutputNote> change)
    {
        lock (running.Gate) running.Note = change(running.Note);
    }

    private void End(Running running, Func<OutputNote, OutputNote> change)
    {
        // Old ones make room first, one end after another: nobody who hears of this one finds more than are kept.
        lock (_ends)
        {
            foreach (var old in Of(running.Note.PublicationId).Where(n => !n.IsUnderWay).Skip(MostKept - 1)) Forget(old);
            Amend(running.Note, note => change(note) with { Ended = clock.GetLocalNow() });
        }
    }

    private void Forget(OutputNote note)
    {
        if (!_all.TryRemove(note.Id, out var running)) return;
        lock (running.Gate)
        {
            File.Delete(PathOf(note, FileEnding));
            File.Delete(PathOf(note, NoteEnding));
            ForgetReports(note);
        }
    }

    private void Save(OutputNote note)
    {
        try
        {
            string path = PathOf(note, NoteEnding), aside = path + HalfEnding;
            File.WriteAllText(aside, JsonSerializer.Serialize(note, Json));
            File.Move(aside, path, overwrite: true);
        }
        catch (IOException e)
        {
            // The output itself is what counts; its note is there as long as the server runs.
            log.LogWarning(e, "What is to be noted of an output could not be written");
        }
    }
}
