using CsCheck;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Filling;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Tests.Filling;

public sealed class PouringTests
{
    private static Publication New(int pages = 1, bool facing = false, bool bindsRight = false) =>
        Publication.Create(new Setup { Name = "T", PageWidth = 600, PageHeight = 800, Facing = facing, BindsRight = bindsRight, Margins = new(0, 0, 0, 0) },
            pages);

    private static Publication Do(Publication p, Edit edit) => p.With(edit.On(p));

    private static Publication Frame(Publication p, int page, double x, double y, double width = 100, double height = 100, string name = "") =>
        Do(p, new MakeFrame { Page = page, Box = new(x, y, width, height), Name = name });

    private static LinkedImage Image(string name, int width, int height) => Edits.EditTests.Image(name, width, height) with
    {
        StoredPpiX = 300,
        StoredPpiY = 300
    };

    private static Publication Images(Publication p, params (int Width, int Height)[] sizes) =>
        Do(p, new LinkImages([.. sizes.Select((s, i) => Image($"i{i}", s.Width, s.Height))]));

    private static int[] ImageIds(Publication p) => [.. p.Images.Keys.Order()];

    private static int[] FrameIds(Publication p) => [.. p.Frames.Keys.Order()];

    [Fact]
    public void Pictures_that_came_in_fill_what_is_empty_and_the_others_wait()
    {
        var p = Images(Frame(Frame(New(), 1, 0, 0), 1, 200, 0), (300, 200), (200, 300), (100, 100));
        int[] images = ImageIds(p), frames = FrameIds(p);
        p = Do(p, new ChangeTray([images[1]], TrayMove.Add));
        var after = Do(p, new ArriveImages { ImageIds = [.. images], FrameIds = [.. frames] });
        frames.Select(f => after.Frames[f].ImageId).ShouldBe([images[0], images[1]]);
        after.Tray.ImageIds.ShouldBe([images[2]], "What is placed waits no more, and what is not does.");
        Should.Throw<EditRefused>(() => new ArriveImages { ImageIds = [.. images], FrameIds = [.. frames] }.On(after)).Errors[0].Field.ShouldBe("frames");
        // However a picture is placed, it leaves the tray.
        Do(after, new MakeFrame { Page = 1, Box = new(0, 300, 50, 50), ImageId = images[2] }).Tray.ImageIds.ShouldBeEmpty();
        Do(after, new ChangeFrames { FrameIds = [frames[0]], ImageId = new(images[2]) }).Tray.ImageIds.ShouldBeEmpty();
        Do(after, new MakeFrames(0, [new(0, 300, 50, 50), new(60, 300, 50, 50)], Outline.Rectangle,
            null)
        { ImageIds = [images[2]] }).Tray.ImageIds.ShouldBeEmpty();
    }

    [Fact]
    public void A_grid_for_so_many_pictures_has_their_ratio_and_little_left_empty()
    {
        foreach (int count in Enumerable.Range(1, 60))
        {
            foreach (double ratio in new[] { 0.66, 1, 1.5 })
            {
                var grid = Formatum.Core.Arranging.FrameGrid.For(count, new(50, 50, 500, 700), ratio, 12);
                (grid.Rows * grid.Columns).ShouldBeGreaterThanOrEqualTo(count);
                (grid.Rows * grid.Columns - count).ShouldBeLessThan(Math.Max(grid.Rows, grid.Columns));
                var cell = grid.Fill(new(50, 50, 500, 700))[0];
                if (count > 3) (cell.Width / cell.Height / ratio).ShouldBeInRange(0.45, 2.2);
            }
        }
    }

    [Fact]
    public void Blank_pages_behind_are_filled_before_any_is_added_and_what_was_typed_stays_behind()
    {
        var p = New(4);
        p = Frame(p, 2, 0, 0);
        p = Do(p, new MakeFrame { Page = 2, Box = new(0, 200, 50, 20), Name = "caption", Text = new([new("No. 1", Formatum.Core.Stories.TextStyle.Usual)]) });
        p = Do(p, new MakeFrame { Page = 2, Box = new(0, 300, 50, 20), Name = "folio", Text = new([new("{page}", Formatum.Core.Stories.TextStyle.Usual)]) });
        p = Images(p, (10, 10), (20, 20), (30, 30), (40, 40));
        var after = Do(p, new PourImages { ImageIds = [.. ImageIds(p)], FrameIds = [p.Frames.Keys.Min()], LayoutPages = [2] });
        after.PageCount.ShouldBe(5);
        after.Order.Ids.Take(4).ShouldBe(p.Order.Ids);
        after.Order.Ids.Select(id => after.FramesOnPage(id).Count(f => f.ImageId is not null)).ShouldBe([0, 1, 1, 1, 1]);
        after.Frames.Values.Where(f => f.Name == "caption").Select(f => after.StoryOf(f)!.Text.Plain).ShouldBe(["No. 1", "", "", ""], ignoreOrder: true);
        after.Frames.Values.Where(f => f.Name == "folio").ShouldAllBe(f => after.StoryOf(f)!.Text.Plain == "{page}");
    }

    [Fact]
    public void Rows_are_read_from_the_top_and_from_the_left()
    {
        var p = New(2);
        p = Frame(p, 2, 0, 0, name: "on 2");
        p = Frame(p, 1, 200, 20, name: "b");
        p = Frame(p, 1, 0, 300, name: "d");
        p = Frame(p, 1, 0, 0, name: "a");
        // Reaches down between the rows: most of it is beside the first.
        p = Frame(p, 1, 400, 45, 100, 200, name: "c");
        ReadingOrder.Of(p, p.Frames.Values).Select(f => f.Name).ShouldBe(["a", "b", "c", "d", "on 2"]);
        p = Do(p, new ChangeSetup(p.Setup with { BindsRight = true }));
        ReadingOrder.Of(p, p.Frames.Values).Select(f => f.Name).ShouldBe(["c", "b", "a", "d", "on 2"]);
    }

    [Fact]
    public void The_tray_keeps_order_and_each_image_once()
    {
        var p = Images(New(), (10, 10), (10, 10), (10, 10));
        var ids = ImageIds(p);
        p = Do(p, new ChangeTray([ids[0], ids[1]], TrayMove.Add));
        p = Do(p, new ChangeTray([ids[2], ids[0]], TrayMove.Add));
        p.Tray.ImageIds.ShouldBe([ids[0], ids[1], ids[2]]);
        p = Do(p, new ChangeTray([ids[2]], TrayMove.Reorder, ids[0]));
        p.Tray.ImageIds.ShouldBe([ids[2], ids[0], ids[1]]);
        p = Do(p, new ChangeTray([ids[2]], TrayMove.Reorder));
        p.Tray.ImageIds.ShouldBe([ids[0], ids[1], ids[2]]);
        p = Do(p, new ChangeTray([ids[1]], TrayMove.Remove));
        p.Tray.ImageIds.ShouldBe([ids[0], ids[2]]);
        p = Frame(p, 1, 0, 0);
        var placing = new PlaceFromTray(FrameIds(p)[0], ids[2]).On(p);
        var after = p.With(placing);
        (after.Tray.ImageIds.Single(), after.Frames.Values.Single().ImageId).ShouldBe((ids[0], (int?)ids[2]));
        after.With(placing.Inverse()).Tray.ShouldBe(p.Tray);
        Do(after, new UnlinkImages([ids[0]])).Tray.ImageIds.ShouldBeEmpty();
    }

    [Fact]
    public void Poured_in_order_the_first_goes_into_the_first_and_what_is_left_waits()
    {
        var p = Images(New(), (10, 10), (10, 10), (10, 10));
        p = Frame(Frame(p, 1, 200, 0), 1, 0, 0);
        var ids = ImageIds(p);
        p = Do(p, new ChangeTray([ids[2], ids[1], ids[0]], TrayMove.Add));
        p = Do(p, new PourImages { ImageIds = p.Tray.ImageIds, FrameIds = [.. FrameIds(p)] });
        p.Frames[FrameIds(p)[1]].ImageId.ShouldBe(ids[2]);
        p.Frames[FrameIds(p)[0]].ImageId.ShouldBe(ids[1]);
        p.Tray.ImageIds.ShouldBe([ids[0]]);
        Should.Throw<EditRefused>(() => Do(p, new PourImages
        {
            ImageIds = [ids[0]],
            FrameIds = [.. FrameIds(p)]
        })).Message.ShouldContain("no empty placeholder");
    }

    [Fact]
    public void Best_match_puts_tall_into_tall_and_wide_into_wide()
    {
        var p = Images(New(), (3000, 2000), (2000, 3000), (3000, 2000), (2500, 2500));
        p = Frame(p, 1, 0, 0, 100, 150);
        p = Frame(p, 1, 200, 0, 150, 100);
        p = Frame(p, 1, 0, 300, 150, 100);
        p = Frame(p, 1, 200, 300, 100, 100);
        var (images, frames) = (ImageIds(p), FrameIds(p));
        p = Do(p, new PourImages { ImageIds = [.. images], FrameIds = [.. frames], Order = PourOrder.Best });
        frames.Select(f => p.Frames[f].ImageId).ShouldBe([images[1], images[0], images[2], images[3]]);
        p.Frames.Values.Sum(f => p.FittedOf(f)!.Value.Coverage.CropLoss).ShouldBe(0, 1e-9);
    }

    [Fact]
    public void A_picture_too_coarse_for_a_large_frame_goes_into_a_small_one()
    {
        var p = Images(New(), (200, 200), (3000, 3000));
        p = Frame(Frame(p, 1, 0, 0, 300, 300), 1, 400, 0, 50, 50);
        var (images, frames) = (ImageIds(p), FrameIds(p));
        p = Do(p, new PourImages { ImageIds = [.. images], FrameIds = [.. frames], Order = PourOrder.Best });
        frames.Select(f => p.Frames[f].ImageId).ShouldBe([images[1], images[0]]);
    }

    [Fact]
    public void Best_match_is_never_worse_than_tray_order_and_uses_each_picture_once()
    {
        var size = Gen.Select(Gen.Int[50, 4000], Gen.Int[50, 4000]);
        var box = Gen.Select(Gen.Double[20, 300], Gen.Double[20, 300]);
        Gen.Select(size.Array[1, 12], box.Array[1, 12]).Sample((sizes, boxes) =>
        {
            var p = Images(New(), sizes);
            foreach (var (width, height) in boxes) p = Frame(p, 1, 0, 0, width, height);
            var frames = ReadingOrder.Of(p, p.Frames.Values);
            var images = ImageIds(p).Select(id => p.Images[id]).ToList();
            double Total(PourOrder order)
            {
                var plan = Pouring.Plan(p, images, frames, order);
                plan.Select(x => x.ImageId).ShouldBeUnique();
                plan.Select(x => x.FrameId).ShouldBeUnique();
                plan.Length.ShouldBe(Math.Min(sizes.Length, boxes.Length));
                return plan.Sum(x => Pouring.Cost(p.Setup, p.PictureFitOf(p.Frames[x.FrameId] with { ImageId = x.ImageId })!.Value));
            }
            Total(PourOrder.Best).ShouldBeLessThanOrEqualTo(Total(PourOrder.Tray) + 1e-9);
        }, iter: 200);
    }

    [Theory]
    [InlineData(false, 1, new[] { 1 }, 4)]
    [InlineData(true, 4, new[] { 2, 3 }, 8)]
    public void Pages_of_the_same_layout_are_added_until_all_have_a_place(bool facing, int pages, int[] layout, int after)
    {
        var p = Images(New(pages, facing), [.. Enumerable.Repeat((300, 200), 10)]);
        foreach (int page in layout)
        {
            p = Frame(p, page, 10, 10, name: "A");
            p = Frame(p, page, 200, 10, name: "B");
            p = Frame(p, page, 10, 300, name: "C");
        }
        if (facing) p = Do(p, new RemoveFrames([FrameIds(p)[5]]));
        p = Do(p, new MakeFrame
        {
            Page = layout[0],
            Box = new(0, 700, 100, 20),
            Text = Core.Stories.FrameText.Empty(Core.Stories.TextStyle.Usual),
            Name = "Price"
        });
        var images = ImageIds(p);
        var pour = new PourImages
        {
            ImageIds = [.. images],
            FrameIds = [.. FrameIds(p).Where(f => p.Frames[f].IsPlaceholder)],
            LayoutPages = [.. layout],
            RemoveLeftovers = false
        };
        var poured = Do(p, pour);
        poured.PageCount.ShouldBe(facing ? pages + 2 : after);
        ReadingOrder.Of(poured, poured.Frames.Values).Where(f => f.ImageId is not null).Select(f => f.ImageId!.Value).ShouldBe(images);
        int copies = facing ? 2 : 4;
        poured.Frames.Values.Count(f => f.Name == "Price").ShouldBe(copies);
        // Versos stay versos: the copies lie behind their pages.
        if (facing) poured.Order.Ids.Take(3).ShouldBe(p.Order.Ids.Take(3));
        if (facing) poured.Order.Ids[^1].ShouldBe(p.Order.Ids[^1]);
        poured.Frames.Values.Count(f => f.IsPlaceholder).ShouldBe(facing ? 0 : 2);
        if (!facing) Do(p, pour with { RemoveLeftovers = true }).Frames.Values.Count(f => f.IsPlaceholder).ShouldBe(0);
    }

    [Fact]
    public void A_full_page_is_a_layout_too_and_a_locked_picture_comes_along()
    {
        var p = Images(New(), (300, 200), (300, 200), (300, 200));
        var ids = ImageIds(p);
        p = Do(p, new MakeFrame { Page = 1, Box = new(0, 0, 100, 100), ImageId = ids[0] });
        p = Do(p, new PourImages { ImageIds = [ids[1], ids[2]], FrameIds = [], LayoutPages = [1] });
        p.PageCount.ShouldBe(3);
        var sealedPage = Do(Do(p, new MakeFrame { Page = 1, Box = new(0, 300, 50, 50), ImageId = ids[2], Name = "Seal" }),
            new ChangeFrames { FrameIds = [FrameIds(p)[^1] + 1], Locked = true });
        Do(sealedPage, new PourImages { ImageIds = [ids[1]], FrameIds = [], LayoutPages = [1] }).Frames.Values.Where(f => f.Name == "Seal")
            .Select(f => f.ImageId).ShouldBe([ids[2], ids[2]]);
        ReadingOrder.Of(p, p.Frames.Values).Select(f => f.ImageId).ShouldBe([ids[0], ids[1], ids[2]]);
    }

    [Fact]
    public void A_picture_is_replaced_swapped_and_sent_back()
    {
        var p = Images(New(), (300, 200), (200, 300));
        var ids = ImageIds(p);
        p = Do(p, new MakeFrame { Page = 1, Box = new(0, 0, 100, 100), ImageId = ids[0] });
        p = Do(p, new MakeFrame { Page = 1, Box = new(200, 0, 100, 100), ImageId = ids[1] });
        var frames = FrameIds(p);
        p = Do(p, new ChangeFrames { FrameIds = [frames[0]], Recrop = new Recrop(1.5, null) });
        p = Do(p, new ReplaceImages([(frames[0], ids[1]), (frames[1], ids[0])], false, "Swap images"));
        frames.Select(f => p.Frames[f].ImageId).ShouldBe([ids[1], ids[0]]);
        p.Frames[frames[0]].Recrop.ShouldBe(Recrop.None);
        p.Frames[frames[0]].FormerRecrop.ShouldBe(new(new Recrop(1.5, null), true));
        p = Do(p, new ReplaceImages([(frames[0], null)], true, "Send back to tray"));
        p.Frames[frames[0]].IsPlaceholder.ShouldBeTrue();
        p.Frames[frames[0]].Recrop.ShouldBe(Recrop.None);
        p.Tray.ImageIds.ShouldBe([ids[1]]);
    }
}
