using System.Collections.Immutable;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Arranging;

/// <summary>A line of the spread that an edge or a middle catches on.</summary>
/// <param name="At">Where it lies: x of an upright line, y of a level one.</param>
/// <param name="Words">What it is, for people: "margin", "middle of the page".</param>
/// <param name="From">Where what it belongs to begins, along it.</param>
/// <param name="To">Where that ends.</param>
public readonly record struct SnapLine(double At, string Words, double From, double To);

/// <summary>What was caught on, to be drawn and said.</summary>
/// <param name="Upright">Whether the line runs from top to bottom.</param>
/// <param name="Line">The line, from and to reaching as far as what caught on it.</param>
public readonly record struct SnapMark(bool Upright, SnapLine Line);

/// <summary>A box moved or sized to where it catches, and what it caught on.</summary>
public readonly record struct Snapped(Box Box, ImmutableArray<SnapMark> Marks)
{
    public string Words => string.Join(", ", Marks.Select(m => m.Line.Words).Distinct());
}

/// <summary>
/// Everything on a spread that moving things catch on: trim, bleed, margins, columns, middles of pages and spread, guides, the edges and middles of
/// other frames, gaps and sizes equal to those that are there. Nearest first; of equally near ones in that order.
/// </summary>
public sealed class Snapping
{
    /// <summary>As near as this, in screen pixels, a thing catches.</summary>
    public const double Reach = 6;

    private const double Hair = 1e-6;

    private readonly List<SnapLine> _across = [], _down = [];
    private readonly ImmutableArray<(Box Box, string Name)> _others;

    /// <param name="publication">The publication.</param>
    /// <param name="spread">The spread.</param>
    /// <param name="moving">Frames that move, and are not caught on.</param>
    public Snapping(Publication publication, Spread spread, IReadOnlySet<int> moving)
    {
        var setup = publication.Setup;
        var trim = spread.Trim;
        foreach (var page in spread.Pages) Add(page.Trim, "edge of the page");
        if (setup.Bleed > 0) Add(trim.Grown(setup.Bleed), "bleed");
        foreach (var page in spread.Pages)
        {
            foreach (double fold in setup.FoldsOf(page)) _across.Add(new(page.Trim.X + fold, "fold", page.Trim.Y, page.Trim.Bottom));
            foreach (var area in setup.TypeAreas(page)) Add(area.Moved(page.Trim.X, page.Trim.Y), "margin");
        }
        if (setup.Columns.Count > 1)
        {
            foreach (var page in spread.Pages)
            {
                foreach (var column in setup.ColumnBoxes(page))
                {
                    var at = column.Moved(page.Trim.X, page.Trim.Y);
                    _across.Add(new(at.X, "column", at.Y, at.Bottom));
                    _across.Add(new(at.Right, "column", at.Y, at.Bottom));
                }
            }
        }
        foreach (var page in spread.Pages)
        {
            AddMiddle(page.Trim, "middle of the page");
            foreach (var panel in setup.PanelsOf(page)) AddMiddle(panel.Moved(page.Trim.X, page.Trim.Y), "middle of the panel");
        }
        if (spread.Pages.Length > 1) _across.Add(new(trim.Centre.X, "fold", trim.Y, trim.Bottom));
        foreach (var guide in Guide.On(publication, spread))
        {
            if (guide.Upright) _across.Add(new(guide.At, "guide", trim.Y, trim.Bottom));
            else _down.Add(new(guide.At, "guide", trim.X, trim.Right));
        }
        _others = [.. spread.FramesOf(publication).Where(f => !moving.Contains(f.Frame.Id) && !f.Frame.Hidden)
            .Select(f => ((f.Frame.Pose with { Box = f.Box }).Bounds, f.Frame.Label))];
        foreach (var (box, name) in _others)
        {
            Add(box, name);
            AddMiddle(box, "middle of " + name);
        }
    }

    private void Add(Box box, string words)
    {
        _across.Add(new(box.X, words, box.Y, box.Bottom));
        _across.Add(new(box.Right, words, box.Y, box.Bottom));
        _down.Add(new(box.Y, words, box.X, box.Right));
        _down.Add(new(box.Bottom, words, box.X, box.Right));
    }

    private void AddMiddle(Box box, string words)
    {
        _across.Add(new(box.Centre.X, words, box.Y, box.Bottom));
        _down.Add(new(box.Centre.Y, words, box.X, box.Right));
    }

    /// <summary>A box that is moved: its edges and its middle catch, and equal gaps to its neighbours.</summary>
    /// <param name="box">Where it would come to lie.</param>
    /// <param name="reach">How near, in points, it catches.</param>
    public Snapped Moved(Box box, double reach)
    {
        double dx = Nearest([box.X, box.Centre.X, box.Right], [.. _across, .. Gaps(box, across: true)], reach),
            dy = Nearest([box.Y, box.Centre.Y, box.Bottom], [.. _down, .. Gaps(box, across: false)], reach);
        var snapped = box.Moved(dx, dy);
        return new(snapped, Marks(snapped, [snapped.X, snapped.Centre.X, snapped.Right], [snapped.Y, snapped.Centre.Y, snapped.Bottom], box));
    }

    /// <summary>A box of which edges are drawn: they catch, and widths and heights equal to those of other frames.</summary>
    /// <param name="box">As it would come to be.</param>
    /// <param name="grip">Which edges are drawn.</param>
    /// <param name="reach">How near, in points, they catch.</param>
    public Snapped Sized(Box box, Grip grip, double reach)
    {
        double left = box.X, right = box.Right, top = box.Y, bottom = box.Bottom, dx = 0, dy = 0;
        if (grip.X != 0)
        {
            double edge = grip.X < 0 ? left : right;
            dx = Nearest([edge], [.. _across, .. Sizes(box, grip.X, across: true)], reach);
            if (grip.X < 0) left += dx;
            else right += dx;
        }
        if (grip.Y != 0)
        {
            double edge = grip.Y < 0 ? top : bottom;
            dy = Nearest([edge], [.. _down, .. Sizes(box, grip.Y, across: false)], reach);
            if (grip.Y < 0) top += dy;
            else bottom += dy;
        }
        if (right - left < Hair || bottom - top < Hair) return new(box, []);
        var sized = new Box(left, top, right - left, bottom - top);
        double[] xs = grip.X == 0 ? [] : [grip.X < 0 ? left : right], ys = grip.Y == 0 ? [] : [grip.Y < 0 ? top : bottom];
        return new(sized, Marks(sized, xs, ys, box, grip));
    }

    /// <summary>A box that is drawn anew: the edges under the pointer catch as those of a grip do; all lines that its four edges lie on are told.</summary>
    /// <param name="box">As it would come to be.</param>
    /// <param name="grip">Which edges the pointer draws.</param>
    /// <param name="reach">How near, in points, they catch.</param>
    public Snapped Drawn(Box box, Grip grip, double reach)
    {
        var sized = Sized(box, grip, reach).Box;
        return new(sized, Marks(sized, [sized.X, sized.Right], [sized.Y, sized.Bottom], box, grip));
    }

    /// <summary>A box as it is, with the lines that it happens to lie on.</summary>
    public Snapped LyingOn(Box box) => Moved(box, Hair) with { Box = box };

    /// <summary>A point, such as where a drag begins or a guide is let go.</summary>
    public Vec Point(Vec point, double reach) => new(point.X + Nearest([point.X], _across, reach), point.Y + Nearest([point.Y], _down, reach));

    /// <summary>How far the nearest of the places must go to lie on a line; 0 where none is near enough.</summary>
    private static double Nearest(ReadOnlySpan<double> places, IEnumerable<SnapLine> lines, double reach)
    {
        double best = 0, distance = double.PositiveInfinity;
        foreach (var line in lines)
        {
            foreach (double place in places)
            {
                double away = Math.Abs(line.At - place);
                if (away > reach || away >= distance - Hair) continue;
                distance = away;
                best = line.At - place;
            }
        }
        return best;
    }

    /// <summary>Places at which the gaps between neighbours in a row, or a column, become equal.</summary>
    private IEnumerable<SnapLine> Gaps(Box box, bool across)
    {
        (double From, double To) Along(Box b) => across ? (b.X, b.Right) : (b.Y, b.Bottom);
        (double From, double To) Beside(Box b) => across ? (b.Y, b.Bottom) : (b.X, b.Right);
        var mine = Beside(box);
        double length = across ? box.Width : box.Height;
        var row = _others.Select(o => o.Box).Where(o => Beside(o).From < mine.To && mine.From < Beside(o).To).OrderBy(o => Along(o).From).ToList();
        SnapLine Line(double at) => new(at, "equal gaps", mine.From, mine.To);
        for (int i = 0; i + 1 < row.Count; i++)
        {
            double from = Along(row[i]).To, to = Along(row[i + 1]).From, gap = to - from;
            if (gap <= Hair) continue;
            // To the right and to the left of the two, and in the middle between them.
            yield return Line(Along(row[i + 1]).To + gap);
            yield return Line(Along(row[i]).From - gap);
            if (gap > length) yield return Line((from + to - length) / 2);
        }
    }

    /// <summary>Places of the drawn edge at which the box is as wide, or as high, as another.</summary>
    private IEnumerable<SnapLine> Sizes(Box box, int grip, bool across)
    {
        foreach (var (other, name) in _others)
        {
            double size = across ? other.Width : other.Height;
            double at = across ? (grip < 0 ? box.Right - size : box.X + size) : grip < 0 ? box.Bottom - size : box.Y + size;
            yield return new(at, (across ? "as wide as " : "as high as ") + name, across ? box.Y : box.X, across ? box.Bottom : box.Right);
        }
    }

    /// <summary>The lines on which the places now lie.</summary>
    private ImmutableArray<SnapMark> Marks(Box box, double[] xs, double[] ys, Box before, Grip? grip = null)
    {
        var marks = ImmutableArray.CreateBuilder<SnapMark>();
        Collect(true, xs, grip is { } g ? [.. _across, .. Sizes(before, g.X, true)] : [.. _across, .. Gaps(before, true)], box.Y, box.Bottom);
        Collect(false, ys, grip is { } h ? [.. _down, .. Sizes(before, h.Y, false)] : [.. _down, .. Gaps(before, false)], box.X, box.Right);
        return marks.ToImmutable();

        void Collect(bool upright, double[] places, IEnumerable<SnapLine> lines, double from, double to)
        {
            foreach (double place in places)
            {
                bool found = false;
                foreach (var line in lines)
                {
                    // One line a place is enough to be seen; where several lie on each other, the first names it.
                    if (found || Math.Abs(line.At - place) > Hair) continue;
                    found = true;
                    marks.Add(new(upright, line with { From = Math.Min(line.From, from), To = Math.Max(line.To, to) }));
                }
            }
        }
    }
}
