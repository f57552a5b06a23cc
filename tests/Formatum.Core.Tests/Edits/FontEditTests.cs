using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Tests.Edits;

/// <summary>Fonts that a publication brings itself, and what names them.</summary>
public sealed class FontEditTests
{
    private static OwnFont Font(string family, bool bold = false, char hash = 'a') => new()
    {
        Id = 0,
        Family = family,
        Bold = bold,
        Name = $"{family}.ttf",
        Format = "ttf",
        ContentHash = new(hash, 64),
        Bytes = 1000,
    };

    private static Publication Do(Publication p, Edit edit) => p.With(edit.On(p));

    private static Publication Blank() => Publication.Create(new Setup { Name = "Fonts", PageWidth = 400, PageHeight = 400 }, 1);

    private static Publication Typed(Publication p, string family) => Do(p, new MakeFrame
    {
        Page = 1,
        Box = new(10, 10, 200, 100),
        Text = new([new Paragraph().Of([new("Jugs "), new("fired") { Set = new() { Family = family } }])]),
    });

    [Fact]
    public void A_family_takes_the_nearest_face_it_has()
    {
        var p = Do(Blank(), new AddFonts([Font("Slip"), Font("Slip", bold: true, 'b')]));
        p.FilesOf("Slip").ShouldBe(new(new('a', 64), new('b', 64), new('a', 64), new('b', 64)));
        p.FilesOf("Cabin").ShouldBeNull();
        p.FontFamilies.ShouldBe([.. TextStyle.Families, "Slip"]);
    }

    [Fact]
    public void The_same_font_comes_once_and_a_newer_one_takes_its_place()
    {
        var p = Do(Blank(), new AddFonts([Font("Slip")]));
        new AddFonts([Font("Slip")]).On(p).IsEmpty.ShouldBeTrue();
        var newer = Do(p, new AddFonts([Font("Slip", hash: 'c')]));
        newer.Fonts.Values.ShouldHaveSingleItem().ContentHash.ShouldBe(new('c', 64));
        newer.Fonts.Keys.ShouldBe(p.Fonts.Keys);
    }

    [Fact]
    public void A_shipped_family_keeps_its_name() => Do(Blank(), new AddFonts([Font("Cabin")])).Fonts.Values.Single().Family.ShouldBe("Cabin (own)");

    [Fact]
    public void Text_and_styles_name_only_what_is_there()
    {
        var p = Blank();
        Should.Throw<EditRefused>(() => Typed(p, "Slip")).Message.ShouldContain("add its font");
        Should.Throw<EditRefused>(() => Do(p, new DefineStyle { Name = "S", Settings = new() { Family = "Slip" } }));
        p = Typed(Do(p, new AddFonts([Font("Slip")])), "Slip");
        p = Do(p, new DefineStyle { Name = "S", Settings = new() { Family = "Slip" } });
        var styled = TextCascade.Styled(p, p.Stories.Values.Single().Text).Paragraphs[0].Runs;
        styled.Select(r => r.Style.Files is not null).ShouldBe([false, true]);
        TextCascade.StyleOf(p, p.Styles.Values.Single()).Files!.Regular.ShouldBe(new('a', 64));
        var use = FontUse.Of(p).Single(u => u.Family == "Slip");
        (use.Styles.Length, use.Stories.Length, use.IsGone).ShouldBe((1, 1, false));
    }

    [Theory]
    [InlineData(null)]
    [InlineData("Fraunces")]
    public void What_names_a_removed_family_takes_another_and_undo_brings_it_back(string? instead)
    {
        var p = Typed(Do(Blank(), new AddFonts([Font("Slip"), Font("Slip", bold: true, 'b')])), "Slip");
        p = Do(p, new DefineStyle { Name = "S", Settings = new() { Family = "Slip", Size = 9 } });
        // While a face is left, the family stays.
        var one = Do(p, new RemoveFonts([p.Fonts.Values.First(f => f.Bold).Id]));
        one.Stories.Values.Single().ShouldBe(p.Stories.Values.Single());
        var changes = new RemoveFonts([.. p.Fonts.Keys], instead).On(p);
        var gone = p.With(changes);
        gone.Fonts.ShouldBeEmpty();
        gone.Styles.Values.Single().Settings.ShouldBe(new TextSettings { Family = instead, Size = 9 });
        gone.Stories.Values.Single().Text.Paragraphs[0].Runs[^1].Set.Family.ShouldBe(instead);
        gone.With(changes.Inverse()).Parts.ShouldBe(p.Parts, ignoreOrder: true);
        Should.Throw<EditRefused>(() => new RemoveFonts([.. p.Fonts.Keys], "Slip").On(p));
        Should.Throw<NoSuchPart>(() => new RemoveFonts([999]).On(p));
    }

    [Fact]
    public void Words_can_be_typed_where_the_font_has_gone()
    {
        var p = Typed(Do(Blank(), new AddFonts([Font("Slip")])), "Slip");
        // As undoing the arrival of the font leaves it.
        p = p.With(new Changes([new(p.Fonts.Values.Single().Key, p.Fonts.Values.Single(), null)]));
        FontUse.Of(p).First().IsGone.ShouldBeTrue();
        Do(p, new WriteText(p.Frames.Keys.Single(), "Jugs fired twice")).Stories.Values.Single().Text.Plain.ShouldBe("Jugs fired twice");
    }

    [Fact]
    public void Frames_pasted_elsewhere_bring_their_fonts_along()
    {
        var from = Typed(Do(Blank(), new AddFonts([Font("Slip")])), "Slip");
        var to = Do(Blank(), new PasteFrames(from, [.. from.Frames.Keys], 0, null));
        to.Fonts.Values.ShouldHaveSingleItem().Family.ShouldBe("Slip");
        to.FilesOf("Slip").ShouldNotBeNull();
        // Once is enough.
        Do(to, new PasteFrames(from, [.. from.Frames.Keys], 0, null)).Fonts.Count.ShouldBe(1);
        EditionMaker.Make(from, "Next", "2", new(true, true)).Fonts.ShouldBe(from.Fonts);
    }

    [Fact]
    public void Impossible_fonts_are_refused()
    {
        foreach (var bad in new[] { Font(""), Font(new('x', 101)), Font("Slip", hash: 'z'), Font("Slip") with { Format = "exe" },
            Font("Slip") with { Bytes = 0 },
            Font("Slip") with { Name = "../x" }, Font("a\u0001b") })
            Should.Throw<EditRefused>(() => new AddFonts([bad]).On(Blank()));
    }
}
