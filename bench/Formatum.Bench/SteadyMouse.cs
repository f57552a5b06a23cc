using System.Diagnostics;
using System.Net.Http.Json;
using System.Net.WebSockets;
using System.Text.Json;
using Formatum.Testing;

namespace Formatum.Bench;

/// <summary>A mouse that reports its place 125 times a second, as mice do, and does not wait until the page has seen to it (Chromium's DevTools
/// protocol).</summary>
internal sealed class SteadyMouse : IAsyncDisposable
{
    private static readonly TimeSpan Between = TimeSpan.FromMilliseconds(8);

    private readonly ClientWebSocket _line = new();
    private int _next;

    public static async Task<SteadyMouse> OfAsync(Browser browser)
    {
        var options = (Dictionary<string, object>)browser.Driver.Capabilities.GetCapability("goog:chromeOptions")!;
        using var client = new HttpClient();
        var pages = await client.GetFromJsonAsync<JsonElement>($"http://{options["debuggerAddress"]}/json/list");
        var page = pages.EnumerateArray().Single(p => p.GetProperty("type").GetString() == "page");
        var mouse = new SteadyMouse();
        await mouse._line.ConnectAsync(new(page.GetProperty("webSocketDebuggerUrl").GetString()!), CancellationToken.None);
        _ = mouse.ReadAwayAsync();
        return mouse;
    }

    public async Task MoveAsync(IEnumerable<(double X, double Y)> places)
    {
        var clock = Stopwatch.StartNew();
        int moves = 0;
        foreach (var (x, y) in places)
        {
            var command = new { id = ++_next, method = "Input.dispatchMouseEvent", @params = new { type = "mouseMoved", x, y, button = "left", buttons = 1 } };
            await _line.SendAsync(JsonSerializer.SerializeToUtf8Bytes(command), WebSocketMessageType.Text, endOfMessage: true, CancellationToken.None);
            var due = ++moves * Between;
            if (due > clock.Elapsed) await Task.Delay(due - clock.Elapsed);
        }
    }

    private async Task ReadAwayAsync()
    {
        byte[] answer = new byte[4096];
        try
        {
            while (_line.State == WebSocketState.Open) await _line.ReceiveAsync(answer.AsMemory(), CancellationToken.None);
        }
        catch (Exception e) when (e is WebSocketException or ObjectDisposedException or OperationCanceledException)
        {
            // Put down.
        }
    }

    public ValueTask DisposeAsync()
    {
        _line.Dispose();
        return ValueTask.CompletedTask;
    }
}
