using Formatum.Imaging;
using NetVips;

namespace Formatum.Testing;

/// <summary>Pictures made for tests, and photographs found on the machine.</summary>
public static class TestPictures
{
    /// <summary>Photographs of the Debian package mate-backgrounds, the largest first.</summary>
    public static IReadOnlyList<string> Photographs { get; } =
        [.. Directory.EnumerateFiles("/usr/share/backgrounds/mate", "*.jpg", SearchOption.AllDirectories).OrderByDescending(f => new FileInfo(f).Length)
            .ThenBy(f => f, StringComparer.Ordinal)];

    /// <summary>Four quarters, seen upright: red upper left, green upper right, blue lower left, white lower right; smooth enough to survive
    /// compression.</summary>
    public static Image Quarters(int width, int height)
    {
        Vips.Prepare();
        using var red = Plain(width / 2, height / 2, 220, 30, 30);
        using var green = Plain(width - width / 2, height / 2, 30, 160, 60);
        using var blue = Plain(width / 2, height - height / 2, 30, 60, 200);
        using var white = Plain(width - width / 2, height - height / 2, 245, 245, 245);
        using var top = red.Join(green, Enums.Direction.Horizontal);
        using var bottom = blue.Join(white, Enums.Direction.Horizontal);
        return top.Join(bottom, Enums.Direction.Vertical);
    }

    private static Image Plain(int width, int height, params double[] colour)
    {
        using var black = Image.Black(width, height, bands: 3);
        return black.Linear([1.0, 1.0, 1.0], colour).Cast(Enums.BandFormat.Uchar).Copy(interpretation: Enums.Interpretation.Srgb);
    }

    /// <summary>Saves a picture in the format its name ends in.</summary>
    /// <param name="upright">The picture as it should be seen.</param>
    /// <param name="path">Where to.</param>
    /// <param name="ppi">Resolution to store.</param>
    /// <param name="orientation">EXIF orientation to store it in.</param>
    /// <param name="quality">Of JPEG and WebP.</param>
    public static string Save(Image upright, string path, double ppi = 72, int orientation = 1, int quality = 92)
    {
        using var stored = Stored(upright, orientation);
        double perMillimetre = ppi / 25.4;
        using var sized = stored.Copy(xres: perMillimetre, yres: perMillimetre);
        using var tagged = sized.Mutate(m =>
        {
            m.Set(GValue.GStrType, "resolution-unit", "in");
            if (orientation > 1) m.Set(GValue.GIntType, "orientation", orientation);
        });
        switch (Path.GetExtension(path))
        {
            case ".png": tagged.Pngsave(path); break;
            case ".tif": tagged.Tiffsave(path, resunit: Enums.ForeignTiffResunit.Inch); break;
            case ".webp": tagged.Webpsave(path, q: quality); break;
            default: tagged.Jpegsave(path, q: quality); break;
        }
        return path;
    }

    /// <summary>What a camera held that way stores, by the definition of EXIF 2.3, tag 274: "the 0th row is at the visual ..., the 0th column at the visual
    /// ...".</summary>
    private static Image Stored(Image upright, int orientation) => orientation switch
    {
        2 => upright.FlipHor(),                    // row 0 top, column 0 right
        3 => upright.Rot180(),                     // row 0 bottom, column 0 right
        4 => upright.FlipVer(),                    // row 0 bottom, column 0 left
        5 => upright.Rot90().FlipHor(),            // row 0 left, column 0 top
        6 => upright.Rot270(),                     // row 0 right, column 0 top
        7 => upright.Rot270().FlipHor(),           // row 0 right, column 0 bottom
        8 => upright.Rot90(),                      // row 0 left, column 0 bottom
        _ => upright.Copy(),
    };
}
