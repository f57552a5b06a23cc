using Formatum.Core.Geometry;

namespace Formatum.Core.Fitting;

/// <summary>What is worth knowing about how a placement came out.</summary>
[Flags]
public enum FitFlags
{
    None = 0,
    /// <summary>The insets leave no box to fit in; the image took its natural size.</summary>
    NoFitBox = 1,
    /// <summary>A limit kept the image smaller than its fit asks.</summary>
    HeldBack = 2,
    /// <summary>The effective resolution is below the smallest the rule wants.</summary>
    BelowSmallestPpi = 4,
    /// <summary>The image is larger than the rule wants.</summary>
    AboveLargestEnlargement = 8,
    /// <summary>The image's proportions are not its own.</summary>
    Stretched = 16,
    /// <summary>Part of a frame that should be filled, or was recropped by hand, shows no picture.</summary>
    BareArea = 32,
    /// <summary>The frame does not stay fitted: the image lies as it was left.</summary>
    Holds = 64,
}

/// <summary>Where an image lies in a frame, and how that came about.</summary>
/// <param name="Applied">The fit that was used: for Fill or fit, the one it came down to.</param>
/// <param name="Matrix">From the image's unit square to frame-local points.</param>
/// <param name="ScaleX">Scale along the image's own horizontal axis; 1 is natural size.</param>
/// <param name="ScaleY">Scale along the image's own vertical axis.</param>
public readonly record struct Placement(FitKind Applied, Affine Matrix, double ScaleX, double ScaleY, FitFlags Flags);
