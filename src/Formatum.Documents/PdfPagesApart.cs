using System.Text.Json;
using Formatum.Imaging.Apart;

namespace Formatum.Documents;

/// <summary>Reads PDFs, each in a process of its own, which the operating system holds to limits of memory and time.</summary>
public sealed class PdfPagesApart(OwnProgram program) : IDisposable
{
    /// <summary>So many are read at once: each may take a gigabyte.</summary>
    private readonly SemaphoreSlim _gate = new(2);

    public void Dispose() => _gate.Dispose();

    /// <summary>The word by which the program becomes one that reads a PDF.</summary>
    public const string Verb = "read-pdf";

    private const string Ended = "It could not be read: it is too large, or makes the reader of PDFs fail. Save it again in the program it was made with.";

    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(5);

    private static readonly JsonSerializerOptions Json = new() { IgnoreReadOnlyProperties = true };

    /// <summary>What the other process says: whether it wrote down the pages, or why not.</summary>
    private sealed record Answer(string? Error = null);

    /// <summary>Reads a PDF. What is on its pages is kept, so that it is read once.</summary>
    /// <param name="path">The file.</param>
    /// <param name="kept">Where what is on its pages is kept; the folder is there.</param>
    /// <param name="cancel">Says that nobody wants it any more.</param>
    /// <exception cref="BadPdf">It cannot be read; the message says why.</exception>
    public async Task<IReadOnlyList<PdfPage>> ReadAsync(string path, string kept, CancellationToken cancel)
    {
        if (!File.Exists(kept))
        {
            string aside = $"{kept}.{Guid.NewGuid():n}";
            try
            {
                if (await AskAsync(path, aside, cancel) is { } error) throw new BadPdf(error);
                File.Move(aside, kept, overwrite: true);
            }
            finally
            {
                File.Delete(aside);
            }
        }
        await using var file = File.OpenRead(kept);
        return (await JsonSerializer.DeserializeAsync<PdfPage[]>(file, Json, cancel))!;
    }

    /// <returns>Why it cannot be read; null where it was.</returns>
    private async Task<string?> AskAsync(string path, string to, CancellationToken cancel)
    {
        await _gate.WaitAsync(cancel);
        try
        {
            return await OneAnswer.AskAsync(program, [Verb, path, to], Longest, cancel) is { } said ? JsonSerializer.Deserialize<Answer>(said)!.Error : Ended;
        }
        catch (JsonException)
        {
            return Ended;
        }
        finally
        {
            _gate.Release();
        }
    }

    /// <summary>The other end: reads one PDF and writes down what is on its pages.</summary>
    /// <param name="arguments">Behind the verb: the file, and where to write.</param>
    public static void Run(string[] arguments)
    {
        ReaderLimits.Take();
        var answer = new Answer();
        try
        {
            var pages = PdfPages.Read(arguments[0], () => ReaderLimits.Allow(ReaderLimits.ForPicture));
            using var file = File.Create(arguments[1]);
            JsonSerializer.Serialize(file, pages, Json);
        }
        catch (BadPdf e)
        {
            answer = new(e.Message);
        }
        Console.WriteLine(JsonSerializer.Serialize(answer));
    }
}
