using Formatum.Core.Arranging;
using Formatum.Core.Checks;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Tests.Publications;

public class FoldingTests
{
    private static Setup Sheet(Folding? folding, double width = 297, double margin = 5) => new()
    {
        Name = "Leaflet",
        PageWidth = Units.Millimetres(width),
        PageHeight = Units.Millimetres(210),
        Margins = new(Units.Millimetres(margin), Units.Millimetres(margin), Units.Millimetres(margin), Units.Millimetres(margin)),
        Folding = folding,
    };

    private static double[] Millimetres(IEnumerable<Box> panels) => [.. panels.Select(p => Math.Round(p.Width / Units.PointsPerMillimetre, 6))];

    private static PlacedPage Page(Setup setup, int number) => Spread.At(Publication.Create(setup, 2), number - 1).Pages[0];

    /// <summary>A4 on its side as a letter fold: 100, 100 and 97 mm, as templates of printers have it (common practice, from memory).</summary>
    [Fact]
    public void A_letter_fold_has_its_narrow_panel_where_it_folds_in()
    {
        var setup = Sheet(new() { Narrower = Units.Millimetres(3) });
        Millimetres(setup.PanelsOf(Page(setup, 2))).ShouldBe([100, 100, 97]);
        // Turned over, the flap lies on the left.
        Millimetres(setup.PanelsOf(Page(setup, 1))).ShouldBe([97, 100, 100]);
        var fromRight = setup with { BindsRight = true };
        Millimetres(fromRight.PanelsOf(Page(fromRight, 2))).ShouldBe([97, 100, 100]);
    }

    /// <summary>A US letter sheet, 11 in: with 1/16 in the panels are 3 11/16, 3 11/16 and 3 5/8 in (common practice, from memory).</summary>
    [Fact]
    public void A_letter_sheet_folds_by_sixteenths_of_an_inch()
    {
        var folding = new Folding { Narrower = 72 / 16.0 };
        folding.Widths(11 * 72).Select(w => w / 72).ShouldBe([3.6875, 3.6875, 3.625], 1e-9);
    }

    /// <summary>By arithmetic: two flaps and a gap are the middle; all together are the sheet.</summary>
    [Theory]
    [InlineData(FoldKind.Half, 3, 2, new[] { 148.5, 148.5 })]
    [InlineData(FoldKind.Accordion, 4, 2, new[] { 74.25, 74.25, 74.25, 74.25 })]
    [InlineData(FoldKind.Gate, 3, 2, new[] { 73.75, 149.5, 73.75 })]
    [InlineData(FoldKind.Roll, 4, 2, new[] { 75.75, 75.75, 73.75, 71.75 })]
    public void Panels_add_up_to_the_sheet(FoldKind kind, int panels, double narrower, double[] widths)
    {
        var setup = Sheet(new() { Kind = kind, Panels = panels, Narrower = Units.Millimetres(narrower) });
        Millimetres(setup.PanelsOf(Page(setup, 2))).ShouldBe(widths, 1e-6);
        widths.Sum().ShouldBe(297, 1e-9);
    }

    [Fact]
    public void Each_panel_has_margins_and_columns_and_is_caught_on()
    {
        var setup = Sheet(new() { Narrower = Units.Millimetres(3) }) with { Columns = new(2, Units.Millimetres(4)) };
        var page = Page(setup, 2);
        setup.TypeAreas(page).Select(a => (Math.Round(a.X / Units.PointsPerMillimetre, 6), Math.Round(a.Width / Units.PointsPerMillimetre, 6)))
            .ShouldBe([(5, 90), (105, 90), (205, 87)]);
        setup.ColumnBoxes(page).Count().ShouldBe(6);
        var publication = Publication.Create(setup, 2);
        var snapping = new Snapping(publication, Spread.At(publication, 1), new HashSet<int>());
        double fold = Units.Millimetres(100);
        var caught = snapping.Moved(new(fold + 2, 50, 30, 30), 4);
        caught.Box.X.ShouldBe(fold, 1e-9);
        caught.Words.ShouldBe("fold");
    }

    [Theory]
    [InlineData(9, 2, 5, "folding.panels")]
    [InlineData(3, 30, 5, "folding.narrower")]
    [InlineData(8, 10, 1, "folding.panels")]
    [InlineData(3, 2, 60, "margins.inside")]
    public void What_cannot_be_folded_is_told_by_its_field(int panels, double narrower, double margin, string field)
    {
        var errors = new FieldErrors();
        Sheet(new() { Panels = panels, Narrower = Units.Millimetres(narrower) }, margin: margin).Check(errors);
        errors.ToImmutable().ShouldContain(e => e.Field == field);
    }

    [Fact]
    public void Facing_pages_are_not_folded()
    {
        var errors = new FieldErrors();
        (Sheet(new()) with { Facing = true }).Check(errors);
        errors.ToImmutable().Single().Field.ShouldBe("folding");
    }
}
