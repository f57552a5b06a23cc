using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>From spread to spread: another one is shown in place of the one there is, and everything about the Desk follows.</summary>
public sealed class TurnTests(Workplace place) : InBrowser(place)
{
    /// <summary>All that depends on the spread, but for what only the window itself knows; the pictures of the strip come as they are seen.</summary>
    private string Shown() => Browser.Run<string>("""
        const parts = ['spread', 'typing', 'spreads', 'inspector', 'history', 'tray', 'sheet', 'output-button', 'grid-page']
          .map(id => document.getElementById(id).cloneNode(true));
        for (const part of parts) {
          for (const own of part.querySelectorAll('.frame-findings, template, #grips > *, #findings > *')) own.remove();
          for (const name of ['class', 'style', 'data-box']) part.removeAttribute(name);
          // Attributes in one order: it says nothing.
          for (const e of [part, ...part.querySelectorAll('*')]) {
            const all = [...e.attributes].sort((a, b) => (a.name < b.name ? -1 : 1));
            for (const one of all) e.removeAttributeNode(one);
            for (const one of all) e.setAttributeNode(one);
          }
        }
        const current = [...document.querySelectorAll('.strip-item[aria-current]')].map(item => item.href);
        return parts.map(p => p.outerHTML.replace(/\s+/g, ' ').replaceAll('><', '>\n<')).concat(current, location.pathname).join('\n');
        """);

    /// <summary>Does what leads to a spread: without the page being loaded, it shows what it shows when it is opened there.</summary>
    private void Leads(string what, int spread, Action turn)
    {
        turn();
        Browser.Until(() => Browser.Driver.Url.EndsWith($"/desk/{spread}", StringComparison.Ordinal) && Browser.Has($"#desk[data-spread='{spread}']")
            && Browser.Has($".strip-item[aria-current] #strip-{spread}"), what);
        Settled();
        Browser.Run<bool>("return window.sameWindow === true").ShouldBeTrue(what);
        string shown = Shown(), window = Browser.Driver.CurrentWindowHandle, address = Browser.Driver.Url;
        Browser.Driver.SwitchTo().NewWindow(WindowType.Tab);
        Browser.Driver.Navigate().GoToUrl(address);
        Browser.Find("#desk[data-ready]");
        try
        {
            Browser.Until(() => Shown() == shown, "the same", 10);
        }
        catch (TimeoutException)
        {
            Assert.Fail($"{what}, it shows\n{Apart(shown, Shown())}");
        }
        finally
        {
            Browser.Driver.Close();
            Browser.Driver.SwitchTo().Window(window);
        }
    }

    private void GoToPage(string page)
    {
        Type("#page-field", page + Keys.Enter);
        Browser.Until(() => !Browser.Has("#canvas[inert]") && Browser.Find("#page-field").GetDomProperty("value") is { } folios && folios != page,
            "the field says where that is");
    }

    [Fact]
    public async Task Every_way_to_another_spread_leads_to_what_the_page_shows_when_it_is_opened_there()
    {
        int id = await Server.NewPublicationAsync(pages: 60);
        await FilledAsync(id, (60, 60, 200, 120));
        foreach (int page in new[] { 2, 3, 40 })
            await Server.PostAsync($"/api/publications/{id}/frames", new { page, x = 30 + page, y = 50, width = 200, height = 100 });
        OpenDesk(id);
        Browser.Run<object?>("window.sameWindow = true; return null");
        Leads("The next", 2, () => Browser.Click("#next-spread"));
        Leads("By the strip", 4, () => Browser.Click("a.strip-item:has(#strip-4)"));
        Leads("By a key", 5, () => Browser.Send("#canvas", Keys.PageDown));
        Leads("Back by a key", 4, () => Press(Keys.PageUp));
        Leads("Far away, by its page", 21, () => GoToPage("40"));
        Browser.Send("#canvas", "1" + Keys.Enter);
        Eventually(id, f => f.Length == 5, "made there");
        Leads("Back as the browser goes", 4, () => Browser.Driver.Navigate().Back());
        Leads("And on", 21, () => Browser.Driver.Navigate().Forward());
        Leads("No such page", 21, () => GoToPage("4000"));
        Browser.Find(".notice").Text.ShouldContain("Pages go from 1 to 60.");
        Browser.Click(".notice button");
        Leads("Elsewhere", 2, () => GoToPage("3"));
        Leads("Where undo leads", 21, () => Browser.Send("#canvas", Keys.Control + "z"));
        Browser.Until(() => Browser.Has(".notice"), "and says so");
        (await FramesAsync(id)).Length.ShouldBe(4);
    }

    [Fact]
    public async Task Keys_that_follow_at_once_mean_what_comes_and_nothing_is_done_to_what_was_left()
    {
        int id = await Server.NewPublicationAsync(pages: 6);
        int[] frames = await FilledAsync(id, (60, 60, 200, 120), (60, 300, 200, 120));
        OpenDesk(id);
        Choose(frames[0]);
        string before = (await FrameAsync(id, frames[0])).ToString();
        // Chosen no more once the next is asked for: neither moved nor removed.
        Browser.Run<object?>("document.getElementById('next-spread').click(); return null");
        Press(Keys.ArrowRight, Keys.Delete);
        Browser.Until(() => Browser.Has("#desk[data-spread='2']"), "turned");
        Settled();
        (await FrameAsync(id, frames[0])).ToString().ShouldBe(before);
        // The tool in hand stays: a frame is drawn on the spread that came.
        Browser.Send("#canvas", "2");
        Browser.Run<object?>("document.getElementById('next-spread').click(); return null");
        Press(Keys.Enter);
        var made = Eventually(id, f => f.Length == 3, "made");
        (await FramesAsync(id)).Single(f => !frames.Contains(f.GetProperty("id").GetInt32())).GetProperty("page").GetInt32().ShouldBeInRange(4, 5);
    }

    [Fact]
    public async Task Where_the_server_is_away_the_spread_comes_when_it_is_back()
    {
        int id = await Server.NewPublicationAsync(pages: 6);
        OpenDesk(id);
        Server.Kill();
        Browser.Click("#next-spread");
        Browser.Until(() => Browser.Has(".notice[data-stays]"), "it says that nobody answers");
        Server.StartAgain(samePort: true);
        Browser.Until(() => Browser.Has("#desk[data-spread='2']"), "turned");
        Settled();
        Browser.Until(() => !Browser.Has(".notice[data-stays]"), "and no longer says so");
    }
}
