using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>Master pages made on the flatplan, arranged on the Desk, and followed by the pages based on them, in Chromium and by the automation
/// interface.</summary>
public sealed class MasterTests(Workplace place) : InBrowser(place)
{
    private async Task<JsonElement> MastersAsync(int id) => (await Server.GetAsync($"/api/publications/{id}")).GetProperty("masters");

    private List<JsonElement> On(int id, int page) => [.. FramesAsync(id).Result.Where(f => f.GetProperty("page").GetInt32() == page)];

    private Task<HttpResponseMessage> SendAsync(HttpMethod method, string address, object? body) =>
        Server.Client.SendAsync(new(method, address) { Content = body is null ? null : JsonContent.Create(body) });

    private async Task<JsonElement> PatchAsync(string address, object body)
    {
        var answer = await SendAsync(HttpMethod.Patch, address, body);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    private void Planned() => Browser.Until(() => !Browser.Has("#flatplan[aria-busy]"), "the flatplan has settled");

    private void Shown(string text, string what) => Browser.Until(() => Browser.Find("#spread")
        .GetAttribute("textContent")!.Contains(text, StringComparison.Ordinal), what);

    private void Choose(string css, string text)
    {
        Settled();
        Browser.Find(css).FindElements(By.TagName("option")).Single(o => o.Text == text).Click();
    }

    [Fact]
    public async Task A_master_is_made_filled_and_followed_by_its_pages()
    {
        int id = await Server.NewPublicationAsync("With masters", pages: 6);
        Go($"/publications/{id}/flatplan");
        Browser.Click("[popovertarget=make-master-card]");
        Type("#make-master-name", "Product page");
        Browser.Click("#make-master-card form button");
        Browser.Until(() => Browser.Has(".plan-master"), "the master is there");
        Planned();
        (await MastersAsync(id))[0].GetProperty("name").GetString().ShouldBe("Product page");

        // On the Desk, a placeholder on the right-hand page, and its number at the foot.
        Browser.Click(".plan-master .plan-picture");
        Browser.Find("#desk[data-ready]");
        Browser.Find(".where").Text.ShouldBe("Master Product page");
        Draw(id, (700, 100), (900, 260));
        Browser.Find("#inspector").Text.ShouldContain("to be filled on each page");
        var drawn = On(id, -1).Single();
        await Server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = -1,
            x = 100,
            y = 800,
            width = 200,
            height = 20,
            text = new { paragraphs = new[] { new { text = "Folio {page}" } } }
        });

        Go($"/publications/{id}/flatplan");
        Browser.Click(".plan-page[data-page='3']");
        Actions().KeyDown(Keys.Control).Click(Browser.Find(".plan-page[data-page='5']")).KeyUp(Keys.Control).Perform();
        Browser.Click("[data-base]:not([data-base=''])");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".plan-based")).Count == 2, "both pages say so");
        Planned();
        On(id, 3).Single().GetProperty("masterFrameId").GetInt32().ShouldBe(drawn.GetProperty("id").GetInt32());

        // The page shows its own number, and its placeholder as an ordinary frame.
        OpenDesk(id, 2);
        Shown("Folio 3", "the number of page 3");
        int own = On(id, 3).Single().GetProperty("id").GetInt32();
        Browser.Click($"#frame-{own}");
        Browser.Until(() => Browser.Has("#inspector .from-master"), "where it is from");
        Type("#frame-x", "50mm" + Keys.Enter);
        Browser.Until(() => Browser.Has("#inspector [data-do=follow-master]"), "it was changed here");
        Browser.Find("#inspector .from-master").Text.ShouldContain("changed here");

        // The master's width goes to both pages; the place of the moved one stays.
        await PatchAsync($"/api/publications/{id}/frames/{drawn.GetProperty("id").GetInt32()}", new { width = 150 });
        D(On(id, 3).Single(), "width").ShouldBe(150, 0.01);
        D(On(id, 3).Single(), "x").ShouldBe(50 * 72 / 25.4, 0.01);
        D(On(id, 5).Single(), "width").ShouldBe(150, 0.01);
        Browser.Click("#inspector [data-do=follow-master]");
        Frame(id, own, f => Math.Abs(D(f, "width") - 150) < 0.01 && Math.Abs(D(f, "x") - D(drawn, "x")) < 0.01, "as on the master again");
        Browser.Until(() => !Browser.Has("#inspector [data-do=follow-master]"), "nothing to follow any more");

        // Beside the spread, a page is taken off its master; undone, it is back.
        Browser.Send("#canvas", Keys.Escape);
        Choose("#master-of-3", "no master");
        Browser.Until(() => On(id, 3).Count == 0, "nothing of the master is left");
        Browser.Until(() => Browser.Has("#desk[data-ready]") && !Browser.Find("#spread").GetAttribute("textContent")!.Contains("Folio 3",
            StringComparison.Ordinal), "nor shown");
        Browser.Click("#undo");
        Browser.Until(() => On(id, 3).Count == 1, "undone");
        Shown("Folio 3", "shown again");
    }

    [Fact]
    public async Task A_master_made_like_a_page_takes_it_on_and_is_renamed_and_removed()
    {
        int id = await Server.NewPublicationAsync("Like a page", pages: 4);
        int[] filled = await FilledAsync(id, (60, 60, 200, 120), (60, 300, 200, 120));
        Go($"/publications/{id}/flatplan");
        Browser.Click(".plan-page[data-page='1']");
        Browser.Click("[popovertarget=make-master-card]");
        Type("#make-master-name", "Two");
        Browser.Click("#make-master-like");
        Browser.Click("#make-master-based");
        Browser.Click("#make-master-card form button");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".plan-based")).Count == 1, "page 1 is based on it");
        Planned();
        On(id, 1).Select(f => f.GetProperty("id").GetInt32()).Order().ToArray().ShouldBe(filled);
        On(id, 1).ShouldAllBe(f => f.GetProperty("masterFrameId").ValueKind == JsonValueKind.Number
            && f.GetProperty("imageId").ValueKind == JsonValueKind.Number);
        On(id, -2).Count.ShouldBe(2);

        // Pages to come are based on it.
        Choose("#add-master", "Two");
        Type("#add-count", "1");
        Browser.Click("[data-pages=add]");
        Browser.Until(() => On(id, 1).Count == 2 && On(id, 2).Count == 2, "a page of two placeholders before the first");
        Planned();

        Browser.Click(".plan-master [popovertarget]");
        Type(".master-card [name=name]", "Two of them");
        Browser.Click(".master-card form:first-child button");
        Browser.Until(() => Browser.Find(".plan-master-name").Text.StartsWith("Two of them", StringComparison.Ordinal), "renamed");
        Planned();
        Browser.Click(".plan-master [popovertarget]");
        Browser.Click(".master-card form:last-child button");
        Browser.Until(() => !Browser.Has(".plan-master"), "removed");
        Planned();
        var left = await FramesAsync(id);
        left.Select(f => f.GetProperty("id").GetInt32()).Order().ToArray().ShouldBe(filled, "The placed pictures stay, the empty placeholders go.");
        left.ShouldAllBe(f => f.GetProperty("masterFrameId").ValueKind == JsonValueKind.Null);
    }

    [Fact]
    public async Task A_rule_is_put_on_the_placeholders_of_a_master()
    {
        int id = await Server.NewPublicationAsync("Ruled masters", pages: 4);
        int master = (await Server.PostAsync($"/api/publications/{id}/masters", new { name = "Ruled" })).GetProperty("id").GetInt32();
        await Server.PostAsync($"/api/publications/{id}/frames", new { page = -2, x = 60, y = 60, width = 200, height = 120 });
        int rule = (await Server.PostAsync($"/api/publications/{id}/rules", new { name = "Whole", fit = "fit" })).GetProperty("id").GetInt32();
        await Server.PostAsync($"/api/publications/{id}/pages/base", new { pages = new[] { 2, 4 }, masterId = master });
        Go($"/publications/{id}/rules/{rule}");
        Browser.Click("[popovertarget=put-card]");
        Choose("#put-page", "master Ruled, left");
        Browser.Click("#put-card .btn-primary");
        Browser.Until(() => Browser.Has("#impact-sum"), "what it will do");
        Browser.Find("#impact-sum").Text.ShouldContain("3 empty placeholders", Case.Sensitive, "The master's own, and those of both its pages.");
        Browser.Click("#impact .btn-primary");
        Browser.Until(() => FramesAsync(id).Result.Count(f => f.GetProperty("ruleId").ValueKind == JsonValueKind.Number) == 3, "put on all");
    }

    [Fact]
    public async Task Programs_make_masters_and_are_told_what_cannot_be()
    {
        int id = await Server.NewPublicationAsync("By program", pages: 4);
        var made = await Server.PostAsync($"/api/publications/{id}/masters", new { name = "A" });
        (made.GetProperty("leftPage").GetInt32(), made.GetProperty("rightPage").GetInt32()).ShouldBe((-2, -1));
        int master = made.GetProperty("id").GetInt32();
        await Server.PostAsync($"/api/publications/{id}/frames", new { page = -2, x = 10, y = 10, width = 20, height = 20 });
        await Server.PostAsync($"/api/publications/{id}/pages", new { count = 2, before = 1, masterId = master });
        On(id, 2).Count.ShouldBe(1);
        On(id, 1).Count.ShouldBe(0, "Nothing stands on the right-hand page.");
        (await PatchAsync($"/api/publications/{id}/masters/{master}", new { name = "B" })).GetProperty("name").GetString().ShouldBe("B");

        (await SendAsync(HttpMethod.Post, $"/api/publications/{id}/masters", new { name = "b" })).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await SendAsync(HttpMethod.Post, $"/api/publications/{id}/pages/base", new
        {
            pages = new[] { 9 },
            masterId = master
        })).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await SendAsync(HttpMethod.Post, $"/api/publications/{id}/frames", new
        {
            page = -3,
            x = 0,
            y = 0,
            width = 9,
            height = 9
        })).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await SendAsync(HttpMethod.Delete, $"/api/publications/{id}/masters/{master}?instead={master}", null)).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await SendAsync(HttpMethod.Delete, $"/api/publications/{id}/masters/{master}", null)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await MastersAsync(id)).GetArrayLength().ShouldBe(0);
    }
}
