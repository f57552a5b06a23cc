using Formatum.Core.Arranging;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Tests.Edits;

namespace Formatum.Core.Tests.Arranging;

public class SnappingTests
{
    private static readonly HashSet<int> Nothing = [];

    /// <summary>Facing pages of 400 x 500, bleed 10, margins 50 and three columns with gutters of 12; page 2 and 3 are looked at.</summary>
    private static Publication Pages(params Box[] frames)
    {
        var p = Publication.Create(new Setup
        {
            Name = "Snaps",
            PageWidth = 400,
            PageHeight = 500,
            Facing = true,
            Bleed = 10,
            Margins = new(50, 50, 50, 50),
            Columns = new(3, 12)
        }, 4);
        foreach (var box in frames) p = p.Do(new MakeFrame { Page = 2, Box = box, Name = $"F{p.Frames.Count + 1}" });
        return p;
    }

    private static Snapping Of(Publication p, IReadOnlySet<int>? moving = null) => new(p, Spread.At(p, 1), moving ?? Nothing);

    public static TheoryData<double, double, string> Catches => new()
    {
        { 2, 0, "edge of the page" }, { -8, -10, "bleed" }, { 53, 50, "margin" }, { 143, 142, "column" }, { 397, 400, "edge of the page" },
            { 188, 190, "middle of the page" }, { 447, 450, "margin" },
    };

    [Theory]
    [MemberData(nameof(Catches))]
    public void A_moved_box_catches_on_what_is_near_and_says_on_what(double x, double caught, string words)
    {
        // Of an odd width, so that no other of its edges is near anything.
        var snapped = Of(Pages()).Moved(new(x, 203, words == "middle of the page" ? 20 : 31.3, 31), 4);
        snapped.Box.X.ShouldBe(caught, 1e-9);
        snapped.Box.Y.ShouldBe(203);
        snapped.Words.ShouldContain(words);
    }

    [Fact]
    public void Out_of_reach_nothing_catches()
    {
        var snapped = Of(Pages()).Moved(new(20, 203, 23.7, 31), 4);
        snapped.Box.ShouldBe(new Box(20, 203, 23.7, 31));
        snapped.Marks.ShouldBeEmpty();
    }

    [Fact]
    public void The_nearest_wins()
    {
        var p = Pages(new Box(54, 300, 30, 30));
        // The margin lies at 50, the frame's edge at 54.
        Of(p).Moved(new(53, 103, 23.7, 31), 6).Box.X.ShouldBe(54);
        Of(p).Moved(new(51, 103, 23.7, 31), 6).Box.X.ShouldBe(50);
    }

    [Fact]
    public void What_moves_is_not_caught_on()
    {
        var p = Pages(new Box(77, 300, 30, 30));
        Of(p).Moved(new(78, 103, 23.7, 31), 3).Box.X.ShouldBe(77);
        Of(p, new HashSet<int> { p.Frames.Keys.Single() }).Moved(new(78, 103, 23.7, 31), 3).Box.X.ShouldBe(78);
    }

    [Fact]
    public void Equal_gaps_to_neighbours_in_a_row_catch_on_either_side_and_between()
    {
        var p = Pages(new Box(60, 200, 40, 40), new Box(113, 200, 40, 40));
        var snapping = Of(p);
        // A third to the right: 153 + 13 = 166; to the left: 60 - 13 - 27 = 20.
        snapping.Moved(new(167, 205, 27, 27), 3).Box.X.ShouldBe(166);
        snapping.Moved(new(167, 205, 27, 27), 3).Words.ShouldContain("equal gaps");
        snapping.Moved(new(21, 205, 27, 27), 3).Box.X.ShouldBe(20);
        var apart = Of(Pages(new Box(60, 200, 30, 30), new Box(217, 200, 30, 30)));
        apart.Moved(new(139, 205, 27, 20), 2).Box.X.ShouldBe(140);
        // In another row they do not count.
        apart.Moved(new(139, 305, 27, 20), 2).Words.ShouldNotContain("equal gaps");
    }

    [Fact]
    public void A_drawn_edge_catches_on_lines_and_on_equal_sizes()
    {
        var p = Pages(new Box(60, 300, 87, 40));
        var snapped = Of(p).Sized(new(203.3, 103, 85, 31), new Grip(1, 0), 4);
        snapped.Box.ShouldBe(new Box(203.3, 103, 87, 31));
        snapped.Words.ShouldBe("as wide as F1");
        Of(p).Sized(new(203.3, 103, 145, 31), new Grip(1, 0), 4).Box.Right.ShouldBe(350);
        Of(p).Sized(new(203.3, 103, 145, 31), new Grip(-1, 0), 4).Box.Right.ShouldBe(348.3, 1e-9);
    }

    [Fact]
    public void A_box_drawn_anew_tells_all_that_its_edges_lie_on()
    {
        var drawn = Of(Pages()).Drawn(new(50, 103, 298, 31), new Grip(1, 1), 4);
        drawn.Box.ShouldBe(new Box(50, 103, 300, 31));
        drawn.Marks.Select(m => (m.Upright, m.Line.At)).ShouldBe([(true, 50.0), (true, 350.0)]);
    }

    [Fact]
    public void Guides_catch_and_their_marks_reach_as_far_as_both()
    {
        var p = Pages().Do(new ChangeGuide(2, null, new PageGuide(true, 222)));
        var snapped = Of(p).Moved(new(223, 103, 31.3, 31), 3);
        snapped.Box.X.ShouldBe(222);
        var mark = snapped.Marks.Single(m => m.Upright);
        mark.Line.Words.ShouldBe("guide");
        (mark.Line.From, mark.Line.To).ShouldBe((0, 500));
        Of(p).Point(new(221, 103), 3).ShouldBe(new Vec(222, 103));
    }
}
