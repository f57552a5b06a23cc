using System.Net.WebSockets;
using System.Text.Json;
using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Desk.Commands;

namespace Formatum.Web.Desk;

/// <summary>
/// An open line from the Desk to the server for the questions of a drag, many a second: a request of its own for each would take the browser
/// longer than the answer. Nothing is changed through it.
/// </summary>
internal static class HandLine
{
    private const int LongestQuestion = 32_768;

    public static void Map(WebApplication app) => app.MapGet("/publications/{id:int}/desk/{spread:int}/hand",
        async (HttpContext context, int id, int spread, PublicationStore store, IHostApplicationLifetime life) =>
    {
        if (!context.WebSockets.IsWebSocketRequest)
        {
            context.Response.StatusCode = StatusCodes.Status400BadRequest;
            return;
        }
        await store.OpenAsync(id);
        using var ends = CancellationTokenSource.CreateLinkedTokenSource(context.RequestAborted, life.ApplicationStopping);
        using var line = await context.WebSockets.AcceptWebSocketAsync();
        try
        {
            await AnswerAsync(line, store, id, spread, ends.Token);
        }
        catch (Exception e) when (e is OperationCanceledException or WebSocketException)
        {
            // The window was closed, or the server stops.
        }
    }).ExcludeFromDescription();

    private static async Task AnswerAsync(WebSocket line, PublicationStore store, int id, int spread, CancellationToken ends)
    {
        byte[] buffer = new byte[LongestQuestion];
        while (line.State == WebSocketState.Open)
        {
            int length = 0;
            ValueWebSocketReceiveResult received;
            do
            {
                received = await line.ReceiveAsync(buffer.AsMemory(length), ends);
                length += received.Count;
                if (received.MessageType == WebSocketMessageType.Close || (length == buffer.Length && !received.EndOfMessage)) return;
            }
            while (!received.EndOfMessage);
            await line.SendAsync(Answer(await store.OpenAsync(id), spread, buffer.AsSpan(0, length)), WebSocketMessageType.Text, endOfMessage: true, ends);
        }
    }

    /// <summary>The answer as JSON; null where the question is none or nothing can be done. The edit itself then tells why.</summary>
    private static ReadOnlyMemory<byte> Answer(Standing standing, int spread, ReadOnlySpan<byte> text)
    {
        UnderWay? answer = null;
        try
        {
            if (JsonSerializer.Deserialize<HandQuestion>(text, DeskJson.Options) is { Command: IUnderHand asked } question)
                answer = asked.UnderWay(Ground.Of(standing, spread), question.Inside);
        }
        catch (Exception e) when (e is EditRefused or JsonException)
        {
            // Told when the pointer is let go.
        }
        return JsonSerializer.SerializeToUtf8Bytes(answer, DeskJson.Options);
    }
}
