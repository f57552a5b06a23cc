using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace Formatum.Web.Tests;

/// <summary>Frames arranged by the hands in Chromium: shapes, grids, catching, turning, stacking, gaps, copies, guides, history.</summary>
public sealed class ArrangeTests(Workplace place) : InBrowser(place)
{
    private int _id;

    /// <summary>A single page with placeholders; their ids.</summary>
    private async Task<int[]> BeginAsync(params (double X, double Y, double Width, double Height)[] boxes)
    {
        _id = await Server.NewPublicationAsync("Arranged", pages: 1, facing: false);
        var ids = new List<int>();
        foreach (var (x, y, width, height) in boxes)
            ids.Add((await Server.PostAsync($"/api/publications/{_id}/frames", new { page = 1, x, y, width, height })).GetProperty("id").GetInt32());
        OpenDesk(_id);
        return [.. ids];
    }

    private void Tool(string key, string name)
    {
        Browser.Send("#canvas", key);
        Browser.Until(() => Browser.Has($".canvas[data-tool='{name}']"), name);
    }

    private void ClickOn(double x, double y, string? modifier = null)
    {
        Settled();
        var at = Window(x, y);
        var actions = Actions();
        if (modifier is not null) actions.KeyDown(modifier);
        actions.MoveToLocation(at.X, at.Y).Click();
        if (modifier is not null) actions.KeyUp(modifier);
        actions.Perform();
        Settled();
    }

    /// <summary>Draws with a modifier held and lets go of both.</summary>
    private void DragWith(string? modifier, (double X, double Y) from, (double X, double Y) to)
    {
        Settled();
        var (start, end) = (Window(from.X, from.Y), Window(to.X, to.Y));
        var actions = Actions().MoveToLocation(start.X, start.Y).ClickAndHold();
        // Held from the first movement on: Shift on a click would choose one more.
        if (modifier is not null) actions.KeyDown(modifier);
        actions.MoveToLocation((start.X + end.X) / 2, (start.Y + end.Y) / 2).MoveToLocation(end.X, end.Y).Release();
        if (modifier is not null) actions.KeyUp(modifier);
        actions.Perform();
    }

    private void ChooseBoth()
    {
        Browser.Send("#canvas", Keys.Control + "a");
        Browser.Until(() => Browser.Has("#inspector h2") && Browser.Find("#inspector h2").Text.EndsWith("frames", StringComparison.Ordinal), "all are chosen");
        Settled();
    }

    private void OpenArrange()
    {
        if (!Browser.Has("#more-arrange[open]")) Browser.Click("#more-arrange summary");
    }

    private void Press(string css)
    {
        Settled();
        var button = Browser.Find(css);
        Browser.Driver.ExecuteScript("arguments[0].scrollIntoView({ block: 'center' })", button);
        button.Click();
    }

    private static bool Near(JsonElement frame, string name, double value, double within = 1.5) => Math.Abs(D(frame, name) - value) <= within;

    [Fact]
    public async Task Ellipses_polygons_free_outlines_and_grids_are_made_and_outlines_changed()
    {
        await BeginAsync();
        Tool("2", "ellipse");
        DragWith(Keys.Shift, (100, 100), (200, 160));
        var frame = Eventually(_id, f => f.Length == 1, "an ellipse");
        frame.GetProperty("outline").GetString().ShouldBe("ellipse");
        D(frame, "width").ShouldBe(D(frame, "height"), 1e-9);
        // From the middle, with Alt.
        Tool("1", "rectangle");
        DragWith(Keys.Alt, (400, 150), (460, 190));
        Eventually(_id, f => f.Length == 2 && Near(f[1], "x", 340, 3) && Near(f[1], "width", 120, 3), "drawn from its middle");

        Tool("3", "polygon");
        Drag(Window(100, 300), Window(220, 400));
        Eventually(_id, f => f.Length == 3 && f[2].GetProperty("outline").GetString() == "polygon", "a hexagon");

        Tool("4", "free");
        foreach (var (x, y) in new[] { (300.0, 300.0), (420.0, 320.0), (380.0, 420.0) }) ClickOn(x, y);
        // A drawn point bends.
        Drag(Window(310, 400), Window(300, 370));
        Browser.Send("#canvas", Keys.Enter);
        Eventually(_id, f => f.Length == 4 && f[3].GetProperty("outline").GetString() == "free", "a free outline");
        Browser.Until(() => Browser.Find("#frames .frame:nth-child(4) .shape").GetAttribute("d")!.Contains('C', StringComparison.Ordinal), "with a bend");

        OpenArrange();
        Press("#frame-outline option[value='polygon-3']");
        Eventually(_id, f => f[3].GetProperty("outline").GetString() == "polygon", "a triangle now");

        Browser.Click("[popovertarget=grid-card]");
        Browser.Click("#grid-card [data-fills=margins]");
        var grid = Eventually(_id, f => f.Length == 10, "six more");
        Browser.Until(() => Browser.Find("[data-chosen]").GetAttribute("data-chosen")!.Split(',').Length == 6, "the grid is chosen");
        var last = (await FramesAsync(_id))[^1];
        // A4 with margins of 15 mm all around: the last ends at the lower right of the type area.
        (D(last, "x") + D(last, "width")).ShouldBe(595.276 - 42.52, 0.01);
        (D(last, "y") + D(last, "height")).ShouldBe(841.89 - 42.52, 0.01);
    }

    [Fact]
    public async Task A_moved_frame_catches_and_says_on_what_goes_straight_or_free_and_leaves_a_copy()
    {
        await BeginAsync((200, 200, 100, 80));
        // Towards the left margin, at 15 mm: 42.52 points. It stops there.
        var (start, end) = (Window(250, 240), Window(94, 240));
        Actions().MoveToLocation(start.X, start.Y).ClickAndHold().MoveToLocation(start.X - 50, start.Y).MoveToLocation(end.X, end.Y).Perform();
        Browser.Until(() => Browser.Find("#pointer-words").Text.Contains("margin", StringComparison.Ordinal) && Browser.Has("#marks .mark-line"), "it says so");
        Actions().Release().Perform();
        Eventually(_id, f => Near(f[0], "x", 42.52, 0.01), "on the margin");
        Browser.Has("#marks .mark-line").ShouldBeFalse();

        // With Ctrl it catches on nothing, with Shift it goes straight.
        DragWith(Keys.Control, (90, 240), (100, 240));
        Eventually(_id, f => !Near(f[0], "x", 42.52, 0.5), "free");
        DragWith(Keys.Shift, (90, 240), (290, 260));
        var frame = Eventually(_id, f => D(f[0], "x") > 150, "moved");
        D(frame, "y").ShouldBe(200, 1e-9);

        // With Alt a copy goes and the frame stays.
        double x = D(frame, "x");
        DragWith(Keys.Alt, (x + 50, 240), (x + 50, 500));
        Eventually(_id, f => f.Length == 2, "a copy");
        (await FramesAsync(_id)).Select(f => D(f, "x")).ShouldAllBe(v => Math.Abs(v - x) < 10);

        // Without catching at all.
        Browser.Click("#snapping");
        Browser.Find("#snapping").GetAttribute("aria-pressed").ShouldBe("false");
    }

    [Fact]
    public async Task A_drawn_frame_and_several_stretched_ones_say_what_they_catch_on()
    {
        await BeginAsync((150, 400, 120, 80), (320, 400, 60, 80));
        Browser.Send("#canvas", "1");
        // From near the left margin, 42.52 points, to near the right one.
        var (start, end) = (Window(44, 200), Window(551, 280));
        Actions().MoveToLocation(start.X, start.Y).ClickAndHold().MoveToLocation(start.X + 80, start.Y + 20).MoveToLocation(end.X, end.Y).Perform();
        Browser.Until(() => Browser.Find("#pointer-words").Text.Contains("margin", StringComparison.Ordinal), "it says so");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("#marks .mark-line")).Count >= 2, "both margins are marked");
        Actions().Release().Perform();
        Eventually(_id, f => f.Length == 3, "drawn");
        var drawn = (await FramesAsync(_id))[2];
        D(drawn, "x").ShouldBe(42.52, 0.01);
        D(drawn, "width").ShouldBe(595.276 - 2 * 42.52, 0.01);

        Click(Window(200, 440));
        Actions().KeyDown(Keys.Shift).MoveToLocation(Window(350, 440).X, Window(350, 440).Y).Click().KeyUp(Keys.Shift).Perform();
        Browser.Until(() => Browser.Find("[data-chosen]").GetAttribute("data-chosen")!.Split(',').Length == 2 && Browser.Has("#grips [data-grip=e]"), "both");
        (start, end) = (Window(380, 440), Window(551, 440));
        Actions().MoveToLocation(start.X, start.Y).ClickAndHold().MoveToLocation(start.X + 20, start.Y).MoveToLocation(end.X, end.Y).Perform();
        Browser.Until(() => Browser.Find("#pointer-words").Text.Contains("margin", StringComparison.Ordinal) && Browser.Has("#marks .mark-line"), "said too");
        Actions().Release().Perform();
        Eventually(_id, f => Math.Abs(D(f[1], "x") + D(f[1], "width") - (595.276 - 42.52)) < 0.01, "the right one ends on the margin");
    }

    [Fact]
    public async Task Frames_are_turned_typed_with_arithmetic_flipped_and_sized_together()
    {
        var ids = await BeginAsync((150, 200, 120, 80), (320, 200, 60, 80));
        ClickOn(210, 240);
        Browser.Until(() => Browser.Has("#grips [data-grip=turn]"), "its grips");
        // From above the middle to the right of it: a quarter turn.
        var turn = Browser.Run<IReadOnlyCollection<object>>("const r = document.querySelector('#grips [data-grip=turn]').getBoundingClientRect(); return " +
            "[r.x + r.width / 2, r.y + r.height / 2]").Select(Convert.ToDouble).ToArray();
        var right = Window(300, 240);
        var actions = Actions().KeyDown(Keys.Shift).MoveToLocation((int)turn[0], (int)turn[1]).ClickAndHold().MoveToLocation(right.X - 20, right.Y - 30)
            .MoveToLocation(right.X, right.Y).Release().KeyUp(Keys.Shift);
        actions.Perform();
        Frame(_id, ids[0], f => Near(f, "angle", 90, 1e-6), "turned in steps");
        OpenArrange();
        // About its upper left corner: that stays.
        Press("[data-pivot='0,0']");
        var before = await FrameAsync(_id, ids[0]);
        Type("#frame-angle", "0" + Keys.Enter);
        var after = Frame(_id, ids[0], f => Near(f, "angle", 0, 1e-9), "upright again");
        // At 90 degrees the upper left corner of 120 x 80 about (210, 240) lies at (250, 180).
        D(after, "x").ShouldBe(250, 0.5);
        D(after, "y").ShouldBe(180, 0.5);

        Type("#frame-width", "210mm/3" + Keys.Enter);
        Frame(_id, ids[0], f => Near(f, "width", 70 / 25.4 * 72, 1e-6), "a third of the page");
        Type("#frame-width", "+5mm" + Keys.Enter);
        Frame(_id, ids[0], f => Near(f, "width", 75 / 25.4 * 72, 1e-6), "five more");
        Type("#frame-x", "50" + Keys.Enter);
        Frame(_id, ids[0], f => Near(f, "x", 50 / 25.4 * 72, 1e-6), "typed");
        Press("[data-do=flip][data-across=true]");
        Frame(_id, ids[0], f => f.GetProperty("set").GetProperty("flipX").ValueKind == JsonValueKind.True, "flipped");

        // Both, by the box around them.
        ChooseBoth();
        var grip = Browser.Run<IReadOnlyCollection<object>>("const r = document.querySelector('#grips [data-grip=se]').getBoundingClientRect(); return " +
            "[r.x + r.width / 2, r.y + r.height / 2]").Select(Convert.ToDouble).ToArray();
        double width = D(await FrameAsync(_id, ids[1]), "width");
        Drag(((int)grip[0], (int)grip[1]), ((int)grip[0] + 40, (int)grip[1] + 30));
        Frame(_id, ids[1], f => D(f, "width") > width * 1.1, "larger together");
        OpenArrange();
        Type("#frames-width", "40mm" + Keys.Enter);
        Eventually(_id, f => f.All(x => Near(x, "width", 40 / 25.4 * 72, 1e-6)), "one width for both");
    }

    [Fact]
    public async Task Frames_are_stacked_locked_hidden_grouped_and_lined_up()
    {
        var ids = await BeginAsync((100, 100, 100, 60), (300, 130, 80, 60), (180, 300, 60, 60));
        string Order() => string.Join(',', Browser.Driver.FindElements(By.CssSelector("#frames .frame")).Select(f => f.GetAttribute("data-frame")));
        ClickOn(150, 130);
        OpenArrange();
        Press("[data-stack=Front]");
        Browser.Until(() => Order() == $"{ids[1]},{ids[2]},{ids[0]}", "in front");
        Browser.Send("#canvas", Keys.PageDown);
        Browser.Until(() => Order() == $"{ids[1]},{ids[0]},{ids[2]}", "back by one");

        Press("[data-do=lock]");
        Frame(_id, ids[0], f => f.GetProperty("locked").GetBoolean(), "locked");
        Browser.Until(() => !Browser.Has("#grips [data-grip]"), "no grips");
        DragWith(null, (150, 130), (250, 130));
        Browser.Send("#canvas", Keys.Delete);
        Browser.Until(() => Browser.Has(".notice") && Browser.Find(".notice").Text.Contains("is locked", StringComparison.Ordinal), "it says so");
        D(await FrameAsync(_id, ids[0]), "x").ShouldBe(100, 1e-9);
        Press("[data-do=unlock]");
        Frame(_id, ids[0], f => !f.GetProperty("locked").GetBoolean(), "unlocked");

        Press("#more-arrange [data-do=hide]");
        Browser.Until(() => !Browser.Has($"#frame-{ids[0]}"), "hidden");
        Browser.Send("#canvas", Keys.Escape);
        Press($"[data-do=show][data-frames='{ids[0]}']");
        Browser.Until(() => Browser.Has($"#frame-{ids[0]}"), "shown again, from the list");
        Settled();
        Press($"[data-choose='{ids[1]}']");
        Browser.Until(() => Browser.Find("[data-chosen]").GetAttribute("data-chosen") == $"{ids[1]}", "chosen from the list");

        // One that lies behind another is reached by Ctrl and a click.
        int behind = (await Server.PostAsync($"/api/publications/{_id}/frames", new { page = 1, x = 90, y = 90, width = 130, height = 90 }))
            .GetProperty("id").GetInt32();
        Browser.Until(() => Browser.Has($"#frame-{behind}"), "a larger one above");
        Settled();
        ClickOn(150, 130);
        Browser.Until(() => Browser.Find("[data-chosen]").GetAttribute("data-chosen") == $"{behind}", "the one above");
        ClickOn(150, 130, Keys.Control);
        Browser.Until(() => Browser.Find("[data-chosen]").GetAttribute("data-chosen") == $"{ids[0]}", "the one behind");
        await Server.Client.DeleteAsync($"/api/publications/{_id}/frames/{behind}");
        Browser.Until(() => !Browser.Has($"#frame-{behind}"), "gone again");

        ClickOn(150, 130);
        ClickOn(340, 160, Keys.Shift);
        Browser.Until(() => Browser.Find("#inspector h2").Text == "2 frames", "two");
        Browser.Send("#canvas", Keys.Control + "g");
        Eventually(_id, f => f.Count(x => x.GetProperty("groupId").ValueKind == JsonValueKind.Number) == 2, "grouped");
        ClickOn(210, 330);
        ClickOn(150, 130);
        Browser.Until(() => Browser.Find("[data-chosen]").GetAttribute("data-chosen")!.Split(',').Length == 2, "one is chosen with the other");
        Browser.Send("#canvas", Keys.Control + Keys.Shift + "g");
        Eventually(_id, f => f.All(x => x.GetProperty("groupId").ValueKind == JsonValueKind.Null), "ungrouped");

        ChooseBoth();
        OpenArrange();
        Press("[data-line-up=Top]");
        Eventually(_id, f => f.All(x => Near(x, "y", 100, 1e-6)), "in line");
        Press("[data-do=distribute][data-across=true]");
        var spread = Eventually(_id, f => Near(f.Single(x => x.GetProperty("id").GetInt32() == ids[2]), "x", 220, 1e-6), "evenly apart");
        Press("[data-same=Size]");
        Eventually(_id, f => f.Select(x => (Math.Round(D(x, "width"), 6), Math.Round(D(x, "height"), 6))).Distinct().Count() == 1, "of one size");
        Press("#line-up-with option[value=Page]");
        Press("[data-line-up=Left]");
        Eventually(_id, f => f.All(x => Near(x, "x", 0, 1e-6)), "at the edge of the page");
        Press("[data-do=to-bleed]");
        Eventually(_id, f => f.All(x => Near(x, "x", -3 / 25.4 * 72, 1e-6)), "out to the bleed");
    }

    [Fact]
    public async Task A_gap_between_frames_is_drawn_with_all_along_it_widened_and_typed()
    {
        var ids = await BeginAsync((100, 100, 100, 80), (214, 100, 100, 80), (100, 194, 100, 80), (214, 194, 100, 80));
        void Hover(double x, double y)
        {
            Settled();
            var at = Window(x, y);
            Actions().MoveToLocation(at.X + 30, at.Y + 200).MoveToLocation(at.X, at.Y - 1).MoveToLocation(at.X, at.Y).Perform();
            Browser.Find("#gap [data-gap]");
        }
        double[] Widths() => [.. ids.Select(i => Math.Round(D(FrameAsync(_id, i).Result, "width"), 3))];
        Hover(207, 140);
        Drag(Window(207, 140), Window(237, 140));
        Frame(_id, ids[2], f => D(f, "width") > 120, "the row below follows");
        var w = Widths();
        (w[0], w[1]).ShouldBe((w[2], w[3]));
        (w[0] + w[1]).ShouldBe(200, 0.01);
        double middle = 100 + w[0] + 7;

        // With Alt it becomes wider, and its size is shown.
        Hover(middle, 140);
        DragWith(Keys.Alt, (middle, 140), (middle + 8, 140));
        Frame(_id, ids[0], f => D(f, "width") < w[0] - 5, "wider");
        var frames = await Task.WhenAll(ids.Select(i => FrameAsync(_id, i)));
        double gap = D(frames[1], "x") - D(frames[0], "x") - D(frames[0], "width");
        gap.ShouldBeGreaterThan(20);

        // Clicked, its width is typed.
        middle = D(frames[1], "x") - gap / 2;
        Hover(middle, 140);
        Click(Window(middle, 140));
        Browser.Until(() => Browser.Find("#gap-width").Displayed, "a field for it");
        Browser.Send("#gap-width", Keys.Control + "a" + Keys.Null + "4mm" + Keys.Enter);
        Browser.Until(() =>
        {
            var now = ids.Take(2).Select(i => FrameAsync(_id, i).Result).ToArray();
            return Math.Abs(D(now[1], "x") - D(now[0], "x") - D(now[0], "width") - 4 / 25.4 * 72) < 1e-6;
        }, "four millimetres");
    }

    [Fact]
    public async Task The_points_of_an_outline_are_drawn_bent_added_and_taken_away()
    {
        var ids = await BeginAsync((100, 100, 120, 80));
        string[] Shown() => (Browser.Find("#shape-points").GetAttribute("data-points") ?? "").Split(' ');
        ClickOn(160, 140);
        Browser.Find("#shape-points");
        Settled();
        Browser.Send("#canvas", "p");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("[data-point]")).Count == 4, "the corners");
        // The corner at the lower right goes out, and nothing else moves.
        Browser.Click("#snapping");
        Drag(Window(220, 180), Window(260, 220));
        var frame = Frame(_id, ids[0], f => D(f, "width") > 150, "drawn out");
        (D(frame, "x"), D(frame, "y")).ShouldBe((100, 100));
        D(frame, "height").ShouldBe(120, 1.5);
        frame.GetProperty("outline").GetString().ShouldBe("polygon");
        Shown()[..2].ShouldBe(["100,100", "220,100"]);

        DoubleClick(Window(260, 220));
        Browser.Until(() => Shown().Count(p => p.Contains('/', StringComparison.Ordinal)) == 1, "bent");
        DoubleClick(Window(100, 140));
        Browser.Until(() => Shown().Length == 5, "one more on the left side");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("[data-point][data-part=At]")).Count == 5, "shown");
        Browser.Send("#canvas", "n");
        Browser.Send("#canvas", Keys.Insert);
        Browser.Until(() => Shown().Length == 6, "one more by key");
        Settled();
        Browser.Send("#canvas", Keys.Delete);
        Browser.Until(() => Shown().Length == 5, "taken away");
        Settled();
        string before = string.Join(' ', Shown());
        Browser.Send("#canvas", Keys.ArrowUp);
        Browser.Until(() => string.Join(' ', Shown()) != before, "nudged");
        Browser.Send("#canvas", Keys.Escape);
        Browser.Until(() => !Browser.Has("[data-point]") && Browser.Has("[data-grip=se]"), "back to the box");
        Browser.Send("#canvas", string.Concat(Enumerable.Repeat(Keys.Control + "z" + Keys.Null, 6)));
        Frame(_id, ids[0], f => D(f, "width") == 120 && f.GetProperty("outline").GetString() == "rectangle", "all of it undone");

        // A text frame keeps its four sides. It comes from elsewhere while another is being chosen, which stays chosen.
        int text = (await Server.PostAsync($"/api/publications/{_id}/frames", new
        {
            page = 1,
            x = 300,
            y = 100,
            width = 120,
            height = 80,
            text = new { paragraphs = new[] { new { text = "Four sides" } } }
        })).GetProperty("id").GetInt32();
        ClickOn(160, 140);
        Browser.Find($"#frame-{text}");
        Settled();
        Browser.Has("#shape-points").ShouldBeTrue();
        ClickOn(360, 140);
        Browser.Until(() => Browser.Has("#text-family"), "a text frame");
        Browser.Has("#shape-points").ShouldBeFalse();
    }

    [Fact]
    public async Task A_gap_of_nothing_between_touching_frames_can_be_taken_hold_of_and_opened()
    {
        var ids = await BeginAsync((100, 100, 100, 80), (200, 100, 100, 80));
        var at = Window(200, 140);
        Actions().MoveToLocation(at.X + 30, at.Y + 200).MoveToLocation(at.X, at.Y - 1).MoveToLocation(at.X, at.Y).Perform();
        Browser.Find("#gap [data-gap]");
        Click(at);
        Browser.Until(() => Browser.Find("#gap-width").Displayed, "a field for it");
        Browser.Send("#gap-width", Keys.Control + "a" + Keys.Null + "10pt" + Keys.Enter);
        Frame(_id, ids[1], f => Math.Abs(D(f, "x") - D(FrameAsync(_id, ids[0]).Result, "x") - D(FrameAsync(_id, ids[0]).Result, "width") - 10) < 1e-6,
            "ten points apart");
    }

    [Fact]
    public async Task Frames_are_duplicated_repeated_copied_within_and_between_publications()
    {
        var ids = await BeginAsync((100, 100, 80, 60));
        await Server.PostAsync($"/api/publications/{_id}/rules", new { name = "Carried", fit = "fit" });
        ClickOn(140, 130);
        Browser.Send("#canvas", Keys.Control + "d");
        Eventually(_id, f => f.Length == 2 && Near(f[1], "x", 112, 1e-6), "a duplicate");
        OpenArrange();
        Type("#repeat-columns", "3");
        Type("#repeat-rows", "2");
        Type("#repeat-x", "100pt");
        Type("#repeat-y", "90pt");
        Press("#repeat-form .btn");
        Eventually(_id, f => f.Length == 7, "three by two of the duplicate");

        // Copied, and pasted at the pointer; then in the same place on another page.
        Browser.Driver.ExecuteScript("""
            window.board = new DataTransfer();
            document.addEventListener('copy', e => window.board.setData('text/plain', e.clipboardData.getData('text/plain')));
            window.act = kind => {
              const e = new ClipboardEvent(kind, { clipboardData: new DataTransfer(), bubbles: true, cancelable: true });
              if (kind === 'paste') e.clipboardData.setData('text/plain', window.text ?? '');
              document.body.dispatchEvent(e);
              if (kind === 'copy') window.text = e.clipboardData.getData('text/plain');
            };
            """);
        ClickOn(140, 105);
        Browser.Driver.ExecuteScript("window.act('copy')");
        string text = Browser.Run<string>("return window.text");
        text.ShouldStartWith($"Formatum frames {ids[0]} of publication {_id} (");
        Actions().MoveToLocation(Window(420, 600).X, Window(420, 600).Y).Perform();
        Browser.Driver.ExecuteScript("window.act('paste')");
        Eventually(_id, f => f.Length == 8 && f.Any(x => Near(x, "x", 380, 2) && Near(x, "y", 570, 2)), "pasted at the pointer");

        int other = OpenDesk(await Server.NewPublicationAsync("Other", pages: 2, facing: false), 2);
        Browser.Driver.ExecuteScript("const e = new ClipboardEvent('paste', { clipboardData: new DataTransfer(), bubbles: true, cancelable: true }); " +
            "e.clipboardData.setData('text/plain', arguments[0]); document.body.dispatchEvent(e);", text);
        var pasted = Eventually(other, f => f.Length == 1, "pasted in the other publication");
        pasted.GetProperty("page").GetInt32().ShouldBe(2);
    }

    [Fact]
    public async Task A_picture_without_a_placeholder_is_set_down_by_click_and_by_drawing()
    {
        _id = await Server.NewPublicationAsync("Set down", pages: 1, facing: false);
        await FilledAsync(_id);
        OpenDesk(_id);
        Browser.Click(".thumb");
        Browser.Until(() => Browser.Has(".canvas[data-tool='set-down']"), "in hand");
        ClickOn(300, 300);
        var frame = Eventually(_id, f => f.Length == 1, "set down");
        // 600 x 400 pixels at 300 ppi, about the pointer.
        D(frame, "width").ShouldBe(144, 1e-6);
        D(frame, "x").ShouldBe(300 - 72, 2);
        Placement(frame).GetProperty("scale")[0].GetDouble().ShouldBe(1, 1e-9);
        Browser.Send("#canvas", Keys.Escape);
        Settled();
        Browser.Click(".thumb");
        Browser.Until(() => Browser.Has(".canvas[data-tool='set-down']"), "in hand again");
        Drag(Window(100, 500), Window(280, 560));
        var drawn = Eventually(_id, f => f.Length == 2, "drawn");
        var second = (await FramesAsync(_id))[1];
        (D(second, "width") / D(second, "height")).ShouldBe(1.5, 1e-9);
        Placement(second).GetProperty("cropLoss").GetDouble().ShouldBe(0, 1e-9);
    }

    [Fact]
    public async Task A_picture_larger_than_the_page_is_set_down_in_the_margins_or_the_column_under_the_pointer()
    {
        _id = (await Server.PostAsync("/api/publications", new
        {
            name = "Large",
            page = new { size = "A4" },
            pages = 1,
            margins = new { top = 40, bottom = 40, inside = 40, outside = 40 },
            columns = new { count = 2, gutter = 20 },
        })).GetProperty("id").GetInt32();
        using var folder = new TempFolder();
        using var picture = TestPictures.Quarters(1800, 900);
        await Server.UploadAsync(_id, ("wide.jpg", await File.ReadAllBytesAsync(TestPictures.Save(picture, folder["wide.jpg"], 72))));
        OpenDesk(_id);
        Browser.Click(".thumb");
        Browser.Until(() => Browser.Has(".canvas[data-tool='set-down']"), "in hand");
        ClickOn(450, 300);
        var frame = Eventually(_id, f => f.Length == 1, "set down");
        // A4 is 595.28 pt wide: of two columns the right one begins at 40 + 247.64 + 20.
        double column = (595.2756 - 80 - 20) / 2;
        D(frame, "width").ShouldBe(column, 0.01);
        D(frame, "height").ShouldBe(column / 2, 0.01);
        D(frame, "x").ShouldBe(60 + column, 0.01);
        D(frame, "y").ShouldBe(300 - column / 4, 2);
        Placement(frame).GetProperty("cropLoss").GetDouble().ShouldBe(0, 1e-9);
    }

    [Fact]
    public async Task Guides_are_drawn_from_the_rulers_moved_typed_and_taken_away_and_the_view_zooms_about_the_pointer()
    {
        await BeginAsync();
        var ruler = Browser.Find("#ruler-left");
        var to = Window(200, 400);
        Drag((ruler.Location.X + 8, to.Y), to);
        Browser.Find("[data-guide][data-upright=yes]");
        Settled();
        Drag(Window(200, 400), Window(240, 420));
        Browser.Until(() => Browser.Find("[data-guide]").GetAttribute("data-words") is { } at && at.StartsWith("84", StringComparison.Ordinal), "moved");
        Settled();
        Click(Window(240, 420));
        Browser.Until(() => Browser.Find("#guide-at").Displayed, "a field for it");
        Browser.Send("#guide-at", "100mm" + Keys.Enter);
        Browser.Until(() => Browser.Find("[data-guide]").GetAttribute("data-words") == "100 mm", "typed");
        Settled();
        Click(Window(100 / 25.4 * 72, 420));
        Browser.Until(() => Browser.Find("#guide-remove").Displayed, "its card");
        Browser.Click("#guide-remove");
        Browser.Until(() => !Browser.Has("[data-guide]"), "taken away");

        var pointer = Window(150, 250);
        new Actions(Browser.Driver).KeyDown(Keys.Control).ScrollFromOrigin(new WheelInputDevice.ScrollOrigin
        {
            Viewport = true,
            XOffset = pointer.X,
            YOffset = pointer.Y
        }, 0, -300).KeyUp(Keys.Control).Perform();
        Browser.Until(() => Math.Abs(Window(150, 250).X - pointer.X) <= 2 && Math.Abs(Window(150, 250).Y - pointer.Y) <= 2
            && Browser.Find("#zoom-figure").Text != "60 %", "zoomed about the pointer");
    }

    [Fact]
    public async Task The_history_tells_in_words_what_was_done_and_goes_back_to_any_of_it()
    {
        await BeginAsync();
        Draw(_id, (100, 100), (200, 160));
        Browser.Send("#canvas", Keys.ArrowRight);
        Eventually(_id, f => D(f[0], "x") > 102, "nudged");
        Browser.Send("#canvas", Keys.Delete);
        Eventually(_id, f => f.Length == 0, "removed");
        Browser.Click("#history-button");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("#history-list [data-sequence]")).Count == 4, "three things and the beginning");
        Browser.Driver.FindElements(By.CssSelector("#history-list .history-words, #history-list [data-sequence='0'] span"))
            .Select(e => e.Text.Split(" \u00b7 ")[0]).ShouldBe(["Remove frame", "Move frame", "Make placeholder", "The beginning"]);
        Browser.Click("#history-list [data-sequence='1']");
        Eventually(_id, f => f.Length == 1 && Near(f[0], "x", 100, 1.5), "as it was after the first");
        Browser.Until(() => Browser.Has("#frames .frame"), "and shown");
    }
}
