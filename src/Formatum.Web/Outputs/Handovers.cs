using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Output.Tickets;
using Formatum.Storage;
using Formatum.Web.Hosting;

namespace Formatum.Web.Outputs;

/// <summary>Hands outputs over, each with a job ticket, while people work on; what comes back is kept with the output.</summary>
public sealed class Handovers(ServerOptions options, OutputJobs jobs, TimeProvider clock, ILogger<Handovers> log) : IDisposable
{
    /// <summary>Of one output no more are kept.</summary>
    public const int MostKept = 20;

    private const int MostAtOnce = 4;

    private readonly SemaphoreSlim _places = new(MostAtOnce);
    private readonly CancellationTokenSource _end = new();

    public IReadOnlyList<Destination> Destinations => options.Destinations;

    public void Dispose()
    {
        _end.Cancel();
        _end.Dispose();
        _places.Dispose();
    }

    /// <summary>Begins to hand an output over.</summary>
    /// <param name="publicationId">Whose output.</param>
    /// <param name="output">Which.</param>
    /// <param name="to">The name of where to.</param>
    /// <param name="wish">What is asked for besides.</param>
    /// <param name="maker">Who does it.</param>
    /// <exception cref="EditRefused">There is no such output or destination, the wish is impossible, or it is on its way already.</exception>
    public OutputNote Begin(int publicationId, string output, string? to, TicketWish wish, Maker maker)
    {
        var errors = new FieldErrors();
        wish.Check(errors);
        errors.ThrowIfAny();
        var destination = Destinations.FirstOrDefault(d => string.Equals(d.Name, to, StringComparison.OrdinalIgnoreCase))
            ?? throw new NoSuchPart("to", Destinations.Count == 0
                ? "This server knows nobody to hand over to. Whoever runs it names them: --handover \"NAME=ADDRESS\"."
                : $"There is no \u201c{to}\u201d to hand over to. There is {string.Join(", ", Destinations.Select(d => d.Name))}.");
        var note = jobs.NoteOf(publicationId, output);
        string file = jobs.FileOf(note);
        if (note.Product is null)
            throw new EditRefused("output", "This output was made before jobs were handed over, and lacks what a ticket says. Make it again.");
        var handover = new Handover { Id = Guid.NewGuid().ToString("n"), To = destination.Name, Wish = wish, Maker = maker, Begun = clock.GetLocalNow() };
        var begun = jobs.Amend(note, now => now.Handovers.Any(h => h.State == HandoverState.Sending && h.To == destination.Name)
            ? throw new EditRefused("to", $"It is on its way to {destination.Name} already. Wait for the answer.")
            : now with { Handovers = [handover, .. now.Handovers.Take(MostKept - 1)] });
        // Opened now: it goes on its way whole, also where the output is removed meanwhile.
        var content = File.OpenRead(file);
        _ = Task.Run(() => SendAsync(begun, handover, destination, content));
        return begun;
    }

    private async Task SendAsync(OutputNote note, Handover handover, Destination destination, FileStream content)
    {
        await using var file = content;
        var ended = handover with { State = HandoverState.Failed };
        try
        {
            await _places.WaitAsync(_end.Token);
            try
            {
                var ticket = TicketOf(note, handover, file.Length);
                ended = destination.Folder is { } folder ? await FolderDelivery.LayAsync(handover, ticket, file, folder, _end.Token)
                    : await WebDelivery.SendAsync(handover, ticket, file, destination.Address!, _end.Token);
            }
            finally
            {
                _places.Release();
            }
        }
        catch (Exception e) when (e is OperationCanceledException or ObjectDisposedException)
        {
            ended = handover.Interrupted();
        }
        catch (Exception e)
        {
            log.LogError(e, "An output was not handed over");
            ended = ended with { Reasons = ["The program met an error of its own. Try again, and tell whoever runs the server if it stays."] };
        }
        ended = ended with { Ended = clock.GetLocalNow() };
        jobs.Amend(note, now => now with { Handovers = [.. now.Handovers.Select(h => h.Id == ended.Id ? ended : h)] });
    }

    private JobTicket TicketOf(OutputNote note, Handover handover, long bytes) => new(string.Create(CultureInfo.InvariantCulture,
        $"F{note.PublicationId}-{note.Id[..8]}"), note.Product!, handover.Wish, new(note.FileName, OutputText.MediaType(note.FileName), bytes, note.Sheets),
        clock.GetLocalNow());
}
