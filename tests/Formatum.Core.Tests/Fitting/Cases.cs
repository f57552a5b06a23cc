using CsCheck;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;

namespace Formatum.Core.Tests.Fitting;

/// <summary>A frame, a picture and what it is fitted by, drawn at random.</summary>
public sealed record Case(double Width, double Height, Picture Picture, ResolvedFit Rule, Vec? Subject)
{
    public Placement Place(Recrop? recrop = null) => Fitter.Place(Width, Height, Outline.Rectangle, Picture, Rule, Subject, recrop ?? Recrop.None);

    public Coverage Measure(Recrop? recrop = null) => Coverage.Measure(Width, Height, Outline.Rectangle, Picture, Place(recrop));

    /// <summary>The fit box as a frame of its own would be.</summary>
    public Box FitBox => new(Rule.Inset.Left, Rule.Inset.Top, Width - Rule.Inset.Left - Rule.Inset.Right, Height - Rule.Inset.Top - Rule.Inset.Bottom);
}

public static class Cases
{
    private static readonly Gen<double> Side = Gen.Double[5, 800];
    private static readonly Gen<double> Share = Gen.Double[0, 1];

    /// <summary>Quarter turns, which are a case of their own, about as often as any other angle.</summary>
    public static readonly Gen<double> Angle = Gen.OneOf(Gen.OneOfConst(0.0, 90, 180, 270, -90), Gen.Double[-360, 360]);

    public static readonly Gen<Picture> AnyPicture = Gen.Select(Gen.Int[1, 9000], Gen.Int[1, 9000], Gen.Double[36, 600],
        (w, h, ppi) => new Picture(w, h, ppi, ppi));

    /// <summary>Any case with an inset that leaves a fit box.</summary>
    public static Gen<Case> Of(FitKind fit, Gen<double>? angle = null, bool subject = true) =>
        from width in Side
        from height in Side
        from picture in AnyPicture
        from inset in Gen.Select(Gen.Double[-0.3, 0.4], Gen.Double[-0.3, 0.4], Gen.Double[-0.3, 0.4], Gen.Double[-0.3, 0.4])
        from alignX in Share
        from alignY in Share
        from turn in angle ?? Angle
        from flipX in Gen.Bool
        from flipY in Gen.Bool
        from point in Gen.Select(Gen.Bool, Share, Share)
        select new Case(width, height, picture,
            ResolvedFit.Default with
            {
                Fit = fit,
                AlignX = alignX,
                AlignY = alignY,
                Inset = new(inset.Item1 * height, inset.Item2 * width, inset.Item3 * height, inset.Item4 * width),
                Rotation = turn,
                FlipX = flipX,
                FlipY = flipY,
            },
            subject && point.Item1 ? new Vec(point.Item2, point.Item3) : null);
}
