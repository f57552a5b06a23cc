using System.Globalization;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>What the Desk shows besides the pages themselves: outlines, edges, labels, notices; and what leaves again.</summary>
public sealed class LookingTests(Workplace place) : InBrowser(place)
{
    private bool IsSeen(string css) => Browser.Run<bool>("return getComputedStyle(document.querySelector(arguments[0])).visibility !== 'hidden'", css);

    [Fact]
    public async Task The_page_is_seen_clean_by_a_button_and_while_a_key_is_held()
    {
        int id = OpenDesk(await Server.NewPublicationAsync());
        await FilledAsync(id, (100, 100, 200, 150));
        OpenDesk(id);
        Browser.Find("#frames image");
        IsSeen("#frames .outline").ShouldBeTrue();
        Browser.Click("#clean");
        Browser.Until(() => !IsSeen("#frames .outline") && !IsSeen("#edges") && IsSeen("#frames image"), "pictures alone");
        Browser.Find("#clean").GetAttribute("aria-pressed").ShouldBe("true");
        Browser.Click("#clean");
        Browser.Until(() => IsSeen("#frames .outline"), "outlines again");
        Browser.Click("#canvas");
        Actions().KeyDown("`").Perform();
        Browser.Until(() => !IsSeen("#frames .outline"), "clean while it is held");
        Actions().KeyUp("`").Perform();
        Browser.Until(() => IsSeen("#frames .outline"), "and no longer");
    }

    /// <summary>Whatever covers the pages, where they are cut and folded is drawn behind it in the document, and so above it.</summary>
    [Fact]
    public async Task Trim_and_folds_lie_over_the_pictures()
    {
        int id = (await Server.PostAsync("/api/publications", new
        {
            name = "Leaflet",
            page = new { width = "297mm", height = "210mm" },
            pages = 2,
            folding = new { kind = "roll", narrower = "3mm" },
        })).GetProperty("id").GetInt32();
        await FilledAsync(id, (-9, -9, 860, 613));
        OpenDesk(id);
        Browser.Find("#frames image");
        var above = Browser.Run<IReadOnlyCollection<object>>("const image = document.querySelector('#frames image'); return [...document." +
            "querySelectorAll('.sheet-edge')].filter(e => image.compareDocumentPosition(e) & Node.DOCUMENT_POSITION_FOLLOWING).map(e => e.getBBox().x)")
            .Select(x => Convert.ToDouble(x, CultureInfo.InvariantCulture)).Order().ToArray();
        // The page's own edge, and where its panels of 97, 100 and 100 mm meet.
        double[] expected = [0, 97 / 25.4 * 72, 197 / 25.4 * 72];
        above.Length.ShouldBe(3);
        for (int i = 0; i < 3; i++) above[i].ShouldBe(expected[i], 0.01);
    }

    /// <summary>At 1024 x 700, with all of a large spread in sight, what stands in a placeholder can be read where it has the room.</summary>
    [Fact]
    public async Task Labels_of_placeholders_can_be_read_at_any_zoom()
    {
        int id = (await Server.PostAsync("/api/publications", new { name = "Large", page = new { size = "A3" }, facing = true, pages = 4 }))
            .GetProperty("id").GetInt32();
        await Server.PostAsync($"/api/publications/{id}/frames", new { page = 2, x = 60, y = 60, width = 500, height = 400 });
        Browser.Resize(1024, 700);
        try
        {
            OpenDesk(id, 2);
            // All of the bar can be reached there.
            Browser.Run<bool>("return [...document.querySelectorAll('.workbar button, " +
                ".workbar input')].every(e => e.getBoundingClientRect().right <= innerWidth)").ShouldBeTrue();
            double Size() => Browser.Run<double>("return parseFloat(getComputedStyle(document.querySelector('.empty-label')).fontSize) * " +
                "document.getElementById('spread').getScreenCTM().a");
            Browser.Find(".empty-label");
            Browser.Click("[data-zoom=spread]");
            Browser.Until(() => Size() is > 12 and < 15, "large enough with the whole spread in sight");
            Browser.Click("[data-zoom=full]");
            Browser.Until(() => Size() is > 13.5 and < 15, "no larger when it is near");
        }
        finally
        {
            Browser.Resize(1280, 800);
        }
    }

    [Fact]
    public async Task Notices_leave_by_themselves_but_for_those_that_somebody_has_to_answer()
    {
        OpenDesk(await Server.NewPublicationAsync());
        Browser.Run<object?>("import('/js/shared/notices.js').then(n => { n.tell('Is still to be done', { stays: true }); " +
            "for (const k of [1, 2, 3, 4]) n.tell(`${k}`); })");
        string[] Shown() => [.. Browser.Driver.FindElements(By.CssSelector("#notices .notice > span:first-child")).Select(e => e.Text)];
        Browser.Until(() => Shown().SequenceEqual(["Is still to be done", "3", "4"]), "three at most, the one that stays among them");
        Browser.Until(() => Shown().SequenceEqual(["Is still to be done"]), "the others have left");
        Browser.Driver.FindElement(By.CssSelector("#notices .notice button")).Click();
        Browser.Until(() => Shown().Length == 0, "closed by hand");
    }

    /// <summary>Lengths that are no round number of the unit they are shown in stay what they are.</summary>
    [Fact]
    public async Task A_set_up_that_is_saved_untouched_changes_nothing()
    {
        int id = (await Server.PostAsync("/api/publications", new
        {
            name = "Odd",
            page = new { width = 501.3, height = 700.77 },
            facing = true,
            pages = 4,
            margins = new { top = 12, bottom = 33.3, inside = 12, outside = 17.1 },
            columns = new { count = 3, gutter = 12 },
            bleed = 8.1,
        })).GetProperty("id").GetInt32();
        async Task<string[]> SetUpAsync()
        {
            var now = await Server.GetAsync($"/api/publications/{id}");
            return [.. new[] { "page", "margins", "columns", "bleed", "facing" }.Select(name => now.GetProperty(name).GetRawText())];
        }
        string[] before = await SetUpAsync();
        Go($"/publications/{id}/setup");
        Type("#name", "Even");
        Browser.Click("button[type=submit]");
        Browser.Find("#desk[data-ready]");
        (await Server.GetAsync($"/api/publications/{id}")).GetProperty("name").GetString().ShouldBe("Even");
        (await SetUpAsync()).ShouldBe(before);
    }
}
