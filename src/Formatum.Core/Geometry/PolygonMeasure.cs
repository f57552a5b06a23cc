namespace Formatum.Core.Geometry;

/// <summary>Areas of polygons and of what a convex polygon shares with another.</summary>
public static class PolygonMeasure
{
    /// <summary>The shoelace sum: positive where the corners run clockwise on the page.</summary>
    public static double SignedArea(ReadOnlySpan<Vec> corners)
    {
        double sum = 0;
        for (int i = 0; i < corners.Length; i++)
            sum += corners[i].Cross(corners[i + 1 == corners.Length ? 0 : i + 1]);
        return sum / 2;
    }

    /// <summary>The area a polygon encloses, in square points.</summary>
    public static double AreaOf(ReadOnlySpan<Vec> corners, bool crossing) => crossing ? WoundArea(corners) : Math.Abs(SignedArea(corners));

    /// <summary>
    /// The area that a polygon shares with a convex one, in square points: Sutherland and Hodgman's clipping (1974). The polygon may be
    /// hollowed; the edges that clipping leaves lying on each other then enclose nothing, so the area stays right.
    /// </summary>
    /// <param name="polygon">Its corners.</param>
    /// <param name="convex">The other's corners.</param>
    /// <param name="crossing">Whether the polygon's edges may cross each other: clipping keeps how often it winds about a point.</param>
    public static double SharedArea(ReadOnlySpan<Vec> polygon, ReadOnlySpan<Vec> convex, bool crossing = false)
    {
        var shared = System.Runtime.InteropServices.CollectionsMarshal.AsSpan(Clipped(polygon, convex));
        return crossing ? WoundArea(shared) : Math.Abs(SignedArea(shared));
    }

    /// <summary>A polygon without what lies outside a convex one. Where it falls into pieces, edges that lie on each other join them.</summary>
    public static List<Vec> Clipped(ReadOnlySpan<Vec> polygon, ReadOnlySpan<Vec> convex)
    {
        double turn = SignedArea(convex);
        if (turn == 0) return [];
        var kept = new List<Vec>(polygon.Length + convex.Length);
        foreach (var corner in polygon) kept.Add(corner);
        var next = new List<Vec>(kept.Capacity);
        for (int i = 0; i < convex.Length && kept.Count > 0; i++)
        {
            Vec from = convex[i], along = convex[i + 1 == convex.Length ? 0 : i + 1] - from;
            double Inside(Vec p) => Math.Sign(turn) * along.Cross(p - from);
            next.Clear();
            for (int k = 0; k < kept.Count; k++)
            {
                Vec p = kept[k], q = kept[k + 1 == kept.Count ? 0 : k + 1];
                double dp = Inside(p), dq = Inside(q);
                if (dp >= 0) next.Add(p);
                if (dp < 0 != dq < 0) next.Add(p + dp / (dp - dq) * (q - p));
            }
            (kept, next) = (next, kept);
        }
        return kept;
    }

    /// <summary>Whether a polygon has no hollows, and does not cross itself.</summary>
    public static bool IsConvex(ReadOnlySpan<Vec> corners)
    {
        double turned = 0;
        int sign = Math.Sign(SignedArea(corners));
        for (int i = 0; i < corners.Length; i++)
        {
            Vec along = corners[(i + 1) % corners.Length] - corners[i], next = corners[(i + 2) % corners.Length] - corners[(i + 1) % corners.Length];
            if (sign * along.Cross(next) < 0) return false;
            turned += Math.Atan2(along.Cross(next), along.X * next.X + along.Y * next.Y);
        }
        // Once around, and not twice as a star does.
        return Math.Abs(turned) < 3 * Math.PI;
    }

    /// <summary>Whether edges of the polygon cross, other than at corners they share.</summary>
    public static bool IsCrossing(ReadOnlySpan<Vec> corners)
    {
        int n = corners.Length;
        for (int i = 0; i < n; i++)
            for (int k = i + 2; k < n; k++)
                if (!(i == 0 && k == n - 1) && Crossing(corners[i], corners[i + 1], corners[k], corners[k + 1 == n ? 0 : k + 1]) is not null) return true;
        return false;
    }

    /// <summary>
    /// The area about which the polygon winds at all, as it is drawn and clipped to (SVG 2, 13.4.2: fill-rule nonzero): cut into strips in which no edges
    /// cross, and each strip into trapezoids.
    /// </summary>
    public static double WoundArea(ReadOnlySpan<Vec> corners)
    {
        int n = corners.Length;
        var heights = new SortedSet<double>();
        for (int i = 0; i < n; i++)
        {
            heights.Add(corners[i].Y);
            for (int k = i + 2; k < n; k++)
                if (Crossing(corners[i], corners[i + 1], corners[k], corners[k + 1 == n ? 0 : k + 1]) is { } at) heights.Add(at.Y);
        }
        double area = 0, top = double.NaN;
        foreach (double bottom in heights)
        {
            if (bottom > top) area += StripArea(corners, top, bottom);
            top = bottom;
        }
        return area;
    }

    private static double StripArea(ReadOnlySpan<Vec> corners, double top, double bottom)
    {
        var edges = new List<(double Middle, int Turn)>();
        for (int i = 0; i < corners.Length; i++)
        {
            Vec p = corners[i], q = corners[i + 1 == corners.Length ? 0 : i + 1];
            if (Math.Min(p.Y, q.Y) > top || Math.Max(p.Y, q.Y) < bottom || p.Y == q.Y) continue;
            double middle = p.X + ((top + bottom) / 2 - p.Y) / (q.Y - p.Y) * (q.X - p.X);
            edges.Add((middle, q.Y > p.Y ? 1 : -1));
        }
        edges.Sort((a, b) => a.Middle.CompareTo(b.Middle));
        double width = 0;
        int winding = 0;
        for (int i = 0; i < edges.Count; i++)
        {
            if (winding != 0) width += edges[i].Middle - edges[i - 1].Middle;
            winding += edges[i].Turn;
        }
        // A trapezoid is as wide on average as in its middle.
        return width * (bottom - top);
    }

    /// <summary>Where two stretches cross, ends not counted; null where they do not.</summary>
    private static Vec? Crossing(Vec p, Vec q, Vec r, Vec s)
    {
        Vec a = q - p, b = s - r;
        double turn = a.Cross(b);
        if (turn == 0) return null;
        double t = (r - p).Cross(b) / turn, u = (r - p).Cross(a) / turn;
        return t > 0 && t < 1 && u > 0 && u < 1 ? p + t * a : null;
    }
}
