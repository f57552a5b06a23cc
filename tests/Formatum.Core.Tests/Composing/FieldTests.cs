using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Tests.Edits;
using Formatum.Core.Tests.Typesetting;

namespace Formatum.Core.Tests.Composing;

/// <summary>What a text says of other texts and pages.</summary>
public sealed class FieldTests
{
    private static readonly TextStyle Ten = new() { Size = 10, Leading = 12 };

    private static readonly HalfWide Fonts = new();

    private static Publication Begun(int pages = 6) => Publication.Create(new()
    {
        Name = "Fields",
        Edition = "Autumn",
        PageWidth = 300,
        PageHeight = 400,
        FirstFolio = 11,
        Margins = new(10, 10, 10, 10)
    }, pages);

    private static (Publication, int Id) Framed(Publication p, int page, double y, params Paragraph[] text) =>
        FramedIn(p, page, new(20, y, 200, 120), text);

    private static (Publication, int Id) FramedIn(Publication p, int page, Core.Geometry.Box box, params Paragraph[] text)
    {
        var after = p.Do(new MakeFrame { Page = page, Box = box, Text = text.Length == 0 ? FrameText.Empty(Ten) : new([.. text]) });
        return (after, after.Frames.Keys.Except(p.Frames.Keys).Single());
    }

    private static Paragraph Body(string text) => new(text, Ten);

    private static Paragraph Head(string text, int rank = 1) => Body(text) with { Set = Body(text).Set with { Heading = rank } };

    private static string Read(Publication p, int frame) =>
        string.Join('|', Composition.TextOf(p, p.Frames[frame], Fonts)!.Lines.Select(l => l.Text.Replace('\t', '>')));

    [Fact]
    public void A_list_of_contents_names_every_heading_with_its_page_and_keeps_in_step()
    {
        var (p, list) = Framed(Begun(), 1, 20, Head("Contents"), Body("{contents}"), Body("{contents 1}"));
        Read(p, list).ShouldBe("Contents|{contents}|{contents 1}", "there is nothing to list yet");
        (p, int clay) = Framed(p, 3, 20, Head("Clay"), Body("words"), Head("Wedging", 2), Body("words"));
        (p, _) = Framed(p, 2, 200, Head("Before all"), Body("words"));
        (p, _) = Framed(p, 2, 20, Head("First on its page"));
        Read(p, list).ShouldBe("Contents|First on its page>12|Before all>12|Clay>13|Wedging>13|First on its page>12|Before all>12|Clay>13");
        // The page is moved, a heading is typed anew, another loses its rank.
        p = p.Do(new MovePages([3], 6));
        p = p.Do(new WriteText(clay, "Earth\nwords\nWedging\nwords"));
        Read(p, list).ShouldBe("Contents|First on its page>12|Before all>12|Earth>15|Wedging>15|First on its page>12|Before all>12|Earth>15");
        Composition.TextOf(p, p.Frames[list], Fonts)!.Lines.Single(l => l.Text.StartsWith("Wedging", StringComparison.Ordinal)).X.ShouldBe(12, "set in");
        p.Do(new RemoveFrames([clay])).ShouldSatisfyAllConditions(q => Read(q, list).ShouldNotContain("Earth"));
    }

    [Fact]
    public void A_list_within_the_story_whose_headings_it_lists_counts_the_room_it_takes_itself()
    {
        // Ten lines fit in a frame; the list's own lines push the last headings to the next page.
        var (p, first) = Framed(Begun(), 1, 20, [Body("{contents}"), .. Enumerable.Range(1, 6).SelectMany(i => new[] { Head($"Part {i}"), Body("words") })]);
        (p, int second) = Framed(p, 2, 20);
        p = p.Do(new RunOn(first, second));
        Read(p, first).ShouldBe("Part 1>11|Part 2>11|Part 3>12|Part 4>12|Part 5>12|Part 6>12|Part 1|words|Part 2|words");
        Read(p, second).ShouldBe("Part 3|words|Part 4|words|Part 5|words|Part 6|words");
    }

    [Fact]
    public void A_style_named_after_that_of_the_list_sets_its_further_ranks()
    {
        var p = Begun().Do(new DefineStyle { Kind = StyleKind.Paragraph, Name = "List", Settings = new() { Size = 8 } });
        p = p.Do(new DefineStyle { Kind = StyleKind.Paragraph, Name = "list 2", Settings = new() { Size = 8, IndentLeft = 30 } });
        int style = p.Styles.Values.Single(s => s.Name == "List").Id;
        (p, int list) = Framed(p, 1, 20, new Paragraph("{contents}", style));
        (p, _) = Framed(p, 2, 20, Head("One"), Head("Two", 2));
        Composition.TextOf(p, p.Frames[list], Fonts)!.Lines.Select(l => l.X).ShouldBe([0, 30]);
    }

    [Fact]
    public void A_running_head_says_the_last_heading_up_to_its_page()
    {
        var p = Begun();
        (p, _) = Framed(p, 2, 20, Head("Clay"), Head("Wedging", 2), Head("Glaze"));
        (p, _) = Framed(p, 4, 20, Head("Fire"));
        int[] heads = new int[6];
        for (int page = 1; page <= 6; page++) (p, heads[page - 1]) = Framed(p, page, 300, Body("{heading}/{heading 2}"));
        heads.Select(h => Read(p, h)).ShouldBe(["/", "Glaze/Wedging", "Glaze/Wedging", "Fire/Wedging", "Fire/Wedging", "Fire/Wedging"]);
    }

    [Fact]
    public void Each_stretch_of_a_story_says_its_own_page()
    {
        var (p, a) = FramedIn(Begun(), 1, new(20, 20, 200, 24), Body("here {page}"), Body("of {pages}"), Body("there {page} {edition}"), Body("{publication}"));
        (p, int b) = FramedIn(p, 5, new(20, 20, 200, 24));
        p = p.Do(new RunOn(a, b));
        (Read(p, a), Read(p, b)).ShouldBe(("here 11|of 6", "there 15 Autumn|Fields"));
        // As it is typed, places in it are those of its words.
        Composition.AsTyped(p, p.StoryOf(p.Frames[a])!, Fonts)[1].Lines[0].Text.ShouldBe("there {page} {edition}");
    }

    [Fact]
    public void A_text_says_where_it_goes_on_and_where_it_came_from_or_the_nearest_beside_it_does()
    {
        var (p, a) = FramedIn(Begun(), 1, new(20, 20, 120, 24), Body("one"), Body("on page {next}"), Body("from page {before}"), Body("last"));
        (p, int b) = FramedIn(p, 4, new(20, 20, 120, 24));
        (p, int far) = FramedIn(p, 1, new(20, 300, 120, 24), Body("x"), Body("x"), Body("x"));
        (p, int end) = FramedIn(p, 6, new(20, 300, 120, 24));
        p = p.Do(new RunOn(a, b)).Do(new RunOn(far, end));
        (Read(p, a), Read(p, b)).ShouldBe(("one|on page 14", "from page 11|last"));
        (p, int near) = FramedIn(p, 1, new(20, 48, 120, 12), Body("see {next}"));
        (p, int below) = FramedIn(p, 1, new(20, 330, 120, 12), Body("see {next}"));
        (p, int there) = FramedIn(p, 4, new(20, 0, 120, 12), Body("see {before}"));
        (Read(p, near), Read(p, below), Read(p, there)).ShouldBe(("see 14", "see 16", "see 11"));
        (p, int alone) = Framed(p, 2, 20, Body("see {next}"));
        Read(p, alone).ShouldBe("see {next}", "there is none: it stays as it is written, to be seen");
    }

    [Fact]
    public void What_is_no_field_stays_as_it_is_typed()
    {
        var (p, frame) = Framed(Begun(), 1, 20, Body("{page 7} {pag} {{page}} {HEADING} {contents} here"));
        Read(p, frame).ShouldBe("{page 7} {pag} {11}  {contents} here");
    }
}
