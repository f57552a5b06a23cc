using System.Buffers.Binary;
using System.IO.Compression;
using System.Text;

namespace Formatum.Testing;

/// <summary>Small files that ask much of whoever reads them.</summary>
public static class OddPictures
{
    private static readonly byte[] Signature = [0x89, (byte)'P', (byte)'N', (byte)'G', 13, 10, 26, 10];

    /// <summary>A PNG of one grey pixel with further chunks behind its head.</summary>
    public static byte[] Png(params (string Type, byte[] Content)[] more) =>
        [.. Signature, .. Head(1, 1, 8, 0, 0), .. more.SelectMany(c => Chunk(c.Type, c.Content)), .. Chunk("IDAT", Deflated([0, 128])), .. Chunk("IEND", [])];

    /// <summary>XMP in which descriptions are nested so deep (PNG 11.3.3.4, iTXt; XMP 1, parseType Resource).</summary>
    public static byte[] NestedXmp(int depth)
    {
        const string Open = "<a:b rdf:parseType=\"Resource\">", Close = "</a:b>";
        string xmp = "<rdf:RDF xmlns:rdf=\"http://www.w3.org/1999/02/22-rdf-syntax-ns#\"><rdf:Description rdf:about=\"\" xmlns:a=\"urn:a\">" +
            $"{string.Concat(Enumerable.Repeat(Open, depth))}{string.Concat(Enumerable.Repeat(Close, depth))}</rdf:Description></rdf:RDF>";
        return Png(("iTXt", [.. "XML:com.adobe.xmp\0\0\0\0\0"u8, .. Encoding.UTF8.GetBytes(xmp)]));
    }

    /// <summary>Text that inflates to so many megabytes (PNG 11.3.3.3, zTXt).</summary>
    public static byte[] SwellingText(int megabytes) => Png(("zTXt", [.. "Comment\0\0"u8, .. Deflated(new byte[megabytes << 20])]));

    /// <summary>Behind the pixels a chunk whose type is no letters.</summary>
    public static byte[] OddChunk() =>
        [.. Signature, .. Head(1, 1, 8, 0, 0), .. Chunk("IDAT", Deflated([0, 128])), .. Chunk("te1t", [1]), .. Chunk("IEND", [])];

    /// <summary>A square of 16-bit RGBA, saved so that all of it has to be in memory at once.</summary>
    public static byte[] Interlaced(int side)
    {
        using var packed = new MemoryStream();
        using (var zlib = new ZLibStream(packed, CompressionLevel.Optimal, leaveOpen: true))
        {
            // The seven passes of Adam7 (PNG 8.2): start and step across and down.
            foreach (var (x, y, stepX, stepY) in new[] { (0, 0, 8, 8), (4, 0, 8, 8), (0, 4, 4, 8), (2, 0, 4, 4), (0, 2, 2, 4), (1, 0, 2, 2), (0, 1, 1, 2) })
            {
                byte[] row = new byte[1 + 8 * ((side - x + stepX - 1) / stepX)];
                for (int line = y; line < side; line += stepY) zlib.Write(row);
            }
        }
        return [.. Signature, .. Head(side, side, 16, 6, 1), .. Chunk("IDAT", packed.ToArray()), .. Chunk("IEND", [])];
    }

    /// <summary>A drawing that takes very long: turbulence laid on turbulence (Filter Effects 1, feTurbulence).</summary>
    public static byte[] SlowDrawing(int filters) => Encoding.UTF8.GetBytes("<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"3000\" " +
        "height=\"3000\"><filter id=\"f\" " +
        $"x=\"0\" y=\"0\" width=\"1\" " +
            $"height=\"1\">{string.Concat(Enumerable.Repeat("<feTurbulence baseFrequency=\"0.9\" numOctaves=\"9\"/>", filters))}</filter>" +
        "<rect width=\"3000\" height=\"3000\" filter=\"url(#f)\"/></svg>");

    private static byte[] Head(int width, int height, byte depth, byte kind, byte interlace)
    {
        byte[] head = new byte[13];
        BinaryPrimitives.WriteInt32BigEndian(head, width);
        BinaryPrimitives.WriteInt32BigEndian(head.AsSpan(4), height);
        (head[8], head[9], head[12]) = (depth, kind, interlace);
        return Chunk("IHDR", head);
    }

    private static byte[] Chunk(string type, byte[] content)
    {
        byte[] named = [.. Encoding.ASCII.GetBytes(type), .. content], chunk = new byte[named.Length + 8];
        BinaryPrimitives.WriteInt32BigEndian(chunk, content.Length);
        named.CopyTo(chunk, 4);
        BinaryPrimitives.WriteUInt32BigEndian(chunk.AsSpan(named.Length + 4), Crc(named));
        return chunk;
    }

    /// <summary>CRC-32 (PNG, annex D).</summary>
    private static uint Crc(byte[] bytes)
    {
        uint crc = uint.MaxValue;
        foreach (byte value in bytes)
        {
            crc ^= value;
            for (int bit = 0; bit < 8; bit++) crc = (crc >> 1) ^ ((crc & 1) == 0 ? 0 : 0xEDB88320);
        }
        return ~crc;
    }

    private static byte[] Deflated(byte[] content)
    {
        using var packed = new MemoryStream();
        using (var zlib = new ZLibStream(packed, CompressionLevel.Optimal, leaveOpen: true)) zlib.Write(content);
        return packed.ToArray();
    }
}
