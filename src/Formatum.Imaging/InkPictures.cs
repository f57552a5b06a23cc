using NetVips;

namespace Formatum.Imaging;

/// <summary>Pictures that are stored in four inks: reduced as they are, and shown as a press prints them.</summary>
internal static class InkPictures
{
    /// <summary>A JPEG is read at a half, a quarter or an eighth where that still leaves so many times the pixels wanted.</summary>
    private const double Spare = 2;

    public static bool Is(Image image) => image.Interpretation == Enums.Interpretation.Cmyk;

    /// <summary>The picture upright and in its own inks, within the given size.</summary>
    /// <param name="path">The file.</param>
    /// <param name="format">As <see cref="PictureFormat.Of"/> told it.</param>
    /// <param name="width">Most pixels across.</param>
    /// <param name="height">Most pixels down.</param>
    /// <exception cref="VipsException">It is broken.</exception>
    public static Image Reduced(string path, string format, int width, int height)
    {
        using var opened = Opened(path, format, width, height);
        int orientation = opened.Contains("orientation") ? Convert.ToInt32(opened.Get("orientation")) : 1;
        var (across, down) = Core.Fitting.Orientation.SwapsAxes(orientation) ? (height, width) : (width, height);
        double scale = Math.Min((double)across / opened.Width, (double)down / opened.Height);
        using var reduced = scale >= 1 ? opened.Copy() : PictureSamples.Scaled(opened, scale);
        // Lines are read from the top down: a picture to be turned has to be there as a whole.
        using var there = orientation == 1 ? reduced.Copy() : reduced.CopyMemory();
        return there.Autorot();
    }

    private static Image Opened(string path, string format, int width, int height)
    {
        var whole = Vips.Open(path, format);
        if (format != "jpeg") return whole;
        double room = Math.Min(whole.Width, whole.Height) / (Spare * Math.Max(width, height));
        if (room < 2) return whole;
        whole.Dispose();
        return Image.Jpegload(path, shrink: room >= 8 ? 8 : room >= 4 ? 4 : 2, access: Enums.Access.Sequential, failOn: Enums.FailOn.Truncated);
    }

    /// <summary>As a press prints it, in sRGB of 8 bits a part: relative colorimetric with black-point compensation, as light is brought to its inks.</summary>
    /// <param name="inks">The picture.</param>
    /// <param name="press">The profile of the press, by its source, for a picture that has none of its own.</param>
    public static Image OnScreen(Image inks, string press)
    {
        bool own = inks.Contains("icc-profile-data") && inks.Get("icc-profile-data") is byte[] profile
            && new ColourProfile("", profile) is { IsWhole: true, Space: "CMYK" };
        return inks.IccTransform(ColourProfile.Srgb.Source, intent: Enums.Intent.Relative, blackPointCompensation: true, embedded: own,
            inputProfile: own ? null : press, depth: 8);
    }
}
