using System.Collections.Immutable;

namespace Formatum.Core.Geometry;

/// <summary>A frame's shape. It fills the frame's unrotated box, and is scaled with it.</summary>
public abstract record Outline
{
    /// <summary>Greatest distance, in points, between a curve and the polygon that stands for it when areas are measured.</summary>
    public const double Tolerance = 0.05;

    public static readonly Outline Rectangle = new RectangleOutline();
    public static readonly Outline Ellipse = new EllipseOutline();

    /// <summary>The outline with its corners shaped; itself where none are, or where it has no corners.</summary>
    public Outline With(Corners? corners) => corners is { IsSharp: false } && this is RectangleOutline or PolygonOutline
        ? new CorneredOutline(this, corners) : this;

    /// <summary>The area enclosed in a frame of the given size, in square points.</summary>
    public abstract double Area(double width, double height);

    /// <summary>Whether it crosses itself; what it winds about then counts once, however often it does.</summary>
    public virtual bool IsCrossing => false;

    /// <summary>The corners of a polygon within <see cref="Tolerance"/> of the outline, in frame-local points.</summary>
    public abstract ImmutableArray<Vec> Flatten(double width, double height);
}

public sealed record RectangleOutline : Outline
{
    public override double Area(double width, double height) => width * height;

    public override ImmutableArray<Vec> Flatten(double width, double height) =>
        [new(0, 0), new(width, 0), new(width, height), new(0, height)];
}

public sealed record EllipseOutline : Outline
{
    public override double Area(double width, double height) => Math.PI / 4 * width * height;

    /// <summary>
    /// A polygon of the ellipse's own area, its corners a little outside and its edges a little inside the curve, neither by more than
    /// <see cref="Outline.Tolerance"/>: an arc of angle t strays from its chord by r (1 - cos t/2). Edges, not corners, lie at the four sides of the box, so
    /// that the polygon keeps within it: what covers the frame covers the ellipse.
    /// </summary>
    public override ImmutableArray<Vec> Flatten(double width, double height)
    {
        double rx = width / 2, ry = height / 2, r = Math.Max(rx, ry);
        double half = r > Tolerance ? Math.Acos(1 - Tolerance / r) : Math.PI / 4;
        int n = 4 * Math.Max(2, (int)Math.Ceiling(Math.PI / half / 4));
        double step = 2 * Math.PI / n, grow = Math.Sqrt(step / Math.Sin(step));
        var corners = ImmutableArray.CreateBuilder<Vec>(n);
        for (int i = 0; i < n; i++)
            corners.Add(new(rx + grow * rx * Math.Cos((i + 0.5) * step), ry + grow * ry * Math.Sin((i + 0.5) * step)));
        return corners.MoveToImmutable();
    }
}

/// <summary>A polygon whose corners are fractions of the frame's box.</summary>
public sealed record PolygonOutline(ImmutableArray<Vec> Corners) : Outline
{
    private bool? _isCrossing;

    public override bool IsCrossing => _isCrossing ??= PolygonMeasure.IsCrossing(Corners.AsSpan());

    public override double Area(double width, double height) => PolygonMeasure.AreaOf(Flatten(width, height).AsSpan(), IsCrossing);

    public override ImmutableArray<Vec> Flatten(double width, double height) =>
        Corners.Select(c => new Vec(c.X * width, c.Y * height)).ToImmutableArray();

    public bool Equals(PolygonOutline? other) => other is not null && Corners.AsSpan().SequenceEqual(other.Corners.AsSpan());

    public override int GetHashCode() => Corners.Length == 0 ? 0 : HashCode.Combine(Corners.Length, Corners[0], Corners[^1]);
}
