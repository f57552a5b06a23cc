using System.Collections.Immutable;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Composing;

/// <summary>The display list of a spread: what prints, from the lowest to the topmost. Screen, PDF and PNG are all drawn from it.</summary>
/// <param name="Trim">The spread's trim; its upper left is the origin.</param>
/// <param name="Items">What to draw.</param>
public sealed record Scene(Box Trim, ImmutableArray<SceneFrame> Items);

/// <summary>One frame in a scene.</summary>
/// <param name="FrameId">Which frame.</param>
/// <param name="ToSpread">From frame-local points to the spread's.</param>
/// <param name="Width">Width of the unrotated frame, in points.</param>
/// <param name="Height">Height of the unrotated frame, in points.</param>
/// <param name="Outline">What the frame's content is clipped to.</param>
/// <param name="Image">The image in it; null where it holds none.</param>
/// <param name="Text">The text in it, set; null where it holds none.</param>
/// <param name="Look">How it looks besides. Drawn from the lowest to the topmost are: shadow, background, image, text, border.</param>
public sealed record SceneFrame(int FrameId, Affine ToSpread, double Width, double Height, Outline Outline, SceneImage? Image, SetText? Text, Look Look)
{
    /// <summary>Whether anything of it prints; of a placeholder only its look does.</summary>
    public bool Prints => Image is not null || Text is not null || Look.Prints;

    /// <summary>Where its shadow falls, in frame-local points: the same way on the page however the frame is turned.</summary>
    public Vec ShadowFalls(Shadow shadow)
    {
        var back = ToSpread.Inverse();
        return back.Apply(new(shadow.Across, shadow.Down)) - back.Apply(default);
    }
}

/// <summary>An image in a scene.</summary>
/// <param name="Source">The linked image.</param>
/// <param name="Matrix">From the upright image's unit square to frame-local points.</param>
/// <param name="Treatment">What is done to it, with its colours looked up; null for nothing.</param>
public sealed record SceneImage(LinkedImage Source, Affine Matrix, Treatment? Treatment = null);
