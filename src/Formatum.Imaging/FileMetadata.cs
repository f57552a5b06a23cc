using MetadataExtractor;
using MetadataExtractor.Formats.Exif;
using MetadataExtractor.Formats.Iptc;
using MetadataExtractor.Formats.Xmp;

namespace Formatum.Imaging;

/// <summary>What a picture file says about itself in words; null where it does not.</summary>
internal sealed record Description(string? Title, string? Caption, string? Credit)
{
    /// <summary>More than this is no caption; the rest is left out.</summary>
    private const int Longest = 2000;

    /// <summary>
    /// XMP (dc:title, dc:description, Credit Line), else IPTC-IIM (2:5 Object Name, 2:120 Caption, 2:110 Credit), else EXIF (270 ImageDescription): the
    /// fields that the IPTC Photo Metadata Standard names for each.
    /// </summary>
    public static Description Of(IReadOnlyList<MetadataExtractor.Directory> all)
    {
        var xmp = FileMetadata.Tried(() => all.OfType<XmpDirectory>().SelectMany(x => x.GetXmpProperties()).GroupBy(p => p.Key)
            .ToDictionary(g => g.Key, g => g.First().Value), []);
        var iptc = all.OfType<IptcDirectory>().FirstOrDefault();
        return new(
            First(xmp.GetValueOrDefault("dc:title[1]"), iptc?.GetString(IptcDirectory.TagObjectName)),
            First(xmp.GetValueOrDefault("dc:description[1]"), iptc?.GetString(IptcDirectory.TagCaption), all.OfType<ExifIfd0Directory>()
                .FirstOrDefault()?.GetString(ExifDirectoryBase.TagImageDescription)),
            First(xmp.FirstOrDefault(p => p.Key.EndsWith(":Credit", StringComparison.Ordinal)).Value, iptc?.GetString(IptcDirectory.TagCredit)));
    }

    private static string? First(params string?[] texts)
    {
        string? found = texts.Select(t => t?.Trim().Trim('\0')).FirstOrDefault(t => !string.IsNullOrEmpty(t));
        return found is { Length: > Longest } ? found[..Longest] : found;
    }
}

/// <summary>The metadata that a picture file carries.</summary>
internal static class FileMetadata
{
    /// <summary>Empty where it cannot be read: whether the file is broken is for the decoder to say.</summary>
    public static IReadOnlyList<MetadataExtractor.Directory> Of(string path) =>
        Tried(() => ImageMetadataReader.ReadMetadata(path), []);

    /// <summary>
    /// What is read of metadata, or something else where that fails in any way: the reader of a hundred formats throws whatever it comes upon, and words
    /// about a picture must never keep the picture out.
    /// </summary>
    public static T Tried<T>(Func<T> read, T otherwise)
    {
        try
        {
            return read();
        }
        catch (Exception e) when (e is not OutOfMemoryException)
        {
            return otherwise;
        }
    }
}
