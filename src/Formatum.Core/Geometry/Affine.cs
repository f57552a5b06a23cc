namespace Formatum.Core.Geometry;

/// <summary>
/// An affine map in SVG's order: x' = A x + C y + E, y' = B x + D y + F (SVG 2, section 8.5, <c>matrix(a b c d e f)</c>).
/// Angles are degrees, clockwise on the page.
/// </summary>
public readonly record struct Affine(double A, double B, double C, double D, double E, double F)
{
    public static readonly Affine Identity = new(1, 0, 0, 1, 0, 0);

    public static Affine Translation(double x, double y) => new(1, 0, 0, 1, x, y);
    public static Affine Scaling(double x, double y) => new(x, 0, 0, y, 0, 0);

    public static Affine Rotation(double degrees)
    {
        var (sin, cos) = Angle.SinCos(degrees);
        return new(cos, sin, -sin, cos, 0, 0);
    }

    /// <summary>The map that applies <paramref name="first"/> and then this one.</summary>
    public Affine After(Affine first) => new(
        A * first.A + C * first.B,
        B * first.A + D * first.B,
        A * first.C + C * first.D,
        B * first.C + D * first.D,
        A * first.E + C * first.F + E,
        B * first.E + D * first.F + F);

    public Vec Apply(Vec p) => new(A * p.X + C * p.Y + E, B * p.X + D * p.Y + F);

    /// <summary>The box around a box as the map draws it.</summary>
    public Box BoundsOf(Box box)
    {
        Vec[] corners = [Apply(new(box.X, box.Y)), Apply(new(box.Right, box.Y)), Apply(new(box.X, box.Bottom)), Apply(new(box.Right, box.Bottom))];
        double left = corners.Min(c => c.X), top = corners.Min(c => c.Y);
        return new(left, top, corners.Max(c => c.X) - left, corners.Max(c => c.Y) - top);
    }

    public double Determinant => A * D - B * C;

    /// <summary>How long the unit square's horizontal side is as the map draws it.</summary>
    public double ScaleX => Math.Sqrt(A * A + B * B);

    /// <summary>How long the unit square's vertical side is as the map draws it.</summary>
    public double ScaleY => Math.Sqrt(C * C + D * D);

    /// <exception cref="InvalidOperationException">The map is flat: it has no inverse.</exception>
    public Affine Inverse()
    {
        double det = Determinant;
        if (det == 0 || !double.IsFinite(det)) throw new InvalidOperationException("A map that flattens the plane cannot be undone.");
        return new(D / det, -B / det, -C / det, A / det, (C * F - D * E) / det, (B * E - A * F) / det);
    }

    public bool IsFinite =>
        double.IsFinite(A) && double.IsFinite(B) && double.IsFinite(C) && double.IsFinite(D) && double.IsFinite(E) && double.IsFinite(F);
}
