using System.Buffers.Binary;

namespace Formatum.Imaging;

/// <summary>Whether a file holds its picture at a loss already, so that one more of good quality takes nothing away that could be seen.</summary>
public static class LossyFile
{
    private const int TiffCompression = 259, OldJpeg = 6, Jpeg = 7, WebpInTiff = 50001;

    /// <param name="path">The file.</param>
    /// <param name="format">As <see cref="PictureFormat.Of(Stream)"/> told it.</param>
    public static bool Is(string path, string format)
    {
        if (format is "jpeg" or "avif") return true;
        if (format is not ("webp" or "tiff")) return false;
        try
        {
            using var file = File.OpenRead(path);
            return format == "webp" ? IsLossyWebp(file) : IsLossyTiff(file);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            // Its pixels were read already: nothing is taken away from them.
            return false;
        }
    }

    /// <summary>A simple file says at once how it is coded (RFC 9649, 2.5 and 2.6); of an extended one the picture's own chunk is looked for.</summary>
    private static bool IsLossyWebp(FileStream file)
    {
        Span<byte> chunk = stackalloc byte[8];
        file.Position = 12;
        while (file.ReadAtLeast(chunk, 8, throwOnEndOfStream: false) == 8)
        {
            if (chunk.StartsWith("VP8L"u8)) return false;
            if (chunk.StartsWith("VP8 "u8)) return true;
            uint length = BinaryPrimitives.ReadUInt32LittleEndian(chunk[4..]);
            file.Position += length + length % 2;
        }
        return false;
    }

    /// <summary>TIFF 6.0, section 2: the first directory, and in it the field that names the compression.</summary>
    private static bool IsLossyTiff(FileStream file)
    {
        Span<byte> start = stackalloc byte[8];
        if (file.ReadAtLeast(start, 8, throwOnEndOfStream: false) < 8) return false;
        bool little = start[0] == 'I';
        ushort Short(ReadOnlySpan<byte> at) => little ? BinaryPrimitives.ReadUInt16LittleEndian(at) : BinaryPrimitives.ReadUInt16BigEndian(at);
        if (Short(start[2..]) != 42) return false;
        file.Position = little ? BinaryPrimitives.ReadUInt32LittleEndian(start[4..]) : BinaryPrimitives.ReadUInt32BigEndian(start[4..]);
        Span<byte> entry = stackalloc byte[12];
        if (file.ReadAtLeast(entry[..2], 2, throwOnEndOfStream: false) < 2) return false;
        for (int left = Short(entry); left > 0; left--)
        {
            if (file.ReadAtLeast(entry, 12, throwOnEndOfStream: false) < 12) return false;
            if (Short(entry) == TiffCompression) return Short(entry[8..]) is OldJpeg or Jpeg or WebpInTiff;
        }
        return false;
    }
}
