using System.Text.Json;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Microsoft.EntityFrameworkCore;

namespace Formatum.Storage;

/// <summary>
/// Keeps publications. Every edit goes through <see cref="Edit"/>: it is checked by the core, journalled and stored in one transaction, and
/// only then answered. One at a time for each publication.
/// </summary>
public sealed partial class PublicationStore
{
    private readonly DbContextOptions<FormatumDb> _options;
    /// <summary>So many publications are kept in memory; the others are opened when asked for.</summary>
    private const int MostOpen = 24;

    private readonly OpenPublications _opened = new(MostOpen);
    private SemaphoreSlim Writing { get; } = new(1);
    private readonly TimeProvider _clock;

    /// <summary>Opens the database file, and makes it or brings it up to date first. Nobody else may do so meanwhile: see <see cref="DataFolder"/>.</summary>
    /// <param name="file">Where it is, or will be.</param>
    /// <param name="clock">Tells the time of edits.</param>
    /// <param name="say">Takes what whoever runs the server should know.</param>
    /// <exception cref="StartRefused">The file is damaged, newer than this program, or cannot be written.</exception>
    public PublicationStore(string file, TimeProvider? clock = null, Action<string>? say = null)
    {
        DatabaseFile.Prepare(file, say ?? (_ => { }));
        _options = FormatumDb.OptionsFor(file);
        _clock = clock ?? TimeProvider.System;
    }

    /// <summary>The publications that are in memory, the latest used ones.</summary>
    public IEnumerable<Publication> InMemory => _opened.All;

    /// <summary>Told of every change once it is stored: the publication's id and its standing.</summary>
    public event Action<EditOutcome>? Changed;

    public async Task<IReadOnlyList<ShelfEntry>> ListAsync()
    {
        await using var db = new FormatumDb(_options);
        int? library = await LibraryIdAsync(db);
        return await db.Publications.OrderBy(p => p.Id).Select(p => new ShelfEntry(p.Id, p.Name, p.Changed, p.PutAway, p.Revision, p.Id == library))
            .ToListAsync();
    }

    /// <summary>Puts a publication away from the shelf, or brings it back. Nothing of it is lost.</summary>
    /// <exception cref="NoSuchPublication">There is none of that id.</exception>
    /// <exception cref="NotStored">It could not be written.</exception>
    public async Task PutAwayAsync(int id, bool away)
    {
        int found = await WriteAsync(db => db.Publications.Where(p => p.Id == id).ExecuteUpdateAsync(set => set.SetProperty(p => p.PutAway, away)));
        if (found == 0) throw new NoSuchPublication(id);
    }

    /// <summary>Removes a publication that was put away, with its history, for good. Its pictures stay until those that nothing uses are removed.</summary>
    /// <exception cref="NoSuchPublication">There is none of that id, or it was not put away.</exception>
    /// <exception cref="NotStored">It could not be written.</exception>
    public async Task RemoveAsync(int id)
    {
        var opened = await HeldAsync(id);
        try
        {
            await WriteAsync(async db =>
            {
                if (!await db.Publications.AnyAsync(p => p.Id == id && p.PutAway)) throw new NoSuchPublication(id);
                await db.Journal.Where(e => e.PublicationId == id).ExecuteDeleteAsync();
                await db.Parts.Where(p => p.PublicationId == id).ExecuteDeleteAsync();
                return await db.Publications.Where(p => p.Id == id).ExecuteDeleteAsync();
            });
            _opened.Forget(id, opened);
        }
        finally
        {
            opened.Gate.Release();
        }
    }

    /// <summary>The hashes of all pictures and fonts that a publication knows, or knew at any step of its history, to which it may go back.</summary>
    public async Task<IReadOnlySet<string>> KnownFilesAsync()
    {
        await using var db = new FormatumDb(_options);
        var known = new HashSet<string>();
        var written = db.Parts.Where(p => p.Kind == PartKind.Image || p.Kind == PartKind.Font).Select(p => p.Json).AsAsyncEnumerable();
        await foreach (string json in written) AddHashes(json);
        await foreach (string json in db.Journal.Select(e => e.Changes).AsAsyncEnumerable()) AddHashes(json);
        return known;

        void AddHashes(string json)
        {
            foreach (System.Text.RegularExpressions.Match hash in ContentHashes().Matches(json)) known.Add(hash.Groups[1].Value);
        }
    }

    [System.Text.RegularExpressions.GeneratedRegex("\"contentHash\":\"([0-9a-f]{64})\"")]
    private static partial System.Text.RegularExpressions.Regex ContentHashes();

    /// <param name="setup">How it is set up.</param>
    /// <param name="pages">How many pages.</param>
    /// <param name="houseFrom">The publication whose house style it begins with; null for the usual start.</param>
    /// <exception cref="EditRefused">The set-up is impossible.</exception>
    /// <exception cref="NoSuchPublication">There is none to begin with.</exception>
    public async Task<Standing> CreateAsync(Setup setup, int pages, int? houseFrom = null)
    {
        var made = Publication.Create(setup, pages, await StartingRuleAsync());
        return await AddAsync(houseFrom is { } from ? TakeHouseStyle.Begin(made, (await OpenAsync(from)).Publication) : made);
    }

    /// <summary>Puts a publication on the shelf: a new one, a new edition, or one that came in a bundle.</summary>
    /// <exception cref="NotStored">It could not be written.</exception>
    public async Task<Standing> AddAsync(Publication publication)
    {
        var row = new PublicationRow { Name = publication.Setup.Name, Revision = 1, NextId = publication.NextId, Changed = _clock.GetUtcNow() };
        await WriteAsync(async db =>
        {
            db.Publications.Add(row);
            await db.SaveChangesAsync();
            db.Parts.AddRange(publication.Parts.Select(part => RowOf(row.Id, part, 1)));
            return await db.SaveChangesAsync();
        });
        return await OpenAsync(row.Id);
    }

    /// <summary>The house's own library: a publication that holds rules, looks, styles, colours and masters for all others. It is made when it is first asked
    /// for.</summary>
    /// <exception cref="NotStored">It could not be written.</exception>
    public async Task<Standing> LibraryAsync()
    {
        await Library.WaitAsync();
        try
        {
            await using var db = new FormatumDb(_options);
            if (await LibraryIdAsync(db) is { } there) return await OpenAsync(there);
            var paper = PaperSize.Named("A4")!;
            var setup = new Setup { Name = "House library", PageWidth = paper.Width, PageHeight = paper.Height, Facing = true };
            var made = await AddAsync(Publication.Create(setup, 1));
            await WriteAsync(async write =>
            {
                write.Preferences.Add(new() { Name = LibraryPreference, Json = JsonSerializer.Serialize(made.Id) });
                return await write.SaveChangesAsync();
            });
            return made;
        }
        finally
        {
            Library.Release();
        }
    }

    private SemaphoreSlim Library { get; } = new(1);

    private const string LibraryPreference = "library";

    /// <summary>The publication that is the house's library; null where there is none yet.</summary>
    public async Task<int?> LibraryIdAsync()
    {
        await using var db = new FormatumDb(_options);
        return await LibraryIdAsync(db);
    }

    private static async Task<int?> LibraryIdAsync(FormatumDb db) =>
        await db.Preferences.AsNoTracking().SingleOrDefaultAsync(p => p.Name == LibraryPreference) is { } row
            ? JsonSerializer.Deserialize<int>(row.Json) : null;

    /// <summary>The rule that new publications begin with as their default; null where they begin with the built-in settings.</summary>
    public async Task<FittingRule?> StartingRuleAsync()
    {
        await using var db = new FormatumDb(_options);
        return await StartingRuleAsync(db);
    }

    /// <summary>Chooses the rule that new publications begin with; null for none.</summary>
    /// <exception cref="NotStored">It could not be written.</exception>
    public Task ChooseStartingRuleAsync(FittingRule? rule) => WriteAsync(async db =>
    {
        await db.Preferences.Where(p => p.Name == StartingRule).ExecuteDeleteAsync();
        if (rule is not null) db.Preferences.Add(new() { Name = StartingRule, Json = PartJson.Write(rule) });
        return await db.SaveChangesAsync();
    });

    private const string StartingRule = "starting-rule";

    private static async Task<FittingRule?> StartingRuleAsync(FormatumDb db) =>
        await db.Preferences.AsNoTracking().SingleOrDefaultAsync(p => p.Name == StartingRule) is { } row ? PartJson.Read<FittingRule>(PartKind.Rule, row.Json)
            : null;

    /// <exception cref="NoSuchPublication">There is none of that id.</exception>
    public async Task<Standing> OpenAsync(int id) => (await OpenedAsync(id)).Standing;

    /// <summary>Makes an edit.</summary>
    /// <param name="id">The publication.</param>
    /// <param name="edit">What to do.</param>
    /// <param name="seen">Who makes it, and what they had seen when they began.</param>
    /// <param name="batch">The edits it belongs to; null for one of its own.</param>
    /// <exception cref="NoSuchPublication">There is none of that id.</exception>
    /// <exception cref="EditRefused">The core refused it.</exception>
    /// <exception cref="EditClash">Somebody else changed a part that it changes after that revision.</exception>
    /// <exception cref="NotStored">It could not be written.</exception>
    public Task<EditOutcome> EditAsync(int id, Edit edit, Seen seen, EditBatch? batch = null) => ChangeAsync(id, seen, (_, opened) =>
    {
        var publication = opened.Standing.Publication;
        HoldToSeen(opened, edit.RestsOn(publication), seen);
        var changes = edit.On(publication);
        var after = publication.With(changes);
        string touched = batch?.Touched ?? Touched.Words(publication, after, changes);
        return Task.FromResult(new Step(StepKind.Edit, changes, edit.Words, touched)
        {
            After = after,
            Batch = batch?.Id ?? "",
            Merges = key =>
            edit.Merges(publication, key)
        });
    });

    /// <exception cref="EditClash">Somebody else changed one of the parts after that revision.</exception>
    private static void HoldToSeen(OpenPublication opened, IEnumerable<PartKey> changed, Seen seen)
    {
        foreach (var key in changed)
        {
            var mark = opened.Marks.GetValueOrDefault(key);
            if (seen.Revision < mark.LastByOthers(seen.By)) throw ClashOver(opened.Standing.Publication.Find(key), mark.By, seen.By);
        }
    }

    private static EditClash ClashOver(Part? part, Maker? by, Maker maker)
    {
        string who = by is null || by.Id == maker.Id ? "in another window" : $"by {by.Name}";
        return new($"{(part is null ? "What you edit" : PartKinds.Of(part.Key.Kind).Title(part))} was changed {who} after this window last saw it. " +
            $"Nothing was changed; look at it as it is now and do it again.");
    }

    /// <summary>A step on its way into the journal.</summary>
    private sealed record Step(StepKind Kind, Changes Changes, string Words, string Touched)
    {
        /// <summary>The publication as it then is, where that was worked out already.</summary>
        public Publication? After { get; init; }

        /// <summary>Whether what others changed of a part meanwhile stays beside this.</summary>
        public Func<PartKey, bool> Merges { get; init; } = _ => false;

        /// <summary>For undoing and redoing: the entry it is about.</summary>
        public long? Of { get; init; }

        /// <summary>Whether that entry alone says what changes, the other way round or as it is.</summary>
        public bool KeptThere { get; init; }

        /// <summary>For undoing and redoing: all entries that are then taken back, or done again.</summary>
        public IReadOnlyList<long> Turned { get; init; } = [];

        public string Batch { get; init; } = "";
        public string Key { get; init; } = "";
    }

    /// <summary>Makes a step while nobody else changes the publication. Only the writing waits for that of other publications, not what it takes to work the
    /// step out.</summary>
    private async Task<EditOutcome> ChangeAsync(int id, Seen seen, Func<FormatumDb, OpenPublication, Task<Step>> make)
    {
        var (maker, key) = (seen.By, seen.Key);
        var opened = await HeldAsync(id);
        EditOutcome outcome;
        try
        {
            var before = opened.Standing;
            if (await MadeAsync(opened, id, key) is { } made) return made;
            var step = await WorkedOutAsync(opened, key, make);
            if (step.Changes.IsEmpty) return new(before, step.Changes, step.Words, step.Touched);
            HoldToSeen(opened, step.Changes.Items.Select(c => c.Key).Where(k => !step.Merges(k)), seen);
            var after = new Standing(id, step.After ?? before.Publication.With(step.Changes), before.Revision + 1);
            await WriteAsync(async db =>
            {
                await StoreAsync(db, opened, after, step, maker);
                return true;
            });
            // Only what is on the disk counts.
            foreach (var change in step.Changes.Items)
                opened.Marks[change.Key] = opened.Marks.GetValueOrDefault(change.Key).ChangedBy(maker, after.Revision);
            opened.LastSequence++;
            opened.Standing = after;
            opened.Steps.Clear();
            outcome = new(after, step.Changes, step.Words, step.Touched);
        }
        finally
        {
            opened.Gate.Release();
        }
        Changed?.Invoke(outcome);
        return outcome;
    }

    /// <summary>Makes what is sent again, where nobody knew whether it had arrived, once: the second answer is that of the first. Without this, what takes
    /// parts away would find them gone the second time, and be refused.</summary>
    /// <param name="id">The publication.</param>
    /// <param name="seen">Who makes it, under which name.</param>
    /// <param name="make">Makes it.</param>
    public async Task<EditOutcome> OnceAsync(int id, Seen seen, Func<Task<EditOutcome>> make)
    {
        if (await MadeBeforeAsync(id, seen.Key) is { } made) return made;
        try
        {
            return await make();
        }
        catch (EditRefused)
        {
            // The first may have been under way still.
            if (await MadeBeforeAsync(id, seen.Key) is { } late) return late;
            throw;
        }
    }

    private async Task<EditOutcome?> MadeBeforeAsync(int id, string key) => key.Length > 0 ? await MadeAsync(await OpenedAsync(id), id, key) : null;

    /// <summary>What a request of this key came to, where it was made already.</summary>
    private async Task<EditOutcome?> MadeAsync(OpenPublication opened, int id, string key)
    {
        if (key.Length == 0) return null;
        await using var db = new FormatumDb(_options);
        return await db.Journal.AsNoTracking().FirstOrDefaultAsync(e => e.PublicationId == id && e.Key == key) is { } row
            ? new(opened.Standing, await ChangesOfAsync(db, opened, row), row.Words, row.Touched, WasMade: true) : null;
    }

    /// <summary>The step as it goes into the journal.</summary>
    private async Task<Step> WorkedOutAsync(OpenPublication opened, string key, Func<FormatumDb, OpenPublication, Task<Step>> make)
    {
        await using var db = new FormatumDb(_options);
        return await make(db, opened) with { Key = key };
    }

    /// <summary>Writes a step, what it came to, and the publication's new standing, within the transaction under way.</summary>
    /// <exception cref="EditClash">Another server wrote to the same data folder.</exception>
    private async Task StoreAsync(FormatumDb db, OpenPublication opened, Standing after, Step step, Maker maker)
    {
        var (id, publication, revision) = after;
        string changes = PartJson.Write(step.Changes);
        db.Journal.Add(new()
        {
            PublicationId = id,
            Sequence = opened.LastSequence + 1,
            Words = step.Words,
            Touched = step.Touched,
            At = _clock.GetUtcNow(),
            Kind = step.Kind,
            Of = step.Of,
            Maker = maker.Id,
            MakerName = maker.Name,
            Batch = step.Batch,
            Key = step.Key,
            Changes = step.KeptThere ? "" : changes,
        });
        await db.SaveChangesAsync();
        bool undone = step.Kind == StepKind.Undo;
        if (step.Turned.Count > 0)
        {
            await db.Journal.Where(e => e.PublicationId == id && step.Turned.Contains(e.Sequence))
                .ExecuteUpdateAsync(set => set.SetProperty(e => e.Undone, undone));
        }
        int written = await db.Publications.Where(p => p.Id == id && p.Revision == revision - 1).ExecuteUpdateAsync(set => set
            .SetProperty(p => p.Name, publication.Setup.Name).SetProperty(p => p.Revision, revision).SetProperty(p => p.NextId, publication.NextId)
            .SetProperty(p => p.JournalPosition, opened.LastSequence + 1).SetProperty(p => p.Changed, _clock.GetUtcNow()));
        if (written == 0)
        {
            _opened.Forget(id, opened);
            throw new EditClash("Another server changed this publication in the same data folder. Nothing was changed; look at it as it is now and do it " +
                "again.");
        }
        await PartTable.WriteAsync(db, id, revision, step.Changes);
    }

    /// <summary>The publication with its gate taken: nobody else changes it until the gate is let go.</summary>
    private async Task<OpenPublication> HeldAsync(int id)
    {
        for (; ; )
        {
            var opened = await OpenedAsync(id);
            await opened.Gate.WaitAsync();
            if (!opened.IsGone) return opened;
            opened.Gate.Release();
        }
    }

    private async Task<OpenPublication> OpenedAsync(int id)
    {
        if (_opened.Find(id) is { } opened) return opened;
        var (row, parts) = await ReadAsync(id);
        if (parts.Any(p => p.IsNew))
        {
            // A part of an older version became two: both are written before either can be changed.
            await WriteAsync(async db =>
            {
                await PartTable.UpgradeAsync(db, id);
                return true;
            });
            (row, parts) = await ReadAsync(id);
        }
        try
        {
            var publication = Publication.FromParts(row.NextId, parts.Select(p => p.Part));
            var marks = parts.ToDictionary(p => p.Part.Key, p => new PartMark(p.Revision, null, p.Revision));
            return _opened.Add(id, new(new(id, publication, row.Revision), marks, row.JournalPosition));
        }
        catch (Exception e) when (UnreadablePublication.IsOf(e))
        {
            throw new UnreadablePublication(row.Name, e);
        }
    }

    private async Task<(PublicationRow Row, IReadOnlyList<ReadPart> Parts)> ReadAsync(int id)
    {
        await using var db = new FormatumDb(_options);
        await using var transaction = await db.Database.BeginTransactionAsync();
        var row = await db.Publications.AsNoTracking().SingleOrDefaultAsync(p => p.Id == id) ?? throw new NoSuchPublication(id);
        try
        {
            return (row, await PartTable.ReadAsync(db, id));
        }
        catch (Exception e) when (UnreadablePublication.IsOf(e))
        {
            throw new UnreadablePublication(row.Name, e);
        }
    }

    /// <summary>Writes in one transaction that is on the disk when it returns, so that an answered edit outlives even a power cut.</summary>
    /// <exception cref="NotStored">It could not be written.</exception>
    private async Task<T> WriteAsync<T>(Func<FormatumDb, Task<T>> write)
    {
        // SQLite has one writer at a time, and lets others sleep and try again on threads that readers want: they wait here instead, in order.
        await Writing.WaitAsync();
        try
        {
            await using var db = new FormatumDb(_options);
            await db.Database.OpenConnectionAsync();
            await db.Database.ExecuteSqlRawAsync("PRAGMA synchronous=FULL");
            await using var transaction = await db.Database.BeginTransactionAsync();
            var written = await write(db);
            await transaction.CommitAsync();
            return written;
        }
        catch (Exception e) when (FormatumDb.CannotWrite(e))
        {
            throw new NotStored(e);
        }
        finally
        {
            Writing.Release();
        }
    }

    private static PartRow RowOf(int publicationId, Part part, long revision) => new()
    {
        PublicationId = publicationId,
        Kind = part.Key.Kind,
        PartId = part.Key.Id,
        Revision = revision,
        Json = PartJson.Write(part),
    };
}
