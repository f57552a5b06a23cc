using System.Collections.Immutable;
using Formatum.Core.Fitting;

namespace Formatum.Core.Publications;

/// <summary>A frame with an image that a change touches.</summary>
/// <param name="Before">The frame before.</param>
/// <param name="After">The frame after.</param>
/// <param name="Was">How its image lies before.</param>
/// <param name="Will">How it lies after.</param>
/// <param name="Worse">How much worse it gets, as <see cref="Impact.Harm"/> tells; below 0 where it gets better.</param>
public sealed record TouchedFrame(Frame Before, Frame After, Fitted Was, Fitted Will, double Worse);

/// <summary>What a change does to the pictures of a publication, before it is made.</summary>
/// <param name="Frames">The frames whose images will lie otherwise, those that get worse first.</param>
/// <param name="Placeholders">How many empty placeholders will be fitted otherwise once they are filled.</param>
public sealed record Impact(ImmutableArray<TouchedFrame> Frames, int Placeholders)
{
    public int Worsened => Frames.Count(f => f.Worse > Noticed);

    /// <summary>Less than this nobody notices.</summary>
    private const double Noticed = 0.005;

    /// <param name="before">The publication as it is.</param>
    /// <param name="after">The publication after the change.</param>
    public static Impact Of(Publication before, Publication after)
    {
        var touched = new List<TouchedFrame>();
        int placeholders = 0;
        foreach (var frame in after.Frames.Values)
        {
            if (frame.IsText || before.Frames.GetValueOrDefault(frame.Id) is not { } was) continue;
            if (frame.IsPlaceholder)
            {
                if (before.FitOf(was) != after.FitOf(frame)) placeholders++;
                continue;
            }
            if (before.FittedOf(was) is not { } old || after.FittedOf(frame) is not { } now) continue;
            if (old == now && was.Box == frame.Box) continue;
            touched.Add(new(was, frame, old, now, Harm(now, after.Setup) - Harm(old, before.Setup)));
        }
        return new([.. touched.OrderByDescending(f => f.Worse).ThenBy(f => after.Order.IndexOf(f.After.PageId)).ThenBy(f => f.After.Id)], placeholders);
    }

    /// <summary>
    /// What is wrong with a picture in its frame, as one number to compare by: the shares cropped away and left bare without an inset asking for it, how far
    /// it falls below the resolution wanted in print, and how far it is stretched. Our own measure, no source.
    /// </summary>
    public static double Harm(in Fitted fitted, Setup setup)
    {
        var c = fitted.Coverage;
        return c.CropLoss + fitted.BareUnasked + Math.Max(0, 1 - c.Ppi / setup.PrintPpi) + Math.Abs(Math.Log(c.Distortion));
    }
}
