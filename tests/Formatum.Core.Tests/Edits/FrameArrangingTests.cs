using CsCheck;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Tests.Fitting;
using Formatum.Core.Tests.Publications;

namespace Formatum.Core.Tests.Edits;

/// <summary>Frames stacked, locked, hidden, grouped, flipped, turned, copied and pasted.</summary>
public class FrameArrangingTests
{
    private static Publication Begin(int frames = 4)
    {
        var p = Publication.Create(SetupTests.A4(), 2).Do(new LinkImages([EditTests.Image("a.jpg")]));
        for (int i = 1; i <= frames; i++)
            p = p.Do(new MakeFrame { Page = 1, Box = new(20 * i, 10, 60, 40), Name = $"{i}", ImageId = i == 1 ? p.Images.Keys.Single() : null });
        return p;
    }

    private static int Id(Publication p, string name) => p.Frames.Values.First(f => f.Name == name).Id;

    private static string Stack(Publication p) => string.Concat(Spread.At(p, 0).FramesOf(p).Select(f => f.Frame.Name));

    [Theory]
    [InlineData("2", StackMove.Front, "1342")]
    [InlineData("2", StackMove.Forward, "1324")]
    [InlineData("2", StackMove.Backward, "2134")]
    [InlineData("3", StackMove.Back, "3124")]
    [InlineData("4", StackMove.Forward, "1234")]
    [InlineData("1,3", StackMove.Front, "2413")]
    [InlineData("1,3", StackMove.Forward, "2413")]
    [InlineData("2,4", StackMove.Backward, "2413")]
    [InlineData("4,2", StackMove.Back, "2413")]
    public void Frames_are_brought_forward_and_sent_back(string names, StackMove move, string after)
    {
        var p = Begin();
        Stack(p.Do(new RestackFrames([.. names.Split(',').Select(n => Id(p, n))], move))).ShouldBe(after);
    }

    [Fact]
    public void A_locked_frame_is_not_moved_sized_turned_or_removed()
    {
        var p = Begin();
        int id = Id(p, "1");
        p = p.Do(new ChangeFrames { FrameIds = [id], Locked = true });
        foreach (Edit edit in new Edit[]
                 {
                     new PlaceFrames([new FramePlace(id, 1, new(0, 0, 9, 9))]), new ChangeFrames { FrameIds = [id], X = 5 },
                         new ChangeFrames { FrameIds = [id], Angle = 5 }, new RemoveFrames([id]),
                     new FlipFrames([id], 0, true),
                 })
            Should.Throw<EditRefused>(() => edit.On(p)).Message.ShouldBe("1 is locked. Unlock it first.");
        // Its picture may still be worked on.
        p.Do(new RecropFrame(id, new HandMove.Zoom(2, new(5, 5)), true));
        p.Do(new ChangeFrames { FrameIds = [id], Locked = false }).Do(new RemoveFrames([id])).Frames.ContainsKey(id).ShouldBeFalse();
    }

    [Fact]
    public void Hidden_frames_are_not_in_the_scene()
    {
        var p = Begin();
        Core.Composing.Composer.Compose(p, Spread.At(p, 0), new Typesetting.HalfWide()).Items.Length.ShouldBe(4);
        p = p.Do(new ChangeFrames { FrameIds = [Id(p, "2")], Hidden = true });
        Core.Composing.Composer.Compose(p, Spread.At(p, 0), new Typesetting.HalfWide()).Items.Select(i => i.FrameId).ShouldNotContain(Id(p, "2"));
    }

    [Fact]
    public void Frames_flipped_twice_are_as_they_were_and_once_are_seen_in_a_mirror() =>
        Gen.Select(Gen.Bool, Gen.Double[0, 360], Gen.Double[0, 1], Gen.Double[-40, 40], Gen.Double[1, 3]).Sample((across, angle, align, rotation, zoom) =>
        {
            var p = Begin(1);
            int id = Id(p, "1");
            p = p.Do(new ChangeFrames
            {
                FrameIds = [id],
                Angle = angle,
                Outline = Outlines.Polygon(5),
                Set = new() { AlignX = align, AlignY = 1 - align, Rotation = rotation, InsetLeft = 3, InsetTop = 5 }
            });
            p = p.Do(new RecropFrame(id, new HandMove.Zoom(zoom, new(20, 10)), true));
            static Affine Shown(Publication q, int frame) => q.Frames[frame].Pose.ToPage.After(q.PlacementOf(q.Frames[frame])!.Value.Matrix);
            var flipped = p.Do(new FlipFrames([id], 0, across));
            var centre = p.Frames[id].Pose.Bounds.Centre;
            var mirror = across ? new Affine(-1, 0, 0, 1, 2 * centre.X, 0) : new Affine(1, 0, 0, -1, 0, 2 * centre.Y);
            FitterPropertyTests.ShouldBeSame(Shown(flipped, id), mirror.After(Shown(p, id)));
            FitterPropertyTests.ShouldBeSame(Shown(flipped.Do(new FlipFrames([id], 0, across)), id), Shown(p, id));
        }, iter: 200);

    [Fact]
    public void A_picture_is_scaled_with_its_frame_where_asked()
    {
        var p = Begin(1);
        int id = Id(p, "1");
        p = p.Do(new RecropFrame(id, new HandMove.Zoom(1.7, new(20, 10)), true)).Do(new RecropFrame(id, new HandMove.Pan(new(4, 2)), true));
        var before = p.PlacementOf(p.Frames[id])!.Value.Matrix;
        p = p.Do(new PlaceFrames([new FramePlace(id, 1, new(20, 10, 120, 80))], PictureAtSizing.Scaled));
        FitterPropertyTests.ShouldBeSame(p.PlacementOf(p.Frames[id])!.Value.Matrix, Affine.Scaling(2, 2).After(before));
    }

    [Fact]
    public void Frames_are_repeated_in_a_line_and_in_rows_and_groups_are_copied_as_groups()
    {
        var p = Begin(2).Do(new GroupFrames([.. Begin(2).Frames.Keys], true));
        p.Frames.Values.Select(f => f.GroupId).Distinct().Count().ShouldBe(1);
        var copied = p.Do(new RepeatFrames([.. p.Frames.Keys], 0, new(0, 50), 3));
        copied.Frames.Count.ShouldBe(8);
        copied.Frames.Values.GroupBy(f => f.GroupId).Select(g => g.Count()).ShouldBe([2, 2, 2, 2]);
        copied.Frames.Values.Where(f => f.Name == "1").Select(f => f.Box.Y).Order().ShouldBe([10, 60, 110, 160]);
        var grid = p.Do(new RepeatFrames([Id(p, "1")], 0, new(70, 45), 2, 3));
        grid.Frames.Values.Where(f => f.Name == "1").Select(f => (f.Box.X, f.Box.Y)).Order()
            .ShouldBe([(20, 10), (20, 55), (20, 100), (90, 10), (90, 55), (90, 100), (160, 10), (160, 55), (160, 100)]);
        Should.Throw<EditRefused>(() => new RepeatFrames([Id(p, "1")], 0, new(1, 1), 2000).On(p)).Errors[0].Field.ShouldBe("columns");
        Should.Throw<EditRefused>(() => new RepeatFrames([Id(p, "1")], 0, new(double.NaN, 1), 1).On(p)).Errors[0].Field.ShouldBe("by");
    }

    [Fact]
    public void Pasted_into_another_publication_frames_bring_their_images_and_rules_along_once()
    {
        var p = Begin(2);
        p = p.Do(new DefineRule { Name = "Root", Settings = new() { InsetTop = 4 } });
        p = p.Do(new DefineRule { Name = "Leaf", BasedOnId = p.Rules.Keys.Single(), Settings = new() { Fit = FitKind.Fit } });
        int leaf = p.Rules.Values.Single(r => r.Name == "Leaf").Id;
        p = p.Do(new ChangeFrames { FrameIds = [Id(p, "1")], RuleId = new(leaf) });
        var other = Publication.Create(SetupTests.A4(), 5);
        other = other.Do(new PasteFrames(p, [.. p.Frames.Keys], 1, null)).Do(new PasteFrames(p, [Id(p, "1")], 2, new Vec(100, 200)));
        other.Images.Count.ShouldBe(1);
        other.Rules.Values.Single().Settings.ShouldBe(new FitSettings { Fit = FitKind.Fit, InsetTop = 4 });
        var pasted = other.Frames.Values.Where(f => f.Name == "1").OrderBy(f => f.Id).ToArray();
        pasted[0].Box.ShouldBe(p.Frames[Id(p, "1")].Box);
        pasted[0].PageId.ShouldBe(other.Order.Ids[1]);
        pasted[1].Box.Centre.ShouldBe(new Vec(100, 200));
        other.FittedOf(pasted[0])!.Value.Placement.ShouldBe(p.FittedOf(p.Frames[Id(p, "1")])!.Value.Placement);
        Should.Throw<EditRefused>(() => new PasteFrames(p, [777], 0, null).On(other)).Message.ShouldContain("no longer there");
    }

    [Fact]
    public void A_grid_without_room_and_an_outline_without_corners_are_refused()
    {
        var p = Begin(0);
        Should.Throw<EditRefused>(() => new MakeFrames(0, [new(0, 0, -3, 5)], Outline.Rectangle, null).On(p)).Errors[0].Field.ShouldBe("grid");
        Should.Throw<EditRefused>(() => new MakeFrame
        {
            Page = 1,
            Box = new(0, 0, 9, 9),
            Outline = new PolygonOutline([new(0, 0),
            new(1, 1)])
        }.On(p)).Errors[0].Field.ShouldBe("outline");
        Should.Throw<EditRefused>(() => new MakeFrame
        {
            Page = 1,
            Box = new(0, 0, 9, 9),
            Outline = new PathOutline([new(new(0, 0)), new(new(double.NaN, 1)),
            new(new(1, 0))])
        }.On(p)).Errors[0].Field.ShouldBe("outline");
    }
}
