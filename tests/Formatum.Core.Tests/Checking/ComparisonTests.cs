using Formatum.Core.Colours;
using Formatum.Core.Comparing;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Tests.Edits;

namespace Formatum.Core.Tests.Checking;

/// <summary>What is told to differ is what was done, and nothing else.</summary>
public sealed class ComparisonTests
{
    private static double Mm(double mm) => Units.Millimetres(mm);

    private static readonly Box Middle = new(Mm(40), Mm(40), Mm(80), Mm(60));

    private static Publication Begun() => CheckedPublications.Clean().Linked(CheckedPublications.Image("vase.jpg", 3000, 3000),
        CheckedPublications.Image("jug.jpg", 3000, 3000, hash: 'b')).Placed(Middle);

    private static string[] Told(Publication before, Publication after) => [.. Comparison.Of(before, after).Differences
        .Select(d => $"{d.Kind}: {d.Detail}".TrimEnd(' ', ':'))];

    [Fact]
    public void The_same_does_not_differ() => Comparison.Of(Begun(), Begun()).Differences.ShouldBeEmpty();

    [Fact]
    public void Each_thing_that_is_done_to_a_frame_is_told_by_itself()
    {
        var p = Begun();
        int frame = p.Last().Id, other = p.Images.Keys.Order().First();
        void Differs(Edit edit, params string[] expected) => Told(p, p.Do(edit)).ShouldBe(expected);
        Differs(new PlaceFrames([new(frame, 1, Middle.Moved(Mm(5), -Mm(2)))]), "Moved: 5 mm to the right, 2 mm up.");
        Differs(new PlaceFrames([new(frame, 3, Middle)]), "Moved: From page 1 to page 3.");
        Differs(new PlaceFrames([new(frame, 1, Middle with { Width = Mm(90) })], PictureAtSizing.Refitted), "Sized: From 80 mm x 60 mm to 90 mm x 60 mm.");
        Differs(new ChangeFrames { FrameIds = [frame], Angle = 30 }, "Turned: From 0\u00b0 to 30\u00b0.");
        Differs(new ChangeFrames { FrameIds = [frame], Outline = Outline.Ellipse }, "Outline");
        Differs(new ChangeFrames { FrameIds = [frame], ImageId = new(other) }, "Picture: jug.jpg, then vase.jpg.");
        Differs(new ChangeFrames { FrameIds = [frame], ImageId = new(null) }, "Picture: jug.jpg, then no picture.");
        Differs(new ChangeFrames { FrameIds = [frame], Recrop = new(1.3, null) }, "Crop");
        Differs(new ChangeFrames { FrameIds = [frame], Hidden = true }, "Hidden: It is hidden now.");
        Differs(new ChangeLook([frame], new() { Background = new(Colour.White) }), "Look");
        Differs(new RemoveFrames([frame]), "FrameWent");
        Differs(new MakeFrame { Page = 2, Box = Middle }, "FrameCame");
    }

    [Fact]
    public void What_follows_from_a_rule_a_colour_or_a_style_is_told_where_it_shows()
    {
        var p = Begun().Do(new DefineRule { Name = "Whole", Settings = new() { Fit = FitKind.Fill } });
        p = p.Do(new ChangeFrames { FrameIds = [p.Last().Id], RuleId = new(p.Rules.Keys.Single()) });
        Told(p, p.Do(new DefineRule { RuleId = p.Rules.Keys.Single(), Name = "Whole", Settings = new() { Fit = FitKind.Fit } })).ShouldBe(["Crop"]);
        var grey = p.Colours.Values.Single(c => c.Name == "Grey");
        p = p.Do(new ChangeLook([p.Last().Id], new() { Background = new(new NamedColour(grey.Id)) }));
        Told(p, p.Do(new DefineColour { ColourId = grey.Id, Name = "Grey", Colour = new GreyColour(0.4) })).ShouldBe(["Look"]);
        p = p.Do(new DefineStyle { Kind = StyleKind.Paragraph, Name = "Text", Default = true, Settings = new() { Size = 10 } });
        Told(p, p.Do(new DefineStyle { StyleId = p.Styles.Keys.Single(), Kind = StyleKind.Paragraph, Name = "Text", Settings = new() { Size = 9 } }))
            .ShouldBe(["Setting", "Setting", "Setting", "Setting"]);
    }

    [Fact]
    public void Words_are_counted_and_pages_that_others_push_on_have_not_moved()
    {
        var p = Begun();
        int text = p.Frames.Values.First(f => f.IsText && p.NumberOf(f.PageId) == 2).Id;
        Told(p, p.Do(new WriteText(text, "Clay and a new glaze"))).ShouldBe(["Words: 4 words came."]);
        Told(p, p.Do(new WriteText(text, "Kiln"))).ShouldBe(["Words: 1 word came, 1 word went."]);
        Told(p, p.Do(new AddPages(2, 1))).ShouldBe(["PageCame"]);
        Told(p, p.Do(new MovePages([4], 2))).ShouldBe(["PageMoved: It was page 4."]);
        var without = Comparison.Of(p, p.Do(new RemovePages([2])));
        without.Differences.Select(d => d.Kind).ShouldBe([DifferenceKind.PageWent, DifferenceKind.FrameWent]);
        without.Pages.ShouldBe([p.Order.Ids[1]]);
    }

    [Fact]
    public void Another_press_is_told_once_though_all_inks_look_otherwise()
    {
        var p = Begun();
        p = p.Do(new ChangeLook([p.Last().Id], new() { Background = new(new CmykColour(1, 0, 0, 0)) }));
        var press = new PressProfile(new string('a', 64), "Grey") { Table = Convert.ToBase64String(new byte[InkTable.Bytes]) };
        Told(p, p.Do(new ChoosePress(press))).ShouldBe(["SetUp"]);
    }

    [Fact]
    public void An_edition_differs_by_what_was_emptied()
    {
        var p = Begun();
        var edition = EditionMaker.Make(p, "C", "Spring", new(Pictures: false, Texts: true));
        Told(p, edition).ShouldBe(["Picture: jug.jpg, then no picture."]);
    }
}
