using Formatum.Core.Geometry;

namespace Formatum.Core.Geometry;

/// <summary>Where a frame lies and how far it is turned about the middle of its box.</summary>
/// <param name="Box">The box as it would be unturned.</param>
/// <param name="Angle">Degrees, clockwise.</param>
public readonly record struct Pose(Box Box, double Angle)
{
    /// <summary>From frame-local points to those the box is given in.</summary>
    public Affine ToPage => Angle == 0 ? Affine.Translation(Box.X, Box.Y)
        : Affine.Translation(Box.Centre.X, Box.Centre.Y).After(Affine.Rotation(Angle)).After(Affine.Translation(-Box.Width / 2, -Box.Height / 2));

    /// <summary>The upright box around the turned one.</summary>
    public Box Bounds
    {
        get
        {
            if (Angle == 0) return Box;
            var (sin, cos) = Geometry.Angle.SinCos(Angle);
            double width = Box.Width * Math.Abs(cos) + Box.Height * Math.Abs(sin), height = Box.Width * Math.Abs(sin) + Box.Height * Math.Abs(cos);
            return new(Box.Centre.X - width / 2, Box.Centre.Y - height / 2, width, height);
        }
    }

    /// <summary>A point at fractions of the unturned box, where it lies on the page.</summary>
    public Vec At(double fx, double fy) => ToPage.Apply(new(fx * Box.Width, fy * Box.Height));

    public Pose Moved(double dx, double dy) => this with { Box = Box.Moved(dx, dy) };

    /// <summary>Turned about a point of the page.</summary>
    public Pose Turned(double degrees, Vec about)
    {
        var centre = about + Affine.Rotation(degrees).Apply(Box.Centre - about);
        return new(Box.Moved(centre.X - Box.Centre.X, centre.Y - Box.Centre.Y), Geometry.Angle.Normalize(Angle + degrees));
    }

    /// <summary>Seen in a mirror that stands at a point of the page, left to right or top to bottom.</summary>
    public Pose Mirrored(bool across, Vec at)
    {
        var c = Box.Centre;
        var moved = across ? Box.Moved(2 * (at.X - c.X), 0) : Box.Moved(0, 2 * (at.Y - c.Y));
        return new(moved, Geometry.Angle.Normalize(-Angle));
    }

    /// <summary>Another size, with the point at given fractions of the box staying where it lies on the page.</summary>
    public Pose Sized(double width, double height, double fx, double fy)
    {
        var kept = At(fx, fy);
        var sized = new Pose(Box with { Width = width, Height = height }, Angle);
        var now = sized.At(fx, fy);
        return sized.Moved(kept.X - now.X, kept.Y - now.Y);
    }
}
