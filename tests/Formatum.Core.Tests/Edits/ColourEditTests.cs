using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Tests.Edits;

/// <summary>The palette, and everything that uses a colour of it.</summary>
public sealed class ColourEditTests
{
    private static readonly Colour Moss = new CmykColour(0.58, 0, 0.29, 0.56), Plum = new CmykColour(0, 0.52, 0.14, 0.52);

    private static Publication Do(Publication p, Edit edit) => p.With(edit.On(p));

    private static int Id(Publication p, string name) => p.Colours.Values.Single(c => c.Name == name).Id;

    /// <summary>A style, a run, a border, a background and a shadow in one colour, and frames that have nothing to do with it.</summary>
    private static Publication Used()
    {
        var p = Publication.Create(new Setup { Name = "Colours", PageWidth = 400, PageHeight = 400 }, 1);
        p = Do(p, new DefineColour { Name = "Moss", Colour = Moss });
        var moss = new NamedColour(Id(p, "Moss"));
        p = Do(p, new DefineStyle { Name = "Lead", Settings = new() { Colour = moss } });
        foreach (var (name, look, text) in new (string, Look, Paragraph[]?)[]
        {
            ("bordered", new() { Border = new(2, moss) }, null), ("backed", new() { Background = moss }, null),
            ("shadowed", new() { Shadow = Shadow.Usual with { Colour = moss } }, null), ("plain", new() { Background = Plum }, null),
            ("styled", Look.Plain, [new Paragraph("Led", p.Styles.Keys.Single())]),
            ("set", Look.Plain, [new Paragraph().Of([new("Jugs "), new("green") { Set = new() { Colour = moss } }])]), ("words", Look.Plain,
                [new Paragraph("Jug", (int?)null)]),
        })
            p = Do(p, new MakeFrame { Page = 1, Box = new(10, 10, 100, 50), Name = name, Look = look, Text = text is null ? null : new([.. text]) });
        return p;
    }

    private static readonly string[] Users = ["backed", "bordered", "set", "shadowed", "styled"];

    /// <summary>The colours that a frame shows.</summary>
    private static Colour[] Shown(Publication p, string name)
    {
        var frame = p.Frames.Values.Single(f => f.Name == name);
        return [.. frame.Look.Recoloured(p.FiguresOf).AllColours(), .. p.StoryOf(frame) is { } story ? TextCascade.Styled(p, story.Text)
            .Paragraphs.SelectMany(t => t.Runs)
            .Select(r => p.FiguresOf(r.Style.Colour)) : []];
    }

    [Fact]
    public void A_new_publication_has_ink_black_paper_and_four_inks()
    {
        var palette = Publication.Create(new Setup { Name = "C", PageWidth = 400, PageHeight = 400 }, 3).Colours.Values.ToDictionary(c => c.Name, c =>
            c.Colour);
        palette["Black"].ShouldBe(new CmykColour(0, 0, 0, 1));
        palette["Paper"].Hex.ShouldBe("#ffffff");
        palette.Keys.ShouldBe(["Black", "Paper", "Cyan", "Magenta", "Yellow", "Grey"], ignoreOrder: true);
    }

    [Fact]
    public void Changed_once_all_that_use_it_follow_and_nothing_else()
    {
        var p = Used();
        ColourUse.Of(p, Id(p, "Moss")).Frames.Select(f => f.Name).ShouldBe(Users, ignoreOrder: true);
        ColourUse.Of(p, Id(p, "Moss")).Styles.Single().Name.ShouldBe("Lead");
        ColourUse.Of(p, Id(p, "Cyan")).IsUsed.ShouldBeFalse();
        ColourUse.Ids(p).ShouldBe([Id(p, "Moss")]);
        var changes = new DefineColour { ColourId = Id(p, "Moss"), Name = "Celadon", Colour = Plum, IsSpot = true }.On(p);
        // One part, however much follows.
        changes.Items.Length.ShouldBe(1);
        var after = p.With(changes);
        foreach (string name in Users)
        {
            Shown(p, name).ShouldContain(Moss);
            Shown(after, name).ShouldContain(new SpotColour("Celadon", Plum));
            Shown(after, name).ShouldNotContain(Moss);
        }
        foreach (string name in new[] { "plain", "words" }) Shown(after, name).ShouldBe(Shown(p, name));
        after.With(changes.Inverse()).Parts.ShouldBe(p.Parts, ignoreOrder: true);
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void Removed_it_is_replaced_or_everything_stays_as_it_looks(bool instead)
    {
        var p = Used();
        int moss = Id(p, "Moss"), cyan = Id(p, "Cyan");
        var changes = new RemoveColours([moss], instead ? new NamedColour(cyan) : null).On(p);
        var after = p.With(changes);
        after.Colours.ShouldNotContainKey(moss);
        ColourUse.Ids(after).ShouldBe(instead ? [cyan] : []);
        foreach (string name in Users)
            Shown(after, name).ShouldBe(Shown(p, name).Select(c => c == Moss && instead ? new CmykColour(1, 0, 0, 0) : c));
        after.With(changes.Inverse()).Parts.ShouldBe(p.Parts, ignoreOrder: true);
        Should.Throw<EditRefused>(() => new RemoveColours([moss], new NamedColour(moss)).On(p));
        Should.Throw<NoSuchPart>(() => new RemoveColours([999]).On(p));
    }

    [Fact]
    public void A_palette_taken_in_changes_namesakes_and_a_whole_one_lets_the_rest_go()
    {
        var p = Used();
        PaletteColour[] taken = [new() { Id = 1, Name = "moss", Colour = Plum }, new() { Id = 1, Name = "New", Colour = new GreyColour(0.2) }];
        var added = Do(p, new TakePalette([.. taken]));
        added.Colours.Count.ShouldBe(p.Colours.Count + 1);
        Shown(added, "backed").ShouldBe([Plum]);
        var whole = Do(p, new TakePalette([taken[1]], Whole: true));
        whole.Colours.Values.ShouldHaveSingleItem().Name.ShouldBe("New");
        foreach (string name in Users) Shown(whole, name).ShouldBe(Shown(p, name));
        Should.Throw<EditRefused>(() => new TakePalette([taken[0], taken[0]]).On(p)).Message.ShouldContain("Two of the colours");
        Should.Throw<EditRefused>(() => new TakePalette([.. Enumerable.Range(0, 1001).Select(i => taken[1] with { Name = $"C{i}" })]).On(p))
            .Message.ShouldContain("1,000");
    }

    [Fact]
    public void Impossible_colours_are_refused_and_change_nothing()
    {
        var p = Used();
        void Refused(DefineColour edit, string field) => Should.Throw<EditRefused>(() => edit.On(p)).Errors[0].Field.ShouldBe(field);
        Refused(new() { Name = " ", Colour = Moss }, "name");
        Refused(new() { Name = "#abc", Colour = Moss }, "name");
        Refused(new() { Name = new('x', 101), Colour = Moss }, "name");
        Refused(new() { Name = "MOSS", Colour = Moss }, "name");
        Refused(new() { Name = "Other", Colour = new NamedColour(Id(p, "Moss")) }, "colour");
        Refused(new() { Name = "Other", Colour = new CmykColour(0, 0, -0.1, 0) }, "colour");
        Refused(new() { Name = "Other", Colour = new CmykColour(0, 0, double.NaN, 0) }, "colour");
        Refused(new() { Name = "Other", Colour = Colour.Of("#112233"), IsSpot = true }, "spot");
        Refused(new() { ColourId = 999, Name = "Other", Colour = Moss }, "colour");
    }

    [Fact]
    public void What_names_a_colour_that_has_gone_can_still_be_worked_on()
    {
        var p = Used();
        int moss = Id(p, "Moss");
        // As undoing its making leaves it.
        p = p.With(new Changes([new(new(PartKind.Colour, moss), p.Colours[moss], null)]));
        Shown(p, "backed").ShouldBe([Colour.Black]);
        var frame = p.Frames.Values.Single(f => f.Name == "backed");
        Do(p, new ChangeLook([frame.Id], new() { Opacity = 0.5 })).Frames[frame.Id].Look.Opacity.ShouldBe(0.5);
        var set = p.Frames.Values.Single(f => f.Name == "set");
        Do(p, new WriteText(set.Id, "Jugs greener")).StoryOf(p.Frames[set.Id])!.Text.Plain.ShouldBe("Jugs greener");
    }

    [Fact]
    public void Frames_pasted_elsewhere_bring_their_colours_along()
    {
        var from = Used();
        var to = Publication.Create(new Setup { Name = "To", PageWidth = 400, PageHeight = 400 }, 1);
        to = Do(to, new PasteFrames(from, [.. from.Frames.Keys], 0, null));
        Shown(to, "backed").ShouldBe([Moss]);
        Shown(to, "set").ShouldBe(Shown(from, "set"));
        Shown(to, "styled").ShouldBe(Shown(from, "styled"));
        to.Colours.Values.Count(c => c.Name == "Moss").ShouldBe(1);
        // Where there is one of its name, that is meant.
        var other = Do(Publication.Create(new Setup { Name = "To", PageWidth = 400, PageHeight = 400 }, 1), new DefineColour { Name = "Moss", Colour = Plum });
        Shown(Do(other, new PasteFrames(from, [.. from.Frames.Keys], 0, null)), "backed").ShouldBe([Plum]);
        Shown(EditionMaker.Make(from, "Next", "2", new(true, true)), "backed").ShouldBe([Moss]);
    }

    /// <summary>A plate that is there already, or stands for every one, is no ink of its own (ISO 32000-1, 8.6.6.4).</summary>
    [Theory]
    [InlineData("All")]
    [InlineData("none")]
    [InlineData("Black")]
    [InlineData(" Cyan ")]
    public void A_spot_colour_has_no_name_of_another_plate(string name)
    {
        var p = Publication.Create(Publications.SetupTests.A4(), 1);
        var spot = new DefineColour { Name = name, Colour = new CmykColour(0, 0.5, 1, 0), IsSpot = true };
        Should.Throw<EditRefused>(() => spot.On(p)).Errors.ShouldContain(e => e.Field == "name" && e.Message.Contains("plate", StringComparison.Ordinal));
        Do(p, spot with { Name = name.Trim() + " of ours" }).Colours.Values.ShouldContain(c => c.IsSpot);
    }
}
