using System.Net.Http.Json;
using System.Text.Json;

namespace Formatum.Web.Tests;

public sealed class KillTests
{
    [Fact]
    public async Task Every_answered_edit_is_there_after_the_process_was_killed_amid_others()
    {
        using var server = new TestServer();
        int id = await server.NewPublicationAsync();
        var answered = new HashSet<int>();
        for (int round = 0; round < KillRoundsTests.Rounds; round++)
        {
            var edits = Enumerable.Range(0, 4).Select(thread => Task.Run(async () =>
            {
                try
                {
                    for (int i = 0; i < 400; i++)
                    {
                        using var answer = await server.Client.PostAsJsonAsync($"/api/publications/{id}/frames",
                            new { page = 1, x = thread, y = i, width = 10, height = 10 });
                        var frame = JsonSerializer.Deserialize<JsonElement>(await answer.Content.ReadAsStringAsync());
                        lock (answered) answered.Add(frame.GetProperty("id").GetInt32());
                    }
                }
                catch (Exception e) when (TestServer.WasKilled(e) || e is JsonException)
                {
                    // The server was killed under this request: it was not answered, and may or may not be there.
                }
            })).ToArray();
            int goal = answered.Count + 25;
            Formatum.Testing.Browser.Until(() => { lock (answered) return answered.Count >= goal; }, "some edits");
            server.Kill();
            await Task.WhenAll(edits);
            server.StartAgain();
            var there = (await server.GetAsync($"/api/publications/{id}")).GetProperty("frames").EnumerateArray().Select(f => f.GetProperty("id").GetInt32())
                .ToHashSet();
            answered.IsSubsetOf(there).ShouldBeTrue();
            there.Count.ShouldBeLessThanOrEqualTo(answered.Count + 4 * (round + 1));
            answered = there;
        }
        // And the journal still leads back.
        (await server.PostAsync($"/api/publications/{id}/undo", new { })).GetProperty("done").GetString().ShouldBe("Undo Make placeholder");
    }
}
