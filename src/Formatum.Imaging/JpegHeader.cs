using System.Buffers.Binary;

namespace Formatum.Imaging;

/// <summary>What a JPEG file says in front of its first scan (ITU-T T.81, annex B).</summary>
/// <param name="Width">In pixels, as stored.</param>
/// <param name="Height">In pixels, as stored.</param>
/// <param name="Parts">Parts of a pixel: 1, 3 or 4.</param>
/// <param name="Bits">Bits of a part.</param>
/// <param name="Process">The process it is coded by: 0 baseline, 1 extended, 2 progressive; others are seldom.</param>
/// <param name="IsInverted">Whether its four inks are stored the other way round, as the application segment 14 tells (ITU-T T.872, 6.5.3).</param>
/// <param name="Profile">The ICC profile in it (ICC.1:2022, B.4); null where there is none or it is not whole.</param>
public sealed record JpegHeader(int Width, int Height, int Parts, int Bits, int Process, bool IsInverted, byte[]? Profile)
{
    private const int MostSegments = 2000;

    /// <summary>Whether a PDF takes it as it is (ISO 32000-1, 7.4.8): coded by the baseline, extended or progressive process with Huffman codes, 8
    /// bits.</summary>
    public bool GoesIntoPdf => Process <= 2 && Bits == 8 && Parts is 1 or 3 or 4;

    /// <summary>Reads it from where a stream stands.</summary>
    /// <returns>The header; null where the stream holds no JPEG, or a damaged one.</returns>
    public static JpegHeader? Read(Stream stream)
    {
        if (stream.ReadByte() != 0xFF || stream.ReadByte() != 0xD8) return null;
        (int Width, int Height, int Parts, int Bits, int Process)? frame = null;
        bool inverted = false;
        var profile = new SortedDictionary<int, byte[]>();
        int pieces = 0;
        for (int i = 0; i < MostSegments; i++)
        {
            if (Segment(stream) is not var (marker, body)) return null;
            if (marker == 0xDA)
                return frame is var (width, height, parts, bits, process)
                    ? new(width, height, parts, bits, process, inverted, Whole(profile, pieces)) : null;
            // A frame begins; C4, C8 and CC are none (table B.1).
            if (marker is >= 0xC0 and <= 0xCF and not (0xC4 or 0xC8 or 0xCC) && body.Length >= 6)
                frame = (BinaryPrimitives.ReadUInt16BigEndian(body.AsSpan(3)), BinaryPrimitives.ReadUInt16BigEndian(body.AsSpan(1)), body[5], body[0],
                    marker - 0xC0);
            else if (marker == 0xEE && body.Length >= 12 && body.AsSpan().StartsWith("Adobe"u8)) inverted = true;
            else if (marker == 0xE2 && body.Length > 14 && body.AsSpan().StartsWith("ICC_PROFILE\0"u8))
            {
                profile[body[12]] = body[14..];
                pieces = body[13];
            }
        }
        return null;
    }

    private static (int Marker, byte[] Body)? Segment(Stream stream)
    {
        if (stream.ReadByte() != 0xFF) return null;
        int marker;
        // Any number of these may stand in front of a marker.
        do marker = stream.ReadByte();
        while (marker == 0xFF);
        Span<byte> size = stackalloc byte[2];
        if (marker < 0 || stream.ReadAtLeast(size, 2, throwOnEndOfStream: false) < 2) return null;
        int length = BinaryPrimitives.ReadUInt16BigEndian(size) - 2;
        if (length < 0) return null;
        byte[] body = new byte[length];
        return stream.ReadAtLeast(body, length, throwOnEndOfStream: false) == length ? (marker, body) : null;
    }

    private static byte[]? Whole(SortedDictionary<int, byte[]> pieces, int count) =>
        count > 0 && pieces.Count == count && pieces.Keys.SequenceEqual(Enumerable.Range(1, count)) ? [.. pieces.Values.SelectMany(p => p)] : null;
}
