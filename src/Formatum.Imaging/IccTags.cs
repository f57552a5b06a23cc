using System.Buffers.Binary;
using System.Text;

namespace Formatum.Imaging;

/// <summary>What an ICC profile says of itself (ICC.1:2022, 7.3 and 9.2).</summary>
internal static class IccTags
{
    /// <summary>Bytes of the header, in front of the table of tags; and of an entry in it.</summary>
    public const int Header = 128, Entry = 12;

    /// <summary>No profile has more tags.</summary>
    public const int Most = 200;

    /// <summary>
    /// The colorants of sRGB, adapted to D50, as IEC 61966-2-1 gives them and as profiles of it have them: X, Y and Z of red, green and blue.
    /// </summary>
    private static readonly double[][] SrgbColorants = [[0.4360, 0.2225, 0.0139], [0.3851, 0.7169, 0.0971], [0.1431, 0.0606, 0.7141]];

    private static readonly string[] Colorants = ["rXYZ", "gXYZ", "bXYZ"];

    /// <summary>Profiles of sRGB differ among themselves by rounding; the next other space lies ten times as far off.</summary>
    private const double Near = 0.003;

    /// <summary>Whether it is sRGB: by its three colorants, and by a description that names it, for its curves may be written in many ways.</summary>
    public static bool IsSrgb(ReadOnlySpan<byte> profile)
    {
        for (int i = 0; i < 3; i++)
        {
            if (Tag(profile, Colorants[i]) is not { Length: >= 20 } colorant) return false;
            for (int axis = 0; axis < 3; axis++)
                if (Math.Abs(BinaryPrimitives.ReadInt32BigEndian(colorant.AsSpan(8 + 4 * axis)) / 65536.0 - SrgbColorants[i][axis]) > Near) return false;
        }
        return Tag(profile, "desc") is { } words && (words.AsSpan().IndexOf("sRGB"u8) >= 0 || words.AsSpan().IndexOf("\0s\0R\0G\0B"u8) >= 0);
    }

    /// <summary>The bytes of a tag; null where it has none of that name, or points outside the profile.</summary>
    public static byte[]? Tag(ReadOnlySpan<byte> profile, string name)
    {
        if (profile.Length < Header + 4) return null;
        uint count = BinaryPrimitives.ReadUInt32BigEndian(profile[Header..]);
        for (uint i = 0; i < Math.Min(count, Most); i++)
        {
            long at = Header + 4 + (long)Entry * i;
            if (at + Entry > profile.Length) return null;
            var entry = profile.Slice((int)at, Entry);
            if (Encoding.ASCII.GetString(entry[..4]) != name) continue;
            uint offset = BinaryPrimitives.ReadUInt32BigEndian(entry[4..]), size = BinaryPrimitives.ReadUInt32BigEndian(entry[8..]);
            return (long)offset + size <= profile.Length ? profile.Slice((int)offset, (int)size).ToArray() : null;
        }
        return null;
    }

    /// <summary>What it calls itself: a text of ASCII in version 2, one of several languages in version 4, of which the first is taken.</summary>
    public static string Description(ReadOnlySpan<byte> profile)
    {
        if (Tag(profile, "desc") is not { Length: >= 12 } tag) return "";
        string text = "";
        if (tag.AsSpan(0, 4).SequenceEqual("desc"u8))
        {
            int length = BinaryPrimitives.ReadInt32BigEndian(tag.AsSpan(8));
            if (length > 0 && length <= tag.Length - 12) text = Encoding.Latin1.GetString(tag, 12, length);
        }
        else if (tag.AsSpan(0, 4).SequenceEqual("mluc"u8) && tag.Length >= 28)
        {
            uint length = BinaryPrimitives.ReadUInt32BigEndian(tag.AsSpan(20)), at = BinaryPrimitives.ReadUInt32BigEndian(tag.AsSpan(24));
            if ((long)at + length <= tag.Length) text = Encoding.BigEndianUnicode.GetString(tag, (int)at, (int)length);
        }
        return new string([.. text.Where(c => !char.IsControl(c))]).Trim();
    }
}
