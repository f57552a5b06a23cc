using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Formatum.Output;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>A publication's own fonts: brought in, set with, carried along, removed.</summary>
public sealed class FontTests(Workplace place) : InBrowser(place)
{
    private const string NoFont = "letter.ttf";

    private static string PathOf(string name) => TestFonts.Find(name, () => Typefaces.File("Spectral", "regular")!);

    private async Task<JsonElement> AddAsync(int id, params string[] names)
    {
        using var form = new MultipartFormDataContent();
        foreach (string name in names)
            form.Add(new ByteArrayContent(name == NoFont ? "Words, not outlines."u8.ToArray() : await File.ReadAllBytesAsync(PathOf(name))), "files", name);
        using var answer = await Server.Client.PostAsync($"/api/publications/{id}/fonts", form);
        answer.StatusCode.ShouldBe(HttpStatusCode.Created);
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    private async Task<(int Publication, int Frame)> TypedAsync()
    {
        int id = await Server.NewPublicationAsync("Own fonts", pages: 2, facing: false);
        var made = await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 60, y = 60, width = 300, height = 120, kind = "text" });
        int story = made.GetProperty("text").GetProperty("storyId").GetInt32();
        using var put = await Server.Client.PutAsJsonAsync($"/api/publications/{id}/stories/{story}", new { text = "Jugs and bowls, fired twice" });
        put.IsSuccessStatusCode.ShouldBeTrue();
        return (id, made.GetProperty("id").GetInt32());
    }

    private string FontOf(int frame) =>
        Browser.Run<string>("return getComputedStyle(document.querySelector(`#frame-${arguments[0]} .set-text text`)).fontFamily",
        frame);

    [Fact]
    public async Task Fonts_dropped_on_the_page_are_brought_in_for_its_texts()
    {
        var (id, _) = await TypedAsync();
        OpenDesk(id);
        Browser.Driver.ExecuteScript("""
            const data = new DataTransfer(), bytes = text => Uint8Array.from(atob(text), c => c.charCodeAt(0));
            data.items.add(new File([bytes(arguments[0])], 'bearings.woff2'));
            data.items.add(new File(['Words, not outlines.'], 'letter.ttf'));
            const page = document.querySelector('#canvas');
            for (const kind of ['dragover', 'drop']) page.dispatchEvent(new DragEvent(kind, { dataTransfer: data, bubbles: true, cancelable: true }));
            """, Convert.ToBase64String(await File.ReadAllBytesAsync(PathOf("bearings.woff2"))));
        Browser.Until(() => Browser.Find("#notices").Text is var told && told.Contains("Brought in: Squeezed", StringComparison.Ordinal)
            && told.Contains("letter.ttf: It is no font.", StringComparison.Ordinal), "told of both");
        Click(Window(100, 80));
        Browser.Until(() => Browser.Has("#text-family option[value='Squeezed']"), "texts can be set in it");
        Browser.Click("#text-family option[value='Squeezed']");
        Browser.Until(() => Browser.Has("#frames .set-text text[font-family*='Set ']"), "set");
    }

    [Fact]
    public async Task A_font_is_brought_in_put_on_text_shown_and_removed()
    {
        var (id, frame) = await TypedAsync();
        Go($"/publications/{id}/fonts");
        Browser.Find("#font-files").SendKeys(string.Join('\n', PathOf("bearings.woff2"), PathOf("restricted.ttf"), typeof(FontTests).Assembly.Location));
        Browser.Until(() => Browser.Has("[data-family='Squeezed']") && Browser.Has("[data-family='Type restricted']"), "both are listed");
        Browser.Find("#font-problems").Text.ShouldContain("It is no font.");
        Browser.Find("[data-family='Type restricted'] .finding").Text.ShouldContain("prints as shapes");

        OpenDesk(id);
        Click(Window(100, 80));
        Browser.Until(() => Browser.Has("#text-family"), "the text's inspector");
        Browser.Click("#text-family option[value='Squeezed']");
        Browser.Until(() => FontOf(frame).Length > 35, "the words are in a face of their own");
        string face = FontOf(frame).Trim('"');
        Browser.Until(() => Browser.Run<bool>("return [...document.fonts].some(f => f.family.replaceAll('\"', '') === arguments[0] && f.status === 'loaded')",
            face),
            "the browser has loaded it");
        // What may go into no document is drawn, and no browser gets its file.
        Browser.Click("#text-family option[value='Type restricted']");
        Browser.Until(() => Browser.Has($"#frame-{frame} .set-text path") && !Browser.Has($"#frame-{frame} .set-text text"), "drawn as shapes");

        Go($"/publications/{id}/fonts");
        Browser.Find("[data-family='Type restricted'] .font-uses").Text.ShouldContain("In 1 text");
        Browser.Click("[data-family='Type restricted'] select option[value='']");
        Browser.Click("[data-family='Type restricted'] .font-remove button");
        Browser.Until(() => Browser.Has($"[data-touched='{frame}']"), "what it does is shown");
        (await Server.GetAsync($"/api/publications/{id}/fonts")).GetArrayLength().ShouldBe(2);
        Browser.Click("#apply");
        Browser.Until(() => !Browser.Has("[data-family='Type restricted']") && Browser.Has("#fonts"), "it is gone");
        OpenDesk(id);
        FontOf(frame).ShouldContain("Set Cabin");
        Go($"/publications/{id}/fonts");
        Browser.Click("#history [data-do=undo]");
        Browser.Until(() => Browser.Has("[data-family='Type restricted'] .font-uses"), "it is back, and used");
    }

    [Fact]
    public async Task Another_window_sets_with_it_at_once()
    {
        var (id, frame) = await TypedAsync();
        OpenDesk(id);
        Click(Window(100, 80));
        Browser.Until(() => Browser.Has("#text-family"), "the text's inspector");
        await AddAsync(id, "bearings.woff2");
        Browser.Until(() => Browser.Has("#text-family option[value='Squeezed']"), "it can be chosen");
        Browser.Click("#text-family option[value='Squeezed']");
        Browser.Until(() => FontOf(frame).Length > 35 && Browser.Run<bool>(
            "return [...document.fonts].some(f => `\"${f.family.replaceAll('\"', '')}\"` === arguments[0] && f.status === 'loaded')", FontOf(frame)),
                "and is shown");
    }

    [Fact]
    public async Task Programs_add_list_and_remove_fonts()
    {
        var (id, frame) = await TypedAsync();
        var added = await AddAsync(id, "varying.ttf", "restricted.ttf", NoFont);
        added[0].GetProperty("faces").EnumerateArray().Select(f => f.GetString()).ShouldBe(["Regular", "Bold"]);
        added[2].GetProperty("error").GetString()!.ShouldContain("no font");
        var fonts = await Server.GetAsync($"/api/publications/{id}/fonts");
        fonts.EnumerateArray().Select(f => f.GetProperty("embedding").GetString()).ShouldBe(["restricted", "preview-and-print", "preview-and-print"]);
        string css = await Server.Client.GetStringAsync($"/publications/{id}/fonts.css");
        css.Split("@font-face").Length.ShouldBe(3);
        foreach (string address in css.Split('\'').Where(p => p.StartsWith("/fonts/own/", StringComparison.Ordinal)))
            (await Server.Client.GetByteArrayAsync(address)).Length.ShouldBeGreaterThan(500);
        // Other publications of this server have fonts too: the one meant is the one with the name.
        string locked = Directory.GetFiles(Server.InData("fonts")).Where(f => File.ReadAllBytes(f).AsSpan().IndexOf(
            Encoding.BigEndianUnicode.GetBytes("Type restricted")) >= 0).Select(f => Path.GetFileNameWithoutExtension(f)!).Single();
        css.ShouldNotContain(locked);
        (await Server.Client.GetAsync($"/fonts/own/{locked}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await Server.Client.GetAsync($"/fonts/own/{new string('.', 64)}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        using var put = await Server.Client.PatchAsJsonAsync($"/api/publications/{id}/frames/{frame}", new
        {
            text = new { paragraphs = new[] { new { text = "Jugs", family = "Varying" } } }
        });
        put.IsSuccessStatusCode.ShouldBeTrue(await put.Content.ReadAsStringAsync());
        using var wrong = await Server.Client.PatchAsJsonAsync($"/api/publications/{id}/frames/{frame}", new
        {
            text = new { paragraphs = new[] { new { text = "Jugs", family = "Nowhere" } } }
        });
        wrong.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        foreach (var font in fonts.EnumerateArray())
            (await Server.Client.DeleteAsync($"/api/publications/{id}/fonts/{font.GetProperty("id")}?instead=Fraunces"))
                .StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await Server.GetAsync($"/api/publications/{id}")).GetProperty("frames")[0].GetProperty("text").GetProperty("paragraphs")[0].GetProperty("family")
            .GetString().ShouldBe("Fraunces");
    }

    [Fact]
    public async Task A_bundle_brings_its_fonts_to_another_server()
    {
        var (id, frame) = await TypedAsync();
        await AddAsync(id, "cubic.otf", "restricted.ttf");
        using var put = await Server.Client.PatchAsJsonAsync($"/api/publications/{id}/frames/{frame}", new
        {
            text = new { paragraphs = new[] { new { text = "AB", family = "Cubic" }, new { text = "AB", family = "Type restricted" } } }
        });
        put.IsSuccessStatusCode.ShouldBeTrue();
        byte[] bundle = await Server.Client.GetByteArrayAsync($"/api/publications/{id}/bundle");
        using var elsewhere = new TestServer();
        using var form = new MultipartFormDataContent { { new ByteArrayContent(bundle), "files", "bundle.zip" } };
        using var answer = await elsewhere.Client.PostAsync("/api/bundles", form);
        answer.StatusCode.ShouldBe(HttpStatusCode.Created, await answer.Content.ReadAsStringAsync());
        int taken = (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetInt32();
        Browser.Driver.Navigate().GoToUrl($"{elsewhere.Address}/publications/{taken}/desk/1");
        Browser.Until(() => Browser.Has(".set-text text"), "the text is shown");
        Browser.Run<string>("return getComputedStyle(document.querySelector('.set-text text')).fontFamily").Length.ShouldBeGreaterThan(35);
        // The other face was not allowed to come along, and is said to be missing.
        Browser.Driver.Navigate().GoToUrl($"{elsewhere.Address}/publications/{taken}/fonts");
        Browser.Find("[data-family='Type restricted'] .finding").Text.ShouldNotBeEmpty();
        Directory.GetFiles(elsewhere.InData("fonts")).Length.ShouldBe(1);
    }
}
