using Formatum.Core.Edits;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class AcrossFold : KindCheck
{
    /// <summary>What reaches less far over the fold, in points, is on one side of it.</summary>
    private const double Slack = 0.5;

    public override FindingKind Kind => FindingKind.AcrossFold;
    public override string Title => "Words across the fold";
    public override string Mark => "across the fold";
    public override string Why => "Letters vanish in the fold, and the halves of a line never meet exactly.";

    internal override IEnumerable<Finding> OfText(CheckedText text)
    {
        foreach (double fold in Folds(text.Publication, text.Spread, text.Page))
        {
            int lines = text.LineBoxes().Count(b => b.X < fold - Slack && b.Right > fold + Slack);
            if (lines == 0) continue;
            yield return On(text, "", lines, new Figure("Lines across", lines, 0, FigureUnit.Count));
            yield break;
        }
    }

    /// <summary>Where a page and the one beside it are folded, in points from the page's left edge.</summary>
    private static IEnumerable<double> Folds(Publication publication, Spread spread, PlacedPage page)
    {
        if (spread.Pages.Length > 1) yield return spread.Pages[1].Trim.X - page.Trim.X;
        foreach (double fold in publication.Setup.FoldsOf(page)) yield return fold;
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) =>
        [new("offFold", "Move off the fold", publication => Moved(context, publication, finding))];

    private static PlaceFrames? Moved(RemedyContext context, Publication publication, Finding finding)
    {
        if (FrameOf(publication, finding) is not { } frame || NearTrim.LinesOf(context, publication, frame) is not { } lines) return null;
        int number = publication.NumberOf(frame.PageId);
        var spread = Spread.At(publication, Spread.IndexOfPage(publication, number));
        var page = spread.Pages.First(p => p.Page.Id == frame.PageId);
        double clear = context.Profile.SafeDistance;
        foreach (double fold in Folds(publication, spread, page).Where(f => lines.X < f - Slack && lines.Right > f + Slack))
        {
            // To the side that has more of it; where it is too wide for that side, it is made narrower there.
            bool leftwards = fold - lines.X >= lines.Right - fold;
            double by = leftwards ? fold - clear - lines.Right : fold + clear - lines.X;
            double left = -page.Trim.X + clear, right = spread.Trim.Right - page.Trim.X - clear;
            double tooWide = Math.Max(0, leftwards ? left - (lines.X + by) : lines.Right + by - right);
            var box = frame.Box.Moved(by + (leftwards ? tooWide : 0), 0);
            box = box with { Width = Math.Max(Frame.SmallestSide, box.Width - tooWide) };
            return new([new(frame.Id, number, box)], tooWide > 0 ? PictureAtSizing.Refitted : PictureAtSizing.GoesAlong, "Move off the fold");
        }
        return null;
    }
}
