using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>Fitting rules from the Rules screen and from frames, as a person works with them in Chromium.</summary>
public sealed class RulesTests(Workplace place) : InBrowser(place)
{
    private async Task<(int Publication, int Rule, int[] Frames)> BeginAsync()
    {
        int id = await Server.NewPublicationAsync("Ruled", pages: 2, facing: false);
        int rule = (await Server.PostAsync($"/api/publications/{id}/rules", new { name = "Airy", fit = "fit" })).GetProperty("id").GetInt32();
        var frames = await FilledAsync(id, (40, 40, 200, 100), (40, 200, 100, 200));
        await Server.PostAsync($"/api/publications/{id}/rules/{rule}/put", new { frameIds = frames });
        await Server.PostAsync($"/api/publications/{id}/frames", new { page = 2, x = 40, y = 40, width = 120, height = 80 });
        return (id, rule, frames);
    }

    private void OpenRules(int publication, string rule)
    {
        Go($"/publications/{publication}/rules/{rule}");
        Browser.Find("#impact");
    }

    private void Choose(string css, string value) => Browser.Click($"{css} option[value='{value}']");

    private async Task<JsonElement> RuleAsync(int publication, int rule) =>
        (await Server.GetAsync($"/api/publications/{publication}")).GetProperty("rules").EnumerateArray().Single(r => r.GetProperty("id").GetInt32() == rule);

    [Fact]
    public async Task A_change_of_a_rule_is_seen_before_it_happens_applied_and_undone()
    {
        var (id, rule, frames) = await BeginAsync();
        OpenRules(id, $"{rule}");
        Browser.Find("#impact").Text.ShouldContain("2 frames follow Airy");
        string samples = Browser.Find("#rule-samples").GetAttribute("innerHTML")!;

        Choose("#rule-fit", "Fill");
        Browser.Until(() => Browser.Has("[data-touched]"), "the frames it touches");
        // The narrow one loses two thirds of its picture: it comes first.
        Browser.Find("#impact-sum").Text.ShouldStartWith("2 pictures change, 2 for the worse");
        var touched = Browser.Driver.FindElements(By.CssSelector("[data-touched]"));
        touched.Select(t => int.Parse(t.GetAttribute("data-touched")!, null)).ShouldBe([frames[1], frames[0]]);
        touched[0].Text.ShouldContain("0 % \u2192 66.7 %");
        Browser.Until(() => Browser.Find("#rule-samples").GetAttribute("innerHTML") != samples, "the samples follow");
        // Nothing has happened yet.
        Placement(await FrameAsync(id, frames[0])).GetProperty("applied").GetString().ShouldBe("fit");

        Browser.Click("#apply");
        foreach (int frame in frames) Frame(id, frame, f => Placement(f).GetProperty("applied").GetString() == "fill", "applied");
        Browser.Until(() => Browser.Find("#impact").Text.Contains("Nothing is changed", StringComparison.Ordinal), "the sheet anew");
        Browser.Click("#undo");
        foreach (int frame in frames) Frame(id, frame, f => Placement(f).GetProperty("applied").GetString() == "fit", "undone in one");
    }

    [Fact]
    public async Task What_is_typed_wrong_is_told_beside_the_field_and_discarded_without_a_trace()
    {
        var (id, rule, _) = await BeginAsync();
        OpenRules(id, $"{rule}");
        Type("#rule-insetTop", "wide" + Keys.Tab);
        Browser.Until(() => Browser.Find("#error-insetTop").Text.Contains("is not a length", StringComparison.Ordinal), "the refusal");
        Browser.Find("#apply").Enabled.ShouldBeFalse();
        Type("#rule-insetTop", "9000mm" + Keys.Tab);
        Browser.Until(() => Browser.Find("#error-insetTop").Text.Contains("5080 mm at most", StringComparison.Ordinal), "the range");
        // An inset larger than the frame can be: the picture then takes its natural size.
        Type("#rule-insetTop", "300mm" + Keys.Tab);
        Browser.Until(() => Browser.Has("[data-touched]") && Browser.Find("#apply").Enabled, "it can be");
        Browser.Find("#error-insetTop").Text.ShouldBeEmpty();
        Type("#rule-rotation", "15" + Keys.Tab);
        Browser.Until(() => Browser.Find("#source-rotation").Text.StartsWith("set here", StringComparison.Ordinal), "its source");
        Browser.Click("#discard");
        Browser.Until(() => Browser.Find("#rule-insetTop").GetDomProperty("value") == "", "as it was");
        (await RuleAsync(id, rule)).GetProperty("inset").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task A_rule_is_made_based_on_another_made_the_default_duplicated_and_removed()
    {
        var (id, rule, frames) = await BeginAsync();
        OpenRules(id, "new");
        Type("#rule-name", "Tight");
        Choose("#rule-based", $"{rule}");
        Browser.Until(() => Browser.Find("#source-fit").Text == "open: Fit, Airy", "inherited from its base");
        Type("#rule-alignX", "0" + Keys.Tab);
        Browser.Click("input[name=Default]");
        Browser.Until(() => Browser.Find("#impact-sum").Text.Contains("1 empty placeholder", StringComparison.Ordinal), "the default touches what has no rule");
        Browser.Click("#apply");
        Browser.Until(() => Browser.Find("#rule-name").GetDomProperty("value") == "Tight" && Browser.Has(".rule-item[aria-current]"), "the new rule is open");
        var publication = await Server.GetAsync($"/api/publications/{id}");
        int made = publication.GetProperty("defaultRuleId").GetInt32();
        (await RuleAsync(id, made)).GetProperty("basedOnId").GetInt32().ShouldBe(rule);

        // The base cannot be based on it in turn.
        OpenRules(id, $"{rule}");
        Choose("#rule-based", $"{made}");
        Browser.Until(() => Browser.Find("#error-basedOnId").Text.Contains("based on this one", StringComparison.Ordinal), "a loop is refused");
        Browser.Click("#discard");
        Browser.Until(() => Browser.Find("#impact").Text.Contains("Nothing is changed", StringComparison.Ordinal), "discarded");

        Browser.Click("[data-act=Duplicate]");
        Browser.Until(() => Browser.Find("#rule-name").GetDomProperty("value") == "Airy copy", "the copy is open");

        // Removed, with its settings kept where it was: no picture moves.
        OpenRules(id, $"{rule}");
        Browser.Click("[popovertarget=remove-card]");
        Browser.Find("#remove-card").Text.ShouldContain("2 frames have it, 1 rule is based on it");
        Browser.Click("#remove-card input[name=keep]");
        Browser.Click("#remove-card .btn-primary");
        Browser.Until(() => Browser.Find("#impact h2").Text == "Remove Airy", "what it would do");
        Browser.Find("#impact-sum").Text.ShouldStartWith("No picture changes");
        Browser.Click("#apply");
        Browser.Until(() => !Server.GetAsync($"/api/publications/{id}").Result.GetProperty("rules").EnumerateArray()
            .Any(r => r.GetProperty("id").GetInt32() == rule), "removed");
        var frame = await FrameAsync(id, frames[0]);
        frame.GetProperty("ruleId").ValueKind.ShouldBe(JsonValueKind.Null);
        Placement(frame).GetProperty("applied").GetString().ShouldBe("fit");
    }

    [Fact]
    public async Task A_rule_is_put_on_every_empty_placeholder_and_new_publications_start_with_it()
    {
        var (id, rule, _) = await BeginAsync();
        OpenRules(id, $"{rule}");
        Browser.Click("[popovertarget=put-card]");
        Browser.Click("#put-card .btn-primary");
        Browser.Until(() => Browser.Find("#impact h2").Text == "Put Airy on 1 frame", "what it would do");
        Browser.Click("#apply");
        Eventually(id, f => f.All(x => x.GetProperty("ruleId").ValueKind == JsonValueKind.Number), "on all of them");

        Browser.Until(() => Browser.Find("#impact").Text.Contains("3 frames follow", StringComparison.Ordinal), "the sheet anew");
        Browser.Click("[data-act=Start]");
        Browser.Until(() => Browser.Find(".rule-start").Text.StartsWith("New publications start with Airy", StringComparison.Ordinal), "the start is chosen");
        var fresh = await Server.GetAsync($"/api/publications/{await Server.NewPublicationAsync("Fresh")}");
        fresh.GetProperty("rules")[0].GetProperty("name").GetString().ShouldBe("Airy");
        fresh.GetProperty("defaultRuleId").GetInt32().ShouldBe(fresh.GetProperty("rules")[0].GetProperty("id").GetInt32());

        Browser.Click(".rule-start button");
        Browser.Until(() => Browser.Find(".rule-start").Text.StartsWith("New publications start with the built-in settings", StringComparison.Ordinal),
            "the start is dropped");
        (await Server.GetAsync($"/api/publications/{await Server.NewPublicationAsync("Plain")}")).GetProperty("rules").GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task What_is_set_on_frames_themselves_is_told_before_a_rule_is_put_on_them_and_can_be_cleared()
    {
        var (id, rule, frames) = await BeginAsync();
        using (var answer = await Server.Client.PatchAsJsonAsync($"/api/publications/{id}/frames/{frames[0]}", new { set = new { rotation = 20 } }))
            answer.IsSuccessStatusCode.ShouldBeTrue();
        OpenRules(id, $"{rule}");
        void Look(bool clear)
        {
            Browser.Click("[popovertarget=put-card]");
            Browser.Click("#put-card [value=All]");
            if (clear) Browser.Click("#put-card [name=clear]");
            Browser.Click("#put-card .btn-primary");
        }
        Look(clear: false);
        Browser.Until(() => Browser.Find("#impact").Text.Contains("1 frame has settings of its own, which stay over the rule: rotation.",
            StringComparison.Ordinal), "what stays");
        Look(clear: true);
        Browser.Until(() => Browser.Find("#impact").Text.Contains("1 frame has settings of its own, which go: rotation.", StringComparison.Ordinal),
            "what goes");
        Browser.Click("#apply");
        Frame(id, frames[0], f => f.GetProperty("set").GetProperty("rotation").ValueKind == JsonValueKind.Null, "cleared");
    }

    [Fact]
    public async Task Leaving_with_a_change_that_is_not_applied_is_asked_about_and_applying_it_is_not()
    {
        var (id, rule, _) = await BeginAsync();
        OpenRules(id, $"{rule}");
        Type("#rule-rotation", "15" + Keys.Tab);
        Browser.Until(() => Browser.Find("#apply").Enabled, "a change is under way");
        Browser.Run<bool>("const e = new Event('beforeunload', { cancelable: true }); window.dispatchEvent(e); return e.defaultPrevented;").ShouldBeTrue();
        // Asked last: what the page itself has said by then.
        Browser.Run<object?>("addEventListener('beforeunload', e => sessionStorage.setItem('asked', e.defaultPrevented)); return null;");
        Browser.Click("#apply");
        Browser.Until(() => Browser.Find("#impact").Text.Contains("Nothing is changed", StringComparison.Ordinal), "the sheet anew");
        Browser.Run<string?>("return sessionStorage.getItem('asked')").ShouldNotBe("true");
    }

    [Fact]
    public async Task A_frame_that_was_set_up_becomes_a_rule_and_a_rule_becomes_like_a_frame()
    {
        var (id, rule, frames) = await BeginAsync();
        OpenDesk(id);
        Click(Window(140, 90));
        Browser.Click("[aria-label='Top left']");
        Browser.Until(() => Browser.Find(".align-choice legend").Text.Contains("set here", StringComparison.Ordinal), "set here");
        // Its source value stands beside it.
        Browser.Find(".align-choice legend").Text.ShouldContain("built in: 50 %");
        Browser.Click("#more-rule summary");
        Type("#rule-name", "Corner");
        Browser.Click("#make-rule .btn-primary");
        var frame = Frame(id, frames[0], f => f.GetProperty("ruleId").GetInt32() != rule, "it has the new rule");
        frame.GetProperty("set").GetProperty("align").ValueKind.ShouldBe(JsonValueKind.Null);
        var made = await RuleAsync(id, frame.GetProperty("ruleId").GetInt32());
        made.GetProperty("name").GetString().ShouldBe("Corner");
        made.GetProperty("basedOnId").GetInt32().ShouldBe(rule);
        made.GetProperty("rotation").ValueKind.ShouldBe(JsonValueKind.Null);

        // Set something more, and push it back into the rule by way of the Rules screen.
        Browser.Until(() => Browser.Find(".align-choice legend").Text.Contains("from Corner", StringComparison.Ordinal), "inherited now");
        Browser.Click("[data-fit=Stretch]");
        Frame(id, frames[0], f => f.GetProperty("set").GetProperty("fit").GetString() == "stretch", "set here again");
        Browser.Until(() => Browser.Has("#more-rule a"), "the way to the rule");
        Browser.Click("#more-rule a");
        Browser.Until(() => Browser.Has("#impact h2") && Browser.Find("#impact").Text.Contains("Takes on what is set on", StringComparison.Ordinal),
            "the rule as it would be");
        Browser.Click("#apply");
        Frame(id, frames[0], f => f.GetProperty("set").GetProperty("fit").ValueKind == JsonValueKind.Null, "nothing is set there any more");
        (await RuleAsync(id, frame.GetProperty("ruleId").GetInt32())).GetProperty("fit").GetString().ShouldBe("stretch");
    }

    [Fact]
    public async Task Two_windows_on_one_rule_never_overwrite_each_other()
    {
        var (id, rule, _) = await BeginAsync();
        OpenRules(id, $"{rule}");
        Type("#rule-rotation", "15" + Keys.Tab);
        Browser.Until(() => Browser.Find("#apply").Enabled, "a change is under way");
        using (var other = await Server.Client.PutAsJsonAsync($"/api/publications/{id}/rules/{rule}", new { name = "Airy", fit = "shrink" }))
            other.IsSuccessStatusCode.ShouldBeTrue();
        Browser.Until(() => Browser.Has("#elsewhere:not([hidden])"), "told of the other window");
        // What is typed on is shown without that going.
        Type("#rule-rotation", "15" + Keys.Tab);
        Browser.Until(() => Browser.Find("#apply").Enabled, "a change is under way");
        Browser.Has("#elsewhere:not([hidden])").ShouldBeTrue();
        Browser.Click("#apply");
        Browser.Until(() => Browser.Has(".notice") && Browser.Find(".notice").Text.Contains("The rule Airy was changed by a program",
            StringComparison.Ordinal), "the clash");
        Browser.Find("#rule-rotation").GetDomProperty("value").ShouldBe("15");
        var stands = await RuleAsync(id, rule);
        stands.GetProperty("fit").GetString().ShouldBe("shrink");
        stands.GetProperty("rotation").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task Apply_pressed_while_what_was_typed_is_still_looked_at_applies_all_of_it()
    {
        var (id, rule, _) = await BeginAsync();
        OpenRules(id, $"{rule}");
        Type("#rule-rotation", "15" + Keys.Tab);
        Browser.Until(() => Browser.Find("#apply").Enabled, "a change is under way");
        Type("#rule-rotation", "30");
        Actions().ClickAndHold(Browser.Find("#apply")).Pause(TimeSpan.FromMilliseconds(500)).Release().Perform();
        Browser.Until(() => RuleAsync(id, rule).Result.GetProperty("rotation") is { ValueKind: JsonValueKind.Number } r && r.GetDouble() == 30, "applied");

        // And no look at what is typed takes the place of applying it.
        Browser.Until(() => Browser.Find("#impact").Text.Contains("Nothing is changed", StringComparison.Ordinal), "the sheet anew");
        Type("#rule-rotation", "45" + Keys.Tab);
        Browser.Until(() => Browser.Find("#apply").Enabled, "a change is under way");
        Browser.Run<object?>("""
            document.getElementById('apply').click();
            document.getElementById('rule-name').dispatchEvent(new Event('change', { bubbles: true }));
            return null;
            """);
        Browser.Until(() => RuleAsync(id, rule).Result.GetProperty("rotation").GetDouble() == 45, "applied all the same");
        Browser.Until(() => Browser.Find("#impact").Text.Contains("Nothing is changed", StringComparison.Ordinal), "the sheet anew");
    }
}
