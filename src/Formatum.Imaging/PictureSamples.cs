using Formatum.Core.Publications;
using NetVips;

namespace Formatum.Imaging;

/// <summary>What the parts of a pixel are.</summary>
public enum SampleKind { Grey, Rgb, Inks, Lab }

/// <summary>What is wanted of a picture's pixels.</summary>
/// <param name="WidthPx">Most pixels across, of the upright picture.</param>
/// <param name="HeightPx">Most pixels down.</param>
/// <param name="Press">A press's profile, by its source. For samples: to whose inks light is converted; null where all stays in its own colours. For the
/// screen: whose inks a picture in inks shows; null for the general one.</param>
public readonly record struct SampleWish(int WidthPx, int HeightPx, string? Press = null);

/// <summary>A picture in its own colours, upright: 8 bits a part, rows from the top.</summary>
/// <param name="Kind">What its parts are. Inks: 255 is full. Lab: as a PDF takes it, L 0 to 255 for 0 to 100, a and b 128 more than they are.</param>
/// <param name="HasAlpha">Whether a part more says how much it covers.</param>
/// <param name="Profile">Its own profile; null where it has none, or was converted.</param>
/// <param name="Data">The samples.</param>
public sealed record PictureSamples(int Width, int Height, SampleKind Kind, bool HasAlpha, byte[]? Profile, byte[] Data)
{
    public int Parts => PartsOf(Kind);

    public static int PartsOf(SampleKind kind) => kind switch { SampleKind.Grey => 1, SampleKind.Inks => 4, _ => 3 };

    /// <summary>Decodes a linked picture, and gives its samples, still to be computed, to whoever takes them. Not for drawings.</summary>
    /// <exception cref="BadPicture">It can no longer be read.</exception>
    internal static T Decode<T>(LinkedImage image, SampleWish wish, Func<Image, SampleKind, bool, byte[]?, T> take)
    {
        try
        {
            using var opened = Vips.Open(image.Path, image.Format);
            // Lines are read from the top down: a picture to be turned has to be there as a whole.
            using var there = image.Orientation == 1 ? opened.Copy() : opened.CopyMemory();
            using var upright = there.Autorot();
            var profile = upright.Contains("icc-profile-data") ? upright.Get("icc-profile-data") as byte[] : null;
            using var reduced = Reduced(upright, wish);
            using var samples = Plain(reduced, ref profile, wish.Press, out var kind, out bool alpha);
            return take(samples, kind, alpha, profile);
        }
        catch (VipsException e) when (Vips.IsFull(e))
        {
            throw new IOException("The disk is full.", e);
        }
        catch (VipsException e)
        {
            throw new BadPicture("It can no longer be read as a picture. Look at its file, or link it anew.", e);
        }
    }

    /// <summary>With fewer pixels where it has more than wanted.</summary>
    private static Image Reduced(Image image, SampleWish wish)
    {
        double scale = Math.Min((double)wish.WidthPx / image.Width, (double)wish.HeightPx / image.Height);
        return scale >= 1 ? image.Copy() : Scaled(image, scale);
    }

    /// <summary>Fewer pixels, by Lanczos' window of three lobes; what is transparent weighs nothing.</summary>
    internal static Image Scaled(Image image, double scale)
    {
        if (!image.HasAlpha()) return image.Resize(scale, kernel: Enums.Kernel.Lanczos3);
        using var weighed = image.Premultiply();
        using var resized = weighed.Resize(scale, kernel: Enums.Kernel.Lanczos3);
        using var straight = resized.Unpremultiply();
        return straight.Cast(image.Format);
    }

    private static Image Plain(Image image, ref byte[]? profile, string? press, out SampleKind kind, out bool hasAlpha)
    {
        bool alpha = hasAlpha = image.HasAlpha();
        using var colours = alpha ? image.ExtractBand(0, n: image.Bands - 1) : image.Copy();
        kind = colours.Interpretation switch
        {
            Enums.Interpretation.Cmyk => SampleKind.Inks,
            Enums.Interpretation.Lab or Enums.Interpretation.Labs or Enums.Interpretation.Labq => SampleKind.Lab,
            _ when colours.Bands < 3 => SampleKind.Grey,
            _ => SampleKind.Rgb,
        };
        using var converted = Converted(colours, ref kind, ref profile, press);
        using var plain = kind == SampleKind.Lab ? LabAsBytes(converted) : AsBytes(converted);
        if (!alpha) return plain.Copy();
        using var own = image.ExtractBand(image.Bands - 1);
        using var cover = AsBytes(own);
        return plain.Bandjoin(cover);
    }

    private static Image Converted(Image colours, ref SampleKind kind, ref byte[]? profile, string? press)
    {
        if (press is null || kind is SampleKind.Inks or SampleKind.Grey) return colours.Copy();
        var from = kind;
        kind = SampleKind.Inks;
        // A profile in the file that does not fit it is passed over.
        bool own = profile is not null && from == SampleKind.Rgb && new ColourProfile("", profile).Space == "RGB ";
        profile = null;
        return from == SampleKind.Lab ? colours.IccExport(outputProfile: press, intent: Enums.Intent.Relative, depth: 8, blackPointCompensation: true)
            : colours.IccTransform(press, intent: Enums.Intent.Relative, blackPointCompensation: true, embedded: own,
                inputProfile: own ? null : ColourProfile.Srgb.Source, depth: 8);
    }

    /// <summary>Of 16 bits the upper 8 are kept.</summary>
    private static Image AsBytes(Image image) => image.Format == Enums.BandFormat.Ushort ? image.Cast(Enums.BandFormat.Uchar, shift: true)
        : image.Cast(Enums.BandFormat.Uchar);

    private static Image LabAsBytes(Image image)
    {
        using var lab = image.Colourspace(Enums.Interpretation.Lab);
        using var scaled = lab.Linear([2.55, 1, 1], [0, 128, 128]);
        using var rounded = scaled.Rint();
        return rounded.Cast(Enums.BandFormat.Uchar);
    }
}
