using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

public sealed class CheckTests(Workplace place) : InBrowser(place)
{
    private static readonly string[] Nothing = [];

    /// <summary>A page with a coarse picture, an empty placeholder, and text that does not fit.</summary>
    private async Task<(int Id, int Coarse, int Empty, int Text)> BeginAsync()
    {
        File.WriteAllBytes(Pictures["small.jpg"], ApiTests.Jpeg(300, 200));
        int id = await Server.NewPublicationAsync(pages: 1, facing: false);
        string at = $"/api/publications/{id}";
        int image = (await Server.PostAsync($"{at}/images/folder", new { folder = Pictures.Path, within = true })).EnumerateArray().First()
            .GetProperty("id").GetInt32();
        async Task<int> FrameAsync(object frame) => (await Server.PostAsync($"{at}/frames", frame)).GetProperty("id").GetInt32();
        int coarse = await FrameAsync(new { page = 1, x = 60, y = 60, width = 300, height = 200, imageId = image, name = "Vase" });
        int empty = await FrameAsync(new { page = 1, x = 60, y = 300, width = 120, height = 120 });
        int text = await FrameAsync(new { page = 1, x = 60, y = 500, width = 120, height = 30, kind = "text" });
        await Server.PostAsync($"{at}/stories", new { frames = new[] { text }, text = string.Join(' ', Enumerable.Repeat("clay and glaze", 20)) });
        return (id, coarse, empty, text);
    }

    private Task<JsonElement> CheckAsync(int id, string query = "") => Server.GetAsync($"/api/publications/{id}/check{query}");

    private static string[] Kinds(JsonElement check) => [.. check.GetProperty("findings").EnumerateArray()
        .Where(f => f.GetProperty("accepted").ValueKind == JsonValueKind.Null).Select(f => f.GetProperty("kind").GetString()!)];

    private void Open(int id, string query = "")
    {
        Browser.Driver.Navigate().GoToUrl($"{Server.Address}/publications/{id}/check{query}");
        Browser.Find("#check[data-ready]");
    }

    [Fact]
    public async Task A_program_reads_findings_mends_them_as_one_step_and_lets_some_be()
    {
        var (id, coarse, empty, text) = await BeginAsync();
        var found = await CheckAsync(id, "?profile=offset");
        Kinds(found).ShouldBe(["below-least-ppi", "text-left-over", "empty-placeholder"], ignoreOrder: true);
        var first = found.GetProperty("findings").EnumerateArray().Single(f => f.GetProperty("kind").GetString() == "below-least-ppi");
        first.GetProperty("id").GetString().ShouldBe($"belowLeastPpi-frame-{coarse}");
        first.GetProperty("page").GetInt32().ShouldBe(1);
        first.GetProperty("figures")[0].GetProperty("value").GetDouble().ShouldBe(72, 1e-6);
        first.GetProperty("remedy").GetString().ShouldBe("Hold back the enlargement");
        found.GetProperty("faults").GetInt32().ShouldBe(2);
        Kinds(await CheckAsync(id, "?profile=Office")).ShouldContain("below-least-ppi");
        Kinds(await CheckAsync(id, "?profile=screen")).ShouldNotContain("below-least-ppi");
        await ApiTests.RefusedAsync(await Server.Client.GetAsync($"/api/publications/{id}/check?profile=glaze"));

        var mended = await Server.PostAsync($"/api/publications/{id}/check/remedies", new
        {
            ids = new[] { $"emptyPlaceholder-frame-{empty}", $"textLeftOver-frame-{text}", "gone-frame-1" },
        });
        // Set smaller it would not fit, so that is no remedy.
        mended.GetProperty("mended").GetArrayLength().ShouldBe(2);
        mended.GetProperty("left").EnumerateArray().Select(l => l.GetProperty("id").GetString()).ShouldBe(["gone-frame-1"]);
        Kinds(await CheckAsync(id)).ShouldBe(["below-least-ppi"]);
        await Server.PostAsync($"/api/publications/{id}/undo", new { });
        Kinds(await CheckAsync(id)).ShouldContain("text-left-over");
        // Told for one of the ways, it is left where that is none.
        mended = await Server.PostAsync($"/api/publications/{id}/check/remedies", new
        {
            ids = new[] { $"emptyPlaceholder-frame-{empty}", $"textLeftOver-frame-{text}" },
            remedy = "remove",
        });
        mended.GetProperty("left").EnumerateArray().Select(l => l.GetProperty("id").GetString()).ShouldBe([$"textLeftOver-frame-{text}"]);

        var accepted = await Server.PostAsync($"/api/publications/{id}/check/accepted", new
        {
            ids = new[] { $"belowLeastPpi-frame-{coarse}" },
            reason = "Meant so"
        });
        Kinds(accepted).ShouldBe(["text-left-over"]);
        Kinds(await Server.PostAsync($"/api/publications/{id}/check/unaccepted", new { ids = new[] { $"belowLeastPpi-frame-{coarse}" } }))
            .ShouldContain("below-least-ppi");
    }

    [Fact]
    public async Task Every_screen_says_how_much_was_found_and_the_desk_where()
    {
        var (id, coarse, empty, _) = await BeginAsync();
        Browser.Driver.Navigate().GoToUrl($"{Server.Address}/publications/{id}/setup");
        Browser.Until(() => Browser.Find("[data-checksum]").Text.Contains("\u25b22", StringComparison.Ordinal), "the sum on Set-up");
        Browser.Driver.Navigate().GoToUrl($"{Server.Address}/publications/{id}/desk/1");
        Browser.Find("#desk[data-ready]");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("#findings text")).Any(t => t.Text.Contains("coarse 72 ppi", StringComparison.Ordinal)),
            "the mark on the page");
        Browser.Until(() => Browser.Find(".strip-item[aria-current]").GetDomAttribute("data-findings") == "\u25b23", "the sign on the strip");
        // What is mended elsewhere goes from the bar and the page by itself.
        await Server.PostAsync($"/api/publications/{id}/check/remedies", new { ids = new[] { $"emptyPlaceholder-frame-{empty}" } });
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("#findings text")).All(t => !t.Text.Contains("empty", StringComparison.Ordinal)),
            "gone");
        Browser.Click($"#frame-{coarse}");
        Browser.Until(() => Browser.Find(".frame-findings").Text.Contains("Below the least resolution", StringComparison.Ordinal), "said of the frame");
        Browser.Click(".frame-findings a");
        Browser.Until(() => Browser.Find("[data-shown]").GetDomAttribute("data-shown") == $"belowLeastPpi-frame-{coarse}", "the finding on Check");
        Browser.Driver.Navigate().GoToUrl($"{Server.Address}/publications/{id}/flatplan");
        Browser.Find(".plan-found").Text.ShouldContain("\u25b22");
        Browser.Driver.Navigate().GoToUrl($"{Server.Address}/publications/{id}/images");
        Browser.Until(() => Browser.Find(".thumb-state").Text.Contains("coarse", StringComparison.Ordinal), "said of the image");
        Browser.Driver.Navigate().GoToUrl(Server.Address);
        Browser.Find($".attention a[href='/publications/{id}/check']").Text.ShouldContain("Below the least resolution: 1");
    }

    [Fact]
    public async Task That_ink_is_not_measured_yet_is_said_until_it_is()
    {
        int id = await Server.NewPublicationAsync(pages: 2, facing: false);
        using var chosen = await Server.Client.PutAsJsonAsync($"/api/publications/{id}/check/profile", new { profile = "offset" });
        (await Server.Client.GetStringAsync($"/publications/{id}/check")).ShouldContain("The ink on 2 pages is not measured yet.");
        Browser.Driver.Navigate().GoToUrl($"{Server.Address}/publications/{id}/check");
        Browser.Until(() => Browser.Has("#check[data-ready]") && !Browser.Has("#ink-waits"), "measured");
    }

    [Fact]
    public async Task Marks_on_the_desk_are_not_written_over_each_other_at_any_scale()
    {
        int id = await Server.NewPublicationAsync(pages: 1, facing: false);
        for (int i = 0; i < 9; i++)
            await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 60 + i * 7.3, y = 60 + i * 3.7, width = 50, height = 50 });
        Browser.Driver.Navigate().GoToUrl($"{Server.Address}/publications/{id}/desk/1");
        Browser.Find("#desk[data-ready]");
        for (int step = 0; step < 4; step++)
        {
            Browser.Until(() => (bool)Browser.Driver.ExecuteScript("""
                const boxes = [...document.querySelectorAll('.finding-mark')].map(mark => mark.getBoundingClientRect());
                return boxes.length === 10 && boxes.every((a, i) => boxes.every((b, j) => i === j || a.right <= b.left || b.right <= a.left
                  || a.bottom <= b.top + 0.5 || b.bottom <= a.top + 0.5));
                """)!, $"apart after {step} steps");
            Press("-", "-");
        }
    }

    /// <summary>A spread of the flatplan leads to what was found on both of its pages.</summary>
    [Fact]
    public async Task The_list_is_narrowed_to_pages_by_the_numbers_they_bear()
    {
        int id = await Server.NewPublicationAsync(pages: 5, facing: true);
        for (int page = 1; page <= 4; page++) await Server.PostAsync($"/api/publications/{id}/frames", new { page, x = 60, y = 60, width = 50, height = 50 });
        int Rows() => Browser.Driver.FindElements(By.CssSelector(".check-row")).Count(row => row.Text.Contains("Page", StringComparison.Ordinal));
        Browser.Driver.Navigate().GoToUrl($"{Server.Address}/publications/{id}/flatplan");
        Browser.Click(".plan-found[href*='pages=2']");
        Browser.Find("#check[data-ready]");
        Browser.Find("#check-pages").GetDomProperty("value").ShouldBe("2\u20133");
        Rows().ShouldBe(2);
        Browser.Send("#check-pages", Keys.Control + "a" + Keys.Null + "1-3" + Keys.Enter);
        Browser.Until(() => Rows() == 3, "three pages");
        Browser.Send("#check-pages", Keys.Control + "a" + Keys.Null + "9" + Keys.Enter);
        Browser.Until(() => Browser.Find("#notices").Text.Contains("There is no page 9", StringComparison.Ordinal), "what is wrong with it");
        Rows().ShouldBe(3);
    }

    [Fact]
    public async Task Findings_are_stepped_through_mended_and_accepted_by_keys()
    {
        var (id, coarse, empty, text) = await BeginAsync();
        Open(id, "?by=Kind");
        Browser.Find("[data-shown]").GetDomAttribute("data-shown").ShouldBe($"belowLeastPpi-frame-{coarse}");
        Press(Keys.ArrowDown, Keys.ArrowDown);
        Browser.Until(() => Browser.Find("[data-shown]").GetDomAttribute("data-shown") == $"emptyPlaceholder-frame-{empty}", "two steps on");
        Press("m");
        Browser.Until(() => Browser.Find(".impact-sum").Text == "1 finding goes; no other comes.", "what the remedy does");
        Browser.Driver.FindElements(By.CssSelector(".remedy-pictures svg")).Count.ShouldBe(2);
        (await CheckAsync(id)).GetProperty("warnings").GetInt32().ShouldBe(1);
        Browser.Click("#apply");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".check-row")).Count == 2, "one row less");
        Browser.Until(() => Browser.Find("[data-shown]").GetDomAttribute("data-shown") == $"textLeftOver-frame-{text}", "the one before it");
        Press("a");
        Press("It runs on in the next number" + Keys.Enter);
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".check-row")).Count == 1, "accepted");
        var kept = (await CheckAsync(id)).GetProperty("findings").EnumerateArray().Single(f => f.GetProperty("kind").GetString() == "text-left-over");
        kept.GetProperty("accepted").GetProperty("reason").GetString().ShouldBe("It runs on in the next number");
        Browser.Click("[name=show][value=Accepted]");
        Browser.Until(() => Browser.Find("[data-shown]").GetDomAttribute("data-shown") == $"textLeftOver-frame-{text}", "among the accepted");
        Browser.Click("[data-take-up]");
        Browser.Until(() => Kinds(CheckAsync(id).GetAwaiter().GetResult()).Contains("text-left-over"), "it counts again");
        Browser.Send("body", Keys.Control + "z" + Keys.Null);
        Browser.Until(() => !Kinds(CheckAsync(id).GetAwaiter().GetResult()).Contains("text-left-over"), "undone");
    }

    [Fact]
    public async Task A_profile_of_ones_own_says_what_counts_and_a_recipe_asks_by_it()
    {
        var (id, _, _, _) = await BeginAsync();
        Open(id);
        Browser.Click("#open-profile");
        Browser.Send("#profile-LeastPpi", "60 ppi");
        Browser.Send("#profile-WantedPpi", "70");
        Browser.Click("#kind-TextLeftOver option[value=Off]");
        Browser.Click("#profile-form .btn-primary");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".check-row")).Count == 1, "only the placeholder counts");
        var found = await CheckAsync(id);
        found.GetProperty("profile").GetString().ShouldBe("My offset");
        Kinds(found).ShouldBe(["empty-placeholder"]);

        // Under Offset nothing leaves with faults before somebody says so.
        Browser.Driver.Navigate().GoToUrl($"{Server.Address}/publications/{id}/output/print");
        Browser.Find("#summary .quiet");
        Browser.Driver.FindElements(By.Id("sure")).ShouldBeEmpty();
        Browser.Click("#recipe-profile option[value=Offset]");
        Browser.Until(() => Browser.Find("#summary").Text.Contains("Make it all the same, with 2 faults", StringComparison.Ordinal), "asked before");
        Browser.Click("#make");
        Browser.Driver.FindElements(By.CssSelector(".output-item")).ShouldBeEmpty();
        Browser.Click("#sure");
        Browser.Click("#make");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".output-item")).Count == 1, "made all the same");
    }

    [Fact]
    public async Task All_of_a_kind_are_mended_at_once_and_files_that_changed_among_them()
    {
        var (id, _, _, _) = await BeginAsync();
        for (int i = 0; i < 3; i++)
            await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 300 + 40 * i, y = 600, width = 30, height = 30 });
        Open(id, "?by=Kind&kind=EmptyPlaceholder");
        Browser.Click("[data-all=EmptyPlaceholder]");
        Browser.Until(() => Browser.Find(".impact-sum").Text.StartsWith("4 findings go", StringComparison.Ordinal), "all four");
        Browser.Click("#apply");
        Browser.Until(() => !Kinds(CheckAsync(id).GetAwaiter().GetResult()).Contains("empty-placeholder"), "mended");
        Browser.Click("#undo:enabled");
        Browser.Until(() => Kinds(CheckAsync(id).GetAwaiter().GetResult()).Count(k => k == "empty-placeholder") == 4, "one undo");

        File.WriteAllBytes(Pictures["small.jpg"], ApiTests.Jpeg(3000, 2000));
        Browser.Until(() => Kinds(CheckAsync(id).GetAwaiter().GetResult()).Contains("link-changed"), "the change is seen");
        var changed = (await CheckAsync(id)).GetProperty("findings").EnumerateArray().Single(f => f.GetProperty("kind").GetString() == "link-changed");
        await Server.PostAsync($"/api/publications/{id}/check/remedies", new { ids = new[] { changed.GetProperty("id").GetString() } });
        Kinds(await CheckAsync(id)).Intersect(["link-changed", "below-least-ppi"]).ShouldBe(Nothing);
    }

    [Fact]
    public async Task What_changed_since_a_step_or_an_edition_is_shown_side_by_side_and_laid_over()
    {
        var (id, coarse, empty, _) = await BeginAsync();
        int edition = (await Server.PostAsync($"/api/publications/{id}/editions", new { name = "Test", edition = "2", keepPictures = true })).GetProperty("id")
            .GetInt32();
        (await Server.Client.PatchAsJsonAsync($"/api/publications/{edition}/frames/{coarse}", new { x = 90 })).EnsureSuccessStatusCode();
        await Server.PostAsync($"/api/publications/{edition}/check/remedies", new { ids = new[] { $"emptyPlaceholder-frame-{empty}" } });
        var told = (await Server.GetAsync($"/api/publications/{edition}/compare?with=publication-{id}")).EnumerateArray()
            .Select(d => d.GetProperty("words").GetString()).ToList();
        told.ShouldContain(words => words!.StartsWith("Moved. 10.583 mm to the right", StringComparison.Ordinal));
        told.ShouldContain("Went.");
        (await Server.GetAsync($"/api/publications/{edition}/compare?with=step-0")).GetArrayLength().ShouldBe(2);
        await ApiTests.RefusedAsync(await Server.Client.GetAsync($"/api/publications/{id}/compare?with=yesterday"));

        Open(edition);
        Browser.Click("#to-compare");
        Browser.Click($"#with option[value=publication-{id}]");
        Browser.Until(() => Browser.Has(".compare-sum") && Browser.Find(".compare-sum").Text.Contains("on 1 page", StringComparison.Ordinal), "compared");
        Browser.Driver.FindElements(By.CssSelector(".compare-pair svg")).Count.ShouldBe(2);
        // Each has marked what differs on it: before, the frame that went too.
        Browser.Driver.FindElements(By.CssSelector("figure:first-child .place-mark")).Count.ShouldBeGreaterThan(
            Browser.Driver.FindElements(By.CssSelector("figure + figure .place-mark")).Count);
        Browser.Click("[name=view][value=over]");
        Browser.Until(() => Browser.Find(".compare-main").GetDomAttribute("data-view") == "over", "laid over");
        Browser.Find(".compare-list a").Click();
        Browser.Until(() => Browser.Has("#desk[data-ready]"), "where it is");
    }
}
