using System.Collections.Immutable;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Checking;

/// <summary>What is checked, and by what.</summary>
internal sealed record CheckedPublication(Publication Publication, CheckProfile Profile, CheckFacts Facts, ITypefaces Typefaces);

/// <summary>A frame under check, where it lies.</summary>
/// <param name="In">The publication.</param>
/// <param name="Spread">Its spread.</param>
/// <param name="Page">Its page.</param>
/// <param name="Frame">The frame.</param>
internal sealed record CheckedFrame(CheckedPublication In, Spread Spread, PlacedPage Page, Frame Frame)
{
    private Look? _look;
    private (bool Known, Fitted? Fitted) _fitted;

    public Publication Publication => In.Publication;
    public CheckProfile Profile => In.Profile;

    public bool IsOnMaster => Spread.Master is not null;

    public LinkedImage? Image => Publication.ImageOf(Frame);

    /// <summary>How it looks, with colours of the palette as they are named.</summary>
    public Look Look => _look ??= Publication.LookOf(Frame);

    /// <summary>How its picture lies; null where it has none.</summary>
    public Fitted? Fitted
    {
        get
        {
            if (!_fitted.Known) _fitted = (true, Publication.FittedOf(Frame));
            return _fitted.Fitted;
        }
    }

    /// <summary>The box around it, in points from the upper left of its page's trim.</summary>
    public Box Bounds => Frame.Pose.Bounds;

    /// <summary>Whether its area prints, up to its edges: a picture, a background, or a border.</summary>
    public bool PrintsToItsEdges => Frame.ImageId is not null || Look.Background is not null || Look.Border is not null;

    public FindingPlace Place => new(Frame.PageId, Frame.Id, Bounds);

    /// <summary>How far a box of the page lies within the trim of its spread, on each side in points; below 0 where it reaches beyond. At the fold there is
    /// no trim: there it is infinite.</summary>
    public Distances Within(Box box) => Distances.Of(Spread, Page, box);
}

/// <summary>How far something lies within the trim, on each side in points.</summary>
internal readonly record struct Distances(double Left, double Top, double Right, double Bottom)
{
    public static Distances Of(Spread spread, PlacedPage page, Box box)
    {
        var trim = page.Trim;
        // Over a fold a frame lies on two pages, and what trims it is the outer edge of the other.
        double right = spread.Trim.Right - trim.X - box.Right, left = box.X + trim.X - spread.Trim.X;
        return new(left, box.Y, right, trim.Height - box.Bottom);
    }

    public double Least => Math.Min(Math.Min(Left, Right), Math.Min(Top, Bottom));

    public IEnumerable<(Sides Side, double Distance)> Each => [(Sides.Left, Left), (Sides.Top, Top), (Sides.Right, Right), (Sides.Bottom, Bottom)];
}

/// <summary>Text under check, as it is set in one of its frames.</summary>
/// <param name="In">The publication.</param>
/// <param name="Spread">The spread on which it is shown.</param>
/// <param name="Page">The page on which it is shown: of a master's frame, one of those that are based on it.</param>
/// <param name="Frame">The frame.</param>
/// <param name="Story">The story.</param>
/// <param name="Set">Its stretch of the story.</param>
internal sealed record CheckedText(CheckedPublication In, Spread Spread, PlacedPage Page, Frame Frame, Story Story, SetText Set)
{
    public Publication Publication => In.Publication;
    public CheckProfile Profile => In.Profile;

    public bool IsFirst => Story.FrameIds[0] == Frame.Id;
    public bool IsLast => Story.FrameIds[^1] == Frame.Id;

    public FindingPlace Place => new(Page.Page.Id, Frame.Id, Frame.Pose.Bounds);

    /// <summary>What prints of its runs, without blanks.</summary>
    public IEnumerable<SetRun> Runs => Set.Lines.SelectMany(l => l.Runs).Where(r => !string.IsNullOrWhiteSpace(r.Text));

    /// <summary>The boxes of its lines, in points from the upper left of its page's trim; lines without words are left out.</summary>
    public IEnumerable<Box> LineBoxes()
    {
        var toPage = Frame.Pose.ToPage;
        foreach (var line in Set.Lines)
        {
            if (line.Width <= 0 || string.IsNullOrWhiteSpace(line.Text)) continue;
            yield return toPage.BoundsOf(new Box(line.X, line.Bottom - line.Height, line.Width, line.Height));
        }
    }

    /// <summary>The box around its lines; null where there are none.</summary>
    public Box? Bounds()
    {
        Box? all = null;
        foreach (var box in LineBoxes()) all = all is { } so ? so.Union(box) : box;
        return all;
    }
}

/// <summary>A spread under check.</summary>
internal sealed record CheckedSpread(CheckedPublication In, Spread Spread)
{
    public Publication Publication => In.Publication;
}

/// <summary>What a frame uses.</summary>
/// <param name="ImageId">The image it shows on a page; null for none, and on masters.</param>
/// <param name="RuleId">Its rule.</param>
/// <param name="LookId">Its look.</param>
/// <param name="Place">Where it lies.</param>
internal readonly record struct FrameUse(int? ImageId, int? RuleId, int? LookId, FindingPlace Place);

/// <summary>What the parts of a publication use, as far as it is checked as a whole.</summary>
/// <param name="In">The publication.</param>
/// <param name="Frames">What its frames use, in the order of the spreads.</param>
/// <param name="Styles">The styles that text has.</param>
internal sealed record CheckedWhole(CheckedPublication In, IReadOnlyList<FrameUse> Frames, IReadOnlySet<int> Styles)
{
    public Publication Publication => In.Publication;
}
