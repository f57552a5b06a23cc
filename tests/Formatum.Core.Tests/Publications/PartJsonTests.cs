using System.Text.Json;
using Formatum.Core.Colours;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Tests.Publications;

/// <summary>Parts as they are kept, of today and of older versions.</summary>
public sealed class PartJsonTests
{
    private static readonly Frame Kept = new()
    {
        Id = 7,
        PageId = 3,
        Name = "Mug",
        Box = new(10, 20, 30, 40),
        Depth = 2,
        Look = new Look { Background = Colour.Of("#dfe5d8"), Border = new(1, Colour.Of("#2f6f4f")), Opacity = 0.5 },
        Own = new() { Fit = FitKind.Fit },
    };

    /// <summary>As it was written in its first version.</summary>
    private static string First(string json) => json.Replace("\"version\":4,", "", StringComparison.Ordinal)
        .Replace("\"background\"", "\"tone\"", StringComparison.Ordinal);

    [Fact]
    public void A_part_of_an_older_version_is_brought_up_to_date_as_it_is_read()
    {
        string today = PartJson.Write(Kept);
        today.ShouldStartWith("{\"version\":4,");
        PartJson.Read(PartKind.Frame, today).ShouldBe([Kept]);
        First(today).ShouldContain("\"tone\":\"#dfe5d8\"");
        PartJson.Read(PartKind.Frame, First(today)).ShouldBe([Kept]);
    }

    [Fact]
    public void Changes_of_an_older_version_are_too()
    {
        var changes = new Changes([new(Kept.Key, Kept, Kept with { Name = "Jug" })]);
        PartJson.ReadChanges(First(PartJson.Write(changes))).Items.ShouldBe(changes.Items);
    }

    private static readonly FrameText Words = new([new("A mug", new TextStyle { Size = 9, Bold = true })]);

    /// <summary>In its second version a frame held its text itself, of one style a paragraph.</summary>
    private static string Second(Frame frame) => PartJson.Write(frame with { StoryId = null })
        .Replace("\"version\":4,", "\"version\":2,", StringComparison.Ordinal)[..^1] + """
            ,"text":{"paragraphs":[{"text":"A mug","style":{"family":"Cabin","bold":true,"italic":false,"size":9,"colour":"#000000","alignment":"left",
            "spaceBefore":0,"spaceAfter":0,"indent":0,"hyphenate":false,"language":"en-GB"}}]}}
            """;

    [Fact]
    public void A_story_of_one_style_a_paragraph_is_set_in_runs()
    {
        var story = new Story { Id = 8, FrameIds = [7], Text = Words };
        PartJson.Read(PartKind.Story, """{"id":8,"frameIds":[7],"text":{"paragraphs":[{"text":"A mug","style":{"bold":true,"size":9,"italic":false}}]}}""")
            .ShouldBe([story]);
        PartJson.Read(PartKind.Story, PartJson.Write(story)).ShouldBe([story]);
    }

    [Fact]
    public void The_text_of_an_older_frame_becomes_a_story_and_the_history_tells_of_both()
    {
        var frame = Kept with { StoryId = Kept.Id };
        var story = new Story { Id = Kept.Id, FrameIds = [Kept.Id], Text = Words };
        string old = Second(frame);
        PartJson.Read(PartKind.Frame, old).ShouldBe([frame, story]);
        var changes = PartJson.ReadChanges($"[{{\"kind\":4,\"id\":7,\"after\":{old}}}]");
        changes.Items.ShouldBe([new(frame.Key, null, frame), new(story.Key, null, story)]);
        var other = PartJson.ReadChanges($"[{{\"kind\":4,\"id\":7,\"before\":{old},\"after\":{old.Replace("A mug", "A jug", StringComparison.Ordinal)}}}]");
        other.Items.Single(c => c.Key.Kind == PartKind.Story).After.ShouldBe(story with { Text = new([Words.Paragraphs[0] with { Runs = [new("A jug")] }]) });
    }

    /// <summary>Before, a frame had a whole look of its own; what was plain in it is open now, so that a named look can show.</summary>
    [Fact]
    public void What_was_plain_in_a_look_is_open()
    {
        string third = """
            {"version":3,"id":7,"pageId":3,"box":{"x":0,"y":0,"width":9,"height":9},"look":{"opacity":1,"shadow":null,"background":"#dfe5d8"}}
            """;
        ((Frame)PartJson.Read(PartKind.Frame, third).Single()).Look.ShouldBe(new LookSettings { Background = Colour.Of("#dfe5d8") });
        var none = Kept with { LookId = 8, Look = new LookSettings { Border = default(Core.Settings.Given<Border>), Shadow = Shadow.Usual } };
        PartJson.Write(none).ShouldContain("\"border\":\"none\"");
        PartJson.Read(PartKind.Frame, PartJson.Write(none)).ShouldBe([none]);
        var look = new NamedLook { Id = 8, Name = "Framed", BasedOnId = 9, Settings = none.Look };
        PartJson.Read(PartKind.Look, PartJson.Write(look)).ShouldBe([look]);
    }

    [Theory]
    [InlineData("5")]
    [InlineData("0")]
    [InlineData("-1")]
    public void A_version_that_is_not_known_is_refused(string version) => Should.Throw<JsonException>(() =>
        PartJson.Read(PartKind.Frame, PartJson.Write(Kept).Replace("\"version\":4,", $"\"version\":{version},", StringComparison.Ordinal)))
        .Message.ShouldContain("newer version");
}
