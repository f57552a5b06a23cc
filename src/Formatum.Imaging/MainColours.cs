using System.Collections.Immutable;
using NetVips;

namespace Formatum.Imaging;

/// <summary>Finds the colours that make up most of a picture.</summary>
public sealed class MainColours(PreviewStore previews)
{
    /// <summary>So many are told at most.</summary>
    private const int Most = 6;

    /// <summary>Edge of the picture they are looked for in, in pixels.</summary>
    private const int Edge = 96;

    private const int Rounds = 12;

    /// <summary>Colours nearer to each other than this, in CIE 1976 L*a*b* (delta E 76), are told as one.</summary>
    private const double Alike = 12;

    private readonly record struct Lab(double L, double A, double B)
    {
        public double To(Lab other) => Math.Sqrt((L - other.L) * (L - other.L) + (A - other.A) * (A - other.A) + (B - other.B) * (B - other.B));
    }

    /// <summary>The colours as "#rrggbb", that of most pixels first; none where there is no preview.</summary>
    public ImmutableArray<string> Of(string contentHash)
    {
        Vips.Prepare();
        if (previews.Find(contentHash, PreviewStore.Sizes[0]) is not { } path) return [];
        using var preview = Image.Thumbnail(path, Edge, height: Edge);
        using var flat = preview.HasAlpha() ? preview.Flatten(background: [255]) : preview.Copy();
        using var lab = flat.Colourspace(Enums.Interpretation.Lab).Cast(Enums.BandFormat.Float);
        float[] parts = lab.WriteToMemory<float>();
        var pixels = new Lab[lab.Width * lab.Height];
        for (int i = 0; i < pixels.Length; i++) pixels[i] = new(parts[3 * i], parts[3 * i + 1], parts[3 * i + 2]);
        return [.. Clusters(pixels).Select(Hex).Distinct()];
    }

    /// <summary>Lloyd's k-means, begun with pixels far from each other, so that the same picture always tells the same.</summary>
    private static List<Lab> Clusters(Lab[] pixels)
    {
        var centres = Begun(pixels);
        int[] counts = new int[centres.Count];
        for (int round = 0; round < Rounds; round++)
        {
            var sums = new (double L, double A, double B)[centres.Count];
            Array.Clear(counts);
            foreach (var pixel in pixels)
            {
                int near = Nearest(centres, pixel);
                counts[near]++;
                sums[near] = (sums[near].L + pixel.L, sums[near].A + pixel.A, sums[near].B + pixel.B);
            }
            for (int c = 0; c < centres.Count; c++)
                if (counts[c] > 0) centres[c] = new(sums[c].L / counts[c], sums[c].A / counts[c], sums[c].B / counts[c]);
        }
        return [.. Enumerable.Range(0, centres.Count).Where(c => counts[c] > 0).OrderByDescending(c => counts[c]).Select(c => centres[c])];
    }

    private static List<Lab> Begun(Lab[] pixels)
    {
        List<Lab> centres = [pixels[0]];
        while (centres.Count < Most)
        {
            var farthest = pixels.MaxBy(p => centres.Min(c => c.To(p)));
            if (centres.Min(c => c.To(farthest)) < Alike) break;
            centres.Add(farthest);
        }
        return centres;
    }

    private static int Nearest(List<Lab> centres, Lab pixel)
    {
        int nearest = 0;
        for (int c = 1; c < centres.Count; c++)
            if (centres[c].To(pixel) < centres[nearest].To(pixel)) nearest = c;
        return nearest;
    }

    private static string Hex(Lab lab)
    {
        using var one = Image.Black(1, 1, bands: 3).Linear([0, 0, 0], [lab.L, lab.A, lab.B]).Copy(interpretation: Enums.Interpretation.Lab);
        using var srgb = one.Colourspace(Enums.Interpretation.Srgb).Cast(Enums.BandFormat.Uchar);
        byte[] rgb = srgb.WriteToMemory<byte>();
        return $"#{rgb[0]:x2}{rgb[1]:x2}{rgb[2]:x2}";
    }
}
