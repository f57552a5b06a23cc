using CsCheck;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Tests.Edits;

namespace Formatum.Core.Tests.Typesetting;

public sealed class GridTests
{
    private static readonly HalfWide Fonts = new();

    [Fact]
    public void Baselines_of_all_frames_stand_on_the_grid_of_the_page() => (from step in Gen.Double[6, 30]
                                                                            from start in Gen.Double[0, 50]
                                                                            from y in Gen.Double[0, 100]
                                                                            from size in Gen.Double[4, 20]
                                                                            from alignment in Gen.Enum<TextAlignment>()
                                                                            from columns in Gen.Int[1, 3]
                                                                            select (step, start, y, size, alignment, columns)).Sample(c =>
        {
            var p = Publication.Create(new() { Name = "G", PageWidth = 400, PageHeight = 500, BaselineStep = c.step, BaselineStart = c.start }, 1);
            var style = new TextStyle { Size = c.size, OnGrid = true, SpaceAfter = 3, Alignment = c.alignment };
            string words = string.Join(' ', Enumerable.Repeat("clay fire glaze", 12));
            p = p.Do(new MakeFrame { Page = 1, Box = new(20, c.y, 300, 350), Text = new([new(words, style), new(words, style with { Size = c.size / 2 })]) });
            var frame = p.Frames.Values.Single();
            p = p.Do(new ChangeFrames { FrameIds = [frame.Id], Area = new() { Columns = c.columns } });
            frame = p.Frames.Values.Single();
            var lines = Composition.TextOf(p, frame, Fonts)!.Lines;
            lines.ShouldNotBeEmpty();
            foreach (var line in lines)
            {
                double lines_ = (c.y + line.Baseline - c.start) / c.step;
                lines_.ShouldBe(Math.Round(lines_), 1e-5);
            }
            // No line of the grid is left out that a line of the text could stand on.
            var column = lines.Where(l => l.Column == 0 && l.Paragraph == 0).Select(l => l.Baseline).Distinct().ToList();
            double pitch = Math.Ceiling(style.LineHeight / c.step - 1e-6) * c.step;
            for (int i = 1; i < column.Count; i++) (column[i] - column[i - 1]).ShouldBe(pitch, 1e-5);
        }, iter: 200);

    [Fact]
    public void Text_that_is_not_locked_or_is_centred_or_turned_does_not_keep_to_it()
    {
        var p = Publication.Create(new() { Name = "G", PageWidth = 400, PageHeight = 500, BaselineStep = 17, BaselineStart = 3 }, 1);
        var locked = new TextStyle { Size = 10, Leading = 12, OnGrid = true };
        double Step(TextStyle style, double angle = 0, VerticalPlace vertical = VerticalPlace.Top)
        {
            var q = p.Do(new MakeFrame { Page = 1, Box = new(20, 5, 100, 100), Text = new([new("a\u2028b", style)]) });
            var frame = q.Frames.Values.Single() with { Angle = angle, Area = new() { Vertical = vertical } };
            var lines = Composition.TextOf(q, frame, Fonts)!.Lines;
            return lines[1].Baseline - lines[0].Baseline;
        }
        Step(locked).ShouldBe(17, 1e-9);
        Step(locked with { OnGrid = false }).ShouldBe(12, 1e-9);
        Step(locked, angle: 20).ShouldBe(12, 1e-9);
        Step(locked, vertical: VerticalPlace.Middle).ShouldBe(12, 1e-9);
    }

    [Fact]
    public void A_grid_finer_than_a_point_or_above_the_page_is_refused()
    {
        var setup = new Setup { Name = "G", PageWidth = 400, PageHeight = 500 };
        foreach (var bad in new[] { setup with { BaselineStep = 0.5 }, setup with { BaselineStep = -3 }, setup with { BaselineStep = double.NaN },
            setup with { BaselineStep = 12, BaselineStart = -1 } })
        {
            var errors = new Core.Checks.FieldErrors();
            bad.Check(errors);
            errors.Any.ShouldBeTrue(bad.ToString());
        }
    }
}
