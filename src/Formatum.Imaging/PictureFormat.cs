using System.Text;

namespace Formatum.Imaging;

/// <summary>The kind of a picture file, told by its first bytes and never by its name.</summary>
public static class PictureFormat
{
    public const string Readable = "JPEG, PNG, TIFF, WebP, GIF, AVIF and SVG";

    /// <summary>So many bytes tell.</summary>
    private const int Enough = 4096;

    /// <summary>The format of what a stream holds from here on.</summary>
    /// <exception cref="BadPicture">It is none that can be read.</exception>
    public static string Of(Stream stream)
    {
        var start = new byte[Enough];
        return Of(start.AsSpan(0, stream.ReadAtLeast(start, start.Length, throwOnEndOfStream: false)));
    }

    /// <summary>One of <see cref="Core.Publications.LinkedImage.Formats"/>.</summary>
    /// <exception cref="BadPicture">It is none of these.</exception>
    public static string Of(ReadOnlySpan<byte> start)
    {
        if (start.IsEmpty) throw new BadPicture("The file is empty: it has 0 bytes. Copy it again from where it came from.");
        if (start.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xD8, 0xFF])) return "jpeg";
        if (start.StartsWith((ReadOnlySpan<byte>)[0x89, (byte)'P', (byte)'N', (byte)'G', 0x0D, 0x0A, 0x1A, 0x0A])) return "png";
        if (start.StartsWith("II*\0"u8) || start.StartsWith("MM\0*"u8) || start.StartsWith("II+\0"u8) || start.StartsWith("MM\0+"u8)) return "tiff";
        if (start.Length >= 12 && start.StartsWith("RIFF"u8) && start[8..12].SequenceEqual("WEBP"u8)) return "webp";

        if (start.StartsWith("GIF87a"u8) || start.StartsWith("GIF89a"u8)) return "gif";
        if (start.Length >= 12 && start[4..8].SequenceEqual("ftyp"u8) && start[8..12].SequenceEqual("avif"u8)) return "avif";

        string kind = "something else";
        if (start.StartsWith("%PDF"u8)) kind = "a PDF";
        else if (start.StartsWith("PK\x03\x04"u8)) kind = "a ZIP archive";
        else if (start.Length >= 12 && start[4..8].SequenceEqual("ftyp"u8)) kind = "a HEIF or video file";
        else if (IsText(start, out string text))
        {
            if (text.Contains("<svg", StringComparison.Ordinal) || text.Contains(":svg", StringComparison.Ordinal)) return "svg";
            // An entity declaration may stand where the root element is looked for; the SVG check then says why it is refused.
            if (text.Contains("<!DOCTYPE svg", StringComparison.Ordinal)) return "svg";
            kind = "text";
        }
        throw new BadPicture($"This is not a picture that can be read: it holds {kind}, whatever its name says. Readable are {Readable}.");
    }

    private static bool IsText(ReadOnlySpan<byte> start, out string text)
    {
        text = "";
        var encoding = start.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xFE]) ? Encoding.Unicode
            : start.StartsWith((ReadOnlySpan<byte>)[0xFE, 0xFF]) ? Encoding.BigEndianUnicode : Encoding.UTF8;
        if (encoding == Encoding.UTF8 && start.Contains((byte)0)) return false;
        text = encoding.GetString(start);
        return true;
    }
}
