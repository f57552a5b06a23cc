using System.Buffers.Binary;

namespace Formatum.Output;

/// <summary>Says in a picture file how many pixels go into an inch, where its format has a place for that.</summary>
public static class StatedResolution
{
    private const int AfterHeader = 33;

    /// <param name="file">The file as it was encoded.</param>
    /// <param name="ppi">Pixels per inch, more than 0.</param>
    /// <returns>A PNG with a pHYs chunk (PNG 3, 11.3.4.3), a JPEG with its density (JFIF 1.02, APP0), and anything else as it is.</returns>
    public static byte[] In(ReadOnlySpan<byte> file, double ppi)
    {
        if (file.Length > AfterHeader && file.StartsWith((ReadOnlySpan<byte>)[0x89, 0x50, 0x4e, 0x47])) return Png(file, ppi);
        byte[] same = file.ToArray();
        if (same.Length > 18 && same.AsSpan(2).StartsWith((ReadOnlySpan<byte>)[0xff, 0xe0]) && same.AsSpan(6).StartsWith("JFIF"u8))
        {
            same[13] = 1;
            ushort dots = (ushort)Math.Clamp(Math.Round(ppi), 1, ushort.MaxValue);
            BinaryPrimitives.WriteUInt16BigEndian(same.AsSpan(14), dots);
            BinaryPrimitives.WriteUInt16BigEndian(same.AsSpan(16), dots);
        }
        return same;
    }

    private static byte[] Png(ReadOnlySpan<byte> file, double ppi)
    {
        Span<byte> chunk = stackalloc byte[21];
        BinaryPrimitives.WriteUInt32BigEndian(chunk, 9);
        "pHYs"u8.CopyTo(chunk[4..]);
        uint perMetre = (uint)Math.Round(ppi / 0.0254);
        BinaryPrimitives.WriteUInt32BigEndian(chunk[8..], perMetre);
        BinaryPrimitives.WriteUInt32BigEndian(chunk[12..], perMetre);
        chunk[16] = 1;
        BinaryPrimitives.WriteUInt32BigEndian(chunk[17..], Crc(chunk[4..17]));
        byte[] made = new byte[file.Length + chunk.Length];
        file[..AfterHeader].CopyTo(made);
        chunk.CopyTo(made.AsSpan(AfterHeader));
        file[AfterHeader..].CopyTo(made.AsSpan(AfterHeader + chunk.Length));
        return made;
    }

    /// <summary>The check sum of a chunk (PNG 3, annex D).</summary>
    private static uint Crc(ReadOnlySpan<byte> bytes)
    {
        uint crc = uint.MaxValue;
        foreach (byte b in bytes)
        {
            crc ^= b;
            for (int bit = 0; bit < 8; bit++) crc = (crc & 1) == 1 ? 0xedb88320 ^ (crc >> 1) : crc >> 1;
        }
        return ~crc;
    }
}
