using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

public sealed class TextTests(Workplace place) : InBrowser(place)
{
    private const string Heading = "Shape follows fire", Body = "Glazes from the autumn kiln, each fired twice in the shed behind the house.";

    private string[] Shown(int frame) => [.. Browser.Driver.FindElements(By.CssSelector($"#frame-{frame} .set-text text"))
        .Select(t => t.GetDomProperty("textContent")!.TrimEnd())];

    private static string[] Lines(JsonElement frame) => [.. frame.GetProperty("text").GetProperty("lines").EnumerateArray().Select(l => l.GetString()!)];

    [Fact]
    public async Task Text_is_typed_in_its_place_styled_and_set_the_same_on_screen_and_in_print()
    {
        int id = OpenDesk(await Server.NewPublicationAsync());
        Browser.Send("#canvas", "5");
        Drag(Window(60, 60), Window(260, 160));
        Browser.Find(".writing");
        Browser.Until(() => Browser.Driver.SwitchTo().ActiveElement().GetAttribute("class") == "writing", "the caret is in it");
        Press(Heading + Keys.Enter + Body);
        Press(Keys.Escape);
        Browser.Until(() => !Browser.Has(".writing"), "the field is closed");
        Settled();
        var frame = (await FramesAsync(id)).Single();
        int text = frame.GetProperty("id").GetInt32();
        frame.GetProperty("text").GetProperty("paragraphs").EnumerateArray().Select(p => p.GetProperty("text").GetString()).ShouldBe([Heading, Body]);
        Shown(text).ShouldBe(Lines(frame));

        // A style for the paragraph the caret stands in; then one for all.
        Browser.Click("#write");
        Browser.Until(() => Browser.Driver.SwitchTo().ActiveElement().GetAttribute("class") == "writing", "the caret is in it again");
        Actions().KeyDown(Keys.Control).SendKeys(Keys.Home).KeyUp(Keys.Control).Perform();
        Type("#text-size", "20" + Keys.Tab);
        Frame(id, text, f => Sizes(f).SequenceEqual([20, 10]), "the heading alone is larger");
        Browser.Send(".writing", Keys.Escape);
        Browser.Until(() => !Browser.Has(".writing"), "closed again");
        Settled();
        Browser.Click("[data-text-align=Justified]");
        frame = Frame(id, text, f => f.GetProperty("text").GetProperty("paragraphs").EnumerateArray()
            .All(p => p.GetProperty("alignment").GetString() == "justified"), "both justified");
        Browser.Until(() => Shown(text).SequenceEqual(Lines(frame)), "shown as set");

        // Narrower, it takes more lines than there is room for, and says so.
        Type("#frame-width", "25" + Keys.Enter);
        Browser.Until(() => Browser.Has($"#frame-{text} .overflow-mark") && Browser.Find("#inspector .finding").Text.Contains("does not fit",
            StringComparison.Ordinal), "it overflows");
        frame = Frame(id, text, f => f.GetProperty("text").GetProperty("leftOut").GetInt32() > 0, "and the interface says how much");
        Shown(text).ShouldBe(Lines(frame));

        using var folder = new TempFolder();
        await File.WriteAllBytesAsync(folder["t.pdf"], await Server.Client.GetByteArrayAsync($"/api/publications/{id}/output.pdf"));
        Testing.Tool.Run("pdftotext", "-raw", "-l", "1", folder["t.pdf"], "-").Split('\n', '\f').Select(l => l.TrimEnd()).Where(l => l.Length > 0)
            .ShouldBe(Lines(frame).Where(l => l.Length > 0));

        Browser.Send("#canvas", Keys.Control + "z");
        Frame(id, text, f => f.GetProperty("text").GetProperty("leftOut").GetInt32() == 0, "undone");
    }

    private static IEnumerable<double> Sizes(JsonElement frame) => frame.GetProperty("text").GetProperty("paragraphs").EnumerateArray()
        .Select(p => p.GetProperty("size").GetDouble());

    [Fact]
    public async Task Text_is_opened_by_a_double_click_and_what_is_typed_is_kept_after_a_pause()
    {
        int id = await Server.NewPublicationAsync();
        var made = await Server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = 1,
            x = 60,
            y = 60,
            width = 200,
            height = 60,
            text = new { paragraphs = new[] { new { text = "12.50", size = "18pt", bold = true, colour = "#2F6F4F" } } }
        });
        int text = made.GetProperty("id").GetInt32();
        made.GetProperty("text").GetProperty("paragraphs")[0].GetProperty("colour").GetString().ShouldBe("#2f6f4f");
        OpenDesk(id);
        DoubleClick(Window(100, 80));
        Browser.Find(".writing");
        Browser.Until(() => Browser.Driver.SwitchTo().ActiveElement().GetAttribute("class") == "writing", "the caret is in it");
        Press(" each");
        Frame(id, text, f => f.GetProperty("text").GetProperty("paragraphs")[0].GetProperty("text").GetString() == "12.50 each",
            "kept while the field is still open");
        Browser.Has(".writing").ShouldBeTrue();
        Click(Window(400, 400));
        Browser.Until(() => !Browser.Has(".writing"), "a click elsewhere closes it");
    }

    [Fact]
    public async Task Text_frames_hold_no_images_and_bad_text_is_refused_in_words()
    {
        int id = await Server.NewPublicationAsync();
        int image = (await Server.UploadAsync(id, ("a.jpg", ApiTests.Jpeg())))[0].GetProperty("id").GetInt32();
        string frames = $"/api/publications/{id}/frames";
        int text = (await Server.PostAsync(frames, new
        {
            page = 1,
            x = 0,
            y = 0,
            width = 50,
            height = 50,
            text = new { paragraphs = new[] { new { text = "A" } } }
        })).GetProperty("id").GetInt32();
        using var placed = await Server.Client.PatchAsJsonAsync($"{frames}/{text}", new { imageId = image });
        (await ApiTests.RefusedAsync(placed)).GetProperty("detail").GetString()!.ShouldContain("holds text");
        using var family = await Server.Client.PatchAsJsonAsync($"{frames}/{text}", new
        {
            text = new
            {
                paragraphs = new[] { new { text = "A",
            family = "Nowhere" } }
            }
        });
        (await ApiTests.RefusedAsync(family)).GetProperty("errors").GetProperty("family")[0].GetString()!.ShouldContain("Spectral");
        using var none = await Server.Client.PatchAsJsonAsync($"{frames}/{text}", new { text = new { paragraphs = Array.Empty<object>() } });
        none.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }

    private const string Long = "Every kiln has its own weather and the people who fire it learn to read the colour of the flame before they trust any " +
        "cone so a " +
        "shelf near the door comes out quiet while the one beneath the flue takes ash and turns to honey or to iron red when the wind is in the east";

    private static (double X, double Y, string Text)[] Placed(Browser browser, int frame) => [.. browser.Driver
        .FindElements(By.CssSelector($"#frame-{frame} .set-text text")).Select(t => (double.Parse(t.FindElement(By.CssSelector("tspan")).GetDomAttribute("x")!,
            CultureInfo.InvariantCulture), double.Parse(t.GetDomAttribute("y")!, CultureInfo.InvariantCulture), t.GetDomProperty("textContent")!.TrimEnd()))];

    [Fact]
    public async Task Text_runs_in_columns_and_keeps_clear_of_a_frame_while_that_is_dragged_through_it()
    {
        int id = await Server.NewPublicationAsync(facing: false);
        int text = (await Server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = 1,
            x = 60,
            y = 60,
            width = 300,
            height = 400,
            text = new { paragraphs = new[] { new { text = Long + " " + Long } } }
        })).GetProperty("id").GetInt32();
        int picture = (await Server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = 1,
            x = 400,
            y = 60,
            width = 80,
            height = 60,
            outline = "ellipse"
        }))
            .GetProperty("id").GetInt32();
        OpenDesk(id);
        Browser.Click($"#frame-{text}");
        Browser.Click("#more-columns summary");
        Type("#flow-columns-count", "2" + Keys.Tab);
        Frame(id, text, f => f.GetProperty("columns").GetProperty("count").GetInt32() == 2, "two columns");
        Type("#flow-columns-gutter", "20pt" + Keys.Tab);
        Frame(id, text, f => Math.Abs(f.GetProperty("columns").GetProperty("gutter").GetDouble() - 20) < 1e-6, "the gutter");
        Browser.Until(() => Placed(Browser, text) is var lines && lines.Any(l => l.X == 0) && lines.All(l => l.X is 0 or 160), "two columns, 140 wide");
        // What cannot be is told, and what was typed stays there.
        Type("#flow-columns-count", "0" + Keys.Tab);
        Browser.Until(() => Browser.Find("[data-error-of='columns.count']").Text.Contains("1 to 40 columns", StringComparison.Ordinal), "refused in words");
        Type("#flow-columns-count", "1" + Keys.Tab);
        Frame(id, text, f => f.GetProperty("columns").GetProperty("count").GetInt32() == 1, "one again");

        Browser.Click($"#frame-{picture}");
        Browser.Click("#more-wrap summary");
        Browser.Click("#flow-wrap-around option[value=Outline]");
        Frame(id, picture, f => f.GetProperty("wrap").GetProperty("around").GetString() == "outline", "text keeps clear of it");
        Settled();
        var apart = Placed(Browser, text);
        // While the pointer is down, the text makes way; let go, it stays so.
        var (from, over) = (Window(440, 90), Window(200, 140));
        Actions().MoveToLocation(from.X, from.Y).ClickAndHold().MoveToLocation((from.X + over.X) / 2, over.Y).MoveToLocation(over.X, over.Y).Perform();
        Browser.Until(() => Placed(Browser, text) is var lines && !lines.SequenceEqual(apart) && lines.Any(l => l.X > 100), "it makes way under the hand");
        Actions().Release().Perform();
        Settled();
        var ends = await FramesAsync(id);
        ends.Single(f => f.GetProperty("id").GetInt32() == picture).GetProperty("x").GetDouble().ShouldBeLessThan(250);
        Placed(Browser, text).Select(l => l.Text).ShouldBe(Lines(ends.Single(f => f.GetProperty("id").GetInt32() == text)));
        Placed(Browser, text).ShouldContain(l => l.X > 100);
        Browser.Send("#canvas", Keys.Control + "z");
        Browser.Until(() => Placed(Browser, text).SequenceEqual(apart), "undone, it runs as before");
    }

    [Fact]
    public async Task Text_keeps_clear_of_a_cut_out_piece_and_its_strength_is_moved()
    {
        int id = await Server.NewPublicationAsync(pages: 1, facing: false);
        string words = string.Join(' ', Enumerable.Repeat("clay", 500));
        int text = (await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 0, y = 0, width = 400, height = 300, kind = "text" }))
            .GetProperty("id").GetInt32();
        await Server.PostAsync($"/api/publications/{id}/stories", new { frames = new[] { text }, text = words });
        using var bitmap = new SkiaSharp.SKBitmap(new SkiaSharp.SKImageInfo(600, 600, SkiaSharp.SKColorType.Rgba8888, SkiaSharp.SKAlphaType.Premul));
        using (var canvas = new SkiaSharp.SKCanvas(bitmap))
        {
            // Opaque in the middle, and half so around it.
            canvas.Clear(SkiaSharp.SKColors.Transparent);
            using var paint = new SkiaSharp.SKPaint { Color = new(0, 0, 0, 100) };
            canvas.DrawRect(60, 60, 480, 480, paint);
            paint.Color = SkiaSharp.SKColors.Black;
            canvas.DrawRect(200, 200, 200, 200, paint);
        }
        using var png = bitmap.Encode(SkiaSharp.SKEncodedImageFormat.Png, 100);
        int image = (await Server.UploadAsync(id, ("cut.png", png.ToArray())))[0].GetProperty("id").GetInt32();
        int picture = (await Server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = 1,
            x = 100,
            y = 50,
            width = 200,
            height = 200,
            imageId = image
        })).GetProperty("id").GetInt32();
        OpenDesk(id);
        Browser.Click($"#frame-{picture}");
        Browser.Click("#more-wrap summary");
        Browser.Click("#flow-wrap-around option[value=Contour]");
        Frame(id, picture, f => f.GetProperty("wrap").GetProperty("around").GetString() == "contour", "text keeps clear of what it shows");
        Settled();
        Browser.Until(() => Browser.Run<bool>($"return document.querySelector('#frame-{picture} .contour').getAttribute('d').length > 10"),
            "the contour is shown");
        double Beside() => Browser.Run<double>($"const m = 150; return Math.min(...[...document.querySelectorAll('#frame-{text} text')].map(t => t.getBBox())" +
            ".filter(b => b.y < m && b.y + b.height > m && b.x > 200).map(b => b.x))");
        double near = Beside();
        near.ShouldBeLessThan(260, "the opaque part alone: 33 points to the right of the middle, and 8.5 of distance");
        Browser.Run<object?>("const s = document.getElementById('contour-strength'); s.value = 20; s.dispatchEvent(new Event('change', { bubbles: true }))");
        Browser.Until(() => Beside() > near + 30, "what is half clear counts too");
        Browser.Find("#contour-words").Text.ShouldContain("1 piece found");
    }

    [Fact]
    public async Task What_is_left_over_is_dragged_onto_a_frame_and_each_proposal_is_shown_before_it_is_taken()
    {
        int id = await Server.NewPublicationAsync(pages: 2, facing: false);
        async Task<int> MadeAsync(double x, string words) => (await Server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = 1,
            x,
            y = 60,
            width = 120,
            height = 60,
            text = new { paragraphs = new[] { new { text = words } } }
        })).GetProperty("id").GetInt32();
        int first = await MadeAsync(60, Long), second = await MadeAsync(220, ""), third = await MadeAsync(380, "own words");
        OpenDesk(id);
        Browser.Click($"#frame-{first}");
        var button = Browser.Find($".run-on [data-into='{second}']");
        Actions().MoveToElement(button).Perform();
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("#under-way .tray-preview")).Count == 2, "both frames as they would be");
        Browser.Until(() => Browser.Find("#pointer-words").Text.Contains("words left over", StringComparison.Ordinal), "and what would be left");
        Actions().MoveToElement(Browser.Find(".run-on [data-into=pages]")).Perform();
        Browser.Until(() => Browser.Find("#pointer-words").Text.Contains("added, all words have their place", StringComparison.Ordinal), "with pages");
        Actions().MoveToElement(Browser.Find("#canvas")).Perform();
        Browser.Until(() => !Browser.Has("#under-way .tray-preview"), "gone with the pointer");
        (await FramesAsync(id)).Length.ShouldBe(3, "nothing is done yet");

        // A frame with words of its own does not take it; an empty one does.
        var mark = Browser.Find($"#frame-{first} .overflow-mark");
        var (taken, empty) = (Window(440, 90), Window(280, 90));
        Actions().MoveToElement(mark).ClickAndHold().MoveToLocation(taken.X - 10, taken.Y).MoveToLocation(taken.X, taken.Y).Release().Perform();
        Browser.Until(() => Browser.Find("#notices").Text.Contains("words of its own", StringComparison.Ordinal), "told why not");
        Settled();
        Actions().MoveToElement(Browser.Find($"#frame-{first} .overflow-mark")).ClickAndHold().MoveToLocation(empty.X - 10, empty.Y)
            .MoveToLocation(empty.X, empty.Y).Release().Perform();
        Browser.Until(() => Browser.Has(".chain") && Browser.Find(".chain").Text.Contains("2 of 2", StringComparison.Ordinal),
            "it runs on, and that frame is chosen");
        Settled();
        Shown(second).ShouldNotBeEmpty();
        Shown(third).ShouldBe(["own words"]);
    }

    [Fact]
    public async Task A_text_that_does_not_fit_runs_on_into_the_next_frame_and_over_new_pages_until_it_ends()
    {
        int id = await Server.NewPublicationAsync(pages: 2, facing: false);
        async Task<int> MadeAsync(int page, string words) => (await Server.PostAsync($"/api/publications/{id}/frames", new
        {
            page,
            x = 60,
            y = 60,
            width = 120,
            height = 60,
            name = $"P{page}",
            text = new { paragraphs = new[] { new { text = words } } }
        })).GetProperty("id").GetInt32();
        int first = await MadeAsync(1, Long), second = await MadeAsync(2, "");
        OpenDesk(id);
        Browser.Click($"#frame-{first}");
        Browser.Until(() => Browser.Find("#inspector .finding").Text.Contains("words left over", StringComparison.Ordinal), "it says how much is left over");
        Browser.Click($".run-on [data-into='{second}']");
        Browser.Until(() => Browser.Find(".chain").Text.Contains("1 of 2", StringComparison.Ordinal), "it runs on");
        Settled();
        var story = await Server.GetAsync($"/api/publications/{id}/stories/{(await FramesAsync(id))[0].GetProperty("text").GetProperty("storyId").GetInt32()}");
        story.GetProperty("frames").EnumerateArray().Select(f => f.GetProperty("id").GetInt32()).ShouldBe([first, second]);
        Shown(first).ShouldBe(story.GetProperty("frames")[0].GetProperty("lines").EnumerateArray().Select(l => l.GetProperty("text").GetString()!));
        // By its number to the next of the chain; there, as many pages as it takes.
        Browser.Click(".chain a");
        Browser.Until(() => Browser.Has($"#frame-{second}") && Browser.Has(".chain") && Browser.Find(".chain").Text.Contains("2 of 2",
            StringComparison.Ordinal),
            "the second is chosen");
        Browser.Click(".run-on [data-into=pages]");
        Browser.Until(() => Server.GetAsync($"/api/publications/{id}").Result.GetProperty("pages").GetArrayLength() > 2, "pages are added");
        story = await Server.GetAsync($"/api/publications/{id}/stories/{story.GetProperty("id").GetInt32()}");
        story.GetProperty("wordsLeftOver").GetInt32().ShouldBe(0);
        string.Join(' ', story.GetProperty("frames").EnumerateArray().SelectMany(f => f.GetProperty("lines").EnumerateArray())
            .Select(l => l.GetProperty("text").GetString())).ShouldBe(Long);
        // Text taken from the PDF reads the same, page after page.
        using var folder = new TempFolder();
        await File.WriteAllBytesAsync(folder["c.pdf"], await Server.Client.GetByteArrayAsync($"/api/publications/{id}/output.pdf"));
        string.Join(' ', Testing.Tool.Run("pdftotext", "-raw", folder["c.pdf"], "-").Split(['\n', '\f', ' '], StringSplitOptions.RemoveEmptyEntries))
            .ShouldBe(Long);

        Browser.Find("#desk[data-ready]");
        Browser.Send("#canvas", Keys.Control + "z");
        Browser.Until(() => Server.GetAsync($"/api/publications/{id}").Result.GetProperty("pages").GetArrayLength() == 2, "undone in one step");
        OpenDesk(id);
        Browser.Click($"#frame-{first}");
        Browser.Click("[data-do=break-chain]");
        Browser.Until(() => !Browser.Has(".chain") && Browser.Has("#inspector .finding"), "broken, it ends with the first frame again");
        (await Server.GetAsync($"/api/publications/{id}/stories/{story.GetProperty("id").GetInt32()}")).GetProperty("frames").GetArrayLength().ShouldBe(1);
    }

    [Fact]
    public async Task Programs_make_stories_through_frames_and_change_both()
    {
        int id = await Server.NewPublicationAsync(pages: 2, facing: false);
        async Task<int> PlaceholderAsync(int page) => (await Server.PostAsync($"/api/publications/{id}/frames",
            new { page, x = 60, y = 60, width = 120, height = 40 })).GetProperty("id").GetInt32();
        int[] frames = [await PlaceholderAsync(1), await PlaceholderAsync(2)];
        var made = await Server.PostAsync($"/api/publications/{id}/stories", new { frames, text = "Heading\n" + Long });
        made.GetProperty("paragraphs").GetArrayLength().ShouldBe(2);
        made.GetProperty("wordsLeftOver").GetInt32().ShouldBeGreaterThan(0);
        made.GetProperty("frames")[1].GetProperty("lines")[0].GetProperty("pieces")[0].GetProperty("x").GetDouble().ShouldBe(0);
        string address = $"/api/publications/{id}/stories/{made.GetProperty("id").GetInt32()}";
        using (var shorter = await Server.Client.PutAsJsonAsync(address, new { frames = frames[..1], text = "Heading\nShort" }))
            shorter.StatusCode.ShouldBe(HttpStatusCode.OK, await shorter.Content.ReadAsStringAsync());
        (await Server.GetAsync(address)).GetProperty("frames").GetArrayLength().ShouldBe(1);
        foreach (var (body, words) in new (object Body, string Words)[] { (new { frames = new[] { frames[0] }, text = "again" }, "words of its own"),
            (new { frames = Array.Empty<int>(), text = "x" }, "Name the frames"), (new { frames = new[] { frames[1], frames[1] } }, "each once") })
        {
            using var refused = await Server.Client.PostAsJsonAsync($"/api/publications/{id}/stories", body);
            refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
            (await refused.Content.ReadAsStringAsync()).ShouldContain(words);
        }
    }
}
