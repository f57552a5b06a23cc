using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Tests.Publications;

namespace Formatum.Core.Tests.Edits;

/// <summary>House style taken from one publication into another: what is the same, what differs, what comes along.</summary>
public class HouseStyleEditTests
{
    private static readonly Colour Moss = Colour.Of("#2f6f4f"), Plum = Colour.Of("#7a3b69");

    /// <summary>Rules, looks, styles and a colour, each based on another or naming one, and a master that uses them all.</summary>
    private static Publication House()
    {
        var p = Publication.Create(SetupTests.A4(), 2);
        p = p.Do(new DefineColour { Name = "Moss", Colour = Moss });
        var moss = new NamedColour(Id(p.Colours.Values, c => c.Name == "Moss"));
        p = p.Do(new DefineRule { Name = "Airy", Settings = new() { InsetTop = 6 } });
        p = p.Do(new DefineRule { Name = "Product", BasedOnId = Id(p.Rules.Values, r => r.Name == "Airy"), Settings = new() { Fit = FitKind.Fill } });
        p = p.Do(new DefineLook { Name = "Lined", Settings = new() { Border = new Border(2, moss) } });
        p = p.Do(new DefineLook { Name = "Faint", BasedOnId = Id(p.Looks.Values, _ => true), Settings = new() { Opacity = 0.4 } });
        p = p.Do(new DefineStyle { Name = "Body", Settings = new() { Size = 9, Colour = moss } });
        p = p.Do(new DefineStyle { Name = "Lead", BasedOnId = Id(p.Styles.Values, _ => true), Settings = new() { Size = 12 } });
        p = p.Do(new MakeMaster("Pair"));
        var master = p.Masters.Values.Single();
        int recto = p.NumberOf(master.RectoId);
        p = p.Do(new MakeFrame
        {
            Page = recto,
            Box = new(40, 800, 200, 20),
            Name = "folio",
            Text = new([new Paragraph("{page}", (int?)Id(p.Styles.Values, s => s.Name == "Lead"))]),
        });
        p = p.Do(new MakeFrame { Page = recto, Box = new(40, 40, 200, 100), Name = "large", RuleId = Id(p.Rules.Values, r => r.Name == "Product") });
        return p.Do(new PutLook([Id(p.Frames.Values, f => f.Name == "large")], Id(p.Looks.Values, l => l.Name == "Faint")));
    }

    private static int Id<T>(IEnumerable<T> parts, Func<T, bool> which) where T : Part => parts.Single(which).Key.Id;

    private static ImmutableArray<HousePart> Compare(Publication source, Publication here) => new HouseComparison(source, here).Parts();

    private static Publication Take(Publication here, Publication source, Namesake namesake, params string[] names) =>
        here.Do(new TakeHouseStyle(source, [.. Compare(source, here).Where(p => names.Contains(p.Name)).Select(p => new TakenPart(p.Part.Key, namesake))]));

    [Fact]
    public void All_of_it_taken_over_is_the_same_and_taken_again_changes_nothing()
    {
        var house = House();
        var here = Publication.Create(SetupTests.A4(), 4).Do(new DefineColour { Name = "Other", Colour = Plum });
        Compare(house, here).Where(p => p.IsNew).Select(p => p.Name).ShouldBe(["Airy", "Product", "Faint", "Lined", "Body", "Lead", "Moss", "Pair"]);
        var taken = here.Do(TakeHouseStyle.All(house));
        Compare(house, taken).ShouldAllBe(p => p.IsSame);
        TakeHouseStyle.All(house).On(taken).Items.ShouldBeEmpty();
        TakeHouseStyle.All(house).On(house).Items.ShouldBeEmpty();
        // What it names is named here too, by the ids of here.
        var frame = taken.Frames.Values.Single(f => f.Name == "large");
        taken.LookOf(frame).Recoloured(taken.ColourOf).ShouldBe(house.LookOf(house.Frames.Values.Single(f => f.Name == "large")).Recoloured(house.ColourOf));
        taken.FitOf(frame).Fit.ShouldBe(FitKind.Fill);
        var folio = taken.StoryOf(taken.Frames.Values.Single(f => f.Name == "folio"))!.Text;
        (folio.Plain, taken.Styles[folio.Paragraphs[0].StyleId!.Value].Name).ShouldBe(("{page}", "Lead"));
        taken.With(TakeHouseStyle.All(house).On(here).Inverse()).Rules.ShouldBeEmpty("undone, nothing of it is left");
    }

    [Fact]
    public void What_one_names_comes_along_and_what_is_here_by_that_name_stays()
    {
        var house = House();
        var here = Publication.Create(SetupTests.A4(), 1).Do(new DefineColour { Name = "MOSS", Colour = Plum });
        here = Take(here, house, Namesake.Kept, "Faint");
        here.Looks.Values.Select(l => l.Name).Order().ShouldBe(["Faint", "Lined"]);
        here.Rules.ShouldBeEmpty();
        var line = here.Looks.Values.Single(l => l.Name == "Lined").Settings.Border!.Value.Value!.Colour;
        here.ColourOf(line).Shown.ShouldBe(Plum.Shown, "the Moss of here");
        Compare(house, here).Where(p => !p.IsNew).Select(p => $"{p.Name}: {string.Join(", ", p.Differs)}").ShouldContain("Moss: Figures");
    }

    [Fact]
    public void A_namesake_is_used_replaced_or_stands_beside()
    {
        var house = House();
        var here = Publication.Create(SetupTests.A4(), 1).Do(new DefineRule
        {
            Name = "Product",
            Description = "ours",
            Settings = new() { Fit = FitKind.Natural }
        });
        here = here.Do(new MakeFrame { Page = 1, Box = new(0, 0, 100, 100), RuleId = here.Rules.Keys.Single() });
        var frame = here.Frames.Values.Single();
        Compare(house, here).Single(p => p.Name == "Product").Differs.ShouldBe(["What it is based on", "Description", "Fit"]);

        Take(here, house, Namesake.Kept, "Product").Rules.Values.ShouldBe(here.Rules.Values);
        var replaced = Take(here, house, Namesake.Replaced, "Product");
        replaced.FitOf(replaced.Frames[frame.Id]).ShouldBe(house.FitOf(house.Frames.Values.Single(f => f.Name == "large")));
        Compare(house, replaced).Single(p => p.Name == "Product").IsSame.ShouldBeTrue();
        var beside = Take(here, house, Namesake.Beside, "Product");
        beside.Rules.Values.Select(r => r.Name).Order().ShouldBe(["Airy", "Product", "Product 2"]);
        beside.FitOf(beside.Frames[frame.Id]).Fit.ShouldBe(FitKind.Natural);
        Take(beside, house, Namesake.Beside, "Product").Rules.Values.Select(r => r.Name).ShouldContain("Product 3");
    }

    [Fact]
    public void Pages_take_over_what_a_replaced_master_now_has()
    {
        var house = House();
        var here = Publication.Create(SetupTests.A4(), 2).Do(new MakeMaster("pair"));
        here = here.Do(new MakeFrame { Page = here.NumberOf(here.Masters.Values.Single().RectoId), Box = new(10, 10, 50, 50), Name = "small" })
            .Do(new BasePages([1], here.Masters.Keys.Single()));
        Compare(house, here).Single(p => p.Name == "Pair").Differs.ShouldBe(["Right-hand page"]);
        var replaced = Take(here, house, Namesake.Replaced, "Pair");
        replaced.Masters.Values.Single().Name.ShouldBe("pair");
        replaced.FramesOnPage(replaced.Order.Ids[0]).Select(f => (f.Box.X, f.Box.Width)).ShouldBe([(40, 200)]);
        replaced.Frames.Count.ShouldBe(3, "two on the master and one on the page");
        Compare(house, replaced).ShouldAllBe(p => p.IsNew || p.IsSame);
    }

    [Fact]
    public void What_would_be_based_on_itself_is_refused_and_nothing_changes()
    {
        var there = Publication.Create(SetupTests.A4(), 1).Do(new DefineRule { Name = "Top" });
        there = there.Do(new DefineRule { Name = "Under", BasedOnId = there.Rules.Keys.Single() });
        var here = Publication.Create(SetupTests.A4(), 1).Do(new DefineRule { Name = "Under" });
        here = here.Do(new DefineRule { Name = "Top", BasedOnId = here.Rules.Keys.Single() });
        Should.Throw<EditRefused>(() => Take(here, there, Namesake.Replaced, "Under")).Message.ShouldContain("based on itself");
        Compare(there, Take(here, there, Namesake.Replaced, "Under", "Top")).ShouldAllBe(p => p.IsNew || p.IsSame);
        Should.Throw<EditRefused>(() => new TakeHouseStyle(there, []).On(here)).Errors[0].Field.ShouldBe("parts");
        Should.Throw<EditRefused>(() => new TakeHouseStyle(there, [new(new(PartKind.Rule, 999), Namesake.Kept)]).On(here)).Message.ShouldContain("no longer");
        Should.Throw<EditRefused>(() => new TakeHouseStyle(there, [new(new(PartKind.Frame, 1), Namesake.Kept)]).On(here));
    }

    [Fact]
    public void No_more_are_brought_than_a_publication_may_have()
    {
        var there = Publication.Create(SetupTests.A4(), 1).Do(new DefineStyle { Name = "One more" });
        var here = Publication.Create(SetupTests.A4(), 1);
        for (int i = 0; i < NamedStyle.Most; i++) here = here.Do(new DefineStyle { Name = $"Style {i}" });
        Should.Throw<EditRefused>(() => Take(here, there, Namesake.Kept, "One more")).Message.ShouldContain("more than 500 styles");
    }

    [Fact]
    public void A_style_stands_beside_one_of_the_other_kind()
    {
        var there = Publication.Create(SetupTests.A4(), 1).Do(new DefineStyle { Name = "Price", Kind = StyleKind.Character, Settings = new() { Bold = true } });
        var here = Publication.Create(SetupTests.A4(), 1).Do(new DefineStyle { Name = "Price", Kind = StyleKind.Paragraph });
        Take(here, there, Namesake.Replaced, "Price").Styles.Values.Select(s => (s.Name, s.Kind)).OrderBy(s => s.Name)
            .ShouldBe([("Price", StyleKind.Paragraph), ("Price 2", StyleKind.Character)]);
    }
}
