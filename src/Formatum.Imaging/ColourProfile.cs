using System.Buffers.Binary;
using System.Security.Cryptography;
using System.Text;
using NetVips;

namespace Formatum.Imaging;

/// <summary>An ICC profile (ICC.1:2022; versions 2 and 4).</summary>
/// <param name="Source">The file it is in, or the name under which the image library has it.</param>
/// <param name="Bytes">What the file holds.</param>
public sealed record ColourProfile(string Source, byte[] Bytes)
{
    /// <summary>No profile of a press is larger, in bytes.</summary>
    public const int MostBytes = 32 << 20;

    private const string Output = "prtr", FourInks = "CMYK";

    private static readonly Lazy<ColourProfile> SrgbOnce = new(OfLibrary), PressOnce = new(Shipped);

    /// <summary>sRGB, as the image library has it.</summary>
    public static ColourProfile Srgb => SrgbOnce.Value;

    /// <summary>
    /// Four inks in general: coated paper in offset, made from open characterisation data by make-general-press. No printing condition that a printer would
    /// vouch for.
    /// </summary>
    public static ColourProfile GeneralPress => PressOnce.Value;

    private static ColourProfile OfLibrary()
    {
        const string Name = "srgb";
        Vips.Prepare();
        return new(Name, Image.ProfileLoad(Name));
    }

    private static ColourProfile Shipped()
    {
        string path = Path.Combine(AppContext.BaseDirectory, "general-press.icc");
        return new(path, File.ReadAllBytes(path));
    }

    /// <summary>SHA-256 of it, lower-case hexadecimal.</summary>
    public string ContentHash { get; } = Convert.ToHexStringLower(SHA256.HashData(Bytes));

    /// <summary>What it calls itself; empty where it does not.</summary>
    public string Description => IccTags.Description(Bytes);

    /// <summary>What kind of device it is of: "prtr", "mntr", "scnr", "spac".</summary>
    public string Class => Four(12);

    /// <summary>The colours of the device: "RGB ", "CMYK", "GRAY", "Lab ".</summary>
    public string Space => Four(16);

    /// <summary>How many parts a colour of the device has; 0 where this program knows no such colours.</summary>
    public int Parts => Space switch { "GRAY" => 1, "RGB " or "Lab " => 3, FourInks => 4, _ => 0 };

    public int Version => Bytes.Length > 8 ? Bytes[8] : 0;

    private string Four(int at) => Bytes.Length >= at + 4 ? Encoding.Latin1.GetString(Bytes, at, 4) : "";

    /// <summary>Whether the bytes are laid out as a profile: header, size, and tags that lie within it.</summary>
    public bool IsWhole
    {
        get
        {
            if (Bytes.Length < IccTags.Header + 4 || Four(36) != "acsp") return false;
            uint size = BinaryPrimitives.ReadUInt32BigEndian(Bytes), count = BinaryPrimitives.ReadUInt32BigEndian(Bytes.AsSpan(IccTags.Header));
            if (size != Bytes.Length || count is 0 or > IccTags.Most || IccTags.Header + 4 + count * IccTags.Entry > size) return false;
            for (int i = 0; i < count; i++)
            {
                var entry = Bytes.AsSpan(IccTags.Header + 4 + i * IccTags.Entry, IccTags.Entry);
                uint offset = BinaryPrimitives.ReadUInt32BigEndian(entry[4..]), length = BinaryPrimitives.ReadUInt32BigEndian(entry[8..]);
                if (offset < IccTags.Header || (ulong)offset + length > size) return false;
            }
            return true;
        }
    }

    /// <summary>A printer's profile as it came.</summary>
    /// <param name="path">The file.</param>
    /// <exception cref="BadProfile">It is no profile of a press with four inks, or damaged.</exception>
    public static ColourProfile ReadPress(string path)
    {
        if (new FileInfo(path).Length > MostBytes) throw new BadProfile($"A profile has {MostBytes >> 20} MB at most. Ask the printer which file is meant.");
        var profile = new ColourProfile(path, File.ReadAllBytes(path));
        if (profile.Bytes.Length < IccTags.Header || profile.Four(36) != "acsp")
            throw new BadProfile("This is no ICC profile. Ask the printer for the profile of the press: a file that ends in .icc or .icm.");
        if (!profile.IsWhole) throw new BadProfile("This profile is damaged: its list of tags does not fit the file. Get it anew from the printer.");
        if (profile.Version is not (2 or 4))
            throw new BadProfile($"This profile is of version {profile.Version}; 2 and 4 are what files for print may hold. Ask the printer for such a one.");
        if (profile.Class != Output || profile.Space != FourInks) throw new BadProfile(profile.NoPress());
        try
        {
            // Whether it can be used both ways is seen by using it.
            var press = new PressConversion(profile);
            press.OnScreen(press.Inks(new(20, 120, 220)));
        }
        catch (VipsException e)
        {
            throw new BadProfile("This profile cannot be used: what it says of its inks is damaged or lacks a direction. Get it anew from the printer.", e);
        }
        return profile;
    }

    private string NoPress() => (Class switch
    {
        "mntr" => "This is the profile of a screen",
        "scnr" => "This is the profile of a scanner or camera",
        Output => "This profile is of a printer that has other colours than four inks",
        _ => "This profile is of no device that prints",
    }) + ". Ask the printer for the profile of the press, of cyan, magenta, yellow and black.";
}
