using Formatum.Core.Geometry;

namespace Formatum.Core.Fitting;

/// <summary>
/// Fits a picture into a frame. The formulas are docs/fitting.md's; for no rotation they are those of CSS Images 3, section 5
/// (<c>object-fit</c>, <c>object-position</c>), and SVG 2, section 8.7 (<c>preserveAspectRatio</c>).
/// </summary>
public static class Fitter
{
    /// <summary>Relative slack within which two computed lengths or scales count as the same.</summary>
    internal const double Hair = 1e-9;

    /// <param name="width">Width of the frame, in points, above 0.</param>
    /// <param name="height">Height of the frame, in points, above 0.</param>
    /// <param name="outline">The frame's shape; only <see cref="FitKind.FillOrFit"/> looks at it.</param>
    /// <param name="picture">The picture, upright.</param>
    /// <param name="rule">What it is fitted by.</param>
    /// <param name="subject">The picture's subject point, in fractions of it; null where none was set.</param>
    /// <param name="recrop">The hand correction; <see cref="Recrop.None"/> for none.</param>
    public static Placement Place(
        double width, double height, Outline outline, in Picture picture, in ResolvedFit rule, Vec? subject, in Recrop recrop)
    {
        var fit = rule.Fit;
        if (fit == FitKind.FillOrFit)
        {
            var filled = Place(width, height, outline, picture, rule with { Fit = FitKind.Fill, SmallestPpi = 0, LargestEnlargement = 0 }, subject,
                Recrop.None);
            double loss = Coverage.Measure(width, height, outline, picture, filled).CropLoss;
            fit = loss <= rule.LargestCrop + Hair ? FitKind.Fill : FitKind.Fit;
        }

        var (boxLeft, boxTop, boxWidth, boxHeight) = rule.FitBox(width, height);
        double a = picture.NaturalWidth, b = picture.NaturalHeight;
        var (sin, cos) = Angle.SinCos(rule.Rotation + recrop.Turn);
        double absSin = Math.Abs(sin), absCos = Math.Abs(cos);
        var flags = FitFlags.None;

        // The scale the fit asks for. The fit box as the turned image sees it is (alongX, alongY).
        double alongX = boxWidth * absCos + boxHeight * absSin, alongY = boxWidth * absSin + boxHeight * absCos;
        double extentX = a * absCos + b * absSin, extentY = a * absSin + b * absCos;
        double scaleX, scaleY;
        if (boxWidth <= 0 || boxHeight <= 0)
        {
            flags |= FitFlags.NoFitBox;
            fit = FitKind.Natural;
            scaleX = scaleY = 1;
        }
        else if (fit == FitKind.Stretch)
        {
            scaleX = alongX / a;
            scaleY = alongY / b;
        }
        else
        {
            scaleX = scaleY = fit switch
            {
                FitKind.Fill => Math.Max(alongX / a, alongY / b),
                FitKind.Fit => Math.Min(boxWidth / extentX, boxHeight / extentY),
                FitKind.Shrink => Math.Min(1, Math.Min(boxWidth / extentX, boxHeight / extentY)),
                FitKind.Width => boxWidth / extentX,
                FitKind.Height => boxHeight / extentY,
                _ => 1,
            };
        }

        if (rule.Limits == LimitAction.Hold && HoldBack(picture, rule, ref scaleX, ref scaleY)) flags |= FitFlags.HeldBack;
        scaleX *= recrop.Zoom;
        scaleY *= recrop.ZoomDown;
        flags |= ScaleFlags(picture, rule, scaleX, scaleY);

        // The image's centre, from the fit box's centre. Without a point to hold, the alignment takes the same fraction of the image, as it
        // lies in the frame, as of the fit box: CSS's meaning of a percentage.
        double shownX = a * scaleX, shownY = b * scaleY;
        double signX = rule.FlipX ? -1 : 1, signY = rule.FlipY ? -1 : 1;
        double slackX = boxWidth - (shownX * absCos + shownY * absSin), slackY = boxHeight - (shownX * absSin + shownY * absCos);
        var held = recrop.Point ?? subject;
        double offX, offY;
        if (held is { } point)
        {
            double px = signX * (point.X - 0.5) * shownX, py = signY * (point.Y - 0.5) * shownY;
            offX = (rule.AlignX - 0.5) * boxWidth - (px * cos - py * sin);
            offY = (rule.AlignY - 0.5) * boxHeight - (px * sin + py * cos);
        }
        else
        {
            offX = (rule.AlignX - 0.5) * slackX;
            offY = (rule.AlignY - 0.5) * slackY;
        }

        if (fit is FitKind.Fill or FitKind.Stretch)
        {
            // Along the image's own axes: no bare area that the scale does not force.
            double u = Clamp(offX * cos + offY * sin, shownX - alongX), v = Clamp(offY * cos - offX * sin, shownY - alongY);
            offX = u * cos - v * sin;
            offY = u * sin + v * cos;
        }
        else if (recrop.Point is null || fit is FitKind.Fit or FitKind.Shrink)
        {
            // Nothing cut that the scale does not force. A point held by hand in the other fits stays where the hand put it.
            offX = Clamp(offX, slackX);
            offY = Clamp(offY, slackY);
        }

        double centreX = boxLeft + boxWidth / 2 + offX, centreY = boxTop + boxHeight / 2 + offY;
        // Adding 0 makes of a negative zero a plain one.
        double ma = signX * shownX * cos + 0.0, mb = signX * shownX * sin + 0.0, mc = -signY * shownY * sin + 0.0, md = signY * shownY * cos + 0.0;
        var matrix = new Affine(ma, mb, mc, md, centreX - (ma + mc) / 2, centreY - (mb + md) / 2);
        return new(fit, matrix, scaleX, scaleY, flags);
    }

    /// <summary>The placement of an image that its frame holds as it was left.</summary>
    /// <param name="picture">The picture, upright.</param>
    /// <param name="rule">Whose limits are looked at.</param>
    /// <param name="held">How it lies.</param>
    public static Placement Hold(in Picture picture, in ResolvedFit rule, in Held held)
    {
        var m = held.Matrix;
        double scaleX = m.ScaleX / picture.NaturalWidth, scaleY = m.ScaleY / picture.NaturalHeight;
        return new(held.Applied, m, scaleX, scaleY, FitFlags.Holds | ScaleFlags(picture, rule, scaleX, scaleY));
    }

    private static FitFlags ScaleFlags(in Picture picture, in ResolvedFit rule, double scaleX, double scaleY)
    {
        var flags = FitFlags.None;
        if (rule.SmallestPpi > 0 && !Resolutions.Reaches(Math.Min(picture.PpiX / scaleX, picture.PpiY / scaleY), rule.SmallestPpi))
            flags |= FitFlags.BelowSmallestPpi;
        if (rule.LargestEnlargement > 0 && Math.Max(scaleX, scaleY) > rule.LargestEnlargement * (1 + Hair)) flags |= FitFlags.AboveLargestEnlargement;
        if (Math.Abs(scaleX - scaleY) > 1e-6 * Math.Max(scaleX, scaleY)) flags |= FitFlags.Stretched;
        return flags;
    }

    /// <summary>The offset moved the least distance so that the larger of image and box spans the smaller.</summary>
    private static double Clamp(double offset, double slack)
    {
        double most = Math.Abs(slack) / 2;
        return offset > most ? most : offset < -most ? -most : offset;
    }

    private static bool HoldBack(in Picture picture, in ResolvedFit rule, ref double scaleX, ref double scaleY)
    {
        double mostX = double.PositiveInfinity, mostY = double.PositiveInfinity;
        if (rule.SmallestPpi > 0)
        {
            mostX = picture.PpiX / rule.SmallestPpi;
            mostY = picture.PpiY / rule.SmallestPpi;
        }
        if (rule.LargestEnlargement > 0)
        {
            mostX = Math.Min(mostX, rule.LargestEnlargement);
            mostY = Math.Min(mostY, rule.LargestEnlargement);
        }
        if (rule.Fit != FitKind.Stretch) mostX = mostY = Math.Min(mostX, mostY);
        if (scaleX <= mostX && scaleY <= mostY) return false;
        scaleX = Math.Min(scaleX, mostX);
        scaleY = Math.Min(scaleY, mostY);
        return true;
    }
}
