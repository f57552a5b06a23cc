using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Publications;

namespace Formatum.Core.Tests.Publications;

/// <summary>Where the lines of a border lie, how they are dashed, and what can be none.</summary>
public class BorderTests
{
    private static readonly Colour Red = Colour.Of("#ff0000");

    private static (double From, double To)[] Lines(Border border) => [.. border.Stripes().Select(s => (Math.Round(s.From, 9), Math.Round(s.To, 9)))];

    [Fact]
    public void Lines_lie_inside_outside_or_on_the_outline()
    {
        Lines(new(6, Colour.Black)).ShouldBe([(-3, 3)]);
        Lines(new(6, Colour.Black) { Place = BorderPlace.Inside }).ShouldBe([(0, 6)]);
        Lines(new(6, Colour.Black) { Place = BorderPlace.Outside }).ShouldBe([(-6, 0)]);
        // CSS Backgrounds and Borders 3, 3.2: the two lines and the space between them come to the width.
        Lines(new(9, Colour.Black) { Kind = BorderKind.Double, Place = BorderPlace.Inside }).ShouldBe([(0, 3), (6, 9)]);
        Lines(new(8, Colour.Black) { Kind = BorderKind.ThickThin, Place = BorderPlace.Outside }).ShouldBe([(-8, -4), (-2, 0)]);
        Lines(new(8, Colour.Black) { Kind = BorderKind.ThinThick, Place = BorderPlace.Inside }).ShouldBe([(0, 2), (4, 8)]);
        var three = new Border(2, Colour.Black) { Second = new(1, 4, Red), Third = new(0.5, 0.5) };
        Lines(three).ShouldBe([(-4, -2), (-1, 3), (3.5, 4)]);
        three.Stripes().Select(s => s.Colour).ShouldBe([Colour.Black, Red, Colour.Black]);
        three.TotalWidth.ShouldBe(8);
        (three with { Place = BorderPlace.Outside, Join = LineJoin.Round }).Reach.ShouldBe(8);
        (three with { Place = BorderPlace.Inside }).Reach.ShouldBe(0);
    }

    [Fact]
    public void Dashes_come_out_even_around_a_closed_line()
    {
        var dashed = new Border(2, Colour.Black) { Kind = BorderKind.Dashed };
        var line = dashed.Stripes().Single();
        dashed.DashesOf(line, null).ShouldBe([6, 4]);
        // 104 points hold ten times ten and a little: ten times 10.4.
        dashed.DashesOf(line, 104).Sum().ShouldBe(10.4, 1e-12);
        dashed.DashesOf(line, 3).Sum().ShouldBe(3, 1e-12);
        (dashed with { Kind = BorderKind.Dotted }).DashesOf(line, null).ShouldBe([0, 4]);
        (dashed with { Dashes = new([5, 1, 2]) }).DashesOf(line, null).ShouldBe([5, 1, 2, 5, 1, 2], "SVG 2, 13.5.6: an odd pattern is repeated.");
        (dashed with { Kind = BorderKind.Double }).DashesOf(line, 100).ShouldBeEmpty();
        dashed.DashesOf(line with { IsFirst = false }, 100).ShouldBeEmpty("Further lines are whole.");
    }

    [Fact]
    public void What_can_be_no_border_is_refused_by_name()
    {
        void Refused(Border border, string field)
        {
            var errors = new FieldErrors();
            border.Check(errors);
            Should.Throw<EditRefused>(errors.ThrowIfAny).Errors.ShouldContain(e => e.Field == field);
        }
        var plain = new Border(1, Colour.Black);
        foreach (double width in new[] { 0, -1, double.NaN, 1000 }) Refused(plain with { Width = width }, "look.border.width");
        foreach (double[] lengths in new double[][] { [], [0, 0], [-1, 2], [double.NaN], [1e9], [0.01, 0.01], [.. Enumerable.Repeat(1.0, 10_000)] })
            Refused(plain with { Dashes = new([.. lengths]) }, "look.border.dashes");
        Refused(plain with { Sides = Sides.None }, "look.border.sides");
        Refused(plain with { Sides = (Sides)16 }, "look.border.sides");
        Refused(plain with { Third = new(1, 1) }, "look.border.third");
        Refused(plain with { Second = new(-1, 1) }, "look.border.second.gap");
        Refused(plain with { Second = new(1, double.NaN) }, "look.border.second.width");
        Refused(plain with { Second = new(1, 1, new CmykColour(0, 2, 0, 0)) }, "look.border.second.colour");
    }

    [Fact]
    public void Every_line_follows_the_palette()
    {
        var border = new Border(1, new NamedColour(7)) { Second = new(1, 1, new NamedColour(8)), Third = new(1, 1) };
        var look = new Look { Border = border };
        look.AllColours().ShouldBe([new NamedColour(7), new NamedColour(8)]);
        look.Recoloured(c => c == new NamedColour(8) ? Red : c).Border.ShouldBe(border with { Second = new(1, 1, Red) });
    }

    [Fact]
    public void A_border_of_before_is_one_solid_line_on_the_outline_and_today_s_comes_back_as_it_was()
    {
        var frame = new Frame { Id = 7, PageId = 3, Box = new(0, 0, 9, 9), Look = new Look { Border = new(2, Red) } };
        PartJson.Read(PartKind.Frame, """{"version":3,"id":7,"pageId":3,"box":{"x":0,"y":0,"width":9,"height":9},"look":{"border":{"width":2""" +
            ""","colour":"#ff0000"}}}""")
            .Cast<Frame>().Single().Look.ShouldBe(frame.Look);
        var full = frame with
        {
            Look = new Look
            {
                Border = new(2, Red) { Kind = BorderKind.Dashed, Dashes = new([1, 2]), Sides = Sides.Top | Sides.Left, Second = new(1, 1) },
                Corners = new(Core.Geometry.CornerKind.Notch, 1, 2, 3, 4),
            }
        };
        PartJson.Read(PartKind.Frame, PartJson.Write(full)).ShouldBe([full]);
    }
}
