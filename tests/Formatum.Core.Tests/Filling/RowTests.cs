using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Filling;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Tests.Edits;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Tests.Filling;

public sealed class RowTests
{
    private static Publication Do(Publication p, Edit edit) => p.With(edit.On(p));

    /// <summary>A page with two pictures, two names and a heading; pictures named pot-1 to pot-5.</summary>
    private static Publication Layout()
    {
        var p = Publication.Create(new Setup { Name = "T", PageWidth = 600, PageHeight = 800 }, 1);
        p = Do(p, new LinkImages([.. Enumerable.Range(1, 5).Select(i => EditTests.Image($"pot-{i}.jpg"))]));
        for (int i = 0; i < 2; i++)
        {
            p = Do(p, new MakeFrame { Page = 1, Box = new(10, 10 + 300 * i, 200, 200), Name = "Picture" });
            p = Do(p, new MakeFrame { Page = 1, Box = new(10, 220 + 300 * i, 200, 40), Name = "Piece", Text = FrameText.Empty(new TextStyle { Bold = true }) });
        }
        return Do(p, new MakeFrame { Page = 1, Box = new(300, 10, 200, 40), Name = "Heading", Text = new([new("Pots", TextStyle.Usual)]) });
    }

    private static Table Pots(params string[] rows) => new(["Picture", "Piece", "Note"], [.. rows.Select(r => r.Split('|').ToImmutableArray())]);

    private static PourRows Rows(Publication p, Table table, bool keep = true) => new()
    {
        Table = table,
        Targets = RowPlan.Guess(table, p.Frames.Values),
        FirstPage = 1,
        LastPage = 1,
        LayoutPages = keep ? [1] : []
    };

    private static string[] Read(Publication p, string name) =>
        [.. ReadingOrder.Of(p, p.Frames.Values.Where(f => f.Name == name)).Select(f => p.StoryOf(f)?.Text.Plain
            ?? (f.ImageId is { } id ? p.Images[id].Name : "-"))];

    [Fact]
    public void As_many_rows_go_on_a_page_as_it_has_frames_of_a_name_and_pages_are_added()
    {
        var p = Layout();
        var poured = Do(p, Rows(p, Pots("pot-3.jpg|Mug|x", "POT-1|Jug|x", "photos\\pot-2.jpg|Bowl|x", "pot-5.jpg|Cup|x", "pot-4.jpg|Jar|x")));
        poured.PageCount.ShouldBe(3);
        Read(poured, "Picture").ShouldBe(["pot-3.jpg", "pot-1.jpg", "pot-2.jpg", "pot-5.jpg", "pot-4.jpg", "-"]);
        Read(poured, "Piece").ShouldBe(["Mug", "Jug", "Bowl", "Cup", "Jar", ""]);
        Read(poured, "Heading").ShouldBe(["Pots", "Pots", "Pots"]);
        poured.Frames.Values.Where(f => f.Name == "Piece").ShouldAllBe(f => poured.StoryOf(f)!.Text.Paragraphs[0].Set.Bold == true);
        poured.With(Rows(p, Pots("pot-3.jpg|Mug|x")).On(p).Inverse()).Frames.Count.ShouldBe(poured.Frames.Count);
    }

    [Fact]
    public void What_is_not_there_or_empty_is_told_before_anything_changes_and_the_rest_goes_on()
    {
        var p = Do(Layout(), new LinkImages([EditTests.Image("pot-1.png", 10, 10)]));
        var (after, places, findings) = Rows(p, Pots("gone.jpg|Mug|x", "|Jug|x", "pot-1|Bowl|x", "pot-1.png||x")).Proposal(p);
        findings.Select(f => (f.Row, f.Column, f.Words)).ShouldBe(
        [
            (1, "Picture", "There is no picture named gone.jpg."), (2, "Picture", "The cell is empty."), (3, "Picture", "Several pictures are named pot-1."),
                (4, "Piece", "The cell is empty."),
        ]);
        Read(after, "Picture").ShouldBe(["-", "-", "-", "pot-1.png"]);
        places.Length.ShouldBe(5);
        p.PageCount.ShouldBe(1);
    }

    [Fact]
    public void A_number_at_the_beginning_of_a_name_finds_its_picture_where_no_other_begins_so()
    {
        var p = Publication.Create(new Setup { Name = "T", PageWidth = 600, PageHeight = 800 }, 1);
        string[] names = ["007-ladybird.jpg", "0071-moth.jpg", "008-bee.jpg", "008-wasp.jpg"];
        p = Do(p, new LinkImages([.. names.Select((n, i) => EditTests.Image(n, 10 + i, 10))]));
        foreach (string name in new[] { "Picture", "Piece", "Code" }) p = Do(p, new MakeFrame { Page = 1, Box = new(0, 0, 100, 100), Name = name });
        var (after, _, findings) = Rows(p, Pots("007|Ladybird|x", "008|Bee|x")).Proposal(p);
        Read(after, "Picture")[0].ShouldBe("007-ladybird.jpg");
        findings.ShouldContain(f => f.Row == 2 && f.Words == "Several pictures are named 008.");
    }

    [Fact]
    public void Without_added_pages_the_rows_that_find_no_frame_are_told()
    {
        var p = Layout();
        var (after, _, findings) = Rows(p, Pots("pot-1|A|x", "pot-2|B|x", "pot-3|C|x"), keep: false).Proposal(p);
        after.PageCount.ShouldBe(1);
        findings.ShouldAllBe(f => f.Row == 3 && f.Words.StartsWith("There is no frame named"));
        Should.Throw<EditRefused>(() => Do(p, Rows(p, new(["Other"], [["x"]])))).Message.ShouldContain("No column goes into a frame");
        Should.Throw<EditRefused>(() => Do(p, Rows(p, Pots([.. Enumerable.Repeat("pot-1|A|x", 100_000)])))).Message.ShouldContain("2000 is the most");
    }

    [Fact]
    public void Frames_take_the_pictures_that_are_named_as_they_are()
    {
        var p = Publication.Create(new Setup { Name = "T", PageWidth = 600, PageHeight = 800 }, 1);
        p = Do(p, new LinkImages([EditTests.Image("mug.jpg"), EditTests.Image("jug.jpg", 10, 10), EditTests.Image("cup.jpg", 20, 20)]));
        foreach (string name in new[] { "Jug", "MUG.JPG", "Plate" }) p = Do(p, new MakeFrame { Page = 1, Box = new(0, 0, 100, 100), Name = name });
        p = Do(p, new PourImages { ImageIds = [.. p.Images.Keys], FrameIds = [.. p.Frames.Keys], Order = PourOrder.Name });
        Read(p, "Jug").ShouldBe(["jug.jpg"]);
        Read(p, "MUG.JPG").ShouldBe(["mug.jpg"]);
        Read(p, "Plate").ShouldBe(["-"]);
    }

    [Theory]
    [InlineData(false, true)]
    [InlineData(true, false)]
    public void A_new_edition_keeps_the_layout_and_what_was_asked(bool pictures, bool texts)
    {
        var p = Layout();
        int picture = p.Images.Keys.Min(), frame = p.Frames.Values.First(f => f.Name == "Picture").Id,
            locked = p.Frames.Values.Last(f => f.Name == "Picture").Id;
        p = Do(p, new ChangeFrames { FrameIds = [frame, locked], ImageId = new(picture) });
        p = Do(p, new ChangeFrames { FrameIds = [locked], Locked = true });
        var next = EditionMaker.Make(p, "T", "Spring", new(pictures, texts));
        (next.Setup.Edition, next.PageCount, next.Frames.Count, next.Rules.Count).ShouldBe(("Spring", p.PageCount, p.Frames.Count, p.Rules.Count));
        next.Frames[frame].ImageId.ShouldBe(pictures ? picture : null);
        next.Frames[locked].ImageId.ShouldBe(picture);
        next.Images.Count.ShouldBe(pictures ? 5 : 1);
        Read(next, "Heading").ShouldBe([texts ? "Pots" : ""]);
        next.Tray.ImageIds.ShouldBeEmpty();
        Should.Throw<EditRefused>(() => EditionMaker.Make(p, " ", "", new(false, false))).Message.ShouldContain("needs a name");
    }

    [Fact]
    public void A_text_that_names_columns_is_filled_from_its_row_and_stays_set_as_it_was()
    {
        var p = Publication.Create(new Setup { Name = "T", PageWidth = 600, PageHeight = 800 }, 1);
        p = Do(p, new LinkImages([.. Enumerable.Range(1, 5).Select(i => EditTests.Image($"pot-{i}.jpg"))]));
        var bold = new TextSettings { Bold = true };
        for (int i = 0; i < 2; i++)
        {
            p = Do(p, new MakeFrame { Page = 1, Box = new(10, 10 + 300 * i, 200, 200), Name = "Picture" });
            var caption = new Paragraph { Runs = [new("{Piece}") { Set = bold }, new(", {note} on page {page}: {price} or {Price}")] };
            p = Do(p, new MakeFrame { Page = 1, Box = new(10, 220 + 300 * i, 200, 40), Text = new([caption, new("{nothing}", TextStyle.Usual)]) });
        }
        var table = Pots("pot-1|Mug|grey\nand small", "pot-2|Jug|", "pot-3|Bowl|{Piece}");
        table = table with { Columns = [.. table.Columns, "Price", "Page"], Rows = [.. table.Rows.Select((r, i) => r.AddRange($"{i + 1}.50", "99"))] };
        var findings = Rows(p, table).Proposal(p).Findings;
        findings.ShouldBe([new RowFinding(2, "Note", "The cell is empty.")]);
        p = Do(p, Rows(p, table));
        p.PageCount.ShouldBe(2, "three rows, two a page");
        var texts = ReadingOrder.Of(p, p.Frames.Values.Where(f => f.IsText)).Select(f => p.StoryOf(f)!.Text).ToList();
        texts.Select(t => t.Paragraphs[0].Text).ShouldBe(["Mug, grey\u2028and small on page {page}: 1.50 or 1.50", "Jug,  on page {page}: 2.50 or 2.50",
            "Bowl, {Piece} on page {page}: 3.50 or 3.50", "{Piece}, {note} on page {page}: {price} or {Price}"]);
        texts[0].Paragraphs[0].Runs[0].ShouldBe(new Run("Mug") { Set = bold });
        texts[0].Paragraphs[1].Text.ShouldBe("{nothing}");
        Read(p, "Picture").ShouldBe(["pot-1.jpg", "pot-2.jpg", "pot-3.jpg", "-"]);
        // A table whose columns are named nowhere goes nowhere.
        Should.Throw<EditRefused>(() => Do(p, Rows(p, new(["Kiln"], [["x"]])))).Message.ShouldContain("in braces");
    }
}
