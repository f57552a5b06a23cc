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

    private const int Quality = 82, InkQuality = 90;

    /// <summary>Stands in the names of pictures' own inks, and what these end in: with transparency, the second.</summary>
    private const string Inks = "inks";

    private static readonly string[] InkEndings = [".jpg", ".tif"];

    public static readonly IReadOnlyList<string> Endings = [".jpg", ".png"];

    /// <summary>Stands behind the size in the names of previews that came from elsewhere.</summary>
    private const string Borrowed = "-borrowed";

    /// <summary>The preview of the given size; null where none was made.</summary>
    public string? Find(string contentHash, int size) => FindOwn(contentHash, size) ?? Find(contentHash, size, Borrowed);

    private string? FindOwn(string contentHash, int size) => Find(contentHash, size, "");

    private string? Find(string contentHash, int size, string kind) => Endings.Select(ending => PathOf(contentHash, $"{size}{kind}{ending}"))
        .FirstOrDefault(File.Exists);

    /// <summary>The preview of a picture as a press prints it: of one in inks, those inks as they look there; null where none was made.</summary>
    /// <param name="image">The picture.</param>
    /// <param name="size">One of <see cref="Sizes"/>.</param>
    /// <param name="press">The press; null for the general one.</param>
    public string? Find(LinkedImage image, int size, ColourProfile? press) =>
        Find(image.ContentHash, size, image.IsInInks ? press : null);

    /// <summary>The preview of a picture in inks as a press prints them; null where none was made.</summary>
    /// <param name="contentHash">Of the picture.</param>
    /// <param name="size">One of <see cref="Sizes"/>.</param>
    /// <param name="press">The press; null for the general one.</param>
    public string? Find(string contentHash, int size, ColourProfile? press) =>
        press is null || press == ColourProfile.GeneralPress ? Find(contentHash, size) : OnPress(contentHash, size, press);

    /// <summary>Whether a picture's inks are kept, so that it can be shown on any press.</summary>
    public bool HasInks(string contentHash) => InksOf(contentHash) is not null;

    private string? InksOf(string contentHash) => InkEndings.Select(ending => PathOf(contentHash, Inks + ending)).FirstOrDefault(File.Exists);

    private string? OnPress(string contentHash, int size, ColourProfile press)
    {
        if (InksOf(contentHash) is not { } inks) return Find(contentHash, size);
        string kind = $"-{press.ContentHash[..16]}";
        if (Find(contentHash, size, kind) is { } known) return known;
        if (ReadInks(inks, size) is not { } read) return Find(contentHash, size);
        using var own = read;
        using var shown = InkPictures.OnScreen(own, press.Source);
        string made = PathOf(contentHash, $"{size}{kind}{(shown.HasAlpha() ? ".png" : ".jpg")}");
        Save(shown, made);
        return made;
    }

    /// <summary>A picture's kept inks; null where they are damaged. They are made anew with the next look at it.</summary>
    private static Image? ReadInks(string inks, int size)
    {
        try
        {
            using var lazy = InkPictures.Reduced(inks, inks.EndsWith(InkEndings[0], StringComparison.Ordinal) ? "jpeg" : "tiff", size, size);
            return lazy.CopyMemory();
        }
        catch (VipsException)
        {
            File.Delete(inks);
            return null;
        }
    }

    /// <summary>The largest preview of a picture as a reference that holds it: an SVG that stands alone may refer to nothing outside itself.</summary>
    /// <param name="image">The picture.</param>
    /// <param name="press">The press that it is shown for; null for the general one.</param>
    /// <exception cref="BadPicture">It is gone.</exception>
    public string Embedded(LinkedImage image, ColourProfile? press)
    {
        string path = Find(image, Sizes[^1], press) ?? throw new BadPicture($"The preview of {image.Name} is gone. Link it anew.");
        return $"data:{TypeOf(path)};base64,{Convert.ToBase64String(File.ReadAllBytes(path))}";
    }

    /// <summary>The media type of a preview's file.</summary>
    public static string TypeOf(string path) => path.EndsWith(".png", StringComparison.Ordinal) ? "image/png" : "image/jpeg";

    /// <summary>Removes all there is of a picture.</summary>
    public void Remove(string contentHash)
    {
        string some = Path.GetDirectoryName(PathOf(contentHash, ""))!;
        if (!Directory.Exists(some)) return;
        foreach (string file in Directory.EnumerateFiles(some, contentHash + "-*")) File.Delete(file);
    }

    /// <summary>Makes all sizes of a picture that has none yet, from one pass over the file.</summary>
    /// <exception cref="VipsException">The picture is broken.</exception>
    public void Make(LinkedImage image)
    {
        string hash = image.ContentHash;
        if (Sizes.All(size => FindOwn(hash, size) is not null) && (!image.IsInInks || HasInks(hash))) return;
        using var read = image.IsInInks ? KeptInks(image) : Vips.Reduced(image.Path, image.Format, Sizes[^1], Sizes[^1]);
        MakeAll(read, hash, image.HasAlpha, "");
    }

    /// <summary>Keeps the inks of a picture, reduced, and shows them as the general press prints them.</summary>
    private Image KeptInks(LinkedImage image)
    {
        using var read = InkPictures.Reduced(image.Path, image.Format, Sizes[^1], Sizes[^1]);
        using var inks = read.CopyMemory();
        Directory.CreateDirectory(Path.GetDirectoryName(PathOf(image.ContentHash, ""))!);
        Save(inks, PathOf(image.ContentHash, Inks + InkEndings[image.HasAlpha ? 1 : 0]));
        return InkPictures.OnScreen(inks, ColourProfile.GeneralPress.Source);
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
            using var read = Vips.Reduced(path, format, Sizes[^1], Sizes[^1]);
            MakeAll(read, contentHash, hasAlpha, Borrowed);
        }
        catch (VipsException e)
        {
            throw new BadPicture("The preview is broken.", e);
        }
    }

    private void MakeAll(Image read, string contentHash, bool hasAlpha, string kind)
    {
        using var full = read.CopyMemory();
        string ending = kind + (hasAlpha ? ".png" : ".jpg");
        Directory.CreateDirectory(Path.GetDirectoryName(PathOf(contentHash, ""))!);
        // Each is made from the next larger one.
        var source = full;
        foreach (int size in Sizes.Reverse())
        {
            var next = Math.Max(source.Width, source.Height) > size ? Smaller(source, size) : source;
            if (source != full && source != next) source.Dispose();
            source = next;
            Save(source, PathOf(contentHash, $"{size}{ending}"));
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
            var keep = InkPictures.Is(image) ? Enums.ForeignKeep.Icc : Enums.ForeignKeep.None;
            if (ending == ".png") image.Pngsave(part, compression: 4, keep: keep);
            else if (ending == ".tif") image.Tiffsave(part, compression: Enums.ForeignTiffCompression.Deflate, keep: keep);
            else image.Jpegsave(part, q: InkPictures.Is(image) ? InkQuality : Quality, keep: keep);
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

    private string PathOf(string contentHash, string ending)
    {
        if (contentHash.Length != 64 || !contentHash.All(char.IsAsciiHexDigit)) throw new ArgumentException("A content hash has 64 hexadecimal digits.");
        return Path.Combine(folder, contentHash[..2], $"{contentHash}-{ending}");
    }
}
