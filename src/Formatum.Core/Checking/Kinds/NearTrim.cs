using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class NearTrim : KindCheck
{
    /// <summary>What lies nearer to the trim than this, in points, is meant to touch it. Common practice, no source.</summary>
    internal const double Touching = 0.5;

    public override FindingKind Kind => FindingKind.NearTrim;
    public override string Title => "Too near to the trim";
    public override string Mark => "near the trim";
    public override string Why => "Knives do not cut to the hair: what stands this near to the edge may be cut into, or look crooked.";

    internal override IEnumerable<Finding> OfFrame(CheckedFrame frame)
    {
        if (!frame.PrintsToItsEdges) yield break;
        var d = frame.Within(frame.Bounds);
        if (OffPage.IsOff(d, frame.Bounds)) yield break;
        var near = d.Each.Where(e => e.Distance > Touching && IsNear(e.Distance, frame.Profile)).ToList();
        if (near.Count == 0) yield break;
        double least = near.Min(e => e.Distance);
        yield return On(frame, "", frame.Profile.SafeDistance - least, Figure(least, frame.Profile));
    }

    internal override IEnumerable<Finding> OfText(CheckedText text)
    {
        if (text.Bounds() is not { } lines) yield break;
        var d = Distances.Of(text.Spread, text.Page, lines);
        if (OffPage.IsOff(Distances.Of(text.Spread, text.Page, text.Frame.Pose.Bounds), text.Frame.Pose.Bounds) || !IsNear(d.Least, text.Profile)) yield break;
        yield return On(text, d.Least < 0 ? "Words are cut off." : "Words stand near to the edge.", text.Profile.SafeDistance - d.Least,
            Figure(d.Least, text.Profile));
    }

    private static bool IsNear(double distance, CheckProfile profile) => distance < profile.SafeDistance - 1e-6;

    private static Figure Figure(double distance, CheckProfile profile) => new("From the trim", distance, profile.SafeDistance, FigureUnit.Length);

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) =>
    [
        new("moveInside", "Move inside the safe distance", publication => FrameOf(publication, finding) is not { } frame ? null
            : Inwards.Moved(publication, frame, Meant(context, publication, frame), context.Profile.SafeDistance, "Move inside the safe distance")),
    ];

    /// <summary>What has to keep clear of a frame: all of it, or its lines alone.</summary>
    private static Box Meant(RemedyContext context, Publication publication, Frame frame)
    {
        var look = publication.LookOf(frame);
        if (!frame.IsText || look.Background is not null || look.Border is not null) return frame.Pose.Bounds;
        return LinesOf(context, publication, frame) ?? frame.Pose.Bounds;
    }

    /// <summary>The box around a frame's lines on its own page; null where there are none.</summary>
    internal static Box? LinesOf(RemedyContext context, Publication publication, Frame frame)
    {
        if (Composing.Composition.TextOf(publication, frame, context.Typefaces) is not { } set) return null;
        var spread = Spread.At(publication, Spread.IndexOfPage(publication, publication.NumberOf(frame.PageId)));
        var page = spread.Pages.First(p => p.Page.Id == frame.PageId);
        var facts = new CheckedPublication(publication, context.Profile, CheckFacts.None, context.Typefaces);
        return new CheckedText(facts, spread, page, frame, publication.StoryOf(frame)!, set).Bounds();
    }
}
