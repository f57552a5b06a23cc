using System.IO.Compression;

namespace Formatum.Output.Pdf;

/// <summary>Pixels compressed without loss, row by row as PNG does (ISO 32000-1, 7.4.4.4).</summary>
internal static class PngRows
{
    private const byte Sub = 1, Paeth = 4;

    /// <param name="pixels">Rows from the top.</param>
    /// <param name="width">Pixels of a row.</param>
    /// <param name="parts">Bytes of a pixel.</param>
    public static byte[] Packed(ReadOnlySpan<byte> pixels, int width, int parts)
    {
        int length = width * parts;
        using var packed = new MemoryStream();
        using (var zlib = new ZLibStream(packed, CompressionLevel.Fastest, leaveOpen: true))
        {
            byte[] row = new byte[length + 1];
            var above = ReadOnlySpan<byte>.Empty;
            for (int at = 0; at < pixels.Length; at += length)
            {
                var here = pixels.Slice(at, length);
                if (above.IsEmpty) FromLeft(here, row, parts);
                else FromNeighbours(here, above, row, parts);
                zlib.Write(row);
                above = here;
            }
        }
        return packed.ToArray();
    }

    private static void FromLeft(ReadOnlySpan<byte> here, byte[] row, int parts)
    {
        row[0] = Sub;
        for (int i = 0; i < here.Length; i++) row[i + 1] = (byte)(here[i] - (i >= parts ? here[i - parts] : 0));
    }

    /// <summary>What the neighbours to the left, above, and between them would lead to expect is taken off (PNG, 9.4).</summary>
    private static void FromNeighbours(ReadOnlySpan<byte> here, ReadOnlySpan<byte> above, byte[] row, int parts)
    {
        row[0] = Paeth;
        for (int i = 0; i < Math.Min(parts, here.Length); i++) row[i + 1] = (byte)(here[i] - above[i]);
        for (int i = parts; i < here.Length; i++)
        {
            int a = here[i - parts], b = above[i], c = above[i - parts];
            int toA = Math.Abs(b - c), toB = Math.Abs(a - c), toC = Math.Abs(a + b - 2 * c);
            row[i + 1] = (byte)(here[i] - (toA <= toB && toA <= toC ? a : toB <= toC ? b : c));
        }
    }
}
