using Formatum.Core.Geometry;

namespace Formatum.Core.Fitting;

/// <summary>How an image lies in a frame that does not stay fitted: as the fit was applied once, or a hand left it.</summary>
/// <param name="Matrix">From the image's unit square to frame-local points: relative to the frame's upper left, whatever its size.</param>
/// <param name="Applied">The fit that was applied.</param>
public readonly record struct Held(Affine Matrix, FitKind Applied);
