using System.Collections.Concurrent;
using System.Collections.Immutable;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Microsoft.EntityFrameworkCore;

namespace Formatum.Storage;

/// <summary>A publication as it stands, with what undo and redo would do.</summary>
public sealed record Standing(int Id, Publication Publication, long Revision, string? UndoWords, string? RedoWords);

/// <summary>What an edit, an undo or a redo came to.</summary>
public sealed record EditOutcome(Standing Standing, Changes Changes, string Words);

/// <summary>A publication on the shelf, or put away from it.</summary>
public sealed record ShelfEntry(int Id, string Name, DateTimeOffset Changed, bool PutAway);

/// <summary>One entry of the history.</summary>
public sealed record HistoryEntry(long Sequence, string Words, DateTimeOffset At, bool Undone);

/// <summary>There is no publication of that id.</summary>
public sealed class NoSuchPublication(int id) : Exception($"There is no publication {id}. It may have been removed; look on the shelf.");

/// <summary>What the edit would change was changed by somebody else after the editor last saw it. Nothing was changed.</summary>
public sealed class EditClash(string message) : Exception(message);

/// <summary>The database file could not be written, as when its disk is full. Nothing was changed.</summary>
public sealed class NotStored(Exception cause) : Exception("It could not be stored: the server's disk is full, or closed to it. Nothing was changed. Tell whoever runs the server, and do it again once there is room.", cause);

/// <summary>
/// Keeps publications. Every edit goes through <see cref="Edit"/>: it is checked by the core, journalled and stored in one transaction, and
/// only then answered. One at a time for each publication.
/// </summary>
public sealed class PublicationStore
{
    private readonly DbContextOptions<FormatumDb> _options;
    private readonly ConcurrentDictionary<int, Opened> _opened = new();
    private readonly TimeProvider _clock;

    private sealed class Opened(Standing standing, Dictionary<PartKey, long> partRevisions, long position)
    {
        public SemaphoreSlim Gate { get; } = new(1);
        public Standing Standing { get; set; } = standing;
        public Dictionary<PartKey, long> PartRevisions { get; } = partRevisions;
        public long Position { get; set; } = position;
    }

    /// <summary>Opens the database file, and makes or migrates it first.</summary>
    public PublicationStore(string file, TimeProvider? clock = null)
    {
        _options = FormatumDb.OptionsFor(file);
        _clock = clock ?? TimeProvider.System;
        using var db = new FormatumDb(_options);
        db.Database.Migrate();
        db.Database.ExecuteSqlRaw("PRAGMA journal_mode=WAL");
    }

    /// <summary>Told of every change once it is stored: the publication's id and its standing.</summary>
    public event Action<EditOutcome>? Changed;

    public async Task<IReadOnlyList<ShelfEntry>> ListAsync()
    {
        await using var db = new FormatumDb(_options);
        return await db.Publications.OrderBy(p => p.Id).Select(p => new ShelfEntry(p.Id, p.Name, p.Changed, p.PutAway)).ToListAsync();
    }

    /// <summary>Puts a publication away from the shelf, or brings it back. Nothing of it is lost.</summary>
    /// <exception cref="NoSuchPublication">There is none of that id.</exception>
    /// <exception cref="NotStored">It could not be written.</exception>
    public async Task PutAwayAsync(int id, bool away)
    {
        int found = await WriteAsync(db => db.Publications.Where(p => p.Id == id).ExecuteUpdateAsync(set => set.SetProperty(p => p.PutAway, away)));
        if (found == 0) throw new NoSuchPublication(id);
    }

    /// <exception cref="EditRefused">The set-up is impossible.</exception>
    public async Task<Standing> CreateAsync(Setup setup, int pages)
    {
        return await AddAsync(Publication.Create(setup, pages, await StartingRuleAsync()));
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
        await db.Preferences.AsNoTracking().SingleOrDefaultAsync(p => p.Name == StartingRule) is { } row ? (FittingRule)PartJson.Read(PartKind.Rule, row.Json) : null;

    /// <exception cref="NoSuchPublication">There is none of that id.</exception>
    public async Task<Standing> OpenAsync(int id) => (await OpenedAsync(id)).Standing;

    /// <summary>Makes an edit.</summary>
    /// <param name="id">The publication.</param>
    /// <param name="edit">What to do.</param>
    /// <param name="seen">The revision the editor last saw; null to edit whatever is there.</param>
    /// <exception cref="NoSuchPublication">There is none of that id.</exception>
    /// <exception cref="EditRefused">The core refused it.</exception>
    /// <exception cref="EditClash">A part it changes was changed after that revision.</exception>
    /// <exception cref="NotStored">It could not be written.</exception>
    public Task<EditOutcome> EditAsync(int id, Edit edit, long? seen = null) => ChangeAsync(id, async (db, opened) =>
    {
        var changes = edit.On(opened.Standing.Publication);
        if (changes.IsEmpty) return (changes, edit.Words, opened.Position);
        foreach (var key in changes.Items.Select(c => c.Key))
        {
            if (seen < opened.PartRevisions.GetValueOrDefault(key))
                throw new EditClash($"{Name(opened.Standing.Publication.Find(key))} was changed in another window after this one last saw it. Nothing was changed; look at it as it is now and do it again.");
        }
        await db.Journal.Where(e => e.PublicationId == id && e.Sequence > opened.Position).ExecuteDeleteAsync();
        db.Journal.Add(new() { PublicationId = id, Sequence = opened.Position + 1, Words = edit.Words, At = _clock.GetUtcNow(), Changes = PartJson.Write(changes) });
        return (changes, edit.Words, opened.Position + 1);
    });

    /// <summary>Undoes the last edit that is not undone.</summary>
    /// <exception cref="EditRefused">There is none.</exception>
    public Task<EditOutcome> UndoAsync(int id) => ChangeAsync(id, async (db, opened) =>
    {
        var entry = await db.Journal.FindAsync(id, opened.Position) ?? throw new EditRefused("undo", "There is nothing to undo.");
        return (PartJson.ReadChanges(entry.Changes).Inverse(), "Undo " + entry.Words, opened.Position - 1);
    });

    /// <summary>Does the last undone edit again.</summary>
    /// <exception cref="EditRefused">There is none.</exception>
    public Task<EditOutcome> RedoAsync(int id) => ChangeAsync(id, async (db, opened) =>
    {
        var entry = await db.Journal.FindAsync(id, opened.Position + 1) ?? throw new EditRefused("redo", "There is nothing to redo.");
        return (PartJson.ReadChanges(entry.Changes), "Redo " + entry.Words, opened.Position + 1);
    });

    /// <summary>Undoes, or does again, everything after or up to an entry of the history; 0 for the beginning.</summary>
    /// <exception cref="EditRefused">There is no such entry.</exception>
    public async Task<EditOutcome> GoToAsync(int id, long sequence)
    {
        var opened = await OpenedAsync(id);
        var all = ImmutableArray.CreateBuilder<Change>();
        EditOutcome? last = null;
        while (opened.Position != sequence)
        {
            last = opened.Position > sequence ? await UndoAsync(id) : await RedoAsync(id);
            all.AddRange(last.Changes.Items);
        }
        return last is null ? new(opened.Standing, new([]), "") : last with { Changes = new(all.ToImmutable()) };
    }

    /// <summary>The latest entries of the history, newest first.</summary>
    public async Task<IReadOnlyList<HistoryEntry>> HistoryAsync(int id, int most = 100)
    {
        long position = (await OpenedAsync(id)).Position;
        await using var db = new FormatumDb(_options);
        return await db.Journal.Where(e => e.PublicationId == id).OrderByDescending(e => e.Sequence).Take(most)
            .Select(e => new HistoryEntry(e.Sequence, e.Words, e.At, e.Sequence > position)).ToListAsync();
    }

    private async Task<EditOutcome> ChangeAsync(int id, Func<FormatumDb, Opened, Task<(Changes Changes, string Words, long Position)>> make)
    {
        var opened = await OpenedAsync(id);
        await opened.Gate.WaitAsync();
        EditOutcome outcome;
        try
        {
            long revision = opened.Standing.Revision + 1, position = opened.Position;
            outcome = await WriteAsync(async db =>
            {
                (var changes, string words, position) = await make(db, opened);
                if (changes.IsEmpty) return new(opened.Standing, changes, words);

                var after = opened.Standing.Publication.With(changes);
                var row = db.Publications.Update(new()
                {
                    Id = id,
                    Name = after.Setup.Name,
                    Revision = revision,
                    NextId = after.NextId,
                    JournalPosition = position,
                    Changed = _clock.GetUtcNow(),
                });
                row.Property(p => p.PutAway).IsModified = false;
                await db.SaveChangesAsync();
                await PartTable.WriteAsync(db, id, revision, changes);
                var (undo, redo) = await WordsAround(db, id, position);
                return new EditOutcome(new(id, after, revision, undo, redo), changes, words);
            });
            if (outcome.Changes.IsEmpty) return outcome;
            // Only what is on the disk counts.
            foreach (var change in outcome.Changes.Items) opened.PartRevisions[change.Key] = revision;
            opened.Position = position;
            opened.Standing = outcome.Standing;
        }
        finally
        {
            opened.Gate.Release();
        }
        Changed?.Invoke(outcome);
        return outcome;
    }

    private async Task<Opened> OpenedAsync(int id)
    {
        if (_opened.TryGetValue(id, out var opened)) return opened;
        await using var db = new FormatumDb(_options);
        await using var transaction = await db.Database.BeginTransactionAsync();
        var row = await db.Publications.AsNoTracking().SingleOrDefaultAsync(p => p.Id == id) ?? throw new NoSuchPublication(id);
        var parts = await PartTable.ReadAsync(db, id);
        var (undo, redo) = await WordsAround(db, id, row.JournalPosition);
        var publication = Publication.FromParts(row.NextId, parts.Select(p => p.Part));
        var revisions = parts.ToDictionary(p => p.Part.Key, p => p.Revision);
        return _opened.GetOrAdd(id, new Opened(new(id, publication, row.Revision, undo, redo), revisions, row.JournalPosition));
    }

    /// <summary>Writes in one transaction that is on the disk when it returns, so that an answered edit outlives even a power cut.</summary>
    /// <exception cref="NotStored">It could not be written.</exception>
    private async Task<T> WriteAsync<T>(Func<FormatumDb, Task<T>> write)
    {
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
    }

    private static async Task<(string? Undo, string? Redo)> WordsAround(FormatumDb db, int id, long position)
    {
        var near = await db.Journal.AsNoTracking().Where(e => e.PublicationId == id && (e.Sequence == position || e.Sequence == position + 1))
            .Select(e => new { e.Sequence, e.Words }).ToListAsync();
        return (near.Find(e => e.Sequence == position)?.Words, near.Find(e => e.Sequence == position + 1)?.Words);
    }

    private static PartRow RowOf(int publicationId, Part part, long revision) => new()
    {
        PublicationId = publicationId,
        Kind = part.Key.Kind,
        PartId = part.Key.Id,
        Revision = revision,
        Json = PartJson.Write(part),
    };

    private static string Name(Part? part) => part switch
    {
        Frame f => f.Label,
        LinkedImage i => i.Name,
        FittingRule r => $"The rule {r.Name}",
        PageOrder => "The order of the pages",
        Tray => "The tray",
        Setup => "The publication's set-up",
        _ => "What you edit",
    };
}
