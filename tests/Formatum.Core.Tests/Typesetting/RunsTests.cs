using CsCheck;
using Formatum.Core.Colours;
using Formatum.Core.Geometry;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Tests.Typesetting;

/// <summary>Characters of a line set in several ways, tabs, lists, initials, and what keeps together. Every character is half as wide as it is high.</summary>
public sealed class RunsTests
{
    private static readonly TextStyle Ten = new() { Size = 10, Leading = 12 };

    private static Paragraph Runs(TextStyle style, params (string Text, TextSettings Set)[] runs) => new Paragraph("", style)
        .Of(runs.Select(r => new Run(r.Text) { Set = r.Set }));

    private static SetText Set(double width, params Paragraph[] paragraphs) =>
        TextSetter.Set(StyledText.Of(new([.. paragraphs])), width, 1000, new HalfWide());

    private static TextSettings Sized(double size) => new() { Size = size };

    [Fact]
    public void Characters_of_several_sizes_stand_behind_one_another_and_break_as_one_text()
    {
        var set = Set(60, Runs(Ten, ("old ", TextSettings.Open), ("big", Sized(20)), (" price", TextSettings.Open)));
        set.Lines.Select(l => l.Text).ShouldBe(["old big", "price"]);
        set.Lines[0].Runs.Select(r => (r.Text, r.X)).ShouldBe([("old ", 0), ("big", 20)]);
        set.Lines[0].Width.ShouldBe(50, 1e-9);
    }

    /// <summary>A line is as high as the highest of what stands in it: CSS Inline Layout 3, 5.3. 20 pt type that follows its size has 24 pt; 20 * 0.8 = 16 and
    /// 20 * 0.2 = 4 lie about its baseline with 2 more on each side; 12 pt about 10 pt type has 9 above.</summary>
    [Fact]
    public void A_line_is_as_high_as_the_highest_in_it_and_raised_characters_take_no_more_room()
    {
        var set = Set(60, Runs(Ten, ("old ", TextSettings.Open), ("big", Sized(20) with { Leading = 0 }), (" price", TextSettings.Open)));
        set.Lines.Select(l => l.Baseline).ShouldBe([18, 24 + 9], 1e-9);
        var raised = Set(60, Runs(Ten, ("x", TextSettings.Open), ("2", new() { Position = TextPosition.Superscript })));
        raised.Lines[0].Baseline.ShouldBe(9, 1e-9);
        (raised.Lines[0].Runs[1].Size, raised.Lines[0].Runs[1].Raise).ShouldBe((5, 5));
        Set(60, Runs(Ten, ("x", new() { Shift = 3 }))).Lines[0].Runs[0].Raise.ShouldBe(3);
    }

    [Fact]
    public void Strokes_go_under_and_through_the_characters_that_have_them()
    {
        var line = Set(200, Runs(Ten, ("now ", TextSettings.Open), ("12", new() { StrikeThrough = true, Colour = Colour.Of("#7a3b69") }), (" 9",
            new() { Underline = true })))
            .Lines[0];
        line.Strokes.ShouldBe([new(20, 10, -3, 0.5, Colour.Of("#7a3b69")), new(30, 10, 1, 0.5, Colour.Of("#000000"))]);
    }

    [Fact]
    public void Capitals_show_as_such_and_the_words_stay_as_typed()
    {
        var line = Set(200, Runs(Ten, ("stone", new() { Case = TextCase.Capitals }), ("ware", TextSettings.Open))).Lines[0];
        line.Runs.Select(r => r.Text).ShouldBe(["STONE", "ware"]);
        line.Text.ShouldBe("stoneware");
    }

    private static Paragraph Tabbed(string text, params TabStop[] stops) => new(text, Ten with { Tabs = new([.. stops]) });

    [Fact]
    public void Tabs_bring_words_to_their_stops()
    {
        double[] At(SetText set) => [.. set.Lines[0].Runs.Select(r => r.X)];
        At(Set(300, Tabbed("a\tb", new TabStop(50)))).ShouldBe([0, 50]);
        At(Set(300, Tabbed("a\tbc", new TabStop(50, TabAlignment.Right)))).ShouldBe([0, 40]);
        At(Set(300, Tabbed("a\tbc", new TabStop(50, TabAlignment.Centre)))).ShouldBe([0, 45]);
        At(Set(300, Tabbed("a\t12.50", new TabStop(50, TabAlignment.Decimal)))).ShouldBe([0, 40]);
        At(Set(300, Tabbed("a\t125", new TabStop(50, TabAlignment.Decimal)))).ShouldBe([0, 35]);
        At(Set(300, Tabbed("a\tb\tc"))).ShouldBe([0, TabStops.UsualDistance, 2 * TabStops.UsualDistance]);
        // What is too long for its stop begins where it would have begun.
        At(Set(300, Tabbed("abcdef\tghijkl", new TabStop(40, TabAlignment.Right)))).ShouldBe([0, 30]);
        Set(60, Tabbed("a\tbc de", new TabStop(40))).Lines.Select(l => l.Text).ShouldBe(["a\tbc", "de"]);
    }

    [Fact]
    public void A_leader_fills_the_room_before_its_stop_and_stands_alike_on_every_line()
    {
        var set = Set(300, Tabbed("Mug\t9", new TabStop(100, TabAlignment.Right, ".")), Tabbed("Teapot\t39", new TabStop(100, TabAlignment.Right, ".")));
        foreach (var line in set.Lines)
        {
            var leader = line.Runs[1];
            leader.Text.Distinct().ShouldBe(['.']);
            leader.X.ShouldBeGreaterThan(line.Runs[0].X + line.Runs[0].Width);
            (leader.X + leader.Width).ShouldBeLessThan(line.Runs[2].X);
            leader.Width.ShouldBeGreaterThan(50);
        }
    }

    [Fact]
    public void Lists_are_marked_and_counted()
    {
        var item = Ten with { List = ListKind.Number, IndentLeft = 20, Indent = -20 };
        var set = Set(80, new("one two three four", item), new("b", item), new("plain", Ten), new("c", item), new("d", Ten with { List = ListKind.Bullet }));
        set.Lines.Where(l => l.Runs.Length > 1).Select(l => l.Runs[0].Text).ShouldBe(["1.", "2.", "1.", StyledText.Bullet]);
        set.Lines[0].Runs.Select(r => r.X).ShouldBe([0, 20], 1e-9);
        set.Lines[1].X.ShouldBe(20, 1e-9);
        // Without room to hang, the words begin behind the mark.
        set.Lines[^1].Runs.Select(r => r.X).ShouldBe([0, 10], 1e-9);
    }

    [Fact]
    public void An_initial_reaches_over_its_lines_and_the_words_stand_beside_it()
    {
        var set = Set(100, new("Once upon a time there was a kiln that nobody had fired for years", Ten with { InitialLines = 2 }), new("next", Ten));
        var initial = set.Lines[0].Runs[0];
        initial.Text.ShouldBe("O");
        // Its top stands at the height of the capitals beside it: 0.7 of 10 above the first baseline; its foot on the second.
        (0.7 * initial.Size - 12).ShouldBe(7, 1e-9);
        initial.Raise.ShouldBe(-12);
        set.Lines.Take(3).Select(l => l.X > 10).ShouldBe([true, true, false]);
        string.Concat(set.Lines.Select(l => l.Text.Replace(" ", "", StringComparison.Ordinal))).ShouldStartWith("nceuponatime");
        // A paragraph of one line leaves the second of its initial free.
        var one = Set(300, new("Once", Ten with { InitialLines = 2 }), new("next", Ten));
        (one.Lines[1].Baseline - one.Lines[0].Baseline).ShouldBe(24, 1e-9);
    }

    [Fact]
    public void Lines_go_above_and_below_a_paragraph_over_all_it_has_of_its_column()
    {
        var set = Set(100, new Paragraph("one two three four five six seven", Ten with { LineAbove = 1, LineBelow = 2, IndentLeft = 10, IndentRight = 20 }));
        set.Lines[0].Strokes.ShouldBe([new(10, 70, 0.5 - 9, 1, Colour.Of("#000000"))]);
        set.Lines[^1].Strokes.ShouldBe([new(10, 70, 3 - 1, 2, Colour.Of("#000000"))]);
        set.Lines.ShouldAllBe(l => l.X >= 10 && l.X + l.Width <= 80 + 1e-9);
    }

    private static int[] ColumnsOf(double height, params Paragraph[] paragraphs) => [.. TextSetter.Set(StyledText.Of(new([.. paragraphs])),
        new TextShape(new() { Columns = 3, Gutter = 10 }, 320, height, Outline.Rectangle, []), new HalfWide()).Lines.Select(l => l.Column)];

    /// <summary>Of so many lines, each its own by hand.</summary>
    private static Paragraph Lines(int count, TextStyle style) => new(string.Join(FrameText.LineSeparator, Enumerable.Repeat("abc", count)), style);

    [Fact]
    public void Orphans_widows_and_what_keeps_together_stay_together()
    {
        ColumnsOf(48, Lines(3, Ten), Lines(4, Ten)).ShouldBe([0, 0, 0, 0, 1, 1, 1]);
        ColumnsOf(48, Lines(3, Ten), Lines(4, Ten with { Orphans = 2 })).ShouldBe([0, 0, 0, 1, 1, 1, 1]);
        ColumnsOf(48, Lines(1, Ten), Lines(4, Ten with { Widows = 2 })).ShouldBe([0, 0, 0, 1, 1]);
        ColumnsOf(48, Lines(2, Ten), Lines(3, Ten with { Orphans = 2, Widows = 2 })).ShouldBe([0, 0, 1, 1, 1]);
        ColumnsOf(48, Lines(2, Ten), Lines(4, Ten with { KeepTogether = true })).ShouldBe([0, 0, 1, 1, 1, 1]);
        // What is longer than a column is divided all the same.
        ColumnsOf(48, Lines(6, Ten with { KeepTogether = true })).ShouldBe([0, 0, 0, 0, 1, 1]);
    }

    [Fact]
    public void A_heading_goes_on_with_what_it_heads()
    {
        var heading = Ten with { KeepWithNext = true };
        ColumnsOf(48, Lines(3, Ten), Lines(1, heading), Lines(3, Ten)).ShouldBe([0, 0, 0, 1, 1, 1, 1]);
        ColumnsOf(48, Lines(2, Ten), Lines(1, heading), Lines(1, heading), Lines(3, Ten with { KeepTogether = true })).ShouldBe([0, 0, 1, 1, 2, 2, 2]);
        ColumnsOf(48, Lines(1, Ten), Lines(2, Ten with { BreakBefore = BreakBefore.Column })).ShouldBe([0, 1, 1]);
    }

    [Fact]
    public void A_text_that_goes_on_in_a_new_frame_does_so()
    {
        var shape = TextShape.Box(100, 100);
        var set = TextSetter.Set(StyledText.Of(new([Lines(1, Ten), Lines(1, Ten with { BreakBefore = BreakBefore.Frame })])), [shape, shape], new HalfWide());
        set.Select(f => f.Lines.Length).ShouldBe([1, 1]);
    }

    private static readonly Gen<Paragraph> Any = Gen.Select(Gen.String[Gen.Char["ab -\t\u2028."], 0, 40], Gen.Int[0, 3], Gen.Int[1, 3], Gen.Int[1, 3], Gen.Bool,
        Gen.Int[0, 2], Gen.Int[1, 3]).Select((text, alignment, orphans, widows, keep, list, initial) => new Paragraph(text, Ten with
        {
            Alignment = (TextAlignment)alignment,
            Orphans = orphans,
            Widows = widows,
            KeepWithNext = keep,
            List = (ListKind)list,
            InitialLines = initial,
        }));

    [Fact]
    public void No_character_is_lost_or_set_twice_whatever_keeps_together() => Gen.Select(Any.Array[1, 8], Gen.Double[12, 80], Gen.Double[12, 200])
        .Sample((paragraphs, width, height) =>
    {
        var shape = new TextShape(new() { Columns = 2, Gutter = 5 }, 2 * width + 5, height, Outline.Rectangle, []);
        var set = TextSetter.Set(StyledText.Of(new([.. paragraphs])), [shape, shape], new HalfWide());
        string Bare(string text) => new([.. text.Where(c => c is 'a' or 'b' or '.')]);
        string shown = string.Concat(set.SelectMany(f => f.Lines).SelectMany(l => l.Runs).Where(r => r.Text is not ("1." or "2." or "3." or "4." or "5." or "6."
            or "7." or "8.")).Select(r => Bare(r.Text)));
        string all = string.Concat(paragraphs.Select(p => Bare(p.Text)));
        // What is set is the text from its beginning on; no more of it can be missing than is told.
        all.ShouldStartWith(shown);
        (all.Length - shown.Length).ShouldBeLessThanOrEqualTo(set[^1].LeftOut);
        if (set[^1].LeftOut == 0) shown.ShouldBe(all);
    });

    private static readonly int Rounds = 300 * (int.TryParse(Environment.GetEnvironmentVariable("FORMATUM_FUZZ"), out int times) ? times : 1);

    /// <summary>While a text is typed, what was worked out for its other paragraphs serves again: it comes to the same as setting all of it anew.</summary>
    [Fact]
    public void Set_again_after_a_change_a_text_is_as_it_would_be_set_anew()
    {
        var typefaces = new HalfWide();
        TextShape[] shapes = [new(new() { Columns = 2, Gutter = 5 }, 125, 90, Outline.Rectangle, []), TextShape.Box(70, 300)];
        Gen.Select(Any.Array[1, 8], Gen.Select(Gen.Int[0, 200], Gen.Int[0, 9], Gen.String[Gen.Char["ab \n\t-"], 0, 5]).Array[1, 12]).Sample((paragraphs,
            steps) =>
        {
            var text = new FrameText([.. paragraphs]);
            foreach (var (at, length, words) in steps)
            {
                text = text.Replaced(new(Math.Min(at, text.Plain.Length), Math.Min(at + length, text.Plain.Length)), words);
                var again = TextSetter.Set(StyledText.Of(text), [.. shapes], typefaces, key: 7);
                var anew = TextSetter.Set(StyledText.Of(text), [.. shapes], new HalfWide());
                again.Select(Told).ShouldBe(anew.Select(Told));
            }
        }, iter: Rounds / 3);
    }

    private static string Told(SetText set) => $"{set.LeftOut} {set.WordsLeftOver}\n" + string.Join('\n', set.Lines.Select(Told));

    private static string Told(SetLine line)
    {
        string runs = string.Join('|', line.Runs.Select(r => FormattableString.Invariant($"{r.Text}@{r.X}")));
        return FormattableString.Invariant($"{line.Paragraph} {line.Start}-{line.End} {line.X} {line.Baseline} {line.Width} {line.Column} {runs}");
    }
}
