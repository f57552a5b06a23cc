using System.Buffers.Binary;

namespace Formatum.Imaging;

/// <summary>What an ICC profile says of itself (ICC.1:2022, 7.3 and 9.2).</summary>
internal static class IccProfile
{
    private const int TagTable = 128, TagEntry = 12;

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
    private static byte[]? Tag(ReadOnlySpan<byte> profile, string name)
    {
        if (profile.Length < TagTable + 4) return null;
        uint count = BinaryPrimitives.ReadUInt32BigEndian(profile[TagTable..]);
        for (uint i = 0; i < Math.Min(count, 200u); i++)
        {
            long at = TagTable + 4 + (long)TagEntry * i;
            if (at + TagEntry > profile.Length) return null;
            var entry = profile.Slice((int)at, TagEntry);
            if (System.Text.Encoding.ASCII.GetString(entry[..4]) != name) continue;
            uint offset = BinaryPrimitives.ReadUInt32BigEndian(entry[4..]), size = BinaryPrimitives.ReadUInt32BigEndian(entry[8..]);
            return (long)offset + size <= profile.Length ? profile.Slice((int)offset, (int)size).ToArray() : null;
        }
        return null;
    }
}
