using System.Buffers.Binary;
using System.IO.Compression;
using System.Text;

namespace Formatum.Output.Fonts;

/// <summary>Fonts compressed for the web, unpacked: WOFF 1.0 (W3C, 2012).</summary>
internal static class Woff
{
    public const uint Signature = 0x774F4646;

    private const int HeaderBytes = 44, RecordBytes = 20;

    /// <exception cref="BadFont">It is damaged, or swells beyond measure.</exception>
    public static Sfnt Unpack(byte[] file, long most)
    {
        if (file.Length < HeaderBytes) throw Broken();
        int count = BinaryPrimitives.ReadUInt16BigEndian(file.AsSpan(12));
        if (count == 0 || HeaderBytes + count * RecordBytes > file.Length) throw Broken();
        var tables = new List<KeyValuePair<string, byte[]>>();
        long left = most;
        for (int i = 0; i < count; i++)
        {
            var record = file.AsSpan(HeaderBytes + i * RecordBytes, RecordBytes);
            uint at = BinaryPrimitives.ReadUInt32BigEndian(record[4..]), packed = BinaryPrimitives.ReadUInt32BigEndian(record[8..]);
            uint length = BinaryPrimitives.ReadUInt32BigEndian(record[12..]);
            if ((ulong)at + packed > (ulong)file.Length || packed > length) throw Broken();
            if ((left -= length) < 0) throw new BadFont($"It would swell to more than {most >> 20} MB. It was not taken in.");
            byte[] table = new byte[length];
            if (packed == length) file.AsSpan((int)at, (int)length).CopyTo(table);
            else Inflate(file.AsMemory((int)at, (int)packed), table);
            tables.Add(new(Encoding.Latin1.GetString(record[..4]), table));
        }
        return new(BinaryPrimitives.ReadUInt32BigEndian(file.AsSpan(4)), tables);
    }

    private static void Inflate(ReadOnlyMemory<byte> packed, byte[] table)
    {
        try
        {
            using var stream = new ZLibStream(new MemoryStream(packed.ToArray()), CompressionMode.Decompress);
            stream.ReadExactly(table);
        }
        catch (Exception e) when (e is InvalidDataException or EndOfStreamException)
        {
            throw new BadFont(Damaged, e);
        }
    }

    public const string Damaged = "It is damaged: what is compressed in it cannot be unpacked. Get it anew from where it came from.";

    private static BadFont Broken() => new(Damaged);
}
