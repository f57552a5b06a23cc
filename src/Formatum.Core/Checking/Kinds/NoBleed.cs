using System.Collections.Immutable;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class NoBleed : KindCheck
{
    private const double Hair = 0.05;

    public override FindingKind Kind => FindingKind.NoBleed;
    public override string Title => "Edge without bleed";
    public override string Mark => "no bleed";
    public override string Why => "What ends at the trim shows a white sliver where the knife is off by a hair.";

    internal override IEnumerable<Finding> OfFrame(CheckedFrame frame)
    {
        if (!frame.PrintsToItsEdges) yield break;
        double asked = frame.Profile.Bleed, there = frame.Publication.Setup.Bleed;
        var d = frame.Within(frame.Bounds);
        if (OffPage.IsOff(d, frame.Bounds)) yield break;
        var touching = d.Each.Where(e => e.Distance <= NearTrim.Touching).ToList();
        if (touching.Count == 0) yield break;
        if (there < asked - Hair)
            yield return On(frame.Publication.Setup.Key, "Set-up", "Pages have less bleed than the profile asks for, and frames touch the trim.", asked - there,
                new Figure("Bleed", there, asked, FigureUnit.Length)) with
            { Places = [frame.Place] };
        double need = Math.Min(asked, there), least = touching.Min(e => -e.Distance);
        if (least < need - Hair)
            yield return On(frame, "", need - least, new Figure("Beyond the trim", least, need, FigureUnit.Length));
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding)
    {
        if (finding.Part.Kind == PartKind.Setup)
            yield return new("bleed", "Give the pages that bleed", publication => WithBleed(publication, finding, context.Profile));
        else if (FrameOf(context.Publication, finding) is { Angle: 0 })
            yield return new("extend", "Extend to the bleed", publication => FrameOf(publication, finding) is { } frame
                ? Extended(publication, frame, context.Profile) : null);
    }

    /// <summary>More bleed for the pages, and what touches the trim extended to it.</summary>
    private static Together WithBleed(Publication publication, Finding finding, CheckProfile profile)
    {
        var edits = ImmutableArray.Create<Edit>(new ChangeSetup(publication.Setup with { Bleed = profile.Bleed }));
        var after = publication.With(edits[0].On(publication));
        var touching = finding.Places.Select(p => p.FrameId).OfType<int>().Select(after.Frames.GetValueOrDefault).OfType<Frame>();
        return new([.. edits, .. touching.Where(f => f is { Angle: 0, Locked: false }).Select(f => Extended(after, f, profile))], "Give pages more bleed");
    }

    private static PlaceFrames Extended(Publication publication, Frame frame, CheckProfile profile)
    {
        int number = publication.NumberOf(frame.PageId);
        var spread = Spread.At(publication, Spread.IndexOfPage(publication, number));
        var d = Distances.Of(spread, spread.Pages.First(p => p.Page.Id == frame.PageId), frame.Box);
        double need = Math.Min(profile.Bleed, publication.Setup.Bleed);
        double Grown(double distance) => distance <= NearTrim.Touching && -distance < need ? need + distance : 0;
        var box = Box.Between(new(frame.Box.X - Grown(d.Left), frame.Box.Y - Grown(d.Top)),
            new(frame.Box.Right + Grown(d.Right), frame.Box.Bottom + Grown(d.Bottom)));
        return new([new(frame.Id, number, box)], PictureAtSizing.Refitted, "Extend to the bleed");
    }
}
