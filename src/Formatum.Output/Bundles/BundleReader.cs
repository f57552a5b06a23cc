using System.IO.Compression;
using System.IO.Hashing;
using Formatum.Core.Publications;
using Formatum.Imaging;

namespace Formatum.Output.Bundles;

/// <summary>
/// An opened bundle. Nothing is ever written where a name in it says; what swells, climbs or is cut short is refused before or while it is read.
/// </summary>
public sealed class BundleReader : IDisposable
{
    private const long MostJsonBytes = 256L << 20;

    private const int MostEntries = 150_000;

    /// <summary>Pictures hardly compress, drawings and bare pixels some: what swells more than this, and to more than a few megabytes, is meant to.</summary>
    private const int MostSwelling = 250;

    private const long AlwaysFine = 8L << 20;

    private readonly ZipArchive _zip;
    private readonly Dictionary<string, ZipArchiveEntry> _entries;
    private readonly IReadOnlyDictionary<int, string> _fileOf;
    private readonly PictureLimits _limits;

    /// <summary>The publication; the paths of its images are empty.</summary>
    public Publication Publication { get; }

    private BundleReader(ZipArchive zip, PictureLimits limits)
    {
        (_zip, _limits) = (zip, limits);
        _entries = Listed(zip);
        if (!_entries.ContainsKey(BundleWriter.Json))
            throw new BadBundle("This ZIP is no bundle: there is no publication.json at its top. Pictures alone are brought in on the Desk or the Images " +
                "screen.");
        using var json = new MemoryStream();
        Copy(BundleWriter.Json, json, MostJsonBytes);
        (Publication, _fileOf) = BundleJson.Read(json.GetBuffer().AsMemory(0, (int)json.Length));
        foreach (var (id, file) in _fileOf)
        {
            if (!_entries.ContainsKey(file))
                throw new BadBundle($"The bundle is not whole: {file}, the file of {NameOf(id)}, is not in it. Make it anew where it " +
                    $"came from.");
        }
        if (_fileOf.Values.Distinct().Count() != _fileOf.Count) throw new BadBundle("Two images or fonts of the bundle name the same file.");
    }

    private string NameOf(int id) => Publication.Images.TryGetValue(id, out var image) ? image.Name : Publication.Fonts[id].Name;

    /// <exception cref="BadBundle">It is no bundle, damaged, hostile, or of a newer version.</exception>
    public static BundleReader Open(string path, PictureLimits limits)
    {
        ZipArchive? zip = null;
        try
        {
            zip = ZipFile.OpenRead(path);
            return new(zip, limits);
        }
        catch (Exception e)
        {
            zip?.Dispose();
            if (e is InvalidDataException or EndOfStreamException or NotSupportedException) throw Broken(e);
            throw;
        }
    }

    private static Dictionary<string, ZipArchiveEntry> Listed(ZipArchive zip)
    {
        if (zip.Entries.Count > MostEntries) throw new BadBundle($"The bundle holds {zip.Entries.Count} files; {MostEntries} is the most.");
        var listed = new Dictionary<string, ZipArchiveEntry>();
        foreach (var entry in zip.Entries)
        {
            string name = entry.FullName;
            if (name.StartsWith('/') || name.Contains('\\', StringComparison.Ordinal) || name.Contains(':', StringComparison.Ordinal)
                || name.Any(char.IsControl) || name.Split('/').Contains(".."))
                throw new BadBundle($"The bundle was made to do harm, or damaged: \"{new string([.. name.Take(100).Where(c => !char.IsControl(c))])}\" " +
                    $"leads out of it. It was not opened.");
            if (!listed.TryAdd(name, entry)) throw new BadBundle($"The bundle holds {name} twice. Make it anew where it came from.");
            if (entry.Length > AlwaysFine && entry.Length / MostSwelling > entry.CompressedLength)
                throw new BadBundle($"{name} would swell from {entry.CompressedLength >> 10} KB to {entry.Length >> 20} MB, as no picture does. The " +
                    $"bundle was not opened.");
        }
        return listed;
    }

    /// <summary>How many bytes the files of images and fonts have together, as the bundle says.</summary>
    public long FileBytes => _fileOf.Values.Sum(file => _entries[file].Length);

    /// <summary>Whether the file of an image or font is in the bundle.</summary>
    public bool HasFileOf(int id) => _fileOf.ContainsKey(id);

    /// <summary>Unpacks the file of an image or font to a place of the caller's choosing. One at a time.</summary>
    /// <exception cref="BadBundle">It is larger than allowed, or damaged.</exception>
    public void UnpackFile(int id, string path) => Unpack(_fileOf[id], path);

    /// <summary>Unpacks the preview of an image whose file is not as it was linked.</summary>
    /// <returns>Whether there is one.</returns>
    /// <exception cref="BadBundle">It is larger than allowed, or damaged.</exception>
    public bool TryUnpackPreview(LinkedImage image, string path)
    {
        string? name = PreviewStore.Endings.Select(ending => BundleWriter.PreviewFolder + image.ContentHash + ending).FirstOrDefault(_entries.ContainsKey);
        if (name is null) return false;
        Unpack(name, path);
        return true;
    }

    /// <summary>Unpacks the profile of the publication's press.</summary>
    /// <returns>Whether there is one.</returns>
    /// <exception cref="BadBundle">It is larger than allowed, or damaged.</exception>
    public bool TryUnpackProfile(string path)
    {
        if (Publication.Setup.Press is null || !_entries.ContainsKey(BundleWriter.Profile)) return false;
        Unpack(BundleWriter.Profile, path);
        return true;
    }

    private void Unpack(string name, string path)
    {
        using var file = new FileStream(path, FileMode.CreateNew, FileAccess.Write);
        Copy(name, file, _limits.MostBytes);
    }

    /// <summary>Copies what an entry holds, no more than it says and is allowed, and holds it to its checksum.</summary>
    private void Copy(string name, Stream output, long most)
    {
        var entry = _entries[name];
        if (entry.Length > most) throw new BadBundle($"{name} has {entry.Length >> 20} MB; {most >> 20} MB is the most that is taken in here.");
        try
        {
            using var content = entry.Open();
            var sum = new Crc32();
            byte[] buffer = new byte[1 << 16];
            long total = 0;
            int read;
            while ((read = content.Read(buffer)) > 0)
            {
                if ((total += read) > entry.Length) throw new BadBundle($"{name} holds more than the bundle says. It was not opened.");
                sum.Append(buffer.AsSpan(0, read));
                output.Write(buffer, 0, read);
            }
            if (total != entry.Length || sum.GetCurrentHashAsUInt32() != entry.Crc32) throw Broken(new InvalidDataException($"{name} is not what was packed."));
        }
        catch (Exception e) when (e is InvalidDataException or EndOfStreamException)
        {
            throw Broken(e);
        }
    }

    private static BadBundle Broken(Exception e) => new($"The bundle is damaged or cut short: {e.Message} Copy it again from where it came from.", e);

    public void Dispose() => _zip.Dispose();
}
