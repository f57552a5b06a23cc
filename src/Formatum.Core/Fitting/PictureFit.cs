using Formatum.Core.Geometry;

namespace Formatum.Core.Fitting;

/// <summary>All that decides where a picture lies in a frame.</summary>
/// <param name="Width">Width of the frame, in points.</param>
/// <param name="Height">Height of the frame, in points.</param>
/// <param name="Outline">The frame's shape.</param>
/// <param name="Picture">The picture, upright.</param>
/// <param name="Rule">What it is fitted by.</param>
/// <param name="Subject">The picture's subject point, in fractions of it.</param>
public readonly record struct PictureFit(double Width, double Height, Outline Outline, Picture Picture, ResolvedFit Rule, Vec? Subject)
{
    public Placement Place(in Recrop recrop) => Fitter.Place(Width, Height, Outline, Picture, Rule, Subject, recrop);

    public Box FitBox => Rule.FitBox(Width, Height);

    /// <summary>The point of the frame that the alignment names, in frame-local points.</summary>
    public Vec AlignmentPoint => FitBox.At(Rule.AlignX, Rule.AlignY);
}
