using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>Typing in the page itself: the caret in the lines as they print, through columns and frames, by keys and pointer.</summary>
public sealed class TypingTests(Workplace place) : InBrowser(place)
{
    private const double FrameX = 60, FrameY = 60;

    private static string Words(int count) => string.Join(' ', Enumerable.Range(0, count).Select(i => $"word{i:000}"));

    /// <summary>A text in two columns on the first page, which runs on into a frame of the third.</summary>
    private async Task<(int Publication, int Story, int Frame)> BeginAsync(string text)
    {
        int id = await Server.NewPublicationAsync("Typing", pages: 3, facing: false);
        async Task<int> Frame(int page) => (await Server.PostAsync($"/api/publications/{id}/frames", new
        {
            page,
            x = FrameX,
            y = FrameY,
            width = 300,
            height = 120,
            kind = "text",
            columns = new { count = 2, gutter = 20 },
        })).GetProperty("id").GetInt32();
        int first = await Frame(1), second = await Frame(3);
        var story = await Server.PostAsync($"/api/publications/{id}/stories", new { frames = new[] { first, second }, text });
        return (id, story.GetProperty("id").GetInt32(), first);
    }

    private Task<JsonElement> StoryAsync(int id, int story) => Server.GetAsync($"/api/publications/{id}/stories/{story}");

    private string TextOf(int id, int story) => string.Join('\n', StoryAsync(id, story).Result.GetProperty("paragraphs").EnumerateArray()
        .Select(p => p.GetProperty("text").GetString()));

    private void Open()
    {
        DoubleClick(Window(FrameX + 20, FrameY + 20));
        Browser.Until(() => Browser.Driver.SwitchTo().ActiveElement().GetAttribute("class") == "writing", "the caret is in it");
    }

    private void Close()
    {
        Press(Keys.Escape);
        Browser.Until(() => !Browser.Has(".writing"), "closed");
        Settled();
    }

    private string Selected() => Browser.Run<string>("const f = document.querySelector('.writing'); return f.value.slice(f.selectionStart, f.selectionEnd);");

    private string Value() => Browser.Run<string>("return document.querySelector('.writing').value");

    /// <summary>Waits until the page shows what is typed.</summary>
    private void Shown(string words) => Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("#frames .set-text"))
        .Any(t => t.GetDomProperty("textContent")!.Contains(words, StringComparison.Ordinal)), $"{words} is shown");

    [Fact]
    public async Task A_paragraph_of_40_kB_is_typed_into_over_one_and_the_same_line()
    {
        string trees = string.Concat(Enumerable.Repeat("клён ", 4_500));
        var (id, story, _) = await BeginAsync(trees);
        OpenDesk(id);
        Browser.Run<object>("window.opened = 0; window.WebSocket = class extends WebSocket { constructor(...to) { super(...to); window.opened++; } };");
        Open();
        Actions().KeyDown(Keys.Control).SendKeys(Keys.Home).KeyUp(Keys.Control).Perform();
        Press("Maple Alder Rowan ");
        Shown("Maple Alder Rowan");
        Close();
        TextOf(id, story).ShouldBe("Maple Alder Rowan " + trees);
        Browser.Run<long>("return window.opened").ShouldBeLessThanOrEqualTo(1);
    }

    [Fact]
    public async Task The_caret_goes_where_a_pointer_or_a_key_says_in_any_column_and_what_is_typed_stands_there()
    {
        var (id, story, frame) = await BeginAsync(Words(60));
        var lines = (await StoryAsync(id, story)).GetProperty("frames")[0].GetProperty("lines").EnumerateArray().ToArray();
        var third = lines.Where(l => l.GetProperty("column").GetInt32() == 1).ElementAt(2);
        string[] words = third.GetProperty("text").GetString()!.Split(' ');
        double x = third.GetProperty("pieces")[0].GetProperty("x").GetDouble(), y = third.GetProperty("baseline").GetDouble();
        OpenDesk(id);
        Open();
        // Before the first word of the third line of the second column.
        Click(Window(FrameX + x + 0.5, FrameY + y - 3));
        Press("A");
        Shown($"A{words[0]}");
        Press(Keys.End, "B");
        Shown($"{words[^1]}B");
        // What was typed may have changed where lines end: from the line's beginning one down and one up leads back to it.
        Press(Keys.Home);
        int before = (int)Browser.Run<long>("return document.querySelector('.writing').selectionStart");
        Press(Keys.ArrowDown, Keys.ArrowUp);
        Browser.Run<long>("return document.querySelector('.writing').selectionStart").ShouldBe(before);
        // A word by two clicks, the paragraph by three, and a stretch by dragging, from one column into the other.
        DoubleClick(Window(FrameX + 10, FrameY + 8));
        Selected().ShouldBe("word000");
        Drag(Window(FrameX + 1, FrameY + 8), Window(FrameX + x + 0.5, FrameY + y - 3));
        Selected().ShouldStartWith("word000");
        Selected().TrimEnd().ShouldEndWith(Value()[..Value().IndexOf("Aw", StringComparison.Ordinal)].TrimEnd().Split(' ')[^1]);
        Browser.Driver.FindElements(By.CssSelector(".text-selection rect")).Count.ShouldBeGreaterThan(8);
        Press("gone ");
        Shown("gone A");
        // What was typed elsewhere before is a step of its own.
        Actions().KeyDown(Keys.Control).SendKeys("z").KeyUp(Keys.Control).Perform();
        Browser.Until(() => Value().StartsWith("word000", StringComparison.Ordinal), "taken back");
        Actions().KeyDown(Keys.Control).SendKeys("a").KeyUp(Keys.Control).Perform();
        Selected().ShouldBe(Value());
        string typed = Value();
        Close();
        TextOf(id, story).ShouldBe(typed);
        typed.ShouldContain($"A{words[0]}");
        // As it stands in the page, so it was told.
        var now = await FrameAsync(id, frame);
        Browser.Driver.FindElements(By.CssSelector($"#frame-{frame} .set-text text")).Select(t => t.GetDomProperty("textContent")!.TrimEnd())
            .ShouldBe(now.GetProperty("text").GetProperty("lines").EnumerateArray().Select(l => l.GetString()!));
    }

    /// <summary>Typed, set and pasted, in that order: what is taken back goes by the order, whichever the browser itself could take back.</summary>
    [Fact]
    public async Task All_that_was_done_in_a_text_is_taken_back_step_by_step_and_done_again_while_typing_goes_on()
    {
        var (id, story, _) = await BeginAsync("Kiln");
        OpenDesk(id);
        Open();
        void Control(string key, bool shift = false)
        {
            var keys = Actions().KeyDown(Keys.Control);
            if (shift) keys.KeyDown(Keys.Shift);
            keys.SendKeys(key);
            if (shift) keys.KeyUp(Keys.Shift);
            keys.KeyUp(Keys.Control).Perform();
        }
        bool IsBold(string words) => StoryAsync(id, story).Result.GetProperty("paragraphs").EnumerateArray().Any(p =>
            p.GetRawText().Contains("\"bold\":true", StringComparison.Ordinal) && p.GetProperty("text").GetString()!.Contains(words, StringComparison.Ordinal));
        Press(" fires");
        Press(Keys.Home);
        Press("The ");
        Control("a");
        Control("b");
        Browser.Until(() => IsBold("The Kiln fires"), "bold");
        Press(Keys.End);
        void Paste() => Browser.Run<object?>("const data = new DataTransfer(); data.setData('text/plain', ' hot'); " +
            "data.setData('text/html', '<p> <i>hot</i></p>'); document.querySelector('.writing').dispatchEvent(new ClipboardEvent('paste', " +
            "{ clipboardData: data, bubbles: true, cancelable: true }))");
        Paste();
        Browser.Until(() => TextOf(id, story).Contains("hot", StringComparison.Ordinal), "pasted");
        // In one go, as fast as keys come: the paste and the bold; and what is typed then is typed there.
        Control("zz");
        Press("!");
        Browser.Until(() => Value().Contains('!', StringComparison.Ordinal) && Value().Replace("!", "", StringComparison.Ordinal) == "The Kiln fires",
            "two steps back");
        Browser.Until(() => !IsBold("Kiln"), "no longer bold");
        // What was typed comes in as many steps as there were pauses.
        for (int steps = 0; steps < 20 && Value() != "Kiln"; steps++)
        {
            string before = Value();
            Control("z");
            Browser.Until(() => Value() != before, "a step back");
        }
        Control("z");
        Browser.Until(() => Browser.Has("#notices .notice"), "what was done before it was opened is not taken back unseen");
        Value().ShouldBe("Kiln");
        Close();
        TextOf(id, story).ShouldBe("Kiln");
        Open();
        // As fast as keys come: each goes where those before it led, and nothing waits that is left behind.
        Press(Keys.End, " dry", Keys.Home, "A ", Keys.End, Keys.Backspace, Keys.ArrowLeft, "*", Keys.Home, "1", Keys.Escape);
        Browser.Until(() => !Browser.Has(".writing"), "left");
        TextOf(id, story).ShouldBe("1A Kiln d*r");
        Open();
        // What is typed behind a paste is taken back before it, and stored though the text is left at once.
        Press(Keys.End);
        Paste();
        Press("x");
        Control("zz");
        Press("y", Keys.Escape);
        Browser.Until(() => !Browser.Has(".writing"), "left");
        TextOf(id, story).ShouldBe("1A Kiln d*ry");
        Open();
        // What is set while a paste is on its way is set in what it leads to.
        Press(Keys.End);
        Paste();
        Control("a");
        Control("u");
        Browser.Until(() => StoryAsync(id, story).Result.GetRawText().Contains("\"underline\":true", StringComparison.Ordinal), "underlined");
        Selected().ShouldBe(Value());
        Value().ShouldEndWith("hot");
        Control("z");
        Control("z");
        Browser.Until(() => !Value().Contains("hot", StringComparison.Ordinal), "taken back");
        Press(Keys.End, " warm");
        Control("z");
        Browser.Until(() => !Value().Contains("warm", StringComparison.Ordinal), "taken back");
        Control("z", shift: true);
        Browser.Until(() => Value().Contains("warm", StringComparison.Ordinal), "done again");
        Close();
        TextOf(id, story).ShouldContain("warm");
    }

    [Fact]
    public async Task The_caret_goes_on_to_the_next_frame_on_another_page_and_typing_with_it()
    {
        var (id, story, _) = await BeginAsync(Words(90));
        OpenDesk(id);
        Open();
        // As fast as keys come: what is typed on the way is typed there.
        Actions().KeyDown(Keys.Control).SendKeys(Keys.End).KeyUp(Keys.Control).SendKeys(" the").Perform();
        foreach (char key in " very end") Press(key.ToString());
        Browser.Until(() => Browser.Driver.Url.EndsWith("/desk/3", StringComparison.Ordinal), "the spread it goes on in");
        Shown("end");
        Browser.Until(() => Browser.Driver.SwitchTo().ActiveElement().GetAttribute("class") == "writing", "the caret is there");
        Press("!");
        Shown("!");
        Close();
        TextOf(id, story).ShouldEndWith("word089 the very end!");
    }

    [Fact]
    public async Task What_is_taken_back_of_a_text_on_another_page_has_the_caret_go_there_and_typing_with_it()
    {
        var (id, story, _) = await BeginAsync(Words(90));
        OpenDesk(id);
        Open();
        void Control(string key) => Actions().KeyDown(Keys.Control).SendKeys(key).KeyUp(Keys.Control).Perform();
        Control(Keys.Home);
        Press("First ");
        Control(Keys.End);
        Press(" last");
        Browser.Until(() => Browser.Driver.Url.EndsWith("/desk/3", StringComparison.Ordinal), "the spread it goes on in");
        Browser.Until(() => Browser.Driver.SwitchTo().ActiveElement().GetAttribute("class") == "writing", "the caret is there");
        // Taken back step by step, however many the pauses between the keys made of it.
        for (string before; (before = TextOf(id, story)) != Words(90);)
        {
            Control("z");
            Browser.Until(() => TextOf(id, story) != before, "a step is taken back");
        }
        Browser.Until(() => Browser.Driver.Url.EndsWith("/desk/1", StringComparison.Ordinal), "the spread on which the first was typed");
        Browser.Until(() => Browser.Driver.SwitchTo().ActiveElement().GetAttribute("class") == "writing", "the caret is there");
        Press("Now ");
        Shown("Now");
        Close();
        TextOf(id, story).ShouldBe("Now " + Words(90));
    }

    [Fact]
    public async Task Paragraphs_lines_and_tabs_are_typed_and_a_long_text_loses_nothing_while_others_work()
    {
        var (id, story, frame) = await BeginAsync("");
        OpenDesk(id);
        Open();
        Press("Heading", Keys.Enter, "Mug", Keys.Tab, "12.50");
        Actions().KeyDown(Keys.Shift).SendKeys(Keys.Enter).KeyUp(Keys.Shift).Perform();
        Press("same paragraph", Keys.Enter);
        // Twelve keys a second, while a program moves another frame.
        int other = (await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 20, y = 500, width = 50, height = 50 })).GetProperty("id")
            .GetInt32();
        const string Long = "The quick kiln fires slowly, and nobody who waits for it is quick.";
        for (int i = 0; i < Long.Length; i += 6)
        {
            Press(Long.Substring(i, Math.Min(6, Long.Length - i)));
            await Server.Client.SendAsync(new(HttpMethod.Patch, $"/api/publications/{id}/frames/{other}")
            {
                Content = new StringContent($"{{\"x\":{20 + i}}}", System.Text.Encoding.UTF8, "application/json"),
            });
        }
        Close();
        TextOf(id, story).ShouldBe($"Heading\nMug\t12.50\u2028same paragraph\n{Long}");
        Browser.Send("#canvas", Keys.Control + "z");
        Browser.Until(() => !TextOf(id, story).EndsWith(Long, StringComparison.Ordinal), "and it can be undone");
        (await FrameAsync(id, frame)).GetProperty("text").GetProperty("leftOut").GetInt32().ShouldBe(0);
    }

    [Fact]
    public async Task What_is_typed_is_seen_also_where_the_server_does_not_answer_and_is_stored_when_it_is_back()
    {
        var (id, story, _) = await BeginAsync("Lady");
        OpenDesk(id);
        Open();
        Server.Kill();
        Press("bird");
        Browser.Until(() => Browser.Has(".writing.is-blind") && Value() == "Ladybird", "seen in the field itself");
        Server.StartAgain(samePort: true);
        Browser.Until(() => TextOf(id, story) == "Ladybird", "stored");
        Press("s");
        Shown("Ladybirds");
        Browser.Until(() => !Browser.Has(".writing.is-blind"), "in the page again");
        Close();
    }

    [Fact]
    public async Task What_is_composed_is_shown_on_the_way_and_stored_once_as_it_was_chosen()
    {
        var (id, story, _) = await BeginAsync("clay");
        OpenDesk(id);
        Open();
        void Compose(string text) => Browser.Driver.ExecuteCdpCommand("Input.imeSetComposition",
            new() { ["text"] = text, ["selectionStart"] = text.Length, ["selectionEnd"] = text.Length });
        Compose("\u00b4");
        Shown("clay\u00b4");
        Compose("\u00b4e");
        Shown("clay\u00b4e");
        Browser.Driver.ExecuteCdpCommand("Input.insertText", new() { ["text"] = "\u00e9" });
        Press("s");
        Shown("clay\u00e9s");
        Value().ShouldBe("clay\u00e9s");
        Close();
        TextOf(id, story).ShouldBe("clay\u00e9s");
    }

    [Fact]
    public async Task A_double_click_and_keys_at_once_are_typed_where_it_was_clicked()
    {
        var (id, story, _) = await BeginAsync("one");
        OpenDesk(id);
        for (int tries = 1; tries <= 3; tries++)
        {
            var at = Window(FrameX + 100, FrameY + 8);
            Actions().MoveToLocation(at.X, at.Y).DoubleClick().SendKeys("5xy" + Keys.Backspace).Perform();
            string expected = "one" + string.Concat(Enumerable.Repeat("5x", tries));
            Browser.Until(() => TextOf(id, story) == expected, $"{expected}: nothing went to the Desk's own keys");
            Close();
        }
    }

    [Fact]
    public async Task Each_sees_where_the_other_types()
    {
        var (id, _, frame) = await BeginAsync(Words(60));
        OpenDesk(id);
        // Another window, as the server sees it: it asks how what is typed stands, and says where its caret is.
        using var other = new System.Net.WebSockets.ClientWebSocket();
        await other.ConnectAsync(new Uri($"{Server.Address.Replace("http", "ws", StringComparison.Ordinal)}/publications/{id}/desk/1/hand?window=elsewhere"),
            default);
        async Task TypeAsync(int caret)
        {
            byte[] question = JsonSerializer.SerializeToUtf8Bytes(new
            {
                inside = false,
                command = new { @do = "write", frames = $"{frame}", from = 0, to = 0, begin = 0, text = "A", within = Words(60), caret },
            });
            await other.SendAsync(question, System.Net.WebSockets.WebSocketMessageType.Text, true, default);
            byte[] answer = new byte[1 << 20];
            System.Net.WebSockets.WebSocketReceiveResult received;
            do received = await other.ReceiveAsync(answer, default);
            while (!received.EndOfMessage);
        }
        double At() => double.Parse(Browser.Find(".other-bar").GetDomAttribute("x1")!, System.Globalization.CultureInfo.InvariantCulture);
        await TypeAsync(1);
        Browser.Until(() => Browser.Has(".other-caret"), "their caret is shown");
        Browser.Find(".other-name").GetDomProperty("textContent").ShouldNotBeNullOrEmpty();
        Browser.Until(() => At() is > 0 and < 20, "behind what they typed");
        Browser.Find(".other-paragraph").GetDomAttribute("d")!.Split('M').Length.ShouldBeGreaterThan(4, "beside the lines of the paragraph");
        await TypeAsync(12);
        Browser.Until(() => At() > 40, "it moves as they do");
        // One's own is no other's.
        Open();
        Press("B");
        Shown("B");
        Browser.Driver.FindElements(By.CssSelector(".other-caret")).Count.ShouldBe(1);
        Close();
    }

    [Fact]
    public async Task A_text_whose_first_paragraph_is_empty_takes_what_is_typed_at_its_start()
    {
        var (id, story, _) = await BeginAsync("\nSecond");
        OpenDesk(id);
        Open();
        Actions().KeyDown(Keys.Control).SendKeys(Keys.Home).KeyUp(Keys.Control).SendKeys("First").Perform();
        Browser.Until(() => Value() == "First\nSecond", "typed");
        Close();
        TextOf(id, story).ShouldBe("First\nSecond");
    }

    [Theory]
    [InlineData(0)]
    [InlineData(83)]
    public async Task Bold_is_switched_on_for_a_word_and_off_again_at_the_speed_of_hands(int pause)
    {
        var (id, story, _) = await BeginAsync("One");
        OpenDesk(id);
        Open();
        Actions().KeyDown(Keys.Control).SendKeys(Keys.End).KeyUp(Keys.Control).Perform();
        var actions = new OpenQA.Selenium.Interactions.Actions(Browser.Driver, TimeSpan.FromMilliseconds(pause));
        void Bold() => actions.KeyDown(Keys.Control).SendKeys("b").KeyUp(Keys.Control);
        Bold();
        foreach (char c in " two") actions.SendKeys($"{c}");
        Bold();
        foreach (char c in " three") actions.SendKeys($"{c}");
        actions.Perform();
        Browser.Until(() => Value() == "One two three", "typed");
        Close();
        var runs = (await StoryAsync(id, story)).GetProperty("paragraphs")[0].GetProperty("runs").EnumerateArray().ToList();
        runs.Select(r => r.GetProperty("text").GetString()).ShouldBe(["One", " two", " three"]);
        runs.Select(r => r.TryGetProperty("settings", out var s) && s.TryGetProperty("bold", out var bold) && bold.ValueKind == JsonValueKind.True)
            .ShouldBe([false, true, false]);
    }

    [Fact]
    public async Task A_field_is_filled_again_once_its_text_is_left()
    {
        var (id, story, _) = await BeginAsync("On page {page} ");
        OpenDesk(id);
        Open();
        Actions().KeyDown(Keys.Control).SendKeys(Keys.End).KeyUp(Keys.Control).SendKeys("now").Perform();
        Shown("{page} now");
        Close();
        Shown("On page 1 now");
        TextOf(id, story).ShouldBe("On page {page} now");
    }
}
