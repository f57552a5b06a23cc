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
}
