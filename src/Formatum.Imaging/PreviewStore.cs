using NetVips;

namespace Formatum.Imaging;

/// <summary>
/// Small upright sRGB pictures for the screen, made once and kept by the content of the file they show. Opaque ones are JPEG, others PNG.
/// </summary>
public sealed class PreviewStore(string folder)
{
    /// <summary>Longest sides kept, in pixels: contact sheet, spread, close view.</summary>
    public static readonly IReadOnlyList<int> Sizes = [240, 720, 1600];

    private const int Quality = 82;

    /// <summary>The preview of the given size; null where none was made.</summary>
    public string? Find(string contentHash, int size)
    {
        foreach (string ending in new[] { ".jpg", ".png" })
        {
            string path = PathOf(contentHash, size, ending);
            if (File.Exists(path)) return path;
        }
        return null;
    }

    /// <summary>Makes all sizes of a picture that has none yet, from one pass over the file.</summary>
    /// <exception cref="VipsException">The picture is broken.</exception>
    public void Make(string path, string contentHash, string format, bool hasAlpha)
    {
        if (Sizes.All(size => Find(contentHash, size) is not null)) return;
        int largest = Sizes[^1];
        using var read = Vips.Reduced(path, format, largest, largest);
        using var full = read.CopyMemory();
        string ending = hasAlpha ? ".png" : ".jpg";
        Directory.CreateDirectory(Path.GetDirectoryName(PathOf(contentHash, largest, ending))!);
        var source = full;
        for (int i = Sizes.Count - 1; i >= 0; i--)
        {
            int size = Sizes[i];
            bool smaller = Math.Max(source.Width, source.Height) > size;
            var next = smaller ? source.ThumbnailImage(size, size, size: Enums.Size.Down).CopyMemory() : source;
            Save(next, PathOf(contentHash, size, ending));
            if (smaller && source != full) source.Dispose();
            source = next;
        }
        if (source != full) source.Dispose();
    }

    /// <summary>Written beside and moved into place, so that no half-written preview is ever found.</summary>
    private static void Save(Image image, string path)
    {
        string ending = Path.GetExtension(path), part = $"{path}.{Guid.NewGuid():n}{ending}";
        if (ending == ".png") image.Pngsave(part, compression: 4, keep: Enums.ForeignKeep.None);
        else image.Jpegsave(part, q: Quality, keep: Enums.ForeignKeep.None);
        File.Move(part, path, overwrite: true);
    }

    private string PathOf(string contentHash, int size, string ending)
    {
        if (contentHash.Length != 64 || !contentHash.All(char.IsAsciiHexDigit)) throw new ArgumentException("A content hash has 64 hexadecimal digits.");
        return Path.Combine(folder, contentHash[..2], $"{contentHash}-{size}{ending}");
    }
}
