namespace Formatum.Core.Fitting;

/// <summary>Distances from the frame's edges to the box the image is fitted in, in points; negative lets the image run past the edge.</summary>
public readonly record struct Inset(double Top, double Right, double Bottom, double Left)
{
    public static Inset Even(double all) => new(all, all, all, all);
}
