namespace Formatum.Core.Geometry;

/// <summary>An upright box, in points. Width and height are not negative in a box that encloses anything.</summary>
public readonly record struct Box(double X, double Y, double Width, double Height)
{
    public double Right => X + Width;
    public double Bottom => Y + Height;
    public Vec Centre => new(X + Width / 2, Y + Height / 2);
    public Vec UpperLeft => new(X, Y);

    /// <summary>The point at fractions of the box: 0, 0 its upper left, 1, 1 its lower right.</summary>
    public Vec At(double fx, double fy) => new(X + fx * Width, Y + fy * Height);
    public double Area => Width * Height;

    /// <summary>The box spanned by two opposite corners, in whichever order they come.</summary>
    public static Box Between(Vec p, Vec q) =>
        new(Math.Min(p.X, q.X), Math.Min(p.Y, q.Y), Math.Abs(p.X - q.X), Math.Abs(p.Y - q.Y));

    public Box Moved(double dx, double dy) => this with { X = X + dx, Y = Y + dy };

    /// <summary>Grown outwards on every side by <paramref name="by"/> points (inwards where negative).</summary>
    public Box Grown(double by) => new(X - by, Y - by, Width + 2 * by, Height + 2 * by);

    /// <summary>The part common to both; of zero width or height where they do not meet.</summary>
    public Box Intersect(Box other)
    {
        double x = Math.Max(X, other.X), y = Math.Max(Y, other.Y);
        return new(x, y, Math.Max(0, Math.Min(Right, other.Right) - x), Math.Max(0, Math.Min(Bottom, other.Bottom) - y));
    }

    /// <summary>The smallest box around both.</summary>
    public Box Union(Box other)
    {
        double x = Math.Min(X, other.X), y = Math.Min(Y, other.Y);
        return new(x, y, Math.Max(Right, other.Right) - x, Math.Max(Bottom, other.Bottom) - y);
    }

    /// <summary>Whether they have more in common than an edge.</summary>
    public bool Overlaps(Box other) => X < other.Right && Right > other.X && Y < other.Bottom && Bottom > other.Y;

    public bool Contains(Vec p) => p.X >= X && p.X <= Right && p.Y >= Y && p.Y <= Bottom;
}
