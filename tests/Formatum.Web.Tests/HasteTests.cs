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
        if (milliseconds == 0) OpenDesk(_id);
        else
        {
            _line = new(Server.Address, TimeSpan.FromMilliseconds(milliseconds));
            Browser.Driver.Navigate().GoToUrl($"{_line.Address}/publications/{_id}/desk/1");
            Browser.Find("#desk[data-ready]");
        }
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
}
