using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Microsoft.EntityFrameworkCore;

namespace Formatum.Storage;

/// <summary>The history: everything that was done is kept in its order, taking back included, each entry with its maker.</summary>
public sealed partial class PublicationStore
{
    /// <summary>What undo and redo would do for this maker.</summary>
    /// <exception cref="NoSuchPublication">There is none of that id.</exception>
    public async Task<Steps> StepsAsync(int id, Maker maker)
    {
        var opened = await OpenedAsync(id);
        if (opened.Steps.TryGetValue(maker.Id, out var steps)) return steps;
        await using var db = new FormatumDb(_options);
        var undo = await LastDoneAsync(db, id, maker);
        var redo = await LastUndoneAsync(db, id, maker);
        return opened.Steps[maker.Id] = new(undo is null ? null : Told(undo), redo is null ? null : Told(redo));
    }

    private static string Told(JournalRow row) => row.Touched.Length == 0 ? row.Words : $"{row.Words}: {row.Touched}";

    /// <summary>Takes back the maker's own last edit that is not taken back yet, whatever others did meanwhile.</summary>
    /// <exception cref="EditRefused">There is none, or somebody else changed the same since.</exception>
    public Task<EditOutcome> UndoAsync(int id, Seen seen) => ChangeAsync(id, seen, async (db, opened) =>
        await TurnedAsync(db, opened, await LastDoneAsync(db, id, seen.By) ?? throw new EditRefused("undo", NothingToUndo), StepKind.Undo));

    private const string NothingToUndo = "There is nothing of yours to undo. What others did is in the history, and can be taken back there.";

    /// <summary>Takes back one step of the history, one's own or another's.</summary>
    /// <exception cref="EditRefused">There is none of that number, it is taken back, or what it changed was changed since.</exception>
    public Task<EditOutcome> TakeBackAsync(int id, long sequence, Seen seen) => ChangeAsync(id, seen, async (db, opened) =>
        await db.Journal.FindAsync(id, sequence) is { Undone: false, Kind: StepKind.Edit or StepKind.GoTo } row
            ? await TurnedAsync(db, opened, row, StepKind.Undo)
            : throw new EditRefused("undo", "That step is taken back already, or is not in the history. Look at the history again."));

    /// <summary>Does again what the maker took back last.</summary>
    /// <exception cref="EditRefused">There is nothing, or somebody else changed the same since.</exception>
    public Task<EditOutcome> RedoAsync(int id, Seen seen) => ChangeAsync(id, seen, async (db, opened) =>
        await TurnedAsync(db, opened, await LastUndoneAsync(db, id, seen.By) ?? throw new EditRefused("redo", "There is nothing to redo."), StepKind.Redo));

    /// <summary>An entry, with all of its batch, taken back or done again.</summary>
    private static async Task<Step> TurnedAsync(FormatumDb db, OpenPublication opened, JournalRow row, StepKind kind)
    {
        bool undo = kind == StepKind.Undo;
        List<JournalRow> rows = row.Batch.Length == 0 ? [row]
            : await db.Journal.Where(e => e.PublicationId == row.PublicationId && e.Batch == row.Batch && e.Undone == !undo).OrderBy(e => e.Sequence)
                .ToListAsync();
        var together = Together(rows.Select(r => Kept(opened, r.Changes)));
        var changes = Applicable(opened, undo ? together.Inverse() : together, row, undo ? "taken back" : "done again");
        return new Step(kind, changes, $"{kind} {row.Words}", row.Touched)
        {
            Of = row.Sequence,
            KeptThere = rows.Count == 1,
            Turned = [.. rows.Select(r => r.Sequence)],
        };
    }

    /// <summary>Several changes, one after the other, as one.</summary>
    private static Changes Together(IEnumerable<Changes> steps)
    {
        var all = new Dictionary<PartKey, Change>();
        foreach (var change in steps.SelectMany(s => s.Items))
            all[change.Key] = all.TryGetValue(change.Key, out var first) ? first with { After = change.After } : change;
        return new([.. all.Values]);
    }

    /// <summary>The changes, where everything they change is still as they left it, and nothing would be left naming what is not there.</summary>
    /// <exception cref="EditRefused">Something was changed or named since; the message names it and who did.</exception>
    private static Changes Applicable(OpenPublication opened, Changes changes, JournalRow row, string what)
    {
        var publication = opened.Standing.Publication;
        foreach (var (key, before, _) in changes.Items)
        {
            var now = publication.Find(key);
            if (IsSame(now, before ?? (key.Kind == PartKind.Tray ? Tray.Empty : null))) continue;
            string who = opened.Marks.GetValueOrDefault(key).By is { } by && by.Id != row.Maker ? $" by {by.Name}" : "";
            string name = now is null ? "Something it changed was removed" : $"{PartKinds.Of(key.Kind).Title(now)} was changed";
            throw new EditRefused("undo", $"\u201c{Told(row)}\u201d cannot be {what} alone. {name}{who} since. Take that step back first, in the history.");
        }
        if (References.Broken(publication, changes) is not (var naming, var missing)) return changes;
        string user = PartKinds.Of(naming.Key.Kind).Title(naming);
        throw new EditRefused("undo", $"\u201c{Told(row)}\u201d cannot be {what} alone. " + (missing is null
            ? $"{user} would have a rule, look or image that was removed since. Take that step back first, in the history."
            : $"{PartKinds.Of(missing.Key.Kind).Title(missing)} is in use: {user} has it. Take it off there first."));
    }

    /// <summary>By what is kept of them: lists within parts are equal to themselves alone.</summary>
    private static bool IsSame(Part? one, Part? other) => Equals(one, other) || (one is not null && other is not null
        && PartJson.Write(one) == PartJson.Write(other));

    private static Task<JournalRow?> LastDoneAsync(FormatumDb db, int id, Maker maker) => db.Journal
        .Where(e => e.PublicationId == id && (e.Maker == maker.Id || e.Maker == "") && (e.Kind == StepKind.Edit || e.Kind == StepKind.GoTo) && !e.Undone)
        .OrderByDescending(e => e.Sequence).FirstOrDefaultAsync();

    /// <summary>What the maker took back last and has neither done again nor followed by something new.</summary>
    private static async Task<JournalRow?> LastUndoneAsync(FormatumDb db, int id, Maker maker)
    {
        var mine = db.Journal.Where(e => e.PublicationId == id && (e.Maker == maker.Id || e.Maker == ""));
        long fresh = await mine.Where(e => e.Kind == StepKind.Edit || e.Kind == StepKind.GoTo).MaxAsync(e => (long?)e.Sequence) ?? 0;
        return await mine.Where(e => e.Kind == StepKind.Undo && e.Sequence > fresh).OrderByDescending(e => e.Sequence)
            .Select(e => db.Journal.First(of => of.PublicationId == id && of.Sequence == e.Of)).Where(of => of.Undone).FirstOrDefaultAsync();
    }

    /// <summary>Brings the publication back to how it stood right after an entry of the history, as one step that can itself be undone; 0 for the
    /// beginning.</summary>
    /// <param name="id">The publication.</param>
    /// <param name="sequence">The entry.</param>
    /// <param name="seen">Who asks, and what they had seen.</param>
    /// <param name="others">Whether steps of others may go with it. Otherwise they are told by name and nothing is changed.</param>
    /// <exception cref="EditRefused">There is no such entry, or steps of others would go.</exception>
    public Task<EditOutcome> GoToAsync(int id, long sequence, Seen seen, bool others = true) => ChangeAsync(id, seen, async (db, opened) =>
    {
        if (sequence < 0 || sequence > opened.LastSequence) throw new EditRefused("history", "There is no such step in the history. Open the history anew.");
        var later = await db.Journal.AsNoTracking().Where(e => e.PublicationId == id && e.Sequence > sequence).OrderByDescending(e => e.Sequence).ToListAsync();
        if (!others && Foreign(later, seen.By) is { } told) throw new EditRefused("others", told);
        var publication = opened.Standing.Publication;
        var since = new List<Changes>();
        foreach (var row in later) since.Add(await ChangesOfAsync(db, opened, row));
        since.Reverse();
        var changes = Together(since).Inverse();
        changes = new([.. changes.Items.Where(c => !IsSame(c.Before, c.After))]);
        string to = sequence == 0 ? "the beginning" : await db.Journal.Where(e => e.PublicationId == id && e.Sequence == sequence).Select(e => e.Words)
            .SingleAsync();
        return new Step(StepKind.GoTo, changes, $"Go back to {to}", Touched.Words(publication, publication.With(changes), changes));
    });

    /// <summary>The publication as it stood right after an entry of its history; 0 for the beginning.</summary>
    /// <exception cref="EditRefused">There is no such entry.</exception>
    public async Task<Publication> StoodAfterAsync(int id, long sequence)
    {
        var opened = await HeldAsync(id);
        try
        {
            if (sequence < 0 || sequence > opened.LastSequence)
                throw new EditRefused("history", "There is no such step in the history. Open the history anew.");
            await using var db = new FormatumDb(_options);
            var later = await db.Journal.AsNoTracking().Where(e => e.PublicationId == id && e.Sequence > sequence).OrderBy(e => e.Sequence).ToListAsync();
            var since = new List<Changes>();
            foreach (var row in later) since.Add(await ChangesOfAsync(db, opened, row));
            return opened.Standing.Publication.With(Together(since).Inverse());
        }
        finally
        {
            opened.Gate.Release();
        }
    }

    /// <summary>What going back to an entry of the history would take from others, in words; null where nothing.</summary>
    public async Task<string?> OthersSinceAsync(int id, long sequence, Maker maker)
    {
        await using var db = new FormatumDb(_options);
        return Foreign(await db.Journal.AsNoTracking().Where(e => e.PublicationId == id && e.Sequence > sequence).OrderByDescending(e => e.Sequence)
            .ToListAsync(), maker);
    }

    private const int MostToldOfOthers = 5;

    private static string? Foreign(List<JournalRow> rows, Maker maker)
    {
        var foreign = rows.Where(e => !e.Undone && (e.Kind is StepKind.Edit or StepKind.GoTo) && e.Maker.Length > 0 && e.Maker != maker.Id).ToList();
        if (foreign.Count == 0) return null;
        string more = foreign.Count > MostToldOfOthers ? $" and {foreign.Count - MostToldOfOthers} more" : "";
        return $"This also takes back what others did: {string.Join("; ", foreign.Take(MostToldOfOthers).Select(e => $"{e.MakerName}, {Told(e)}"))}{more}.";
    }

    /// <summary>What an entry of the journal changed: undoing and redoing are kept as the entry they are about.</summary>
    private static async Task<Changes> ChangesOfAsync(FormatumDb db, OpenPublication opened, JournalRow row)
    {
        if (row.Changes.Length > 0) return Kept(opened, row.Changes);
        var changes = Kept(opened, await db.Journal.Where(e => e.PublicationId == row.PublicationId && e.Sequence == row.Of).Select(e => e.Changes)
            .SingleAsync());
        return row.Kind == StepKind.Undo ? changes.Inverse() : changes;
    }

    /// <exception cref="UnreadablePublication">They are not what this program writes.</exception>
    private static Changes Kept(OpenPublication opened, string changes)
    {
        try
        {
            return PartJson.ReadChanges(changes);
        }
        catch (Exception e) when (UnreadablePublication.IsOf(e))
        {
            throw new UnreadablePublication(opened.Standing.Publication.Setup.Name, e);
        }
    }

    /// <summary>The latest entries of the history, newest first; what was taken back is among them, and said so.</summary>
    public async Task<IReadOnlyList<HistoryEntry>> HistoryAsync(int id, int most = 100)
    {
        await OpenedAsync(id);
        await using var db = new FormatumDb(_options);
        // Of a batch the last entry stands for all.
        return await db.Journal.Where(e => e.PublicationId == id && (e.Kind == StepKind.Edit || e.Kind == StepKind.GoTo))
            .Where(e => e.Batch == "" || !db.Journal.Any(later => later.PublicationId == id && later.Batch == e.Batch && later.Sequence > e.Sequence))
            .OrderByDescending(e => e.Sequence).Take(most)
            .Select(e => new HistoryEntry(e.Sequence, e.Words, e.Touched, e.At, e.Undone, e.Maker, e.MakerName)).ToListAsync();
    }
}
