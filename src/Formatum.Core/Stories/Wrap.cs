using Formatum.Core.Checks;
using Formatum.Core.Geometry;

namespace Formatum.Core.Stories;

/// <summary>What of a frame text keeps clear of.</summary>
public enum WrapAround
{
    /// <summary>Nothing: text runs on over or under it.</summary>
    None,
    /// <summary>Its unturned box, turned as the frame is.</summary>
    Box,
    /// <summary>Its outline.</summary>
    Outline,
    /// <summary>The contour of the picture in it; its outline while it has none.</summary>
    Contour,
    /// <summary>Its box, and nothing stands beside it.</summary>
    Clear,
}

/// <summary>On which sides of a frame text stands (CSS Exclusions 1, wrap-flow).</summary>
public enum WrapSides { Both, Wider, Start, End }

/// <summary>How text keeps clear of a frame.</summary>
public sealed record Wrap
{
    /// <summary>No distance is larger, in points.</summary>
    public const double Farthest = 5000;

    public static readonly Wrap Off = new();

    public WrapAround Around { get; init; }

    /// <summary>
    /// How far it keeps away, in points, 0 or more. The same on all sides, it is measured from the nearest point (CSS Shapes 1, shape-margin); else across and
    /// down from each.
    /// </summary>
    public Inset Distance { get; init; }

    public WrapSides Sides { get; init; }

    public void Check(FieldErrors errors)
    {
        errors.Choice("wrap.around", Around);
        errors.Choice("wrap.sides", Sides);
        foreach (var (name, value) in new[] { ("top", Distance.Top), ("right", Distance.Right), ("bottom", Distance.Bottom), ("left", Distance.Left) })
            errors.Length($"wrap.distance.{name}", value, 0, Farthest, "Text keeps 0 or more away from a frame.");
    }
}
