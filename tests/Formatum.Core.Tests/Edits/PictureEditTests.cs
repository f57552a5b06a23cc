using CsCheck;
using Formatum.Core.Arranging;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Tests.Fitting;
using Formatum.Core.Tests.Publications;

namespace Formatum.Core.Tests.Edits;

/// <summary>Recrops, frames that hold, frames made to measure, subject points.</summary>
public class PictureEditTests
{
    private static readonly Box Start = new(20, 30, 200, 120);

    private static (Publication Publication, int Frame) Placed(FitSettings? own = null, Box? box = null)
    {
        var p = Publication.Create(SetupTests.A4(), 2).Do(new LinkImages([EditTests.Image("wide.jpg"), EditTests.Image("tall.jpg", 1000, 2400)]));
        p = p.Do(new MakeFrame { Page = 1, Box = box ?? Start, ImageId = p.Images.Values.Single(i => i.Name == "wide.jpg").Id, Own = own ?? FitSettings.Open });
        return (p, p.Frames.Keys.Single());
    }

    private static Affine MapOf(Publication p, int frame) => p.PlacementOf(p.Frames[frame])!.Value.Matrix;

    private static PlaceFrames Sized(int frame, Box box) => new([new FramePlace(frame, 1, box)], PictureAtSizing.Refitted);

    [Theory]
    [InlineData(3000, 1000)]
    [InlineData(1000, 2400)]
    [InlineData(6000, 4000)]
    public void A_held_picture_whose_file_became_another_keeps_its_proportions_and_covers_what_it_did(int width, int height)
    {
        var (p, id) = Placed(new() { StaysFitted = false });
        var was = p.FittedOf(p.Frames[id])!.Value;
        var image = p.Images.Values.Single(i => i.Name == "wide.jpg");
        var after = p.Do(new UpdateImages([image with { StoredWidthPx = width, StoredHeightPx = height, ContentHash = new('b', 64) }]));
        var now = after.FittedOf(after.Frames[id])!.Value;
        now.Coverage.Distortion.ShouldBe(1, 1e-9);
        now.Coverage.BareArea.ShouldBe(was.Coverage.BareArea, 1e-9);
        var (middle, before) = (now.Placement.Matrix.Apply(new(0.5, 0.5)), was.Placement.Matrix.Apply(new(0.5, 0.5)));
        (middle - before).Length.ShouldBe(0, 1e-9);
        // No larger than it has to be: one side is as it was.
        Math.Min(Math.Abs(now.Placement.Matrix.A / was.Placement.Matrix.A), Math.Abs(now.Placement.Matrix.D / was.Placement.Matrix.D)).ShouldBe(1, 1e-9);
    }

    [Fact]
    public void A_picture_panned_by_hand_moves_as_far_and_no_bare_area_stops_it()
    {
        var (p, id) = Placed();
        p = p.Do(new RecropFrame(id, new HandMove.Zoom(2, new(100, 60)), true));
        var before = MapOf(p, id);
        p = p.Do(new RecropFrame(id, new HandMove.Pan(new(30, -20)), true));
        var after = MapOf(p, id);
        (after.E - before.E).ShouldBe(30, 1e-9);
        (after.F - before.F).ShouldBe(-20, 1e-9);
        // Far too far: it stops at the picture's edge.
        p = p.Do(new RecropFrame(id, new HandMove.Pan(new(5000, 0)), true));
        MapOf(p, id).E.ShouldBe(0, 1e-9);
        p.FittedOf(p.Frames[id])!.Value.Coverage.BareArea.ShouldBe(0, 1e-12);
        p = p.Do(new ChangeFrames { FrameIds = [id], Recrop = Recrop.None });
        p.Frames[id].Recrop.ShouldBe(Recrop.None);
    }

    [Fact]
    public void A_recrop_survives_another_size_and_another_rule_and_is_undone_to_the_bit() =>
        Gen.Select(Gen.Double[1.1, 4], Gen.Double[-40, 40], Gen.Double[-40, 40], Gen.Double[20, 500], Gen.Double[20, 500]).Sample((zoom, x, y, width, height) =>
    {
        var (p, id) = Placed();
        p = p.Do(new RecropFrame(id, new HandMove.Zoom(zoom, new(80, 50)), true)).Do(new RecropFrame(id, new HandMove.Pan(new(x, y)), true));
        var recrop = p.Frames[id].Recrop;
        var before = MapOf(p, id);
        p = p.Do(Sized(id, Start with { Width = width, Height = height }));
        p.Frames[id].Recrop.ShouldBe(recrop);
        p = p.Do(Sized(id, Start));
        MapOf(p, id).ShouldBe(before);
        p = p.Do(new DefineRule { Name = "Airy", Settings = new() { InsetLeft = 10 } });
        p = p.Do(new ChangeFrames { FrameIds = [id], RuleId = new(p.Rules.Keys.Single()) });
        p.Frames[id].Recrop.ShouldBe(recrop);
        p = p.Do(new ChangeFrames { FrameIds = [id], RuleId = new(null) });
        MapOf(p, id).ShouldBe(before);
    }, iter: 40);

    [Fact]
    public void Taking_the_picture_out_lets_go_of_its_recrop()
    {
        var (p, id) = Placed();
        p = p.Do(new RecropFrame(id, new HandMove.Zoom(2, new(10, 10)), true)).Do(new ChangeFrames { FrameIds = [id], ImageId = new(null) });
        p.Frames[id].Recrop.ShouldBe(Recrop.None);
    }

    [Fact]
    public void A_frame_that_does_not_stay_fitted_crops_its_picture_where_it_lies()
    {
        var (p, id) = Placed();
        var fitted = MapOf(p, id);
        p = p.Do(new ChangeFrames { FrameIds = [id], Set = new() { StaysFitted = false } });
        MapOf(p, id).ShouldBe(fitted);
        // Its left and upper edges drawn inwards: on the page the picture has not moved, and more of it is hidden.
        double loss = p.FittedOf(p.Frames[id])!.Value.Coverage.CropLoss;
        p = p.Do(Sized(id, new(60, 50, 160, 100)));
        var held = MapOf(p, id);
        (60 + held.E).ShouldBe(Start.X + fitted.E, 1e-9);
        (50 + held.F).ShouldBe(Start.Y + fitted.F, 1e-9);
        var now = p.FittedOf(p.Frames[id])!.Value;
        now.Coverage.CropLoss.ShouldBeGreaterThan(loss);
        now.Placement.Flags.HasFlag(FitFlags.Holds).ShouldBeTrue();
        // Drawn out beyond the picture, it uncovers.
        p = p.Do(Sized(id, new(-300, 50, 700, 100)));
        p.FittedOf(p.Frames[id])!.Value.Coverage.BareArea.ShouldBeGreaterThan(0.5);
        // Moved, it goes along; fitted once, it fits and holds again.
        var wide = MapOf(p, id);
        p = p.Do(new PlaceFrames([new FramePlace(id, 1, new(-200, 70, 700, 100))]));
        MapOf(p, id).ShouldBe(wide);
        p = p.Do(new ChangeFrames { FrameIds = [id], FitOnce = true });
        p.FittedOf(p.Frames[id])!.Value.Coverage.BareArea.ShouldBe(0, 1e-12);
        p.FittedOf(p.Frames[id])!.Value.Placement.Flags.HasFlag(FitFlags.Holds).ShouldBeTrue();
        // Staying fitted again, it lets go.
        p = p.Do(new ChangeFrames { FrameIds = [id], Clear = [FitSetting.StaysFitted] });
        p.Frames[id].Held.ShouldBeNull();
        p = p.Do(Sized(id, Start));
        MapOf(p, id).ShouldBe(fitted);
    }

    [Theory]
    [InlineData(FitKind.Fill)]
    [InlineData(FitKind.Fit)]
    [InlineData(FitKind.Stretch)]
    [InlineData(FitKind.Natural)]
    public void A_fit_that_is_pressed_shows_just_that_also_where_it_holds_already_and_the_crop_can_be_had_back(FitKind pressed)
    {
        var (p, id) = Placed();
        var alone = MapOf(p.Do(new ChangeFrames { FrameIds = [id], Set = new() { Fit = pressed } }), id);
        p = p.Do(new RecropFrame(id, new HandMove.Zoom(1.48, new(70, 50)), true));
        var (recrop, cropped) = (p.Frames[id].Recrop, MapOf(p, id));
        var press = new ChangeFrames { FrameIds = [id], Set = new() { Fit = pressed }, OnlyOverRules = true, FitOnce = true };
        var after = p.Do(press);
        MapOf(after, id).ShouldBe(alone);
        // The rule, or what is built in, says Fill already.
        after.Frames[id].Own.Fit.ShouldBe(pressed == FitKind.Fill ? null : pressed);
        after.Do(press).Frames[id].FormerRecrop.ShouldBe(new(recrop, false));
        var back = after.Do(new ChangeFrames { FrameIds = [id], RecropBack = true });
        back.Frames[id].Recrop.ShouldBe(recrop);
        back.Frames[id].FormerRecrop.ShouldBeNull();
        if (pressed == FitKind.Fill) MapOf(back, id).ShouldBe(cropped);
    }

    [Fact]
    public void Another_picture_starts_as_its_rule_fits_it_and_an_update_of_the_same_file_keeps_its_crop()
    {
        var (p, id) = Placed();
        p = p.Do(new RecropFrame(id, new HandMove.Zoom(1.48, new(70, 50)), true));
        var recrop = p.Frames[id].Recrop;
        int tall = p.Images.Values.Single(i => i.Name == "tall.jpg").Id;
        var fresh = p.Do(new ReplaceImages([(id, null)], true, "Send back to tray")).Do(new ChangeFrames { FrameIds = [id], ImageId = new(tall) });
        foreach (var other in new[] { p.Do(new ChangeFrames { FrameIds = [id], ImageId = new(tall) }), p.Do(new PlaceFromTray(id, tall)), fresh })
        {
            other.Frames[id].Recrop.ShouldBe(Recrop.None);
            other.Frames[id].FormerRecrop.ShouldBe(new(recrop, true));
            other.Do(new ChangeFrames { FrameIds = [id], RecropBack = true }).Frames[id].Recrop.ShouldBe(recrop);
        }
        var image = p.ImageOf(p.Frames[id])!;
        p.Do(new UpdateImages([image with { ContentHash = new('c', 64) }])).Frames[id].Recrop.ShouldBe(recrop);
        p.Do(new ReplaceImages([(id, tall)], false, "Replace by larger picture", KeepRecrop: true)).Frames[id].Recrop.ShouldBe(recrop);
    }

    [Fact]
    public void An_edge_that_crops_leaves_the_picture_still_on_the_page_whatever_the_fit()
    {
        Gen.Select(Gen.Double[-1, 1], Gen.Double[-1, 1], Gen.Int[0, 8], Gen.Double[-180, 180], Gen.Int[0, 3]).Sample((dx, dy, kind, angle, turned) =>
        {
            var (p, id) = Placed(new() { Fit = Enum.GetValues<FitKind>()[kind % Enum.GetValues<FitKind>().Length], AlignX = 0.3 });
            if (turned == 0) p = p.Do(new ChangeFrames { FrameIds = [id], Angle = angle });
            if (turned == 1) p = p.Do(new RecropFrame(id, new HandMove.Turn(angle / 8), false));
            Affine OnPage(Publication q) => q.Frames[id].Pose.ToPage.After(MapOf(q, id));
            var before = OnPage(p);
            var pose = Dragging.Resized(p.Frames[id].Pose, new(1, -1), new(90 * dx, 60 * dy), false);
            p = p.Do(new PlaceFrames([new(id, 1, pose.Box, pose.Angle)], PictureAtSizing.Cropped));
            foreach (var corner in new[] { new Vec(0, 0), new Vec(1, 0), new Vec(0, 1) })
                (OnPage(p).Apply(corner) - before.Apply(corner)).Length.ShouldBe(0, 1e-3);
            // It is a recrop: it survives another size and back.
            var cropped = MapOf(p, id);
            var wider = p.Do(new PlaceFrames([new(id, 1, pose.Box with { Width = pose.Box.Width * 1.5 }, pose.Angle)], PictureAtSizing.Refitted));
            var again = wider.Do(new PlaceFrames([new(id, 1, pose.Box, pose.Angle)], PictureAtSizing.Refitted));
            (MapOf(again, id).Apply(new(0.3, 0.7)) - cropped.Apply(new(0.3, 0.7))).Length.ShouldBe(0, 1e-6);
        }, iter: 300);
    }

    [Fact]
    public void A_held_picture_that_is_sized_across_the_fold_stays_where_it_is_on_the_spread()
    {
        var (p, id) = Placed(new() { StaysFitted = false });
        double width = p.Setup.PageWidth;
        p = p.Do(new AddPages(3, 2));
        // Its frame lies on pages 2 and 3 and belongs to 3; sized, it belongs to 2.
        p = p.Do(new PlaceFrames([new(id, 3, new(-150, 30, 400, 120))]));
        double onSpread = width + p.Frames[id].Box.X + MapOf(p, id).E;
        p = p.Do(new PlaceFrames([new(id, 2, new(width - 150, 30, 200, 120))], PictureAtSizing.Refitted));
        (p.Frames[id].Box.X + MapOf(p, id).E).ShouldBe(onSpread, 1e-6);
    }

    [Fact]
    public void A_crop_by_the_edge_of_a_held_picture_is_kept_when_it_stays_fitted_again()
    {
        var (p, id) = Placed(new() { StaysFitted = false });
        p = p.Do(Sized(id, new(60, 50, 160, 100)));
        var cropped = MapOf(p, id);
        p.Frames[id].Recrop.ShouldNotBe(Recrop.None);
        p = p.Do(new ChangeFrames { FrameIds = [id], Clear = [FitSetting.StaysFitted] });
        p.Frames[id].Held.ShouldBeNull();
        (MapOf(p, id).Apply(new(0.2, 0.9)) - cropped.Apply(new(0.2, 0.9))).Length.ShouldBe(0, 1e-6);
    }

    [Fact]
    public void What_a_turn_enlarged_to_leave_nothing_bare_is_given_back_when_it_is_turned_back()
    {
        var (p, id) = Placed();
        p = p.Do(new RecropFrame(id, new HandMove.Zoom(1.2, new(100, 60)), true));
        double zoom = p.Frames[id].Recrop.Zoom;
        p = p.Do(new RecropFrame(id, new HandMove.Figures(null, null, null, null, 15), true));
        p.FittedOf(p.Frames[id])!.Value.Coverage.BareArea.ShouldBe(0, 1e-9);
        var turned = p.PlacementOf(p.Frames[id])!.Value.ScaleX;
        p = p.Do(new RecropFrame(id, new HandMove.Pan(new(1, 0)), true)).Do(new RecropFrame(id, new HandMove.Figures(null, null, null, null, 0), true));
        p.PlacementOf(p.Frames[id])!.Value.ScaleX.ShouldBeLessThan(turned);
        p.Frames[id].Recrop.Zoom.ShouldBe(zoom, 1e-9);
        // A scale that is set while it is turned is the hand's own.
        p = p.Do(new RecropFrame(id, new HandMove.Figures(null, null, null, null, 15), true))
            .Do(new RecropFrame(id, new HandMove.Zoom(2, new(100, 60)), true));
        double own = p.PlacementOf(p.Frames[id])!.Value.ScaleX;
        p = p.Do(new RecropFrame(id, new HandMove.Turn(-15), true));
        p.PlacementOf(p.Frames[id])!.Value.ScaleX.ShouldBe(own, 1e-9);
    }

    [Fact]
    public void A_typed_scale_goes_about_the_subject_or_what_the_recrop_holds()
    {
        var (p, id) = Placed();
        var image = p.ImageOf(p.Frames[id])!;
        p = p.Do(new ChangeSubjects([new(image.Id, new(0.9, 0.3), null)]));
        var subject = MapOf(p, id).Apply(new(0.9, 0.3));
        p = p.Do(new RecropFrame(id, new HandMove.Figures(1.1, 1.1, null, null, null, new(0.9, 0.3)), false));
        (MapOf(p, id).Apply(new(0.9, 0.3)) - subject).Length.ShouldBe(0, 1e-6);
    }

    [Fact]
    public void A_rule_that_stops_its_frames_staying_fitted_leaves_every_picture_where_it_is()
    {
        var (p, id) = Placed();
        p = p.Do(new DefineRule { Name = "House", Default = true, Settings = new() { Fit = FitKind.Fit } });
        var before = MapOf(p, id);
        int rule = p.Rules.Keys.Single();
        p = p.Do(new DefineRule { RuleId = rule, Name = "House", Settings = new() { Fit = FitKind.Fit, StaysFitted = false } });
        MapOf(p, id).ShouldBe(before);
        p = p.Do(new DefineRule { RuleId = rule, Name = "House", Settings = new() { Fit = FitKind.Fill, StaysFitted = false } });
        MapOf(p, id).ShouldBe(before);
        p = p.Do(new DefineRule { RuleId = rule, Name = "House", Settings = new() { Fit = FitKind.Fill } });
        MapOf(p, id).ShouldNotBe(before);
        p.Frames[id].Held.ShouldBeNull();
    }

    [Theory]
    [InlineData(FrameTakes.Size)]
    [InlineData(FrameTakes.NaturalSize)]
    [InlineData(FrameTakes.Ratio)]
    public void A_frame_takes_the_measure_of_its_picture_and_keeps_its_reference_point(FrameTakes takes) => Gen.Select(
        Gen.OneOfConst(Enum.GetValues<FitKind>()), Gen.OneOfConst(0.0, 0.5, 1), Gen.OneOfConst(0.0, 0.5, 1), Gen.Double[0, 10], Gen.OneOfConst(0.0, 90, 20),
            Gen.Double[0.7, 2]).Sample((fit, u, v, inset, rotation, zoom) =>
    {
        var (p, id) = Placed(new() { Fit = fit, InsetLeft = inset, InsetTop = 2 * inset, Rotation = rotation });
        p = p.Do(new RecropFrame(id, new HandMove.Zoom(zoom, new(50, 50)), false));
        var scale = p.PlacementOf(p.Frames[id])!.Value;
        var kept = p.Frames[id].Box.At(u, v);
        p = p.Do(new TakeMeasure([id], takes, new(u, v)));
        var frame = p.Frames[id];
        (frame.Box.At(u, v) - kept).Length.ShouldBeLessThan(1e-9);
        var (placement, coverage) = p.FittedOf(frame)!.Value;
        // All of the picture is seen; upright, nothing but the insets is bare.
        coverage.CropLoss.ShouldBe(0, 1e-6);
        if (takes == FrameTakes.Size) placement.ScaleX.ShouldBe(scale.ScaleX, 1e-6 * scale.ScaleX);
        if (takes == FrameTakes.NaturalSize) placement.ScaleX.ShouldBe(1, 1e-6);
        if (takes == FrameTakes.Ratio) frame.Box.Width.ShouldBe(Start.Width, 1e-9);
        if (rotation is 0 or 90)
        {
            var box = p.FitOf(frame).FitBox(frame.Box.Width, frame.Box.Height);
            coverage.BareArea.ShouldBe(1 - box.Width * box.Height / (frame.Box.Width * frame.Box.Height), 1e-6);
        }
    }, iter: 300);

    [Fact]
    public void A_subject_point_counts_once_it_is_accepted_and_for_every_frame_of_the_picture()
    {
        var (p, id) = Placed(box: new(0, 0, 50, 200));
        int image = p.Frames[id].ImageId!.Value;
        var before = MapOf(p, id);
        p = p.Do(new ChangeSubjects([new SubjectOf(image, null, new Vec(0.9, 0.5))]));
        MapOf(p, id).ShouldBe(before);
        p = p.Do(new ChangeSubjects([new SubjectOf(image, new Vec(0.9, 0.5), null)]));
        MapOf(p, id).E.ShouldBeLessThan(before.E);
        new Box(0, 0, 50, 200).Grown(1e-6).Contains(MapOf(p, id).Apply(new(0.9, 0.5))).ShouldBeTrue();
        Should.Throw<EditRefused>(() => new ChangeSubjects([new SubjectOf(image, new Vec(double.NaN, 0), null)]).On(p)).Errors[0].Field.ShouldBe("subject");
        Should.Throw<EditRefused>(() => new ChangeSubjects([new SubjectOf(777, null, null)]).On(p)).Errors[0].Field.ShouldBe("imageId");
    }

    [Fact]
    public void Moves_that_leave_nothing_and_frames_without_a_picture_are_refused()
    {
        var (p, id) = Placed();
        Should.Throw<EditRefused>(() => new RecropFrame(id, new HandMove.Zoom(0, default), false).On(p)).Errors[0].Field.ShouldBe("recrop");
        Should.Throw<EditRefused>(() => new RecropFrame(id, new HandMove.Pan(new(double.NaN, 0)), false).On(p)).Errors[0].Field.ShouldBe("recrop");
        p = p.Do(new ChangeFrames { FrameIds = [id], ImageId = new(null) });
        Should.Throw<EditRefused>(() => new RecropFrame(id, new HandMove.Pan(new(1, 0)), false).On(p)).Errors[0].Field.ShouldBe("frame");
        Should.Throw<EditRefused>(() => new TakeMeasure([id], FrameTakes.Size, default).On(p)).Errors[0].Field.ShouldBe("frame");
    }

    [Fact]
    public void A_picture_of_one_by_20000_pixels_is_fitted_and_recropped_like_any_other()
    {
        var p = Publication.Create(SetupTests.A4(), 1).Do(new LinkImages([EditTests.Image("hair.png", 1, 20_000)]));
        p = p.Do(new MakeFrame { Page = 1, Box = Start, ImageId = p.Images.Keys.Single() });
        int id = p.Frames.Keys.Single();
        foreach (var fit in Enum.GetValues<FitKind>())
        {
            p = p.Do(new ChangeFrames { FrameIds = [id], Set = new() { Fit = fit } });
            var (placement, coverage) = p.FittedOf(p.Frames[id])!.Value;
            placement.Matrix.IsFinite.ShouldBeTrue();
            coverage.CropLoss.ShouldBeInRange(0, 1);
            coverage.BareArea.ShouldBeInRange(0, 1);
            p.With(new RecropFrame(id, new HandMove.Pan(new(3, 3)), true).On(p)).FittedOf(p.Frames[id])!.Value.Placement.Matrix.IsFinite.ShouldBeTrue();
        }
    }
}
