namespace Formatum.Core.Geometry;

/// <summary>Distances from the edges of a frame, in points: inwards where something is set in, outwards where something is kept clear of.</summary>
public readonly record struct Inset(double Top, double Right, double Bottom, double Left)
{
    public static Inset Even(double all) => new(all, all, all, all);

    public bool IsEven => Top == Right && Top == Bottom && Top == Left;
}
