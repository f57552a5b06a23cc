using System.Collections.Immutable;
using CsCheck;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Tests.Typesetting;

/// <summary>Every character half as wide as it is high.</summary>
internal sealed class HalfWide : ITypefaces
{
    public (double Ascent, double Descent) ReachOf(TextStyle style) => (0.8 * style.Size, 0.2 * style.Size);

    public FaceMeasures MeasuresOf(TextStyle style)
    {
        double size = style.Position == TextPosition.Normal ? style.Size : style.Size / 2;
        return new(size, style.Shift + (style.Position == TextPosition.Superscript ? style.Size / 2 : 0), 0.1 * size, 0.3 * size, 0.05 * size, 0.7 * size);
    }

    public bool Has(TextStyle style, int codePoint) => codePoint != '?';

    public ImmutableArray<Glyph> Shape(string text, TextStyle style, bool rightToLeft = false)
    {
        var glyphs = text.Select((c, i) => new Glyph(c == '?' ? (ushort)0 : (ushort)1, i, style.Size / 2, 0, 0));
        return [.. rightToLeft ? glyphs.Reverse() : glyphs];
    }
}

public sealed class TextSetterTests
{
    private static readonly TextStyle Ten = new() { Size = 10, Leading = 12 };

    private static FrameText Text(TextStyle style, params string[] paragraphs) => new([.. paragraphs.Select(p => new Paragraph(p, style))]);

    private static SetText Set(FrameText text, double width, double height = 1000) => TextSetter.Set(StyledText.Of(text), width, height, new HalfWide());

    private static string[] Lines(SetText set) => [.. set.Lines.Select(l => l.Text)];

    [Fact]
    public void As_many_words_go_on_a_line_as_fit_and_the_blank_hangs_over()
    {
        Lines(Set(Text(Ten, "one two three"), 35)).ShouldBe(["one two", "three"]);
        Lines(Set(Text(Ten, "one two three"), 34.9)).ShouldBe(["one", "two", "three"]);
        Lines(Set(Text(Ten, "well-known"), 30)).ShouldBe(["well-", "known"]);
    }

    [Fact]
    public void A_word_wider_than_the_line_is_broken_within()
    {
        Lines(Set(Text(Ten, "abcdefg hi"), 20)).ShouldBe(["abcd", "efg", "hi"]);
        Lines(Set(Text(Ten, "abc"), 1)).ShouldBe(["a", "b", "c"]);
    }

    [Fact]
    public void A_soft_hyphen_shows_where_a_line_ends_with_it() =>
        Lines(Set(Text(Ten, "stone\u00adware"), 32)).ShouldBe(["stone-", "ware"]);

    [Fact]
    public void A_line_ends_where_it_is_told_to_and_empty_paragraphs_take_room()
    {
        var set = Set(Text(Ten, "a\u2028b", "", "c"), 100);
        Lines(set).ShouldBe(["a", "b", "", "c"]);
        set.Lines[3].Baseline.ShouldBe(3 * 12 + 9, 1e-9);
    }

    /// <summary>The leading's excess over the face's reach lies half above it: CSS Inline Layout 3, 5.1. (12 - 10) / 2 + 8 = 9.</summary>
    [Fact]
    public void Baselines_stand_a_leading_apart_and_space_goes_below()
    {
        var set = Set(Text(Ten with { SpaceAfter = 5 }, "aa aa", "b"), 10);
        set.Lines.Select(l => l.Baseline).ShouldBe([9, 21, 38], 1e-9);
    }

    [Theory]
    [InlineData(TextAlignment.Left, 0)]
    [InlineData(TextAlignment.Centre, 35)]
    [InlineData(TextAlignment.Right, 70)]
    public void Lines_stand_where_their_alignment_says(TextAlignment alignment, double x) =>
        Set(Text(Ten with { Alignment = alignment }, "abcdef"), 100).Lines[0].X.ShouldBe(x, 1e-9);

    [Fact]
    public void Justified_lines_fill_the_width_but_for_the_last()
    {
        var set = Set(Text(Ten with { Alignment = TextAlignment.Justified }, "one two three four"), 44);
        Lines(set).ShouldBe(["one two", "three", "four"]);
        set.Lines[0].Width.ShouldBe(44, 1e-9);
        set.Lines[0].Blank.ShouldBe(9, 1e-9);
        set.Lines[2].Width.ShouldBe(20, 1e-9);
    }

    [Fact]
    public void What_does_not_fit_is_counted_and_nothing_after_it_is_shown()
    {
        var set = Set(Text(Ten, "one two three"), 20, 24);
        Lines(set).ShouldBe(["one", "two"]);
        set.LeftOut.ShouldBe(5);
        set.Overflows.ShouldBeTrue();
        Set(Text(Ten, "a?b"), 100).Missing.ShouldBe(1);
        Set(Text(Ten, "one", ""), 20, 12).Overflows.ShouldBeFalse();
    }

    private static readonly Gen<string> Words = Gen.String[Gen.Char["ab -\u00ad\u20283,."], 0, 60];

    [Fact]
    public void Lines_hold_all_that_was_typed_in_order_and_none_is_too_wide() => Gen.Select(Words, Gen.Double[6, 120]).Sample((words, width) =>
    {
        var set = Set(Text(Ten, words), width, 1e6);
        string Bare(string text) => new([.. text.Where(c => c is not (' ' or '\u2028' or '\u00ad' or '-'))]);
        string.Concat(set.Lines.Select(l => Bare(l.Text))).ShouldBe(Bare(words));
        foreach (var line in set.Lines) line.Glyphs.Sum(g => g.Advance).ShouldBeLessThanOrEqualTo(width + 0.01);
    });

    [Fact]
    public void Paragraphs_keep_their_styles_when_others_are_typed()
    {
        var big = Ten with { Size = 24 };
        var text = new FrameText([new("Heading", big), new("body", Ten), new("price", Ten with { Bold = true })]);
        var typed = text.Worded("Heading\nbody\nmore body\nprice");
        typed.Paragraphs.Select(p => p.Set).ShouldBe([big.Unusual, Ten.Unusual, Ten.Unusual, (Ten with { Bold = true }).Unusual]);
        text.Worded("Other heading\nbody\nprice").Paragraphs[0].Set.ShouldBe(big.Unusual);
        text.Worded("Heading\nprice").Paragraphs.Select(p => p.Set).ShouldBe([big.Unusual, (Ten with { Bold = true }).Unusual]);
        text.Worded("").Paragraphs.ShouldBe([new Paragraph("", big)]);
        text.Worded("a\tb\r\nc\u0007").Plain.ShouldBe("a\tb\nc");
    }

    [Fact]
    public void Text_is_made_typed_styled_and_checked()
    {
        var p = Publication.Create(new Setup { Name = "T", PageWidth = 500, PageHeight = 500 }, 1);
        p = Do(p, new MakeFrame { Page = 1, Box = new(0, 0, 100, 100), Text = FrameText.Empty(Ten) });
        var frame = p.Frames.Values.Single();
        frame.IsPlaceholder.ShouldBeFalse();
        p = Do(p, new WriteText(frame.Id, "A\nB"));
        p = Do(p, new StyleText([frame.Id], SettingsChange.Setting(new() { Bold = true }), new(2, 2)));
        p.StoryOf(p.Frames[frame.Id])!.Text.Paragraphs.Select(x => x.Set.Bold).ShouldBe([null, true]);
        Should.Throw<EditRefused>(() => Do(p, new StyleText([frame.Id], SettingsChange.Setting(new() { Size = 0 })))).Message.ShouldContain("1 to 1000");
        Should.Throw<EditRefused>(() => Do(p, new StyleText([frame.Id], SettingsChange.Setting(new() { Family = "Nowhere" }))))
            .Message.ShouldContain("no font family");
        Should.Throw<EditRefused>(() => Do(p, new StyleText([frame.Id], SettingsChange.Setting(new() { Colour = new GreyColour(2) }))))
            .Message.ShouldContain("0 to 1");
        Should.Throw<EditRefused>(() => Do(p, new WriteText(frame.Id, new string('a', FrameText.LongestText + 1)))).Message.ShouldContain("at most");
    }

    private static Publication Do(Publication publication, Edit edit) => publication.With(edit.On(publication));
}
