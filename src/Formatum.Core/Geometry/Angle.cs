namespace Formatum.Core.Geometry;

/// <summary>Angles in degrees, clockwise on the page.</summary>
public static class Angle
{
    /// <summary>Sine and cosine, exact at multiples of a right angle, so that a quarter turn leaves no trace of rounding.</summary>
    public static (double Sin, double Cos) SinCos(double degrees)
    {
        if (degrees == 0) return (0, 1);
        return Normalize(degrees) switch
        {
            0 => (0, 1),
            90 => (1, 0),
            180 => (0, -1),
            270 => (-1, 0),
            var turned => Math.SinCos(turned * (Math.PI / 180)),
        };
    }

    /// <summary>The same direction within 0 (included) to 360 (not included).</summary>
    public static double Normalize(double degrees)
    {
        double turned = degrees % 360;
        if (turned < 0) turned += 360;
        return turned >= 360 ? 0 : turned;
    }
}
