using System.Collections.Concurrent;
using System.Security.Cryptography;
using Formatum.Core.Publications;

namespace Formatum.Imaging;

/// <summary>Profiles of presses that were brought in, kept by their contents.</summary>
public sealed class ProfileStore(string folder)
{
    private const string Ending = ".icc";

    private readonly ConcurrentDictionary<string, PressConversion> _presses = new();
    private readonly ConcurrentDictionary<string, string> _tables = new();
    private readonly Lazy<PressConversion> _general = new(() => new(ColourProfile.GeneralPress));

    /// <summary>Keeps a profile that was tried; one of the same content is kept already.</summary>
    /// <param name="path">The file, which stays where it is.</param>
    /// <exception cref="IOException">There is no room for it.</exception>
    public PressProfile Keep(string path)
    {
        var profile = new ColourProfile(path, File.ReadAllBytes(path));
        Directory.CreateDirectory(folder);
        string kept = PathOf(profile.ContentHash), aside = $"{kept}.{Guid.NewGuid():n}";
        try
        {
            File.WriteAllBytes(aside, profile.Bytes);
            File.Move(aside, kept, overwrite: true);
        }
        finally
        {
            File.Delete(aside);
        }
        return Named(profile);
    }

    private PressProfile Named(ColourProfile profile)
    {
        string name = profile.Description.Length > 0 ? profile.Description : "Profile without a name";
        return new(profile.ContentHash, name.Length <= PressProfile.LongestName ? name : name[..PressProfile.LongestName])
        {
            Table = _tables.GetOrAdd(profile.ContentHash, _ => new PressConversion(profile).Table()),
        };
    }

    private string PathOf(string contentHash) => Path.Combine(folder, contentHash + Ending);

    /// <summary>All that are kept, by their names.</summary>
    public IReadOnlyList<PressProfile> All() => !Directory.Exists(folder) ? [] : [.. Directory.GetFiles(folder, "*" + Ending)
        .Select(path => Named(new(path, File.ReadAllBytes(path)))).OrderBy(p => p.Name, StringComparer.OrdinalIgnoreCase)];

    /// <summary>The file of a profile; null where it is not here.</summary>
    public string? Find(string contentHash) =>
        contentHash.All(char.IsAsciiHexDigitLower) && File.Exists(PathOf(contentHash)) ? PathOf(contentHash) : null;

    /// <summary>The press whose inks a publication shows; the general one where its own has gone.</summary>
    public ColourProfile ShownFor(Setup setup) => setup.Press is { } press ? Shown(press.ContentHash) : ColourProfile.GeneralPress;

    /// <summary>A profile by its contents; the general one where it is not here, or no longer what it was.</summary>
    public ColourProfile Shown(string contentHash) => Known(contentHash)?.Press ?? ColourProfile.GeneralPress;

    /// <summary>The press that a publication is made for.</summary>
    /// <exception cref="BadProfile">Its profile is no longer here, or no longer what it was.</exception>
    public PressConversion PressOf(Setup setup)
    {
        if (setup.Press is not { } press) return _general.Value;
        if (Known(press.ContentHash) is { } known) return known;
        throw new BadProfile(Find(press.ContentHash) is null
            ? $"The profile \u201c{press.Name}\u201d of the press is no longer on this server. Bring it in again on Output, or choose another."
            : $"The file of the profile \u201c{press.Name}\u201d was altered on this server. Bring it in again on Output, or choose another.");
    }

    private PressConversion? Known(string contentHash)
    {
        if (_presses.TryGetValue(contentHash, out var known)) return known;
        if (Find(contentHash) is not { } path) return null;
        byte[] bytes = File.ReadAllBytes(path);
        return Convert.ToHexStringLower(SHA256.HashData(bytes)) == contentHash
            ? _presses.GetOrAdd(contentHash, new PressConversion(new(path, bytes))) : null;
    }
}
