using System.Security.Cryptography;
using Formatum.Core.Fitting;
using Formatum.Core.Publications;
using NetVips;

namespace Formatum.Imaging;

/// <summary>Reads what is worth knowing about a picture file, and makes its previews on the way.</summary>
public sealed class PictureReader(PictureLimits limits, PreviewStore previews)
{
    /// <summary>SVG lengths without a unit are CSS pixels, 96 to the inch (CSS Values 4, section 6.2).</summary>
    public const double SvgPpi = 96;

    private PreviewStore Previews { get; } = previews;
    private ContourFinder Contours { get; } = new(previews);

    /// <summary>
    /// Reads the file at a path. The whole picture is decoded once for its previews, so that a broken one is found now and not in the PDF.
    /// </summary>
    /// <param name="path">Where the file is.</param>
    /// <param name="name">What people call it.</param>
    /// <param name="bare">Whether what the file says of itself in words is passed over.</param>
    /// <param name="wordsAreRead">Told true before those words are read, and false once they are.</param>
    /// <returns>The image, its id still 0.</returns>
    /// <exception cref="BadPicture">It cannot be read as a picture.</exception>
    /// <exception cref="IOException">Its previews could not be written.</exception>
    public LinkedImage Read(string path, string name, bool bare = false, Action<bool>? wordsAreRead = null)
    {
        Vips.Prepare();
        var file = new FileInfo(path);
        if (!file.Exists) throw new BadPicture("There is no such file.");
        if (file.Length > limits.MostBytes) throw TooManyBytes(limits);
        var (format, hash) = Content(file);
        try
        {
            wordsAreRead?.Invoke(true);
            var said = SaidBy(path, format, bare);
            wordsAreRead?.Invoke(false);
            var image = ReadHeader(path, format, said) with
            {
                Name = name,
                Path = path,
                Bytes = file.Length,
                Modified = new DateTimeOffset(file.LastWriteTimeUtc),
                ContentHash = hash,
            };
            Previews.Make(image);
            return image with { Contour = Contours.Find(hash) };
        }
        catch (VipsException e)
        {
            if (e.Message.Contains("out of memory", StringComparison.Ordinal)) throw new BadPicture(TooMuchMemory, e);
            throw new BadPicture($"The {format.ToUpperInvariant()} is broken or cut short: {Reason(e)}. Copy or save it again.", e);
        }
    }

    /// <summary>The format of a file, and the hash of all of it.</summary>
    private static (string Format, string Hash) Content(FileInfo file)
    {
        try
        {
            using var stream = new FileStream(file.FullName, FileMode.Open, FileAccess.Read, FileShare.Read, 1 << 16, FileOptions.SequentialScan);
            string format = PictureFormat.Of(stream);
            if (format == "svg")
            {
                if (file.Length > PictureLimits.MostSvgBytes)
                    throw new BadPicture($"The SVG has {file.Length >> 20} MB; {PictureLimits.MostSvgBytes >> 20} MB is the most. Simplify it, or bring " +
                        $"it in as PNG.");
                stream.Position = 0;
                SvgCheck.Check(stream);
            }
            stream.Position = 0;
            return (format, Convert.ToHexStringLower(SHA256.HashData(stream)));
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new BadPicture("The file cannot be opened: it is in use, or this program may not read it.", e);
        }
    }

    internal const string TooMuchMemory = "Reading it takes more memory than the 1024 MB that a picture may take here. Save it without interlacing, with " +
        "fewer " +
        "bits a channel, or smaller.";

    public static BadPicture TooManyBytes(PictureLimits limits) =>
        new($"The file is larger than {limits.MostBytes >> 20} MB, the most that is taken in here. Reduce it, or ask whoever runs the server to raise the " +
            $"limit.");

    /// <summary>What a file says of itself beside its pixels.</summary>
    private sealed record Said(Description Words, (double X, double Y)? Ppi);

    private static Said SaidBy(string path, string format, bool bare)
    {
        var metadata = format == "svg" || bare ? [] : FileMetadata.Of(path);
        return new(FileMetadata.Tried(() => Description.Of(metadata), new(null, null, null)),
            format == "svg" ? (SvgPpi, SvgPpi) : FileMetadata.Tried(() => StoredResolution.Of(metadata), null));
    }

    private LinkedImage ReadHeader(string path, string format, Said said)
    {
        using var header = Vips.Open(path, format);
        int width = header.Width, height = header.Height;
        if ((long)width * height > limits.MostPixels)
            throw new BadPicture($"The picture has {width} x {height} pixels, {(long)width * height / 1_000_000} megapixels; " +
                $"{limits.MostPixels / 1_000_000} is the most. Reduce it first.");
        int orientation = FileMetadata.Tried(() => header.Contains("orientation") ? Convert.ToInt32(header.Get("orientation")) : 1, 1);
        return new()
        {
            Id = 0,
            Name = "",
            Path = "",
            Bytes = 0,
            Modified = default,
            ContentHash = "",
            Format = format,
            StoredWidthPx = width,
            StoredHeightPx = height,
            Orientation = Orientation.IsValid(orientation) ? orientation : 1,
            StoredPpiX = said.Ppi?.X,
            StoredPpiY = said.Ppi?.Y,
            Colour = header.Interpretation switch
            {
                Enums.Interpretation.Cmyk => "CMYK",
                Enums.Interpretation.Bw or Enums.Interpretation.Grey16 => "grey",
                Enums.Interpretation.Lab => "Lab",
                _ => "RGB",
            },
            HasAlpha = header.HasAlpha(),
            Title = said.Words.Title,
            Caption = said.Words.Caption,
            Credit = said.Words.Credit,
        };
    }

    /// <summary>The reason that the library gives, without where the file lies on the server.</summary>
    internal static string Reason(VipsException e)
    {
        string message = e.Message, line = message.Split('\n').FirstOrDefault(l => l.Contains(':', StringComparison.Ordinal))?.Trim() ?? message.Trim();
        int reason = line.LastIndexOf(": ", StringComparison.Ordinal);
        return (reason < 0 ? line : line[(reason + 2)..]).TrimEnd('.');
    }
}
