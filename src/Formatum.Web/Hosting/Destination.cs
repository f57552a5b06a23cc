namespace Formatum.Web.Hosting;

/// <summary>Where outputs can be handed over to, as whoever runs the server names it: a folder of this machine, or an address on the web.</summary>
/// <param name="Name">What people choose it by.</param>
/// <param name="Folder">The folder; null where it is an address.</param>
/// <param name="Address">The address; null where it is a folder.</param>
public sealed record Destination(string Name, string? Folder, Uri? Address)
{
    private const int LongestName = 100;

    /// <param name="text">"NAME=TARGET".</param>
    /// <exception cref="ArgumentException">It names nothing that can be reached; the message says why.</exception>
    public static Destination Of(string text)
    {
        string[] parts = text.Split('=', 2, StringSplitOptions.TrimEntries);
        if (parts.Length < 2 || parts[0].Length is 0 or > LongestName || parts[1].Length == 0)
            throw new ArgumentException($"--handover {text}: give a name and where to, such as " +
                "\"Print shop=https://print.example/jobs\" or \"Print shop=/srv/out\".");
        if (Uri.TryCreate(parts[1], UriKind.Absolute, out var address) && address.Scheme is "http" or "https") return new(parts[0], null, address);
        string folder = Path.GetFullPath(parts[1]);
        return Directory.Exists(folder) ? new(parts[0], folder, null)
            : throw new ArgumentException($"--handover {text}: {parts[1]} is neither a folder of this machine nor an address that begins with http.");
    }
}
