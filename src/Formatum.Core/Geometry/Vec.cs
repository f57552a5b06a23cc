namespace Formatum.Core.Geometry;

/// <summary>A point or a displacement, in points; x to the right, y down.</summary>
public readonly record struct Vec(double X, double Y)
{
    public static Vec operator +(Vec p, Vec q) => new(p.X + q.X, p.Y + q.Y);
    public static Vec operator -(Vec p, Vec q) => new(p.X - q.X, p.Y - q.Y);
    public static Vec operator *(double k, Vec p) => new(k * p.X, k * p.Y);

    /// <summary>The z component of the cross product: positive when <paramref name="q"/> lies clockwise of this on the page.</summary>
    public double Cross(Vec q) => X * q.Y - Y * q.X;

    public double Length => Math.Sqrt(X * X + Y * Y);
}
