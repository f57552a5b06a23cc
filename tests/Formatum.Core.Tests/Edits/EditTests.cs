using CsCheck;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Tests.Publications;

namespace Formatum.Core.Tests.Edits;

public class EditTests
{
    internal static LinkedImage Image(string name, int width = 3000, int height = 2000) => new()
    {
        Id = 0,
        Name = name,
        Path = "/pictures/" + name,
        Bytes = 1,
        Modified = DateTimeOffset.UnixEpoch,
        ContentHash = $"{name} {width} {height}",
        Format = "jpeg",
        StoredWidthPx = width,
        StoredHeightPx = height,
        StoredPpiX = 300,
        StoredPpiY = 300,
    };

    private static Publication Begin() => Publication.Create(SetupTests.A4(), 4).Do(new LinkImages([Image("a.jpg"), Image("b.jpg", 500, 900)]));

    private static Frame Only(Publication p) => p.Frames.Values.Single();

    [Fact]
    public void A_frame_is_made_moved_filled_and_removed()
    {
        var p = Begin().Do(new MakeFrame { Page = 2, Box = new(10, 20, 100, 50) });
        p.FittedOf(Only(p)).ShouldBeNull();
        p = p.Do(new ChangeFrames { FrameIds = [Only(p).Id], X = 30, ImageId = new(p.Images.Values.First(i => i.Name == "a.jpg").Id) });
        Only(p).Box.ShouldBe(new Box(30, 20, 100, 50));
        p.FittedOf(Only(p))!.Value.Placement.Applied.ShouldBe(FitKind.Fill);
        p = p.Do(new RemoveFrames([Only(p).Id]));
        p.Frames.ShouldBeEmpty();
        p.Images.Count.ShouldBe(2);
    }

    [Fact]
    public void A_new_frame_lies_above_those_of_its_spread()
    {
        var p = Begin().Do(new MakeFrame { Page = 2, Box = new(0, 0, 9, 9) }).Do(new MakeFrame { Page = 3, Box = new(0, 0, 9, 9) });
        Spread.At(p, 1).FramesOf(p).Select(f => f.Frame.Depth).ShouldBe([1, 2]);
    }

    public static TheoryData<string, string> Impossible => new()
    {
        { "page", "page" }, { "width", "width" }, { "nan", "x" }, { "infinite", "height" }, { "image", "imageId" }, { "rule", "ruleId" }, { "align", "align" },
            { "zoom", "recrop.zoom" }, { "name", "name" },
        { "frame", "frame" }, { "inset", "inset.left" },
    };

    [Theory]
    [MemberData(nameof(Impossible))]
    public void What_cannot_be_is_refused_by_name_and_changes_nothing(string what, string field)
    {
        var p = Begin().Do(new MakeFrame { Page = 1, Box = new(0, 0, 50, 50) });
        var change = new ChangeFrames { FrameIds = [Only(p).Id] };
        Edit edit = what switch
        {
            "page" => new MakeFrame { Page = 9, Box = new(0, 0, 1, 1) },
            "width" => new MakeFrame { Page = 1, Box = new(0, 0, 0, 1) },
            "nan" => change with { X = double.NaN },
            "infinite" => change with { Height = double.PositiveInfinity },
            "image" => change with { ImageId = new(777) },
            "rule" => change with { RuleId = new(777) },
            "align" => change with { Set = new() { AlignX = 1.2 } },
            "zoom" => change with { Recrop = new(0, null) },
            "name" => change with { Name = new string('n', 201) },
            "inset" => change with { Set = new() { InsetLeft = double.NaN } },
            _ => change with { FrameIds = [999], X = 1 },
        };
        var refused = Should.Throw<EditRefused>(() => edit.On(p));
        refused.Errors.Select(e => e.Field).ShouldBe([field]);
    }

    [Fact]
    public void A_placed_image_is_not_unlinked()
    {
        var p = Begin();
        int image = p.Images.Keys.Min();
        p = p.Do(new MakeFrame { Page = 1, Box = new(0, 0, 50, 50), ImageId = image });
        Should.Throw<EditRefused>(() => new UnlinkImages([image]).On(p)).Message.ShouldContain("placed in 1 frame");
        p.Do(new UnlinkImages([p.Images.Keys.Max()])).Images.Keys.ShouldBe([image]);
    }

    [Fact]
    public void Undoing_gives_the_publication_that_was() => Gen.Select(Gen.Double[-50, 500], Gen.Double[1, 300], Gen.Int[1, 4]).Sample((x, width, page) =>
    {
        var before = Begin().Do(new MakeFrame { Page = page, Box = new(x, 5, width, 40) });
        int id = Only(before).Id;
        foreach (var edit in new Edit[]
                 {
                     new ChangeFrames { FrameIds = [id], X = x + 1, Page = 5 - page, Set = new() { Fit = FitKind.Stretch } }, new RemoveFrames([id]),
                     new MakeFrame { Page = page, Box = new(0, 0, 5, 5) }, new DefineRule { Name = "R" }, new ChangeSetup(before.Setup with { Bleed = 0 }),
                 })
        {
            var changes = edit.On(before);
            var after = before.With(changes);
            Same(after.With(changes.Inverse()), before);
            Same(before.With(changes), after);
        }
    }, iter: 50);

    [Fact]
    public void Doing_what_is_already_so_changes_nothing()
    {
        var p = Begin().Do(new MakeFrame { Page = 1, Box = new(1, 2, 3, 4) });
        new ChangeFrames { FrameIds = [Only(p).Id], X = 1 }.On(p).IsEmpty.ShouldBeTrue();
    }

    private static void Same(Publication a, Publication b)
    {
        a.Parts.OrderBy(p => p.Key.Kind).ThenBy(p => p.Key.Id).ShouldBe(b.Parts.OrderBy(p => p.Key.Kind).ThenBy(p => p.Key.Id));
        foreach (int page in a.Pages.Keys) a.FramesOnPage(page).ShouldBe(b.FramesOnPage(page));
    }
}

internal static class Doing
{
    public static Publication Do(this Publication publication, Edit edit) => publication.With(edit.On(publication));
}
