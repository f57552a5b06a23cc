using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;

namespace Formatum.Web.Tests;

/// <summary>What was taken in stays, however the server ends.</summary>
public sealed class ImportKillTests
{
    private const int Count = 60;

    public static TheoryData<bool, int> Endings => new([.. Enumerable.Range(0, KillRoundsTests.Rounds).Select(round => (round % 2 == 0, 3 + 9 * round % 40))]);

    [Theory]
    [MemberData(nameof(Endings))]
    public async Task Every_picture_of_an_answered_import_is_linked_after_the_server_ended_amid_it(bool killed, int done)
    {
        using var server = new TestServer();
        int id = await server.NewPublicationAsync();
        using var folder = new TempFolder();
        byte[] picture = File.ReadAllBytes(TestPictures.Save(TestPictures.Quarters(1600, 1200), folder["large.jpg"]));
        using var form = new MultipartFormDataContent();
        for (int i = 0; i < Count; i++) form.Add(new ByteArrayContent([.. picture, (byte)i]), "files", $"p{i:00}.jpg");
        string job;
        using (var answer = await server.Client.PostAsync($"/api/publications/{id}/imports", form))
            job = (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetString()!;
        // Some are read by now and not linked, some not read.
        Browser.Until(() => server.GetAsync($"/api/publications/{id}/imports/{job}").Result.GetProperty("done").GetInt32() >= done, "some are read");
        if (killed) server.Kill();
        else server.End();
        server.StartAgain();
        Browser.Until(() => server.GetAsync($"/api/publications/{id}/imports/{job}").Result.GetProperty("state").GetString() == "done", "it goes on to its end",
            90);
        var report = (await server.GetAsync($"/api/publications/{id}/imports/{job}")).GetProperty("report").EnumerateArray().ToList();
        report.ShouldAllBe(r => r.GetProperty("error").ValueKind == JsonValueKind.Null);
        (await server.GetAsync($"/api/publications/{id}")).GetProperty("images").GetArrayLength().ShouldBe(Count);
        Directory.EnumerateFiles(Path.Combine(server.DataFolder, "incoming")).ShouldBeEmpty();
        Directory.EnumerateFiles(Path.Combine(server.DataFolder, "pictures"), "*", SearchOption.AllDirectories).Count().ShouldBe(Count);
    }
}
