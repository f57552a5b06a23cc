using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

public sealed class TrayTests(Workplace place) : InBrowser(place)
{
    /// <summary>Uploads pictures of the given sizes; their ids in order.</summary>
    private async Task<int[]> PicturesAsync(int publication, params (int Width, int Height)[] sizes)
    {
        var files = sizes.Select((s, i) => ($"picture-{i + 1:000}.jpg", Picture(s.Width, s.Height, i))).ToArray();
        return [.. (await Server.UploadAsync(publication, files)).EnumerateArray().Select(a => a.GetProperty("id").GetInt32())];
    }

    private static readonly Dictionary<(int, int), byte[]> Drawn = [];

    /// <summary>A picture whose content is its own; each size is drawn once, and the number goes behind the end of the image.</summary>
    private static byte[] Picture(int width, int height, int number)
    {
        if (!Drawn.TryGetValue((width, height), out var picture)) Drawn[(width, height)] = picture = ApiTests.Jpeg(width, height);
        return [.. picture, (byte)number, (byte)(number >> 8)];
    }

    private async Task<int[]> TrayAsync(int publication) => [.. (await Server.GetAsync($"/api/publications/{publication}/tray")).GetProperty("imageIds")
        .EnumerateArray().Select(i => i.GetInt32())];

    private int[] Shown() => [.. Browser.Driver.FindElements(By.CssSelector("[data-tray]"))
        .Select(item => int.Parse(item.GetAttribute("data-tray")!, System.Globalization.CultureInfo.InvariantCulture))];

    private int? InHand() => Browser.Driver.FindElements(By.CssSelector("[data-tray][aria-pressed=true]")) is [var item]
        ? int.Parse(item.GetAttribute("data-tray")!, System.Globalization.CultureInfo.InvariantCulture) : null;

    private void Move((int X, int Y) to) => Actions().MoveToLocation(to.X, to.Y).Perform();

    [Fact]
    public async Task Pictures_in_hand_are_seen_in_the_frame_before_they_are_placed_one_after_the_other()
    {
        int id = await Server.NewPublicationAsync();
        var images = await PicturesAsync(id, (300, 200), (200, 300), (250, 250), (320, 200));
        int frame = (await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 60, y = 60, width = 120, height = 120 }))
            .GetProperty("id").GetInt32();
        OpenDesk(id);
        // Put in one by one, and all the others that are placed nowhere.
        Actions().MoveToElement(Browser.Find($"#image-{images[1]}")).Perform();
        Browser.Click($"#image-{images[1]} .thumb-tray");
        Browser.Until(() => Shown().SequenceEqual([images[1]]), "one in the tray");
        Settled();
        Browser.Click("[data-do=tray-add-unplaced]");
        Browser.Until(() => Shown().SequenceEqual([images[1], images[0], images[2], images[3]]), "all in the tray");
        Settled();

        // Over the frame, the very picture as it would be fitted, with its figures.
        Browser.Send("#canvas", "t");
        Browser.Until(() => InHand() == images[1], "the first is in hand");
        Move(Window(120, 120));
        Browser.Until(() => Browser.Has(".tray-preview image"), "the preview");
        string shown = Browser.Find(".tray-preview image").GetAttribute("transform")!;
        Browser.Find("#pointer-words").Text.ShouldContain("crop 33.3 %");
        (await FrameAsync(id, frame)).GetProperty("imageId").ValueKind.ShouldBe(JsonValueKind.Null);
        Browser.Send("#canvas", Keys.ArrowRight);
        Browser.Until(() => InHand() == images[0], "the next is in hand");
        Browser.Send("#canvas", Keys.ArrowLeft);
        Click(Window(120, 120));
        Frame(id, frame, f => f.GetProperty("imageId").ValueKind == JsonValueKind.Number && f.GetProperty("imageId").GetInt32() == images[1], "placed");
        Browser.Find($"#frame-{frame} image").GetAttribute("transform").ShouldBe(shown);
        Browser.Until(() => InHand() == images[0], "the next is in hand by itself");

        // On the empty page: a click for natural size, a drag for a size.
        Click(Window(300, 120));
        Eventually(id, f => f.Length == 2 && f[1].GetProperty("imageId").GetInt32() == images[0] && Math.Abs(D(f[1], "width") - 144) < 1e-6,
            "at 300 px of 150 ppi");
        Browser.Until(() => InHand() == images[2], "and the third is in hand");
        Drag(Window(300, 300), Window(360, 350));
        Eventually(id, f => f.Length == 3 && f[2].GetProperty("imageId").GetInt32() == images[2] && Math.Abs(D(f[2], "width") - D(f[2], "height")) < 1e-6,
            "of the size drawn");
        Browser.Until(() => InHand() == images[3], "and the fourth is in hand");

        // Put down, it waits on; also after the page is opened anew.
        Browser.Send("#canvas", Keys.Escape);
        Browser.Until(() => InHand() is null, "put down");
        OpenDesk(id);
        Shown().ShouldBe([images[3]]);
        Browser.Send("#canvas", Keys.Control + "z");
        Browser.Until(() => Shown().SequenceEqual([images[2], images[3]]), "undone, the picture waits again");
    }

    [Fact]
    public async Task The_tray_is_put_in_order_and_pictures_are_swapped_replaced_and_sent_back()
    {
        int id = await Server.NewPublicationAsync();
        var images = await PicturesAsync(id, (300, 200), (200, 300), (250, 250));
        string frames = $"/api/publications/{id}/frames";
        var made = new List<int>();
        for (int i = 0; i < 2; i++)
            made.Add((await Server.PostAsync(frames, new { page = 1, x = 60 + 150 * i, y = 60, width = 120, height = 120, imageId = images[i] }))
                .GetProperty("id").GetInt32());
        await Server.PostAsync($"/api/publications/{id}/tray", new { imageIds = images });
        OpenDesk(id);
        Browser.Send($"[data-tray='{images[0]}']", Keys.Alt + Keys.ArrowRight);
        Browser.Until(() => Shown().SequenceEqual([images[1], images[0], images[2]]), "moved by key");
        Settled();
        var (from, to) = (Browser.Find($"[data-tray='{images[2]}']"), Browser.Find($"[data-tray='{images[1]}']"));
        Actions().MoveToElement(from).ClickAndHold().MoveToElement(to, 2, 2).MoveToElement(to).Release().Perform();
        Browser.Until(() => Shown().SequenceEqual([images[2], images[1], images[0]]), "moved by hand");
        Settled();
        Browser.Send($"[data-tray='{images[1]}']", Keys.Delete);
        Browser.Until(() => Shown().SequenceEqual([images[2], images[0]]), "taken out");
        Settled();

        Click(Window(120, 120));
        Browser.Find("[data-do=send-back]");
        Settled();
        Actions().KeyDown(Keys.Shift).MoveToLocation(Window(270, 120).X, Window(270, 120).Y).Click().KeyUp(Keys.Shift).Perform();
        Browser.Click("[data-do=swap]");
        Frame(id, made[0], f => f.GetProperty("imageId").GetInt32() == images[1], "swapped");
        (await FrameAsync(id, made[1])).GetProperty("imageId").GetInt32().ShouldBe(images[0]);
        Browser.Click("[data-do=send-back]");
        Frame(id, made[0], f => f.GetProperty("imageId").ValueKind == JsonValueKind.Null, "emptied");
        (await TrayAsync(id)).ShouldBe([images[1], images[0], images[2]]);

        // The same picture in two frames, replaced in both at once.
        Browser.Until(() => Browser.Has(".frame-empty"), "the placeholder");
        Browser.Send("#canvas", Keys.Control + "z");
        foreach (int frame in made)
        {
            using var same = await Server.Client.PatchAsJsonAsync($"{frames}/{frame}", new { imageId = images[0] });
            same.EnsureSuccessStatusCode();
        }
        Go($"/publications/{id}/desk/1?frame={made[0]}");
        Browser.Find("#desk[data-ready]");
        Browser.Click("#replace-everywhere");
        Browser.Driver.ExecuteScript("arguments[0].scrollIntoView({ block: 'center' })", Browser.Find($"#image-{images[2]}"));
        Browser.Click($"#image-{images[2]} .thumb");
        Eventually(id, f => f.All(x => x.GetProperty("imageId").GetInt32() == images[2]), "replaced in both");
    }

    [Fact]
    public async Task Three_hundred_pictures_are_poured_over_a_page_of_six_and_undone_in_one_step()
    {
        int id = await Server.NewPublicationAsync(pages: 1, facing: false);
        var images = await PicturesAsync(id, [.. Enumerable.Range(0, 300).Select(i => (90 + i % 7 * 10, 80 + i % 5 * 10))]);
        for (int i = 0; i < 6; i++)
            await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 40 + i % 2 * 260, y = 40 + i / 2 * 250, width = 240, height = 230 });
        OpenDesk(id);
        Browser.Click("[data-do=tray-add-unplaced]");
        Browser.Until(() => Shown().Length == 300, "all in the tray");
        Settled();
        Browser.Click("#pour");
        Browser.Until(() => Browser.Find("#pour-sum").Text == "6 pictures placed; 294 left in the tray.", "the proposal");
        Browser.Click("#pour-form [name=layout][value=Page]");
        Browser.Until(() => Browser.Find("#pour-sum").Text == "300 pictures placed, 49 pages added.", "the proposal with pages");
        // What is chosen the moment an answer is shown counts too, and the keys stay where they were.
        Browser.Driver.ExecuteScript("document.addEventListener('htmx:afterSwap', " +
            "() => setTimeout(() => document.querySelector('#pour-form [name=layout][value=None]').click()), { once: true })");
        Browser.Click("#pour-form [name=order][value=Best]");
        Browser.Until(() => Browser.Find("#pour-sum").Text == "6 pictures placed; 294 left in the tray.", "the choice made in that moment");
        Browser.Run<string>("return document.activeElement.value").ShouldBe("Best");
        Browser.Click("#pour-form [name=layout][value=Page]");
        Browser.Until(() => Browser.Find("#pour-sum").Text == "300 pictures placed, 49 pages added.", "the proposal by best match");
        (await FramesAsync(id)).Length.ShouldBe(6, "nothing is done yet");
        Browser.Click("#take-pour");
        Browser.Until(() => Browser.Find("#notices").Text.Contains("300 pictures poured, 49 pages added", StringComparison.Ordinal), "told");
        var frames = await FramesAsync(id);
        frames.Length.ShouldBe(300);
        frames.Select(f => f.GetProperty("imageId").GetInt32()).Order().ShouldBe(images.Order());
        frames.Max(f => f.GetProperty("page").GetInt32()).ShouldBe(50);
        Browser.Find("#desk[data-ready]");
        Browser.Send("#canvas", Keys.Control + "z");
        Eventually(id, f => f.Length == 6 && f.All(x => x.GetProperty("imageId").ValueKind == JsonValueKind.Null), "undone in one step");
        Browser.Until(() => Shown().Length == 300, "and all wait again");
    }

    [Fact]
    public async Task The_automation_interface_pours_and_says_what_went_where()
    {
        int id = await Server.NewPublicationAsync(pages: 2, facing: false);
        var images = await PicturesAsync(id, (300, 200), (200, 300), (300, 200));
        string address = $"/api/publications/{id}";
        int wide = (await Server.PostAsync($"{address}/frames", new { page = 1, x = 40, y = 40, width = 90, height = 60 })).GetProperty("id").GetInt32();
        int tall = (await Server.PostAsync($"{address}/frames", new { page = 1, x = 240, y = 40, width = 60, height = 90 })).GetProperty("id").GetInt32();
        var poured = await Server.PostAsync($"{address}/pour", new { imageIds = images, order = "best" });
        poured.GetProperty("placed").EnumerateArray().Select(p => (p.GetProperty("frameId").GetInt32(), p.GetProperty("imageId").GetInt32(),
            p.GetProperty("page").GetInt32()))
            .ShouldBe([(wide, images[0], 1), (tall, images[1], 1)]);
        poured.GetProperty("left").EnumerateArray().Select(i => i.GetInt32()).ShouldBe([images[2]]);
        var more = await Server.PostAsync($"{address}/pour", new
        {
            imageIds = new[] { images[2] },
            fromPage = 1,
            order = "tray",
            keepPouring = true,
            leftovers = "remove"
        });
        more.GetProperty("pagesAdded").GetInt32().ShouldBe(0, "The blank page behind takes the copy.");
        (await FramesAsync(id)).Length.ShouldBe(3);
        using var none = await Server.Client.PostAsJsonAsync($"{address}/pour", new { fromPage = 9 });
        (await ApiTests.RefusedAsync(none)).GetProperty("detail").GetString()!.ShouldContain("no page 9");
    }
}
