using MetadataExtractor;
using MetadataExtractor.Formats.Exif;
using MetadataExtractor.Formats.Jfif;
using MetadataExtractor.Formats.Png;

namespace Formatum.Imaging;

/// <summary>
/// The resolution that a file stores, in ppi along its stored axes. Read from the file itself, since decoders put a usual value where it stores none.
/// </summary>
internal static class StoredResolution
{
    private const double CentimetresPerInch = 2.54, MetresPerInch = 0.0254;

    /// <summary>EXIF or TIFF XResolution and YResolution (EXIF 2.3, tags 282, 283, 296), else JFIF's density (1.02), else PNG's pHYs (11.3.5.3). Null where
    /// there is none in a unit of length.</summary>
    public static (double X, double Y)? Of(IReadOnlyList<MetadataExtractor.Directory> all)
    {
        foreach (var found in new[] { Exif(all), Jfif(all), Png(all) })
        {
            if (found is { } ppi && IsSane(ppi.X) && IsSane(ppi.Y)) return (Math.Round(ppi.X, 3), Math.Round(ppi.Y, 3));
        }
        return null;
    }

    private static bool IsSane(double ppi) => ppi is >= 1 and <= 100_000;

    private static (double X, double Y)? Exif(IReadOnlyList<MetadataExtractor.Directory> all)
    {
        foreach (var ifd in all.OfType<ExifIfd0Directory>())
        {
            if (!ifd.TryGetDouble(ExifDirectoryBase.TagXResolution, out double x) || !ifd.TryGetDouble(ExifDirectoryBase.TagYResolution,
                out double y)) continue;
            // Without a unit, the standard's usual one is the inch; 1 means that the numbers are only a ratio.
            int unit = ifd.TryGetInt32(ExifDirectoryBase.TagResolutionUnit, out int given) ? given : 2;
            if (unit == 2) return (x, y);
            if (unit == 3) return (x * CentimetresPerInch, y * CentimetresPerInch);
        }
        return null;
    }

    private static (double X, double Y)? Jfif(IReadOnlyList<MetadataExtractor.Directory> all)
    {
        if (all.OfType<JfifDirectory>().FirstOrDefault() is not { } jfif || !jfif.TryGetInt32(JfifDirectory.TagUnits, out int unit)
            || !jfif.TryGetInt32(JfifDirectory.TagResX, out int x) || !jfif.TryGetInt32(JfifDirectory.TagResY, out int y)) return null;
        return unit switch { 1 => (x, y), 2 => (x * CentimetresPerInch, y * CentimetresPerInch), _ => null };
    }

    private static (double X, double Y)? Png(IReadOnlyList<MetadataExtractor.Directory> all)
    {
        foreach (var chunk in all.OfType<PngDirectory>())
        {
            if (chunk.TryGetInt32(PngDirectory.TagUnitSpecifier, out int unit) && unit == 1
                && chunk.TryGetInt32(PngDirectory.TagPixelsPerUnitX, out int x) && chunk.TryGetInt32(PngDirectory.TagPixelsPerUnitY, out int y))
                return (x * MetresPerInch, y * MetresPerInch);
        }
        return null;
    }
}
