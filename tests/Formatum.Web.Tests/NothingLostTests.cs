using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace Formatum.Web.Tests;

/// <summary>Hands that are faster than the server, two at one thing, and everything that can fail on the way: nothing is lost, and the page shows what is
/// stored.</summary>
public sealed class NothingLostTests(Workplace place) : InBrowser(place)
{
    private const double Millimetre = 72 / 25.4;

    private async Task<(int Publication, int Frame)> FrameAsync(double x = 100)
    {
        int id = await Server.NewPublicationAsync("Fast", pages: 2, facing: false);
        return (id, (await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x, y = 100, width = 200, height = 150 }))
            .GetProperty("id").GetInt32());
    }

    private async Task<(int Publication, int Frame)> TextAsync(string words)
    {
        int id = await Server.NewPublicationAsync("Text", pages: 1, facing: false);
        return (id, (await Server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = 1,
            x = 100,
            y = 100,
            width = 300,
            height = 200,
            text = new { paragraphs = new[] { new { text = words, size = 20 } } }
        })).GetProperty("id").GetInt32());
    }

    private string TextOf(int publication, int frame) => string.Join('\n', FrameAsync(publication, frame).Result.GetProperty("text").GetProperty("paragraphs")
        .EnumerateArray().Select(p => p.GetProperty("text").GetString()));

    /// <summary>Ten arrows, pressed every 33 ms.</summary>
    private void TenArrows()
    {
        var keys = new ActionBuilder();
        var board = new KeyInputDevice("board");
        for (int i = 0; i < 10; i++)
        {
            keys.AddAction(board.CreateKeyDown('\ue014')).AddAction(board.CreateKeyUp('\ue014')).AddAction(board.CreatePause(TimeSpan.FromMilliseconds(33)));
        }
        Browser.Driver.PerformActions(keys.ToActionSequenceList());
    }

    /// <summary>Has every request that changes something answered with a failure, until <see cref="AnswerAgain"/>.</summary>
    private void FailWith(int status) => Browser.Run<object?>("""
        window.realFetch ??= window.fetch;
        window.fetch = (address, sent) => sent?.method === 'POST'
          ? Promise.resolve(new Response(JSON.stringify({ detail: `failed with ${arguments[0]}` }),
            { status: arguments[0], headers: { 'Content-Type': 'application/problem+json' } }))
          : window.realFetch(address, sent);
        return null;
        """.Replace("arguments[0]", status.ToString(System.Globalization.CultureInfo.InvariantCulture), StringComparison.Ordinal));

    private void AnswerAgain() => Browser.Run<object?>("window.fetch = window.realFetch; return null;");

    [Fact]
    public async Task A_click_and_ten_arrows_at_once_move_ten_steps_each_time()
    {
        var (id, frame) = await FrameAsync();
        OpenDesk(id);
        for (int tries = 1; tries <= 4; tries++)
        {
            double before = D(await FrameAsync(id, frame), "x");
            Click(Window(5, 700));
            Click(Window(before + 60, 150));
            TenArrows();
            Frame(id, frame, f => Math.Abs(D(f, "x") - before - 10 * Millimetre) < 1e-6, $"ten steps, the {tries}. time");
        }
    }

    [Fact]
    public async Task Ten_arrows_arrive_while_somebody_else_works_beside()
    {
        var (id, frame) = await FrameAsync();
        int other = (await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 20, y = 500, width = 50, height = 50 }))
            .GetProperty("id").GetInt32();
        OpenDesk(id);
        var beside = Task.Run(async () =>
        {
            for (int i = 0; i < 30; i++)
                using (var answer = await Server.Client.PatchAsJsonAsync($"/api/publications/{id}/frames/{other}", new { x = 20 + i }))
                    answer.IsSuccessStatusCode.ShouldBeTrue();
        });
        Click(Window(160, 150));
        TenArrows();
        TenArrows();
        await beside;
        Frame(id, frame, f => Math.Abs(D(f, "x") - 100 - 20 * Millimetre) < 1e-6, "twenty steps");
        Browser.Until(() => Browser.Find($"#frame-{other}").GetAttribute("data-box")!.StartsWith("49 ", StringComparison.Ordinal), "the other's work is shown");
    }

    [Fact]
    public async Task What_was_just_drawn_takes_the_keys_that_follow_at_once()
    {
        int id = OpenDesk(await Server.NewPublicationAsync("Drawn", pages: 1, facing: false));
        Browser.Click("#snapping");
        Browser.Send("#canvas", "1");
        Drag(Window(100, 100), Window(200, 180));
        TenArrows();
        Eventually(id, f => f.Length == 1 && Math.Abs(D(f[0], "x") - 100 - 10 * Millimetre) < 1.5, "drawn, and moved by ten");
        // By keys alone: the frame stands in the middle of the page, and is chosen.
        Press("2", Keys.Enter);
        TenArrows();
        Eventually(id, f => f.Length == 2 && f[1].GetProperty("outline").GetString() == "ellipse", "made by key");
        double middle = 595.27559 / 2;
        Frame(id, (await FramesAsync(id))[1].GetProperty("id").GetInt32(), f => D(f, "x") + D(f, "width") / 2 > middle + 9 * Millimetre, "and moved");
    }

    [Theory]
    [InlineData(400)]
    [InlineData(409)]
    [InlineData(422)]
    [InlineData(429)]
    [InlineData(500)]
    [InlineData(507)]
    public async Task After_a_failure_the_page_shows_what_is_stored_and_goes_on(int status)
    {
        var (id, frame) = await FrameAsync();
        OpenDesk(id);
        Click(Window(160, 150));
        FailWith(status);
        Drag(Window(160, 150), Window(260, 250));
        Browser.Until(() => Browser.Has(".notice") && Browser.Find(".notice").Text.Contains($"failed with {status}", StringComparison.Ordinal), "told");
        Browser.Until(() => Browser.Find($"#frame-{frame}").GetAttribute("data-box") == "100 100 200 150", "back where it is stored");
        AnswerAgain();
        TenArrows();
        Frame(id, frame, f => Math.Abs(D(f, "x") - 100 - 10 * Millimetre) < 1e-6, "goes on");
    }

    [Theory]
    [InlineData(422)]
    [InlineData(500)]
    [InlineData(507)]
    public async Task Typed_words_stay_in_their_field_until_they_are_stored(int status)
    {
        var (id, frame) = await TextAsync("Lady");
        OpenDesk(id);
        DoubleClick(Window(200, 150));
        Browser.Find(".writing");
        FailWith(status);
        Press("bird");
        Browser.Until(() => Browser.Has(".notice") && Browser.Find(".notice").Text.Contains($"failed with {status}", StringComparison.Ordinal), "told");
        Click(Window(10, 700));
        Browser.Find(".writing").GetDomProperty("value").ShouldBe("Ladybird");
        TextOf(id, frame).ShouldBe("Lady");
        AnswerAgain();
        Click(Window(10, 700));
        Browser.Until(() => TextOf(id, frame) == "Ladybird", "stored once it can be");
        Browser.Until(() => !Browser.Has(".writing"), "and the field is closed");
    }

    [Fact]
    public async Task What_is_done_while_the_server_is_gone_waits_and_is_done_once()
    {
        var (id, frame) = await FrameAsync();
        OpenDesk(id);
        Click(Window(160, 150));
        Settled();
        Server.Kill();
        TenArrows();
        Browser.Until(() => Browser.Has(".notice") && Browser.Find(".notice").Text.Contains("waits here", StringComparison.Ordinal), "told that it waits");
        Server.StartAgain(samePort: true);
        Frame(id, frame, f => Math.Abs(D(f, "x") - 100 - 10 * Millimetre) < 1e-6, "all ten");
        Browser.Until(() => !Browser.Has(".notice"), "the notice is gone");
    }

    [Fact]
    public async Task An_edit_whose_answer_got_lost_is_made_once()
    {
        var (id, frame) = await FrameAsync();
        OpenDesk(id);
        Click(Window(160, 150));
        Settled();
        // Sent, done, and the answer lost on the way, three times; then it comes through.
        Browser.Run<object?>("""
            window.realFetch = window.fetch;
            window.lost = 3;
            window.fetch = async (address, sent) => {
              const answer = await window.realFetch(address, sent);
              if (sent?.method === 'POST' && window.lost-- > 0) throw new TypeError('the line broke');
              return answer;
            };
            return null;
            """);
        TenArrows();
        Frame(id, frame, f => Math.Abs(D(f, "x") - 100 - 10 * Millimetre) < 1e-6, "ten steps, and no more");
        Browser.Until(() => Browser.Find($"#frame-{frame}").GetAttribute("data-box")!.StartsWith("128.34", StringComparison.Ordinal), "and shown");
        D(await FrameAsync(id, frame), "x").ShouldBe(100 + 10 * Millimetre, 1e-6);
    }

    [Fact]
    public async Task The_caret_stays_while_another_window_edits_and_typing_goes_on_there()
    {
        var (id, frame) = await TextAsync("Lady");
        int other = (await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 20, y = 500, width = 50, height = 50 }))
            .GetProperty("id").GetInt32();
        OpenDesk(id);
        DoubleClick(Window(200, 150));
        Browser.Find(".writing");
        for (int i = 0; i < 4; i++)
        {
            Press("bird"[i].ToString());
            using var answer = await Server.Client.PatchAsJsonAsync($"/api/publications/{id}/frames/{other}", new { x = 30 + i });
            Browser.Until(() => Browser.Find($"#frame-{other}").GetAttribute("data-box")!.StartsWith($"{30 + i} ", StringComparison.Ordinal),
                "the other's edit is shown");
        }
        Press(Keys.Escape);
        Browser.Until(() => TextOf(id, frame) == "Ladybird", "typed on where the caret was");
    }

    [Fact]
    public async Task Two_at_one_text_are_told_and_neither_loses_a_word()
    {
        var (id, frame) = await TextAsync("Lady");
        OpenDesk(id);
        DoubleClick(Window(200, 150));
        Browser.Find(".writing");
        // Typed, and not stored yet, when the other's words come.
        Press("bird");
        using (var answer = await Server.Client.PatchAsJsonAsync($"/api/publications/{id}/frames/{frame}",
            new { text = new { paragraphs = new[] { new { text = "Gentleman", size = 20 } } } })) answer.IsSuccessStatusCode.ShouldBeTrue();
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".notice")).Any(n => n.Text.Contains("Somebody else changed this text",
            StringComparison.Ordinal)), "the choice is offered");
        TextOf(id, frame).ShouldBe("Gentleman", "nothing is overwritten unseen");
        Browser.Find(".writing").GetDomProperty("value").ShouldBe("Ladybird");
        Browser.Until(() =>
        {
            var mine = Browser.Driver.FindElements(By.CssSelector(".notice button")).FirstOrDefault(b => b.Text == "Put mine in its place");
            mine?.Click();
            return mine is not null;
        }, "mine");
        Browser.Until(() => TextOf(id, frame) == "Ladybird", "on purpose it is replaced");
    }

    [Fact]
    public async Task What_is_being_typed_in_the_inspector_stays_when_another_window_edits()
    {
        var (id, frame) = await FrameAsync();
        OpenDesk(id);
        Click(Window(160, 150));
        Browser.Find("#frame-x");
        Settled();
        Browser.Send("#frame-x", Keys.Control + "a" + Keys.Null + "6");
        using (var answer = await Server.Client.PatchAsJsonAsync($"/api/publications/{id}/frames/{frame}", new { height = 180 }))
            answer.IsSuccessStatusCode.ShouldBeTrue();
        Browser.Until(() => Browser.Find("#frame-height").GetDomProperty("value") == "63.5", "the other's edit is shown");
        Press("0", Keys.Enter);
        Frame(id, frame, f => Math.Abs(D(f, "x") - 60 * Millimetre) < 1e-6, "typed on");
        // Escape takes back what was typed, and the keys are the page's again.
        Browser.Send("#frame-x", Keys.Control + "a" + Keys.Null + "999" + Keys.Escape);
        Browser.Find("#frame-x").GetDomProperty("value").ShouldBe("60");
        Press(Keys.ArrowRight);
        Frame(id, frame, f => Math.Abs(D(f, "x") - 61 * Millimetre) < 1e-6, "nudged");
    }

    [Fact]
    public async Task Undo_takes_back_ones_own_step_on_its_spread_and_leaves_what_others_did()
    {
        var (id, frame) = await FrameAsync();
        OpenDesk(id);
        Click(Window(160, 150));
        TenArrows();
        // To the next spread at once: what was begun is done first.
        Browser.Click("#next-spread");
        Browser.Until(() => Browser.Driver.Url.EndsWith("/desk/2", StringComparison.Ordinal), "the next spread");
        D(await FrameAsync(id, frame), "x").ShouldBe(100 + 10 * Millimetre, 1e-6);
        int other = (await Server.PostAsync($"/api/publications/{id}/frames", new { page = 2, x = 20, y = 500, width = 50, height = 50 }))
            .GetProperty("id").GetInt32();
        Browser.Find($"#frame-{other}");
        Browser.Send("#canvas", Keys.Control + "z");
        Browser.Until(() => Browser.Driver.Url.EndsWith("/desk/1", StringComparison.Ordinal), "the page goes where it happened");
        Browser.Until(() => Browser.Has(".notice") && Browser.Find(".notice").Text.StartsWith($"Undo Move frame: Frame {frame}, page 1",
            StringComparison.Ordinal), "and says what");
        D(await FrameAsync(id, frame), "x").ShouldBe(100 + 9 * Millimetre, 1e-6);
        (await FramesAsync(id)).Length.ShouldBe(2);
    }

    private void DropOn(string css, params (string Name, string Content)[] files) => Browser.Run<object?>("""
        const data = new DataTransfer();
        for (const [name, content] of arguments[1])
          data.items.add(new File([Uint8Array.from(atob(content), c => c.charCodeAt(0))], name, { type: 'image/jpeg' }));
        const target = document.querySelector(arguments[0]), box = target.getBoundingClientRect();
        for (const kind of ['dragover', 'drop'])
          target.dispatchEvent(new DragEvent(kind, { dataTransfer: data, bubbles: true, cancelable: true, clientX: box.left + 5, clientY: box.top + 5 }));
        return null;
        """, css, files.Select(f => new[] { f.Name, f.Content }).ToArray());

    private static (string, string)[] Pictures6() => [.. Enumerable.Range(1, 6).Select(i => ($"p{i}.jpg",
        Convert.ToBase64String(ApiTests.Jpeg(60 + 10 * i, 50))))];

    [Fact]
    public async Task Several_files_on_a_frame_are_placed_and_wait()
    {
        var (id, frame) = await FrameAsync();
        OpenDesk(id);
        DropOn($"#frame-{frame}", Pictures6());
        Frame(id, frame, f => f.GetProperty("imageId").ValueKind == JsonValueKind.Number, "the first is placed");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("[data-tray]")).Count == 5, "the others wait");
    }

    [Fact]
    public async Task Six_placeholders_and_six_photographs_take_a_drop_and_a_key()
    {
        int id = await Server.NewPublicationAsync("Six", pages: 1, facing: false);
        for (int i = 0; i < 6; i++)
            await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 50 + i % 2 * 250, y = 50 + i / 2 * 200, width = 200, height = 150 });
        OpenDesk(id);
        DropOn("#spread", Pictures6());
        Browser.Until(() => Browser.Has("#arrivals-card:popover-open [data-into]")
            && Browser.Run<bool>("return document.activeElement.dataset.into === 'Spread'"), "the card, its first choice in focus");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("#under-way .tray-preview")).Count == 6, "what it would come to");
        (await FramesAsync(id)).ShouldAllBe(f => f.GetProperty("imageId").ValueKind == JsonValueKind.Null);
        Press(Keys.Enter);
        Eventually(id, f => f.All(x => x.GetProperty("imageId").ValueKind == JsonValueKind.Number), "all six are placed");
        (await FramesAsync(id)).Select(f => f.GetProperty("imageId").GetInt32()).ShouldBeInOrder();
    }

    [Fact]
    public async Task Leaving_while_files_are_sent_is_asked_about()
    {
        int id = OpenDesk(await Server.NewPublicationAsync("Leaving", pages: 1, facing: false));
        Browser.Run<object?>("XMLHttpRequest.prototype.send = function () {}; return null;");
        DropOn("#pictures", Pictures6());
        const string Asked = "const e = new Event('beforeunload', { cancelable: true }); window.dispatchEvent(e); return e.defaultPrevented;";
        Browser.Until(() => Browser.Run<bool>(Asked), "asked");
        Browser.Click("#intake-cancel");
        Browser.Until(() => !Browser.Run<bool>(Asked), "not any more");
        id.ShouldBeGreaterThan(0);
    }

    [Fact]
    public async Task One_frame_of_a_group_is_reached_by_a_second_click()
    {
        int id = await Server.NewPublicationAsync("Group", pages: 1, facing: false);
        for (int i = 0; i < 2; i++)
            await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 50 + i * 250, y = 50, width = 200, height = 150 });
        OpenDesk(id);
        Actions().KeyDown(Keys.Control).SendKeys("a").KeyUp(Keys.Control).Perform();
        Actions().KeyDown(Keys.Control).SendKeys("g").KeyUp(Keys.Control).Perform();
        Settled();
        Click(Window(10, 700));
        Click(Window(100, 100));
        Browser.Until(() => Browser.Find("#inspector [data-chosen]").GetAttribute("data-chosen")!.Contains(',', StringComparison.Ordinal), "the whole group");
        Click(Window(100, 100));
        Browser.Until(() => !Browser.Find("#inspector [data-chosen]").GetAttribute("data-chosen")!.Contains(',', StringComparison.Ordinal), "one of it");
        TenArrows();
        Eventually(id, f => Math.Abs(D(f[0], "x") - 50 - 10 * Millimetre) < 1e-6 && D(f[1], "x") == 300, "moved alone");
    }

    [Fact]
    public async Task After_placing_a_grid_or_a_dialog_the_keys_go_to_what_is_chosen()
    {
        int id = await Server.NewPublicationAsync("Keys", pages: 1, facing: false);
        var images = await Server.UploadAsync(id, ("a.jpg", ApiTests.Jpeg(60, 40, 9)), ("b.jpg", ApiTests.Jpeg(60, 40, 10)));
        int image = images[0].GetProperty("id").GetInt32();
        await Server.PostAsync($"/api/publications/{id}/tray", new { imageIds = new[] { images[1].GetProperty("id").GetInt32() } });
        int frame = (await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 50, y = 50, width = 200, height = 150 }))
            .GetProperty("id").GetInt32();
        OpenDesk(id);
        Click(Window(100, 100));
        Browser.Click($"#image-{image} .thumb");
        TenArrows();
        Frame(id, frame, f => Math.Abs(D(f, "x") - 50 - 10 * Millimetre) < 1e-6 && f.GetProperty("imageId").ValueKind == JsonValueKind.Number,
            "placed, and moved by the arrows that followed at once");

        Browser.Click("#pour");
        Browser.Find("#pour-dialog[open] #pour-form");
        Press(Keys.Escape);
        Browser.Until(() => Browser.Run<bool>("return document.activeElement.id === 'canvas'"), "the page has the keys");
        TenArrows();
        Frame(id, frame, f => Math.Abs(D(f, "x") - 50 - 20 * Millimetre) < 1e-6, "moved after the dialog was left");

        Browser.Click("[popovertarget=grid-card]");
        Browser.Click("#grid-form [data-fills=margins]");
        Press(Keys.Delete);
        Eventually(id, f => f.Length == 1, "the grid that was just made is removed by the key that followed");
    }

    [Fact]
    public async Task What_was_cut_can_be_pasted_and_a_stroke_of_the_hand_is_an_outline()
    {
        var (id, frame) = await FrameAsync();
        OpenDesk(id);
        Click(Window(160, 150));
        Settled();
        string text = Browser.Run<string>("const e = new ClipboardEvent('cut', { clipboardData: new DataTransfer(), bubbles: true, cancelable: true }); " +
            "document.body.dispatchEvent(e); return e.clipboardData.getData('text/plain');");
        Eventually(id, f => f.Length == 0, "cut");
        Actions().MoveToLocation(Window(300, 400).X, Window(300, 400).Y).Perform();
        Browser.Driver.ExecuteScript("const e = new ClipboardEvent('paste', { clipboardData: new DataTransfer(), bubbles: true, cancelable: true }); " +
            "e.clipboardData.setData('text/plain', arguments[0]); document.body.dispatchEvent(e);", text);
        Eventually(id, f => f.Length == 1 && Math.Abs(D(f[0], "x") - 200) < 2, "pasted");

        Browser.Send("#canvas", "4");
        var stroke = Actions();
        for (int i = 0; i <= 24; i++)
        {
            var (x, y) = Window(300 + 90 * Math.Cos(i * Math.PI / 12), 200 + 90 * Math.Sin(i * Math.PI / 12));
            stroke = i == 0 ? stroke.MoveToLocation(x, y).ClickAndHold() : stroke.MoveToLocation(x, y);
        }
        stroke.Release().Perform();
        Eventually(id, f => f.Length == 2 && f[1].GetProperty("outline").GetString() == "free" && Math.Abs(D(f[1], "width") - 180) < 8
            && Math.Abs(D(f[1], "height") - 180) < 8, "a round frame");
        frame.ShouldBeGreaterThan(0);
    }

    [Fact]
    public async Task A_button_still_pressed_when_an_answer_comes_is_clicked_when_it_is_let_go()
    {
        var (id, frame) = await FrameAsync();
        OpenDesk(id);
        Click(Window(150, 150));
        Browser.Until(() => Browser.Has("#inspector [data-fit=Stretch]"), "the frame's inspector");
        // Leaving the field for the button tells what was typed; what comes back would take the button away.
        Type("#inspector input[name=width]", "321 pt");
        Actions().ClickAndHold(Browser.Find("#inspector [data-fit=Stretch]")).Perform();
        Browser.Until(() => Math.Abs(D(FrameAsync(id, frame).Result, "width") - 321) < 1e-3, "what was typed");
        Actions().MoveByOffset(1, 0).Pause(TimeSpan.FromMilliseconds(300)).Release().Perform();
        Frame(id, frame, f => f.GetProperty("set").GetProperty("fit").GetString() == "stretch", "what was pressed");
    }

    [Fact]
    public async Task Two_in_different_paragraphs_of_one_text_both_keep_their_words_and_see_each_others()
    {
        var (id, frame) = await TextAsync("First");
        int story = (await FrameAsync(id, frame)).GetProperty("text").GetProperty("storyId").GetInt32();
        async Task OtherWrites(string text)
        {
            using var answer = await Server.Client.PutAsJsonAsync($"/api/publications/{id}/stories/{story}", new { text });
            answer.IsSuccessStatusCode.ShouldBeTrue();
        }
        await OtherWrites("First\nLady");
        OpenDesk(id);
        DoubleClick(Window(200, 150));
        Browser.Find(".writing");
        Press("b");
        // The other's words come into the paragraph before while this one's are on their way, and then while nothing is.
        await OtherWrites("First of all\nLady");
        Browser.Until(() => TextOf(id, frame) == "First of all\nLadyb", "both");
        Browser.Until(() => Browser.Find(".writing").GetDomProperty("value") == "First of all\nLadyb", "seen here");
        Press("ird");
        Browser.Until(() => TextOf(id, frame) == "First of all\nLadybird", "typed on where the caret was");
        await OtherWrites("Now first of all\nLadybird");
        Browser.Until(() => Browser.Find(".writing").GetDomProperty("value") == "Now first of all\nLadybird", "seen here too");
        Press("s", Keys.Escape);
        Browser.Until(() => TextOf(id, frame) == "Now first of all\nLadybirds", "and the caret stayed");
    }
}
