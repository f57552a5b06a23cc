using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

public sealed class RowsTests(Workplace place) : InBrowser(place)
{
    [Fact]
    public async Task A_table_is_looked_at_poured_into_named_frames_and_undone()
    {
        int id = await Server.NewPublicationAsync(pages: 1, facing: false);
        await Server.UploadAsync(id, ("mug.jpg", ApiTests.Jpeg(90, 60, 1)), ("jug.jpg", ApiTests.Jpeg(60, 90, 2)), ("cup.jpg", ApiTests.Jpeg(60, 60, 3)));
        await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 40, y = 40, width = 200, height = 200, name = "Picture" });
        await Server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = 1,
            x = 40,
            y = 250,
            width = 200,
            height = 40,
            name = "Piece",
            text = new { paragraphs = new[] { new { text = "", size = 14 } } }
        });
        using var folder = new TempFolder();
        await File.WriteAllTextAsync(folder["pots.csv"], "picture;piece;price\nmug.jpg;Mug;12.00\njug.jpg;Jug;18.00\nplate.jpg;Plate;9.00\n");
        OpenDesk(id);
        Browser.Send("#rows-file", folder["pots.csv"]);
        Browser.Until(() => Browser.Find("#rows-sum").Text == "2 pictures and 3 texts placed, 2 pages added.", "the proposal");
        Browser.Find(".rows-findings").Text.ShouldContain("Row 3, picture: There is no picture named plate.jpg.");
        Browser.Find(".row-preview .set-text").GetDomProperty("textContent").ShouldBe("Mug");
        Type("#row-looked-at", "2" + Keys.Tab);
        Browser.Until(() => Browser.Find(".row-preview .set-text").GetDomProperty("textContent") == "Jug", "the second row");
        (await FramesAsync(id)).Length.ShouldBe(2, "nothing is done yet");
        Browser.Click("#take-rows");
        Browser.Until(() => Browser.Find("#notices").Text.Contains("3 rows poured, 2 pages added", StringComparison.Ordinal), "told");
        (await FramesAsync(id)).Where(f => f.GetProperty("name").GetString() == "Piece").Select(f => f.GetProperty("text")
            .GetProperty("paragraphs")[0].GetProperty("text").GetString()).ShouldBe(["Mug", "Jug", "Plate"]);
        Browser.Find("#desk[data-ready]");
        Browser.Send("#canvas", Keys.Control + "z");
        Eventually(id, f => f.Length == 2, "undone in one step");

        var report = await Server.PostAsync($"/api/publications/{id}/rows", new
        {
            columns = new[] { "Picture" },
            rows = new[] { new[] { "cup" } },
            onlyReport = true
        });
        report.GetProperty("pictures").GetInt32().ShouldBe(1);
    }

    [Fact]
    public async Task A_new_edition_is_made_from_the_shelf()
    {
        int id = await Server.NewPublicationAsync("The Kiln Post", pages: 2);
        int image = (await Server.UploadAsync(id, ("mug.jpg", ApiTests.Jpeg())))[0].GetProperty("id").GetInt32();
        await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 40, y = 40, width = 200, height = 200, imageId = image });
        Go("/");
        Browser.Click($"[popovertarget=edition-{id}]");
        Browser.Send($"#edition-edition-{id}", "No. 13" + Keys.Enter);
        Browser.Find("#desk[data-ready]");
        var list = await Server.GetAsync("/api/publications");
        int made = list.EnumerateArray().Max(p => p.GetProperty("id").GetInt32());
        var edition = await Server.GetAsync($"/api/publications/{made}");
        (edition.GetProperty("name").GetString(), edition.GetProperty("edition").GetString(), edition.GetProperty("pages").GetArrayLength())
            .ShouldBe(("The Kiln Post", "No. 13", 2));
        edition.GetProperty("frames")[0].GetProperty("imageId").ValueKind.ShouldBe(System.Text.Json.JsonValueKind.Null);
        (await FramesAsync(id))[0].GetProperty("imageId").GetInt32().ShouldBe(image);
    }
}
