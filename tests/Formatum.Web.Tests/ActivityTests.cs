using System.Net.Http.Json;
using System.Net.WebSockets;
using System.Text;

namespace Formatum.Web.Tests;

/// <summary>What is worked out beside the work waits until people rest.</summary>
public sealed class ActivityTests(Workplace place) : InBrowser(place)
{
    [Fact]
    public async Task Ink_is_measured_where_nobody_acts_and_elsewhere_once_they_rest()
    {
        int[] ids = [await Server.NewPublicationAsync("Worked in", pages: 2), await Server.NewPublicationAsync("Rests", pages: 2)];
        foreach (int id in ids)
        {
            using var chosen = await Server.Client.PutAsJsonAsync($"/api/publications/{id}/check/profile", new { profile = "offset" });
            chosen.EnsureSuccessStatusCode();
        }
        using var line = new ClientWebSocket();
        await line.ConnectAsync(new($"{Server.Address.Replace("http", "ws", StringComparison.Ordinal)}/publications/{ids[0]}/desk/1/hand"), default);
        using var rests = new CancellationTokenSource();
        var acting = ActAsync(line, rests.Token);

        await using var stream = await Server.Client.GetStreamAsync($"/events?of={ids[0]},{ids[1]}");
        using var events = new StreamReader(stream);
        (await FoundAsync(events)).ShouldBe(ids[1]);
        await rests.CancelAsync();
        (await FoundAsync(events)).ShouldBe(ids[0]);
        await acting;
    }

    /// <summary>Asks what a drag would lead to, again and again.</summary>
    private static async Task ActAsync(ClientWebSocket line, CancellationToken rests)
    {
        byte[] question = Encoding.UTF8.GetBytes("{\"inside\":false,\"command\":{\"do\":\"move\",\"frames\":\"1\",\"x\":1,\"y\":1}}"), answer = new byte[1 << 16];
        while (!rests.IsCancellationRequested)
        {
            await line.SendAsync(question, WebSocketMessageType.Text, endOfMessage: true, default);
            await line.ReceiveAsync(answer, default);
        }
    }

    /// <summary>The publication that more is known of.</summary>
    private static async Task<int> FoundAsync(StreamReader events)
    {
        while (await events.ReadLineAsync().WaitAsync(TimeSpan.FromMinutes(2)) != "event: found") { }
        return int.Parse((await events.ReadLineAsync())!["data: ".Length..], System.Globalization.CultureInfo.InvariantCulture);
    }
}
