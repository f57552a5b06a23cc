using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>Pages added, moved, copied and removed on the flatplan, in Chromium.</summary>
public sealed class FlatplanTests(Workplace place) : InBrowser(place)
{
    private int _id;

    private string Names() => string.Concat(Server.GetAsync($"/api/publications/{_id}").Result.GetProperty("pages").EnumerateArray()
        .Select(p => FramesAsync(_id).Result.FirstOrDefault(f => f.GetProperty("page").GetInt32() == p.GetProperty("number").GetInt32()))
        .Select(f => f.ValueKind == System.Text.Json.JsonValueKind.Undefined ? "-" : f.GetProperty("name").GetString()));

    private void Until(string names, string what)
    {
        Browser.Until(() => Names() == names, what);
        Browser.Until(() => !Browser.Has("#flatplan[aria-busy]") && Browser.Driver.FindElements(By.CssSelector(".plan-page")).Count == names.Length,
            "it is shown");
    }

    private IWebElement Page(int number) => Browser.Find($".plan-page[data-page='{number}']");

    private (int X, int Y) At(int number, double across)
    {
        var page = Page(number);
        return (page.Location.X + (int)(page.Size.Width * across), page.Location.Y + 40);
    }

    [Fact]
    public async Task Pages_are_drawn_to_another_place_added_copied_removed_and_all_of_it_undone()
    {
        _id = await Server.NewPublicationAsync("Planned", pages: 6);
        for (int page = 1; page <= 6; page++)
            await Server.PostAsync($"/api/publications/{_id}/frames", new { page, x = 50, y = 50, width = 50 * page, height = 100, name = $"{page}" });
        Go($"/publications/{_id}/flatplan");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".plan-picture svg")).Count == 4, "the miniatures");
        Browser.Driver.FindElements(By.CssSelector(".plan-folios a")).Select(a => a.Text).ShouldBe(["1", "2", "3", "4", "5", "6"]);

        Drag(At(2, 0.5), At(5, 0.8));
        Until("134526", "page 2 after page 5");
        Page(5).GetAttribute("aria-pressed").ShouldBe("true");
        // Several at once, chosen with Shift, to the front.
        Page(2).Click();
        Actions().KeyDown(Keys.Shift).Click(Page(3)).KeyUp(Keys.Shift).Perform();
        Browser.Find("#plan-words").Text.ShouldBe("2 pages chosen");
        Drag(At(2, 0.5), At(1, 0.2));
        Until("341526", "both first");

        Browser.Click("[data-pages=duplicate]");
        Until("34341526", "copied");
        Press(Keys.Delete);
        Browser.Until(() => Browser.Find("#remove-pages-words").Text == "2 empty frames", "what goes with them is said");
        Browser.Click("#remove-pages");
        Until("341526", "the copies removed");
        Type("#add-count", "3");
        Browser.Click("[data-pages=add]");
        Until("341526---", "three blank ones at the end");
        for (int i = 0; i < 5; i++)
        {
            string before = Names();
            Browser.Click("#undo");
            Browser.Until(() => Names() != before, "undone");
            Browser.Until(() => !Browser.Has("#flatplan[aria-busy]"), "shown");
        }
        Until("123456", "as at first");
    }

    [Fact]
    public async Task A_publication_keeps_a_page_and_opens_on_the_desk_from_here()
    {
        _id = await Server.NewPublicationAsync("Short", pages: 2);
        Go($"/publications/{_id}/flatplan");
        Browser.Find(".plan-page");
        Browser.Send("body", Keys.Control + "a");
        Browser.Click("[data-pages=remove]");
        Browser.Until(() => Browser.Has(".notice") && Browser.Find(".notice").Text.Contains("at least one page", StringComparison.Ordinal), "the refusal");
        Browser.Driver.FindElements(By.CssSelector(".plan-folios a"))[1].Click();
        Browser.Find("#desk[data-ready]");
        Browser.Find("#page-field").GetDomProperty("value").ShouldBe("2");
    }
}
