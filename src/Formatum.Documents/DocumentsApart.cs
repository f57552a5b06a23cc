using System.Text.Json;
using System.Text.Json.Serialization;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Imaging.Apart;

namespace Formatum.Documents;

/// <summary>Reads the words of documents, each in a process of its own, which the operating system holds to limits of memory and time. One is read after the
/// other, beside all other work.</summary>
public sealed class DocumentsApart(OwnProgram program) : IDisposable
{
    /// <summary>The word by which the program becomes one that reads a document.</summary>
    public const string Verb = "read-document";

    /// <summary>What it may take of the processor, in seconds: a book of a million characters takes two.</summary>
    private const int MostSeconds = 20;

    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(2);

    private static readonly JsonSerializerOptions Json = new()
    {
        IgnoreReadOnlyProperties = true,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Converters = { new JsonStringEnumConverter() },
    };

    private sealed record Answer(BroughtDocument? Document = null, string? Error = null);

    private readonly SemaphoreSlim _gate = new(1);

    /// <param name="name">The file's name; how it is read goes by its ending.</param>
    /// <param name="content">What is in it.</param>
    /// <param name="cancel">Says that nobody wants it any more.</param>
    /// <exception cref="EditRefused">It cannot be read; the message tells why.</exception>
    public async Task<BroughtDocument> ReadAsync(string name, Stream content, CancellationToken cancel)
    {
        string folder = Directory.CreateTempSubdirectory("formatum-document-").FullName;
        try
        {
            string path = Path.Combine(folder, "document");
            await using (var file = File.Create(path)) await content.CopyToAsync(file, cancel);
            await _gate.WaitAsync(cancel);
            try
            {
                var answer = await OneAnswer.AskAsync(program, [Verb, path, name], Longest, cancel) is { } said ? JsonSerializer.Deserialize<Answer>(said, Json)
                    : null;
                return answer?.Document ?? throw new EditRefused("file", answer?.Error ?? $"{name} could not be read: it is too large, or made so that reading "
                    + "it takes for ever. Save it anew from the program it was made with, or bring it in in parts.");
            }
            finally
            {
                _gate.Release();
            }
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    /// <summary>The other end: reads one document and says what is in it.</summary>
    /// <param name="arguments">Behind the verb: the file, and what it is called.</param>
    public static void Run(string[] arguments)
    {
        ReaderLimits.Take();
        ReaderLimits.Allow(MostSeconds);
        Answer answer;
        try
        {
            answer = new(DocumentReader.Read(arguments[1], File.ReadAllBytes(arguments[0])));
        }
        catch (EditRefused e)
        {
            answer = new(Error: e.Message);
        }
        using var said = Console.OpenStandardOutput();
        JsonSerializer.Serialize(said, answer, Json);
    }

    public void Dispose() => _gate.Dispose();
}
