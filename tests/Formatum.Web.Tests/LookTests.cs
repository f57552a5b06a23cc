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
        Browser.Click("#look-blend option[value='Multiply']");
        Frame(id, first, f => Look(f).GetProperty("blend").GetString() == "multiply", "mixed with what lies beneath");
        Type("#look-pictureOpacity", "50" + Keys.Enter);
        Frame(id, first, f => Look(f).GetProperty("pictureOpacity").GetDouble() == 0.5, "the picture's own opacity");
        Browser.Click("#look-shadow");
        Frame(id, first, f => Look(f).GetProperty("shadow").ValueKind == JsonValueKind.Object, "a shadow");
        Type("#look-shadow-blur", "4mm" + Keys.Enter);
        var looked = Look(Frame(id, first, f => Math.Abs(Look(f).GetProperty("shadow").GetProperty("blur").GetDouble() - 4 * 72 / 25.4) < 1e-6, "softer"));
        Browser.Click("#look-innerShadow");
        Frame(id, first, f => Look(f).GetProperty("innerShadow").ValueKind == JsonValueKind.Object, "an inner shadow");
        Type("#look-innerShadow-across", "-2mm" + Keys.Enter);
        Frame(id, first, f => Look(f).GetProperty("innerShadow").GetProperty("across").GetDouble() < 0, "from the right");
        Type("#look-edge", "5mm" + Keys.Enter);
        looked = Look(Frame(id, first, f => Math.Abs(Look(f).GetProperty("softEdge").GetDouble() - 5 * 72 / 25.4) < 1e-6, "a soft edge"));
        Browser.Until(() => Browser.Has($"#frame-{first} mask .shape"), "shown");
        Browser.Find("#more-look summary").Text.ShouldBe("Look: border, background, opacity, shadow, inner shadow, soft edge");
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
        Browser.Until(() => Browser.Has($"#frame-{first} .treated[filter]") && Browser.Has("#treatment-grey\\.red"), "shown grey, and its weights");
        // While it moves, the page shows what the server makes of it, and nothing is stored.
        Slide("brightness", 30, "input");
        Browser.Until(() => Browser.Has($"#frame-{first} filter feFuncR[intercept='0.3']"), "brighter under the hand");
        Treatment(await FrameAsync(id, first)).GetProperty("brightness").GetDouble().ShouldBe(0);
        Slide("brightness", 40, "change");
        Frame(id, first, f => Treatment(f).GetProperty("brightness").GetDouble() == 0.4, "let go, it is stored");
        Type("#treatment-grey\\.red", "120" + Keys.Enter);
        Frame(id, first, f => Treatment(f).GetProperty("grey").GetProperty("red").GetDouble() == 1.2, "typed");
        // Yellows go along with reds and greens until they are set.
        Browser.Until(() => Browser.Find("#treatment-grey\\.yellow").GetAttribute("value") == "191.5", "as light as both");
        Type("#treatment-grey\\.yellow", "50" + Keys.Enter);
        Frame(id, first, f => Treatment(f).GetProperty("grey").GetProperty("yellow").ValueKind == JsonValueKind.Number, "yellows by themselves");
        Type("#treatment-contrast", "200" + Keys.Enter);
        Browser.Until(() => Browser.Find("[data-error-of='look.treatment.contrast']").Text.Contains("-100 to 100", StringComparison.Ordinal), "told why");

        // The histogram of the file stands beside the levels; while its key is held, pictures are shown as their files have them.
        Browser.Until(() => Browser.Run<bool>("return document.querySelector('.histogram').naturalWidth > 0"), "the histogram");
        Slide("white", 80, "change");
        Frame(id, first, f => Treatment(f).GetProperty("white").GetDouble() == 0.8, "the level of white");
        string Filter() => Browser.Run<string>("return getComputedStyle(document.querySelector(arguments[0])).filter", $"#frame-{first} .treated");
        Browser.Send("#canvas", Keys.Null);
        Actions().KeyDown("\\").Perform();
        Browser.Until(() => Filter() == "none", "as the file has it");
        Actions().KeyUp("\\").Perform();
        Browser.Until(() => Filter() != "none", "treated again");
        Slide("blur", 6, "input");
        Browser.Until(() => Browser.Has($"#frame-{first} filter feGaussianBlur[stdDeviation='3']"), "blurred under the hand");
        Slide("blur", 2, "change");
        Frame(id, first, f => Treatment(f).GetProperty("blur").GetDouble() == 2, "blurred");
        Type("#treatment-sharpen\\.amount", "150" + Keys.Enter);
        Frame(id, first, f => Treatment(f).GetProperty("sharpen") is { ValueKind: JsonValueKind.Object } t && t.GetProperty("radius").GetDouble() == 0.85,
            "sharp");
        Type("#treatment-sharpen\\.radius", "40" + Keys.Enter);
        Browser.Until(() => Browser.Find("[data-error-of='look.treatment.sharpen.radius']").Text.Contains("0.05 to 36", StringComparison.Ordinal), "told why");
        Browser.Click("#treatment-tint");
        Frame(id, first, f => Treatment(f).GetProperty("tint") is { ValueKind: JsonValueKind.Object } t && t.GetProperty("strength").GetDouble() == 0.3,
            "tinted");

        Browser.Click("#treatment-on");
        Frame(id, first, f => Treatment(f).GetProperty("off").GetBoolean(), "put aside");
        Browser.Until(() => !Browser.Has($"#frame-{first} .treated[filter]"), "shown as it is");
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

    [Fact]
    public async Task A_border_has_lines_and_places_and_corners_are_shaped()
    {
        int id = await Server.NewPublicationAsync("Bordered");
        int frame = (await FilledAsync(id, (60, 60, 200, 120)))[0];
        Open(id, frame);
        double whole = Placement(await FrameAsync(id, frame)).GetProperty("cropLoss").GetDouble();
        Type("#look-border", "3" + Keys.Enter);
        Browser.Click("#look-border-kind option[value='Double']");
        Browser.Click("#look-border-place option[value='Inside']");
        JsonElement Border(JsonElement f) => Look(f).GetProperty("border");
        Frame(id, frame, f => Border(f).GetProperty("kind").GetString() == "double" && Border(f).GetProperty("place").GetString() == "inside",
            "double, inside");
        Browser.Driver.FindElements(By.CssSelector($"#frame-{frame} .border path")).Count.ShouldBe(2);
        Browser.Click("#more-border summary");
        Type("#look-second", "1" + Keys.Enter);
        Frame(id, frame, f => Border(f).GetProperty("second").ValueKind == JsonValueKind.Object, "a second line");
        Browser.Click("[data-look='border.sides.left']");
        Frame(id, frame, f => Border(f).GetProperty("sides").GetArrayLength() == 3, "without the left side");

        Type("#look-radius", "8mm 0" + Keys.Enter);
        Browser.Click("#look-corners option[value='Bevel']");
        var shaped = Frame(id, frame, f => Look(f).GetProperty("corners") is { ValueKind: JsonValueKind.Object } c && c.GetProperty("kind").GetString()
            == "bevel", "bevelled");
        Look(shaped).GetProperty("corners").GetProperty("radius").EnumerateArray().Select(r => r.GetDouble() * 25.4 / 72)
            .Select(mm => Math.Round(mm, 6)).ShouldBe([8, 0, 8, 0]);
        // More of the picture is cropped: two triangles of 8 mm.
        Placement(shaped).GetProperty("cropLoss").GetDouble().ShouldBeGreaterThan(whole + 0.01);
        Browser.Find($"#frame-{frame} clipPath path");

        // While the frame is sized, its border goes along, and its corners keep their radius.
        string before = Browser.Find($"#frame-{frame} .border").GetAttribute("innerHTML")!;
        var (x, y) = Window(260, 180);
        Actions().MoveToLocation(x, y).ClickAndHold().MoveByOffset(40, 40).Perform();
        Browser.Until(() => Browser.Find($"#frame-{frame} .border").GetAttribute("innerHTML") != before, "the border follows");
        Actions().Release().Perform();
        Frame(id, frame, f => D(f, "width") > 210, "sized");

        Type("#look-radius", "2 3 4 5 6" + Keys.Enter);
        Browser.Until(() => Browser.Find("[data-error-of='look.corners.radius']").Text.Contains("four corners", StringComparison.Ordinal), "told why");
        Type("#look-border", "none" + Keys.Enter);
        Frame(id, frame, f => Border(f).ValueKind == JsonValueKind.Null, "no border");
    }

    [Fact]
    public async Task Programs_give_borders_and_corners_and_are_told_what_cannot_be()
    {
        int id = await Server.NewPublicationAsync("By program");
        int frame = (await FilledAsync(id, (60, 60, 200, 120)))[0];
        async Task<(HttpStatusCode, string)> PutAsync(object look)
        {
            using var answer = await Server.Client.PatchAsJsonAsync($"/api/publications/{id}/frames/{frame}", new { look });
            return (answer.StatusCode, await answer.Content.ReadAsStringAsync());
        }
        (await PutAsync(new
        {
            border = new
            {
                width = "1mm",
                kind = "thick-thin",
                place = "outside",
                dashes = new[] { 4, 2 },
                join = "round",
                sides = new[] { "top", "left" },
                second = new { gap = 2, width = 1, colour = "#7a3b69" }
            },
            corners = new { kind = "notch", radius = new[] { 4, 0 } }
        })).Item1.ShouldBe(HttpStatusCode.OK);
        var look = Look(await FrameAsync(id, frame));
        look.GetProperty("border").GetProperty("kind").GetString().ShouldBe("thick-thin");
        look.GetProperty("border").GetProperty("sides").EnumerateArray().Select(s => s.GetString()).ShouldBe(["top", "left"]);
        look.GetProperty("border").GetProperty("second").GetProperty("colour").GetString().ShouldBe("#7a3b69");
        look.GetProperty("corners").GetProperty("radius").EnumerateArray().Select(r => r.GetDouble()).ShouldBe([4, 0, 4, 0]);
        foreach (var (bad, field) in new (object, string)[]
        {
            (new { border = new { width = 0 } }, "look.border.width"), (new { border = new { width = 1, dashes = Array.Empty<int>() } }, "look.border.dashes"),
            (new { border = new { width = 1, sides = Array.Empty<string>() } }, "look.border.sides"),
            (new { corners = new { radius = 1e9 } }, "look.corners.radius"),
            (new { border = new { width = 1, dashes = Enumerable.Repeat(1, 10_000).ToArray() } }, "look.border.dashes"),
            (new { corners = new { radius = Array.Empty<int>() } }, "look.corners.radius"), (new { corners = new { radius = -4 } }, "look.corners.radius"),
        })
        {
            var (status, text) = await PutAsync(bad);
            status.ShouldBe(HttpStatusCode.BadRequest);
            text.ShouldContain(field);
        }
        (await PutAsync(new { border = new { width = 1, kind = "wavy" } })).Item1.ShouldBe(HttpStatusCode.BadRequest);
        Look(await FrameAsync(id, frame)).ToString().ShouldBe(look.ToString(), "What was refused changed nothing.");
    }
}
