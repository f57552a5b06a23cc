using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>Every screen against axe-core's rules of WCAG 2.2 A and AA: nothing serious or critical.</summary>
public sealed class AccessibilityTests(Workplace place) : InBrowser(place)
{
    private void Check(string screen)
    {
        if (!Browser.Run<bool>("return 'axe' in window"))
            Browser.Driver.ExecuteScript(File.ReadAllText(Path.Combine(TestServer.Root, "node_modules/axe-core/axe.min.js")));
        string found = (string)Browser.Driver.ExecuteAsyncScript("""
            const done = arguments[0];
            axe.run(document, { resultTypes: ['violations'], runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] })
              .then(r => done(JSON.stringify(r.violations.filter(v => v.impact === 'serious' || v.impact === 'critical')
                .map(v => `${v.id}: ${v.nodes.slice(0, 3).map(n => n.html.slice(0, 160)).join(' | ')}`))), e => done(JSON.stringify([String(e)])));
            """)!;
        JsonSerializer.Deserialize<string[]>(found)!.ShouldBeEmpty(screen);
    }

    [Fact]
    public async Task No_screen_has_a_serious_violation()
    {
        int id = await Server.NewPublicationAsync("Read aloud", pages: 4);
        var frames = await FilledAsync(id, (60, 60, 200, 120), (60, 220, 120, 120));
        await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 300, y = 60, width = 120, height = 80 });
        int rule = (await Server.PostAsync($"/api/publications/{id}/rules", new { name = "Airy", fit = "fit" })).GetProperty("id").GetInt32();
        await Server.PostAsync($"/api/publications/{id}/rules/{rule}/put", new { });

        Go("/");
        Browser.Find(".shelf-item");
        Check("Shelf");
        Go("/setup");
        Browser.Find("#plan svg");
        Check("Set-up");
        OpenDesk(id);
        Check("Desk");
        OpenDesk(id);
        Browser.Send("#canvas", Keys.Control + "a");
        Browser.Until(() => Browser.Has("#inspector h2") && Browser.Find("#inspector h2").Text == "3 frames", "all are chosen");
        foreach (var summary in Browser.Driver.FindElements(By.CssSelector("#inspector summary"))) summary.Click();
        Check("Desk with several frames chosen");
        Go($"/publications/{id}/desk/1?frame={frames[0]}");
        Browser.Find("#desk[data-ready]");
        foreach (var summary in Browser.Driver.FindElements(By.CssSelector("#inspector summary"))) summary.Click();
        Check("Desk with a frame chosen");
        Browser.Click("#go-inside");
        Browser.Find("[data-inside=yes]");
        Settled();
        Check("Inside a picture");
        Go($"/publications/{id}/rules/{rule}");
        Browser.Click("#rule-fit option[value=Fill]");
        Browser.Find("[data-touched]");
        Check("Rules");
        Go($"/publications/{id}/output");
        Browser.Find(".output-name");
        Check("Output");
        Go($"/publications/{id}/check");
        Browser.Find("#check[data-ready]");
        Check("Check");
        Browser.Click("[data-mend]");
        Browser.Find(".impact-sum");
        Check("Check with a remedy");
        Browser.Click("#open-profile");
        Check("Check's profile");
        Go($"/publications/{id}/compare?with=step-0");
        Browser.Find(".compare-page");
        Check("Compare");
        byte[] pdf = await Server.Client.GetByteArrayAsync($"/api/publications/{id}/output.pdf?recipe=proof&pages=1");
        using (var form = new MultipartFormDataContent { { new ByteArrayContent(pdf), "files", "before.pdf" } })
        using (var brought = await Server.Client.PostAsync($"/api/publications/{id}/compare/pdfs", form))
            Go($"/publications/{id}/compare{brought.Headers.Location!.ToString().Split("compare")[1]}");
        Browser.Find(".file-page");
        Check("Compare with a PDF");
        Go($"/publications/{id}/printed");
        Browser.Find(".printed-sum");
        Check("As printed");
        Go($"/publications/{id}/fonts");
        Browser.Find("[data-family]");
        Check("Fonts");
        Go($"/publications/{id}/colours");
        Browser.Find(".colour-item");
        Check("Colours");
        int house = await Server.NewPublicationAsync("House");
        await Server.PostAsync($"/api/publications/{house}/rules", new { name = "Airy", fit = "fill" });
        await Server.PostAsync($"/api/publications/{house}/rules", new { name = "Close" });
        Go($"/publications/{id}/take?from={house}");
        Browser.Find(".take-differs");
        Check("House style from elsewhere");
        Go($"/publications/{id}/flatplan");
        Browser.Until(() => Browser.Has(".plan-picture svg"), "the miniatures");
        Check("Flatplan");
        await Server.PostAsync($"/api/publications/{id}/masters", new { name = "Like page 1", likePages = new[] { 1 }, baseThem = true });
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".plan-picture svg")).Count == 4, "the master's miniature");
        Browser.Click(".plan-master [popovertarget]");
        Check("Flatplan with a master");
        OpenDesk(id, -1);
        Check("Desk with a master");

        Go($"/publications/{id}/images");
        Browser.Find("#images[data-ready]");
        Browser.Click("[data-card]");
        Browser.Find("#image-card .uses li");
        Check("Images");
        Browser.Click("[name=table][value=true]");
        Browser.Find(".image-table");
        Check("Images as a table");
        int image = (await Server.UploadAsync(id, ("waiting.jpg", ApiTests.Jpeg(90, 60, 1))))[0].GetProperty("id").GetInt32();
        await Server.PostAsync($"/api/publications/{id}/tray", new { imageIds = new[] { image } });
        int text = (await Server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = 1,
            x = 300,
            y = 200,
            width = 120,
            height = 60,
            text = new { paragraphs = new[] { new { text = "Read me" } } }
        })).GetProperty("id").GetInt32();
        Go($"/publications/{id}/desk/1?frame={text}");
        Browser.Find("#desk[data-ready]");
        Browser.Click("#write");
        Browser.Find(".writing");
        Check("Typing text, with a picture in the tray");
        Browser.Send(".writing", Keys.Escape);
        Browser.Click("#pour");
        Browser.Find("#pour-sum");
        Check("A pour proposal");

        File.WriteAllText(Pictures["pots.csv"], "Cover;Words\nwaiting.jpg;Mug\ngone.jpg;\n");
        await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 300, y = 300, width = 120, height = 60, name = "Cover" });
        OpenDesk(id);
        Browser.Send("#rows-file", Pictures["pots.csv"]);
        Browser.Find("#rows-sum");
        Check("Rows of a table before they are poured");
        Directory.CreateDirectory(Pictures["open"]);
        File.WriteAllBytes(Pictures["open/cut.jpg"], ApiTests.Jpeg(120, 80, 3));
        int cut = (await Server.PostAsync($"/api/publications/{id}/images/folder", new { folder = Pictures["open"] }))[0].GetProperty("id").GetInt32();
        await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 60, y = 400, width = 120, height = 80, imageId = cut });
        File.WriteAllBytes(Pictures["open/cut.jpg"], ApiTests.Jpeg(160, 80, 4));
        Go($"/publications/{id}/images");
        Browser.Click("#update-all");
        Browser.Find("#update-body [data-touched]");
        Check("Changed links before they are updated");
    }
}
