using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Geometry;

namespace Formatum.Core.Publications;

/// <summary>The outline of what a picture shows, told from its transparency or from the plain ground it lies on.</summary>
/// <param name="Strength">How different from the ground a point must be to count, 0 to 1.</param>
/// <param name="Rings">Its pieces, in fractions of the upright image.</param>
public sealed record Contour(double Strength, ImmutableArray<ImmutableArray<Vec>> Rings)
{
    public const double UsualStrength = 0.5;

    public const int MostRings = 24, MostPoints = 600;

    public void Check(FieldErrors errors)
    {
        errors.Range("contour.strength", Strength, 0, 1, "The strength of a contour lies between 0 and 1.");
        if (Rings.IsDefault || Rings.Length > MostRings || Rings.Any(r => r.IsDefault || r.Length < 3) || Rings.Sum(r => r.Length) > MostPoints
            || !Rings.SelectMany(r => r).All(p => p.X is >= 0 and <= 1 && p.Y is >= 0 and <= 1))
            errors.Add("contour", $"A contour has up to {MostRings} pieces of 3 points or more, {MostPoints} points in all, in fractions of the image.");
    }

    public bool Equals(Contour? other) => other is not null && Strength == other.Strength && Rings.Length == other.Rings.Length
        && Rings.Zip(other.Rings).All(pair => pair.First.AsSpan().SequenceEqual(pair.Second.AsSpan()));

    public override int GetHashCode() => HashCode.Combine(Strength, Rings.Length, Rings.Sum(r => r.Length));
}
