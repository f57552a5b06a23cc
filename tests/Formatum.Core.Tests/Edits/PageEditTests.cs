using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Tests.Publications;

namespace Formatum.Core.Tests.Edits;

/// <summary>Pages added, copied, moved, removed; guides; numbers and binding.</summary>
public class PageEditTests
{
    private static Publication Begin(int pages = 6)
    {
        var p = Publication.Create(SetupTests.A4() with { Facing = true }, pages);
        for (int page = 1; page <= pages; page++) p = p.Do(new MakeFrame { Page = page, Box = new(0, 0, 10 * page, 10), Name = $"on {page}" });
        return p;
    }

    /// <summary>What lies on each page, in order.</summary>
    private static string[] Read(Publication p) => [.. p.Order.Ids.Select(id => string.Join('+', p.FramesOnPage(id)
        .Select(f => f.Name.Replace("on ", "", StringComparison.Ordinal))))];

    [Fact]
    public void Pages_are_added_moved_copied_and_removed_with_what_is_on_them()
    {
        var p = Begin();
        Read(p.Do(new AddPages(3, 2))).ShouldBe(["1", "2", "", "", "3", "4", "5", "6"]);
        Read(p.Do(new AddPages(7, 1))).ShouldBe(["1", "2", "3", "4", "5", "6", ""]);
        Read(p.Do(new MovePages([2, 3], 6))).ShouldBe(["1", "4", "5", "2", "3", "6"]);
        Read(p.Do(new MovePages([5], 1))).ShouldBe(["5", "1", "2", "3", "4", "6"]);
        Read(p.Do(new MovePages([6, 1], 4))).ShouldBe(["2", "3", "1", "6", "4", "5"]);
        Read(p.Do(new MovePages([1], 7))).ShouldBe(["2", "3", "4", "5", "6", "1"]);
        Read(p.Do(new DuplicatePages([2, 3], 4))).ShouldBe(["1", "2", "3", "2", "3", "4", "5", "6"]);
        var removed = p.Do(new RemovePages([1, 6]));
        Read(removed).ShouldBe(["2", "3", "4", "5"]);
        removed.Frames.Count.ShouldBe(4);
    }

    /// <summary>Worked by hand: from a page of 400 x 600 with margins of 40 to one of 800 x 600 with margins of 40, the type area grows from 320 to 720
    /// across.</summary>
    [Fact]
    public void Frames_scale_move_or_stay_as_their_pages_change()
    {
        var setup = new Setup { Name = "T", PageWidth = 400, PageHeight = 600, Margins = new(40, 40, 40, 40) };
        var p = Publication.Create(setup, 3).Do(new MakeFrame { Page = 1, Box = new(40, 40, 320, 100) })
            .Do(new MakeFrame { Page = 3, Box = new(100, 500, 50, 50) });
        var wide = setup with { PageWidth = 800 };
        Frame First(Publication after) => after.Frames.Values.MinBy(f => f.Id)!;
        First(p.Do(new ChangeSetup(wide, FramesAtResize.Scale))).Box.ShouldBe(new(400 - 320, 40, 640, 100));
        First(p.Do(new ChangeSetup(wide, FramesAtResize.Move))).Box.ShouldBe(new(400 - 160, 40, 320, 100));
        First(p.Do(new ChangeSetup(wide))).Box.ShouldBe(new(40, 40, 320, 100));
        // New margins alone move nothing.
        First(p.Do(new ChangeSetup(setup with { Margins = new(60, 60, 60, 60) }, FramesAtResize.Scale))).Box.ShouldBe(new(40, 40, 320, 100));

        var impact = SetupImpact.Of(p, new(setup with { PageWidth = 200 }, FramesAtResize.Keep, 2));
        (impact.Off.Length, impact.Gone.Length, impact.PagesGone, impact.Matters).ShouldBe((1, 1, 1, true));
        SetupImpact.Of(p, new(setup with { PageWidth = 200 }, FramesAtResize.Scale)).Off.ShouldBeEmpty();
        SetupImpact.Of(p, new(setup with { Bleed = 20 })).Matters.ShouldBeFalse();
        var fewer = p.Do(new ChangeSetup(setup, Pages: 2));
        (fewer.PageCount, fewer.Frames.Count).ShouldBe((2, 1));
        p.Do(new ChangeSetup(setup, Pages: 5)).PageCount.ShouldBe(5);
    }

    private static Publication Uneven()
    {
        var p = Publication.Create(SetupTests.A4() with { Facing = true, Margins = new(30, 30, 60, 20), Columns = new(1, 0) }, 4);
        double w = p.Setup.PageWidth;
        // On a verso: the outside is on the left, so the type area begins at 20.
        p = p.Do(new MakeFrame { Page = 2, Box = new(20, 40, 100, 50), Name = "within" });
        p = p.Do(new MakeFrame { Page = 2, Box = new(w - 160, 40, 100, 50), Name = "to the fold" });
        p = p.Do(new MakeFrame { Page = 2, Box = new(-9, 200, w / 2, 300), Name = "bleeds" });
        p = p.Do(new MakeFrame
        {
            Page = 2,
            Box = new(4, 800, 12, 10),
            Name = "folio",
            Text = Formatum.Core.Stories.FrameText.Empty(Formatum.Core.Stories.TextStyle.Usual)
        });
        return p.Do(new GroupFrames([.. p.Frames.Keys.Order().Take(2)], true));
    }

    [Fact]
    public void A_copy_on_the_other_side_is_laid_for_that_side_and_has_groups_of_its_own()
    {
        var p = Uneven();
        double w = p.Setup.PageWidth;
        p = p.Do(new DuplicatePages([2], 3));
        Frame Copied(string name) => p.FramesOnPage(p.Order.Ids[2]).Single(f => f.Name == name);
        // Within the margins, 60 from the fold instead of 20 from the edge; what touches the trim or stands in a margin is seen in a mirror.
        Copied("within").Box.X.ShouldBe(60, 1e-9);
        Copied("to the fold").Box.Right.ShouldBe(w - 20, 1e-9);
        Copied("bleeds").Box.Right.ShouldBe(w + 9, 1e-9);
        Copied("folio").Box.Right.ShouldBe(w - 4, 1e-9);
        var groups = p.Frames.Values.Where(f => f.GroupId is not null).GroupBy(f => f.GroupId).ToList();
        groups.Select(g => g.Select(f => f.PageId).Distinct().Count()).ShouldBe([1, 1]);
        // Onto the same side nothing moves.
        var same = p.Do(new DuplicatePages([2], 5));
        same.Order.Ids.Length.ShouldBe(6);
        p.FramesOnPage(p.Order.Ids[1]).Select(f => f.Box.X).ShouldBe(Uneven().FramesOnPage(Uneven().Order.Ids[1]).Select(f => f.Box.X));
    }

    [Fact]
    public void All_of_it_is_undone_to_what_it_was()
    {
        var p = Begin();
        foreach (Edit edit in new Edit[] { new AddPages(1, 3), new DuplicatePages([1, 2, 3], 1), new MovePages([1, 4], 3), new RemovePages([2, 3]) })
        {
            var changes = edit.On(p);
            var back = p.With(changes).With(changes.Inverse());
            Read(back).ShouldBe(Read(p));
            back.Frames.Values.OrderBy(f => f.Id).ShouldBe(p.Frames.Values.OrderBy(f => f.Id));
        }
    }

    [Fact]
    public void What_cannot_be_is_refused()
    {
        var p = Begin(2);
        Should.Throw<EditRefused>(() => new RemovePages([1, 2]).On(p)).Message.ShouldContain("at least one page");
        Should.Throw<EditRefused>(() => new RemovePages([3]).On(p)).Errors[0].Field.ShouldBe("pages");
        Should.Throw<EditRefused>(() => new RemovePages([]).On(p)).Errors[0].Field.ShouldBe("pages");
        Should.Throw<EditRefused>(() => new AddPages(4, 1).On(p)).Errors[0].Field.ShouldBe("before");
        Should.Throw<EditRefused>(() => new AddPages(1, 0).On(p)).Errors[0].Field.ShouldBe("count");
        Should.Throw<EditRefused>(() => new AddPages(1, Setup.MostPages).On(p)).Errors[0].Field.ShouldBe("count");
    }

    [Fact]
    public void Between_facing_and_single_frames_keep_to_their_pages()
    {
        var p = Begin();
        var before = Read(p);
        p = p.Do(new ChangeSetup(p.Setup with { Facing = false }));
        Spread.CountOf(p).ShouldBe(6);
        Read(p).ShouldBe(before);
        p = p.Do(new ChangeSetup(p.Setup with { Facing = true }));
        Spread.CountOf(p).ShouldBe(4);
        Read(p).ShouldBe(before);
    }

    [Fact]
    public void Odd_numbers_lie_on_the_right_and_bound_on_the_right_on_the_left()
    {
        var p = Begin();
        Spread.At(p, 1).Pages.Select(q => (q.Folio, q.Recto)).ShouldBe([(2, false), (3, true)]);
        var even = p.Do(new ChangeSetup(p.Setup with { FirstFolio = 12 }));
        // Begun with an even number, the first two pages face each other.
        Spread.CountOf(even).ShouldBe(3);
        Spread.At(even, 0).Pages.Select(q => q.Folio).ShouldBe([12, 13]);
        Spread.IndexOfPage(even, 3).ShouldBe(1);
        var right = p.Do(new ChangeSetup(p.Setup with { BindsRight = true }));
        var spread = Spread.At(right, 1);
        spread.Pages.Select(q => (q.Folio, q.Recto)).ShouldBe([(3, false), (2, true)]);
        spread.Pages[0].Trim.X.ShouldBe(0);
        spread.Label.ShouldBe("Pages 2\u20133");
        for (int i = 0; i < Spread.CountOf(right); i++)
            foreach (var page in Spread.At(right, i).Pages) Spread.IndexOfPage(right, page.Number).ShouldBe(i);
    }

    [Fact]
    public void Guides_are_added_moved_and_taken_away()
    {
        var p = Begin(1).Do(new ChangeGuide(1, null, new PageGuide(true, 100))).Do(new ChangeGuide(1, null, new PageGuide(false, 50, true)));
        p = p.Do(new ChangeGuide(1, 0, new PageGuide(true, 120)));
        Guide.On(p, Spread.At(p, 0)).Select(g => (g.Upright, g.At)).ShouldBe([(true, 120), (false, 50)]);
        p = p.Do(new ChangeGuide(1, 0, null));
        Guide.On(p, Spread.At(p, 0)).Single().Upright.ShouldBeFalse();
        Should.Throw<EditRefused>(() => new ChangeGuide(1, 5, null).On(p)).Errors[0].Field.ShouldBe("guide");
        Should.Throw<EditRefused>(() => new ChangeGuide(1, null, new PageGuide(true, double.NaN)).On(p)).Errors[0].Field.ShouldBe("at");
    }
}
