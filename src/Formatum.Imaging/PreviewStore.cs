using Formatum.Core.Publications;
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

    public static readonly IReadOnlyList<string> Endings = [".jpg", ".png"];

    /// <summary>Stands behind the size in the names of previews that came from elsewhere.</summary>
    private const string Borrowed = "-borrowed";

    /// <summary>The preview of the given size; null where none was made.</summary>
    public string? Find(string contentHash, int size) => FindOwn(contentHash, size) ?? Find(contentHash, size, Borrowed);

    private string? FindOwn(string contentHash, int size) => Find(contentHash, size, "");

    private string? Find(string contentHash, int size, string kind) => Endings.Select(ending => PathOf(contentHash, size, kind + ending))
        .FirstOrDefault(File.Exists);

    /// <summary>The largest preview of a picture as a reference that holds it: an SVG that stands alone may refer to nothing outside itself.</summary>
    /// <exception cref="BadPicture">It is gone.</exception>
    public string Embedded(LinkedImage image)
    {
        string path = Find(image.ContentHash, Sizes[^1]) ?? throw new BadPicture($"The preview of {image.Name} is gone. Link it anew.");
        return $"data:{TypeOf(path)};base64,{Convert.ToBase64String(File.ReadAllBytes(path))}";
    }

    /// <summary>The media type of a preview's file.</summary>
    public static string TypeOf(string path) => path.EndsWith(".png", StringComparison.Ordinal) ? "image/png" : "image/jpeg";

    /// <summary>Removes all there is of a picture.</summary>
    public void Remove(string contentHash)
    {
        string some = Path.GetDirectoryName(PathOf(contentHash, Sizes[0], Endings[0]))!;
        if (!Directory.Exists(some)) return;
        foreach (string file in Directory.EnumerateFiles(some, contentHash + "-*")) File.Delete(file);
    }

    /// <summary>Makes all sizes of a picture that has none yet, from one pass over the file.</summary>
    /// <exception cref="VipsException">The picture is broken.</exception>
    public void Make(string path, string contentHash, string format, bool hasAlpha)
    {
        if (Sizes.All(size => FindOwn(contentHash, size) is not null)) return;
        MakeAll(path, contentHash, format, hasAlpha, "");
    }

    /// <summary>Keeps the largest preview of a picture whose file is not here. It gives way to what the picture itself shows, once that is read.</summary>
    /// <param name="path">The preview, as JPEG or PNG.</param>
    /// <param name="contentHash">Of the picture it shows.</param>
    /// <exception cref="BadPicture">It is no such preview.</exception>
    public void Borrow(string path, string contentHash)
    {
        string format;
        using (var stream = File.OpenRead(path)) format = PictureFormat.Of(stream);
        try
        {
            bool hasAlpha;
            using (var header = format is "jpeg" or "png" ? Vips.Open(path, format) : throw new BadPicture("A preview is JPEG or PNG."))
            {
                if (Math.Max(header.Width, header.Height) > Sizes[^1]) throw new BadPicture($"A preview has {Sizes[^1]} pixels at most on a side.");
                hasAlpha = header.HasAlpha();
            }
            MakeAll(path, contentHash, format, hasAlpha, Borrowed);
        }
        catch (VipsException e)
        {
            throw new BadPicture("The preview is broken.", e);
        }
    }

    private void MakeAll(string path, string contentHash, string format, bool hasAlpha, string kind)
    {
        int largest = Sizes[^1];
        using var read = Vips.Reduced(path, format, largest, largest);
        using var full = read.CopyMemory();
        string ending = kind + (hasAlpha ? ".png" : ".jpg");
        Directory.CreateDirectory(Path.GetDirectoryName(PathOf(contentHash, largest, ending))!);
        // Each is made from the next larger one.
        var source = full;
        foreach (int size in Sizes.Reverse())
        {
            var next = Math.Max(source.Width, source.Height) > size ? Smaller(source, size) : source;
            if (source != full && source != next) source.Dispose();
            source = next;
            Save(source, PathOf(contentHash, size, ending));
        }
        if (source != full) source.Dispose();
    }

    /// <summary>A smaller picture in memory of its own. What is not disposed holds megabytes that the collector knows nothing of.</summary>
    private static Image Smaller(Image source, int size)
    {
        using var thumbnail = source.ThumbnailImage(size, size, size: Enums.Size.Down);
        return thumbnail.CopyMemory();
    }

    /// <summary>Written beside and moved into place, so that no half-written preview is ever found.</summary>
    /// <exception cref="IOException">It could not be written. The picture is all in memory by now, so nothing else can have failed.</exception>
    private static void Save(Image image, string path)
    {
        string ending = Path.GetExtension(path), part = $"{path}.{Guid.NewGuid():n}{ending}";
        try
        {
            if (ending == ".png") image.Pngsave(part, compression: 4, keep: Enums.ForeignKeep.None);
            else image.Jpegsave(part, q: Quality, keep: Enums.ForeignKeep.None);
            File.Move(part, path, overwrite: true);
        }
        catch (VipsException e)
        {
            throw new IOException("A preview could not be written.", e);
        }
        finally
        {
            File.Delete(part);
        }
    }

    private string PathOf(string contentHash, int size, string ending)
    {
        if (contentHash.Length != 64 || !contentHash.All(char.IsAsciiHexDigit)) throw new ArgumentException("A content hash has 64 hexadecimal digits.");
        return Path.Combine(folder, contentHash[..2], $"{contentHash}-{size}{ending}");
    }
}
