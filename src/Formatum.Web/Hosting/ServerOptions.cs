using System.Globalization;
using System.Net;
using System.Net.NetworkInformation;
using Formatum.Imaging;

namespace Formatum.Web.Hosting;

/// <summary>What whoever runs the server chooses; <see cref="CommandLine"/> reads it.</summary>
public sealed record ServerOptions
{
    public const int DefaultPort = 5480;

    /// <summary>Where everything is kept.</summary>
    public required string DataFolder { get; init; }

    public required int Port { get; init; }

    /// <summary>The address to listen on: this machine alone, unless told otherwise.</summary>
    public required IPAddress Listen { get; init; }

    /// <summary>The names under which browsers may ask; never all.</summary>
    public required string[] Hosts { get; init; }

    /// <summary>The address that browsers use, where a proxy stands before this server.</summary>
    public Uri? PublicUrl { get; init; }

    /// <summary>Proxies whose word about the one who asks is believed.</summary>
    public required IPAddress[] Proxies { get; init; }

    /// <summary>Folders whose pictures may be linked where they are, by their real paths.</summary>
    public required string[] PictureRoots { get; init; }

    /// <summary>Where outputs can be handed over to.</summary>
    public required Destination[] Destinations { get; init; }

    public required PictureLimits Limits { get; init; }

    /// <summary>How much heavy work runs at once.</summary>
    public required int Heavy { get; init; }

    public bool Demo { get; init; }

    public string DatabaseFile => Path.Combine(DataFolder, "formatum.db");
    public string PreviewFolder => Path.Combine(DataFolder, "previews");
    public string PictureFolder => Path.Combine(DataFolder, "pictures");
    public string FontFolder => Path.Combine(DataFolder, "fonts");
    public string ProfileFolder => Path.Combine(DataFolder, "profiles");
    public string OutputFolder => Path.Combine(DataFolder, "outputs");
    public string ComparedFolder => Path.Combine(DataFolder, "compared");
    public string IncomingFolder => Path.Combine(DataFolder, "incoming");
    public string KeyFolder => Path.Combine(DataFolder, "keys");
    public string LogFolder => Path.Combine(DataFolder, "logs");

    /// <summary>Memory that one piece of heavy work may take, in bytes: a page of the largest size as pixels, with what it is drawn from.</summary>
    private const long MemoryOfOne = 1L << 30;

    /// <exception cref="ArgumentException">An option cannot be used; the message says which and why.</exception>
    public static ServerOptions From(IReadOnlyDictionary<string, string> chosen)
    {
        string listen = chosen.GetValueOrDefault("listen", "127.0.0.1");
        if (!IPAddress.TryParse(listen, out var address)) throw new ArgumentException($"--listen {listen} is not an IP address.");
        if (!IPAddress.IsLoopback(address) && !IsOn(chosen, "open"))
        {
            throw new ArgumentException($"--listen {listen} lets others reach this server, and whoever does may read and change everything: nobody signs " +
                $"in yet. " +
                "Add --open if that is wanted, or leave --listen out.");
        }
        var roots = List(chosen, "pictures").Select(Path.GetFullPath).ToArray();
        foreach (string root in roots.Where(r => !Directory.Exists(r))) throw new ArgumentException($"--pictures {root}: there is no such folder.");
        roots = [.. roots.Select(PictureFile.RealPathOf)];
        int usualHeavy = (int)Math.Clamp(GC.GetGCMemoryInfo().TotalAvailableMemoryBytes / 2 / MemoryOfOne, 1, Environment.ProcessorCount);
        var publicUrl = Url(chosen);
        return new()
        {
            DataFolder = PictureFile.RealPathOf(Path.GetFullPath(chosen.GetValueOrDefault("data", "data"))),
            Port = Number(chosen, "port", DefaultPort, 0, 65535),
            Listen = address,
            Hosts = [.. OwnNames(address), .. List(chosen, "hosts").Select(Host), .. publicUrl is null ? Array.Empty<string>() : [publicUrl.Host]],
            PublicUrl = publicUrl,
            Proxies = [.. List(chosen, "proxies").Select(p => IPAddress.TryParse(p, out var proxy) ? proxy
                : throw new ArgumentException($"--proxies {p} is not an IP address."))],
            PictureRoots = roots,
            Destinations = DestinationsOf(List(chosen, "handover")),
            Limits = new((long)Number(chosen, "most-mb", 256, 1, 4096) << 20),
            Heavy = Number(chosen, "heavy", usualHeavy, 1, 64),
            Demo = IsOn(chosen, "demo"),
        };
    }

    private static Destination[] DestinationsOf(string[] texts)
    {
        Destination[] all = [.. texts.Select(Destination.Of)];
        return all.GroupBy(d => d.Name, StringComparer.OrdinalIgnoreCase).FirstOrDefault(g => g.Count() > 1) is { } twice
            ? throw new ArgumentException($"--handover names {twice.Key} twice. Give each a name of its own.") : all;
    }

    /// <summary>The names of this machine under which a server that listens on an address can be reached.</summary>
    private static IEnumerable<string> OwnNames(IPAddress listen)
    {
        string[] local = ["localhost", "127.0.0.1", "[::1]"];
        if (IPAddress.IsLoopback(listen)) return [.. local, Written(listen)];
        if (!listen.Equals(IPAddress.Any) && !listen.Equals(IPAddress.IPv6Any)) return [.. local, Written(listen)];
        var own = NetworkInterface.GetAllNetworkInterfaces().SelectMany(n => n.GetIPProperties().UnicastAddresses).Select(a => Written(a.Address));
        return [.. local, Dns.GetHostName(), .. own];
    }

    /// <summary>As an address stands in a URL, IPv6 in brackets and without the zone.</summary>
    private static string Written(IPAddress address) => address.AddressFamily == System.Net.Sockets.AddressFamily.InterNetworkV6
        ? $"[{new IPAddress(address.GetAddressBytes())}]" : address.ToString();

    private static string Host(string name) => Uri.CheckHostName(name.Trim('[', ']')) != UriHostNameType.Unknown
        && !name.Contains('*', StringComparison.Ordinal)
        && name is not ("0.0.0.0" or "[::]" or "::") ? name : throw new ArgumentException($"--hosts {name} is not the name of a host.");

    private static Uri? Url(IReadOnlyDictionary<string, string> chosen)
    {
        if (!chosen.TryGetValue("public-url", out string? text)) return null;
        if (Uri.TryCreate(text, UriKind.Absolute, out var url) && url.Scheme is "http" or "https" && url.PathAndQuery == "/") return url;
        throw new ArgumentException($"--public-url {text}: give the address without a path, such as https://layout.example.");
    }

    private static bool IsOn(IReadOnlyDictionary<string, string> chosen, string name) => chosen.TryGetValue(name, out string? value) && value switch
    {
        CommandLine.On => true,
        "false" => false,
        _ => throw new ArgumentException($"--{name} {value}: give true or false, or nothing."),
    };

    private static string[] List(IReadOnlyDictionary<string, string> chosen, string name) =>
        chosen.GetValueOrDefault(name, "").Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);

    private static int Number(IReadOnlyDictionary<string, string> chosen, string name, int usual, int least, int most)
    {
        if (!chosen.TryGetValue(name, out string? text)) return usual;
        if (int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out int value) && value >= least && value <= most) return value;
        throw new ArgumentException($"--{name} {text}: give a whole number from {least} to {most}.");
    }
}
