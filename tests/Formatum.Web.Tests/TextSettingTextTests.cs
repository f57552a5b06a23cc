using CsCheck;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Web.Styles;
using Formatum.Web.Wording;

namespace Formatum.Web.Tests;

/// <summary>Settings of text as people read and type them.</summary>
public sealed class TextSettingTextTests
{
    private static readonly Publication Blank = Publication.Create(new Setup { Name = "T", PageWidth = 500, PageHeight = 500 }, 1);

    private static readonly Colour[] Colours = [Colour.Of("#2f6f4f"), new CmykColour(0, 0.8, 1, 0.125), new GreyColour(0.35), new NamedColour(3)];

    private static readonly Gen<TabStops> Tabs = Gen.Select(Gen.Double[0.2, 400], Gen.Int[0, 3], Gen.OneOfConst("", ".", " .", ". ;", "-")).Select((at,
        alignment, leader) =>
        new TabStop(at, (TabAlignment)alignment, leader)).Array[0, 5].Select(stops => new TabStops([.. stops.OrderBy(s => s.At)]));

    private static readonly Gen<TextSettings> Any = Gen.Select(Gen.Double[1, 99], Gen.Double[-9, 9], Gen.Bool, Gen.Int[0, 3], Tabs, Gen.Int[0, 127])
        .Select((size, some, yes,
        choice, tabs, which) => new TextSettings
        {
            Size = (which & 1) != 0 ? size : null,
            Indent = (which & 2) != 0 ? some : null,
            Bold = (which & 4) != 0 ? yes : null,
            Alignment = (which & 8) != 0 ? (TextAlignment)choice : null,
            Tabs = (which & 16) != 0 ? tabs : null,
            Leading = (which & 32) != 0 ? (yes ? 0 : size) : null,
            Family = (which & 64) != 0 ? TextStyle.Families[choice] : null,
            Colour = which % 5 == 0 ? Colours[choice] : null,
        });

    [Theory]
    [InlineData("#2F6F4F", "#2f6f4f")]
    [InlineData("C 0 M 80 Y 100 K 5", "C 0 M 80 Y 100 K 5")]
    [InlineData("cmyk 0 80 100 5", "C 0 M 80 Y 100 K 5")]
    [InlineData("0, 80, 12.5, 5", "C 0 M 80 Y 12.5 K 5")]
    [InlineData("gray 50", "grey 50 %")]
    [InlineData("magenta", "Magenta")]
    [InlineData("@3", "Black")]
    public void Colours_are_typed_as_people_write_them(string typed, string shown)
    {
        var errors = new FieldErrors();
        var colour = ColourText.Read(Blank, "colour", typed, errors);
        errors.ThrowIfAny();
        ColourText.Value(Blank, colour!).ShouldBe(shown);
    }

    [Theory]
    [InlineData("")]
    [InlineData("red-ish")]
    [InlineData("#12345g")]
    [InlineData("C 0 M 101 Y 0 K 0")]
    [InlineData("1 2 3")]
    [InlineData("@x")]
    [InlineData("grey 1000")]
    public void What_is_no_colour_is_told(string typed)
    {
        var errors = new FieldErrors();
        ColourText.Read(Blank, "colour", typed, errors).ShouldBeNull();
        errors.ToImmutable().Single().Message.ShouldContain("is no colour here");
    }

    [Fact]
    public void A_form_that_is_sent_back_untouched_changes_nothing() => Any.Sample(settings =>
    {
        var style = new NamedStyle { Id = 17, Kind = StyleKind.Paragraph, Name = "Body", Settings = settings };
        var publication = Publication.FromParts(18, [new Setup { Name = "T", PageWidth = 500, PageHeight = 500 }, new PageOrder([1]), new Page(1), style,
            .. PaletteColour.Usual(2)]);
        var errors = new FieldErrors();
        var edit = StyleForm.Of(publication, style, StyleKind.Paragraph).Read(publication, 17, errors);
        errors.ThrowIfAny();
        edit.Settings.ShouldBe(settings);
        edit.On(publication).IsEmpty.ShouldBeTrue();
    });

    [Fact]
    public void What_is_shown_is_read_as_what_it_was() => Any.Sample(settings =>
    {
        foreach (var setting in TextSettings.All.Where(s => s.IsSet(settings)))
        {
            var errors = new FieldErrors();
            string shown = TextSettingText.Value(setting, settings, Blank);
            if (shown.Length == 0) continue;
            var read = TextSettingText.Read(setting, shown, TextStyle.Usual, Blank, errors);
            errors.ThrowIfAny();
            TextSettingText.Value(setting, read, Blank).ShouldBe(shown);
        }
    });

    [Theory]
    [InlineData("40 right .; 25 mm", "40 right .|70.866")]
    [InlineData("2cm decimal", "56.693 decimal")]
    [InlineData("160 right \" .\"; 30", "30|160 right \" .\"")]
    public void Tab_stops_are_typed_as_people_write_them(string typed, string stops) =>
        TextSettingText.Value(TextSettings.All.Single(s => s.Name == "Tabs"), TextSettingText.Read(TextSettings.All.Single(s => s.Name == "Tabs"), typed,
            TextStyle.Usual, Blank, new()), Blank).ShouldBe(string.Join("; ", stops.Split('|').OrderBy(s => double.Parse(s.Split(' ')[0],
                System.Globalization.CultureInfo.InvariantCulture))));

    [Fact]
    public void What_is_no_tab_stop_is_told()
    {
        var errors = new FieldErrors();
        TextSettingText.Read(TextSettings.All.Single(s => s.Name == "Tabs"), "here right", TextStyle.Usual, Blank, errors);
        errors.ToImmutable().Single().Message.ShouldContain("is not a tab stop");
    }
}
