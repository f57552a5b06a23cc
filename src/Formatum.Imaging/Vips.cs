using Formatum.Core.Geometry;
using NetVips;

namespace Formatum.Imaging;

/// <summary>The one place where the image library is set up and opened.</summary>
public static class Vips
{
    private static readonly Lazy<bool> Prepared = new(() =>
    {
        // Pictures are worked on side by side, each on one thread, and none is asked for twice: its cache would only hold memory.
        NetVips.NetVips.Concurrency = 1;
        Cache.Max = 0;
        // Only the readers that are meant to be met by strangers' files.
        Operation.Block("VipsForeignLoad", true);
        foreach (string reader in new[] { "Jpeg", "Png", "Tiff", "Webp", "Nsgif", "Heif", "Svg" }) Operation.Block("VipsForeignLoad" + reader, false);
        return true;
    });

    public static void Prepare() => _ = Prepared.Value;

    /// <summary>Whether the library failed at writing, and not at reading: it says so in these words (vips 8, target.c), or in the system's.</summary>
    internal static bool IsFull(VipsException e) => e.Message.Contains("unable to write", StringComparison.OrdinalIgnoreCase)
        || e.Message.Contains("write error", StringComparison.OrdinalIgnoreCase) || e.Message.Contains("No space left", StringComparison.OrdinalIgnoreCase);

    private const double SvgScale = 72 / PictureReader.SvgPpi;

    /// <summary>The library draws no side longer than this, in pixels.</summary>
    public const int LongestDrawnSide = 32_000;

    /// <summary>Opens a picture, decoding nothing yet.</summary>
    /// <param name="path">The file.</param>
    /// <param name="format">As <see cref="PictureFormat.Of"/> told it.</param>
    /// <exception cref="VipsException">It is broken.</exception>
    public static Image Open(string path, string format)
    {
        Prepare();
        return format switch
        {
            "jpeg" => Image.Jpegload(path, access: Enums.Access.Sequential, failOn: Enums.FailOn.Truncated),
            "png" => Image.Pngload(path, access: Enums.Access.Sequential, failOn: Enums.FailOn.Truncated),
            "tiff" => Image.Tiffload(path, access: Enums.Access.Sequential, failOn: Enums.FailOn.Truncated),
            "webp" => Image.Webpload(path, access: Enums.Access.Sequential, failOn: Enums.FailOn.Truncated),
            // The first picture of several.
            "gif" => Image.Gifload(path, access: Enums.Access.Sequential, failOn: Enums.FailOn.Truncated),
            "avif" => Image.Heifload(path, access: Enums.Access.Sequential, failOn: Enums.FailOn.Truncated),
            "svg" => Draw(path, 1, Enums.Access.Sequential),
            _ => throw new ArgumentException($"No reader for {format}."),
        };
    }

    /// <summary>The picture upright, in sRGB or grey of 8 bits a channel, reduced while it is read to lie within the given size.</summary>
    /// <param name="path">The file.</param>
    /// <param name="format">As <see cref="PictureFormat.Of"/> told it. A drawing is drawn at just the size asked for.</param>
    /// <param name="width">Most pixels across.</param>
    /// <param name="height">Most pixels down.</param>
    /// <param name="press">The profile of the press for which inks without a profile of their own are meant, by its source; null for the general
    /// one.</param>
    /// <exception cref="VipsException">It is broken.</exception>
    public static Image Reduced(string path, string format, int width, int height, string? press = null)
    {
        bool convert, inks;
        using (var header = Open(path, format)) (convert, inks) = (NeedsColourConversion(header), InkPictures.Is(header));
        if (inks)
        {
            using var own = InkPictures.Reduced(path, format, width, height);
            return InkPictures.OnScreen(own, press ?? ColourProfile.GeneralPress.Source);
        }
        var size = format == "svg" ? Enums.Size.Both : Enums.Size.Down;
        string? profile = convert ? "srgb" : null;
        var reduced = format == "svg" && SvgSize.Told(path) is { } told
            ? Image.ThumbnailBuffer(told, width, height: height, size: size, outputProfile: profile, failOn: Enums.FailOn.Truncated)
            : Image.Thumbnail(path, width, height, size: size, outputProfile: profile, failOn: Enums.FailOn.Truncated);
        if (reduced.Interpretation is Enums.Interpretation.Srgb or Enums.Interpretation.Bw) return reduced;
        using (reduced) return reduced.Colourspace(Enums.Interpretation.Srgb);
    }

    /// <summary>A drawing at a size, and of it what will be seen and a little more: nothing beyond is drawn.</summary>
    /// <param name="path">The file.</param>
    /// <param name="width">Of the whole drawing, in pixels.</param>
    /// <param name="height">Of the whole drawing, in pixels.</param>
    /// <param name="part">What will be seen, in its unit square.</param>
    /// <returns>The pixels, and what of the unit square they cover.</returns>
    /// <exception cref="VipsException">It is broken.</exception>
    public static (Image Pixels, Box Covers) Drawn(string path, int width, int height, Box part)
    {
        double scale;
        using (var header = Open(path, "svg")) scale = Math.Min(Math.Min((double)width / header.Width, (double)height / header.Height),
            (double)LongestDrawnSide / Math.Max(header.Width, header.Height));
        var whole = Draw(path, scale, Enums.Access.Random);
        using (whole)
        {
            var (left, across) = Span(part.X, part.Right, whole.Width);
            var (top, down) = Span(part.Y, part.Bottom, whole.Height);
            return (whole.Crop(left, top, across, down), new((double)left / whole.Width, (double)top / whole.Height, (double)across / whole.Width,
                (double)down / whole.Height));
        }
    }

    /// <summary>A drawing at so many times its size. The library draws a CSS pixel as 1/72 in; its scale makes it the 1/96 in that the standard
    /// means.</summary>
    private static Image Draw(string path, double scale, Enums.Access access) => SvgSize.Told(path) is { } told
        ? Image.SvgloadBuffer(told, dpi: PictureReader.SvgPpi, scale: SvgScale * scale, access: access)
        : Image.Svgload(path, dpi: PictureReader.SvgPpi, scale: SvgScale * scale, access: access);

    /// <summary>Whole pixels around a span of fractions, and two beside it: what lies at the edge is mixed with its neighbours.</summary>
    private static (int First, int Count) Span(double from, double to, int pixels)
    {
        const int Beside = 2;
        int first = Math.Clamp((int)Math.Floor(from * pixels) - Beside, 0, pixels - 1);
        return (first, Math.Clamp((int)Math.Ceiling(to * pixels) + Beside, first + 1, pixels) - first);
    }

    /// <summary>Colour conversion takes longer than all the rest, and most pictures are in sRGB anyway, whether they say so or not.</summary>
    private static bool NeedsColourConversion(Image header)
    {
        if (header.Interpretation == Enums.Interpretation.Lab) return true;
        return header.Contains("icc-profile-data") && header.Get("icc-profile-data") is byte[] profile && !IccTags.IsSrgb(profile);
    }
}
