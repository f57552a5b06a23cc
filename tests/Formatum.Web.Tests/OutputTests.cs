using System.IO.Compression;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>Output: recipes chosen and kept, outputs made, fetched, stopped and kept, the printer's profile.</summary>
public sealed class OutputTests(Workplace place) : InBrowser(place)
{
    private static readonly Lazy<byte[]> PressProfile = new(() => NetVips.Image.ProfileLoad("cmyk")),
        ScreenProfile = new(() => NetVips.Image.ProfileLoad("srgb"));

    private async Task<JsonElement> EndedAsync(int id, string output)
    {
        JsonElement now = default;
        for (int i = 0; i < 900; i++)
        {
            now = await Server.GetAsync($"/api/publications/{id}/outputs/{output}");
            if (now.GetProperty("state").GetString() is not ("waiting" or "making")) return now;
            await Task.Delay(50);
        }
        throw new TimeoutException($"The output does not end: {now}");
    }

    private async Task<JsonElement> MadeAsync(int id, object wish) =>
        await EndedAsync(id, (await Server.PostAsync($"/api/publications/{id}/outputs", wish)).GetProperty("id").GetString()!);

    private async Task<byte[]> FileAsync(JsonElement output) => await Server.Client.GetByteArrayAsync(output.GetProperty("file").GetString());

    [Fact]
    public async Task A_person_changes_a_recipe_makes_an_output_and_fetches_it()
    {
        int id = await Server.NewPublicationAsync("Night shift", pages: 4);
        await FilledAsync(id, (60, 60, 200, 120));
        Go($"/publications/{id}/desk");
        Browser.Driver.FindElement(By.LinkText("Output")).Click();
        Browser.Until(() => Browser.Has("#output"), "the screen");
        Browser.Find(".output-name").Text.ShouldBe("Night shift.pdf");
        Browser.Click("[name=Crop]");
        Browser.Send("#pages", "9-2");
        Browser.Until(() => Browser.Find("#error-pages").Text.Contains("Write 2-9", StringComparison.Ordinal), "the field says what is wrong");
        Browser.Send("#pages", Keys.Control + "a" + Keys.Null + "2-3");
        // Made at once, without waiting for what it would come to.
        Browser.Click("#make");
        Browser.Until(() => Browser.Has(".output-item[data-state=Done]"), "made");
        Browser.Until(() => Browser.Find(".output-facts").Text.StartsWith("2 pages", StringComparison.Ordinal), "what it comes to");
        var made = (await Server.GetAsync($"/api/publications/{id}/outputs"))[0];
        string path = Pictures["made.pdf"];
        await File.WriteAllBytesAsync(path, await Server.Client.GetByteArrayAsync(Browser.Find(".output-file a").GetAttribute("href")));
        Tool.Run("qpdf", "--check", path).ShouldContain("No syntax");
        Tool.Run("pdfinfo", path).ShouldMatch(@"Pages:\s+2");
        made.GetProperty("recipe").GetProperty("marks").GetProperty("crop").GetBoolean().ShouldBeTrue();
        Browser.Click(".output-item [data-drop]");
        Browser.Until(() => !Browser.Has(".output-item"), "removed");
        (await Server.GetAsync($"/api/publications/{id}/outputs")).GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task Every_recipe_makes_a_publication_in_which_a_spot_ink_is_used()
    {
        int id = await Server.NewPublicationAsync("Spot", pages: 1, facing: false);
        (await Server.Client.PutAsJsonAsync($"/api/publications/{id}/palette", new object[] { new { name = "Celadon", spot = true,
            cmyk = new[] { 0.4, 0, 0.2, 0 } } })).EnsureSuccessStatusCode();
        await Server.PostAsync($"/api/publications/{id}/frames",
            new { page = 1, x = 60, y = 60, width = 200, height = 120, look = new { background = "Celadon" } });
        foreach (var recipe in (await Server.GetAsync($"/api/publications/{id}/recipes")).EnumerateArray())
        {
            string name = recipe.GetProperty("recipe").GetProperty("name").GetString()!;
            var made = await MadeAsync(id, new { recipe = name });
            made.GetProperty("state").GetString().ShouldBe("done", $"{name}: {made}");
        }
        // By the button too, which keeps a note of it over a restart.
        Go($"/publications/{id}/output");
        Browser.Click("#make");
        Browser.Until(() => Browser.Has(".output-item[data-state=Done]"), "made");
    }

    [Fact]
    public async Task What_is_typed_is_kept_as_a_recipe_for_one_or_for_the_house()
    {
        int id = await Server.NewPublicationAsync("Keeps recipes", pages: 2), other = await Server.NewPublicationAsync("Has them too", pages: 2);
        string house = $"House {Guid.NewGuid():n}"[..20];
        Go($"/publications/{id}/output/print");
        Browser.Send("#most-ppi", "220");
        Browser.Click("[popovertarget=keep-card]");
        Browser.Send("#keep-name", "Newspaper" + Keys.Enter);
        Browser.Until(() => Browser.Find(".rule-item[aria-current] .rule-name").Text == "Newspaper", "kept and chosen");
        Browser.Find("#most-ppi").GetAttribute("value").ShouldBe("220");
        Browser.Send("#most-ppi", Keys.Control + "a" + Keys.Null + "180");
        Browser.Click("[popovertarget=keep-card]");
        Browser.Click("#keep-form [name=house][value=true]");
        Browser.Send("#keep-name", Keys.Control + "a" + Keys.Null + house + Keys.Enter);
        Browser.Until(() => Browser.Find(".rule-item[aria-current] .rule-name").Text == house, "kept for the house");
        var all = (await Server.GetAsync($"/api/publications/{other}/recipes")).EnumerateArray().ToList();
        all.Select(r => r.GetProperty("recipe").GetProperty("name").GetString()).ShouldContain(house);
        all.ShouldNotContain(r => r.GetProperty("recipe").GetProperty("name").GetString() == "Newspaper");
        Go($"/publications/{id}/output");
        Browser.Until(() => Browser.Has("#undo:enabled"), "undo");
        Browser.Click("#undo");
        Browser.Until(() => Server.GetAsync($"/api/publications/{id}/recipes").Result.EnumerateArray()
            .All(r => r.GetProperty("recipe").GetProperty("name").GetString() != "Newspaper"), "taken back");
    }

    [Fact]
    public async Task A_recipe_goes_elsewhere_as_a_file()
    {
        int id = await Server.NewPublicationAsync("From", pages: 2), other = await Server.NewPublicationAsync("To", pages: 2);
        var made = await Server.PostAsync($"/api/publications/{id}/recipes", new
        {
            name = "Flyer",
            kind = "print",
            bleed = true,
            marks = new { crop = true, bars = true, offset = "4mm" },
            quality = 80,
        });
        var file = await Server.GetAsync($"/api/publications/{id}/recipes/{made.GetProperty("key").GetString()}");
        file.GetProperty("marks").GetProperty("offset").GetDouble().ShouldBe(11.339, 0.001);
        await Server.PostAsync($"/api/publications/{other}/recipes", file);
        (await Server.GetAsync($"/api/publications/{other}/recipes/flyer")).ToString().ShouldBe(file.ToString());

        Go($"/publications/{id}/output/screen");
        await File.WriteAllTextAsync(Pictures["flyer.json"], file.ToString().Replace("Flyer", "Flyer again", StringComparison.Ordinal));
        Browser.Driver.FindElement(By.Id("recipe-file")).SendKeys(Pictures["flyer.json"]);
        Browser.Until(() => Browser.Find(".rule-item[aria-current] .rule-name").Text == "Flyer again", "taken from the file");
        await File.WriteAllTextAsync(Pictures["no.json"], "{\"name\":3}");
        Browser.Driver.FindElement(By.Id("recipe-file")).SendKeys(Pictures["no.json"]);
        Browser.Until(() => Browser.Find("#notices").Text.Contains("The recipe was not taken", StringComparison.Ordinal), "refused in words");
    }

    [Fact]
    public async Task A_book_is_made_for_reading_programs()
    {
        int id = await Server.NewPublicationAsync("To be read", pages: 4);
        await FilledAsync(id, (60, 60, 200, 120));
        Go($"/publications/{id}/output");
        Browser.Driver.FindElement(By.PartialLinkText("Book")).Click();
        Browser.Until(() => Browser.Has(".output-name") && Browser.Find(".output-name").Text == "To be read.epub", "what it makes");
        Browser.Has("#imposition").ShouldBeFalse();
        Browser.Send("#quality", Keys.Control + "a" + Keys.Null + "70");
        Browser.Click("#make");
        Browser.Until(() => Browser.Has(".output-item[data-state=Done]"), "made");
        var made = (await Server.GetAsync($"/api/publications/{id}/outputs"))[0];
        made.GetProperty("recipe").GetProperty("quality").GetInt32().ShouldBe(70);
        using var answer = await Server.Client.GetAsync(made.GetProperty("file").GetString());
        answer.Content.Headers.ContentType!.MediaType.ShouldBe("application/epub+zip");
        using var zip = new ZipArchive(await answer.Content.ReadAsStreamAsync());
        zip.Entries.Count(e => e.FullName.StartsWith("EPUB/pages/", StringComparison.Ordinal)).ShouldBe(4);
        using var refused = await Server.Client.GetAsync($"/api/publications/{id}/output.pdf?recipe=book");
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }

    [Fact]
    public async Task Pictures_of_pages_and_files_of_each_come_in_a_ZIP()
    {
        int id = await Server.NewPublicationAsync("Pages", pages: 4);
        await FilledAsync(id, (60, 60, 200, 120));
        foreach (var (kind, ending) in new[] { ("png", ".png"), ("jpeg", ".jpg"), ("webp", ".webp"), ("svg", ".svg") })
        {
            var output = await MadeAsync(id, new { recipe = "pictures", settings = new { file = kind, ppi = 72, spreads = true } });
            output.GetProperty("fileName").GetString().ShouldBe("Pages.zip");
            using var zip = new ZipArchive(new MemoryStream(await FileAsync(output)));
            zip.Entries.Select(e => e.Name).ShouldBe(["Pages 1" + ending, "Pages 2-3" + ending, "Pages 4" + ending]);
            string path = Pictures["page" + ending];
            zip.Entries[1].ExtractToFile(path, overwrite: true);
            using var picture = NetVips.Image.NewFromFile(path);
            // Two A4 pages side by side: 1190.55 x 841.89 points; SVGs are drawn at 72 to the inch.
            (picture.Width, picture.Height).ShouldBe((1191, 842));
        }
        var each = await MadeAsync(id, new { recipe = "print", pages = "2-4", settings = new { oneFileEach = true, filePattern = "{page} {publication}" } });
        using var files = new ZipArchive(new MemoryStream(await FileAsync(each)));
        files.Entries.Select(e => e.Name).ShouldBe(["2 Pages.pdf", "3 Pages.pdf", "4 Pages.pdf"]);
    }

    [Fact]
    public async Task The_newest_ten_are_kept_and_survive_a_restart_and_half_ones_are_told()
    {
        using var server = new TestServer();
        int id = await server.NewPublicationAsync("Again and again", pages: 1, facing: false);
        async Task<List<JsonElement>> All() => [.. (await server.GetAsync($"/api/publications/{id}/outputs")).EnumerateArray()];
        bool Ended(IEnumerable<JsonElement> all) => all.All(o => o.GetProperty("state").GetString() == "done");
        for (int i = 0; i < 12; i++)
        {
            await server.PostAsync($"/api/publications/{id}/outputs", new { recipe = "print" });
            Browser.Until(() => Ended(All().Result), "made");
        }
        var kept = await All();
        kept.Count.ShouldBe(10);
        Directory.GetFiles(Path.Combine(server.DataFolder, "outputs"), "*.out", SearchOption.AllDirectories).Length.ShouldBe(10);
        // One that takes long, and the server is killed amid it.
        await server.PostAsync($"/api/publications/{id}/outputs", new { recipe = "pictures", settings = new { ppi = 1200 } });
        server.Kill();
        server.StartAgain();
        var after = await All();
        after.Count(o => o.GetProperty("state").GetString() == "done").ShouldBeGreaterThanOrEqualTo(9);
        var half = after.Single(o => o.GetProperty("id").GetString() is var name && kept.All(k => k.GetProperty("id").GetString() != name));
        half.GetProperty("error").GetString()!.ShouldContain("Make it again");
        Directory.GetFiles(Path.Combine(server.DataFolder, "outputs"), "*.half*", SearchOption.AllDirectories).ShouldBeEmpty();
        (await server.Client.GetByteArrayAsync(after.First(o => o.GetProperty("state").GetString() == "done").GetProperty("file").GetString())).Length
            .ShouldBeGreaterThan(1000);
    }

    [Fact]
    public async Task A_page_does_not_wait_for_a_whole_book_and_books_wait_for_each_other()
    {
        using var server = new TestServer("--heavy", "2");
        int id = await server.NewPublicationAsync("Queue", pages: 9, facing: false);
        async Task<string> BegunAsync(object wish) => (await server.PostAsync($"/api/publications/{id}/outputs", wish)).GetProperty("id").GetString()!;
        async Task<string> StateAsync(string output) =>
            (await server.GetAsync($"/api/publications/{id}/outputs/{output}")).GetProperty("state").GetString()!;
        object book = new { recipe = "pictures", settings = new { ppi = 1200 } };
        string[] books = [await BegunAsync(book), await BegunAsync(book)];
        Browser.Until(() => StateAsync(books[0]).Result == "making" || StateAsync(books[1]).Result == "making", "a book is under way");
        string page = await BegunAsync(new { recipe = "proof", pages = "1" });
        Browser.Until(() => StateAsync(page).Result == "done", "the page is made");
        string[] states = [await StateAsync(books[0]), await StateAsync(books[1])];
        states.Order().ShouldBe(["making", "waiting"]);
        foreach (string output in books) await server.Client.DeleteAsync($"/api/publications/{id}/outputs/{output}");
    }

    [Fact]
    public async Task What_cannot_be_made_is_told_and_others_go_on()
    {
        int id = await Server.NewPublicationAsync("Half way", pages: 2);
        Directory.CreateDirectory(Pictures["work"]);
        using (var quarters = TestPictures.Quarters(300, 200)) TestPictures.Save(quarters, Pictures["work/quarters.jpg"], 300);
        await Server.PostAsync($"/api/publications/{id}/images/folder", new { folder = Pictures["work"], within = true });
        int image = (await Server.GetAsync($"/api/publications/{id}")).GetProperty("images")[0].GetProperty("id").GetInt32();
        await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 60, y = 60, width = 200, height = 120, imageId = image });
        File.Delete(Pictures["work/quarters.jpg"]);
        var failed = await MadeAsync(id, new { recipe = "print" });
        failed.GetProperty("state").GetString().ShouldBe("failed");
        failed.GetProperty("error").GetString()!.ShouldContain("quarters.jpg");
        (await MadeAsync(id, new { recipe = "proof" })).GetProperty("state").GetString().ShouldBe("done");
        (await MadeAsync(id, new { recipe = "print", pages = "2" })).GetProperty("state").GetString().ShouldBe("done");
        foreach (object wish in new object[]
                 {
                     new { recipe = "print", pages = "9-2, x" }, new { recipe = "none" }, new { recipe = "print",
                         settings = new { filePattern = "../{publication}" } },
                     new { recipe = "pictures", settings = new { ppi = 5 } }, new { recipe = "print", settings = new { marks = new { offset = -4 } } },
                 })
        {
            using var refused = await Server.Client.PostAsJsonAsync($"/api/publications/{id}/outputs", wish);
            ((int)refused.StatusCode).ShouldBeInRange(400, 404);
        }
        // Stopped while it is made, or waits: no file of it is left.
        var under = await Server.PostAsync($"/api/publications/{id}/outputs", new { recipe = "pictures", settings = new { ppi = 600, proof = true } });
        string output = under.GetProperty("id").GetString()!;
        await Server.Client.DeleteAsync($"/api/publications/{id}/outputs/{output}");
        using var gone = await Server.Client.GetAsync($"/api/publications/{id}/outputs/{output}/file");
        (gone.StatusCode is HttpStatusCode.NotFound).ShouldBeTrue();
    }

    [Fact]
    public async Task A_spread_is_seen_as_printed_and_the_pointer_says_how_much_ink_lies_there()
    {
        int id = await Server.NewPublicationAsync("Inked", pages: 4);
        await Server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = 2,
            x = 0,
            y = 0,
            width = 596,
            height = 842,
            look = new { background = new { cmyk = new[] { 1, 0.5, 0, 0.2 } } },
        });
        Go($"/publications/{id}/output");
        Browser.Driver.FindElement(By.LinkText("See it as printed")).Click();
        Browser.Until(() => Browser.Has("#printed"), "the screen");
        Browser.Click("#next");
        Browser.Until(() => Browser.Find(".printed-steps span").Text == "Pages 2\u20133", "the next spread");
        Browser.Until(() => Browser.Run<bool>("return document.getElementById('picture').complete && document.getElementById('picture').naturalWidth > 100"),
            "the picture");
        Browser.Until(() => Browser.Find("#sum").Text.Contains("170 %", StringComparison.Ordinal), "how much in all");
        var picture = Browser.Find("#picture");
        Actions().MoveToElement(picture, -picture.Size.Width / 4, 0).Perform();
        Browser.Until(() => Browser.Find("#under").Text == "C 100  M 50  Y 0  K 20: 170 %", "the ink under the pointer");
        Actions().MoveToElement(picture, picture.Size.Width / 4, 0).Perform();
        Browser.Until(() => Browser.Find("#under").Text == "C 0  M 0  Y 0  K 0: 0 %", "bare paper");
        Browser.Click("[name=show][value=ink]");
        Browser.Until(() => Browser.Has("#most-mark:not([hidden])"), "where the most lies");
        using var none = await Server.Client.GetAsync($"/api/publications/{id}/spreads/9/printed.png");
        none.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        using var other = await Server.Client.GetAsync($"/api/publications/{id}/spreads/1/printed.png?show=nothing");
        other.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }

    [Fact]
    public async Task A_booklets_sheets_are_seen_before_they_are_made()
    {
        int id = await Server.NewPublicationAsync("Stitched", pages: 6);
        Go($"/publications/{id}/output");
        Browser.Click("#imposition option[value=Booklet]");
        Browser.Send("#sheet", "A4");
        Browser.Until(() => Browser.Find("#error-sheet").Text.Contains("The pages need", StringComparison.Ordinal), "two A4 pages do not lie on A4");
        Browser.Send("#sheet", Keys.Control + "a" + Keys.Null + "450 mm x 320 mm");
        // Looked at without waiting for anything.
        Browser.Click("#see-sheets");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".sheet-side")).Count == 4, "both sides of two sheets");
        Browser.Find("#sheets-card p").Text.ShouldBe("2 sheets, each 450 mm x 320 mm; 2 blank pages added at the end, which the fold asks for.");
        string.Join(", ", Browser.Driver.FindElements(By.CssSelector(".sheet-side")).Select(s => string.Join(' ',
            s.FindElements(By.CssSelector(".sheet-cell span")).Select(c => c.Text)))).ShouldBe("blank 1, 2 blank, 6 3, 4 5");
        Browser.Send("body", Keys.Escape);
        Browser.Click("#make");
        Browser.Until(() => Browser.Has(".output-item[data-state=Done]"), "made");
        Browser.Until(() => Browser.Find(".output-facts").Text.StartsWith("6 pages on 2 sheets", StringComparison.Ordinal), "what it comes to");
        await File.WriteAllBytesAsync(Pictures["b.pdf"], await Server.Client.GetByteArrayAsync(Browser.Find(".output-file a").GetAttribute("href")));
        Tool.Run("pdfinfo", Pictures["b.pdf"]).ShouldMatch(@"Pages:\s+4");
        var made = await Server.PostAsync($"/api/publications/{id}/recipes", new
        {
            name = "In fours",
            kind = "print",
            imposition = new { kind = "cut-and-stack", across = 2, down = 2, gutter = "5mm" },
        });
        made.GetProperty("recipe").GetProperty("imposition").GetProperty("kind").GetString().ShouldBe("cut-and-stack");
    }

    private static MultipartFormDataContent Form(byte[] file, string name) => new() { { new ByteArrayContent(file), "file", name } };

    [Fact]
    public async Task Only_profiles_of_presses_are_taken()
    {
        byte[] Changed(Action<byte[]> change)
        {
            byte[] copy = [.. PressProfile.Value];
            change(copy);
            return copy;
        }
        (byte[] File, string Words)[] bad =
        [
            ([], "no ICC profile"), ("words, and no profile at all"u8.ToArray(), "no ICC profile"), (ScreenProfile.Value, "of a screen"),
            (Changed(p => "scnr"u8.CopyTo(p.AsSpan(12))), "scanner"), (Changed(p => p[8] = 5), "version 5"),
            // More tags than the file has room for; tags that lie outside it; a size that is another.
            (Changed(p => p.AsSpan(128, 4).Fill(0xFF)), "damaged"), (Changed(p => p.AsSpan(136, 8).Fill(0x7F)), "damaged"),
                (PressProfile.Value[..2000], "damaged"),
            // Whole by its tags, and rubbish within them.
            (Changed(p => p.AsSpan(600).Fill(0xA5)), "profile"),
        ];
        foreach (var (file, words) in bad)
        {
            using var form = Form(file, "p.icc");
            using var answer = await Server.Client.PostAsync("/api/profiles", form);
            answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, words);
            (await answer.Content.ReadAsStringAsync()).ShouldContain(words);
        }
    }

    [Fact]
    public async Task The_printers_profile_is_brought_in_chosen_and_goes_into_the_file()
    {
        int id = await Server.NewPublicationAsync("For a press", pages: 2);
        // Another profile than the general one, by a byte of its header that means nothing (its date).
        byte[] own = [.. PressProfile.Value];
        own[27] ^= 1;
        await File.WriteAllBytesAsync(Pictures["press.icc"], own);
        await File.WriteAllTextAsync(Pictures["no.icc"], "no profile");
        Go($"/publications/{id}/output");
        Browser.Driver.FindElement(By.Id("profile-file")).SendKeys(Pictures["no.icc"]);
        Browser.Until(() => Browser.Find("#notices").Text.Contains("no ICC profile", StringComparison.Ordinal), "refused in words");
        Browser.Send("#most-ppi", "210");
        Browser.Click("[name=Bars]");
        Browser.Driver.FindElement(By.Id("profile-file")).SendKeys(Pictures["press.icc"]);
        Browser.Until(() => (Server.GetAsync($"/api/publications/{id}/recipes").Result.GetArrayLength() > 0)
            && Browser.Find("#press option:checked").Text != "four inks in general", "chosen");
        const string Typed = "return document.getElementById('most-ppi')?.value === '210' && document.querySelector('[name=Bars]').checked && " +
            "!document.querySelector('[name=Crop]').checked";
        Browser.Until(() => Browser.Run<bool>(Typed), "what was typed is still there");
        var output = await MadeAsync(id, new { recipe = "print" });
        await File.WriteAllBytesAsync(Pictures["press.pdf"], await FileAsync(output));
        using var json = JsonDocument.Parse(Tool.Run("qpdf", "--json=2", "--json-stream-data=inline", "--decode-level=generalized", Pictures["press.pdf"]));
        json.RootElement.GetProperty("qpdf")[1].EnumerateObject().Where(o => o.Value.TryGetProperty("stream", out _))
            .Select(o => Convert.FromBase64String(o.Value.GetProperty("stream").GetProperty("data").GetString()!))
            .ShouldContain(d => d.SequenceEqual(own));
        Browser.Click("#undo");
        Browser.Until(() => Browser.Find("#press option:checked").Text == "four inks in general", "taken back");
        Browser.Until(() => Browser.Run<bool>(Typed), "and what was typed stays");
    }
}
