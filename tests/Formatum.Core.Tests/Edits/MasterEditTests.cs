using System.Collections.Immutable;
using CsCheck;
using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Tests.Publications;
using Formatum.Core.Tests.Typesetting;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Tests.Edits;

/// <summary>Master pages: what is empty on them is filled on each page, what is filled is the same on all.</summary>
public class MasterEditTests
{
    /// <summary>Where on the left-hand and on the right-hand page of the first master frames are made.</summary>
    private const int Recto = -1, Verso = -2;

    private static readonly LinkedImage Picture = new()
    {
        Id = 500,
        Name = "mug.jpg",
        Path = "/mug.jpg",
        ContentHash = new('a', 64),
        Format = "jpeg",
        Colour = "RGB",
        Bytes = 1,
        Modified = default,
        StoredWidthPx = 300,
        StoredHeightPx = 200,
    };

    /// <summary>A publication of six facing pages with a master that has two placeholders on each side, the right-hand ones in mirrored places.</summary>
    private static Publication Begin(int pages = 6)
    {
        var p = Publication.Create(SetupTests.A4() with { Facing = true }, pages);
        p = p.With(new([new(Picture.Key, null, Picture)])).Do(new MakeMaster("Product page"));
        p = p.Do(new MakeFrame { Page = Verso, Box = new(30, 40, 100, 80), Name = "large" })
            .Do(new MakeFrame { Page = Verso, Box = new(30, 200, 60, 50), Name = "small" });
        return p.Do(new MakeFrame { Page = Recto, Box = new(300, 40, 100, 80), Name = "large" })
            .Do(new MakeFrame { Page = Recto, Box = new(340, 200, 60, 50), Name = "small" });
    }

    private static MasterPage Master(Publication p, int which = 0) => p.Masters.Values.ElementAt(which);

    private static Publication Based(Publication p, params int[] pages) => p.Do(new BasePages([.. pages], Master(p).Id));

    private static List<Frame> On(Publication p, int page) => [.. p.FramesOnPage(p.PageIdAt(page)!.Value).OrderBy(f => f.Box.Y)];

    private static Frame Named(Publication p, int page, string name) => On(p, page).Single(f => f.Name == name);

    private static FrameText Words(string text) => new([new(text, TextStyle.Usual)]);

    private static Publication Moved(Publication p, Frame frame, double x) => p.Do(new ChangeFrames { FrameIds = [frame.Id], X = x });

    [Fact]
    public void A_page_has_a_placeholder_of_its_own_for_each_on_its_side_of_the_master()
    {
        var p = Based(Begin(), 2, 3);
        On(p, 2).Select(f => (f.Name, f.Box)).ShouldBe([("large", new(30, 40, 100, 80)), ("small", new(30, 200, 60, 50))]);
        On(p, 3).Select(f => (f.Name, f.Box)).ShouldBe([("large", new(300, 40, 100, 80)), ("small", new(340, 200, 60, 50))]);
        On(p, 1).ShouldBeEmpty();
        On(p.Do(new AddPages(3, 2, Master(p).Id)), 4).Select(f => f.Box.X).ShouldBe([30, 30]);
    }

    [Fact]
    public void What_is_changed_on_the_master_is_changed_on_its_pages_but_where_something_was_done_there()
    {
        var p = Based(Begin(), 2, 4);
        p = Moved(p, Named(p, 2, "large"), 77).Do(new ChangeFrames
        {
            FrameIds = [Named(p, 4, "large").Id],
            ImageId = new(Picture.Id),
            Recrop = new(1.5, null)
        });
        p = p.Do(new DefineRule { Name = "Whole", Settings = new() { Fit = FitKind.Fit } });
        int rule = p.Rules.Keys.Single();
        p = p.Do(new ChangeFrames { FrameIds = [Named(p, Verso, "large").Id], X = 50, Y = 41, Width = 90, RuleId = new(rule) });

        Named(p, 2, "large").Box.ShouldBe(new(77, 41, 90, 80));
        Named(p, 2, "large").RuleId.ShouldBe(rule);
        var filled = Named(p, 4, "large");
        (filled.Box.X, filled.RuleId, filled.ImageId, filled.Recrop.Zoom).ShouldBe((50, rule, Picture.Id, 1.5));

        var again = p.Do(new FollowMaster([Named(p, 2, "large").Id]));
        Named(again, 2, "large").Follows(Named(again, Verso, "large")).ShouldBeTrue();
    }

    [Fact]
    public void A_rule_put_on_the_placeholders_of_a_master_comes_to_all_its_pages()
    {
        var p = Based(Begin(), 2, 3, 4, 5).Do(new DefineRule { Name = "Whole", Settings = new() { Fit = FitKind.Fit } });
        int rule = p.Rules.Keys.Single();
        p = p.Do(new ChangeFrames { FrameIds = FrameScope.FramesIn(p, Verso, FrameFilling.Empty), RuleId = new(rule) });
        p.PageFrames.Where(f => f.RuleId == rule).Select(f => p.NumberOf(f.PageId)).Order().ShouldBe([2, 2, 4, 4]);
        p.FitOf(Named(p, 4, "small")).Fit.ShouldBe(FitKind.Fit);
        Should.Throw<EditRefused>(() => FrameScope.FramesIn(p, -3, FrameFilling.All)).Message.ShouldContain("no page -3");
    }

    [Fact]
    public void What_is_filled_on_the_master_is_the_same_on_every_page_and_no_frame_of_theirs()
    {
        var p = Based(Begin(), 2, 4);
        p = p.Do(new ChangeFrames { FrameIds = [Named(p, 4, "small").Id], ImageId = new(Picture.Id) });
        p = p.Do(new ChangeFrames { FrameIds = [Named(p, Verso, "small").Id], ImageId = new(Picture.Id) });
        On(p, 2).Select(f => f.Name).ShouldBe(["large"]);
        On(p, 4).Select(f => (f.Name, f.MasterFrameId is null)).ShouldBe([("large", false), ("small", true)], "A picture placed on a page stays there.");
        var scene = Composer.Compose(p, Spread.At(p, 1), new HalfWide());
        scene.Items[0].FrameId.ShouldBe(Named(p, Verso, "small").Id);
        scene.Items[0].Image!.Source.Id.ShouldBe(Picture.Id);

        p = p.Do(new ChangeFrames { FrameIds = [Named(p, Verso, "small").Id], ImageId = new(null) });
        On(p, 2).Select(f => f.Name).ShouldBe(["large", "small"]);
        On(p, 4).Count.ShouldBe(3);
    }

    [Fact]
    public void Text_of_a_master_says_what_each_page_is()
    {
        var p = Begin().Do(new ChangeSetup(SetupTests.A4() with { Facing = true, Name = "Autumn", Edition = "No. 3", FirstFolio = 11 }));
        p = p.Do(new MakeFrame { Page = Verso, Box = new(30, 800, 300, 20), Text = Words("{page} of {PAGES}, {publication} {edition} {else}") });
        p = Based(p, 2);
        SceneFrame Folio(int spread) => Composer.Compose(p, Spread.At(p, spread), new HalfWide()).Items.Single(i => i.Text is not null);
        Folio(1).Text!.Lines[0].Text.ShouldBe("12 of 6, Autumn No. 3 {else}");
        Folio(-1).Text!.Lines[0].Text.ShouldBe("{page} of 6, Autumn No. 3 {else}");
        On(p, 2).Count.ShouldBe(2, "A text with words is printed from the master.");
    }

    [Fact]
    public void A_text_frame_without_words_is_written_on_each_page()
    {
        var p = Based(Begin(), 2).Do(new MakeFrame
        {
            Page = Verso,
            Box = new(30, 500, 100, 20),
            Name = "caption",
            Text = FrameText.Empty(TextStyle.Usual with { Size = 14 })
        });
        p.StoryOf(Named(p, 2, "caption"))!.Text.Paragraphs[0].Set.Size.ShouldBe(14);
        p = p.Do(new ChangeFrames { FrameIds = [Named(p, 2, "caption").Id], Text = Words("A mug") });
        p = Moved(p, Named(p, Verso, "caption"), 44);
        (Named(p, 2, "caption").Box.X, p.StoryOf(Named(p, 2, "caption"))!.Text.Plain).ShouldBe((44, "A mug"));
    }

    [Fact]
    public void A_page_that_comes_to_the_other_side_takes_the_places_of_that_side()
    {
        var p = Based(Begin(), 2, 3);
        p = p.Do(new ChangeFrames { FrameIds = [Named(p, 2, "small").Id], ImageId = new(Picture.Id) });
        var shifted = p.Do(new AddPages(1, 1));
        Named(shifted, 3, "small").Box.ShouldBe(new(340, 200, 60, 50));
        Named(shifted, 3, "small").ImageId.ShouldBe(Picture.Id);
        Named(shifted, 4, "large").Box.X.ShouldBe(30);
        On(shifted.Do(new RemovePages([1])), 2).ShouldBe(On(p, 2));
        // A copy begins on the other side than its original.
        On(p.Do(new DuplicatePages([2], 3)), 3).Select(f => f.Box.X).ShouldBe([300, 340]);
        // Single pages all go by the right-hand page.
        On(p.Do(new ChangeSetup(p.Setup with { Facing = false })), 2).Select(f => f.Box.X).ShouldBe([300, 340]);
    }

    [Fact]
    public void A_page_that_comes_to_another_master_fills_its_places_first_for_first()
    {
        var p = Based(Begin(), 2);
        p = p.Do(new ChangeFrames { FrameIds = [Named(p, 2, "large").Id], ImageId = new(Picture.Id) }).Do(new MakeMaster("Opener"))
            .Do(new MakeFrame { Page = -4, Box = new(5, 6, 500, 700), Name = "wide" });
        p = p.Do(new BasePages([2], Master(p, 1).Id));
        On(p, 2).Select(f => (f.Name, f.Box, f.ImageId)).ShouldBe([("wide", new Box(5, 6, 500, 700), (int?)Picture.Id)]);
        var off = p.Do(new BasePages([2], null));
        On(off, 2).Select(f => (f.ImageId, f.MasterFrameId)).ShouldBe([((int?)Picture.Id, (int?)null)]);
        On(p.Do(new RemoveMaster(Master(p, 1).Id, Master(p).Id)), 2).Select(f => f.Name).ShouldBe(["large", "small"]);
        On(p.Do(new RemoveMaster(Master(p, 1).Id)), 2).Single().MasterFrameId.ShouldBeNull();
    }

    [Fact]
    public void A_placeholder_removed_from_a_page_stays_away_and_a_moved_one_outlives_the_master_s()
    {
        var p = Based(Begin(), 2);
        p = p.Do(new RemoveFrames([Named(p, 2, "small").Id]));
        p = Moved(p, Named(p, Verso, "small"), 99);
        On(p, 2).Select(f => f.Name).ShouldBe(["large"]);
        p = Moved(p, Named(p, 2, "large"), 1).Do(new RemoveFrames([Named(p, Verso, "large").Id]));
        On(p, 2).Select(f => (f.Name, f.MasterFrameId)).ShouldBe([("large", (int?)null)]);
    }

    [Fact]
    public void A_master_is_made_like_a_page_which_it_then_takes_on()
    {
        var p = Publication.Create(SetupTests.A4() with { Facing = true, Margins = new(10, 10, 50, 20) }, 3).With(new([new(Picture.Key, null, Picture)]));
        p = p.Do(new MakeFrame { Page = 3, Box = new(50, 40, 100, 80), ImageId = Picture.Id })
            .Do(new MakeFrame { Page = 3, Box = new(50, 800, 300, 20), Text = Words("{page}") })
            .Do(new MakeFrame { Page = 3, Box = new(50, 120, 100, 12), Text = Words("A mug") });
        p = p.Do(new MakeMaster(" Product page ", [3], BaseThem: true));
        Master(p).Name.ShouldBe("Product page");
        On(p, Recto).Select(f => (f.Box.X, p.IsEmpty(f))).ShouldBe([(50, true), (50, true), (50, false)]);
        On(p, Verso).Select(f => (f.Box.X, p.IsEmpty(f))).ShouldBe([(20, true), (20, true), (20, false)], "As far from the margin as on the other side.");
        On(p, 3).Select(f => (f.ImageId, f.MasterFrameId)).ShouldBe([((int?)Picture.Id, (int?)On(p, Recto)[0].Id), ((int?)null, (int?)On(p, Recto)[1].Id)]);
        p.StoryOf(On(p, 3)[1])!.Text.Plain.ShouldBe("A mug");
        On(p.Do(new BasePages([2], Master(p).Id)), 2).Select(f => f.Box.X).ShouldBe([20, 20]);
        Should.Throw<EditRefused>(() => new MakeMaster("Other", [1, 3]).On(p)).Errors[0].Field.ShouldBe("pages");
        Should.Throw<EditRefused>(() => new MakeMaster("product PAGE").On(p)).Message.ShouldContain("already");
        Should.Throw<EditRefused>(() => new MakeMaster(" ").On(p)).Errors[0].Field.ShouldBe("name");
        Should.Throw<EditRefused>(() => new BasePages([1], 99).On(p)).Errors[0].Field.ShouldBe("master");
        Should.Throw<EditRefused>(() => new RemoveMaster(Master(p).Id, Master(p).Id).On(p)).Errors[0].Field.ShouldBe("instead");
    }

    [Fact]
    public void A_new_edition_and_pouring_keep_the_masters()
    {
        var p = Based(Begin(), 2);
        p = p.Do(new ChangeFrames { FrameIds = [Named(p, Verso, "small").Id, Named(p, 2, "large").Id], ImageId = new(Picture.Id) });
        var next = EditionMaker.Make(p, "Autumn", "No. 2", new(Pictures: false, Texts: false));
        Named(next, 2, "large").ImageId.ShouldBeNull();
        Named(next, Verso, "small").ImageId.ShouldBe(Picture.Id);
        next.Images.Keys.ShouldBe([Picture.Id]);

        var poured = p.Do(new ChangeTray([Picture.Id], TrayMove.Add)).Do(new PourImages { ImageIds = [Picture.Id], FrameIds = [], LayoutPages = [2] });
        poured.PageCount.ShouldBe(6, "A blank page behind takes the copy.");
        On(poured, 3).Select(f => (f.Box.X, f.ImageId)).ShouldBe([(300, (int?)Picture.Id), (340, null)], "The copy lies on the other side, and goes by that.");
    }

    [Fact]
    public void Pages_and_masters_keep_in_step_whatever_is_done()
    {
        var some = Gen.Int[0, 1000];
        Gen.Select(some, some, some, some).Array[1, 25].Sample(steps =>
        {
            var p = Based(Begin(), 2, 3);
            foreach (var (what, where, which, x) in steps)
            {
                int page = where % p.PageCount + 1;
                int? master = p.Masters.IsEmpty ? null : Master(p, which % p.Masters.Count).Id;
                var frame = p.Frames.Values.OrderBy(f => f.Id).ElementAtOrDefault(which % Math.Max(1, p.Frames.Count));
                int onMaster = p.Masters.IsEmpty ? page : -1 - where % (2 * p.Masters.Count);
                Edit? edit = (what % 14) switch
                {
                    0 => new AddPages(page, 1 + x % 3, x % 2 == 0 ? master : null),
                    1 => new DuplicatePages([page], page),
                    2 => new MovePages([page], 1),
                    3 when p.PageCount > 2 => new RemovePages([page]),
                    4 => new BasePages([page, p.PageCount], x % 4 == 0 ? null : master),
                    5 when p.Masters.Count < 4 => new MakeMaster($"M{p.NextId}", x % 2 == 0 ? [page] : null, x % 4 == 0),
                    6 when p.Masters.Count > 1 => new RemoveMaster(master!.Value, x % 2 == 0 ? null : p.Masters.Keys.First(m => m != master)),
                    7 => new MakeFrame { Page = onMaster, Box = new(x, which, 50, 40) },
                    8 when frame is { IsText: false } => new ChangeFrames { FrameIds = [frame.Id], ImageId = new(x % 2 == 0 ? Picture.Id : null) },
                    9 when frame is not null => new ChangeFrames { FrameIds = [frame.Id], X = x },
                    10 when frame is not null => new RemoveFrames([frame.Id]),
                    11 => new ChangeSetup(p.Setup with { Facing = !p.Setup.Facing, FirstFolio = 1 + x % 2 }),
                    12 when frame is { MasterFrameId: not null } => new FollowMaster([frame.Id]),
                    13 when frame is not null && Spread.At(p, Spread.IndexOfPage(p,
                        p.NumberOf(frame.PageId))).Pages.Any(open => open.Page.Id == frame.PageId) => new RepeatFrames([frame.Id],
                        Spread.IndexOfPage(p, p.NumberOf(frame.PageId)), new(x, 5), 1),
                    _ => null,
                };
                if (edit is null) continue;
                var changes = edit.On(p);
                var after = p.With(changes);
                PartsOf(after.With(changes.Inverse())).ShouldBe(PartsOf(p));
                p = after;
                PublicationCheck.Assemble(p.NextId, [.. p.Parts]);
                foreach (var follower in p.Frames.Values.Where(f => f.MasterFrameId is not null))
                {
                    var followed = p.Frames[follower.MasterFrameId!.Value];
                    p.IsEmpty(followed).ShouldBeTrue();
                    p.MasterPageOf(follower.PageId).ShouldBe(followed.PageId);
                    p.FramesOnPage(follower.PageId).Count(f => f.MasterFrameId == followed.Id).ShouldBe(1);
                }
            }
        }, iter: 200);
    }

    private static ImmutableArray<string> PartsOf(Publication p) => [.. p.Parts.Select(part => $"{part.Key} {PartJson.Write(part)}")
        .Order(StringComparer.Ordinal)];

    /// <summary>A master with a text on each side that runs on, or not yet.</summary>
    private static Publication BeginText(bool runsOn)
    {
        var p = Publication.Create(SetupTests.A4() with { Facing = true }, 6).Do(new MakeMaster("Book page"));
        foreach (int side in new[] { Verso, Recto })
        {
            p = p.Do(new MakeFrame { Page = side, Box = new(30, 40, 200, 36), Name = "Text", Text = FrameText.Empty(new() { Size = 10, Leading = 12 }) });
            if (runsOn) p = LetRunOn(p, side);
        }
        return p;
    }

    private static Publication LetRunOn(Publication p, int side) => p.Do(new ChangeFrames
    {
        FrameIds = [Named(p, side, "Text").Id],
        Area = new() { RunsOn = true }
    });

    private static int[] Chain(Publication p, int page) => [.. p.StoryOf(Named(p, page, "Text"))!.FrameIds.Select(id => p.NumberOf(p.Frames[id].PageId))];

    [Fact]
    public void Text_that_a_master_lets_run_on_goes_from_page_to_page()
    {
        var p = Based(BeginText(true), 2, 3, 4);
        Chain(p, 3).ShouldBe([2, 3, 4]);
        p = p.Do(new WriteText(Named(p, 2, "Text").Id, string.Join('\n', Enumerable.Range(1, 12))));
        string Read(int page) => string.Join(' ', Composition.TextOf(p, Named(p, page, "Text"), new HalfWide())!.Lines.Select(l => l.Text));
        (Read(2), Read(4)).ShouldBe(("1 2 3", "7 8 9"));
        // A page between takes its place in the chain, and pages are added until the text ends.
        p = p.Do(new AddPages(4, 1, Master(p).Id));
        Chain(p, 2).ShouldBe([2, 3, 4, 5]);
        (Read(4), Read(5)).ShouldBe(("7 8 9", "10 11 12"));
        p = p.Do(new WriteText(Named(p, 2, "Text").Id, string.Join('\n', Enumerable.Range(1, 16))));
        p = p.Do(new RunOnPages(Named(p, 5, "Text").Id, 2, OnNewPages: true));
        Chain(p, 2).ShouldBe([2, 3, 4, 5, 6, 7]);
        On(p, 6).Count.ShouldBe(1, "the page's own frame from the master serves");
        Read(7).ShouldBe("16");
        // A page that goes leaves its words to the others.
        p = p.Do(new RemovePages([3]));
        Chain(p, 2).ShouldBe([2, 3, 4, 5, 6]);
        Read(3).ShouldBe("4 5 6");
    }

    [Fact]
    public void It_joins_what_is_there_when_it_is_said_later_and_leaves_alone_what_has_words()
    {
        var p = Based(BeginText(false), 2, 3, 4, 5);
        Chain(p, 2).ShouldBe([2]);
        p = p.Do(new WriteText(Named(p, 4, "Text").Id, "own words"));
        var on = LetRunOn(LetRunOn(p, Verso), Recto);
        Chain(on, 2).ShouldBe([2, 3]);
        Chain(on, 4).ShouldBe([4, 5]);
        on.StoryOf(Named(on, 5, "Text"))!.Text.Plain.ShouldBe("own words");
        // Taken back, each is as it was.
        var changes = new ChangeFrames { FrameIds = [Named(p, Verso, "Text").Id, Named(p, Recto, "Text").Id], Area = new() { RunsOn = true } }.On(p);
        p.With(changes).With(changes.Inverse()).Parts.OrderBy(x => x.Key.Kind).ThenBy(x => x.Key.Id).ShouldBe(p.Parts.OrderBy(x => x.Key.Kind)
            .ThenBy(x => x.Key.Id));
    }
}
