using System.Globalization;
using System.Text.Json;
using Formatum.Core.Publications;
using Formatum.Imaging.Apart;

namespace Formatum.Output.Fonts;

/// <summary>
/// Reads fonts that come from outside, each in a process of its own, which the operating system holds to limits of memory and time: a font that ends its
/// reader is refused in words, and the server lives on.
/// </summary>
public sealed class FontsApart(string asideFolder, OwnProgram program)
{
    /// <summary>The word by which the program becomes one that reads a font.</summary>
    public const string Verb = "read-font";

    private const string Ended = "It could not be read: it makes the reader of fonts fail. Get it anew from where it came from, or save it again in the " +
        "program it was made with.";

    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(60);

    private static readonly SemaphoreSlim Places = new(Environment.ProcessorCount);

    /// <summary>What the other process says: the faces, whose files lie aside under their numbers, or why there are none.</summary>
    private sealed record Answer(string[] Faces, string? Error = null);

    /// <exception cref="BadFont">It cannot be used; the message says why.</exception>
    public async Task<IReadOnlyList<ReadFont>> ReadAsync(string path, string name)
    {
        string aside = Path.Combine(asideFolder, $"{Guid.NewGuid():n}.faces");
        Directory.CreateDirectory(aside);
        await Places.WaitAsync();
        try
        {
            var answer = await AskAsync(path, name, aside) ?? throw new BadFont(Ended);
            if (answer.Error is { } error) throw new BadFont(error);
            return [.. answer.Faces.Select((face, i) => new ReadFont(PartJson.Read<OwnFont>(PartKind.Font, face), File.ReadAllBytes(FileIn(aside, i))))];
        }
        finally
        {
            Places.Release();
            Directory.Delete(aside, recursive: true);
        }
    }

    private async Task<Answer?> AskAsync(string path, string name, string aside)
    {
        try
        {
            return await OneAnswer.AskAsync(program, [Verb, path, name, aside], Longest) is { } said ? JsonSerializer.Deserialize<Answer>(said) : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static string FileIn(string folder, int face) => Path.Combine(folder, face.ToString(CultureInfo.InvariantCulture));

    /// <summary>The other end: reads one font and says what it is.</summary>
    /// <param name="arguments">Behind the verb: the file, what it is called, and the folder for its faces.</param>
    public static void Run(string[] arguments)
    {
        ReaderLimits.Take();
        ReaderLimits.Allow(ReaderLimits.ForPicture);
        Answer answer;
        try
        {
            var faces = FontReader.Read(File.ReadAllBytes(arguments[0]), arguments[1]);
            for (int i = 0; i < faces.Count; i++) File.WriteAllBytes(FileIn(arguments[2], i), faces[i].File);
            answer = new([.. faces.Select(f => PartJson.Write(f.Font))]);
        }
        catch (BadFont e)
        {
            answer = new([], e.Message);
        }
        Console.WriteLine(JsonSerializer.Serialize(answer));
    }
}
