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

    /// <summary>
    /// The area that a polygon shares with a convex one, in square points: Sutherland and Hodgman's clipping (1974). The polygon may be
    /// hollowed; the edges that clipping leaves lying on each other then enclose nothing, so the area stays right.
    /// </summary>
    public static double SharedArea(ReadOnlySpan<Vec> polygon, ReadOnlySpan<Vec> convex)
    {
        double turn = SignedArea(convex);
        if (turn == 0) return 0;
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
        return Math.Abs(SignedArea(System.Runtime.InteropServices.CollectionsMarshal.AsSpan(kept)));
    }
}
