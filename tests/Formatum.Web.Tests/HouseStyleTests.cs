using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>House style shared between publications: taken from another, kept in the library, begun with.</summary>
public sealed class HouseStyleTests(Workplace place) : InBrowser(place)
{
    private async Task<int> HouseAsync(string name)
    {
        int id = await Server.NewPublicationAsync(name);
        await Server.PostAsync($"/api/publications/{id}/rules", new { name = "Product", fit = "fill" });
        await Server.PostAsync($"/api/publications/{id}/looks", new { name = "Framed", look = new { border = new { width = 3 } } });
        await Server.PostAsync($"/api/publications/{id}/styles", new { kind = "paragraph", name = "Caption", settings = new { size = 7 } });
        return id;
    }

    private async Task<string[]> NamesAsync(int id, string what) => [.. (await Server.GetAsync($"/api/publications/{id}/{what}")).EnumerateArray()
        .Select(p => p.GetProperty("name").GetString()!)];

    [Fact]
    public async Task What_another_has_is_taken_over_after_it_was_seen_and_in_one_step()
    {
        int house = await HouseAsync("The house of many rules");
        int id = await Server.NewPublicationAsync("Taker");
        int rule = (await Server.PostAsync($"/api/publications/{id}/rules", new { name = "product", fit = "natural" })).GetProperty("id").GetInt32();
        int frame = (await FilledAsync(id, (60, 60, 200, 120)))[0];
        using (var put = await Server.Client.PatchAsJsonAsync($"/api/publications/{id}/frames/{frame}",
            new { ruleId = rule })) put.IsSuccessStatusCode.ShouldBeTrue();
        string was = (await FrameAsync(id, frame)).GetProperty("placement").ToString();
        Go($"/publications/{id}/rules");
        Browser.Driver.FindElement(By.LinkText("From elsewhere")).Click();
        Browser.Until(() => Browser.Has(".take-form"), "the page");
        Browser.Driver.FindElement(By.LinkText("The house of many rules")).Click();
        Browser.Until(() => Browser.Has(".take-part"), "what it has");
        // What is not here is ticked; of what differs, it is told in what.
        Browser.Find(".take-differs").Text.ShouldBe("differs here: fit");
        Browser.Driver.FindElements(By.CssSelector(".take-part input:checked")).Count.ShouldBe(2);
        Browser.Find("#impact-sum").Text.ShouldBe("No frame changes");
        Browser.Click(".take-part select option[value='Replaced']");
        Browser.Until(() => Browser.Find("#impact-sum").Text == "1 frame changes", "which frame it touches");
        Browser.Find("#impact h2").Text.ShouldBe("Take 3 parts over");
        Browser.Click("#discard");
        Browser.Until(() => Browser.Has(".take-part") && Browser.Find(".take-part select").GetDomProperty("value") == "",
            "what it has, nothing chosen of what differs");
        // What changed there since it was seen is not taken unseen.
        await Server.PostAsync($"/api/publications/{house}/rules", new { name = "New there", fit = "fit" });
        Browser.Click(".take-part select option[value='Replaced']");
        Browser.Until(() => Browser.Find("#impact-sum").Text == "1 frame changes", "which frame it touches, again");
        Browser.Click("#apply");
        Browser.Until(() => Browser.Find("#notices").Text.Contains("The house of many rules was changed while you looked", StringComparison.Ordinal),
            "refused");
        Browser.Driver.Navigate().Refresh();
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".take-part input:checked")).Count == 3, "with what is new there");
        Browser.Click(".take-part select option[value='Replaced']");
        Browser.Until(() => Browser.Find("#impact h2").Text == "Take 4 parts over", "all four");
        Browser.Click("#apply");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".take-same")).Count >= 4 && !Browser.Has(".take-part"), "all the same now");
        Frame(id, frame, f => f.GetProperty("placement").ToString() != was, "the frame follows");
        (await NamesAsync(id, "looks")).ShouldBe(["Framed"]);
        (await NamesAsync(id, "styles")).ShouldBe(["Caption"]);
        Browser.Send("body", Keys.Control + "z");
        Browser.Until(() => NamesAsync(id, "looks").Result.Length == 0, "taken back in one step");
        Frame(id, frame, f => f.GetProperty("placement").ToString() == was, "as it was");
    }

    [Fact]
    public async Task What_is_kept_in_the_library_is_there_for_new_publications()
    {
        int house = await HouseAsync("Keeper");
        await Server.PostAsync($"/api/publications/{house}/looks", new { name = "Only of Keeper", look = new { opacity = 0.5 } });
        Go($"/publications/{house}/looks");
        Browser.Driver.FindElement(By.LinkText("Keep in library")).Click();
        Browser.Until(() => Browser.Has(".take-form #apply"), "what would be kept");
        int library = (await Server.GetAsync("/api/library")).GetProperty("id").GetInt32();
        Browser.Click("#apply");
        Browser.Until(() => NamesAsync(library, "looks").Result.Contains("Only of Keeper"), "kept");
        // The page goes on to what has come of it by itself.
        Browser.Until(() => Browser.Find("#impact h2").Text == "Nothing is chosen", "and shown");
        Go("/");
        Browser.Until(() => Browser.Has(".shelf"), "the shelf");
        Browser.Driver.FindElements(By.LinkText("House library")).Count.ShouldBe(1, "in the bar, and not among the publications");
        Go("/setup");
        Browser.Find("#housefrom option:checked").Text.ShouldBe("House library");
        Browser.Send("#name", "Begun with it");
        Browser.Find("#name").Submit();
        Browser.Until(() => Browser.Has("#desk[data-ready]"), "made");
        int made = (await Server.GetAsync("/api/publications")).EnumerateArray().Single(p => p.GetProperty("name").GetString() == "Begun with it")
            .GetProperty("id").GetInt32();
        (await NamesAsync(made, "looks")).ShouldContain("Only of Keeper");
        (await Server.GetAsync($"/api/publications/{made}/house-style?from={library}")).EnumerateArray()
            .ShouldAllBe(p => p.GetProperty("differs").GetArrayLength() == 0 && p.GetProperty("hereId").ValueKind == JsonValueKind.Number);
    }

    [Fact]
    public async Task What_was_typed_stays_where_the_house_style_chosen_is_gone()
    {
        int house = await HouseAsync("Soon gone");
        Go("/setup");
        Browser.Click($"#housefrom option[value='{house}']");
        Browser.Send("#name", "Typed and kept");
        using (var away = await Server.Client.PostAsync($"/api/publications/{house}/put-away", null)) away.IsSuccessStatusCode.ShouldBeTrue();
        Browser.Find("#name").Submit();
        Browser.Until(() => Browser.Has(".form-problem"), "told");
        Browser.Find("#name").GetAttribute("value").ShouldBe("Typed and kept");
    }

    [Fact]
    public async Task Programs_compare_and_take_and_are_told_what_cannot_be()
    {
        int house = await HouseAsync("Source"), id = await Server.NewPublicationAsync("Target");
        var parts = await Server.GetAsync($"/api/publications/{id}/house-style?from={house}");
        parts.EnumerateArray().Where(p => p.GetProperty("hereId").ValueKind == JsonValueKind.Null).Select(p => p.GetProperty("name").GetString())
            .ShouldBe(["Product", "Framed", "Caption"]);
        int look = parts.EnumerateArray().Single(p => p.GetProperty("kind").GetString() == "look").GetProperty("id").GetInt32();
        await Server.PostAsync($"/api/publications/{id}/house-style", new { from = house, parts = new[] { new { kind = "look", id = look } } });
        await Server.PostAsync($"/api/publications/{id}/house-style", new
        {
            from = house,
            parts = new[] { new { kind = "look", id = look,
            @namesake = "beside" } }
        });
        (await NamesAsync(id, "looks")).ShouldBe(["Framed", "Framed 2"]);
        await Server.PostAsync($"/api/publications/{id}/house-style", new { from = house });
        (await Server.GetAsync($"/api/publications/{id}")).GetProperty("rules").EnumerateArray().Select(r => r.GetProperty("name").GetString())
            .ShouldBe(["Product"]);
        async Task Refused(object body, HttpStatusCode status)
        {
            using var answer = await Server.Client.PostAsJsonAsync($"/api/publications/{id}/house-style", body);
            answer.StatusCode.ShouldBe(status);
        }
        await Refused(new { from = id }, HttpStatusCode.BadRequest);
        await Refused(new { from = 99999 }, HttpStatusCode.NotFound);
        await Refused(new { from = house, parts = Array.Empty<object>() }, HttpStatusCode.BadRequest);
        await Refused(new { from = house, parts = new[] { new { kind = "look", id = 9999 } } }, HttpStatusCode.BadRequest);
        using var made = await Server.Client.PostAsJsonAsync("/api/publications", new { name = "Begun", houseFrom = house });
        made.StatusCode.ShouldBe(HttpStatusCode.Created);
        int begun = (await made.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetInt32();
        (await NamesAsync(begun, "styles")).ShouldBe(["Caption"]);
    }
}
