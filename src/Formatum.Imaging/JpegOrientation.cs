using System.Buffers.Binary;

namespace Formatum.Imaging;

/// <summary>
/// Sets the EXIF orientation inside a JPEG's bytes to 1, leaving every other byte as it is, so that a reader shows the pixels as they are
/// stored. Segments: ITU-T T.81, annex B; the tag: EXIF 2.3, section 4.6.4, tag 274 in the 0th IFD.
/// </summary>
public static class JpegOrientation
{
    public static void Clear(Span<byte> jpeg)
    {
        int at = 2;
        while (at + 4 <= jpeg.Length && jpeg[at] == 0xFF)
        {
            byte marker = jpeg[at + 1];
            if (marker == 0xFF)
            {
                at++;
                continue;
            }
            if (marker is 0xDA or 0xD9) return;
            int length = BinaryPrimitives.ReadUInt16BigEndian(jpeg[(at + 2)..]);
            if (length < 2 || at + 2 + length > jpeg.Length) return;
            var body = jpeg.Slice(at + 4, length - 2);
            if (marker == 0xE1 && body.StartsWith("Exif\0\0"u8)) ClearInTiff(body[6..]);
            at += 2 + length;
        }
    }

    private static void ClearInTiff(Span<byte> tiff)
    {
        if (tiff.Length < 8) return;
        bool little = tiff[0] == (byte)'I';
        ushort Short(Span<byte> at) => little ? BinaryPrimitives.ReadUInt16LittleEndian(at) : BinaryPrimitives.ReadUInt16BigEndian(at);
        uint start = little ? BinaryPrimitives.ReadUInt32LittleEndian(tiff[4..]) : BinaryPrimitives.ReadUInt32BigEndian(tiff[4..]);
        if (start + 2 > tiff.Length) return;
        int count = Short(tiff[(int)start..]);
        for (int i = 0, entry = (int)start + 2; i < count && entry + 12 <= tiff.Length; i++, entry += 12)
        {
            if (Short(tiff[entry..]) != 0x0112) continue;
            if (little) BinaryPrimitives.WriteUInt16LittleEndian(tiff[(entry + 8)..], 1);
            else BinaryPrimitives.WriteUInt16BigEndian(tiff[(entry + 8)..], 1);
        }
    }
}
