using System.Collections.Immutable;
using CsCheck;
using Formatum.Core.Geometry;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Tests.Typesetting;

public sealed class TextShapeTests
{
    private static readonly TextStyle Ten = new() { Size = 10, Leading = 12 };

    private static SetText Set(string text, TextShape shape) => TextSetter.Set(StyledText.Of(new([.. text.Split('\n').Select(p => new Paragraph(p, Ten))])),
        shape,
        new HalfWide());

    private static TextShape Shape(TextArea area, double width, double height, Outline? outline = null, params Obstacle[] obstacles) =>
        new(area, width, height, outline ?? Outline.Rectangle, [.. obstacles]);

    private static Obstacle Box(double x, double y, double width, double height, WrapSides sides = WrapSides.Both, bool clears = false) =>
        new([new(x, y), new(x + width, y), new(x + width, y + height), new(x, y + height)], default, sides, clears);

    private static (double X, int Column, string Text)[] Lines(SetText set) => [.. set.Lines.Select(l => (l.X, l.Column, l.Text))];

    [Fact]
    public void Lines_run_on_from_column_to_column_within_the_inset()
    {
        var area = new TextArea { Columns = 2, Gutter = 10, Inset = new(2, 5, 1, 5) };
        // (120 - 5 - 5 - 10) / 2 = 50 wide, and room for two lines of 12 in 28 - 3.
        Lines(Set("one two three four five six", Shape(area, 120, 28))).ShouldBe([(5, 0, "one two"), (5, 0, "three four"), (65, 1, "five six")]);
        var set = Set("one two\nthree\nfour\nfive\nsix seven", Shape(area, 120, 28));
        set.LeftOut.ShouldBe("six seven".Length);
        Set("words", Shape(new() { Columns = 3, Gutter = 50 }, 90, 100)).LeftOut.ShouldBe(5, "no column is left between such gutters");
    }

    [Fact]
    public void A_line_stands_on_both_sides_on_the_wider_or_on_one()
    {
        string[] Around(WrapSides sides) => [.. Lines(Set("aa bb cc dd ee ff gg", Shape(TextArea.Whole, 100, 100, null, Box(40, 0, 25, 10, sides))))
            .Select(l => $"{l.X}:{l.Text}")];
        Around(WrapSides.Both).ShouldBe(["0:aa bb cc", "65:dd ee", "0:ff gg"]);
        Around(WrapSides.Wider).ShouldBe(["0:aa bb cc", "0:dd ee ff gg"]);
        Around(WrapSides.Start).ShouldBe(["0:aa bb cc", "0:dd ee ff gg"]);
        Around(WrapSides.End).ShouldBe(["65:aa bb", "0:cc dd ee ff gg"]);
        var clear = Set("aa", Shape(TextArea.Whole, 100, 100, null, Box(40, 0, 25, 10, clears: true)));
        (clear.Lines[0].Bottom - 12).ShouldBe(10);
    }

    [Fact]
    public void A_word_that_fits_nowhere_beside_goes_below_and_only_one_wider_than_the_column_is_broken()
    {
        var set = Set("stoneware", Shape(TextArea.Whole, 60, 100, null, Box(20, 0, 20, 30)));
        set.Lines.Single().Text.ShouldBe("stoneware");
        (set.Lines[0].Bottom - 12).ShouldBe(30);
        Lines(Set("stoneware", Shape(TextArea.Whole, 30, 100))).Select(l => l.Text).ShouldBe(["stonew", "are"]);
    }

    [Theory]
    [InlineData(VerticalPlace.Top, 0, 12)]
    [InlineData(VerticalPlace.Middle, 38, 50)]
    [InlineData(VerticalPlace.Bottom, 76, 88)]
    [InlineData(VerticalPlace.Justified, 0, 88)]
    public void Lines_stand_where_they_are_to_from_top_to_bottom(VerticalPlace place, double first, double second)
    {
        var set = Set("one\ntwo", Shape(new() { Vertical = place }, 100, 100));
        // The baseline stands 9 below the top of its line.
        set.Lines.Select(l => l.Baseline - 9).ShouldBe([first, second]);
    }

    [Fact]
    public void A_circle_of_text_is_a_circle()
    {
        var set = Set(string.Join(' ', Enumerable.Repeat("kiln", 60)), Shape(new() { Inset = Inset.Even(6) }, 200, 200, Outline.Ellipse));
        set.Lines.Length.ShouldBeGreaterThan(10);
        foreach (var line in set.Lines)
        {
            foreach (var corner in new Vec[] { new(line.X, line.Bottom - 12), new(line.X + line.Width, line.Bottom - 12), new(line.X, line.Bottom),
                new(line.X + line.Width, line.Bottom) })
                (corner - new Vec(100, 100)).Length.ShouldBeLessThan(94.05, line.Text);
        }
        // They grow towards the middle and shrink again.
        double[] widths = [.. set.Lines.Select(l => l.Width)];
        widths[0].ShouldBeLessThan(widths[widths.Length / 2]);
    }

    private static readonly Gen<Vec> Points = from x in Gen.Double[-50, 250] from y in Gen.Double[-50, 300] select new Vec(x, y);

    private static readonly Gen<Obstacle> Obstacles = from corners in Points.Array[3, 7]
                                                      from distance in Gen.Double[0, 20]
                                                      from sides in Gen.Enum<WrapSides>()
                                                      select new Obstacle([.. corners], Inset.Even(distance), sides, false);

    [Fact]
    public void Nothing_is_lost_or_set_twice_and_no_line_touches_what_it_keeps_clear_of() => (from words in Gen.Int[1, 12].Array[1, 120]
                                                                                              from obstacles in Obstacles.Array[0, 3]
                                                                                              from columns in Gen.Int[1, 3]
                                                                                              select (words, obstacles, columns)).Sample(c =>
        {
            string text = string.Join(' ', c.words.Select((length, i) => new string((char)('a' + i % 26), length)));
            var shape = new TextShape(new() { Columns = c.columns, Gutter = 8 }, 200, 250, Outline.Rectangle, [.. c.obstacles]);
            var set = Set(text, shape);
            string all = string.Concat(set.Lines.Select(l => l.Text)).Replace(" ", "", StringComparison.Ordinal);
            text.Replace(" ", "", StringComparison.Ordinal).ShouldStartWith(all);
            if (set.LeftOut == 0) all.Length.ShouldBe(c.words.Sum());
            // A line may be a thousandth too wide before that counts.
            foreach (var line in set.Lines.Where(l => l.Width > 0))
                foreach (var obstacle in c.obstacles)
                    Samples(line).ShouldAllBe(p => DistanceTo(obstacle.Shape, p) > obstacle.Distance.Top - 0.002);
        }, iter: 300);

    private static IEnumerable<Vec> Samples(SetLine line)
    {
        for (int i = 0; i <= 8; i++)
            for (int k = 0; k <= 4; k++) yield return new(line.X + line.Width * i / 8, line.Bottom - 12 + 12 * k / 4.0);
    }

    /// <summary>How far a point lies from a polygon; below 0 where it winds about it.</summary>
    private static double DistanceTo(ImmutableArray<Vec> polygon, Vec p)
    {
        double nearest = double.PositiveInfinity;
        int wound = 0;
        for (int i = 0; i < polygon.Length; i++)
        {
            Vec a = polygon[i], b = polygon[(i + 1) % polygon.Length], along = b - a;
            double t = Math.Clamp(((p.X - a.X) * along.X + (p.Y - a.Y) * along.Y) / (along.X * along.X + along.Y * along.Y), 0, 1);
            nearest = Math.Min(nearest, (p - (a + t * along)).Length);
            if (a.Y <= p.Y && b.Y > p.Y && along.Cross(p - a) > 0) wound++;
            else if (a.Y > p.Y && b.Y <= p.Y && along.Cross(p - a) < 0) wound--;
        }
        return wound != 0 ? -nearest : nearest;
    }

    [Fact]
    public void Text_in_the_middle_stays_there_whatever_keeps_text_clear_elsewhere_on_the_spread()
    {
        var area = new TextArea { Vertical = VerticalPlace.Middle };
        double First(params Obstacle[] obstacles) => Set("one", Shape(area, 100, 100, null, obstacles)).Lines.Single().Baseline;
        double alone = First();
        alone.ShouldBeGreaterThan(40);
        First(Box(200, 0, 50, 50), Box(0, 150, 50, 50), Box(-80, -80, 60, 60, clears: true)).ShouldBe(alone);
        // One that lies within has the text begin at the top, where lines find room by themselves.
        First(Box(80, 80, 10, 10)).ShouldBeLessThan(20);
    }

    [Theory]
    [InlineData("Write to https://www.brackenfoldkilns.example/catalogues/autumn", 90)]
    [InlineData("Write to glazemaster@brackenfoldkilns.example for samples", 70)]
    public void An_address_is_never_divided_with_a_hyphen(string words, double width)
    {
        var style = Ten with { Hyphenate = true, Language = "en-GB" };
        var set = TextSetter.Set(StyledText.Of(new([new Paragraph(words, style)])), Shape(TextArea.Whole, width, 400), new HalfWide());
        set.Lines.Length.ShouldBeGreaterThan(2);
        set.Lines.ShouldAllBe(l => !l.Text.EndsWith('-'));
    }
}
