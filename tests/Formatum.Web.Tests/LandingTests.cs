using System.Net;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>Pictures that are pasted or dropped, stars, sample words, the page clean, drawing without snapping, and a drag while nobody answers.</summary>
public sealed class LandingTests(Workplace place) : InBrowser(place)
{
    private int _id;

    private async Task BeginAsync()
    {
        _id = await Server.NewPublicationAsync("Landing", pages: 1, facing: false);
        OpenDesk(_id);
    }

    private static bool IsFilled(JsonElement frame) => frame.GetProperty("imageId").ValueKind == JsonValueKind.Number;

    /// <summary>A picture of so many pixels at 300 ppi, as a page's script takes it.</summary>
    private string Jpeg(int width, int height)
    {
        using var picture = TestPictures.Quarters(width, height);
        return Convert.ToBase64String(File.ReadAllBytes(TestPictures.Save(picture, Pictures["landing.jpg"], 300)));
    }

    private const string Data = "const data = new DataTransfer(); data.items.add(new File([Uint8Array.from(atob(arguments[0]), c => c.charCodeAt(0))], " +
        "'image.jpg', { type: 'image/jpeg' })); ";

    private void Paste(string jpeg) => Browser.Driver.ExecuteScript(Data + "document.activeElement.dispatchEvent(new ClipboardEvent('paste', " +
        "{ clipboardData: data, bubbles: true, cancelable: true }));", jpeg);

    [Fact]
    public async Task A_pasted_picture_goes_into_the_placeholder_that_is_chosen()
    {
        await BeginAsync();
        await Server.PostAsync($"/api/publications/{_id}/frames", new { page = 1, x = 300, y = 300, width = 90, height = 90 });
        int wanted = (await Server.PostAsync($"/api/publications/{_id}/frames", new { page = 1, x = 60, y = 60, width = 120, height = 90 }))
            .GetProperty("id").GetInt32();
        Browser.Find($"#frame-{wanted}");
        Choose(wanted);
        Paste(Jpeg(300, 200));
        Frame(_id, wanted, IsFilled, "the picture in it");
        (await FramesAsync(_id)).Count(IsFilled).ShouldBe(1);
        (await Server.GetAsync($"/api/publications/{_id}")).GetProperty("images")[0].GetProperty("name").GetString().ShouldStartWith("Pasted 20");
    }

    [Fact]
    public async Task A_dropped_picture_may_lie_where_it_was_dropped_at_its_natural_size()
    {
        await BeginAsync();
        var (x, y) = Window(300, 400);
        // 300 by 200 pixels at 300 ppi: 72 by 48 points.
        Browser.Driver.ExecuteScript(Data + "const [, clientX, clientY] = arguments, page = document.elementFromPoint(clientX, clientY); " +
            "for (const kind of ['dragover', 'drop']) page.dispatchEvent(new DragEvent(kind, { dataTransfer: data, bubbles: true, cancelable: true, clientX, " +
            "clientY }));", Jpeg(300, 200), x, y);
        Browser.Find("#arrivals-card [data-into=Here]");
        // Drawn on the page before it is taken.
        Browser.Driver.ExecuteScript("document.querySelector('#arrivals-card [data-into=Here]').focus();");
        Browser.Until(() => Browser.Has("#under-way *"), "drawn before");
        Press(Keys.Enter);
        var frame = Eventually(_id, f => f.Length == 1 && IsFilled(f[0]), "a frame with it");
        (D(frame, "width"), D(frame, "height")).ShouldBe((72, 48));
        (D(frame, "x") + 36).ShouldBe(300, 1.5);
        (D(frame, "y") + 24).ShouldBe(400, 1.5);
    }

    [Fact]
    public async Task A_polygon_with_a_depth_is_a_star()
    {
        await BeginAsync();
        Press("3");
        Browser.Driver.ExecuteScript("document.getElementById('shape-sides').value = 5; document.getElementById('shape-depth').value = 40;");
        Drag(Window(100, 100), Window(200, 200));
        var frame = Eventually(_id, f => f.Length == 1, "a star");
        // Five points and five between them, nearer to the middle.
        frame.GetProperty("outline").GetString().ShouldBe("polygon");
        Browser.Run<long>("const shape = document.querySelector(`#frame-${arguments[0]} .outline`); return shape.points?.numberOfItems "
            + "?? shape.getAttribute('d').split(/[a-z]/i).length - 2", frame.GetProperty("id").GetInt32()).ShouldBe(10);
    }

    [Fact]
    public async Task Ctrl_held_while_drawing_keeps_the_frame_where_it_is_drawn()
    {
        await BeginAsync();
        await Server.PostAsync($"/api/publications/{_id}/frames", new { page = 1, x = 300, y = 300, width = 100, height = 100 });
        Browser.Find("#frames [data-frame]");
        // A point and a half beside the edge of another frame, which draws it to itself.
        Press("1");
        Drag(Window(100, 100), Window(301.5, 200));
        Eventually(_id, f => f.Length == 2, "snapped");
        var snapped = (await FramesAsync(_id))[1];
        (D(snapped, "x") + D(snapped, "width")).ShouldBe(300, 1e-6);
        Press("1");
        var (a, b) = (Window(100, 450), Window(301.5, 500));
        Actions().KeyDown(Keys.Control).MoveToLocation(a.X, a.Y).ClickAndHold().MoveToLocation(200, b.Y).MoveToLocation(b.X, b.Y).Release()
            .KeyUp(Keys.Control).Perform();
        Eventually(_id, f => f.Length == 3, "as drawn");
        var drawn = (await FramesAsync(_id))[2];
        (D(drawn, "x") + D(drawn, "width")).ShouldBe(301.5, 0.75);
        Math.Abs(D(drawn, "x") + D(drawn, "width") - 300).ShouldBeGreaterThan(0.3);
    }

    [Fact]
    public async Task Sample_words_fill_an_empty_text_in_its_language_and_no_other()
    {
        await BeginAsync();
        var made = await Server.PostAsync($"/api/publications/{_id}/frames", new { page = 1, x = 60, y = 60, width = 300, height = 120, kind = "text" });
        int frame = made.GetProperty("id").GetInt32();
        string story = $"/api/publications/{_id}/stories/{made.GetProperty("text").GetProperty("storyId").GetInt32()}";
        Browser.Find($"#frame-{frame}");
        Choose(frame);
        Browser.Click("[data-do=sample-words]");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector($"#frame-{frame} .set-text text")).Count > 4, "lines of words");
        var told = await Server.GetAsync(story);
        told.GetProperty("paragraphs")[0].GetProperty("text").GetString()!.Length.ShouldBeGreaterThan(80);
        // What fits, and no more; and never over words that are there.
        told.GetProperty("leftOver").GetInt32().ShouldBe(0);
        Browser.Until(() => !Browser.Has("[data-do=sample-words]"), "not offered any more");
        // The keys are on no button that does something else by now.
        Browser.Run<string>("return document.activeElement.dataset.do ?? ''").ShouldNotBe("remove");
        Actions().KeyDown(Keys.Control).SendKeys("z").KeyUp(Keys.Control).Perform();
        Browser.Until(() => Server.GetAsync(story).Result.GetProperty("paragraphs")[0].GetProperty("text").GetString() == "", "taken back");
    }

    [Fact]
    public async Task The_clean_page_ends_at_its_trim()
    {
        await BeginAsync();
        await Server.PostAsync($"/api/publications/{_id}/frames",
            new { page = 1, x = -8, y = 100, width = 100, height = 100, look = new { background = "#d05030" } });
        Browser.Find("#frames [data-frame]");
        Browser.Find("#canvas").SendKeys(Keys.Escape);
        // Just beside the trim: the frame shows there in its bleed, and the table once the page is clean.
        var (x, y) = Window(-4, 150);
        string Shown()
        {
            byte[] shot = ((ITakesScreenshot)Browser.Driver).GetScreenshot().AsByteArray;
            using var picture = NetVips.Image.NewFromBuffer(shot);
            double[] pixel = picture.Getpoint(x, y);
            return pixel[0] > pixel[2] + 60 ? "frame" : "table";
        }
        Browser.Until(() => Shown() == "frame", "its bleed shows");
        Actions().KeyDown("`").Perform();
        Browser.Until(() => Shown() == "table", "cut at the trim");
        Actions().KeyUp("`").Perform();
        Browser.Until(() => Shown() == "frame", "as before");
    }

    [Fact]
    public async Task While_nobody_answers_a_dragged_frame_follows_and_the_page_says_so_beside_it()
    {
        _id = await Server.NewPublicationAsync("Away", pages: 1, facing: false);
        int frame = (await FilledAsync(_id, (100, 100, 200, 120)))[0];
        using var line = new SlowLine(Server.Address, TimeSpan.Zero);
        Browser.Driver.Navigate().GoToUrl($"{line.Address}/publications/{_id}/desk/1");
        Browser.Find("#desk[data-ready]");
        line.Delay = TimeSpan.FromSeconds(30);
        var (from, to) = (Window(200, 160), Window(260, 220));
        Actions().MoveToLocation(from.X, from.Y).ClickAndHold().MoveToLocation(from.X + 20, from.Y + 20).MoveToLocation(to.X, to.Y).Perform();
        Browser.Until(() => Browser.Has(".late .ghost"), "its box follows");
        Browser.Until(() => Browser.Run<bool>("return !document.getElementById('away-words').hidden"), "it is said");
        Browser.Find("#away-words").Text.ShouldContain("does not answer");
        // Back again: what was done meanwhile is done.
        Actions().Release().Perform();
        line.Delay = TimeSpan.Zero;
        line.Cut();
        Frame(_id, frame, f => Math.Abs(D(f, "x") - 160) < 3 && Math.Abs(D(f, "y") - 160) < 3, "moved once");
        Browser.Until(() => Browser.Run<bool>("return document.getElementById('away-words').hidden"), "nothing is said any more");
    }

    [Fact]
    public async Task Two_files_of_one_face_are_taken_once()
    {
        _id = await Server.NewPublicationAsync("Faces", pages: 1, facing: false);
        byte[] font = await File.ReadAllBytesAsync(TestFonts.Find("bearings.woff2", () => Output.Typefaces.File("Spectral", "regular")!));
        byte[] other = await File.ReadAllBytesAsync(TestFonts.Find("plain.woff", () => Output.Typefaces.File("Spectral", "regular")!));
        using var form = new MultipartFormDataContent();
        form.Add(new ByteArrayContent(font), "files", "one.woff2");
        form.Add(new ByteArrayContent(other), "files", "one.woff");
        using var answer = await Server.Client.PostAsync($"/api/publications/{_id}/fonts", form);
        answer.StatusCode.ShouldBe(HttpStatusCode.Created, await answer.Content.ReadAsStringAsync());
        (await Server.GetAsync($"/api/publications/{_id}/fonts")).GetArrayLength().ShouldBe(1);
    }
}
