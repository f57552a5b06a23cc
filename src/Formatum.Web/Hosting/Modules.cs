using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Microsoft.Extensions.FileProviders;

namespace Formatum.Web.Hosting;

/// <summary>
/// The script modules of the pages: an import map that gives each the version of its content, so that browsers keep them until they change, and the hash by
/// which the content security policy knows the map.
/// </summary>
public sealed class Modules
{
    private const string Root = "/js";

    private readonly string[] _addresses;

    /// <summary>The import map as it stands in every page.</summary>
    public string Map { get; }

    /// <summary>The map as a source of the content security policy (CSP 3, hash-source).</summary>
    public string MapHash { get; }

    public Modules(IWebHostEnvironment environment)
    {
        var versions = Files(environment.WebRootFileProvider, Root).OrderBy(f => f.Address, StringComparer.Ordinal)
            .ToDictionary(f => f.Address, f => $"{f.Address}?v={Version(f.File)}");
        _addresses = [.. versions.Keys];
        Map = JsonSerializer.Serialize(new { imports = versions });
        MapHash = $"'sha256-{Convert.ToBase64String(SHA256.HashData(Encoding.UTF8.GetBytes(Map)))}'";
        _versions = versions;
    }

    private readonly Dictionary<string, string> _versions;

    /// <summary>A module with the version of its content.</summary>
    public string Address(string module) => _versions[$"{Root}/{module}"];

    /// <summary>The modules below a folder, to be fetched before they are asked for one by another.</summary>
    public IEnumerable<string> Below(string folder) => _addresses.Where(a => a.StartsWith($"{Root}/{folder}/", StringComparison.Ordinal))
        .Select(a => _versions[a]);

    private static IEnumerable<(string Address, IFileInfo File)> Files(IFileProvider files, string folder)
    {
        foreach (var entry in files.GetDirectoryContents(folder))
        {
            if (entry.IsDirectory) foreach (var inner in Files(files, $"{folder}/{entry.Name}")) yield return inner;
            else if (entry.Name.EndsWith(".js", StringComparison.Ordinal)) yield return ($"{folder}/{entry.Name}", entry);
        }
    }

    private static string Version(IFileInfo file)
    {
        using var content = file.CreateReadStream();
        return Convert.ToHexStringLower(SHA256.HashData(content))[..12];
    }
}
