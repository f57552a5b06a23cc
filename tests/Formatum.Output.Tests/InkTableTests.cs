using Formatum.Core.Colours;
using Formatum.Core.Publications;
using Formatum.Imaging;

namespace Formatum.Output.Tests;

/// <summary>Inks show on the screen as Little CMS says that they print, by the profile of the press.</summary>
public sealed class InkTableTests
{
    private static readonly PressConversion General = new(ColourProfile.GeneralPress);

    /// <summary>What is shipped is what the built-in profile says: it is written anew where that changes.</summary>
    [Fact]
    public void The_table_of_four_inks_in_general_is_that_of_the_built_in_profile()
    {
        var ofProfile = InkTable.Of(General.Table());
        foreach (var inks in InkTable.Grid())
            InkTable.General.Shown(inks.Cyan, inks.Magenta, inks.Yellow, inks.Key).ShouldBe(ofProfile.Shown(inks.Cyan, inks.Magenta, inks.Yellow, inks.Key));
        InkTable.Grid().Count().ShouldBe(InkTable.Bytes / 3);
    }

    /// <summary>Between the mixtures of the table, in CIELAB (delta E 1976; 2.3 is just noticeable side by side: Mahy and
    /// others 1994).</summary>
    [Fact]
    public void Any_mixture_comes_near_to_what_the_profile_says()
    {
        var random = new Random(20_261_127);
        double[] apart = [.. Enumerable.Range(0, 1000).Select(i =>
        {
            var inks = new CmykColour(random.NextDouble(), random.NextDouble(), random.NextDouble(), i % 2 == 0 ? 0 : random.NextDouble());
            return Lab.Of(General.OnScreen(inks)).DistanceTo(Lab.Of(InkTable.General.Shown(inks.Cyan, inks.Magenta, inks.Yellow, inks.Key)));
        }).Order()];
        apart.Average().ShouldBeLessThan(1.3);
        apart[950].ShouldBeLessThan(3.5);
        // Without a profile they would be told apart at once: the check can fail.
        Lab.Of(General.OnScreen(new(1, 0, 0, 0))).DistanceTo(Lab.Of(new CmykColour(1, 0, 0, 0).Shown)).ShouldBeGreaterThan(30);
    }

    [Fact]
    public void A_publication_shows_inks_by_its_press_and_light_as_it_is()
    {
        var cyan = new CmykColour(1, 0, 0, 0);
        var p = Publication.Create(Workshop.A4(), 1);
        p.ColourOf(cyan).Shown.ShouldBe(General.OnScreen(cyan));
        p.ColourOf(new GreyColour(1)).Shown.ShouldBe(General.OnScreen(new(0, 0, 0, 1)));
        p.ColourOf(Colour.Of("#00ffff")).Shown.ShouldBe(Colour.Of("#00ffff"));
        p.FiguresOf(cyan).ShouldBe(cyan);
        // A press whose inks are all grey.
        byte[] greys = [.. InkTable.Grid().Select(c => (byte)(255 - 200 * new[] { c.Cyan, c.Magenta, c.Yellow, c.Key }.Max()))
            .SelectMany(grey => new[] { grey, grey, grey })];
        var press = new PressProfile(new string('a', 64), "Grey") { Table = Convert.ToBase64String(greys) };
        press.IsPossible.ShouldBeTrue();
        (press with { Table = "AAAA" }).IsPossible.ShouldBeFalse();
        Workshop.Do(p, new Core.Edits.ChoosePress(press)).ColourOf(new CmykColour(0.5, 0, 0, 0)).Shown.ShouldBe(new RgbColour(155, 155, 155));
    }
}
