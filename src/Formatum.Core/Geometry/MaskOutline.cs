using System.Collections.Immutable;

namespace Formatum.Core.Geometry;

/// <summary>The outlines of what a mask of pixels holds.</summary>
public static class MaskOutline
{
    /// <summary>
    /// Follows the outer edges of every connected piece, through the middles of the pixels' sides, and leaves out corners that lie within a tolerance of the
    /// line without them (Douglas and Peucker 1973). Holes are filled.
    /// </summary>
    /// <param name="mask">Which pixels belong to it, row by row.</param>
    /// <param name="width">Pixels in a row.</param>
    /// <param name="tolerance">In pixels.</param>
    /// <param name="least">Pieces of a smaller area, in pixels, are left out.</param>
    /// <returns>Rings that run clockwise on the page, the largest first, in pixels from the upper left.</returns>
    public static ImmutableArray<ImmutableArray<Vec>> Trace(bool[] mask, int width, double tolerance, double least)
    {
        int height = mask.Length / width;
        bool Is(int x, int y) => x >= 0 && y >= 0 && x < width && y < height && mask[y * width + x];
        var seen = new HashSet<(int X, int Y)>();
        var rings = new List<(double Area, ImmutableArray<Vec> Ring)>();
        for (int y = 0; y < height; y++)
        {
            for (int x = 0; x < width; x++)
            {
                // An upper side that was not walked along yet begins an outer edge, or is one of a hole.
                if (!Is(x, y) || Is(x, y - 1) || !seen.Add((x, y))) continue;
                var ring = Walk(Is, x, y, seen);
                double area = PolygonMeasure.SignedArea(ring.ToArray());
                if (area >= least) rings.Add((area, Simplified(ring, tolerance)));
            }
        }
        return [.. rings.Where(r => r.Ring.Length >= 3).OrderByDescending(r => r.Area).Select(r => r.Ring)];
    }

    private static readonly (int X, int Y)[] Ways = [(1, 0), (0, 1), (-1, 0), (0, -1)];

    /// <summary>Along the sides of pixels with the mask at the right hand, from the upper side of one until that comes again.</summary>
    private static List<Vec> Walk(Func<int, int, bool> isIn, int x, int y, HashSet<(int X, int Y)> seen)
    {
        var middles = new List<Vec>();
        // The corner it stands at, and the way it looks.
        var (cornerX, cornerY, way) = (x, y, 0);
        do
        {
            var (dx, dy) = Ways[way];
            middles.Add(new(cornerX + dx / 2.0, cornerY + dy / 2.0));
            if (way == 0) seen.Add((cornerX, cornerY));
            (cornerX, cornerY) = (cornerX + dx, cornerY + dy);
            bool ahead(int side) => isIn(cornerX + Beside(way, side).X, cornerY + Beside(way, side).Y);
            // Pixels that touch at a corner alone belong together.
            way = (ahead(-1) ? way + 3 : ahead(1) ? way : way + 1) % 4;
        }
        while (cornerX != x || cornerY != y || way != 0);
        return middles;
    }

    /// <summary>The pixel before a corner, at the left (-1) or right (1) of a way.</summary>
    private static (int X, int Y) Beside(int way, int side) => (way, side) switch
    {
        (0, -1) => (0, -1),
        (0, _) => (0, 0),
        (1, -1) => (0, 0),
        (1, _) => (-1, 0),
        (2, -1) => (-1, 0),
        (2, _) => (-1, -1),
        (3, -1) => (-1, -1),
        _ => (0, -1),
    };

    private static ImmutableArray<Vec> Simplified(List<Vec> ring, double tolerance)
    {
        int far = 0;
        for (int i = 1; i < ring.Count; i++) if ((ring[i] - ring[0]).Length > (ring[far] - ring[0]).Length) far = i;
        var keep = new bool[ring.Count + 1];
        keep[0] = keep[far] = true;
        var open = new Stack<(int From, int To)>([(0, far), (far, ring.Count)]);
        while (open.TryPop(out var stretch))
        {
            var (from, to) = stretch;
            Vec a = ring[from], along = ring[to % ring.Count] - a;
            double farthest = tolerance;
            int at = -1;
            for (int i = from + 1; i < to; i++)
            {
                double off = along.Length == 0 ? (ring[i] - a).Length : Math.Abs(along.Cross(ring[i] - a)) / along.Length;
                if (off > farthest) (farthest, at) = (off, i);
            }
            if (at < 0) continue;
            keep[at] = true;
            open.Push((from, at));
            open.Push((at, to));
        }
        return [.. ring.Where((_, i) => keep[i])];
    }
}
