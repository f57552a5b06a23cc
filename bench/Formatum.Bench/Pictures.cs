using Formatum.Imaging;
using NetVips;

namespace Formatum.Bench;

/// <summary>
/// Photographs to measure with: large ones made from those of the Debian package mate-backgrounds, with a camera's grain. The first few show different
/// pixels; those after them show the same ones again in files that differ by a comment, since making hundreds takes longer than all that is measured.
/// </summary>
internal static class Pictures
{
    private const int Different = 60;

    public static string[] Make(string folder, int count, int width, int height)
    {
        Vips.Prepare();
        Directory.CreateDirectory(folder);
        var sources = Directory.GetFiles("/usr/share/backgrounds/mate/nature", "*.jpg").Order().ToArray();
        var paths = Enumerable.Range(0, count).Select(i => Path.Combine(folder, $"p{i:000}.jpg")).ToArray();
        Parallel.For(0, Math.Min(count, Different), new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount }, i =>
        {
            if (File.Exists(paths[i])) return;
            using var photograph = Image.Thumbnail(sources[i % sources.Length], width, height, crop: Enums.Interesting.Centre, size: Enums.Size.Both)
                .CopyMemory();
            using var grain = Image.Gaussnoise(width, height, mean: 0, sigma: 4, seed: i);
            using var grained = (photograph + grain).Cast(Enums.BandFormat.Uchar).Copy(interpretation: Enums.Interpretation.Srgb, xres: 300 / 25.4,
                yres: 300 / 25.4);
            grained.Jpegsave(paths[i], q: 85);
        });
        for (int i = Different; i < count; i++)
        {
            if (!File.Exists(paths[i])) File.WriteAllBytes(paths[i], Commented(File.ReadAllBytes(paths[i % Different]), i));
        }
        return paths;
    }

    /// <summary>A JPEG with a comment segment behind its start (ITU-T T.81, B.2.4.5).</summary>
    private static byte[] Commented(byte[] jpeg, int number) => [.. jpeg[..2], 0xFF, 0xFE, 0, 6, .. BitConverter.GetBytes(number), .. jpeg[2..]];
}
