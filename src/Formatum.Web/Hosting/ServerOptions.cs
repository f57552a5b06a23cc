using System.Globalization;
using System.Net;
using Formatum.Imaging;

namespace Formatum.Web.Hosting;

/// <summary>What whoever runs the server chooses, on the command line or in the environment.</summary>
public sealed record ServerOptions
{
    public const int DefaultPort = 5480;

    /// <summary>Where everything is kept.</summary>
    public required string DataFolder { get; init; }

    public required int Port { get; init; }

    /// <summary>The address to listen on: this machine alone, unless told otherwise.</summary>
    public required IPAddress Listen { get; init; }

    /// <summary>Names, besides this machine's own, under which browsers may ask.</summary>
    public required string[] Hosts { get; init; }

    /// <summary>Folders whose pictures may be linked where they are.</summary>
    public required string[] PictureRoots { get; init; }

    public required PictureLimits Limits { get; init; }

    public bool Demo { get; init; }

    public string DatabaseFile => Path.Combine(DataFolder, "formatum.db");
    public string PreviewFolder => Path.Combine(DataFolder, "previews");
    public string PictureFolder => Path.Combine(DataFolder, "pictures");
    public string IncomingFolder => Path.Combine(DataFolder, "incoming");
    public string KeyFolder => Path.Combine(DataFolder, "keys");

    /// <summary>
    /// --data DIR, --port N, --listen ADDRESS, --hosts A;B, --pictures DIR;DIR, --most-mb N, --demo true.
    /// </summary>
    /// <exception cref="ArgumentException">An option cannot be used; the message says which and why.</exception>
    public static ServerOptions From(IConfiguration configuration)
    {
        int port = Number(configuration, "port", DefaultPort, 0, 65535), mostMb = Number(configuration, "most-mb", 256, 1, 4096);
        string listen = configuration["listen"] ?? "127.0.0.1";
        if (!IPAddress.TryParse(listen, out var address)) throw new ArgumentException($"--listen {listen} is not an IP address.");
        var roots = List(configuration, "pictures").Select(Path.GetFullPath).ToArray();
        foreach (string root in roots.Where(r => !Directory.Exists(r))) throw new ArgumentException($"--pictures {root}: there is no such folder.");
        return new()
        {
            DataFolder = Path.GetFullPath(configuration["data"] is { Length: > 0 } data ? data : "data"),
            Port = port,
            Listen = address,
            Hosts = List(configuration, "hosts"),
            PictureRoots = roots,
            Limits = new((long)mostMb << 20),
            Demo = string.Equals(configuration["demo"], "true", StringComparison.OrdinalIgnoreCase),
        };
    }

    private static string[] List(IConfiguration configuration, string name) =>
        (configuration[name] ?? "").Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);

    private static int Number(IConfiguration configuration, string name, int usual, int least, int most)
    {
        if (configuration[name] is not { Length: > 0 } text) return usual;
        if (int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out int value) && value >= least && value <= most) return value;
        throw new ArgumentException($"--{name} {text}: give a whole number from {least} to {most}.");
    }
}
