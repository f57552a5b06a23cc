using Formatum.Core.Checks;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Tests.Publications;

public class SetupTests
{
    internal static Setup A4(bool facing = true) => new()
    {
        Name = "Test",
        PageWidth = PaperSize.Named("A4")!.Width,
        PageHeight = PaperSize.Named("A4")!.Height,
        Facing = facing,
        Margins = new(40, 50, 60, 30),
        Columns = new(3, 12),
    };

    /// <summary>ISO 216:2007, table 1 (A and B series, trimmed sizes in millimetres).</summary>
    [Theory]
    [InlineData("A0", 841, 1189)]
    [InlineData("A1", 594, 841)]
    [InlineData("A2", 420, 594)]
    [InlineData("A3", 297, 420)]
    [InlineData("A4", 210, 297)]
    [InlineData("A5", 148, 210)]
    [InlineData("A6", 105, 148)]
    [InlineData("A7", 74, 105)]
    [InlineData("A8", 52, 74)]
    [InlineData("B3", 353, 500)]
    [InlineData("B4", 250, 353)]
    [InlineData("B5", 176, 250)]
    [InlineData("B6", 125, 176)]
    public void The_ISO_sizes_are_those_of_the_standard(string name, double width, double height)
    {
        var size = PaperSize.Named(name)!;
        size.Width.ShouldBe(width / 25.4 * 72, 1e-9);
        size.Height.ShouldBe(height / 25.4 * 72, 1e-9);
        // The standard's principle: each is the one before, halved across its length, to whole millimetres.
        if (PaperSize.Named($"{name[0]}{name[1] - '0' - 1}") is { } before) Math.Floor(before.Height / Units.PointsPerMillimetre / 2 + 1e-9).ShouldBe(width, 1);
    }

    [Theory]
    [InlineData("Letter", 612, 792)]
    [InlineData("Legal", 612, 1008)]
    [InlineData("Tabloid", 792, 1224)]
    public void The_North_American_sizes_are_whole_points(string name, double width, double height) =>
        PaperSize.Named(name).ShouldBe(new PaperSize(name, width, height));

    [Fact]
    public void Inside_and_outside_margins_change_sides_with_the_page()
    {
        A4().TypeArea(recto: true).X.ShouldBe(60);
        A4().TypeArea(recto: false).X.ShouldBe(30);
        A4(facing: false).TypeArea(recto: false).X.ShouldBe(60);
    }

    [Fact]
    public void Columns_fill_the_type_area_with_gutters_between()
    {
        var columns = A4().ColumnBoxes(Spread.At(Publication.Create(A4(), 1), 0).Pages[0]).ToList();
        columns.Count.ShouldBe(3);
        columns[1].X.ShouldBe(columns[0].Right + 12, 1e-9);
        columns[2].Right.ShouldBe(A4().TypeArea(true).Right, 1e-9);
    }

    [Fact]
    public void Impossible_set_ups_are_refused_with_the_field_and_a_remedy()
    {
        Errors(A4() with { Margins = new(0, 0, 400, 300) }).ShouldBe(["margins.inside"]);
        Errors(A4() with { Margins = new(500, 500, 0, 0) }).ShouldBe(["margins.top"]);
        Errors(A4() with { Columns = new(0, 0) }).ShouldBe(["columns.count"]);
        Errors(A4() with { Columns = new(40, 60) }).ShouldBe(["columns.gutter"]);
        Errors(A4() with { PageWidth = Units.Millimetres(10_000_000) }).ShouldBe(["page.width"]);
        Errors(A4() with { PageHeight = double.NaN }).ShouldBe(["page.height"]);
        Errors(A4() with { Bleed = -1 }).ShouldBe(["bleed"]);
        Errors(A4() with { Bleed = double.PositiveInfinity }).ShouldBe(["bleed"]);
        Errors(A4() with { Name = " " }).ShouldBe(["name"]);
        Errors(A4() with { Name = new string('x', 201), AssumedPpi = 0 }).ShouldBe(["name", "assumedPpi"]);
        Errors(A4()).ShouldBeEmpty();
    }

    private static string[] Errors(Setup setup)
    {
        var errors = new FieldErrors();
        setup.Check(errors);
        errors.ToImmutable().ShouldAllBe(e => e.Message.Length > 20);
        return [.. errors.ToImmutable().Select(e => e.Field)];
    }
}
