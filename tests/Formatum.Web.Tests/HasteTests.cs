using System.Globalization;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace Formatum.Web.Tests;

/// <summary>What a gesture makes takes the next gesture at once, however long the line takes: waits, and is never lost.</summary>
public sealed class HasteTests(Workplace place) : InBrowser(place)
{
    private int _id;
    private SlowLine? _line;

    /// <summary>Opens the Desk with one picture, over a line of so many milliseconds there and back.</summary>
    private async Task BeginAsync(int milliseconds)
    {
        _id = await Server.NewPublicationAsync("Haste", pages: 1, facing: false);
        await FilledAsync(_id);
        Open(milliseconds);
    }

    private void Open(int milliseconds)
    {
        if (milliseconds == 0) OpenDesk(_id);
        else
        {
            _line = new(Server.Address, TimeSpan.FromMilliseconds(milliseconds));
            Browser.Driver.Navigate().GoToUrl($"{_line.Address}/publications/{_id}/desk/1");
            Browser.Find("#desk[data-ready]");
        }
        Browser.Find(".thumb");
    }

    private void End()
    {
        Settled();
        _line?.Dispose();
    }

    /// <summary>Events without a pause between them.</summary>
    private Actions Hasty(int pause = 0) => new(Browser.Driver, TimeSpan.FromMilliseconds(pause));

    private Actions Drag(Actions actions, (double X, double Y) from, (double X, double Y) to)
    {
        var (a, b) = (Window(from.X, from.Y), Window(to.X, to.Y));
        return actions.MoveToLocation(a.X, a.Y).ClickAndHold().MoveToLocation((a.X + b.X) / 2, (a.Y + b.Y) / 2).MoveToLocation(b.X, b.Y).Release();
    }

    private (int X, int Y) Middle(string css)
    {
        var at = Browser.Run<IReadOnlyCollection<object>>("const r = document.querySelector(arguments[0]).getBoundingClientRect(); " +
            "return [r.x + r.width / 2, r.y + r.height / 2]", css).Select(v => Convert.ToDouble(v, CultureInfo.InvariantCulture)).ToArray();
        return ((int)at[0], (int)at[1]);
    }

    [Theory]
    [InlineData(0, 0)]
    [InlineData(0, 20)]
    [InlineData(80, 0)]
    [InlineData(300, 0)]
    public async Task A_key_and_a_drag_six_times_are_six_frames(int milliseconds, int pause)
    {
        await BeginAsync(milliseconds);
        var all = Hasty(pause);
        for (int i = 0; i < 6; i++)
            all = Drag(all.SendKeys("1"), (60 + 80 * i, 100), (120 + 80 * i, 180));
        all.Perform();
        Eventually(_id, f => f.Length == 6, "six frames");
        (await FramesAsync(_id)).Select(f => Math.Round(D(f, "x") / 80 - 0.75)).ShouldBe([0, 1, 2, 3, 4, 5]);
        Browser.Find("#canvas").GetAttribute("data-tool").ShouldBe("pick");
        End();
    }

    [Theory]
    [InlineData(0)]
    [InlineData(80)]
    [InlineData(300)]
    public async Task A_thumbnail_that_is_clicked_right_after_a_frame_was_drawn_goes_into_it_and_Enter_into_the_picture(int milliseconds)
    {
        await BeginAsync(milliseconds);
        var thumb = Middle(".thumb");
        Drag(Hasty().SendKeys("1"), (100, 100), (300, 220)).MoveToLocation(thumb.X, thumb.Y).Click().SendKeys(Keys.Enter).Perform();
        Eventually(_id, f => f.Length == 1 && f[0].GetProperty("imageId").ValueKind == JsonValueKind.Number, "one frame, with the picture");
        Browser.Until(() => Browser.Has("[data-inside=yes]"), "inside");
        End();
    }

    [Theory]
    [InlineData(0)]
    [InlineData(80)]
    [InlineData(300)]
    public async Task A_drag_right_after_a_double_click_pans_the_picture(int milliseconds)
    {
        _id = await Server.NewPublicationAsync("Haste", pages: 1, facing: false);
        int frame = (await FilledAsync(_id, (100, 100, 300, 120)))[0];
        Open(milliseconds);
        var at = Window(250, 160);
        Drag(Hasty().MoveToLocation(at.X, at.Y).DoubleClick(), (250, 160), (250, 140)).Perform();
        Frame(_id, frame, f => f.GetProperty("recrop").GetProperty("point").ValueKind == JsonValueKind.Array, "panned");
        Browser.Find("[data-inside=yes]");
        // Nothing but the picture was moved.
        D(await FrameAsync(_id, frame), "y").ShouldBe(100, 1e-9);
        End();
    }

    [Theory]
    [InlineData(0)]
    [InlineData(80)]
    [InlineData(300)]
    public async Task Keys_right_after_a_text_frame_was_drawn_are_its_words_and_Escape_keeps_it_closed(int milliseconds)
    {
        await BeginAsync(milliseconds);
        Drag(Hasty().SendKeys("5"), (100, 100), (400, 220)).SendKeys("Stoneware, and more of it").Perform();
        string Words() => Browser.Run<string>("return document.querySelector('textarea.writing')?.value ?? ''");
        Browser.Until(() => Words() == "Stoneware, and more of it", "all keys");
        Press(Keys.Escape);
        Browser.Until(() => !Browser.Has("textarea.writing"), "closed");
        Drag(Hasty().SendKeys("5"), (100, 300), (400, 420)).SendKeys(Keys.Escape).Perform();
        Eventually(_id, f => f.Length == 2, "a second frame");
        Settled();
        Browser.Has("textarea.writing").ShouldBeFalse();
        End();
    }

    [Fact]
    public async Task A_tool_stays_in_hand_after_a_second_press_and_while_its_key_is_held()
    {
        await BeginAsync(0);
        Hasty().SendKeys("11").Perform();
        Browser.Until(() => Browser.Find("#tool-words").Text.Contains("Stays in hand", StringComparison.Ordinal), "it is said");
        Drag(Drag(Hasty(), (60, 100), (120, 180)), (160, 100), (220, 180)).Perform();
        Eventually(_id, f => f.Length == 2, "two frames");
        Press(Keys.Escape);
        Browser.Until(() => Browser.Find("#canvas").GetAttribute("data-tool") == "pick", "put down");
        Drag(Drag(Hasty().KeyDown("2"), (60, 300), (120, 380)), (160, 300), (220, 380)).KeyUp("2").Perform();
        Eventually(_id, f => f.Length == 4 && f[3].GetProperty("outline").GetString() == "ellipse", "and two more");
        Browser.Find("#canvas").GetAttribute("data-tool").ShouldBe("pick");
    }

    [Fact]
    public async Task Frames_are_drawn_while_the_line_is_cut_again_and_again_and_none_is_lost_or_doubled()
    {
        await BeginAsync(40);
        for (int i = 0; i < 10; i++)
        {
            Drag(Hasty().SendKeys("1"), (60 + 50 * i, 100), (100 + 50 * i, 180)).Perform();
            if (i % 3 == 1) _line!.Cut();
        }
        Eventually(_id, f => f.Length == 10, "ten frames");
        (await FramesAsync(_id)).Select(f => Math.Round((D(f, "x") - 60) / 50)).ShouldBe([0, 1, 2, 3, 4, 5, 6, 7, 8, 9]);
        End();
    }

    /// <summary>Two gestures, one right behind the other, and what must be there then. A frame lies at 100, 100, 200 wide and 120 high, with a
    /// picture.</summary>
    private sealed record Pair(string Name, Func<HasteTests, Actions, Actions> Do, Func<JsonElement[], bool> Then);

    private static bool At(JsonElement frame, double x, double y) => Math.Abs(D(frame, "x") - x) < 3 && Math.Abs(D(frame, "y") - y) < 3;

    private static bool HasPicture(JsonElement frame) => frame.GetProperty("imageId").ValueKind == JsonValueKind.Number;

    private static readonly (double X, double Y) InFrame = (200, 160), From = (350, 300), To = (450, 380);

    private Actions ClickThumb(Actions actions)
    {
        var thumb = Middle(".thumb");
        return actions.MoveToLocation(thumb.X, thumb.Y).Click();
    }

    private Actions ClickAt(Actions actions, (double X, double Y) at)
    {
        var place = Window(at.X, at.Y);
        return actions.MoveToLocation(place.X, place.Y).Click();
    }

    private static readonly Pair[] Pairs =
    [
        new("draw, then a thumbnail", (t, a) => t.ClickThumb(t.Drag(a.SendKeys("1"), From, To)), f => f.Length == 2 && HasPicture(f[1])),
        new("draw, then draw", (t, a) => t.Drag(t.Drag(a.SendKeys("1"), From, To).SendKeys("2"), (350, 420), (450, 480)),
            f => f.Length == 3 && At(f[2], 350, 420) && f[2].GetProperty("outline").GetString() == "ellipse"),
        new("draw, then an arrow", (t, a) => t.Drag(a.SendKeys("1"), From, To).SendKeys(Keys.ArrowRight + Keys.ArrowRight),
            f => f.Length == 2 && Math.Abs(D(f[1], "x") - 350 - 2 * 72 / 25.4) < 3),
        new("draw, then Delete", (t, a) => t.Drag(a.SendKeys("1"), From, To).SendKeys(Keys.Delete), f => f.Length == 1),
        new("draw, then Ctrl D", (t, a) => t.Drag(a.SendKeys("1"), From, To).KeyDown(Keys.Control).SendKeys("d").KeyUp(Keys.Control),
            f => f.Length == 3 && At(f[2], 362, 312)),
        new("move, then Ctrl Z", (t, a) => t.Drag(a, InFrame, (300, 260)).KeyDown(Keys.Control).SendKeys("z").KeyUp(Keys.Control),
            f => f.Length == 1 && At(f[0], 100, 100)),
        new("move, then move", (t, a) => t.Drag(t.Drag(a, InFrame, (260, 200)), (260, 200), (300, 260)), f => f.Length == 1 && At(f[0], 200, 200)),
        new("choose, then Delete", (t, a) => t.ClickAt(a, InFrame).SendKeys(Keys.Delete), f => f.Length == 0),
        new("choose, then an arrow", (t, a) => t.ClickAt(a, InFrame).SendKeys(Keys.ArrowDown), f => Math.Abs(D(f[0], "y") - 100 - 72 / 25.4) < 0.01),
        new("Ctrl D, then an arrow", (t, a) => t.ClickAt(a, InFrame).KeyDown(Keys.Control).SendKeys("d").KeyUp(Keys.Control).SendKeys(Keys.ArrowDown),
            f => f.Length == 2 && At(f[0], 100, 100) && Math.Abs(D(f[1], "y") - 112 - 72 / 25.4) < 0.01),
        new("draw, then drag what was drawn", (t, a) => t.Drag(t.Drag(a.SendKeys("1"), From, To), (400, 340), (430, 400)),
            f => f.Length == 2 && At(f[1], 380, 360)),
        new("into the picture, then pan", (t, a) =>
        {
            var at = t.Window(InFrame.X, InFrame.Y);
            return t.Drag(a.MoveToLocation(at.X, at.Y).DoubleClick(), InFrame, (200, 150));
        }, f => At(f[0], 100, 100) && f[0].GetProperty("recrop").GetProperty("point").ValueKind == JsonValueKind.Array),
    ];

    [Theory]
    [InlineData(0, 0)]
    [InlineData(0, 20)]
    [InlineData(0, 60)]
    [InlineData(80, 0)]
    [InlineData(300, 0)]
    public async Task Of_two_gestures_neither_is_lost(int milliseconds, int pause)
    {
        foreach (var pair in Pairs)
        {
            _id = await Server.NewPublicationAsync("Haste", pages: 1, facing: false);
            await FilledAsync(_id, (100, 100, 200, 120));
            Open(milliseconds);
            pair.Do(this, Hasty(pause)).Perform();
            Settled();
            Eventually(_id, pair.Then, $"{pair.Name}, {pause} ms between, {milliseconds} ms there and back");
            End();
        }
    }

    /// <summary>Frames are drawn, pictures placed and words typed while the line is cut again and again: answers go missing, and are asked for anew.</summary>
    [Theory]
    [InlineData(5, 60)]
    [InlineData(0.7, 0)]
    public async Task Nothing_is_lost_or_doubled_over_a_line_that_is_cut_again_and_again(double every, double seconds)
    {
        await BeginAsync(40);
        const int Rounds = 8;
        string[] words = [.. Enumerable.Range(0, Rounds).Select(i => $"Round {i}: {new string((char)('a' + i), 20)}.")];
        var clock = System.Diagnostics.Stopwatch.StartNew();
        using var cuts = new Timer(_ => _line!.Cut(), null, TimeSpan.FromSeconds(every), TimeSpan.FromSeconds(every));
        for (int i = 0; i < Rounds; i++)
        {
            double x = 40 + 60 * i;
            ClickThumb(Drag(Hasty(5).SendKeys("1"), (x, 60), (x + 50, 100))).Perform();
            Drag(Hasty(5).SendKeys("5"), (x, 160 + 60 * (i % 2)), (x + 120, 210 + 60 * (i % 2))).SendKeys(words[i]).Perform();
            if (i + 1 < Rounds) Press(Keys.Escape, Keys.Escape);
        }
        // The rest of the time the last text is typed on, key by key.
        for (; clock.Elapsed < TimeSpan.FromSeconds(seconds); words[^1] += "x") Press("x");
        Press(Keys.Escape);
        cuts.Change(Timeout.Infinite, Timeout.Infinite);
        Settled();
        // A text that opens, closed by Escape already, is stored behind that.
        Browser.Until(() => StoriesAsync(FramesAsync(_id).Result).Result.Order().SequenceEqual(words.Order()), "all words");
        var made = await FramesAsync(_id);
        (made.Length, made.Count(HasPicture)).ShouldBe((2 * Rounds, Rounds),
            string.Join('\n', made.Select(f => $"{D(f, "x"):0} {D(f, "y"):0} {HasPicture(f)}")));
        (await StoriesAsync(made)).ShouldBe(words, ignoreOrder: true);
        End();
    }

    private async Task<string[]> StoriesAsync(JsonElement[] frames)
    {
        var stories = new List<string>();
        foreach (var text in frames.Select(f => f.GetProperty("text")).Where(t => t.ValueKind == JsonValueKind.Object))
        {
            var story = await Server.GetAsync($"/api/publications/{_id}/stories/{text.GetProperty("storyId").GetInt32()}");
            stories.Add(string.Join('\n', story.GetProperty("paragraphs").EnumerateArray().Select(p => p.GetProperty("text").GetString())));
        }
        return [.. stories];
    }
}
