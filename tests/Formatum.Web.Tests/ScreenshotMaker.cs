using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>
/// Makes the pictures in docs/screenshots from the demo publications of a running server: set FORMATUM_SCREENSHOTS to its address and run this test.
/// Without that it only sees that the demo's screens open.
/// </summary>
public sealed class ScreenshotMaker(DemoData demo)
{
    [Fact]
    public async Task The_demo_publications_open_on_every_screen()
    {
        string? address = Environment.GetEnvironmentVariable("FORMATUM_SCREENSHOTS");
        using var server = address is null ? demo.Server() : null;
        using var browser = new Browser();
        string root = address ?? server!.Address;

        void Show(string path, string ready, string? name)
        {
            browser.Driver.Navigate().GoToUrl(root + path);
            browser.Find(ready);
            Browser.Until(() => browser.Run<bool>("""
                const seen = e => { const r = e.getBoundingClientRect(); return r.top < innerHeight - 120 && r.left < innerWidth && r.width > 0; };
                return [...document.images].filter(seen).every(i => i.complete) && ![...document.querySelectorAll('.strip-picture:empty')].some(seen);
                """), "all pictures");
            Browser.Until(() => browser.Run<bool>("return document.fonts.status === 'loaded'"), "the fonts");
            Save(name);
        }
        void Save(string? name)
        {
            if (address is not null && name is not null) browser.Driver.GetScreenshot().SaveAsFile(Path.Combine(TestServer.Root, "docs/screenshots", name));
        }

        Show("/", ".shelf-item", "shelf.png");
        browser.Driver.FindElements(By.CssSelector(".shelf-item")).Count.ShouldBe(4);
        Show("/setup", "#plan svg", "setup.png");
        Show("/publications/1/desk/3", "#desk[data-ready]", "desk.png");
        browser.Driver.FindElements(By.CssSelector("#frames .frame")).Count.ShouldBe(16);
        browser.Click("#frames .frame");
        browser.Find("#figure-crop");
        Save("desk-frame.png");
        browser.Click("#go-inside");
        browser.Find("#inside .picture-edge");
        browser.Send("#canvas", "+++++");
        Browser.Until(() => browser.Find("#picture-scaleX").GetDomProperty("value") is { } scale && browser.Has("[data-do=picture-reset]:not(:disabled)")
            && scale.Length > 0, "recropped");
        Save("inside.png");
        Show("/publications/1/desk/3", "#desk[data-ready]", null);
        browser.Click("[data-overlay=sharpness]");
        browser.Driver.FindElements(By.CssSelector(".frame .sharpness text")).Count.ShouldBe(10);
        Show("/publications/1/flatplan", ".plan-picture svg", null);
        Browser.Until(() => browser.Run<bool>("return [...document.querySelectorAll('.plan-picture')].filter(p => p.getBoundingClientRect().top < " +
            "innerHeight).every(p => p.querySelector('svg')) && [...document.images].every(i => i.complete)"), "the miniatures");
        browser.Driver.FindElements(By.CssSelector(".plan-master")).Count.ShouldBe(2);
        Save("flatplan.png");
        Show("/publications/1/desk/-1", "#desk[data-ready]", null);
        browser.Driver.FindElements(By.CssSelector("#frames .frame-empty")).Count.ShouldBe(12);
        (int X, int Y) At(double x, double y) => ((int)browser.Run<double>("return new DOMPoint(arguments[0], " +
            "arguments[1]).matrixTransform(document.getElementById('spread').getScreenCTM()).x", x, y),
            (int)browser.Run<double>("return new DOMPoint(arguments[0], arguments[1]).matrixTransform(document.getElementById('spread').getScreenCTM()).y", x,
            y));
        var actions = new OpenQA.Selenium.Interactions.Actions(browser.Driver, TimeSpan.FromMilliseconds(50));
        Show("/publications/1/rules", "#rule-samples svg", null);
        browser.Driver.FindElements(By.CssSelector(".rule-item")).Count.ShouldBe(5);
        browser.Click("li:nth-child(4) > .rule-item");
        Browser.Until(() => browser.Find("#rule-name").GetDomProperty("value") == "Product shot", "the rule");
        browser.Click("#rule-fit option[value=Fill]");
        browser.Find("[data-touched]");
        Save("rules.png");
        Show("/publications/2/words", "#rule-samples svg", null);
        browser.Click(".rule-item[href$='/" +
            browser.Run<string>("return [...document.querySelectorAll('.rule-item')].find(a => a.textContent.includes('Running text'))" +
            ".getAttribute('href').split('/').at(-1)") + "']");
        Browser.Until(() => browser.Find("#rule-name").GetDomProperty("value") == "Running text", "the style");
        browser.Send("#style-size", Keys.Control + "a" + Keys.Null + "11.5" + Keys.Tab);
        browser.Find("[data-touched]");
        Browser.Until(() => browser.Run<bool>("return document.querySelectorAll('#impact svg').length > 1"), "before and after");
        Save("styles.png");
        Show("/publications/3/colours", "#rule-samples", null);
        browser.Driver.FindElements(By.CssSelector(".colour-item")).First(c => c.Text.Contains("Kiln ink", StringComparison.Ordinal)).Click();
        Browser.Until(() => browser.Find("#rule-name").GetDomProperty("value") == "Kiln ink", "the colour");
        browser.Send("#ink-Cyan", Keys.Control + "a" + Keys.Null + "95" + Keys.Tab);
        Browser.Until(() => browser.Run<bool>("return document.querySelectorAll('#impact svg').length > 3"), "before and after");
        Save("colours.png");
        Show("/publications/3/looks", "#rule-samples svg", null);
        browser.Find("#rule-name").GetDomProperty("value").ShouldBe("Card");
        browser.Send("#figure-border_width", Keys.Control + "a" + Keys.Null + "6" + Keys.Tab);
        Browser.Until(() => browser.Run<bool>("return document.querySelectorAll('#impact svg').length > 3"), "before and after");
        Save("looks.png");
        Show("/publications/3/desk/4", "#desk[data-ready]", null);
        var treated = At(298, 422);
        actions.MoveToLocation(treated.X, treated.Y).Click().Perform();
        browser.Click("#more-treatment summary");
        browser.Run<object?>("document.querySelector('#more-treatment').scrollIntoView({ block: 'center' })");

        Show("/publications/3/printed/2", ".printed-sum", null);
        browser.Click("[name=show][value=ink]");
        browser.Send("#limit", Keys.Control + "a" + Keys.Null + "200" + Keys.Tab);
        Browser.Until(() => browser.Run<bool>("const i = document.getElementById('picture'); return i.complete && i.src.includes('limit=200')"), "the ink");
        Save("printed.png");
        Show("/publications/2/output", ".output-name", null);
        browser.Click("[name=Crop]");
        browser.Click("#make");
        Browser.Until(() => browser.Has(".output-item[data-state=Done]"), "made");
        // With the stand-in of ./run-demo beside, it is looked over.
        if (browser.Has("#hand-form"))
        {
            browser.Click("[data-hand]");
            browser.Click("#hand-form button");
            Browser.Until(() => browser.Has("[data-handover=Refused], [data-handover=Accepted]"), "looked over");
        }
        Save("output.png");
        browser.Click("#imposition option[value=Booklet]");
        browser.Click("#see-sheets");
        Browser.Until(() => browser.Run<bool>("const seen = [...document.querySelectorAll('.sheet-cell img')]; return seen.length === 4 && " +
            "seen.every(i => i.complete && i.naturalWidth > 0)"), "the sheets");
        Show("/publications/4/desk/2", "#desk[data-ready]", null);
        Browser.Until(() => browser.Driver.FindElements(By.CssSelector("#findings text")).Count > 5, "what was found on the spread");
        Save("found.png");
        Show("/publications/4/check?by=Kind&kind=NoBleed", "#check[data-ready]", null);
        browser.Click("[data-mend]");
        browser.Find(".remedy-pictures svg");
        browser.Click("#check-kind option[value='']");
        Browser.Until(() => browser.Driver.FindElements(By.CssSelector(".check-row")).Count > 10, "all kinds");
        browser.Click("[data-all=NoBleed]");
        browser.Find(".remedy-pictures svg");
        Browser.Until(() => browser.Run<bool>("return [...document.querySelectorAll('.check-thumb[hx-get]')].filter(t => t.getBoundingClientRect().top < " +
            "innerHeight).every(t => t.querySelector('svg'))"), "the pictures of places");
        Save("check.png");
        Show("/publications/4/images", "#images[data-ready]", null);
        // The list comes anew once the watch has told of the links that changed.
        void Click(string css, string then) => Browser.Until(() =>
        {
            browser.Click(css);
            return browser.Find(then).Displayed;
        }, then);
        Click("li:has(.thumb-state) [data-card]", "#image-card .uses li");
        Save("images.png");
        Show("/publications/2/desk/1", "#desk[data-ready]", null);
        var story = At(300, 460);
        actions.MoveToLocation(story.X, story.Y).Click().Perform();
        browser.Find("#text-family");
        Show("/publications/2/desk/2", "#desk[data-ready]", null);
        var words = At(100, 500);
        actions.MoveToLocation(words.X, words.Y).Click().Perform();
        browser.Find(".chain");
        browser.Run<object?>("document.querySelector('.chain').scrollIntoView({ block: 'center' })");
        browser.Click("#write");
        browser.Find(".text-caret:not(.is-away)");
        var from = At(60, 400);
        var to = At(150, 470);
        actions.MoveToLocation(from.X, from.Y).ClickAndHold().MoveToLocation(to.X, to.Y).Release().Perform();
        Browser.Until(() => browser.Driver.FindElements(By.CssSelector(".text-selection rect")).Count > 2, "a stretch is selected");
        Save("typing.png");
        actions.SendKeys(Keys.Escape).Perform();
        Show("/publications/3/desk/7", "#desk[data-ready]", null);
        if (browser.Has("[data-do=tray-add-unplaced]")) browser.Click("[data-do=tray-add-unplaced]");
        Browser.Until(() => browser.Driver.FindElements(By.CssSelector("[data-tray]")).Count > 15, "the pictures");
        Browser.Until(() => !browser.Has("#desk[aria-busy]"), "the tray");
        browser.Click("li:nth-child(6) > [data-tray]");
        browser.Find("[data-tray][aria-pressed=true]");
        var empty = At(431, 159);
        actions.MoveToLocation(empty.X, empty.Y + 2).MoveToLocation(empty.X, empty.Y).Perform();
        browser.Find(".tray-preview image");
        Browser.Until(() => browser.Find("#pointer-words").Text.Contains("crop", StringComparison.Ordinal), "its figures");
        Save("tray.png");
        browser.Click("#pour");
        browser.Find("#pour-sum");
        browser.Click("#pour-form [name=order][value=Best]");
        browser.Find("#pour-form [name=order][value=Best]:checked");
        browser.Click("#pour-form [name=layout][value=Page]");
        Browser.Until(() => browser.Find("#pour-sum").Text.Contains("added", StringComparison.Ordinal), "the proposal");
        Save("pour.png");
        await ChangeAsync(root);
        Show("/publications/2/compare", "#compare[data-ready]", null);
        browser.Click("#with optgroup[label='PDFs made before'] option");
        Browser.Until(() => browser.Run<bool>("const seen = [...document.querySelectorAll('.file-page')].filter(p => p.getBoundingClientRect().top < " +
            "innerHeight); return seen.length > 3 && seen.every(p => p.dataset.drawn === 'yes')"), "pages of both");
        Save("compare.png");
    }

    /// <summary>Page 2 of the newsletter otherwise than when it was made: another picture, words that moved.</summary>
    private static async Task ChangeAsync(string root)
    {
        using var client = new HttpClient { BaseAddress = new(root) };
        var publication = await client.GetFromJsonAsync<JsonElement>("/api/publications/2");
        int Id(string of, string name) => publication.GetProperty(of).EnumerateArray().First(p => p.GetProperty("name").GetString() == name)
            .GetProperty("id").GetInt32();
        async Task Patch(string name, object change) =>
            (await client.PatchAsJsonAsync($"/api/publications/2/frames/{Id("frames", name)}", change)).EnsureSuccessStatusCode();
        await Patch("Glaze of the month", new { imageId = Id("images", "glaze-tenmoku.jpg") });
        await Patch("In this number", new { y = "208 mm" });
    }
}
