using System.Text.Json;
using Formatum.Testing;
using Formatum.Web.Wording;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace Formatum.Web.Tests;

/// <summary>Pictures under the hand in Chromium: held, recropped, their subjects, frames made to measure, figures over them.</summary>
public sealed class PictureTests(Workplace place) : InBrowser(place)
{
    private int _id, _frame;

    private async Task BeginAsync(params (double X, double Y, double Width, double Height)[] more)
    {
        _id = await Server.NewPublicationAsync("Pictures", pages: 1, facing: false);
        _frame = (await FilledAsync(_id, [(100, 100, 300, 150), .. more]))[0];
        OpenDesk(_id);
    }

    private double[] Matrix() => [.. Placement(FrameAsync(_id, _frame).Result).GetProperty("matrix").EnumerateArray().Select(v => v.GetDouble())];

    private JsonElement Recrop() => FrameAsync(_id, _frame).Result.GetProperty("recrop");

    private void Inside()
    {
        DoubleClick(Window(250, 175));
        Browser.Find("[data-inside=yes]");
        Browser.Find("#inside .picture-edge");
    }

    [Fact]
    public async Task A_frame_that_stays_fitted_refits_as_it_is_drawn_and_one_that_does_not_crops()
    {
        await BeginAsync();
        Click(Window(250, 175));
        Browser.Find("#set-staysFitted").Selected.ShouldBeTrue();
        string Shown() => Browser.Find("#frames image").GetAttribute("transform")!;
        double[] before = Matrix();

        string shown = Shown();
        var grip = Window(400, 250);
        Actions().MoveToLocation(grip.X, grip.Y).ClickAndHold().MoveToLocation(grip.X + 60, grip.Y + 80).Perform();
        Browser.Until(() => Shown() != shown, "the picture follows the frame");
        Actions().Release().Perform();
        Frame(_id, _frame, f => D(f, "height") > 200, "drawn larger");
        Placement(await FrameAsync(_id, _frame)).GetProperty("bareArea").GetDouble().ShouldBe(0, 1e-9);
        Math.Abs(Matrix()[0] - before[0]).ShouldBeGreaterThan(1);

        // Undone, then held: the picture stays as it lies on the page.
        Browser.Send("#canvas", Keys.Control + "z");
        Frame(_id, _frame, f => Math.Abs(D(f, "height") - 150) < 1e-9, "undone");
        Browser.Until(() => Shown() == shown, "as it was");
        Browser.Click("#set-staysFitted");
        Frame(_id, _frame, f => f.GetProperty("set").TryGetProperty("staysFitted", out var s) && s.ValueKind == JsonValueKind.False, "it holds");
        Browser.Until(() => Browser.Has("[data-do=fit-once]"), "it can be fitted once");
        Drag(Window(400, 250), Window(500, 320));
        var larger = Frame(_id, _frame, f => D(f, "height") > 200, "drawn larger");
        Matrix().ShouldBe(before, 1e-6);
        Browser.Until(() => Browser.Find(".fit-choice").Text.Contains("Holds as it lies", StringComparison.Ordinal), "it is said");
        Browser.Has(".fit-choice [aria-pressed=true]").ShouldBeFalse("it lies by no fit now");
        Placement(larger).GetProperty("bareArea").GetDouble().ShouldBeGreaterThan(0.1);
        Placement(larger).GetProperty("flags").EnumerateArray().Select(f => f.GetString()).ShouldContain("holds");

        Browser.Click("[data-do=fit-once]");
        Frame(_id, _frame, f => Placement(f).GetProperty("bareArea").GetDouble() < 1e-9, "fitted once");
        Browser.Until(() => Browser.Has(".fit-choice [data-fit=Fill][aria-pressed=true]"), "by Fill again");
    }

    [Fact]
    public async Task A_picture_is_gone_into_panned_zoomed_turned_nudged_typed_and_left_again()
    {
        await BeginAsync();
        Inside();
        double[] before = Matrix();

        // Panned upwards by the pointer; no bare area stops it at the picture's edge.
        Drag(Window(250, 175), Window(250, 150));
        Frame(_id, _frame, f => f.GetProperty("recrop").GetProperty("point").ValueKind == JsonValueKind.Array, "panned");
        (Matrix()[5] - before[5]).ShouldBe(-25, 1.5);
        Drag(Window(250, 150), Window(250, 600));
        Frame(_id, _frame, f => Math.Abs(Placement(f).GetProperty("matrix")[5].GetDouble()) < 1e-6, "stopped at its edge");
        Placement(await FrameAsync(_id, _frame)).GetProperty("bareArea").GetDouble().ShouldBe(0, 1e-9);

        // Zoomed by the wheel about the pointer, which keeps what lies under it.
        double[] was = Matrix();
        var at = Window(200, 175);
        new Actions(Browser.Driver).ScrollFromOrigin(new WheelInputDevice.ScrollOrigin { Viewport = true, XOffset = at.X, YOffset = at.Y }, 0, -240).Perform();
        Frame(_id, _frame, f => Placement(f).GetProperty("matrix")[0].GetDouble() > was[0] * 1.2, "zoomed");
        double[] now = Matrix();
        double u = (100 - was[4]) / was[0];
        (now[4] + u * now[0]).ShouldBe(100, 1.5);
        (now[0] / now[3]).ShouldBe(was[0] / was[3], 1e-6);

        // By its corner, by the slider, by keys.
        Browser.Until(() => Browser.Has("#grips [data-grip=se]"), "its corners");
        var corner = Browser.Run<IReadOnlyCollection<object>>("const r = document.querySelector('#grips [data-grip=nw]').getBoundingClientRect(); return " +
            "[r.x + r.width / 2, r.y + r.height / 2]").Select(Convert.ToDouble).ToArray();
        Drag(((int)corner[0], (int)corner[1]), ((int)corner[0] - 60, (int)corner[1] - 40));
        Frame(_id, _frame, f => Placement(f).GetProperty("matrix")[0].GetDouble() > now[0] * 1.05, "drawn larger by its corner");
        double zoom = Recrop().GetProperty("zoom").GetDouble();
        Browser.Send("#canvas", "+");
        Frame(_id, _frame, f => f.GetProperty("recrop").GetProperty("zoom").GetDouble() > zoom * 1.04, "zoomed by key");
        Browser.Driver.ExecuteScript("const s = document.getElementById('zoom-slide'); s.value = 1; s.dispatchEvent(new Event('input', { bubbles: true " +
            "})); s.dispatchEvent(new Event('change', { bubbles: true }));");
        Frame(_id, _frame, f => Math.Abs(f.GetProperty("recrop").GetProperty("zoom").GetDouble() - 2) < 1e-6, "the slider at one doubling");
        was = Matrix();
        Browser.Send("#canvas", Keys.ArrowDown);
        Frame(_id, _frame, f => Math.Abs(Placement(f).GetProperty("matrix")[5].GetDouble() - was[5] - 72 / 25.4) < 1e-6, "nudged by a millimetre");

        // Turned by its handle, then by numbers.
        var handle = Browser.Run<IReadOnlyCollection<object>>("const r = document.querySelector('#grips [data-grip=turn]').getBoundingClientRect(); " +
            "return [r.x + r.width / 2, r.y + r.height / 2]").Select(Convert.ToDouble).ToArray();
        Drag(((int)handle[0], (int)handle[1]), ((int)handle[0] + 40, (int)handle[1]));
        Frame(_id, _frame, f => f.GetProperty("recrop").GetProperty("turn").GetDouble() > 1, "turned");
        Browser.Until(() => Browser.Find("#picture-angle").GetDomProperty("value") != "0\u00b0", "its angle is shown");
        Type("#picture-angle", "10" + Keys.Tab);
        Frame(_id, _frame, f => Math.Abs(f.GetProperty("recrop").GetProperty("turn").GetDouble() - 10) < 1e-6, "10 degrees");
        Browser.Until(() => Browser.Find("#picture-angle").GetDomProperty("value") == "10\u00b0", "shown");
        Type("#picture-scaleX", "120 %" + Keys.Tab);
        Frame(_id, _frame, f => Math.Abs(Placement(f).GetProperty("scale")[0].GetDouble() - 1.2) < 1e-6
            && Math.Abs(Placement(f).GetProperty("scale")[1].GetDouble() - 1.2) < 1e-6, "both scales, linked");
        Browser.Until(() => Browser.Find("#picture-scaleX").GetDomProperty("value") == "120 %", "shown");
        Browser.Click("#scales-linked");
        Type("#picture-scaleY", "150" + Keys.Tab);
        Frame(_id, _frame, f => Math.Abs(Placement(f).GetProperty("scale")[1].GetDouble() - 1.5) < 1e-6, "unlinked");
        Browser.Until(() => Browser.Find("#inspector").Text.Contains("Distortion", StringComparison.Ordinal), "the distortion is told");
        Placement(await FrameAsync(_id, _frame)).GetProperty("scale")[0].GetDouble().ShouldBe(1.2, 1e-6);
        Type("#picture-angle", "askew" + Keys.Tab);
        Browser.Until(() => Browser.Find("#picture-angle-error").Text.Contains("is not an angle", StringComparison.Ordinal), "the refusal");

        // Left by Escape; it survives another size of the frame and back; reset.
        Browser.Send("#canvas", Keys.Escape);
        Browser.Until(() => !Browser.Has("[data-inside=yes]") && Browser.Has("#frame-width"), "outside again");
        was = Matrix();
        string recrop = Recrop().GetRawText();
        Type("#frame-width", "60mm" + Keys.Enter);
        Frame(_id, _frame, f => Math.Abs(D(f, "width") - 60 / 25.4 * 72) < 1e-6, "narrower");
        Recrop().GetRawText().ShouldBe(recrop);
        Browser.Until(() => Browser.Find("#frame-width").GetDomProperty("value") == "60", "shown");
        Type("#frame-width", "300pt" + Keys.Enter);
        Frame(_id, _frame, f => Math.Abs(D(f, "width") - 300) < 1e-6, "as wide as before");
        Matrix().ShouldBe(was, 1e-6);
        Browser.Until(() => Browser.Has("[data-do=picture-reset]"), "it can be reset");
        Browser.Click("[data-do=picture-reset]");
        Frame(_id, _frame, f => f.GetProperty("recrop").GetProperty("point").ValueKind == JsonValueKind.Null, "reset");
        Matrix().ShouldBe(before, 1e-6);
    }

    [Fact]
    public async Task Two_fingers_zoom_and_carry_a_picture()
    {
        await BeginAsync();
        Browser.Send("#frames .frame", Keys.Enter);
        Browser.Until(() => Browser.Find("[data-chosen]").GetAttribute("data-chosen") == $"{_frame}", "chosen by key");
        Browser.Send("#frames .frame", Keys.Enter);
        Browser.Find("[data-inside=yes]");
        Browser.Find("#inside .picture-edge");
        double before = Matrix()[0];

        var one = new PointerInputDevice(PointerKind.Touch, "one");
        var two = new PointerInputDevice(PointerKind.Touch, "two");
        (int X, int Y) middle = Window(250, 175);
        ActionSequence Finger(PointerInputDevice finger, int side)
        {
            var sequence = new ActionSequence(finger);
            sequence.AddAction(finger.CreatePointerMove(CoordinateOrigin.Viewport, middle.X + side * 30, middle.Y, TimeSpan.Zero));
            sequence.AddAction(finger.CreatePointerDown(MouseButton.Touch));
            for (int step = 1; step <= 3; step++)
                sequence.AddAction(finger.CreatePointerMove(CoordinateOrigin.Viewport, middle.X + side * (30 + 20 * step), middle.Y,
                    TimeSpan.FromMilliseconds(60)));
            sequence.AddAction(finger.CreatePointerUp(MouseButton.Touch));
            return sequence;
        }
        Browser.Driver.PerformActions([Finger(one, -1), Finger(two, 1)]);
        Frame(_id, _frame, f => Placement(f).GetProperty("matrix")[0].GetDouble() > before * 2, "about three times as large");
    }

    [Fact]
    public async Task A_subject_point_is_suggested_accepted_set_and_used_where_the_picture_is_placed()
    {
        await BeginAsync((100, 300, 60, 200));
        Browser.Click("#suggest-all");
        Browser.Until(() => Browser.Has(".thumb-subject.is-suggested"), "suggested");
        var image = (await Server.GetAsync($"/api/publications/{_id}")).GetProperty("images")[0];
        image.GetProperty("subject").ValueKind.ShouldBe(JsonValueKind.Null);
        image.GetProperty("suggestedSubject").ValueKind.ShouldBe(JsonValueKind.Array);

        Actions().MoveToElement(Browser.Find(".thumb")).Perform();
        Browser.Click(".thumb-subject");
        Browser.Find("#subject-dialog[open] .subject-mark.suggested");
        Browser.Click("[data-subject-do=subject-accept]");
        Browser.Until(() => Browser.Has("#subject-dialog .subject-mark:not(.suggested)"), "accepted");

        // Set by a click at the left edge: the narrow frame then shows that edge.
        var field = Browser.Find("#subject-field img");
        Actions().MoveToElement(field, -(field.Size.Width / 2) + 12, 0).Click().Perform();
        Browser.Until(() => Server.GetAsync($"/api/publications/{_id}").Result.GetProperty("images")[0].GetProperty("subject")[0].GetDouble() < 0.06, "set");
        Browser.Click("[data-subject-do=close]");
        var narrow = (await FramesAsync(_id)).Single(f => D(f, "width") == 60);
        Placement(narrow).GetProperty("matrix")[4].GetDouble().ShouldBe(0, 1e-6);
        string shown = Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("#frames image")).ElementAtOrDefault(1)?.GetAttribute("transform"),
            "the narrow frame")!;
        shown.ShouldEndWith(" 0 0)");
    }

    [Fact]
    public async Task A_frame_takes_the_size_of_its_picture_and_several_frames_change_at_once()
    {
        await BeginAsync((100, 300, 60, 200), (250, 300, 120, 120));
        Click(Window(250, 175));
        Browser.Until(() => Browser.Has("#more-measure"), "the inspector");
        Browser.Click("#more-measure summary");
        Browser.Click("[data-reference='1,1']");
        Browser.Click("[data-takes=NaturalSize]");
        // 600 x 400 pixels at 300 ppi are 144 x 96 points; the lower right corner stays.
        var frame = Frame(_id, _frame, f => Math.Abs(D(f, "width") - 144) < 1e-6, "natural size");
        D(frame, "height").ShouldBe(96, 1e-6);
        (D(frame, "x") + 144).ShouldBe(400, 1e-6);
        (D(frame, "y") + 96).ShouldBe(250, 1e-6);
        Placement(frame).GetProperty("cropLoss").GetDouble().ShouldBe(0, 1e-9);

        // Shift chooses one more, a frame drawn over the table several, Ctrl+A all.
        Click(Window(330, 200));
        Actions().KeyDown(Keys.Shift).MoveToLocation(Window(310, 360).X, Window(310, 360).Y).Click().KeyUp(Keys.Shift).Perform();
        Browser.Until(() => Browser.Find("#inspector h2").Text == "2 frames", "two are chosen");
        Browser.Click("[data-fit=Stretch]");
        Eventually(_id, f => f.Count(x => x.GetProperty("set").GetProperty("fit").GetString() == "stretch") == 2, "both");
        Drag(Window(80, 280), Window(420, 520));
        Browser.Until(() => Browser.Find("[data-chosen]").GetAttribute("data-chosen")!.Split(',').Length == 2, "those the pointer went over");
        Browser.Send("#canvas", Keys.Control + "a");
        Browser.Until(() => Browser.Find("#inspector h2").Text == "3 frames", "all");
        Browser.Until(() => Browser.Find(".fit-choice legend").Text.Contains("set on 2 of 3", StringComparison.Ordinal), "they differ");
        Browser.Click("[data-do=clear]");
        Eventually(_id, f => f.All(x => x.GetProperty("set").GetProperty("fit").ValueKind == JsonValueKind.Null), "all cleared");
    }

    [Fact]
    public async Task Figures_and_sharpness_are_shown_over_the_whole_spread()
    {
        await BeginAsync((100, 300, 460, 460));
        Browser.Driver.FindElements(By.CssSelector(".frame .sharpness")).ShouldAllBe(e => !e.Displayed);
        Browser.Click("[data-overlay=sharpness]");
        string[] Words() => [.. Browser.Driver.FindElements(By.CssSelector(".frame .sharpness text")).Select(e => e.Text)];
        // 300 points wide from 600 pixels at 300 ppi are 144 ppi; 460 high from 400 pixels 63.
        Words()[0].ShouldContain("144 ppi too coarse");
        Words()[1].ShouldContain("63 ppi too coarse");
        Browser.Click("[data-overlay=figures]");
        Browser.Driver.FindElements(By.CssSelector(".frame .sharpness")).ShouldAllBe(e => !e.Displayed);
        var lines = Browser.Driver.FindElements(By.CssSelector(".frame .figures tspan")).Take(4).Select(e => e.Text).ToArray();
        lines.ShouldBe(["208.3 %", "144 ppi", "crop 25 %", "bare 0 %"]);
        // While a frame is drawn, its figures follow.
        Click(Window(250, 175));
        Browser.Until(() => Browser.Has("#grips [data-grip=e]"), "its grips");
        var grip = Window(400, 175);
        Actions().MoveToLocation(grip.X, grip.Y).ClickAndHold().MoveToLocation(grip.X - 80, grip.Y).Perform();
        Browser.Until(() => Browser.Find(".frame .figures tspan:nth-child(3)").Text != "crop 25 %", "they follow");
        Actions().Release().Perform();
    }
}
