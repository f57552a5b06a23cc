using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

/// <summary>What both kinds of too low a resolution have in common.</summary>
internal abstract class Resolution : KindCheck
{
    protected static bool IsBelow(double ppi, double asked) => !Resolutions.Reaches(ppi, asked);

    protected Finding Below(CheckedFrame frame, double ppi, double asked) =>
        On(frame, $"Shows {frame.Image!.Name}.", asked / ppi, new Figure("Effective resolution", ppi, asked, FigureUnit.Ppi));

    protected abstract double AskedIn(RemedyContext context);

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding)
    {
        int id = finding.Part.Id;
        if (FrameOf(context.Publication, finding) is not { } frame || context.Publication.ImageOf(frame) is not { } image) yield break;
        if (Larger(context.Publication, image) is { } larger)
            yield return new("larger", $"Take the larger {larger.Name}", _ =>
                new ReplaceImages([(id, larger.Id)], ToTray: false, "Replace by larger picture", KeepRecrop: true));
        yield return Enlarged.HoldingBack(id, () => new() { SmallestPpi = AskedIn(context), Limits = LimitAction.Hold });
    }

    /// <summary>The largest other image that bears one of the same names, where it has more pixels both ways.</summary>
    private static LinkedImage? Larger(Publication publication, LinkedImage image)
    {
        static IEnumerable<string> Names(LinkedImage i) => i.OtherNames.Prepend(i.Name);
        var names = Names(image).ToHashSet(StringComparer.OrdinalIgnoreCase);
        return publication.Images.Values.Where(other => other.WidthPx > image.WidthPx && other.HeightPx > image.HeightPx && Names(other).Any(names.Contains))
            .OrderByDescending(other => (long)other.WidthPx * other.HeightPx).ThenBy(other => other.Id).FirstOrDefault();
    }
}
