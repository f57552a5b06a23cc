using CsCheck;
using Formatum.Core.Arranging;
using Formatum.Core.Geometry;

namespace Formatum.Core.Tests.Arranging;

/// <summary>Gaps between neighbouring frames, dragged with all frames along them.</summary>
public class GutterTests
{
    /// <summary>Two rows of two, and one across both beneath; gaps of 10.</summary>
    private static readonly Box[] Page = [new(0, 0, 100, 80), new(110, 0, 100, 80), new(0, 90, 100, 80), new(110, 90, 100, 80), new(0, 180, 210, 60)];

    private static Box[] After(IReadOnlyList<Box> boxes, IEnumerable<(int Index, Box Box)> drawn)
    {
        Box[] after = [.. boxes];
        foreach (var (i, box) in drawn) after[i] = box;
        return after;
    }

    [Fact]
    public void All_frames_along_the_gap_follow_and_the_gap_keeps_its_width()
    {
        var gutter = Gutter.At(Page, new(105, 40), 2)!;
        gutter.Upright.ShouldBeTrue();
        gutter.Before.ShouldBe([0, 2]);
        gutter.After.ShouldBe([1, 3]);
        (gutter.Start, gutter.End).ShouldBe((0, 170));
        After(Page, gutter.Dragged(Page, 25)).ShouldBe([new(0, 0, 125, 80), new(135, 0, 75, 80), new(0, 90, 125, 80), new(135, 90, 75, 80), Page[4]]);
        // Between the rows and the one across both.
        var level = Gutter.At(Page, new(60, 175), 2)!;
        level.Upright.ShouldBeFalse();
        level.Before.ShouldBe([2, 3]);
        level.After.ShouldBe([4]);
    }

    [Fact]
    public void No_frame_becomes_smaller_than_six_points()
    {
        var gutter = Gutter.At(Page, new(105, 40), 2)!;
        After(Page, gutter.Dragged(Page, 1000))[1].ShouldBe(new(204, 0, 6, 80));
        After(Page, gutter.Dragged(Page, -1000))[0].ShouldBe(new(0, 0, 6, 80));
    }

    [Fact]
    public void The_gap_is_made_wider_about_its_middle_and_never_below_nothing()
    {
        var gutter = Gutter.At(Page, new(105, 40), 2)!;
        After(Page, gutter.Widened(Page, 30)).Take(2).ShouldBe([new(0, 0, 90, 80), new(120, 0, 90, 80)]);
        After(Page, gutter.Widened(Page, -5)).Take(2).ShouldBe([new(0, 0, 105, 80), new(105, 0, 105, 80)]);
    }

    [Fact]
    public void Where_frames_do_not_face_each_other_there_is_no_gap()
    {
        Gutter.At(Page, new(300, 40), 2).ShouldBeNull();
        Gutter.At([new(0, 0, 50, 50), new(200, 0, 50, 50)], new(120, 25), 2).ShouldBeNull();
        Gutter.At([new(0, 0, 50, 50)], new(52, 25), 2).ShouldBeNull();
        Gutter.At([], new(0, 0), 2).ShouldBeNull();
    }

    [Fact]
    public void A_frame_off_the_line_by_more_than_half_a_point_does_not_follow()
    {
        Box[] boxes = [.. Page];
        boxes[2] = new(0, 90, 100.4, 80);
        Gutter.At(boxes, new(105, 40), 2)!.Before.ShouldBe([0, 2]);
        boxes[2] = new(0, 90, 100.6, 80);
        Gutter.At(boxes, new(105, 40), 2)!.Before.ShouldBe([0]);
    }

    [Fact]
    public void There_and_back_is_nowhere() => Gen.Select(Gen.Int[2, 6], Gen.Int[2, 6], Gen.Double[1, 20], Gen.Double[-15, 15])
        .Sample((rows, columns, gap, by) =>
    {
        Box[] boxes = [.. new FrameGrid(rows, columns, gap, gap).Fill(new(0, 0, 600, 500))];
        var point = new Vec(boxes[0].Right + gap / 2, boxes[0].Centre.Y);
        var gutter = Gutter.At(boxes, point, 0.1)!;
        (gutter.Before.Length, gutter.After.Length).ShouldBe((rows, rows));
        var moved = After(boxes, gutter.Dragged(boxes, by));
        var back = Gutter.At(moved, point + new Vec(by, 0), 0.1)!;
        var again = After(moved, back.Dragged(moved, -by));
        again.Zip(boxes).ShouldAllBe(p => Math.Abs(p.First.X - p.Second.X) < 1e-9 && Math.Abs(p.First.Width - p.Second.Width) < 1e-9);
    });
}
