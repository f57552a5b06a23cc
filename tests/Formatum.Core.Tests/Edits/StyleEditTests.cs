using CsCheck;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Settings;
using Formatum.Core.Stories;

namespace Formatum.Core.Tests.Edits;

/// <summary>Text in runs, and named styles: where a value comes from, changed once for all, removed without a trace.</summary>
public sealed class StyleEditTests
{
    private static Publication Do(Publication p, Edit edit) => p.With(edit.On(p));

    private static (Publication, int Frame) Begin(params Paragraph[] paragraphs)
    {
        var p = Publication.Create(new Setup { Name = "T", PageWidth = 500, PageHeight = 500 }, 1);
        p = Do(p, new MakeFrame { Page = 1, Box = new(0, 0, 300, 300), Text = new([.. paragraphs]) });
        return (p, p.Frames.Values.Single().Id);
    }

    private static (Publication, int Id) Styled(Publication p, string name, TextSettings settings, int? basedOn = null, StyleKind kind = StyleKind.Paragraph,
        bool? isDefault = null)
    {
        p = Do(p, new DefineStyle { Name = name, Settings = settings, BasedOnId = basedOn, Kind = kind, Default = isDefault });
        return (p, p.Styles.Values.Single(s => s.Name == name).Id);
    }

    private static FrameText TextOf(Publication p, int frame) => p.StoryOf(p.Frames[frame])!.Text;

    /// <summary>How each character is set, and each paragraph.</summary>
    private static TextSettings[] OfEach(Publication p, int frame) => [.. TextCascade.Styled(p, TextOf(p, frame)).Paragraphs.SelectMany(x =>
        x.Runs.SelectMany(r => Enumerable.Repeat(r.Style.Unusual, r.Length)).Prepend(x.Style.Unusual))];

    private static TextStyle[] Set(Publication p, int frame) => [.. TextCascade.Styled(p, TextOf(p, frame)).Paragraphs.SelectMany(x => x.Runs).Select(r =>
        r.Style)];

    [Fact]
    public void Settings_come_from_the_default_the_chain_the_paragraph_the_characters_style_and_the_characters_in_that_order()
    {
        var (p, frame) = Begin(new Paragraph("Mug 12", (int?)null));
        (p, int start) = Styled(p, "Start", new() { Size = 9, Family = "Spectral", Colour = Colour.Of("#111111"), Leading = 11, Tracking = 1 },
            isDefault: true);
        (p, int body) = Styled(p, "Body", new() { Size = 10, Colour = Colour.Of("#222222") });
        (p, int price) = Styled(p, "Price list", new() { Colour = Colour.Of("#333333") }, body);
        (p, int old) = Styled(p, "Old price", new() { StrikeThrough = true, Tracking = 5 }, kind: StyleKind.Character);
        p = Do(p, new PutStyle([frame], price, StyleKind.Paragraph));
        p = Do(p, new PutStyle([frame], old, StyleKind.Character, new(4, 6)));
        p = Do(p, new StyleText([frame], SettingsChange.Setting(new() { Bold = true, Alignment = TextAlignment.Right }), new(4, 6)));
        var set = Set(p, frame);
        set.Length.ShouldBe(2);
        set[0].ShouldBe(new TextStyle
        {
            Family = "Spectral",
            Size = 10,
            Colour = Colour.Of("#333333"),
            Leading = 11,
            Tracking = 1,
            Alignment = TextAlignment.Right
        });
        set[1].ShouldBe(set[0] with { StrikeThrough = true, Tracking = 5, Bold = true });
        var paragraph = TextOf(p, frame).Paragraphs[0];
        TextSource From(string name, int run = 0) => TextCascade.SourceOf(p, paragraph, paragraph.Runs[run], TextSettings.All.Single(s => s.Name == name));
        From("Size").Style!.Id.ShouldBe(body);
        From("Family").Style!.Id.ShouldBe(start);
        From("Alignment").SetHere.ShouldBeTrue();
        From("Shift").ShouldBe(default);
        From("Tracking").Style!.Id.ShouldBe(start);
        From("Tracking", 1).Style!.Id.ShouldBe(old);
        (From("Bold", 1).SetHere, From("Bold").SetHere).ShouldBe((true, false));
        TextCascade.Sources(p, paragraph, paragraph.Runs[1]).Select(s => s.Id).ShouldBe([old, price, body, start]);
        TextCascade.Followers(p, body).Count().ShouldBe(1);
        TextCascade.Followers(p, old).Count().ShouldBe(1);
    }

    [Fact]
    public void A_style_is_made_from_text_which_lets_go_of_what_the_style_says_now()
    {
        var (p, frame) = Begin(new Paragraph("Mug", new TextStyle { Size = 24, Bold = true }), new Paragraph("of stoneware", new TextStyle { Size = 9 }));
        p = Do(p, new DefineStyle { Name = "Heading", Settings = new() { Size = 24 }, Like = (frame, new(0, 3)) });
        var heading = p.Styles.Values.Single();
        TextOf(p, frame).Paragraphs.Select(x => x.StyleId).ShouldBe([heading.Id, null]);
        TextOf(p, frame).Paragraphs[0].Set.ShouldBe(new TextSettings { Bold = true });
        p = Do(p, new DefineStyle { StyleId = heading.Id, Name = "Heading", Settings = new() { Size = 30 } });
        Set(p, frame).Select(s => s.Size).ShouldBe([30, 9]);
    }

    [Fact]
    public void What_cannot_be_a_style_is_refused_and_changes_nothing()
    {
        var (p, frame) = Begin(new Paragraph("Mug", (int?)null));
        (p, int body) = Styled(p, "Body", new());
        (p, int price) = Styled(p, "Price", new(), body);
        (p, int old) = Styled(p, "Old", new(), kind: StyleKind.Character);
        string Refused(Edit edit) => Should.Throw<EditRefused>(() => edit.On(p)).Message;
        Refused(new DefineStyle { Name = "body" }).ShouldContain("already");
        Refused(new DefineStyle { Name = " " }).ShouldContain("needs a name");
        Refused(new DefineStyle { StyleId = body, Name = "Body", BasedOnId = price }).ShouldContain("based on this one");
        Refused(new DefineStyle { Name = "X", BasedOnId = old }).ShouldContain("of its kind");
        Refused(new DefineStyle { Name = "X", Kind = StyleKind.Character, Settings = new() { Alignment = TextAlignment.Right } })
            .ShouldContain("whole paragraphs");
        Refused(new DefineStyle { Name = "X", Settings = new() { Size = 0.5 } }).ShouldContain("1 to 1000");
        Refused(new PutStyle([frame], old, StyleKind.Paragraph)).ShouldContain("other kind");
        Refused(new PutStyle([frame], 999, StyleKind.Paragraph)).ShouldContain("no style 999");
        Refused(new RemoveStyle(body, price)).ShouldContain("based on itself");
        Refused(new RemoveStyle(body, old)).ShouldContain("do not stand in for each other");
        Refused(new MakeStory([frame], new([new Paragraph("x", 999)]))).ShouldNotBeEmpty();
        Refused(new DefineStyle { Name = "X", Settings = new() { Tabs = new([.. Enumerable.Range(1, 101).Select(i => new TabStop(i))]) } })
            .ShouldContain("100");
    }

    private static readonly Gen<TextSettings> Settings = Gen.Select(Gen.Int[8, 12], Gen.Int[0, 3], Gen.Bool, Gen.Int[0, 7]).Select((size, alignment, bold,
        which) =>
        new TextSettings
        {
            Size = (which & 1) != 0 ? size : null,
            Alignment = (which & 2) != 0 ? (TextAlignment)alignment : null,
            Bold = (which & 4) != 0 ? bold : null,
        });

    [Fact]
    public void Removed_as_it_looks_everything_is_set_as_it_was() => Gen.Select(Settings, Settings, Settings, Settings, Gen.Int[0, 3]).Sample((a, b, c, own,
        which) =>
    {
        var (p, frame) = Begin(new Paragraph("one", (int?)null), new Paragraph("two", (int?)null), new Paragraph("three", (int?)null));
        (p, int root) = Styled(p, "A", a, isDefault: which % 2 == 0);
        (p, int child) = Styled(p, "B", b, root);
        (p, int chars) = Styled(p, "C", c.Only(TextSettings.OfCharacters), kind: StyleKind.Character);
        p = Do(p, new PutStyle([frame], root, StyleKind.Paragraph, new(0, 2)));
        p = Do(p, new PutStyle([frame], child, StyleKind.Paragraph, new(5, 6)));
        p = Do(p, new PutStyle([frame], chars, StyleKind.Character, new(1, 10)));
        p = Do(p, new StyleText([frame], SettingsChange.Setting(own), new(2, 9)));
        var before = OfEach(p, frame);
        foreach (var (id, instead) in new[] { (root, (int?)null), (root, child), (child, root), (child, null), (chars, null) })
        {
            if (id == root && instead == child) continue;
            var after = Do(p, new RemoveStyle(id, instead, AsItLooks: true));
            after.Styles.ShouldNotContainKey(id);
            OfEach(after, frame).ShouldBe(before);
        }
    }, iter: 300);

    private static readonly Gen<(int, int, string, int)> Steps = Gen.Select(Gen.Int[0, 60], Gen.Int[0, 12], Gen.String[Gen.Char["ab \n\t\ud83c"], 0, 6],
        Gen.Int[0, 5]);

    /// <summary>Typing, deleting and styling in any order: the words are those of plain text that went through the same.</summary>
    [Fact]
    public void No_character_is_lost_or_set_twice_over_any_sequence_of_changes() => Steps.Array[1, 25].Sample(steps =>
    {
        var text = new FrameText([new Paragraph("one two", new TextStyle { Size = 9 }), new Paragraph("three", TextStyle.Usual)]);
        string plain = text.Plain;
        foreach (var (at, length, words, what) in steps)
        {
            int from = Math.Min(at, plain.Length), to = Math.Min(from + length, plain.Length);
            if (what == 0) text = text.Changed(SettingsChange.Setting(new() { Bold = true, Alignment = TextAlignment.Right }), new(from, to));
            else if (what == 1) text = text.InCharacterStyle(7, new(from, to), clear: false);
            else if (what == 2) text = text.Worded(plain = plain[..from] + FrameText.Clean(words) + plain[to..]);
            else
            {
                text = text.Replaced(new(from, to), words);
                plain = plain[..from] + FrameText.Clean(words) + plain[to..];
            }
            text.Plain.ShouldBe(plain);
            var errors = new FieldErrors();
            text.Check(errors);
            errors.ThrowIfAny();
            foreach (var p in text.Paragraphs)
                for (int i = 1; i < p.Runs.Length; i++) p.Runs[i].IsLike(p.Runs[i - 1]).ShouldBeFalse();
        }
    }, iter: 2000);

    [Fact]
    public void What_is_typed_takes_the_style_of_the_character_before_it_and_a_divided_paragraph_keeps_its_own()
    {
        var text = new FrameText([new Paragraph("price 12", new TextStyle { Size = 9 })]).Changed(SettingsChange.Setting(new() { Bold = true }), new(6, 8));
        text.Replaced(new(8, 8), "50").Paragraphs[0].Runs.Select(r => r.Text).ShouldBe(["price ", "1250"]);
        text.Replaced(new(6, 6), "now ").Paragraphs[0].Runs.Select(r => r.Text).ShouldBe(["price now ", "12"]);
        var divided = text.Replaced(new(6, 6), "\n");
        divided.Paragraphs.Select(p => p.Set.Size).ShouldBe([9, 9]);
        divided.Paragraphs[1].Runs[^1].Set.Bold.ShouldBe(true);
        // All of a paragraph deleted with its line end leaves the next as it was.
        var two = new FrameText([new Paragraph("gone", new TextStyle { Size = 30 }), new Paragraph("stays", new TextStyle { Size = 9 })]);
        two.Replaced(new(0, 5), "").Paragraphs.ShouldBe([two.Paragraphs[1]]);
    }

    [Fact]
    public void Frames_pasted_into_another_publication_bring_their_styles_along()
    {
        var (source, frame) = Begin(new Paragraph("Mug", (int?)null));
        (source, int root) = Styled(source, "Root", new() { Family = "Spectral" });
        (source, int body) = Styled(source, "Body", new() { Size = 14 }, root);
        source = Do(source, new PutStyle([frame], body, StyleKind.Paragraph));
        var target = Publication.Create(new Setup { Name = "Other", PageWidth = 500, PageHeight = 500 }, 1);
        target = Do(target, new PasteFrames(source, [frame], 0, null));
        target.Styles.Values.Single().Name.ShouldBe("Body");
        Set(target, target.Frames.Keys.Single()).Single().ShouldBe(new TextStyle { Family = "Spectral", Size = 14 });
        // One of the name that is there is taken as it is.
        target = Do(target, new PasteFrames(source, [frame], 0, null));
        target.Styles.Count.ShouldBe(1);
    }

    [Fact]
    public void Words_typed_into_one_paragraph_find_it_where_others_changed_the_text_before_it()
    {
        var (p, frame) = Begin(new Paragraph("one", (int?)null), new Paragraph("two", (int?)null), new Paragraph("two", (int?)null));
        var typed = new TypeText(frame, new(5, 7), "en", "two", 4);
        Publication Changed(string plain) => Do(p, new WriteText(frame, plain));
        TextOf(Do(p, typed), frame).Plain.ShouldBe("one\nten\ntwo");
        TextOf(Do(Changed("zero\none\nmore\ntwo\ntwo"), typed), frame).Plain.ShouldBe("zero\none\nmore\nten\ntwo");
        var story = p.StoryOf(p.Frames[frame])!.Key;
        typed.Merges(p, story).ShouldBeTrue();
        typed.RestsOn(p).ShouldBeEmpty();
        var other = Changed("one\nthree\nfour");
        typed.RestsOn(other).ShouldBe([story]);
        typed.Merges(other, story).ShouldBeFalse();
        Should.Throw<EditRefused>(() => typed.On(other)).Message.ShouldContain("changed meanwhile");
        foreach (var range in new TextRange[] { new(3, 5), new(6, 5), new(5, 8), new(-1, 5) })
            Should.Throw<EditRefused>(() => new TypeText(frame, range, "x", "two", 4).On(p));
    }

    [Fact]
    public void What_is_found_is_replaced_in_the_style_it_stands_in()
    {
        var (p, frame) = Begin(new Paragraph("", TextStyle.Usual).Of([new("aaa an"), new("An") { Set = new() { Bold = true } }, new(" a")]),
            new Paragraph("An", (int?)null));
        int[] At(WordSearch search) => [.. search.In(TextOf(p, frame)).Select(r => r.From)];
        At(new("an")).ShouldBe([4, 6, 11]);
        At(new("an", MatchCase: true)).ShouldBe([4]);
        At(new("aa")).ShouldBe([0]);
        At(new("a", WholeWords: true)).ShouldBe([9]);
        At(new("an", StyleId: 99)).ShouldBeEmpty();
        var replaced = TextOf(Do(p, new ReplaceWords(new("an"), "the")), frame);
        replaced.Plain.ShouldBe("aaa thethe a\nthe");
        replaced.Paragraphs[0].Runs.Select(r => (r.Text, r.Set.Bold)).ShouldBe([("aaa the", null), ("the", true), (" a", null)]);
        TextOf(Do(p, new ReplaceWords(new("aaa "), "", frame)), frame).Plain.ShouldStartWith("an");
        Should.Throw<EditRefused>(() => new ReplaceWords(new("zzz"), "x").On(p)).Message.ShouldContain("stands nowhere");
        Should.Throw<EditRefused>(() => new ReplaceWords(new(""), "x").On(p));
    }

    private static readonly TextSettings Bold = new() { Bold = true }, Italic = new() { Italic = true };

    private static string Marked(FrameText text) => string.Join('\n', text.Paragraphs.Select(p => $"{(p.StyleId is { } id ? $"<{id}>" : "")}" +
        string.Concat(p.Runs.Select(r => r.Set.Bold == true ? $"*{r.Text}*" : r.Set.Italic == true ? $"_{r.Text}_" : r.Text))));

    private static FrameText Mixed() => new([new Paragraph { Runs = [new("one "), new("two") { Set = Bold }, new(" three")] },
        new Paragraph { Runs = [new("four") { Set = Italic }, new(" five")] }]);

    [Fact]
    public void Words_are_cut_out_and_pasted_as_they_are_set()
    {
        Marked(new(Mixed().Slice(new(2, 9)))).ShouldBe("e *two* t");
        Marked(new(Mixed().Slice(new(6, 17)))).ShouldBe("*o* three\n_fou_");
        Marked(Mixed().Pasted(new(4, 7), Mixed().Slice(new(14, 18)))).ShouldBe("one _four_ three\n_four_ five");
        Marked(Mixed().Pasted(new(0, 0), Mixed().Slice(new(6, 17)))).ShouldBe("*o* three\n_fou_one *two* three\n_four_ five");
        Marked(Mixed().Pasted(new(3, 16), [new Paragraph("x", 7), new Paragraph("y", 8), new Paragraph("z", 9)])).ShouldBe("onex\n<8>y\n<9>z_ur_ five");
        Marked(FrameText.Empty(TextStyle.Usual).Pasted(new(0, 0), [new Paragraph("x", 7), new Paragraph("y", 8)])).ShouldBe("<7>x\n<8>y");
    }

    [Fact]
    public void What_is_pasted_back_where_it_was_cut_changes_nothing() => Gen.Select(Gen.Int[0, 23], Gen.Int[0, 23]).Sample((a, b) =>
    {
        var range = new TextRange(Math.Min(a, b), Math.Max(a, b));
        var text = Mixed();
        text.Pasted(range, text.Slice(range)).ShouldBe(text);
        new FrameText(text.Slice(range)).Plain.ShouldBe(text.Plain[range.From..Math.Min(range.To, text.Plain.Length)]);
    }, iter: 300);

    [Fact]
    public void What_is_typed_with_a_setting_switched_alone_has_it_and_unknown_styles_are_left_off()
    {
        var (p, frame) = Begin([.. Mixed().Paragraphs]);
        p = Do(p, new TypeText(frame, new(4, 4), "a", "one two three", 0, new() { Bold = true, Alignment = TextAlignment.Right }));
        Marked(TextOf(p, frame)).ShouldBe("one *atwo* three\n_four_ five");
        p = Do(p, new TypeText(frame, new(15, 15), "four", "four five", 15, new() { Italic = false }));
        TextOf(p, frame).Paragraphs[1].Runs[0].ShouldBe(new Run("four") { Set = new() { Italic = false } });
        p = Do(p, new PasteWords(frame, new(0, 0), [new Paragraph { StyleId = 999, Runs = [new("x", 998), new("y")] }]));
        TextOf(p, frame).Paragraphs[0].ShouldSatisfyAllConditions(q => q.StyleId.ShouldBeNull(), q => q.Text.ShouldStartWith("xyone"));
        Should.Throw<EditRefused>(() => Do(p, new PasteWords(frame, new(0, 0), [])));
    }

    [Fact]
    public void Words_are_found_by_the_style_of_their_characters_too()
    {
        var (p, frame) = Begin(new Paragraph("old 14 new 14 old 14", (int?)null));
        (p, int old) = Styled(p, "Old price", new() { StrikeThrough = true }, kind: StyleKind.Character);
        p = Do(p, new PutStyle([frame], old, StyleKind.Character, new(4, 6)));
        p = Do(p, new PutStyle([frame], old, StyleKind.Character, new(18, 19)));
        new WordSearch("14", StyleId: old).In(TextOf(p, frame)).ShouldBe([new(4, 6)], "of the last, only half is in it");
        p = Do(p, new ReplaceWords(new("14", StyleId: old), "12"));
        TextOf(p, frame).Plain.ShouldBe("old 12 new 14 old 14");
    }
}
