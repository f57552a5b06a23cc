using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>Named looks: made of a frame, put on, set over and cleared, changed for all on House style, removed.</summary>
public sealed class NamedLookTests(Workplace place) : InBrowser(place)
{
    private static JsonElement Look(JsonElement frame) => frame.GetProperty("look");

    private static JsonElement Border(JsonElement frame) => Look(frame).GetProperty("border");

    private void Choose(int publication, int frame)
    {
        Go($"/publications/{publication}/desk/1?frame={frame}");
        Browser.Find("#desk[data-ready]");
        Browser.Click("#more-look > summary");
    }

    private async Task<int> MadeAsync(int publication, string name, object look, int[]? frames = null, int? on = null)
    {
        int id = (await Server.PostAsync($"/api/publications/{publication}/looks", new { name, look, basedOnId = on })).GetProperty("id").GetInt32();
        if (frames is null) return id;
        using var put = await Server.Client.PostAsJsonAsync($"/api/publications/{publication}/looks/{id}/put", new { frameIds = frames });
        put.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        return id;
    }

    [Fact]
    public async Task A_look_is_made_of_a_frame_put_on_another_set_over_and_cleared()
    {
        int id = await Server.NewPublicationAsync("Named");
        int[] frames = await FilledAsync(id, (60, 60, 200, 120), (60, 300, 150, 150));
        Choose(id, frames[0]);
        Type("#look-border", "3" + Keys.Enter);
        Type("#look-opacity", "80" + Keys.Enter);
        Frame(id, frames[0], f => Look(f).GetProperty("opacity").GetDouble() == 0.8, "opacity");
        Browser.Click("#more-named-look summary");
        // What is set stands ticked; opacity is not wanted in it.
        Browser.Click("#make-look input[value='Opacity']");
        Type("#look-name", "Framed" + Keys.Enter);
        Frame(id, frames[0], f => f.GetProperty("lookId").ValueKind == JsonValueKind.Number, "it has the look");
        var looks = await Server.GetAsync($"/api/publications/{id}/looks");
        looks[0].GetProperty("sets").EnumerateArray().Select(s => s.GetString()).ShouldBe(["border"]);
        Look(await FrameAsync(id, frames[0])).GetProperty("set").EnumerateArray().Select(s => s.GetString()).ShouldBe(["opacity"]);

        Browser.Send("#canvas", Keys.Escape);
        Browser.Click($"#frame-{frames[1]}");
        Browser.Until(() => Browser.Has($"#inspector [data-chosen='{frames[1]}']"), "the other is chosen");
        Browser.Click("#look-named option:not([value=''])");
        Frame(id, frames[1], f => Border(f).ValueKind == JsonValueKind.Object, "bordered by the look");
        Browser.Find("#more-look summary").Text.ShouldStartWith("Look Framed");

        Type("#look-border", "none" + Keys.Enter);
        Frame(id, frames[1], f => Border(f).ValueKind == JsonValueKind.Null, "none, set here");
        Browser.Find(".set-over").Text.ShouldBe("Over Framed, set here:");
        Browser.Click("[data-do='clear-look'][data-settings='Border']");
        Frame(id, frames[1], f => Border(f).ValueKind == JsonValueKind.Object, "as the look has it again");
        Browser.Click("#look-named option[value='']");
        Frame(id, frames[1], f => Border(f).ValueKind == JsonValueKind.Null && f.GetProperty("lookId").ValueKind == JsonValueKind.Null, "plain again");
    }

    [Fact]
    public async Task How_light_each_colour_becomes_in_its_grey_is_a_figure_of_a_look()
    {
        int id = await Server.NewPublicationAsync("Grey");
        int frame = (await FilledAsync(id, (60, 60, 200, 120)))[0];
        int look = await MadeAsync(id, "Grey", new { treatment = new { grey = new { red = 0.5, green = 0.4, blue = 0.1 } } }, [frame]);
        Go($"/publications/{id}/looks/{look}");
        Browser.Find("#figure-treatment_grey_red").GetDomProperty("value").ShouldBe("50");
        Type("#figure-treatment_grey_blue", "-20");
        Browser.Until(() => Browser.Has($"[data-touched='{frame}']"), "what it does");
        Browser.Click("#apply");
        Frame(id, frame, f => Look(f).GetProperty("treatment").GetProperty("grey").GetProperty("blue").GetDouble() == -0.2, "stored");
    }

    [Fact]
    public async Task The_look_that_was_set_last_is_put_on_again_by_a_key()
    {
        int id = await Server.NewPublicationAsync("Again");
        int[] frames = await FilledAsync(id, (60, 60, 200, 120), (60, 300, 150, 150), (300, 300, 150, 150));
        Choose(id, frames[0]);
        Type("#look-border", "3" + Keys.Enter);
        Browser.Send("#canvas", Keys.Escape);
        Browser.Click($"#frame-{frames[1]}");
        Browser.Send("#canvas", "l");
        Frame(id, frames[1], f => Border(f).ValueKind == JsonValueKind.Object, "bordered too");
        Type("#look-opacity", "50" + Keys.Enter);
        Frame(id, frames[1], f => Look(f).GetProperty("opacity").GetDouble() == 0.5, "and fainter");
        Browser.Click($"#frame-{frames[2]}");
        Browser.Send("#canvas", "l");
        Frame(id, frames[2], f => Border(f).ValueKind == JsonValueKind.Object && Look(f).GetProperty("opacity").GetDouble() == 0.5, "all of the newest");
    }

    [Fact]
    public async Task A_rule_names_the_look_its_frames_take_and_a_look_how_text_keeps_clear()
    {
        int id = await Server.NewPublicationAsync("Usual");
        int[] frames = await FilledAsync(id, (60, 60, 200, 120));
        int rule = (await Server.PostAsync($"/api/publications/{id}/rules", new { name = "Shot" })).GetProperty("id").GetInt32();
        int look = await MadeAsync(id, "Set off", new { wrap = new { around = "box", distance = new { top = 6, right = 6, bottom = 6, left = 6 } } });
        await Server.PostAsync($"/api/publications/{id}/rules/{rule}/put", new { frameIds = frames });
        Go($"/publications/{id}/rules/{rule}");
        Browser.Click($"#rule-look option[value='{look}']");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".impact-note")).Any(n => n.Text == "1 frame takes the look Set off."), "told before");
        Browser.Click("#apply");
        Frame(id, frames[0], f => f.GetProperty("lookId").ValueKind == JsonValueKind.Number, "it has the look");
        Choose(id, frames[0]);
        Browser.Click("#more-wrap > summary");
        Browser.Find("#flow-wrap-around option:checked").Text.ShouldBe("keeps clear of its box");
        Browser.Click("#flow-wrap-around option[value='None']");
        Frame(id, frames[0], f => f.GetProperty("wrap").GetProperty("around").GetString() == "none", "set over");
        Browser.Until(() => Browser.Has("[data-do='clear-look'][data-settings='Wrap']"), "said so");
        Browser.Click("[data-do='clear-look'][data-settings='Wrap']");
        Frame(id, frames[0], f => f.GetProperty("wrap").GetProperty("around").GetString() == "box", "as the look has it");
        // On the leaf, it is a part like the others.
        Go($"/publications/{id}/looks/{look}");
        Browser.Click("#figure-wrap_around option[value='Outline']");
        Browser.Until(() => Browser.Find("#apply").Enabled, "can be applied");
        Browser.Click("#apply");
        Frame(id, frames[0], f => f.GetProperty("wrap").GetProperty("around").GetString() == "outline", "changed for all");
    }

    [Fact]
    public async Task A_look_is_changed_for_all_after_it_was_seen_and_undone()
    {
        int id = await Server.NewPublicationAsync("Changed");
        int[] frames = await FilledAsync(id, (60, 60, 200, 120), (60, 300, 150, 150), (300, 300, 100, 100));
        int look = await MadeAsync(id, "Framed", new { border = new { width = 2 } }, frames[..2]);
        Go($"/publications/{id}/looks/{look}");
        Browser.Find("#impact").Text.ShouldContain("2 frames follow Framed");
        string samples = Browser.Find("#rule-samples").GetAttribute("innerHTML")!;
        Type("#figure-border_width", "6");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("[data-touched]")).Count == 2, "the frames it touches");
        // A figure that is typed sets its part.
        Type("#figure-corners_radius", "5" + Keys.Tab);
        Browser.Until(() => Browser.Find("[data-part='Corners'] [name='On']").Selected, "corners are set");
        Browser.Until(() => Browser.Find("#rule-samples").GetAttribute("innerHTML") != samples && Browser.Has("#rule-samples clipPath path"),
            "the samples follow");
        Border(await FrameAsync(id, frames[0])).GetProperty("width").GetDouble().ShouldBe(2, "Nothing has happened yet.");
        Browser.Click("#apply");
        foreach (int frame in frames[..2])
            Frame(id, frame, f => Border(f).GetProperty("width").GetDouble() == 6 && Look(f).GetProperty("corners").ValueKind == JsonValueKind.Object,
            "followed");
        Browser.Until(() => Browser.Find("#impact").Text.Contains("Nothing is changed", StringComparison.Ordinal), "the sheet anew");
        Browser.Find("#source-Corners").Text.ShouldBe("set here");

        Type("#figure-border_width", "wide" + Keys.Tab);
        Browser.Until(() => Browser.Find("#error-border_width").Text.Contains("not a length", StringComparison.Ordinal), "told beside the field");
        Browser.Find("#apply").Enabled.ShouldBeFalse();
        Browser.Click("#discard");
        Browser.Until(() => Browser.Find("#impact").Text.Contains("Nothing is changed", StringComparison.Ordinal), "discarded");
        Browser.Click("#history [data-do=undo]");
        foreach (int frame in frames[..2]) Frame(id, frame, f => Border(f).GetProperty("width").GetDouble() == 2, "undone in one");
    }

    [Fact]
    public async Task A_look_is_put_on_many_taken_from_a_frame_and_removed_as_it_looks()
    {
        int id = await Server.NewPublicationAsync("Many");
        int[] frames = await FilledAsync(id, (60, 60, 200, 120), (60, 300, 150, 150), (300, 300, 100, 100));
        int look = await MadeAsync(id, "Framed", new { border = new { width = 2 } });
        Go($"/publications/{id}/looks/{look}");
        Browser.Click("button[popovertarget='put-card']");
        Browser.Click("#put-card .btn-primary");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("[data-touched]")).Count == 3, "shown first");
        Browser.Click("#apply");
        foreach (int frame in frames) Frame(id, frame, f => f.GetProperty("lookId").ValueKind == JsonValueKind.Number, "put on");

        // One frame is set over it; the look is then made like that frame.
        Choose(id, frames[2]);
        Type("#look-border", "8" + Keys.Enter);
        Frame(id, frames[2], f => Border(f).GetProperty("width").GetDouble() == 8, "set over");
        Browser.Click("#more-named-look summary");
        Browser.Click("#more-named-look a");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("[data-touched]")).Count == 2, "the two others would follow");
        Browser.Click("#apply");
        foreach (int frame in frames) Frame(id, frame, f => Border(f).GetProperty("width").GetDouble() == 8, "all like it");
        Look(await FrameAsync(id, frames[2])).GetProperty("set").GetArrayLength().ShouldBe(0);
        Browser.Until(() => Browser.Find("#impact").Text.Contains("Nothing is changed", StringComparison.Ordinal), "the sheet anew");

        Browser.Click("button[popovertarget='remove-card']");
        Browser.Click("#remove-card input[name='keep']");
        Browser.Click("#remove-card .btn-primary");
        Browser.Until(() => Browser.Find("#impact").Text.Contains("No frame changes", StringComparison.Ordinal), "nothing would look different");
        Browser.Click("#apply");
        Browser.Until(() => Browser.Find("#rules").Text.Contains("No looks yet", StringComparison.Ordinal), "gone");
        foreach (var frame in await FramesAsync(id)) Border(frame).GetProperty("width").GetDouble().ShouldBe(8);
    }

    [Fact]
    public async Task Programs_make_change_and_remove_looks_and_are_told_what_cannot_be()
    {
        int id = await Server.NewPublicationAsync("By program");
        int[] frames = await FilledAsync(id, (60, 60, 200, 120), (60, 300, 150, 150));
        int framed = await MadeAsync(id, "Framed", new { border = new { width = 2 }, shadow = new { } }, frames);
        int flat = (await Server.PostAsync($"/api/publications/{id}/looks", new { name = "Flat", basedOnId = framed, sets = new[] { "shadow" } }))
            .GetProperty("id").GetInt32();
        using (var put = await Server.Client.PatchAsJsonAsync($"/api/publications/{id}/frames/{frames[0]}", new { lookId = flat }))
            put.IsSuccessStatusCode.ShouldBeTrue();
        var frame = await FrameAsync(id, frames[0]);
        Look(frame).GetProperty("shadow").ValueKind.ShouldBe(JsonValueKind.Null);
        Border(frame).GetProperty("width").GetDouble().ShouldBe(2);
        foreach (var (body, field) in new (object, string)[]
        {
            (new { name = "" }, "name"), (new { name = "framed" }, "name"), (new { name = "x", basedOnId = 999 }, "basedOnId"),
            (new { name = "x", sets = new[] { "glow" } }, "sets"), (new { name = "x", look = new { opacity = 2 } }, "look.opacity"),
        })
        {
            using var answer = await Server.Client.PostAsJsonAsync($"/api/publications/{id}/looks", body);
            answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
            (await answer.Content.ReadAsStringAsync()).ShouldContain(field);
        }
        using (var looped = await Server.Client.PutAsJsonAsync($"/api/publications/{id}/looks/{framed}", new { name = "Framed", basedOnId = flat }))
            looped.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await Server.Client.DeleteAsync($"/api/publications/{id}/looks/999")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await Server.Client.DeleteAsync($"/api/publications/{id}/looks/{framed}?keep=true")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var after = await FramesAsync(id);
        after.Select(f => Border(f).GetProperty("width").GetDouble()).ShouldBe([2, 2]);
        after.Select(f => Look(f).GetProperty("shadow").ValueKind).ShouldBe([JsonValueKind.Null, JsonValueKind.Object]);
        (await Server.GetAsync($"/api/publications/{id}/looks")).GetArrayLength().ShouldBe(1);
    }
}
