using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>Pictures that land where they were meant, crops by the edge, fits that do as they say, keys, the menu, commands by their words.</summary>
public sealed class HandsTests(Workplace place) : InBrowser(place)
{
    private int _id, _frame;

    private async Task BeginAsync(params (double X, double Y, double Width, double Height)[] more)
    {
        _id = await Server.NewPublicationAsync("Hands", pages: 1, facing: false);
        _frame = (await FilledAsync(_id, [(100, 100, 300, 150), .. more]))[0];
        OpenDesk(_id);
    }

    private JsonElement Shown => FrameAsync(_id, _frame).Result;

    private double[] OnPage() => [.. Placement(Shown).GetProperty("matrix").EnumerateArray().Select((v, i) => v.GetDouble()
        + (i == 4 ? D(Shown, "x") : i == 5 ? D(Shown, "y") : 0))];

    private static bool HasRecrop(JsonElement frame) => frame.GetProperty("recrop").GetProperty("point").ValueKind == JsonValueKind.Array;

    [Fact]
    public async Task A_fit_that_is_pressed_lets_the_crop_go_and_it_can_be_had_back()
    {
        await BeginAsync();
        DoubleClick(Window(250, 175));
        Browser.Find("[data-inside=yes]");
        Settled();
        Press("+", "+", "+", "+", Keys.Escape);
        Frame(_id, _frame, f => f.GetProperty("recrop").GetProperty("zoom").GetDouble() > 1.2, "cropped by hand");
        Browser.Click("[data-fit=Fill]");
        Frame(_id, _frame, f => f.GetProperty("recrop").GetProperty("zoom").GetDouble() == 1, "just Fill");
        Shown.GetProperty("set").TryGetProperty("fit", out var set).ShouldBe(set.ValueKind == JsonValueKind.Null);
        Browser.Click("[data-do=recrop-back]");
        Frame(_id, _frame, f => f.GetProperty("recrop").GetProperty("zoom").GetDouble() > 1.2, "the crop again");
    }

    [Fact]
    public async Task An_edge_crops_inside_a_picture_and_outside_where_that_is_chosen()
    {
        await BeginAsync();
        Choose(_frame);
        Browser.Click("[data-grips=crop]");
        double[] before = OnPage();
        Drag(Window(100, 175), Window(160, 175));
        Frame(_id, _frame, f => Math.Abs(D(f, "x") - 160) < 3 && HasRecrop(f), "its left edge crops");
        OnPage().ShouldBe(before, 1e-3);
        DoubleClick(Window(300, 175));
        Browser.Find("[data-inside=yes]");
        Browser.Find("#grips [data-edge=s]");
        Settled();
        Drag(Window((160 + 400) / 2.0, 250), Window((160 + 400) / 2.0, 220));
        Frame(_id, _frame, f => D(f, "height") < 130, "its lower edge crops");
        OnPage().ShouldBe(before, 1e-3);
        Browser.Has("[data-inside=yes]").ShouldBeTrue();
    }

    [Fact]
    public async Task A_picture_that_is_picked_goes_into_the_chosen_placeholder_and_several_into_the_empty_ones()
    {
        await BeginAsync();
        int empty = (await Server.PostAsync($"/api/publications/{_id}/frames", new { page = 1, x = 100, y = 400, width = 120, height = 90 }))
            .GetProperty("id").GetInt32();
        Browser.Find($"#frame-{empty}");
        Choose(empty);
        string Path(string name, int width)
        {
            using var picture = TestPictures.Quarters(width, 200);
            return TestPictures.Save(picture, Pictures[name], 300);
        }
        Browser.Driver.FindElement(By.Id("files")).SendKeys(Path("picked.jpg", 310));
        Frame(_id, empty, f => f.GetProperty("imageId").ValueKind == JsonValueKind.Number, "placed");

        // Seven frames that were only drawn are not chosen by a person: the card offers the empty ones of the page.
        Draw(_id, (300, 400), (380, 480));
        Draw(_id, (400, 400), (480, 480));
        Browser.Driver.FindElement(By.Id("files")).SendKeys(Path("one.jpg", 320) + "\n" + Path("two.jpg", 330));
        Browser.Until(() => Browser.Find("#arrivals-card").Text.Contains("Into the 2 empty placeholders", StringComparison.Ordinal), "the card");
        Browser.Find("#arrivals-card").Text.ShouldNotContain("selected");
        Press(Keys.Enter);
        Eventually(_id, f => f.Count(x => x.GetProperty("imageId").ValueKind == JsonValueKind.Number) == 4, "both");
    }

    [Fact]
    public async Task Keys_reach_the_frame_after_a_click_beside_it_and_arrows_step_a_figure()
    {
        await BeginAsync();
        Choose(_frame);
        Browser.Click("[data-fit=Fit]");
        Press(Keys.ArrowRight);
        Frame(_id, _frame, f => Math.Abs(D(f, "x") - 100 - 72 / 25.4) < 1e-6, "nudged");
        double x = D(Shown, "x");
        Browser.Send("#frame-x", Keys.ArrowUp + Keys.ArrowUp);
        Frame(_id, _frame, f => Math.Abs(D(f, "x") - x - 2 * 72 / 25.4) < 0.01, "two millimetres on");
        // What was sent is the publication's to take back.
        Browser.Send("#frame-x", Keys.Control + "z");
        Frame(_id, _frame, f => Math.Abs(D(f, "x") - x) < 1e-6, "taken back");
        Press(Keys.Escape);
        Press(Keys.Delete);
        Eventually(_id, f => f.Length == 0, "removed");
    }

    [Fact]
    public async Task The_menu_at_the_right_button_does_what_can_be_done_there_and_a_command_is_found_by_another_word_for_it()
    {
        await BeginAsync();
        var at = Window(250, 175);
        Actions().MoveToLocation(at.X, at.Y).ContextClick().Perform();
        Browser.Until(() => Browser.Has("#menu-card:popover-open"), "the menu");
        Browser.Driver.FindElements(By.CssSelector("#menu-card button")).Single(b => b.Text == "Natural size").Click();
        Frame(_id, _frame, f => Placement(f).GetProperty("applied").GetString() == "natural", "natural size");
        Press("/");
        Browser.Until(() => Browser.Has("#commands-dialog[open]"), "the field");
        Browser.Send("#commands-field", "mirror");
        Browser.Until(() => Browser.Find("#commands-list").Text.Contains("Flip left to right", StringComparison.Ordinal), "found by another word");
        Browser.Send("#commands-field", Keys.Control + "a" + Keys.Null + "duplicate" + Keys.Enter);
        Eventually(_id, f => f.Length == 2, "done");
    }

    [Fact]
    public async Task A_member_that_a_body_does_not_know_is_refused_by_its_name_and_a_shelf_is_searched()
    {
        int id = await Server.NewPublicationAsync("Searchable shelf entry");
        var answer = await Server.Client.PostAsJsonAsync($"/api/publications/{id}/looks", new { name = "Soft", shadow = new { } });
        answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await answer.Content.ReadAsStringAsync()).ShouldContain("shadow");
        string shelf = await Server.Client.GetStringAsync("/?q=searchable+entry&sort=Name");
        shelf.ShouldContain("Searchable shelf entry");
        (await Server.Client.GetStringAsync("/?q=nothing+is+called+so")).ShouldNotContain("Searchable shelf entry</a>");
    }

    [Fact]
    public async Task Pictures_are_marked_together_and_copies_are_shown_before_they_are_made()
    {
        await BeginAsync();
        foreach (int width in new[] { 310, 320, 330 })
        {
            using var picture = TestPictures.Quarters(width, 200);
            await Server.UploadAsync(_id, ($"{width}.jpg", await File.ReadAllBytesAsync(TestPictures.Save(picture, Pictures[$"{width}.jpg"], 300))));
        }
        OpenDesk(_id);
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".thumb")).Count == 4, "four pictures");
        var thumbs = Browser.Driver.FindElements(By.CssSelector(".thumb"));
        Actions().KeyDown(Keys.Control).Click(thumbs[1]).KeyUp(Keys.Control).KeyDown(Keys.Shift).Click(thumbs[3]).KeyUp(Keys.Shift).Perform();
        Browser.Find("#marked-words").Text.ShouldBe("3 pictures");
        Browser.Click("#marked-tray");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("[data-tray]")).Count == 3, "all three wait in the tray");
        Browser.Find("#marked-bar").Displayed.ShouldBeFalse();

        Choose(_frame);
        Browser.Run<object?>("document.getElementById('repeat-form').closest('details').open = true; return null");
        Browser.Send("#repeat-rows", Keys.Control + "a" + Keys.Null + "3");
        Browser.Until(() => Browser.Find("#repeat-words").Text.StartsWith("5 new frames", StringComparison.Ordinal), "what there will be");
        Browser.Driver.FindElements(By.CssSelector("#under-way .tray-preview, .tray-preview")).Count.ShouldBe(5);
        Browser.Send("#repeat-rows", Keys.Enter);
        Eventually(_id, f => f.Length == 6, "two in a row, three rows");
    }

    [Fact]
    public async Task A_size_in_inches_brings_its_unit_and_what_is_too_large_is_told_in_words()
    {
        Go("/setup");
        Browser.Send("#top", Keys.Control + "a" + Keys.Null + "1 in");
        Browser.Run<object?>("const s = document.getElementById('size'); s.value = 'Letter'; " +
            "s.dispatchEvent(new Event('change', { bubbles: true })); return null");
        Browser.Until(() => Browser.Find("#unit").GetDomProperty("value") == "Inch", "inches");
        Browser.Find("#bleed").GetDomProperty("value").ShouldBe("0.125 in");
        Browser.Find("#top").GetDomProperty("value").ShouldBe("1 in", "what was typed is as long as it was");

        int id = await Server.NewPublicationAsync("Large");
        using var form = new MultipartFormDataContent { { new ByteArrayContent(new byte[31_000_000]), "file", "large.csv" } };
        using var answer = await Server.Client.PostAsync($"/publications/{id}/desk/1?handler=Rows", form);
        answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await answer.Content.ReadAsStringAsync()).ShouldContain("larger than 30 MB");
    }
}
