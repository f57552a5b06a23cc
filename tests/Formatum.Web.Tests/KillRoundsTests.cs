using System.Globalization;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using Formatum.Storage;
using Formatum.Testing;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Formatum.Web.Tests;

/// <summary>
/// The server ended by SIGKILL amid each kind of work, at times from a fixed seed: nothing answered is lost, nothing is half done, the next start works, and
/// what was left over goes. FORMATUM_KILLS gives how many rounds of each, where more are wanted than CI has time for.
/// </summary>
public sealed class KillRoundsTests
{
    internal static readonly int Rounds = int.TryParse(Environment.GetEnvironmentVariable("FORMATUM_KILLS"), CultureInfo.InvariantCulture, out int rounds)
        ? rounds : 3;

    private const int Pictures = 8;

    private readonly Random _random = new(20_261_126);

    private TimeSpan UpTo(int milliseconds) => TimeSpan.FromMilliseconds(_random.Next(milliseconds));

    /// <summary>A publication with pictures in its tray, and one in a frame.</summary>
    private static async Task<int> FilledAsync(TestServer server)
    {
        int id = await server.NewPublicationAsync("Kept", pages: 2, facing: false);
        var sent = await server.UploadAsync(id, [.. Enumerable.Range(0, Pictures).Select(i => ($"p{i}.jpg", ApiTests.Jpeg(300 + i, 200)))]);
        var images = sent.EnumerateArray().Select(i => i.GetProperty("id").GetInt32()).ToArray();
        foreach (int page in new[] { 1, 2 })
            await server.PostAsync($"/api/publications/{id}/frames", new { page, x = 40, y = 40, width = 300, height = 200, name = $"F{page}" });
        using var placed = await server.Client.PatchAsJsonAsync($"/api/publications/{id}/frames/{(await FramesAsync(server, id))[0]}",
            new { imageId = images[0] });
        placed.IsSuccessStatusCode.ShouldBeTrue();
        return id;
    }

    private static async Task<int[]> FramesAsync(TestServer server, int id) => [.. (await server.GetAsync($"/api/publications/{id}")).GetProperty("frames")
        .EnumerateArray().Select(f => f.GetProperty("id").GetInt32())];

    /// <summary>Begins a request, and ends the server a moment after; whether it was answered in full by then.</summary>
    private static async Task<bool> KilledAmidAsync(TestServer server, TimeSpan after, Func<HttpClient, Task<HttpResponseMessage>> ask)
    {
        var asked = Task.Run(async () =>
        {
            using var answer = await ask(server.Client);
            await answer.Content.ReadAsByteArrayAsync();
            return answer.IsSuccessStatusCode;
        });
        await Task.Delay(after);
        server.Kill();
        try
        {
            return await asked;
        }
        catch (Exception e) when (TestServer.WasKilled(e))
        {
            return false;
        }
    }

    private static void NothingIsLeftOver(TestServer server)
    {
        string incoming = Path.Combine(server.DataFolder, "incoming");
        Browser.Until(() => !Directory.Exists(incoming) || !Directory.EnumerateFileSystemEntries(incoming).Any(), "left-overs go");
    }

    [Fact]
    public async Task Amid_its_start()
    {
        using var server = new TestServer();
        int id = await FilledAsync(server);
        string before = await server.Client.GetStringAsync($"/api/publications/{id}");
        server.Kill();
        for (int round = 0; round < Rounds; round++) server.StartAndKill(UpTo(1500));
        server.StartAgain();
        (await server.Client.GetStringAsync($"/api/publications/{id}")).ShouldBe(before);
        (await server.Client.GetAsync($"/publications/{id}/desk/1")).IsSuccessStatusCode.ShouldBeTrue();
    }

    [Fact]
    public async Task Amid_bringing_its_database_up_to_date()
    {
        using var server = new TestServer();
        server.Kill();
        string file = Path.Combine(server.DataFolder, "formatum.db");
        for (int round = 0; round < Rounds; round++)
        {
            foreach (string old in new[] { file, file + "-wal", file + "-shm" }) File.Delete(old);
            await using (var db = new FormatumDb(FormatumDb.OptionsFor(file)))
            {
                await db.GetService<IMigrator>().MigrateAsync("20261125153000_PutAway", TestContext.Current.CancellationToken);
                await db.Database.ExecuteSqlRawAsync("""
                    INSERT INTO "Publications" ("Name", "Revision", "NextId", "JournalPosition", "Changed", "PutAway")
                    VALUES ('Kept', 1, 1, 0, '2026-11-26 00:00:00+00:00', 0)
                    """, TestContext.Current.CancellationToken);
            }
            SqliteConnection.ClearAllPools();
            // The start takes about half a second until it comes to the database.
            server.StartAndKill(TimeSpan.FromMilliseconds(200) + UpTo(1000));
            // What the next start does with the file.
            (await new PublicationStore(file).ListAsync()).Single().Name.ShouldBe("Kept");
            SqliteConnection.ClearAllPools();
        }
        server.StartAgain();
        (await server.GetAsync("/api/publications")).GetArrayLength().ShouldBe(1);
    }

    [Fact]
    public async Task Amid_a_pour()
    {
        using var server = new TestServer();
        int id = await FilledAsync(server);
        for (int round = 0; round < Rounds; round++)
        {
            var before = await server.GetAsync($"/api/publications/{id}");
            bool answered = await KilledAmidAsync(server, UpTo(120), client => client.PostAsJsonAsync($"/api/publications/{id}/pour",
                new
                {
                    imageIds = before.GetProperty("images").EnumerateArray().Select(i => i.GetProperty("id").GetInt32()),
                    fromPage = 2,
                    keepPouring = true
                }));
            server.StartAgain();
            var after = await server.GetAsync($"/api/publications/{id}");
            long steps = after.GetProperty("revision").GetInt64() - before.GetProperty("revision").GetInt64();
            steps.ShouldBeInRange(answered ? 1 : 0, 1);
            int Placed(System.Text.Json.JsonElement publication) => publication.GetProperty("frames").EnumerateArray()
                .Count(f => f.GetProperty("imageId").ValueKind != System.Text.Json.JsonValueKind.Null);
            Placed(after).ShouldBe(Placed(before) + (steps == 1 ? Pictures : 0), "all of it or nothing");
            if (steps == 1) (await server.PostAsync($"/api/publications/{id}/undo", new { })).GetProperty("done").GetString().ShouldNotBeNull();
        }
    }

    [Fact]
    public async Task Amid_a_bundle_on_its_way_out_or_in()
    {
        using var server = new TestServer();
        int id = await FilledAsync(server);
        byte[] bundle = await server.Client.GetByteArrayAsync($"/api/publications/{id}/bundle");
        int there = 1;
        for (int round = 0; round < Rounds; round++)
        {
            bool comesIn = round % 3 > 0;
            bool answered = await KilledAmidAsync(server, UpTo(400), client => comesIn ? SendAsync(client, bundle)
                : client.GetAsync($"/api/publications/{id}/bundle"));
            server.StartAgain();
            var publications = (await server.GetAsync("/api/publications")).EnumerateArray().Select(p => p.GetProperty("id").GetInt32()).ToList();
            publications.Count.ShouldBeInRange(there + (comesIn && answered ? 1 : 0), there + (comesIn ? 1 : 0));
            there = publications.Count;
            foreach (int publication in publications)
            {
                (await server.GetAsync($"/api/publications/{publication}")).GetProperty("images").GetArrayLength().ShouldBe(Pictures);
                (await server.Client.GetByteArrayAsync($"/api/publications/{publication}/pages/1.png?ppi=20")).Length.ShouldBeGreaterThan(0);
            }
            NothingIsLeftOver(server);
        }
    }

    private static Task<HttpResponseMessage> SendAsync(HttpClient client, byte[] bundle)
    {
        var file = new ByteArrayContent(bundle);
        file.Headers.ContentType = new MediaTypeHeaderValue("application/zip");
        return client.PostAsync("/api/bundles", new MultipartFormDataContent { { file, "files", "kept.zip" } });
    }

    [Fact]
    public async Task Amid_an_output()
    {
        using var server = new TestServer();
        int id = await FilledAsync(server);
        for (int round = 0; round < Rounds; round++)
        {
            string output = round % 2 == 0 ? "output.pdf" : "pages/1.png?ppi=300";
            await KilledAmidAsync(server, UpTo(300), client => client.GetAsync($"/api/publications/{id}/{output}"));
            server.StartAgain();
            NothingIsLeftOver(server);
            (await FramesAsync(server, id)).Length.ShouldBe(2);
        }
        (await server.Client.GetByteArrayAsync($"/api/publications/{id}/output.pdf")).Length.ShouldBeGreaterThan(1000);
    }
}
