using System.Collections.Immutable;
using System.IO.Compression;
using System.Security.Cryptography;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using Formatum.Imaging;
using Formatum.Output.Fonts;

namespace Formatum.Output.Bundles;

/// <summary>How a linked file went into a bundle.</summary>
public enum BundledAs
{
    /// <summary>As the publication knows it.</summary>
    Current,
    /// <summary>As it is now, which is not as the publication knows it.</summary>
    Changed,
    /// <summary>Not at all: there is no such file. Its preview may be there instead.</summary>
    Missing,
}

/// <summary>
/// Writes a publication with all it needs as one ZIP: publication.json, the originals of its images, the fonts of its texts, and a report. What is in it
/// is described in docs/bundle.md.
/// </summary>
public static class BundleWriter
{
    internal const string Json = "publication.json", Schema = "publication.schema.json", Report = "report.txt", PreviewFolder = "previews/",
        Profile = "profiles/press.icc";

    private const int LongestFileName = 120;

    /// <summary>Writes straight through, one picture after the other, so that neither memory nor disk grows with them.</summary>
    /// <param name="publication">The publication.</param>
    /// <param name="previews">Where the previews of missing files are.</param>
    /// <param name="fontFiles">Where the files of its own fonts are.</param>
    /// <param name="at">When it is written, for the report.</param>
    /// <param name="output">Where to write; it need not be seekable.</param>
    /// <param name="profile">The file of the profile of its press; null where it has none, or it is gone.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="BadPicture">A linked file could not be read to its end.</exception>
    public static async Task WriteAsync(Publication publication, PreviewStore previews, FontStore fontFiles, DateTimeOffset at, Stream output,
        string? profile = null, CancellationToken cancel = default)
    {
        await using var zip = await ZipArchive.CreateAsync(output, ZipArchiveMode.Create, leaveOpen: true, entryNameEncoding: null, cancel);
        var fileOf = new Dictionary<int, string>();
        var states = new Dictionary<int, BundledAs>();
        foreach (var image in publication.Images.Values.OrderBy(i => i.Id))
        {
            string file = $"images/{image.Id}-{Plain(image.Name)}";
            states[image.Id] = await CopyAsync(zip, image, file, cancel);
            if (states[image.Id] != BundledAs.Missing) fileOf[image.Id] = file;
            // What a file showed when it was linked cannot be seen from the file any more.
            if (states[image.Id] != BundledAs.Current && previews.Find(image.ContentHash, PreviewStore.Sizes[^1]) is { } preview)
                await zip.CreateEntryFromFileAsync(preview, PreviewFolder + image.ContentHash + Path.GetExtension(preview), CompressionLevel.NoCompression,
                    cancel);
        }
        var fonts = FontsOf(publication);
        foreach (var (family, face) in fonts)
        {
            await using var font = Typefaces.File(family, face)!;
            await PutAsync(zip, $"fonts/{family} {face}.ttf", font, cancel);
        }
        foreach (var font in publication.Fonts.Values.OrderBy(f => f.Id))
        {
            // What goes into no document goes into no bundle either.
            if (font.Embedding == FontEmbedding.Restricted || fontFiles.Find(font.ContentHash) is not { } content) continue;
            fileOf[font.Id] = $"fonts/{font.Id}-{Plain($"{font.Family} {font.Face}")}.{font.Format}";
            using var file = new MemoryStream(content);
            await PutAsync(zip, fileOf[font.Id], file, cancel);
        }
        if (profile is not null) await zip.CreateEntryFromFileAsync(profile, Profile, CompressionLevel.Optimal, cancel);
        using var json = new MemoryStream();
        BundleJson.Write(publication, fileOf, json);
        json.Position = 0;
        await PutAsync(zip, Json, json, cancel);
        await using var schema = SchemaFile();
        await PutAsync(zip, Schema, schema, cancel);
        await using var report = new MemoryStream(System.Text.Encoding.UTF8.GetBytes(BundleReport.Of(publication, states, fonts, fileOf, at)));
        await PutAsync(zip, Report, report, cancel);
    }

    /// <summary>The published JSON Schema of publication.json.</summary>
    public static Stream SchemaFile() => typeof(BundleWriter).Assembly.GetManifestResourceStream(Schema)!;

    /// <summary>The shipped faces that the publication's texts are set in.</summary>
    private static ImmutableArray<(string Family, string Face)> FontsOf(Publication publication) =>
        [.. publication.Stories.Values
            .SelectMany(s => FallbackFonts.Applied(TextCascade.Styled(publication, s.Text), Typefaces.All).Paragraphs).SelectMany(p => p.Runs)
            .Where(r => r.Length > 0).Select(r => r.Style).Distinct().Where(s => s.Files is null && TextStyle.Families.Contains(s.Family)).Select(s =>
                (s.Family,
                Typefaces.FaceName(s))).Distinct().Order()];

    private static async Task PutAsync(ZipArchive zip, string name, Stream content, CancellationToken cancel)
    {
        await using var entry = await zip.CreateEntry(name, CompressionLevel.Optimal).OpenAsync(cancel);
        await content.CopyToAsync(entry, cancel);
    }

    private static async Task<BundledAs> CopyAsync(ZipArchive zip, LinkedImage image, string name, CancellationToken cancel)
    {
        if (!PictureFile.IsThere(image.Path)) return BundledAs.Missing;
        FileStream file;
        try
        {
            file = new FileStream(image.Path, FileMode.Open, FileAccess.Read, FileShare.Read, 1 << 16, FileOptions.Asynchronous | FileOptions.SequentialScan);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException or ArgumentException)
        {
            return BundledAs.Missing;
        }
        await using (file)
        {
            using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
            await using var entry = await zip.CreateEntry(name, IsCompressed(image.Format) ? CompressionLevel.NoCompression : CompressionLevel.Fastest)
                .OpenAsync(cancel);
            byte[] buffer = new byte[1 << 18];
            int read;
            while ((read = await ReadAsync(image, file, buffer, cancel)) > 0)
            {
                hash.AppendData(buffer, 0, read);
                await entry.WriteAsync(buffer.AsMemory(0, read), cancel);
            }
            return Convert.ToHexStringLower(hash.GetHashAndReset()) == image.ContentHash ? BundledAs.Current : BundledAs.Changed;
        }
    }

    private static async Task<int> ReadAsync(LinkedImage image, FileStream file, byte[] buffer, CancellationToken cancel)
    {
        try
        {
            return await file.ReadAsync(buffer, cancel);
        }
        catch (IOException e)
        {
            throw new BadPicture($"{image.Name} could not be brought along to its end: {e.Message} Look at the file, and take the bundle again.", e);
        }
    }

    private static bool IsCompressed(string format) => format is not ("svg" or "tiff");

    /// <summary>A file's name without anything that some file system would not take.</summary>
    private static string Plain(string name)
    {
        string plain = new([.. name.Select(c => char.IsLetterOrDigit(c) || c is '.' or '-' or '_' or ' ' ? c : '-')]);
        string ending = Path.GetExtension(plain);
        return plain.Length <= LongestFileName ? plain : ending.Length < LongestFileName / 2 ? plain[..(LongestFileName - ending.Length)] + ending
            : plain[..LongestFileName];
    }
}
