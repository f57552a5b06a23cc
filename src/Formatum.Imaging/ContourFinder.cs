using System.Collections.Immutable;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using NetVips;

namespace Formatum.Imaging;

/// <summary>Tells what a picture shows from the ground it lies on: from its transparency, or else from the one colour along its edges.</summary>
public sealed class ContourFinder(PreviewStore previews)
{
    /// <summary>Along the edges, so large a share of the pixels is of the ground's colour.</summary>
    private const double GroundShare = 0.8;

    /// <summary>At full strength, a colour may differ so much from the ground's in a channel, of 255, and belong to it still.</summary>
    private const double MostDifference = 128;

    /// <summary>Pieces smaller than this share of the largest are specks.</summary>
    private const double Speck = 0.01;

    /// <summary>No more points are found, however the outline runs: every publication that shows the picture keeps them.</summary>
    private const int Most = 240;

    /// <summary>How near the simplified outline stays to the pixels' own, in pixels of the preview.</summary>
    private const double Tolerance = 0.5;

    /// <summary>A picture that takes another's place, its contour told at the strength that was chosen there.</summary>
    public LinkedImage AsStrongAs(LinkedImage now, LinkedImage before) => before.Contour is not { Strength: not Contour.UsualStrength and var strength } ? now
        : now with { Contour = Find(now.ContentHash, strength) ?? new(strength, []) };

    /// <summary>The contour of a picture; null where it has no ground to be told from, fills all of it, or has no preview.</summary>
    /// <param name="contentHash">Of the picture.</param>
    /// <param name="strength">How different from the ground a point must be to count, 0 to 1.</param>
    public Contour? Find(string contentHash, double strength = Contour.UsualStrength)
    {
        Vips.Prepare();
        if (previews.Find(contentHash, PreviewStore.Sizes[1]) is not { } path) return null;
        using var preview = Image.NewFromFile(path);
        using var srgb = preview.Colourspace(Enums.Interpretation.Srgb);
        using var bytes = srgb.Cast(Enums.BandFormat.Uchar);
        var pixels = new Pixels(bytes.WriteToMemory<byte>(), bytes.Width, bytes.Height, bytes.Bands);
        var mask = bytes.HasAlpha() && pixels.IsClear ? pixels.Opaque(strength * 255) : pixels.OffGround(strength * MostDifference);
        return mask is null ? null : Of(mask, pixels.Width, strength);
    }

    private static Contour? Of(bool[] mask, int width, double strength)
    {
        int height = mask.Length / width, count = mask.Count(m => m);
        if (count == 0 || count == mask.Length) return null;
        var pieces = MaskOutline.Trace(mask, width, Tolerance, 4);
        if (pieces.IsEmpty) return null;
        double least = Speck * PolygonMeasure.SignedArea(pieces[0].AsSpan());
        for (double tolerance = Tolerance; ; tolerance *= 1.5)
        {
            pieces = MaskOutline.Trace(mask, width, tolerance, least);
            ImmutableArray<ImmutableArray<Vec>> rings = [.. pieces.Take(Contour.MostRings).Select(r => r.Select(p => new Vec(
                Math.Round(p.X / width, 4), Math.Round(p.Y / height, 4))).ToImmutableArray())];
            if (rings.Sum(r => r.Length) <= Most) return rings.IsEmpty ? null : new(strength, rings);
        }
    }

    /// <summary>A small picture, its channels beside one another.</summary>
    private sealed class Pixels(byte[] bytes, int width, int height, int bands)
    {
        public int Width => width;

        private int Count => width * height;

        /// <summary>Whether anything of it is seen through.</summary>
        public bool IsClear => Enumerable.Range(0, Count).Any(i => bytes[i * bands + bands - 1] < 250);

        public bool[] Opaque(double above) => [.. Enumerable.Range(0, Count).Select(i => bytes[i * bands + bands - 1] > above)];

        /// <summary>All that the ground, coming in from the edges, does not reach; null where the edges have no one colour.</summary>
        public bool[]? OffGround(double difference)
        {
            var edge = Edge();
            int[] ground = [.. Enumerable.Range(0, Math.Min(3, bands)).Select(band => edge.Select(i => (int)bytes[i * bands + band]).Order()
                .ElementAt(edge.Length / 2))];
            bool IsGround(int i)
            {
                for (int band = 0; band < ground.Length; band++) if (Math.Abs(bytes[i * bands + band] - ground[band]) > difference) return false;
                return true;
            }
            if (edge.Count(IsGround) < GroundShare * edge.Length) return null;
            var mask = Enumerable.Repeat(true, Count).ToArray();
            var open = new Stack<int>();
            void Reach(int i)
            {
                if (!mask[i] || !IsGround(i)) return;
                mask[i] = false;
                open.Push(i);
            }
            foreach (int i in edge) Reach(i);
            while (open.TryPop(out int at))
            {
                int x = at % width;
                if (x > 0) Reach(at - 1);
                if (x < width - 1) Reach(at + 1);
                if (at >= width) Reach(at - width);
                if (at < Count - width) Reach(at + width);
            }
            return mask;
        }

        private int[] Edge() => [.. Enumerable.Range(0, width).SelectMany(x => new[] { x, Count - width + x }),
            .. Enumerable.Range(0, height).SelectMany(y => new[] { y * width, y * width + width - 1 })];
    }
}
