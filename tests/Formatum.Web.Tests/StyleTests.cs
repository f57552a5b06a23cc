using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>Paragraph and character styles: on the Desk, on House style's Words, and through the automation interface.</summary>
public sealed class StyleTests(Workplace place) : InBrowser(place)
{
    private const string Words = "Mug, celadon, was 14.00 and is 11.50 now";

    private async Task<(int Publication, int Frame)> BeginAsync(string words = Words)
    {
        int id = await Server.NewPublicationAsync("Styled", pages: 2, facing: false);
        var made = await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 60, y = 60, width = 300, height = 120, kind = "text" });
        int frame = made.GetProperty("id").GetInt32(), story = made.GetProperty("text").GetProperty("storyId").GetInt32();
        using var put = await Server.Client.PutAsJsonAsync($"/api/publications/{id}/stories/{story}", new { text = words });
        put.IsSuccessStatusCode.ShouldBeTrue();
        return (id, frame);
    }

    private Task<JsonElement> StyleAsync(int id, object body) => Server.PostAsync($"/api/publications/{id}/styles", body);

    private static JsonElement[] Runs(JsonElement frame, int paragraph = 0) => [.. frame.GetProperty("text").GetProperty("paragraphs")[paragraph]
        .GetProperty("runs").EnumerateArray()];

    private void Write()
    {
        Click(Window(100, 80));
        Browser.Until(() => Browser.Has("#write"), "the text's inspector");
        Browser.Click("#write");
        Browser.Until(() => Browser.Driver.SwitchTo().ActiveElement().GetAttribute("class") == "writing", "the caret is in it");
    }

    private string Selected() => Browser.Run<string>("const f = document.querySelector('.writing'); return f.value.slice(f.selectionStart, f.selectionEnd);");

    /// <summary>Selects from one place in the text to another as keys do.</summary>
    private void Select(int from, int count)
    {
        Actions().KeyDown(Keys.Control).SendKeys(Keys.Home).KeyUp(Keys.Control).SendKeys(string.Concat(Enumerable.Repeat(Keys.ArrowRight, from))).Perform();
        Actions().KeyDown(Keys.Shift).SendKeys(string.Concat(Enumerable.Repeat(Keys.ArrowRight, count))).KeyUp(Keys.Shift).Perform();
    }

    [Fact]
    public async Task Selected_words_are_set_otherwise_and_typing_goes_on_in_their_style()
    {
        var (id, frame) = await BeginAsync();
        OpenDesk(id);
        Write();
        int old = Words.IndexOf("14.00", StringComparison.Ordinal);
        Select(old, 5);
        Browser.Click("#text-strikeThrough");
        Frame(id, frame, f => Runs(f).Length == 3 && Runs(f)[1].GetProperty("text").GetString() == "14.00"
            && Runs(f)[1].GetProperty("settings").GetProperty("strikeThrough").GetBoolean(), "the old price is struck through");
        Browser.Until(() => Browser.Has($"#frame-{frame} .set-text rect"), "a stroke through it");
        // The field opens again with the same words selected; a key makes them bold, and what is typed behind goes on so.
        Browser.Until(() => Selected() == "14.00", "still selected");
        Actions().KeyDown(Keys.Control).SendKeys("b").KeyUp(Keys.Control).Perform();
        Frame(id, frame, f => Runs(f)[1].GetProperty("settings").TryGetProperty("bold", out _), "bold too");
        Browser.Until(() => Selected() == "14.00", "selected again");
        Press(Keys.ArrowRight, "!");
        Press(Keys.Escape);
        Browser.Until(() => !Browser.Has(".writing"), "closed");
        Runs(Frame(id, frame, f => f.GetProperty("text").GetProperty("paragraphs")[0].GetProperty("text").GetString()!.Contains("14.00!",
            StringComparison.Ordinal),
            "typed"))[1].GetProperty("text").GetString().ShouldBe("14.00!");
        Browser.Send("#canvas", Keys.Control + "z");
        Frame(id, frame, f => !f.GetProperty("text").GetProperty("paragraphs")[0].GetProperty("text").GetString()!.Contains('!', StringComparison.Ordinal),
            "undone");
    }

    [Fact]
    public async Task The_inspector_tells_of_the_words_the_caret_stands_in_and_where_their_settings_come_from()
    {
        var (id, frame) = await BeginAsync();
        int price = (await StyleAsync(id, new { kind = "character", name = "Price", settings = new { bold = true, size = 14 } })).GetProperty("id").GetInt32();
        int line = (await StyleAsync(id, new { kind = "paragraph", name = "Line", settings = new { size = 9, leading = 12 } })).GetProperty("id").GetInt32();
        using var lined = await Server.Client.PostAsJsonAsync($"/api/publications/{id}/styles/{line}/put", new { frameIds = new[] { frame } });
        int at = Words.IndexOf("11.50", StringComparison.Ordinal);
        using var priced = await Server.Client.PostAsJsonAsync($"/api/publications/{id}/styles/{price}/put", new
        {
            frameIds = new[] { frame },
            from = at,
            to = at + 5
        });
        OpenDesk(id);
        Click(Window(100, 80));
        string Size() => Browser.Find("#text-size").GetAttribute("value") ?? "";
        // Of all the text, the sizes differ.
        Browser.Until(() => Browser.Has("#text-size") && Size() == "", "they differ");
        Write();
        Select(1, 2);
        Browser.Until(() => Size() == "9" && !Browser.Find("#text-bold").Selected, "of the first word");
        Chord(Keys.Control, Keys.Home);
        Press([.. Enumerable.Repeat(Keys.ArrowRight, at + 2)]);
        Browser.Until(() => Size() == "14" && Browser.Find("#text-bold").Selected, "of what would be typed in the price");
        Browser.Find("#text-character-style option:checked").Text.ShouldBe("Price");
        Browser.Click("#more-sources summary");
        Browser.Driver.FindElements(By.CssSelector(".text-sources dt")).Select(d => d.Text).ShouldBe(["Price", "Line"]);
        Browser.Driver.FindElements(By.CssSelector(".text-sources dd")).Select(d => d.Text).ShouldBe(["Bold yes; Size 14 pt", "Leading 12 pt"]);
        // A step goes on from what holds there.
        Click(Window(100, 70));
        Select(at, 5);
        Type("#text-size", "+2" + Keys.Enter);
        Runs(Frame(id, frame, f => Runs(f).Length == 3 && Runs(f)[1].GetProperty("settings").TryGetProperty("size", out _), "set"))[1].GetProperty("settings")
            .GetProperty("size").GetDouble().ShouldBe(16);
    }

    private void Chord(params string[] keys)
    {
        var actions = Actions();
        foreach (string modifier in keys[..^1]) actions.KeyDown(modifier);
        actions.SendKeys(keys[^1]);
        foreach (string modifier in keys[..^1]) actions.KeyUp(modifier);
        actions.Perform();
    }

    private string Marked(int id, int frame) => string.Join('|', FrameAsync(id, frame).Result.GetProperty("text").GetProperty("paragraphs").EnumerateArray()
        .Select(p => string.Concat(p.GetProperty("runs").EnumerateArray().Select(r => r.TryGetProperty("settings", out var set)
            && set.TryGetProperty("bold", out var bold) && bold.GetBoolean() ? $"*{r.GetProperty("text").GetString()}*" : r.GetProperty("text").GetString()))));

    private void Reads(int id, int frame, string marked) => Browser.Until(() => Marked(id, frame) == marked, $"{marked}, not {Marked(id, frame)}");

    [Fact]
    public async Task A_plain_paste_while_words_are_still_put_in_comes_once_behind_them()
    {
        var (id, frame) = await BeginAsync("aa bb");
        OpenDesk(id);
        Write();
        Chord(Keys.Control, "a");
        Chord(Keys.Control, "c");
        Press(Keys.End);
        // A server far away.
        Browser.Run<object?>("const real = window.fetch; window.fetch = async (...asked) => { await new Promise(r => setTimeout(r, 300)); return " +
            "real(...asked); };");
        Chord(Keys.Control, "v");
        Chord(Keys.Control, Keys.Shift, "v");
        Reads(id, frame, "aa bbaa bbaa bb");
    }

    [Fact]
    public async Task With_the_caret_alone_a_key_switches_what_is_typed_next_and_words_are_pasted_as_they_are_set()
    {
        var (id, frame) = await BeginAsync("aa bb");
        OpenDesk(id);
        Write();
        Press(Keys.Home, Keys.ArrowRight);
        Chord(Keys.Control, "b");
        Browser.Until(() => Browser.Find("#notices").Text.Contains("bold", StringComparison.Ordinal), "told");
        // Of the letters that were there, none is taken for what is typed.
        Press("aXa");
        Reads(id, frame, "a*aXa*a bb");
        Chord(Keys.Control, "b");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".notice")).Count > 0, "told again");
        Press("-");
        Reads(id, frame, "a*aXa*-a bb");

        // Copied and pasted behind, the bold ones are bold; as plain text they go on as what stands there.
        Press(Keys.Home, Keys.ArrowRight);
        Actions().KeyDown(Keys.Shift).SendKeys(Keys.ArrowRight + Keys.ArrowRight + Keys.ArrowRight + Keys.ArrowRight).KeyUp(Keys.Shift).Perform();
        Selected().ShouldBe("aXa-");
        Chord(Keys.Control, "c");
        Press(Keys.End);
        Chord(Keys.Control, "v");
        Reads(id, frame, "a*aXa*-a bb*aXa*-");
        Press("!");
        Reads(id, frame, "a*aXa*-a bb*aXa*-!");
        Actions().KeyDown(Keys.Shift).SendKeys(Keys.Home).KeyUp(Keys.Shift).Perform();
        Chord(Keys.Control, "x");
        Reads(id, frame, "");
        Chord(Keys.Control, "v");
        Reads(id, frame, "a*aXa*-a bb*aXa*-!");
        Press(Keys.End);
        Chord(Keys.Control, Keys.Shift, "v");
        Reads(id, frame, "a*aXa*-a bb*aXa*-!aaXa-a bbaXa-!");

        // What another program copied comes as far as styles can say it; a heading takes the style of that name only where there is one.
        Actions().KeyDown(Keys.Control).SendKeys("a").KeyUp(Keys.Control).Perform();
        Browser.Run<object?>("""
            const data = new DataTransfer();
            data.setData('text/html', '<h1>Head</h1><p>some <b>bold</b> words<script>alert(1)</script></p>');
            data.setData('text/plain', 'Head\nsome bold words');
            document.querySelector('.writing').dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
            """);
        Reads(id, frame, "Head|some *bold* words");
        (await Server.GetAsync($"/api/publications/{id}/styles")).GetArrayLength().ShouldBe(0, "no style is made for it");
        Press(Keys.Escape);
        Browser.Until(() => !Browser.Has(".writing"), "closed");
    }

    [Fact]
    public async Task A_style_is_chosen_by_keys_and_the_keys_go_back_to_the_text()
    {
        var (id, frame) = await BeginAsync("Heading");
        await Server.PostAsync($"/api/publications/{id}/styles", new { kind = "paragraph", name = "Title", settings = new { size = 30 } });
        OpenDesk(id);
        Write();
        Chord(Keys.Alt, "y");
        Browser.Until(() => Browser.Driver.SwitchTo().ActiveElement().GetAttribute("id") == "text-style", "the list of styles has the keys");
        Press("T", Keys.Enter);
        Browser.Until(() => FrameAsync(id, frame).Result.GetProperty("text").GetProperty("paragraphs")[0].TryGetProperty("style", out var style)
            && style.GetString() == "Title", "the style is put on");
        Browser.Until(() => Browser.Driver.SwitchTo().ActiveElement().GetAttribute("class") == "writing", "typing goes on");
    }

    [Fact]
    public async Task A_style_is_made_from_a_text_put_on_another_and_what_is_set_there_is_cleared()
    {
        var (id, frame) = await BeginAsync("Heading");
        int other = (await Server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = 1,
            x = 60,
            y = 300,
            width = 300,
            height = 100,
            text = new { paragraphs = new[] { new { text = "Other", italic = true } } },
        })).GetProperty("id").GetInt32();
        OpenDesk(id);
        Click(Window(100, 80));
        Type("#text-size", "24" + Keys.Tab);
        Browser.Until(() => Browser.Has(".set-here [data-clear-text=size]"), "set here");
        Browser.Click("#more-style summary");
        Type("#style-name", "Heading");
        Browser.Click("#make-style .btn-primary");
        Frame(id, frame, f => f.GetProperty("text").GetProperty("paragraphs")[0].GetProperty("style").GetString() == "Heading", "it has the style");
        Browser.Until(() => !Browser.Has(".set-here"), "nothing is set here any more");
        Click(Window(100, 320));
        Browser.Until(() => Browser.Has($"#inspector [data-chosen='{other}']"), "the other text");
        Browser.Click("#text-style option:last-child");
        Frame(id, other, f => f.GetProperty("text").GetProperty("paragraphs")[0].GetProperty("size").GetDouble() == 24, "it follows");
        Browser.Click("[data-clear-text=italic]");
        Frame(id, other, f => !f.GetProperty("text").GetProperty("paragraphs")[0].GetProperty("italic").GetBoolean(), "the style speaks");
    }

    [Fact]
    public async Task A_change_of_a_style_shows_every_text_it_touches_before_it_happens_and_is_undone_in_one()
    {
        var (id, frame) = await BeginAsync(string.Join(' ', Enumerable.Repeat(Words, 5)));
        int style = (await StyleAsync(id, new { name = "Body", settings = new { size = 10, leading = 12 } })).GetProperty("id").GetInt32();
        await StyleAsync(id, new { name = "Small", basedOn = "Body", settings = new { size = 8 } });
        using (var put = await Server.Client.PostAsJsonAsync($"/api/publications/{id}/styles/{style}/put", new { frameIds = new[] { frame } }))
            put.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        Go($"/publications/{id}/words/{style}");
        Browser.Until(() => Browser.Find("#impact").Text.Contains("1 text follows Body", StringComparison.Ordinal), "who follows");
        string sample = Browser.Find("#rule-samples").GetAttribute("innerHTML")!;
        Type("#style-size", "30" + Keys.Tab);
        Browser.Until(() => Browser.Has($"[data-touched='{frame}']"), "the frame it touches");
        Browser.Find("#impact").Text.ShouldContain("Small");
        Browser.Find("#impact-sum").Text.ShouldContain("more left over");
        Browser.Until(() => Browser.Find("#rule-samples").GetAttribute("innerHTML") != sample, "the sample follows");
        Type("#style-leading", "x" + Keys.Tab);
        Browser.Until(() => Browser.Find("#error-leading").Text.Length > 0 && !Browser.Find("#apply").Enabled, "what is wrong");
        Type("#style-leading", "auto" + Keys.Tab);
        Browser.Until(() => Browser.Find("#apply").Enabled, "it can be");
        Browser.Find("#source-leading").Text.ShouldStartWith("set here");
        Browser.Click("#apply");
        SetIn(id, frame, 30);
        Browser.Until(() => Browser.Find("#impact").Text.Contains("Nothing is changed", StringComparison.Ordinal), "the sheet anew");
        Browser.Click("#undo");
        SetIn(id, frame, 10);
    }

    private void SetIn(int id, int frame, double size) => Browser.Until(() => FrameAsync(id, frame).Result.GetProperty("text").GetProperty("paragraphs")[0]
        .GetProperty("size").GetDouble() == size, $"set in {size} points");

    [Fact]
    public async Task A_style_is_made_and_removed_on_its_leaf_and_everything_looks_as_it_did()
    {
        var (id, frame) = await BeginAsync();
        Go($"/publications/{id}/rules");
        Browser.Click(".leaves a[href$='/words']");
        Browser.Until(() => Browser.Find("#rule-name").GetAttribute("placeholder")!.Contains("new paragraph style", StringComparison.Ordinal), "no styles yet");
        Type("#rule-name", "Price");
        Type("#style-size", "17" + Keys.Tab);
        Browser.Until(() => Browser.Find("#apply").Enabled, "it can be made");
        Browser.Click("#apply");
        int style = 0;
        Browser.Until(() => (style = Server.GetAsync($"/api/publications/{id}/styles").Result.EnumerateArray().Select(s => s.GetProperty("id").GetInt32())
            .SingleOrDefault()) > 0, "made");
        using (var put = await Server.Client.PostAsJsonAsync($"/api/publications/{id}/styles/{style}/put", new { frameIds = new[] { frame } }))
            put.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        Go($"/publications/{id}/words/{style}");
        Browser.Click("[popovertarget=remove-card]");
        Browser.Click("#remove-card .btn-primary");
        Browser.Until(() => Browser.Find("#impact-sum").Text.Contains("No text changes", StringComparison.Ordinal), "nothing will look different");
        Browser.Click("#apply");
        Browser.Until(() => !Server.GetAsync($"/api/publications/{id}/styles").Result.EnumerateArray().Any(), "gone");
        var paragraph = (await FrameAsync(id, frame)).GetProperty("text").GetProperty("paragraphs")[0];
        paragraph.GetProperty("size").GetDouble().ShouldBe(17);
        paragraph.GetProperty("style").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task Programs_make_stories_of_runs_and_styles_and_read_them_back()
    {
        int id = await Server.NewPublicationAsync("Styles", pages: 1, facing: false);
        await StyleAsync(id, new { kind = "paragraph", name = "Body", settings = new { family = "Spectral", size = "11pt" }, @default = true });
        await StyleAsync(id, new
        {
            kind = "paragraph",
            name = "Price list",
            basedOn = "Body",
            settings = new { tabs = new[] { new { at = "60mm", alignment = "decimal", leader = "." } }, keepWithNext = true },
        });
        int old = (await StyleAsync(id, new { kind = "character", name = "Old price", settings = new { strikeThrough = true } })).GetProperty("id").GetInt32();
        int frame = (await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 10, y = 10, width = 300, height = 100 })).GetProperty("id")
            .GetInt32();
        var story = await Server.PostAsync($"/api/publications/{id}/stories", new
        {
            frames = new[] { frame },
            paragraphs = new object[]
            {
                new { style = "Price list", runs = new object[] { new { text = "Mug\t" }, new { text = "14.00", style = "Old price",
                    settings = new { bold = true } } } },
                new { text = "plain", settings = new { alignment = "right" } },
            },
        });
        var paragraph = story.GetProperty("paragraphs")[0];
        paragraph.GetProperty("style").GetString().ShouldBe("Price list");
        paragraph.GetProperty("family").GetString().ShouldBe("Spectral");
        paragraph.GetProperty("runs")[1].GetProperty("style").GetString().ShouldBe("Old price");
        paragraph.GetProperty("runs")[1].GetProperty("settings").GetProperty("bold").GetBoolean().ShouldBeTrue();
        story.GetProperty("paragraphs")[1].GetProperty("alignment").GetString().ShouldBe("right");
        story.GetProperty("paragraphs")[1].GetProperty("size").GetDouble().ShouldBe(11);

        var list = (await Server.GetAsync($"/api/publications/{id}/styles")).EnumerateArray().ToArray();
        list.Select(s => s.GetProperty("name").GetString()).ShouldBe(["Body", "Price list", "Old price"]);
        list[1].GetProperty("comesTo").GetProperty("family").GetString().ShouldBe("Spectral");
        list[1].GetProperty("settings").GetProperty("tabs")[0].GetProperty("alignment").GetString().ShouldBe("decimal");
        using (var changed = await Server.Client.PutAsJsonAsync($"/api/publications/{id}/styles/{old}", new
        {
            name = "Was",
            settings = new { strikeThrough = false }
        }))
            changed.StatusCode.ShouldBe(HttpStatusCode.OK);
        using (var removed = await Server.Client.DeleteAsync($"/api/publications/{id}/styles/{old}?asItLooks=true"))
            removed.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        foreach (var (body, says) in new (object, string)[]
        {
            (new { name = "Body" }, "already"), (new { name = "X", settings = new { size = 5000 } }, "1 to 1000"), (new { name = "X", basedOn = "nobody" },
                "nobody"),
            (new { kind = "character", name = "X", settings = new { alignment = "left" } }, "whole paragraphs"),
            (new { name = "X", settings = new { family = "Nowhere" } }, "no font family"),
        })
        {
            using var refused = await Server.Client.PostAsJsonAsync($"/api/publications/{id}/styles", body);
            refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
            (await refused.Content.ReadAsStringAsync()).ShouldContain(says);
        }
        using var unknown = await Server.Client.PostAsJsonAsync($"/api/publications/{id}/stories", new
        {
            frames = new[] { frame },
            paragraphs = new[]
            { new { text = "x", style = "Nobody" } }
        });
        (await unknown.Content.ReadAsStringAsync()).ShouldContain("Nobody");
    }

    [Fact]
    public async Task A_document_dropped_on_a_frame_brings_its_words_and_styles_and_what_is_left_aside_is_told()
    {
        var (id, frame) = await BeginAsync("");
        OpenDesk(id);
        Drop($"#frame-{frame}", "kiln.md", "# The kiln\n\nfires *slowly*, and ![a picture](x.png) is left.");
        Frame(id, frame, f => f.GetProperty("text").GetProperty("paragraphs").GetArrayLength() == 2
            && f.GetProperty("text").GetProperty("paragraphs")[0].GetProperty("style").GetString() == "Heading 1", "its words");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".notice")).Any(n => n.Text.Contains("1 style made", StringComparison.Ordinal)
            && n.Text.Contains("a picture", StringComparison.Ordinal)), "told");
        // On the page itself it makes a frame; what is no document of its kind is refused, and changes nothing.
        Drop("#canvas", "note.txt", "A note of its own");
        Browser.Until(() => FramesAsync(id).Result.Length == 2, "a frame for it");
        Drop("#canvas", "broken.docx", "no document");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".notice")).Any(n => n.Text.Contains("broken.docx is damaged",
            StringComparison.Ordinal)), "why");
        (await FramesAsync(id)).Length.ShouldBe(2);
    }

    [Fact]
    public async Task Words_are_found_counted_and_replaced_in_all_texts_as_one_step()
    {
        var (id, frame) = await BeginAsync("A kiln, the Kiln and a kilnsman");
        int other = (await Server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = 2,
            x = 60,
            y = 60,
            width = 200,
            height = 60,
            text = new { paragraphs = new[] { new { text = "kiln" } } },
        })).GetProperty("id").GetInt32();
        OpenDesk(id);
        Browser.Send("#canvas", "f");
        Browser.Until(() => Browser.Has("#find-words"), "the card");
        Type("#find-words", "kiln");
        Browser.Until(() => Browser.Find("#find-sum").Text == "Found 4 times in 2 texts.", "counted");
        Browser.Click("[name=wholeWords]");
        Browser.Until(() => Browser.Find("#find-sum").Text == "Found 3 times in 2 texts.", "whole words");
        Browser.Click("[name=matchCase]");
        Browser.Until(() => Browser.Find("#find-sum").Text == "Found 2 times in 2 texts.", "capitals as typed");
        Browser.Driver.FindElements(By.CssSelector(".found-list mark")).Count.ShouldBe(2);
        Type("#find-with", "oven");
        Browser.Click("#replace-all");
        string Of(int which) => FrameAsync(id, which).Result.GetProperty("text").GetProperty("paragraphs")[0].GetProperty("text").GetString()!;
        Browser.Until(() => Of(frame) == "A oven, the Kiln and a kilnsman" && Of(other) == "oven", "replaced");
        Browser.Until(() => Browser.Has("#desk[data-ready]") && Browser.Driver.FindElements(By.CssSelector(".notice"))
            .Any(n => n.Text.Contains("Replaced 2 times",
            StringComparison.Ordinal)), "told");
        Browser.Send("#canvas", Keys.Control + "z");
        Browser.Until(() => Of(frame).StartsWith("A kiln", StringComparison.Ordinal) && Of(other) == "kiln", "undone in one");
    }

    private void Drop(string css, string name, string text) => Browser.Run<object?>("""
        const data = new DataTransfer();
        data.items.add(new File([arguments[2]], arguments[1]));
        const target = document.querySelector(arguments[0]), box = target.getBoundingClientRect();
        for (const kind of ['dragover', 'drop']) target.dispatchEvent(new DragEvent(kind, { dataTransfer: data, bubbles: true, cancelable: true,
          clientX: box.left + box.width / 2, clientY: box.top + box.height / 2 }));
        return null;
        """, css, name, text);
}
