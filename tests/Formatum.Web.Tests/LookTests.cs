using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>Border, background, opacity and shadow of frames, in Chromium and by the automation interface.</summary>
public sealed class LookTests(Workplace place) : InBrowser(place)
{
    private static JsonElement Look(JsonElement frame) => frame.GetProperty("look");

    private void Open(int id, int frame)
    {
        Go($"/publications/{id}/desk/1?frame={frame}");
        Browser.Find("#desk[data-ready]");
        Browser.Click("#more-look summary");
    }

    /// <summary>Sets a field that has no text to type over, as its picker does.</summary>
    private void Pick(string css, string value)
    {
        Settled();
        Browser.Run<object?>("const f = document.querySelector(arguments[0]); f.value = arguments[1]; f.dispatchEvent(new Event('change', { bubbles: true " +
            "})); return null;", css, value);
    }

    [Fact]
    public async Task A_look_is_set_seen_pasted_and_undone()
    {
        int id = await Server.NewPublicationAsync("Looks");
        int[] frames = await FilledAsync(id, (60, 60, 200, 120), (60, 300, 150, 150));
        int first = frames[0], second = frames[1];
        Open(id, first);
        Type("#look-border", "2" + Keys.Enter);
        Frame(id, first, f => Look(f).GetProperty("border").ValueKind == JsonValueKind.Object, "a border");
        Pick("input[data-look='border.colour']", "#2f6f4f");
        Frame(id, first, f => Look(f).GetProperty("border").GetProperty("colour").GetString() == "#2f6f4f", "its colour");
        Browser.Click("#look-background");
        Frame(id, first, f => Look(f).GetProperty("background").ValueKind == JsonValueKind.String, "a background");
        Type("#look-opacity", "60" + Keys.Enter);
        Frame(id, first, f => Look(f).GetProperty("opacity").GetDouble() == 0.6, "opacity");
        Browser.Click("#look-shadow");
        Frame(id, first, f => Look(f).GetProperty("shadow").ValueKind == JsonValueKind.Object, "a shadow");
        Type("#look-blur", "4mm" + Keys.Enter);
        var looked = Look(Frame(id, first, f => Math.Abs(Look(f).GetProperty("shadow").GetProperty("blur").GetDouble() - 4 * 72 / 25.4) < 1e-6, "softer"));
        Browser.Find("#more-look summary").Text.ShouldBe("Look: border, background, opacity, shadow");
        Browser.Run<string>($"return document.querySelector('#frame-{first} [stroke]').getAttribute('stroke-width') + ' ' + " +
            $"document.querySelector('#frame-{first} [opacity]').getAttribute('opacity')").ShouldBe("2 0.6");

        // What cannot be stands beside the field, and the look stays.
        Type("#look-opacity", "160" + Keys.Enter);
        Browser.Until(() => Browser.Find("[data-error-of='look.opacity']").Text.Contains("from 0 to 1", StringComparison.Ordinal), "told why");
        Look(await FrameAsync(id, first)).ToString().ShouldBe(looked.ToString());

        // While the frame is sized, its border and shadow go along.
        Browser.Send("#canvas", Keys.Escape);
        Browser.Click($"#frame-{second}");
        Browser.Until(() => Browser.Has($"#inspector [data-chosen='{second}']"), "the other is chosen");
        Browser.Click("#paste-look");
        Browser.Until(() => Browser.Has(".notice") && Browser.Find(".notice").Text.Contains("Copy the frame whose look", StringComparison.Ordinal),
            "nothing was copied yet");
        Browser.Click($"#frame-{first}");
        Browser.Until(() => Browser.Has($"#inspector [data-chosen='{first}']"), "the first is chosen");
        Browser.Send("#canvas", Keys.Control + "c");
        Browser.Click($"#frame-{second}");
        Browser.Until(() => Browser.Has($"#inspector [data-chosen='{second}']"), "the other again");
        var before = await FrameAsync(id, second);
        Browser.Click("#paste-look");
        var pasted = Frame(id, second, f => Look(f).ToString() == looked.ToString(), "the same look");
        foreach (string kept in new[] { "x", "width", "ruleId", "imageId", "recrop", "set" })
            pasted.GetProperty(kept).ToString().ShouldBe(before.GetProperty(kept).ToString(), kept);
        Browser.Click("#undo");
        Frame(id, second, f => Look(f).GetProperty("border").ValueKind == JsonValueKind.Null, "undone");
    }

    private static JsonElement Treatment(JsonElement frame) => Look(frame).GetProperty("treatment");

    private void OpenTreatment(int id, int frame)
    {
        Go($"/publications/{id}/desk/1?frame={frame}");
        Browser.Find("#desk[data-ready]");
        Browser.Click("#more-treatment summary");
    }

    private void Slide(string name, int value, string kind) =>
        Browser.Run<object?>("const f = document.querySelector(`[data-slides=\"treatment-${arguments[0]}\"]`); " +
        "f.value = arguments[1]; f.dispatchEvent(new Event(arguments[2], { bubbles: true })); return null;", name, value, kind);

    [Fact]
    public async Task A_picture_is_treated_while_a_slider_moves_and_its_figures_can_be_put_aside()
    {
        int id = await Server.NewPublicationAsync("Treated");
        int[] frames = await FilledAsync(id, (60, 60, 200, 120), (60, 300, 150, 150));
        int first = frames[0];
        OpenTreatment(id, first);
        Browser.Click("#treatment-grey");
        Frame(id, first, f => Treatment(f) is { ValueKind: JsonValueKind.Object } t && t.GetProperty("grey").GetProperty("green").GetDouble() == 0.715, "grey");
        Browser.Until(() => Browser.Has($"#frame-{first} image[filter]") && Browser.Has("#treatment-grey\\.red"), "shown grey, and its weights");
        // While it moves, the page shows what the server makes of it, and nothing is stored.
        Slide("brightness", 30, "input");
        Browser.Until(() => Browser.Has($"#frame-{first} filter feFuncR[intercept='0.3']"), "brighter under the hand");
        Treatment(await FrameAsync(id, first)).GetProperty("brightness").GetDouble().ShouldBe(0);
        Slide("brightness", 40, "change");
        Frame(id, first, f => Treatment(f).GetProperty("brightness").GetDouble() == 0.4, "let go, it is stored");
        Type("#treatment-grey\\.red", "120" + Keys.Enter);
        Frame(id, first, f => Treatment(f).GetProperty("grey").GetProperty("red").GetDouble() == 1.2, "typed");
        Type("#treatment-contrast", "200" + Keys.Enter);
        Browser.Until(() => Browser.Find("[data-error-of='look.treatment.contrast']").Text.Contains("-100 to 100", StringComparison.Ordinal), "told why");

        Browser.Click("#treatment-on");
        Frame(id, first, f => Treatment(f).GetProperty("off").GetBoolean(), "put aside");
        Browser.Until(() => !Browser.Has($"#frame-{first} image[filter]"), "shown as it is");
        Browser.Click("#treatment-on");
        Frame(id, first, f => !Treatment(f).GetProperty("off").GetBoolean() && Treatment(f).GetProperty("brightness").GetDouble() == 0.4,
            "on again, with its figures");
        Browser.Click("#treatment-reset");
        Frame(id, first, f => Treatment(f).ValueKind == JsonValueKind.Null, "reset");
        Browser.Driver.FindElements(By.CssSelector("#more-treatment button")).Single(b => b.Text == "Grey for the page").Click();
        Frame(id, frames[1], f => Treatment(f).ValueKind == JsonValueKind.Object, "all of the page are grey");
        Settled();
        Browser.Send("#canvas", Keys.Control + "z");
        Frame(id, frames[1], f => Treatment(f).ValueKind == JsonValueKind.Null, "in one step");
    }

    [Fact]
    public async Task A_border_follows_an_edge_that_is_drawn()
    {
        int id = await Server.NewPublicationAsync("Drawn looks");
        int frame = (await FilledAsync(id, (100, 100, 200, 120)))[0];
        using (var set = await Server.Client.PatchAsJsonAsync($"/api/publications/{id}/frames/{frame}", new { look = new { border = new { width = "1mm" } } }))
            set.StatusCode.ShouldBe(HttpStatusCode.OK);
        Go($"/publications/{id}/desk/1?frame={frame}");
        Browser.Find("#desk[data-ready]");
        var (from, to) = (Window(300, 160), Window(360, 160));
        Actions().MoveToLocation(from.X, from.Y).ClickAndHold().MoveToLocation((from.X + to.X) / 2, to.Y).MoveToLocation(to.X, to.Y).Perform();
        Browser.Until(() => Browser.Run<bool>($"return Number(document.querySelector('#frame-{frame} [stroke]').getAttribute('width')) > 250"),
            "the border goes along, before the edge is let go");
        Actions().Release().Perform();
        Frame(id, frame, f => D(f, "width") > 250, "let go");
    }

    [Fact]
    public async Task Programs_give_a_look_and_are_told_what_cannot_be()
    {
        int id = await Server.NewPublicationAsync("Looks by program");
        var made = await Server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = 1,
            x = 10,
            y = 10,
            width = 50,
            height = 50,
            look = new { background = "#DFE5D8", shadow = new { across = "2mm" } }
        });
        Look(made).GetProperty("background").GetString().ShouldBe("#dfe5d8");
        D(Look(made).GetProperty("shadow"), "across").ShouldBe(2 * 72 / 25.4, 1e-9);
        D(Look(made).GetProperty("shadow"), "strength").ShouldBe(0.35);
        string address = $"/api/publications/{id}/frames/{made.GetProperty("id").GetInt32()}";
        foreach (object bad in new object[] { new { opacity = 2 }, new { background = "red" }, new { border = new { width = 0 } },
            new { shadow = new { blur = -1 } } })
        {
            using var answer = await Server.Client.PatchAsJsonAsync(address, new { look = bad });
            answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        }
        Look(await FrameAsync(id, made.GetProperty("id").GetInt32())).ToString().ShouldBe(Look(made).ToString());
    }
}
