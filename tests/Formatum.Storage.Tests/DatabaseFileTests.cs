using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Testing;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Formatum.Storage.Tests;

/// <summary>What a start makes of the database it finds.</summary>
public sealed class DatabaseFileTests : IDisposable
{
    private readonly TempFolder _folder = new();

    private string File => _folder["formatum.db"];

    public void Dispose() => _folder.Dispose();

    private static readonly Setup A4 = new() { Name = "Kept", PageWidth = 595, PageHeight = 842 };

    private async Task<int> Filled()
    {
        var store = new PublicationStore(File);
        int id = (await store.CreateAsync(A4, 2)).Id;
        await store.EditAsync(id, new MakeFrame { Page = 1, Box = new(0, 0, 90, 60) }, Seen.Now(Maker.Program));
        return id;
    }

    private void Sql(string sql)
    {
        using var connection = new SqliteConnection($"Data Source={File};Pooling=False");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }

    /// <summary>Nobody asks that at a start.</summary>
    [Fact]
    public void The_migrations_lead_to_the_model()
    {
        using var db = new FormatumDb(FormatumDb.OptionsFor(File));
        db.Database.HasPendingModelChanges().ShouldBeFalse();
    }

    private string Refused() => Should.Throw<StartRefused>(() => new PublicationStore(File)).Message;

    [Fact]
    public async Task A_start_that_was_killed_while_it_brought_the_database_up_to_date_does_not_keep_the_next_one_out()
    {
        await using (var db = new FormatumDb(FormatumDb.OptionsFor(File)))
            await db.GetService<IMigrator>().MigrateAsync("20261125153000_PutAway", TestContext.Current.CancellationToken);
        Sql("""
            CREATE TABLE IF NOT EXISTS "__EFMigrationsLock" ("Id" INTEGER NOT NULL PRIMARY KEY, "Timestamp" TEXT NOT NULL);
            INSERT INTO "__EFMigrationsLock" VALUES (1, 'x');
            INSERT INTO "Publications" ("Name", "Revision", "NextId", "JournalPosition", "Changed", "PutAway")
            VALUES ('Kept', 1, 1, 0, '2026-11-26 00:00:00+00:00', 0)
            """);

        var said = new List<string>();
        var store = new PublicationStore(File, say: said.Add);

        (await store.ListAsync()).Single().Name.ShouldBe("Kept");
        said.Single().ShouldContain("Makers");
        var copies = new DirectoryInfo(_folder["before-updates"]).GetFiles();
        copies.Length.ShouldBe(1);
        using var copy = new SqliteConnection($"Data Source={copies[0].FullName};Pooling=False");
        copy.Open();
        using var command = copy.CreateCommand();
        command.CommandText = "SELECT \"Name\" FROM \"Publications\"";
        command.ExecuteScalar().ShouldBe("Kept");
        (await new PublicationStore(File, say: said.Add).ListAsync()).Count.ShouldBe(1);
        said.Count.ShouldBe(1, "nothing was pending the second time");
    }

    [Fact]
    public async Task A_database_of_a_newer_program_is_refused_and_stays_as_it_is()
    {
        await Filled();
        Sql("INSERT INTO \"__EFMigrationsHistory\" VALUES ('20991231000000_Later', '99.0')");
        Refused().ShouldContain("newer Formatum (it knows the step 20991231000000_Later)");
    }

    [Fact]
    public async Task An_empty_damaged_or_foreign_file_where_a_database_was_is_told_and_not_replaced()
    {
        await Filled();
        SqliteConnection.ClearAllPools();
        byte[] whole = await System.IO.File.ReadAllBytesAsync(File, TestContext.Current.CancellationToken);
        byte[] torn = [.. whole];
        // Pages of the tables are overwritten; the head stays.
        Array.Fill(torn, (byte)0xa5, 4096, Math.Min(whole.Length - 4096, 8 * 4096));
        foreach (byte[] bad in new[] { [], "not a database, and longer than a head"u8.ToArray(), whole[..100], torn })
        {
            System.IO.File.Delete(File + "-wal");
            await System.IO.File.WriteAllBytesAsync(File, bad, TestContext.Current.CancellationToken);
            Refused().ShouldContain("is damaged");
            SqliteConnection.ClearAllPools();
            (await System.IO.File.ReadAllBytesAsync(File, TestContext.Current.CancellationToken)).ShouldBe(bad);
        }
        System.IO.File.Delete(File);
        Sql("CREATE TABLE foreigner (id INTEGER)");
        Refused().ShouldContain("it is not a database of Formatum");
    }

    [Fact]
    public void A_database_that_is_gone_from_beside_its_pictures_is_told_and_none_begun()
    {
        Directory.CreateDirectory(_folder["pictures"]);
        Refused().ShouldContain("There is no database");
        System.IO.File.Exists(File).ShouldBeFalse();
    }

    [Fact]
    public async Task A_part_that_says_more_than_this_program_knows_is_refused_and_not_thinned()
    {
        int id = await Filled();
        Sql("""UPDATE "Parts" SET "Json" = replace("Json", '{"version":4,', '{"version":4,"glow":"warm",') WHERE "Kind" = 4""");
        var store = new PublicationStore(File);
        (await Should.ThrowAsync<UnreadablePublication>(store.OpenAsync(id))).Message.ShouldContain("glow");
        (await store.ListAsync()).Count.ShouldBe(1);
    }

    /// <summary>Until the third version of frames, each held its text itself, in its row and in the journal.</summary>
    [Fact]
    public async Task Text_of_the_version_before_becomes_stories_when_it_is_opened_and_its_history_still_leads_back()
    {
        var store = new PublicationStore(File);
        int id = (await store.CreateAsync(A4, 2)).Id;
        await store.EditAsync(id, new MakeFrame { Page = 1, Box = new(0, 0, 90, 60), Text = new([new("A mug", Core.Stories.TextStyle.Usual)]) },
            Seen.Now(Maker.Program));
        int frame = (await store.OpenAsync(id)).Publication.Frames.Keys.Single();
        // The story's number was the frame's in the older version; the text stood in the frame.
        Sql($$"""
            UPDATE "Parts" SET "Json" = replace(replace("Json", '"version":4', '"version":2'), '"storyId":' || json_extract("Json", '$.storyId'),
                '"text":{"paragraphs":[{"text":"A mug","style":{"bold":true} }] }') WHERE "Kind" = 4;
            UPDATE "Journal" SET "Changes" = (SELECT '[{"kind":4,"id":{{frame}},"after":' || "Json" || '}]' FROM "Parts" WHERE "Kind" = 4);
            DELETE FROM "Parts" WHERE "Kind" = 9
            """);
        SqliteConnection.ClearAllPools();

        var opened = await new PublicationStore(File).OpenAsync(id);
        opened.Publication.StoryOf(opened.Publication.Frames[frame])!.Text.Plain.ShouldBe("A mug");
        // What is done to the frame alone does not lose the words.
        store = new(File);
        await store.EditAsync(id, new ChangeFrames { FrameIds = [frame], X = 10 }, Seen.Now(Maker.Program));
        store = new(File);
        var again = (await store.OpenAsync(id)).Publication;
        again.StoryOf(again.Frames[frame])!.Text.Plain.ShouldBe("A mug");
        await store.UndoAsync(id, Seen.Now(Maker.Program));
        await store.UndoAsync(id, Seen.Now(Maker.Program));
        (await store.OpenAsync(id)).Publication.Frames.ShouldBeEmpty();
        (await store.OpenAsync(id)).Publication.Stories.ShouldBeEmpty();
        await store.RedoAsync(id, Seen.Now(Maker.Program));
        (await store.OpenAsync(id)).Publication.Stories.Values.Single().Text.Plain.ShouldBe("A mug");
    }

    [Fact]
    public void Two_processes_never_hold_one_folder()
    {
        using (DataFolder.Take(_folder.Path, "the first server"))
            Should.Throw<StartRefused>(() => DataFolder.Take(_folder.Path, "the second")).Message.ShouldContain("is in use by the first server, process");
        DataFolder.Take(_folder.Path, "the third").Dispose();
    }
}
