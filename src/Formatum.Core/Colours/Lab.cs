namespace Formatum.Core.Colours;

/// <summary>A colour as people see it (CIE 15, CIELAB under D50 would be the trade's; here the sRGB white D65 serves, for colours are only compared).</summary>
/// <param name="L">Lightness, 0 to 100.</param>
/// <param name="A">From green to red.</param>
/// <param name="B">From blue to yellow.</param>
public readonly record struct Lab(double L, double A, double B)
{
    /// <summary>Of sRGB (IEC 61966-2-1), by way of XYZ under D65.</summary>
    public static Lab Of(RgbColour colour)
    {
        double r = Linear(colour.Red), g = Linear(colour.Green), b = Linear(colour.Blue);
        double x = Curve((0.4124 * r + 0.3576 * g + 0.1805 * b) / 0.9505), y = Curve(0.2126 * r + 0.7152 * g + 0.0722 * b),
            z = Curve((0.0193 * r + 0.1192 * g + 0.9505 * b) / 1.089);
        return new(116 * y - 16, 500 * (x - y), 200 * (y - z));
    }

    /// <summary>Delta E of 1976.</summary>
    public double DistanceTo(Lab other) => Math.Sqrt((L - other.L) * (L - other.L) + (A - other.A) * (A - other.A) + (B - other.B) * (B - other.B));

    private static double Linear(byte part) => part / 255.0 is var v && v <= 0.04045 ? v / 12.92 : Math.Pow((v + 0.055) / 1.055, 2.4);

    private static double Curve(double t) => t > 216.0 / 24389 ? Math.Cbrt(t) : (24389.0 / 27 * t + 16) / 116;
}
