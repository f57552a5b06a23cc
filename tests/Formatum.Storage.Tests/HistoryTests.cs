using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Testing;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Formatum.Storage.Tests;

/// <summary>Who did what, who may take back what, and what goes with it.</summary>
public sealed class HistoryTests : IDisposable
{
    private static readonly Setup A4 = new() { Name = "Shared", PageWidth = 595, PageHeight = 842, Bleed = 0, Columns = new(2, 12) };
    private static readonly Maker Anna = new("anna", "Anna", "w1"), Ben = new("ben", "Ben", "w2"), AnnasOther = Anna with { Window = "w3" };

    private readonly TempFolder _folder = new();

    public void Dispose() => _folder.Dispose();

    private PublicationStore Open() => new(_folder["test.db"]);

    private static MakeFrame Frame(double x, int page = 1) => new() { Page = page, Box = new(x, 0, 50, 50) };

    private static ChangeFrames Move(int frame, double x) => new() { FrameIds = [frame], X = x };

    private static int Made(EditOutcome outcome) => outcome.Changes.Items.Single().Key.Id;

    private static async Task<double> X(PublicationStore store, int id, int frame) => (await store.OpenAsync(id)).Publication.Frames[frame].Box.X;

    [Fact]
    public async Task Undo_takes_back_ones_own_last_step_whatever_others_did_since_also_across_a_restart()
    {
        var store = Open();
        int id = (await store.CreateAsync(A4, 2)).Id;
        int one = Made(await store.EditAsync(id, Frame(1), Seen.Now(Anna))), two = Made(await store.EditAsync(id, Frame(2, page: 2), Seen.Now(Ben)));
        await store.EditAsync(id, Move(one, 11), Seen.Now(Anna));
        await store.EditAsync(id, Move(two, 22), Seen.Now(Ben));

        (await store.StepsAsync(id, Anna)).Undo.ShouldBe($"Move frame: Frame {one}, page 1");
        var undone = await Open().UndoAsync(id, Seen.Now(Anna));
        (undone.Words, undone.Touched).ShouldBe(("Undo Move frame", $"Frame {one}, page 1"));
        store = Open();
        (await X(store, id, one)).ShouldBe(1);
        (await X(store, id, two)).ShouldBe(22);
        (await store.StepsAsync(id, Ben)).ShouldBe(new($"Move frame: Frame {two}, page 2", null));
        await store.RedoAsync(id, Seen.Now(Anna));
        (await X(store, id, one)).ShouldBe(11);
        await Should.ThrowAsync<EditRefused>(store.RedoAsync(id, Seen.Now(Anna)));
    }

    [Fact]
    public async Task What_somebody_else_changed_since_is_not_taken_from_them_and_they_are_named()
    {
        var store = Open();
        int id = (await store.CreateAsync(A4, 2)).Id;
        int frame = Made(await store.EditAsync(id, Frame(1), Seen.Now(Anna)));
        await store.EditAsync(id, Move(frame, 11), Seen.Now(Anna));
        await store.EditAsync(id, Move(frame, 22), Seen.Now(Ben));
        var before = await store.OpenAsync(id);
        (await Should.ThrowAsync<EditRefused>(store.UndoAsync(id, Seen.Now(Anna)))).Message.ShouldContain("was changed by Ben since");
        (await store.OpenAsync(id)).ShouldBe(before);

        // Ben's step is taken back by its number; then Anna's own can be.
        var history = await store.HistoryAsync(id);
        history.Select(e => e.MakerName).ShouldBe(["Ben", "Anna", "Anna"]);
        await store.TakeBackAsync(id, history[0].Sequence, Seen.Now(Anna));
        await store.UndoAsync(id, Seen.Now(Anna));
        (await X(store, id, frame)).ShouldBe(1);
        (await store.HistoryAsync(id)).Select(e => e.Undone).ShouldBe([true, true, false]);
        await Should.ThrowAsync<EditRefused>(store.TakeBackAsync(id, history[0].Sequence, Seen.Now(Anna)));
    }

    /// <summary>A frame would else have a look, or a rule, that is not there: it could not be shown, or never changed again.</summary>
    [Fact]
    public async Task What_somebody_put_on_a_frame_since_is_not_taken_away_beneath_it()
    {
        var store = Open();
        int id = (await store.CreateAsync(A4, 2)).Id;
        int frame = Made(await store.EditAsync(id, Frame(1), Seen.Now(Ben)));
        int look = Made(await store.EditAsync(id, new DefineLook { Name = "Faint", Settings = new() { Opacity = 0.5 } }, Seen.Now(Anna)));
        await store.EditAsync(id, new PutLook([frame], look), Seen.Now(Ben));
        (await Should.ThrowAsync<EditRefused>(store.UndoAsync(id, Seen.Now(Anna)))).Message.ShouldContain($"The look Faint is in use: Frame {frame} has it.");
        await store.EditAsync(id, new PutLook([frame], null), Seen.Now(Ben));
        await store.UndoAsync(id, Seen.Now(Anna));
        // Ben's taking it off cannot be undone while the look is not there.
        (await Should.ThrowAsync<EditRefused>(store.UndoAsync(id, Seen.Now(Ben)))).Message.ShouldContain("removed since");
        await store.RedoAsync(id, Seen.Now(Anna));
        await store.UndoAsync(id, Seen.Now(Ben));
        (await store.OpenAsync(id)).Publication.Frames[frame].LookId.ShouldBe(look);

        int rule = Made(await store.EditAsync(id, new DefineRule { Name = "Airy" }, Seen.Now(Anna)));
        await store.EditAsync(id, new DefineRule { Name = "Airier", BasedOnId = rule }, Seen.Now(Ben));
        (await Should.ThrowAsync<EditRefused>(store.UndoAsync(id, Seen.Now(Anna)))).Message.ShouldContain("The rule Airier has it.");
    }

    [Fact]
    public async Task Going_back_is_one_change_can_be_undone_and_a_step_that_is_not_there_changes_nothing()
    {
        var store = Open();
        int id = (await store.CreateAsync(A4, 2)).Id;
        int frame = Made(await store.EditAsync(id, Frame(1), Seen.Now(Anna)));
        for (int i = 2; i <= 5; i++) await store.EditAsync(id, Move(frame, i), Seen.Now(Anna));
        var full = await store.OpenAsync(id);
        foreach (long wrong in new[] { -1L, 6, long.MaxValue }) await Should.ThrowAsync<EditRefused>(store.GoToAsync(id, wrong, Seen.Now(Anna)));
        (await store.OpenAsync(id)).ShouldBe(full);

        var back = await store.GoToAsync(id, 2, Seen.Now(Anna));
        back.Standing.Revision.ShouldBe(full.Revision + 1);
        (await X(Open(), id, frame)).ShouldBe(2);
        await store.GoToAsync(id, 0, Seen.Now(Anna));
        (await store.OpenAsync(id)).Publication.Frames.ShouldBeEmpty();
        await store.UndoAsync(id, Seen.Now(Anna));
        await store.UndoAsync(id, Seen.Now(Anna));
        (await X(Open(), id, frame)).ShouldBe(5);
        // How it stood at any time can be had again, also what was taken back.
        await store.GoToAsync(id, 4, Seen.Now(Anna));
        (await X(Open(), id, frame)).ShouldBe(4);
    }

    [Fact]
    public async Task Going_back_over_what_others_did_is_asked_for_by_name()
    {
        var store = Open();
        int id = (await store.CreateAsync(A4, 2)).Id;
        int frame = Made(await store.EditAsync(id, Frame(1), Seen.Now(Anna)));
        int two = Made(await store.EditAsync(id, Frame(2), Seen.Now(Ben)));
        (await Should.ThrowAsync<EditRefused>(store.GoToAsync(id, 1, Seen.Now(Anna),
            others: false))).Message.ShouldBe($"This also takes back what others did: Ben, Make placeholder: Frame {two}, page 1.");
        await store.GoToAsync(id, 1, Seen.Now(Anna), others: true);
        (await store.OpenAsync(id)).Publication.Frames.Keys.ShouldBe([frame]);
    }

    [Fact]
    public async Task What_one_window_did_is_no_clash_to_itself_and_one_to_every_other()
    {
        var store = Open();
        int id = (await store.CreateAsync(A4, 2)).Id;
        int frame = Made(await store.EditAsync(id, Frame(1), Seen.Now(Anna)));
        long seen = (await store.OpenAsync(id)).Revision;
        // Ten steps begun before the first was answered.
        for (int i = 1; i <= 10; i++) await store.EditAsync(id, Move(frame, i), Seen.At(seen, Anna));
        (await X(store, id, frame)).ShouldBe(10);
        (await Should.ThrowAsync<EditClash>(store.EditAsync(id, Move(frame, 50), Seen.At(seen, AnnasOther)))).Message.ShouldContain("in another window");
        await store.EditAsync(id, Move(frame, 20), Seen.At(seen + 10, Ben));
        // Ben's step lies between: Anna had not seen it, though she was there last before him and after.
        await store.EditAsync(id, Move(frame, 30), Seen.Now(Anna));
        (await Should.ThrowAsync<EditClash>(store.EditAsync(id, Move(frame, 40), Seen.At(seen, Anna)))).Message.ShouldStartWith("Frame ");
    }

    [Fact]
    public async Task A_batch_is_undone_and_done_again_as_one_and_stands_in_the_history_once()
    {
        var store = Open();
        int id = (await store.CreateAsync(A4, 2)).Id;
        for (int i = 1; i <= 4; i++)
        {
            await store.EditAsync(id, Frame(i), Seen.Now(Anna), new("import", $"{i} of them"));
            await store.EditAsync(id, Frame(100 + i), Seen.Now(Ben));
        }
        (await store.HistoryAsync(id)).Where(e => e.MakerName == "Anna").Select(e => e.Touched).ShouldBe(["4 of them"]);
        await store.UndoAsync(id, Seen.Now(Anna));
        (await Open().OpenAsync(id)).Publication.Frames.Values.Select(f => f.Box.X).Order().ShouldBe([101, 102, 103, 104]);
        await store.RedoAsync(id, Seen.Now(Anna));
        (await Open().OpenAsync(id)).Publication.Frames.Count.ShouldBe(8);
        await store.GoToAsync(id, 1, Seen.Now(Anna));
        (await Open().OpenAsync(id)).Publication.Frames.Count.ShouldBe(1);
    }

    [Fact]
    public async Task More_publications_than_are_kept_in_memory_are_edited_at_once_and_none_loses_anything()
    {
        var store = Open();
        var ids = new List<int>();
        for (int i = 0; i < 40; i++) ids.Add((await store.CreateAsync(A4, 1)).Id);
        await Task.WhenAll(Enumerable.Range(0, 200).Select(i => Task.Run(() => store.EditAsync(ids[i % 40], Frame(i), Seen.Now(i % 2 == 0 ? Anna : Ben)))));
        foreach (int id in ids) (await Open().OpenAsync(id)).Publication.Frames.Count.ShouldBe(5);
    }

    [Fact]
    public async Task A_database_from_before_makers_keeps_its_history_and_what_was_undone_can_be_done_again()
    {
        await using (var db = new FormatumDb(FormatumDb.OptionsFor(_folder["test.db"])))
        {
            await db.GetService<IMigrator>().MigrateAsync("20261125153000_PutAway");
            var publication = Publication.Create(A4, 1);
            await db.Database.ExecuteSqlRawAsync("""
                INSERT INTO "Publications" ("Id", "Name", "Revision", "NextId", "JournalPosition", "Changed", "PutAway")
                VALUES (1, 'Old', 7, 9, 2, '2026-11-25 00:00:00+00:00', 0)
                """);
            var frames = Enumerable.Range(2, 4).Select(i => new Frame { Id = i, PageId = 1, Box = new(i, 0, 5, 5) }).ToList();
            foreach (var part in publication.Parts.Concat(frames.Take(2)))
                await db.Database.ExecuteSqlAsync($"""
                    INSERT INTO "Parts" ("PublicationId", "Kind", "PartId", "Revision", "Json")
                    VALUES (1, {(int)part.Key.Kind}, {part.Key.Id}, 3, {PartJson.Write(part)})
                    """);
            foreach (var (frame, i) in frames.Select((f, i) => (f, i)))
                await db.Database.ExecuteSqlAsync($"""
                    INSERT INTO "Journal" ("PublicationId", "Sequence", "Words", "At", "Changes")
                    VALUES (1, {i + 1}, 'Make frame', '2026-11-25 00:00:00+00:00', {PartJson.Write(new Changes([new(frame.Key, null, frame)]))})
                    """);
        }
        var store = Open();
        (await store.HistoryAsync(1)).Select(e => e.Undone).ShouldBe([true, true, false, false]);
        await store.RedoAsync(1, Seen.Now(Anna));
        (await store.OpenAsync(1)).Publication.Frames.Keys.Order().ShouldBe([2, 3, 4]);
        await store.RedoAsync(1, Seen.Now(Ben));
        (await store.OpenAsync(1)).Publication.Frames.Count.ShouldBe(4);
        for (int i = 0; i < 4; i++) await store.UndoAsync(1, Seen.Now(Anna));
        (await store.OpenAsync(1)).Publication.Frames.ShouldBeEmpty();
        (await store.GoToAsync(1, 2, Seen.Now(Anna))).Standing.Publication.Frames.Count.ShouldBe(2);
    }
}
