using System.Collections.Immutable;
using System.Net.WebSockets;
using System.Text.Json;
using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Desk.Commands;
using Formatum.Web.Hosting;

namespace Formatum.Web.Desk;

/// <summary>
/// An open line from the Desk to the server for the questions of a drag, many a second: a request of its own for each would take the browser
/// longer than the answer. Nothing is changed through it.
/// </summary>
internal static class HandLine
{
    /// <summary>A paragraph of a million characters, as it is seen and as it is to be.</summary>
    private const int LongestQuestion = 8 << 20;

    private const int UsualQuestion = 32_768;

    public static void Map(WebApplication app) => app.MapGet("/publications/{id:int}/desk/{spread:int}/hand",
        async (HttpContext context, int id, int spread, string? window, PublicationStore store, ChangeEvents events, Activity activity,
            IHostApplicationLifetime life) =>
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
            var maker = context.Maker() with { Window = window is { Length: <= Makers.LongestWindow } ? window : "" };
            await AnswerAsync(line, store, id, spread, new(events, activity, id, maker), ends.Token);
        }
        catch (Exception e) when (e is OperationCanceledException or WebSocketException)
        {
            // The window was closed, or the server stops.
        }
    }).ExcludeFromDescription();

    private static async Task AnswerAsync(WebSocket line, PublicationStore store, int id, int spread, Presence presence, CancellationToken ends)
    {
        var told = new Dictionary<int, IReadOnlyList<LinePlaces>>();
        byte[] buffer = new byte[UsualQuestion];
        while (line.State == WebSocketState.Open)
        {
            int length = 0;
            ValueWebSocketReceiveResult received;
            do
            {
                received = await line.ReceiveAsync(buffer.AsMemory(length), ends);
                length += received.Count;
                if (received.MessageType == WebSocketMessageType.Close) return;
                if (length < buffer.Length || received.EndOfMessage) continue;
                if (length == LongestQuestion) return;
                Array.Resize(ref buffer, Math.Min(LongestQuestion, 2 * buffer.Length));
            }
            while (!received.EndOfMessage);
            presence.Note();
            long began = TimeProvider.System.GetTimestamp();
            var answer = Answer(await store.OpenAsync(id), spread, buffer.AsSpan(0, length), presence);
            if (answer is { Writing: { } writing }) answer = answer with { Writing = Since(writing, told) };
            if (answer is not null) answer = answer with { Took = Math.Round(TimeProvider.System.GetElapsedTime(began).TotalMilliseconds, 1) };
            await line.SendAsync(JsonSerializer.SerializeToUtf8Bytes(answer, DeskJson.Options), WebSocketMessageType.Text, endOfMessage: true, ends);
        }
    }

    /// <summary>Text with only those of its lines that are other than they were told on this line before.</summary>
    private static TextPlaces Since(TextPlaces writing, Dictionary<int, IReadOnlyList<LinePlaces>> told)
    {
        ImmutableArray<FramePlaces> changed = [.. writing.Frames.Select(f => told.TryGetValue(f.Id, out var before) ? f.Since(before) : f)];
        foreach (var frame in writing.Frames) told[frame.Id] = frame.Lines;
        return writing with { Frames = changed };
    }

    /// <summary>The answer; null where the question is none or nothing can be done. The edit itself then tells why.</summary>
    private static UnderWay? Answer(Standing standing, int spread, ReadOnlySpan<byte> text, Presence presence)
    {
        try
        {
            if (JsonSerializer.Deserialize<HandQuestion>(text, DeskJson.Options) is not { Command: IUnderHand asked } question) return null;
            if (asked is Write { Caret: var caret } write) presence.Tell(DeskView.Ids(write.Frames).FirstOrDefault(), caret);
            return asked.UnderWay(Ground.Of(standing, spread), question.Inside);
        }
        catch (Exception e) when (e is EditRefused or JsonException or NotSupportedException)
        {
            // Told when the pointer is let go.
            return null;
        }
    }

    /// <summary>Tells that somebody is at work, and the other windows where their caret stands.</summary>
    private sealed class Presence(ChangeEvents events, Activity activity, int publicationId, Maker maker)
    {
        private (int Frame, int Place) _told;

        public void Note() => activity.Note(publicationId);

        public void Tell(int frame, int place)
        {
            if (_told == (frame, place)) return;
            _told = (frame, place);
            events.TellCaret(publicationId, new(maker.Window, maker.Name, frame, place));
        }
    }
}
