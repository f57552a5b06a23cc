using System.Text;
using System.Text.Json;

namespace Formatum.Web.Hosting;

/// <summary>An option as whoever runs the server gives it.</summary>
/// <param name="Name">Its name, without the dashes.</param>
/// <param name="Value">What its value is, for the help; null where it is a switch.</param>
/// <param name="What">What it does, for the help.</param>
public sealed record Option(string Name, string? Value, string What);

/// <summary>
/// What was chosen: on the command line, else in the environment (FORMATUM_PORT for --port), else in the settings file. Nothing is passed over: a name that
/// is not known, or a value that is missing, is told.
/// </summary>
public static class CommandLine
{
    public const string On = "true";

    public static readonly Option[] Options =
    [
        new("data", "DIR", "where everything is kept: database, previews, pictures brought in (usually ./data)"),
        new("port", "N", "the port; 0 takes any that is free (usually 5480)"),
        new("listen", "ADDRESS", "the address to listen on (usually 127.0.0.1: this machine alone)"),
        new("open", null, "allows an address that others can reach; whoever reaches it may read and change everything"),
        new("hosts", "A;B", "further host names that browsers may ask under"),
        new("public-url", "URL", "the address that browsers use, where a proxy stands before this server"),
        new("proxies", "IP;IP", "proxies whose X-Forwarded-For and X-Forwarded-Proto are believed"),
        new("pictures", "DIR;DIR", "folders whose pictures may be linked where they are"),
        new("handover", "NAME=TO;..", "print shops and systems that outputs are handed over to: a folder, or an address that begins with http"),
        new("most-mb", "N", "the largest picture file taken in (usually 256)"),
        new("heavy", "N", "how many PDFs, PNGs, bundles and the like are made at once (usually by cores and memory)"),
        new("demo", null, "makes the demo publications where they are not there"),
        new("settings", "FILE", "a JSON file with any of these by name (usually formatum.json in the data folder, where there is one)"),
        new("backup", "DIR", "copies database and pictures to a folder, also while a server runs on them, and ends"),
        new("restore", "DIR", "puts such a copy back into the data folder, which must hold no database, and ends"),
        new("help", null, "tells this, and ends"),
    ];

    /// <summary>What is told for --help.</summary>
    public static string Help
    {
        get
        {
            var text = new StringBuilder("Formatum lays out publications with linked pictures, in a browser.\n\n  formatum [options]\n" +
                "  formatum check NAME [--profile NAME] [--data DIR]\n" +
                "      tells what is open in a publication, and ends with 1 where something is\n\n");
            foreach (var (name, value, what) in Options) text.Append($"  {$"--{name} {value}",-20} {what}\n");
            return text.Append("\nEach can also be given in the environment (FORMATUM_PORT=8080) or in the settings file.\n").ToString();
        }
    }

    /// <summary>The options by name; switches that are on hold "true".</summary>
    /// <exception cref="ArgumentException">Something is not known or has no value; the message says what.</exception>
    public static IReadOnlyDictionary<string, string> Read(string[] args, Func<string, string?>? environment = null)
    {
        environment ??= Environment.GetEnvironmentVariable;
        var chosen = Arguments(args);
        foreach (var option in Options)
        {
            if (environment($"FORMATUM_{option.Name.ToUpperInvariant().Replace('-', '_')}") is { Length: > 0 } value) chosen.TryAdd(option.Name, value);
        }
        string usual = Path.Combine(chosen.GetValueOrDefault("data", "data"), "formatum.json");
        string? file = chosen.GetValueOrDefault("settings") ?? (File.Exists(usual) ? usual : null);
        if (file is not null) foreach (var (name, value) in FileSettings(file)) chosen.TryAdd(name, value);
        return chosen;
    }

    private static Dictionary<string, string> Arguments(string[] args)
    {
        var chosen = new Dictionary<string, string>();
        for (int i = 0; i < args.Length; i++)
        {
            string[] parts = args[i].Split('=', 2);
            var option = args[i].StartsWith("--", StringComparison.Ordinal) ? Options.FirstOrDefault(o => o.Name == parts[0][2..]) : null;
            if (option is null) throw new ArgumentException($"There is no option {parts[0]}. --help tells those there are.");
            bool follows = i + 1 < args.Length && !args[i + 1].StartsWith("--", StringComparison.Ordinal);
            chosen[option.Name] = parts.Length == 2 ? parts[1]
                : option.Value is null ? follows && args[i + 1] is "true" or "false" ? args[++i] : On
                : follows ? args[++i] : throw new ArgumentException($"--{option.Name} wants a value: --{option.Name} {option.Value}.");
        }
        return chosen;
    }

    private static IEnumerable<(string Name, string Value)> FileSettings(string file)
    {
        JsonDocument document;
        try
        {
            document = JsonDocument.Parse(File.ReadAllText(file), new() { CommentHandling = JsonCommentHandling.Skip, AllowTrailingCommas = true });
        }
        catch (Exception e) when (e is JsonException or IOException or UnauthorizedAccessException)
        {
            throw new ArgumentException($"The settings file {file} cannot be read: {e.Message}");
        }
        using (document)
        {
            if (document.RootElement.ValueKind != JsonValueKind.Object) throw new ArgumentException($"The settings file {file} is not a JSON object.");
            foreach (var (name, value) in document.RootElement.EnumerateObject())
            {
                if (!Options.Any(o => o.Name == name && o.Name is not ("settings" or "help" or "backup" or "restore")))
                    throw new ArgumentException($"The settings file {file} has \"{name}\", which is no setting. --help tells those there are.");
                yield return (name, value.ValueKind switch
                {
                    JsonValueKind.String => value.GetString()!,
                    JsonValueKind.Array => string.Join(';', value.EnumerateArray().Select(v => v.ToString())),
                    _ => value.GetRawText(),
                });
            }
        }
    }

    private static void Deconstruct(this JsonProperty property, out string name, out JsonElement value) => (name, value) = (property.Name, property.Value);
}
