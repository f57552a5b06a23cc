using Formatum.Imaging;
using NetVips;

namespace Formatum.Bench;

/// <summary>Photographs to measure with: large ones made from those of the Debian package mate-backgrounds, each different, with a camera's grain.</summary>
internal static class Pictures
{
    public static string[] Make(string folder, int count, int width, int height)
    {
        Vips.Prepare();
        Directory.CreateDirectory(folder);
        var sources = Directory.GetFiles("/usr/share/backgrounds/mate/nature", "*.jpg").Order().ToArray();
        var paths = Enumerable.Range(0, count).Select(i => Path.Combine(folder, $"p{i:000}.jpg")).ToArray();
        Parallel.For(0, count, new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount }, i =>
        {
            if (File.Exists(paths[i])) return;
            using var photograph = Image.Thumbnail(sources[i % sources.Length], width, height, crop: Enums.Interesting.Centre, size: Enums.Size.Both).CopyMemory();
            using var grain = Image.Gaussnoise(width, height, mean: 0, sigma: 4, seed: i);
            using var grained = (photograph + grain).Cast(Enums.BandFormat.Uchar).Copy(interpretation: Enums.Interpretation.Srgb, xres: 300 / 25.4, yres: 300 / 25.4);
            grained.Jpegsave(paths[i], q: 85);
        });
        return paths;
    }
}
