using System.Globalization;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;
using UglyToad.PdfPig;

namespace Formatum.Web.Tests;

/// <summary>The whole first job, as a person does it, in Chromium: set up, draw, bring in, place, fit, take the PDF away.</summary>
public sealed class DeskTests(Workplace place) : InBrowser(place)
{
    [Fact]
    public async Task A_folded_brochure_is_set_up_and_its_panels_are_zones_that_catch()
    {
        Go("/setup");
        Type("#name", "Leaflet");
        Browser.Find("#folding").Displayed.ShouldBeFalse();
        Browser.Click("[name='Form.Facing'][value=false]");
        Browser.Click("[name='Form.Sideways'][value=true]");
        Type("#pages", "2");
        Type("#columns", "1");
        Browser.Click("#fold option[value=Roll]");
        Type("#narrower", "30 mm");
        Browser.Click("button[type=submit]");
        Browser.Find("#narrower-error").Text.ShouldContain("1 to 3 mm is usual");
        Type("#narrower", "3 mm");
        Browser.Until(() => Browser.Find("#plan").Text.Contains("outside, panels of 97 mm, 100 mm, 100 mm", StringComparison.Ordinal)
            && Browser.Find("#plan").Text.Contains("inside, panels of 100 mm, 100 mm, 97 mm", StringComparison.Ordinal), "both sides are drawn");
        Browser.Click("button[type=submit]");
        Browser.Find("#desk[data-ready]");
        Browser.Driver.FindElements(By.CssSelector("#zones .zone-fold")).Count.ShouldBe(2);
        int id = int.Parse(Browser.Driver.Url.Split('/')[^2], CultureInfo.InvariantCulture);
        // As a program asks for it.
        var same = await Server.PostAsync("/api/publications", new
        {
            name = "Leaflet",
            page = new { width = "297mm", height = "210mm" },
            pages = 2,
            folding = new { kind = "roll", narrower = "3mm" },
        });
        string Folds() => string.Join(' ', Browser.Driver.FindElements(By.CssSelector("#zones .zone-fold")).Select(e => e.GetDomAttribute("x")));
        string drawn = Folds();
        Go($"/publications/{same.GetProperty("id").GetInt32()}/desk");
        Browser.Find("#desk[data-ready]");
        Folds().ShouldBe(drawn);
        Go($"/publications/{id}/setup");
        Browser.Find("#fold").GetDomProperty("value").ShouldBe("Roll");
        Browser.Click("#fold option[value='']");
        Browser.Click("button[type=submit]");
        Browser.Find("#desk[data-ready]");
        Browser.Has("#zones .zone-fold").ShouldBeFalse();
    }

    [Fact]
    public async Task A_publication_is_set_up_and_nothing_typed_is_lost_where_it_is_impossible()
    {
        Go("/");
        Browser.Click("a[href='/setup']");
        Type("#name", "Autumn <list>");
        Type("#inside", "150 mm");
        Type("#outside", "3p6 and a bit");
        Type("#columns", "0");
        Browser.Click("button[type=submit]");
        Browser.Find("#outside-error").Text.ShouldContain("is not a length");
        Browser.Find("#outside").GetDomProperty("value").ShouldBe("3p6 and a bit");
        Browser.Find("#name").GetDomProperty("value").ShouldBe("Autumn <list>");
        Type("#outside", "100mm");
        Browser.Click("button[type=submit]");
        Browser.Find("#columns-error").Text.ShouldContain("0 columns cannot be laid out");
        Type("#columns", "2");
        Browser.Click("button[type=submit]");
        Browser.Find("#inside-error").Text.ShouldContain("the page is only 210 mm wide");
        Browser.Find("#inside").GetDomProperty("value").ShouldBe("150 mm");
        Type("#inside", "20 mm");
        Type("#outside", "15");
        Browser.Click("#size option[value=own]");
        Type("#width", "10000 m");
        Browser.Click("button[type=submit]");
        Browser.Find("#width-error").Text.ShouldContain("out of range");
        Type("#width", "8.5in");
        Type("#height", "240");
        Browser.Until(() => Browser.Find("#plan").Text.Contains("215.9 \u00d7 240 mm", StringComparison.Ordinal), "the plan follows");
        Browser.Click("button[type=submit]");
        Browser.Find("#desk[data-ready]");
        Browser.Find(".publication-name").Text.ShouldBe("Autumn <list>");

        var made = await Server.GetAsync($"/api/publications/{Browser.Driver.Url.Split('/')[4]}");
        made.GetProperty("page").GetProperty("width").GetDouble().ShouldBe(612, 1e-9);
        made.GetProperty("margins").GetProperty("outside").GetDouble().ShouldBe(15 / 25.4 * 72, 1e-9);
        made.GetProperty("pages").GetArrayLength().ShouldBe(8);

        // Spreads are stepped through, and the zones of the one shown are drawn.
        Browser.Click("#next-spread");
        Browser.Until(() => Browser.Find("#page-field").GetDomProperty("value") == "2\u20133", "the next spread");
        Browser.Driver.FindElements(By.CssSelector("#zones .zone-margin")).Count.ShouldBe(2);
        Browser.Driver.FindElements(By.CssSelector("#zones .zone-column")).Count.ShouldBe(4);
        Browser.Click("[data-zoom=full]");
        Browser.Find("#zoom-figure").Text.ShouldBe("100 %");
        double inch = Browser.Run<double>("return document.getElementById('spread').getScreenCTM().a * 72");
        inch.ShouldBe(96, 0.01);
    }

    [Fact]
    public async Task What_a_change_of_size_and_pages_comes_to_is_shown_before_it_is_done()
    {
        int id = await Server.NewPublicationAsync("Resized", pages: 4, facing: false);
        foreach (int page in new[] { 1, 4 })
            await Server.PostAsync($"/api/publications/{id}/frames", new { page, x = "100mm", y = "200mm", width = "100mm", height = "80mm" });
        Go($"/publications/{id}/setup");
        Type("#pages", "2");
        Browser.Click("#size option[value=A5]");
        Browser.Click("button[type=submit]");
        Browser.Find("#setup-impact").Text.ShouldContain("2 pages go, with 1 frame");
        (await Server.GetAsync($"/api/publications/{id}")).GetProperty("pages").GetArrayLength().ShouldBe(4, "nothing is done yet");
        Browser.Click("#setup-impact input[value=Keep]");
        Browser.Click("#setup-impact fieldset button");
        Browser.Until(() => Browser.Find("#setup-impact").Text.Contains("1 frame comes to lie off the page", StringComparison.Ordinal), "kept, it is off");
        Browser.Click("#setup-impact input[value=Scale]");
        Browser.Click("#setup-sure");
        Browser.Find("#desk[data-ready]");
        var frame = (await FramesAsync(id)).ShouldHaveSingleItem();
        // A5 is 148 x 210 mm (ISO 216): what lay on A4 comes to lie by the smaller of the two ratios.
        (frame.GetProperty("x").GetDouble() + frame.GetProperty("width").GetDouble()).ShouldBeLessThan(148 / 25.4 * 72);
        frame.GetProperty("width").GetDouble().ShouldBe(100 / 25.4 * 72 * 148 / 210, 0.5);
        Browser.Send("#canvas", Keys.Control + "z");
        Eventually(id, f => f.Length == 2, "all of it is taken back");
        (await Server.GetAsync($"/api/publications/{id}")).GetProperty("pages").GetArrayLength().ShouldBe(4);
    }

    [Fact]
    public async Task Placeholders_are_drawn_moved_sized_typed_nudged_removed_and_all_of_it_undone_after_a_restart()
    {
        int id = OpenDesk(await Server.NewPublicationAsync(), 2);

        // Drawn square with Shift, from within the bleed of page 2: it stays there, where nothing is to catch.
        Browser.Click("#snapping");
        Draw(id, (-6, -6), (94, 60), shift: true);
        var frame = (await FramesAsync(id))[0];
        frame.GetProperty("page").GetInt32().ShouldBe(2);
        D(frame, "x").ShouldBe(-6, 1.5);
        D(frame, "width").ShouldBe(D(frame, "height"), 1e-9);
        D(frame, "width").ShouldBe(100, 3);
        Browser.Find(".empty-label").Text.ShouldContain("1:1");

        // Dragged over to the other page, which it then keeps to.
        Drag(Window(40, 40), Window(740, 240));
        frame = Eventually(id, f => f[0].GetProperty("page").GetInt32() == 3, "it moved to page 3");
        D(frame, "x").ShouldBe(-6 + 700 - 595.276, 3);
        D(frame, "y").ShouldBe(194, 3);

        // Sized by its lower right grip.
        double left = D(frame, "x") + 595.276, top = D(frame, "y"), side = D(frame, "width");
        Drag(Window(left + side, top + side), Window(left + side + 80, top + side + 40));
        frame = Eventually(id, f => D(f[0], "width") > side + 60, "it grew");
        D(frame, "height").ShouldBe(side + 40, 3);
        D(frame, "y").ShouldBe(top, 1e-6);

        // Typed, in several units; what is no length is told beside the field and changes nothing.
        Type("#frame-x", "1in" + Keys.Enter);
        Eventually(id, f => Math.Abs(D(f[0], "x") - 72) < 1e-6, "x is typed");
        Browser.Until(() => Browser.Find("#frame-x").GetDomProperty("value") == "25.4", "the inspector shows it");
        Type("#frame-width", "3p6" + Keys.Enter);
        Eventually(id, f => Math.Abs(D(f[0], "width") - 42) < 1e-6, "the width is typed");
        Browser.Until(() => Browser.Find("#frame-width").GetDomProperty("value") == "14.817", "the inspector shows it");
        Type("#frame-height", "tall" + Keys.Enter);
        Browser.Until(() => Browser.Find("#frame-height-error").Text.Contains("not a length", StringComparison.Ordinal), "the refusal");
        Type("#frame-height", "0" + Keys.Enter);
        Browser.Until(() => Browser.Find("#frame-height-error").Text.Contains("higher than 0", StringComparison.Ordinal), "the refusal");
        D((await FramesAsync(id))[0], "height").ShouldBe(side + 40, 3);

        // Nudged by a millimetre, ten with Shift.
        Browser.Send("#canvas", Keys.ArrowRight);
        Eventually(id, f => Math.Abs(D(f[0], "x") - 72 - 72 / 25.4) < 1e-6, "nudged");
        Browser.Send("#canvas", Keys.Shift + Keys.ArrowRight);
        Eventually(id, f => Math.Abs(D(f[0], "x") - 72 - 11 * 72 / 25.4) < 1e-6, "nudged ten times");

        Browser.Send("#canvas", Keys.Delete);
        Eventually(id, f => f.Length == 0, "removed");
        Browser.Until(() => !Browser.Has("#frames .frame"), "gone from the page");

        // All of it undone, after the server was killed and started again; then done again.
        Server.Kill();
        Server.StartAgain();
        OpenDesk(id, 2);
        for (int i = 0; i < 8; i++)
        {
            string Revision() => Browser.Driver.FindElement(By.Id("revision")).GetAttribute("data-revision")!;
            string before = Revision();
            Browser.Until(() => Browser.Find("#undo").Enabled, "something to undo");
            Browser.Click("#undo");
            Browser.Until(() => Revision() != before, $"undone, step {i}");
        }
        Eventually(id, f => f.Length == 0, "all undone");
        Browser.Until(() => !Browser.Find("#undo").Enabled && !Browser.Has("#frames .frame"), "nothing left to undo");
        Browser.Send("#canvas", Keys.Control + Keys.Shift + "z");
        frame = Eventually(id, f => f.Length == 1, "done again");
        D(frame, "x").ShouldBe(-6, 1.5);
    }

    [Fact]
    public async Task Photographs_are_brought_in_placed_fitted_and_taken_away_as_PDF()
    {
        int id = OpenDesk(await Server.NewPublicationAsync("Photographs", pages: 1, facing: false));
        Draw(id, (60, 60), (460, 260));

        // Through the real file input, one bad file among them.
        using var folder = new TempFolder();
        File.WriteAllText(folder["notes.png"], "no picture");
        using (var quarters = TestPictures.Quarters(400, 300)) TestPictures.Save(quarters, folder["turned.jpg"], 150, 6);
        var photographs = TestPictures.Photographs.Take(3).ToArray();
        Browser.Driver.FindElement(By.Id("files")).SendKeys(string.Join('\n', [.. photographs, folder["notes.png"], folder["turned.jpg"]]));
        Browser.Until(() => Browser.Find("#intake-words").Text.StartsWith("4 of 5 came in", StringComparison.Ordinal), "the report", 60);
        Browser.Find("#intake-problems").Text.ShouldContain("notes.png");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".thumb")).Count == 4, "the contact sheet");
        Browser.Until(() => Browser.Run<bool>("return [...document.querySelectorAll('.thumb img')].every(i => i.complete && i.naturalWidth > 0)"),
            "the thumbnails");
        var turned = Browser.Driver.FindElements(By.CssSelector(".thumb"))[3];
        turned.Text.ShouldContain("400 \u00d7 300 px");
        turned.Text.ShouldContain("150 ppi \u00b7 turned");
        turned.Text.ShouldContain("67.7 \u00d7 50.8 mm");

        // Pick the picture for the chosen placeholder: it lands filled and centred.
        Browser.Driver.FindElements(By.CssSelector(".thumb"))[0].Click();
        var frame = Eventually(id, f => f[0].GetProperty("imageId").ValueKind == JsonValueKind.Number, "placed");
        frame.GetProperty("placement").GetProperty("applied").GetString().ShouldBe("fill");
        D(frame.GetProperty("placement"), "bareArea").ShouldBe(0);
        Browser.Until(() => Browser.Has("#figure-crop"), "the figures");
        double loss = D(frame.GetProperty("placement"), "cropLoss");
        Browser.Find("#figure-crop").Text.ShouldBe((loss * 100).ToString("0.#", CultureInfo.InvariantCulture) + " %");

        // Every fit and alignment shows at once, and as the core computes it.
        foreach (var (label, applied) in new[] { ("Fit", "fit"), ("Stretch", "stretch"), ("Natural", "natural"), ("Fill", "fill") })
        {
            Browser.Click($"[data-fit={label}]");
            frame = Eventually(id, f => f[0].GetProperty("placement").GetProperty("applied").GetString() == applied, label);
            var matrix = frame.GetProperty("placement").GetProperty("matrix").EnumerateArray().Select(v => v.GetDouble()).ToArray();
            Browser.Until(() => Browser.Run<IReadOnlyCollection<object>>("const m = document.querySelector('#frames " +
                "image').transform.baseVal.consolidate().matrix; return [m.a, m.b, m.c, m.d, m.e, m.f]")
                .Select(v => Convert.ToDouble(v, CultureInfo.InvariantCulture)).Zip(matrix).All(p => Math.Abs(p.First - p.Second) < 1e-3), label + " is shown");
            Browser.Until(() => Browser.Find($"[data-fit={label}]").GetAttribute("aria-pressed") == "true", label + " is marked");
        }
        Browser.Click("[aria-label='Top left']");
        Eventually(id, f => f[0].GetProperty("set").TryGetProperty("align", out var a) && a.ValueKind == JsonValueKind.Array && a[0].GetDouble() == 0,
            "aligned");
        Browser.Until(() => Browser.Find("[aria-label='Top left']").GetAttribute("aria-pressed") == "true", "the alignment is marked");
        Browser.Send("#canvas", ".");
        Eventually(id, f => f[0].GetProperty("placement").GetProperty("applied").GetString() == "fit", "the next fit");

        // The picture follows while the frame is dragged, before the pointer is let go.
        string before = Browser.Until(() => Browser.Find("#frames image").GetAttribute("transform"), "how the picture lies")!;
        var grip = Window(460, 260);
        Actions().MoveToLocation(grip.X, grip.Y).ClickAndHold().MoveToLocation(grip.X - 60, grip.Y - 50).Perform();
        Browser.Until(() => Browser.Find("#frames image").GetAttribute("transform") != before, "the picture follows");
        Actions().Release().Perform();
        Eventually(id, f => D(f[0], "width") < 399, "resized");

        // Dragged from the contact sheet onto another placeholder.
        Draw(id, (60, 400), (300, 640));
        var fourth = Browser.Driver.FindElements(By.CssSelector(".thumb"))[3];
        Browser.Driver.ExecuteScript("arguments[0].scrollIntoView({ block: 'center' })", fourth);
        var thumb = fourth.Location;
        Drag((thumb.X + 30, thumb.Y + 30), Window(180, 520));
        Eventually(id, f => f.Count(x => x.GetProperty("imageId").ValueKind == JsonValueKind.Number) == 2, "dropped");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".thumb-placed")).Count == 2, "the sheet marks both as placed");

        // The PDF, downloaded by the browser.
        Browser.Click("#output-button");
        Browser.Click("#output-card input[name=marks]");
        Browser.Click("#sure");
        Browser.Click("#make-pdf");
        string path = Browser.Until(() => Directory.GetFiles(Browser.Downloads, "*.pdf").FirstOrDefault(), "the PDF", 60);
        using var pdf = PdfDocument.Open(path);
        var page = pdf.GetPage(1);
        page.NumberOfImages.ShouldBe(2);
        page.MediaBox.Bounds.Width.ShouldBe(595.27559 + 2 * 8 / 25.4 * 72, 0.001);
        Tool.Run("qpdf", "--check", path).ShouldContain("No syntax or stream encoding errors");
    }

    [Fact]
    public async Task A_rule_is_put_on_a_placeholder_and_what_is_set_here_is_cleared()
    {
        int id = await Server.NewPublicationAsync("Rules", pages: 1, facing: false);
        int rule = (await Server.PostAsync($"/api/publications/{id}/rules", new { name = "Airy", fit = "shrink" })).GetProperty("id").GetInt32();
        OpenDesk(id);
        Draw(id, (60, 60), (260, 260));
        Browser.Click($"#frame-rule option[value='{rule}']");
        Eventually(id, f => f[0].GetProperty("ruleId").ValueKind == JsonValueKind.Number, "the rule");
        Browser.Until(() => Browser.Find(".fit-choice legend").Text.Contains("from Airy", StringComparison.Ordinal), "its source");
        Browser.Until(() => Browser.Find(".empty-label").Text.EndsWith("Airy", StringComparison.Ordinal), "the placeholder says its rule");
        Browser.Click(".more-fits option[value=Width]");
        Eventually(id, f => f[0].GetProperty("set").GetProperty("fit").GetString() == "width", "set here");
        Browser.Click("[data-do=clear]");
        Eventually(id, f => f[0].GetProperty("set").GetProperty("fit").ValueKind == JsonValueKind.Null, "cleared");
        Browser.Until(() => Browser.Find(".fit-choice legend").Text.Contains("from Airy", StringComparison.Ordinal), "inherited again");
        Browser.Click("#frame-rule option[value='']");
        Eventually(id, f => f[0].GetProperty("ruleId").ValueKind == JsonValueKind.Null, "no rule");
    }

    [Fact]
    public async Task A_file_dropped_on_a_placeholder_is_brought_in_and_placed_there()
    {
        int id = OpenDesk(await Server.NewPublicationAsync("Dropped", pages: 1, facing: false));
        Draw(id, (60, 60), (260, 260));
        using var folder = new TempFolder();
        using var picture = TestPictures.Quarters(300, 200);
        string content = Convert.ToBase64String(File.ReadAllBytes(TestPictures.Save(picture, folder["a.jpg"], 150)));
        Browser.Driver.ExecuteScript("""
            const data = new DataTransfer();
            data.items.add(new File([Uint8Array.from(atob(arguments[0]), c => c.charCodeAt(0))], 'dropped.jpg', { type: 'image/jpeg' }));
            const frame = document.querySelector('#frames .frame');
            for (const kind of ['dragover', 'drop']) frame.dispatchEvent(new DragEvent(kind, { dataTransfer: data, bubbles: true, cancelable: true }));
            """, content);
        Eventually(id, f => f[0].GetProperty("imageId").ValueKind == JsonValueKind.Number, "placed where it was dropped");
    }

    [Fact]
    public async Task A_folder_dropped_on_the_tray_gives_the_pictures_of_all_folders_in_it()
    {
        Directory.CreateDirectory(Pictures["drop/inner/deep"]);
        foreach (var (name, width) in new[] { ("a.jpg", 60), ("inner/b.jpg", 70), ("inner/deep/c.jpg", 80), (".hidden.jpg", 90) })
            File.WriteAllBytes(Pictures[$"drop/{name}"], ApiTests.Jpeg(width, 50));
        File.WriteAllText(Pictures["drop/inner/notes.txt"], "no picture");
        int id = OpenDesk(await Server.NewPublicationAsync("Dropped folder", pages: 1, facing: false));
        var table = Window(100, 100);
        // Through the browser's own way of dragging: a folder cannot be made up by script.
        foreach (string kind in new[] { "dragEnter", "dragOver", "drop" })
        {
            Browser.Driver.ExecuteCdpCommand("Input.dispatchDragEvent", new()
            {
                ["type"] = kind,
                ["x"] = table.X,
                ["y"] = table.Y,
                ["data"] = new Dictionary<string, object>
                {
                    ["items"] = Array.Empty<object>(),
                    ["files"] = new[] { Pictures["drop"] },
                    ["dragOperationsMask"] = 1
                }
            });
        }
        Browser.Until(() => Browser.Find("#intake-words").Text.Contains("3 of 4 came in", StringComparison.Ordinal), "the report");
        Browser.Find("#intake-problems").Text.ShouldContain("notes.txt");
        Browser.Click("#arrivals-card [data-into=Tray]");
        (await Server.GetAsync($"/api/publications/{id}")).GetProperty("images").EnumerateArray().Select(i => i.GetProperty("name").GetString()).Order()
            .ShouldBe(["a.jpg", "b.jpg", "c.jpg"]);
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("[data-tray]")).Count == 3, "all wait in the tray");
    }

    [Fact]
    public async Task A_folder_of_the_server_is_linked_from_the_page()
    {
        using (var picture = TestPictures.Quarters(300, 200)) TestPictures.Save(picture, Pictures["linked.png"], 150);
        int id = OpenDesk(await Server.NewPublicationAsync("Linked"));
        Browser.Click(".folder-link summary");
        Type("#folder", "/etc");
        Browser.Click("#folder-form button");
        Browser.Until(() => Browser.Find("#intake-words").Text.Contains("are open to linking", StringComparison.Ordinal), "the refusal");
        Type("#folder", Pictures.Path);
        Browser.Click("#folder-form button");
        Browser.Until(() => Browser.Has(".thumb") && Browser.Find(".thumb").Text.Contains("linked.png", StringComparison.Ordinal), "the linked picture");
        File.Exists(Pictures["linked.png"]).ShouldBeTrue();
    }

    [Fact]
    public async Task A_window_shows_what_was_done_elsewhere()
    {
        int id = OpenDesk(await Server.NewPublicationAsync("Shared", pages: 1, facing: false));
        Draw(id, (60, 60), (260, 260));
        int frame = (await FramesAsync(id))[0].GetProperty("id").GetInt32();
        using var answer = await Server.Client.PatchAsync($"/api/publications/{id}/frames/{frame}",
            new StringContent("""{"x":"40mm"}""", System.Text.Encoding.UTF8, "application/json"));
        answer.IsSuccessStatusCode.ShouldBeTrue();
        Browser.Until(() => Browser.Find("#frame-x").GetDomProperty("value") == "40", "this window shows the other's edit");
    }

    [Fact]
    public async Task No_screen_asks_the_network_or_complains_in_the_console()
    {
        int id = await Server.NewPublicationAsync();
        foreach (string address in new[] { "/", "/setup", $"/publications/{id}/setup", $"/publications/{id}/desk" })
        {
            Go(address);
            Browser.Find("main");
            var asked = Browser.Run<IReadOnlyCollection<object>>("return performance.getEntriesByType('resource').map(e => e.name)").Cast<string>();
            asked.ShouldAllBe(name => name.StartsWith(Server.Address, StringComparison.Ordinal));
        }
        Browser.Driver.Manage().Logs.GetLog(LogType.Browser).Select(l => l.Message).ShouldBeEmpty();
    }
}
