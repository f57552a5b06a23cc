using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Testing;

namespace Formatum.Storage.Tests;

public sealed class PublicationStoreTests : IDisposable
{
    private static readonly Setup A4 = new() { Name = "Stored", PageWidth = 595, PageHeight = 842, Bleed = 0, Columns = new(2, 12) };

    private static readonly Maker Anna = new("anna", "Anna", "w1"), Ben = new("ben", "Ben", "w2");
    private static readonly Seen Now = Seen.Now(Anna);

    private readonly TempFolder _folder = new();

    public void Dispose() => _folder.Dispose();

    private PublicationStore Open() => new(_folder["test.db"]);

    private static LinkedImage Image => new()
    {
        Id = 0,
        Name = "\u201ca\u201d <b>.jpg",
        Path = "/p/a.jpg",
        Bytes = 5_000_000_000,
        Modified = DateTimeOffset.UnixEpoch,
        ContentHash = new string('a', 64),
        Format = "jpeg",
        StoredWidthPx = 30,
        StoredHeightPx = 20,
        Orientation = 6,
        StoredPpiX = 300.5,
        StoredPpiY = 299.5,
        Subject = new(0.25, 0.75),
    };

    private static async Task<int> Filled(PublicationStore store)
    {
        int id = (await store.CreateAsync(A4, 4)).Id;
        var linked = await store.EditAsync(id, new LinkImages([Image]), Now);
        var ruled = await store.EditAsync(id, new DefineRule { Name = "R", Settings = new() { Fit = FitKind.FillOrFit, LargestCrop = 0.1, FlipX = false } },
            Now);
        foreach (var outline in new[] { Outline.Rectangle, Outline.Ellipse, new PolygonOutline([new(0, 0), new(1, 0.5), new(0, 1)]) })
        {
            await store.EditAsync(id, new MakeFrame
            {
                Page = 2,
                Box = new(1.25, -3, 100, 50),
                Outline = outline,
                ImageId = linked.Changes.Items[0].Key.Id,
                RuleId = ruled.Changes.Items[0].Key.Id,
                Own = new() { AlignX = 0, Rotation = 12.5 },
                Name = "F",
            }, Now);
        }
        return id;
    }

    private static void Same(Publication actual, Publication expected)
    {
        actual.Parts.OrderBy(p => p.Key.Kind).ThenBy(p => p.Key.Id).ShouldBe(expected.Parts.OrderBy(p => p.Key.Kind).ThenBy(p => p.Key.Id));
        actual.NextId.ShouldBe(expected.NextId);
    }

    [Fact]
    public async Task Everything_is_there_again_after_a_restart()
    {
        var store = Open();
        int id = await Filled(store);
        var before = await store.OpenAsync(id);
        var after = await Open().OpenAsync(id);
        Same(after.Publication, before.Publication);
        after.Revision.ShouldBe(before.Revision);
        (await Open().StepsAsync(id, Anna)).Undo.ShouldBe("Make frame with image: F, page 2");
    }

    [Fact]
    public async Task Undo_and_redo_go_all_the_way_also_across_a_restart()
    {
        var store = Open();
        int id = await Filled(store);
        var full = (await store.OpenAsync(id)).Publication;
        for (int i = 0; i < 5; i++) await (i < 2 ? store : Open()).UndoAsync(id, Seen.Now(Anna));
        store = Open();
        var blank = await store.OpenAsync(id);
        blank.Publication.Frames.ShouldBeEmpty();
        blank.Publication.Images.ShouldBeEmpty();
        (await store.StepsAsync(id, Anna)).Undo.ShouldBeNull();
        (await Should.ThrowAsync<EditRefused>(store.UndoAsync(id, Seen.Now(Anna)))).Message.ShouldStartWith("There is nothing of yours to undo.");
        for (int i = 0; i < 5; i++) await store.RedoAsync(id, Seen.Now(Anna));
        Same((await Open().OpenAsync(id)).Publication, full);
        (await Should.ThrowAsync<EditRefused>(store.RedoAsync(id, Seen.Now(Anna)))).Errors[0].Field.ShouldBe("redo");
    }

    [Fact]
    public async Task An_edit_after_undoing_takes_the_place_of_what_was_undone_and_ids_are_not_given_twice()
    {
        var store = Open();
        int id = await Filled(store);
        int last = (await store.OpenAsync(id)).Publication.Frames.Keys.Max();
        await store.UndoAsync(id, Seen.Now(Anna));
        await store.EditAsync(id, new MakeFrame { Page = 1, Box = new(0, 0, 9, 9) }, Now);
        var now = await Open().OpenAsync(id);
        (await store.StepsAsync(id, Anna)).Redo.ShouldBeNull();
        now.Publication.Frames.Keys.Max().ShouldBeGreaterThan(last);
        var history = await store.HistoryAsync(id);
        history.Select(e => e.Words).ShouldBe(["Make placeholder", "Make frame with image", "Make frame with image", "Make frame with image", "Make rule R",
            "Bring in image"]);
        history.Select(e => e.Undone).ShouldBe([false, true, false, false, false, false]);
        history.Select(e => e.Touched).ShouldBe([$"Frame {now.Publication.Frames.Keys.Max()}, page 1", "F, page 2", "F, page 2", "F, page 2", "rule R",
            "\u201ca\u201d <b>.jpg"]);
    }

    [Fact]
    public async Task A_refused_edit_leaves_no_trace()
    {
        var store = Open();
        int id = await Filled(store);
        var before = await store.OpenAsync(id);
        await Should.ThrowAsync<EditRefused>(store.EditAsync(id, new MakeFrame { Page = 1, Box = new(0, 0, double.NaN, 1) }, Now));
        (await store.OpenAsync(id)).ShouldBe(before);
        (await Open().OpenAsync(id)).Revision.ShouldBe(before.Revision);
    }

    [Fact]
    public async Task Two_windows_clash_over_a_frame_and_not_over_a_page()
    {
        var store = Open();
        int id = await Filled(store);
        var seen = await store.OpenAsync(id);
        int[] frames = [.. seen.Publication.Frames.Keys.Order()];
        await store.EditAsync(id, new ChangeFrames { FrameIds = [frames[0]], X = 5 }, Seen.At(seen.Revision, Anna));
        var clash = await Should.ThrowAsync<EditClash>(store.EditAsync(id, new ChangeFrames { FrameIds = [frames[0]], X = 6 }, Seen.At(seen.Revision, Ben)));
        clash.Message.ShouldStartWith("F was changed by Anna");
        await store.EditAsync(id, new ChangeFrames { FrameIds = [frames[1]], X = 6 }, Seen.At(seen.Revision, Anna));
        (await store.OpenAsync(id)).Publication.Frames[frames[0]].Box.X.ShouldBe(5);
    }

    /// <summary>Where the answer went missing on the way, the same is asked again: it is made once, and answered as it was the first time.</summary>
    [Fact]
    public async Task What_is_sent_again_is_made_once_and_answered_as_before()
    {
        var store = Open();
        int id = await Filled(store);
        var make = new MakeFrame { Page = 1, Box = new(0, 0, 10, 10) };
        var named = Now with { Key = "draw" };
        var first = await store.OnceAsync(id, named, () => store.EditAsync(id, make, named));
        await store.EditAsync(id, new RemoveFrames([(await store.OpenAsync(id)).Publication.Frames.Keys.Min()]), Now);
        var again = await store.OnceAsync(id, named, () => store.EditAsync(id, make, named));
        (again.WasMade, again.Changes.Items.Single().Key, again.Words).ShouldBe((true, first.Changes.Items.Single().Key, first.Words));
        again.Standing.Revision.ShouldBe(first.Standing.Revision + 1);

        // Refused by whoever finds gone what it is to take away, before the store is asked.
        int frame = first.Changes.Items.Single().Key.Id;
        named = Now with { Key = "remove" };
        Task<EditOutcome> Remove() => store.OpenAsync(id).Result.Publication.Frames.ContainsKey(frame)
            ? store.EditAsync(id, new RemoveFrames([frame]), named) : throw new EditRefused("frame", "gone");
        (await store.OnceAsync(id, named, Remove)).WasMade.ShouldBeFalse();
        (await store.OnceAsync(id, named, Remove)).WasMade.ShouldBeTrue();
        // Undone, and asked again: what was taken back then is told, and nothing is taken back twice.
        named = Now with { Key = "undo" };
        await store.OnceAsync(id, named, () => store.UndoAsync(id, named));
        var undone = await store.OnceAsync(id, named, () => store.UndoAsync(id, named));
        (undone.WasMade, undone.Changes.Items.Single().After is Frame { Id: var back } ? back : 0).ShouldBe((true, frame));
        undone.Before.Frames.ContainsKey(frame).ShouldBeFalse();
        (await Should.ThrowAsync<EditRefused>(store.OnceAsync(id, Now with { Key = "other" }, () => throw new EditRefused("frame", "gone"))))
            .Message.ShouldBe("gone");
    }

    [Fact]
    public async Task Edits_sent_all_at_once_are_made_one_after_the_other()
    {
        var store = Open();
        int id = (await store.CreateAsync(A4, 1)).Id;
        await Task.WhenAll(Enumerable.Range(0, 40).Select(i => Task.Run(() => store.EditAsync(id, new MakeFrame { Page = 1, Box = new(i, 0, 5, 5) }, Now))));
        var again = await Open().OpenAsync(id);
        again.Publication.Frames.Count.ShouldBe(40);
        again.Publication.Frames.Values.Select(f => f.Depth).Order().ShouldBe(Enumerable.Range(1, 40));
    }

    [Fact]
    public async Task Recrops_held_pictures_and_suggested_subjects_are_kept()
    {
        var store = Open();
        int id = await Filled(store);
        var p = (await store.OpenAsync(id)).Publication;
        int frame = p.Frames.Keys.Min(), image = p.Images.Keys.Single();
        await store.EditAsync(id, new ChangeSubjects([new SubjectOf(image, new Vec(0.1, 0.2), new Vec(0.3, 0.4))]), Now);
        await store.EditAsync(id, new ChangeFrames { FrameIds = [frame], Recrop = new(2, new Vec(0.25, 0.5), 2.5, -7) }, Now);
        await store.EditAsync(id, new ChangeFrames { FrameIds = [.. p.Frames.Keys], Set = new() { StaysFitted = false } }, Now);
        var before = (await store.OpenAsync(id)).Publication;
        before.Frames[frame].Held.ShouldNotBeNull();
        Same((await Open().OpenAsync(id)).Publication, before);
        await Open().UndoAsync(id, Seen.Now(Anna));
        (await Open().OpenAsync(id)).Publication.Frames[frame].Held.ShouldBeNull();
    }

    [Fact]
    public async Task A_rule_is_put_on_ten_thousand_frames_as_one_step()
    {
        var store = Open();
        int id = (await store.CreateAsync(A4, 10)).Id;
        await store.EditAsync(id, new DefineRule { Name = "R", Settings = new() { Fit = FitKind.Fit } }, Now);
        int rule = (await store.OpenAsync(id)).Publication.Rules.Keys.Single();
        await store.EditAsync(id, new ManyFrames(10_000), Now);
        var before = (await store.OpenAsync(id)).Publication;
        await store.EditAsync(id, new ChangeFrames { FrameIds = FrameScope.FramesIn(before, null, FrameFilling.Empty), RuleId = new(rule) }, Now);
        (await Open().OpenAsync(id)).Publication.Frames.Values.ShouldAllBe(f => f.RuleId == rule);
        await store.UndoAsync(id, Seen.Now(Anna));
        Same((await Open().OpenAsync(id)).Publication, before);
    }

    private sealed record ManyFrames(int Count) : Edit
    {
        public override string Words => "Make frames";

        protected override void Make(Draft draft)
        {
            for (int i = 0; i < Count; i++) draft.Put(new Frame { Id = draft.NewId(), PageId = draft.Origin.Order.Ids[i % 10], Box = new(i, 0, 10, 10) });
        }
    }

    [Fact]
    public async Task The_rule_new_publications_start_with_is_kept_and_dropped()
    {
        var store = Open();
        (await store.StartingRuleAsync()).ShouldBeNull();
        await store.ChooseStartingRuleAsync(new FittingRule { Id = 7, Name = "House", Settings = new() { Fit = FitKind.Fit, StaysFitted = false } });
        var made = (await Open().CreateAsync(A4, 2)).Publication;
        made.Rules[made.Setup.DefaultRuleId!.Value].Name.ShouldBe("House");
        made.FitOfRule(null).StaysFitted.ShouldBeFalse();
        await Open().ChooseStartingRuleAsync(null);
        (await Open().CreateAsync(A4, 2)).Publication.Rules.ShouldBeEmpty();
    }

    [Fact]
    public async Task What_is_not_there_is_said_so() => (await Should.ThrowAsync<NoSuchPublication>(Open().OpenAsync(77))).Message.ShouldContain("77");

    [Fact]
    public async Task What_was_put_away_is_kept_stays_away_when_it_is_edited_and_comes_back()
    {
        var store = Open();
        int id = await Filled(store);
        await store.PutAwayAsync(id, true);
        await store.EditAsync(id, new MakeFrame { Page = 1, Box = new(0, 0, 10, 10) }, Now);
        var again = Open();
        (await again.ListAsync()).Single().PutAway.ShouldBeTrue();
        int frames = (await again.OpenAsync(id)).Publication.Frames.Count;
        await again.PutAwayAsync(id, false);
        (await again.ListAsync()).Single().PutAway.ShouldBeFalse();
        (await again.OpenAsync(id)).Publication.Frames.Count.ShouldBe(frames);
        await Should.ThrowAsync<NoSuchPublication>(() => again.PutAwayAsync(id + 1, true));
    }
}
