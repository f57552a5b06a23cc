using System.Collections.Immutable;
using System.Globalization;
using System.Net.Http.Headers;
using System.Net.Sockets;
using System.Text.Json;
using Formatum.Output.Tickets;

namespace Formatum.Web.Outputs;

/// <summary>Sends an output and its ticket to an address, and reads the answer: docs/handover.md says how both look.</summary>
internal static class WebDelivery
{
    /// <summary>How long it may take to be connected, and to be answered once all is sent.</summary>
    private static readonly TimeSpan Connecting = TimeSpan.FromSeconds(15), Answering = TimeSpan.FromMinutes(15);

    private const int MostAnswerBytes = 256 << 10, MostWords = 50, LongestWords = 500;

    private sealed record Answer(bool? Accepted, string? Job, string[]? Reasons, string[]? Remarks);

    /// <returns>What came of it.</returns>
    public static async Task<Handover> SendAsync(Handover handover, JobTicket ticket, Stream content, Uri address, CancellationToken cancel)
    {
        using var handler = new SocketsHttpHandler
        {
            AllowAutoRedirect = false,
            UseCookies = false,
            ConnectTimeout = Connecting,
            UseProxy = !address.IsLoopback,
        };
        using var client = new HttpClient(handler) { Timeout = Answering, MaxResponseContentBufferSize = MostAnswerBytes };
        using var form = FormOf(ticket, content);
        try
        {
            using var response = await client.PostAsync(address, form, cancel);
            return Read(handover, (int)response.StatusCode, await response.Content.ReadAsStringAsync(cancel));
        }
        // A line that is cut in the moment it is made comes as a SocketException of its own.
        catch (Exception e) when (e is HttpRequestException or SocketException)
        {
            bool wasConnected = (e.InnerException ?? e) is not SocketException && (e as HttpRequestException)?.HttpRequestError
                is not (HttpRequestError.ConnectionError or HttpRequestError.NameResolutionError or HttpRequestError.SecureConnectionError);
            return Failed(handover, wasConnected
                ? $"The line to {handover.To} broke, or what came back was too long. Ask whether it arrived before you send it again."
                : $"{handover.To} could not be reached at {address.Host}. Nothing was sent. Try again later, or tell whoever runs the server.");
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            return Failed(handover, $"{handover.To} did not answer in time. Ask whether it arrived before you send it again.");
        }
    }

    private static MultipartFormDataContent FormOf(JobTicket ticket, Stream content)
    {
        var form = new MultipartFormDataContent();
        void Add(string name, HttpContent part, string type, string file)
        {
            part.Headers.ContentType = new MediaTypeHeaderValue(type);
            form.Add(part, name, file);
        }
        Add("ticket", new ByteArrayContent(ticket.Write()), JobTicket.MediaType, Path.GetFileNameWithoutExtension(ticket.File.Name) + JobTicket.Ending);
        Add("file", new StreamContent(content), ticket.File.MediaType, ticket.File.Name);
        return form;
    }

    private static Handover Read(Handover handover, int status, string text)
    {
        Answer? answer = null;
        try
        {
            answer = JsonSerializer.Deserialize<Answer>(text, JsonSerializerOptions.Web);
        }
        catch (JsonException)
        {
            // What it was instead is told below.
        }
        if (answer is not { Accepted: { } accepted })
            return Failed(handover, string.Create(CultureInfo.InvariantCulture, $"{handover.To} answered with something that is no answer to a job (status ") +
                string.Create(CultureInfo.InvariantCulture, $"{status}). Ask whether it arrived before you send it again, or tell whoever runs the server."));
        return handover with
        {
            State = accepted ? HandoverState.Accepted : HandoverState.Refused,
            Job = Words(answer.Job is null ? null : [answer.Job]).FirstOrDefault(),
            Reasons = accepted ? [] : Words(answer.Reasons) is { IsEmpty: false } reasons ? reasons : ["No reason was given. Ask for it."],
            Remarks = accepted ? [.. Words(answer.Remarks), .. Words(answer.Reasons)] : Words(answer.Remarks),
        };
    }

    /// <summary>What came from outside, no more and no longer than people read.</summary>
    private static ImmutableArray<string> Words(string?[]? words) => [.. (words ?? [])
        .Select(w => new string([.. (w ?? "").Where(c => !char.IsControl(c))]).Trim()).Where(w => w.Length > 0).Take(MostWords)
        .Select(w => w.Length > LongestWords ? w[..LongestWords] + " ..." : w)];

    private static Handover Failed(Handover handover, string reason) => handover with { State = HandoverState.Failed, Reasons = [reason] };
}
