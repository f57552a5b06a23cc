using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

public sealed class ImagesTests : InBrowser
{
    public ImagesTests(Workplace place) : base(place)
    {
        Directory.CreateDirectory(Pictures["work/inner"]);
        Directory.CreateDirectory(Pictures["moved/deep"]);
    }

    private async Task<(int Publication, Dictionary<string, int> Images, int Frame)> BeginAsync()
    {
        File.WriteAllBytes(Pictures["work/wide.jpg"], ApiTests.Jpeg(300, 200));
        File.WriteAllBytes(Pictures["work/tall.jpg"], ApiTests.Jpeg(200, 300, 1));
        File.WriteAllBytes(Pictures["work/inner/square.jpg"], ApiTests.Jpeg(250, 250, 2));
        int id = await Server.NewPublicationAsync();
        var linked = await Server.PostAsync($"/api/publications/{id}/images/folder", new { folder = Pictures["work"], within = true });
        var images = linked.EnumerateArray().ToDictionary(i => i.GetProperty("name").GetString()!, i => i.GetProperty("id").GetInt32());
        int frame = (await Server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = 1,
            x = 60,
            y = 60,
            width = 120,
            height = 120,
            imageId = images["wide.jpg"]
        })).GetProperty("id").GetInt32();
        return (id, images, frame);
    }

    private void OpenImages(int id)
    {
        Browser.Driver.Navigate().GoToUrl($"{Server.Address}/publications/{id}/images");
        Browser.Find("#images[data-ready]");
    }

    private string[] Shown() => [.. Browser.Driver.FindElements(By.CssSelector("#image-list .thumb-name")).Select(n => n.GetDomProperty("textContent")!)];

    private async Task<JsonElement> ImageAsync(int publication, int id) =>
        (await Server.GetAsync($"/api/publications/{publication}")).GetProperty("images").EnumerateArray().Single(i => i.GetProperty("id").GetInt32() == id);

    [Fact]
    public async Task Images_are_searched_filtered_looked_at_and_sent_to_the_tray()
    {
        var (id, images, frame) = await BeginAsync();
        OpenImages(id);
        Shown().Order().ShouldBe(["square.jpg", "tall.jpg", "wide.jpg"]);
        foreach (var (filter, expected) in new[] { ("Unplaced", "square.jpg tall.jpg"), ("Placed", "wide.jpg"), ("Portrait", "tall.jpg"),
            ("Landscape", "wide.jpg"), ("Square", "square.jpg"), ("Missing", ""), ("All", "square.jpg tall.jpg wide.jpg") })
        {
            Browser.Click($"[name=show][value={filter}]");
            Browser.Until(() => string.Join(' ', Shown().Order()) == expected, filter);
        }
        Browser.Send("#image-q", "TAL");
        Browser.Until(() => Shown().SequenceEqual(["tall.jpg"]), "found by name");
        Browser.Send("#image-q", Keys.Control + "a" + Keys.Null + Keys.Delete);
        Browser.Until(() => Shown().Length == 3, "all again");
        Browser.Click("[name=table][value=true]");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".image-table tbody tr")).Count == 3, "as a table");

        Browser.Click($"[data-card='{images["wide.jpg"]}']");
        Browser.Until(() => Browser.Find("#image-card .uses").Text.Contains("crop 33.3 %", StringComparison.Ordinal), "where it is used");
        Browser.Until(() => Browser.Find("#image-card .uses a").GetAttribute("href")!.EndsWith($"/publications/{id}/desk/1?frame={frame}",
            StringComparison.Ordinal), "a way there");
        foreach (string name in new[] { "tall.jpg", "square.jpg" }) Browser.Click($".tick[value='{images[name]}']");
        Browser.Click("#to-tray");
        Browser.Until(() => Server.GetAsync($"/api/publications/{id}/tray").Result.GetProperty("imageIds").GetArrayLength() == 2, "in the tray");
        byte[] original = await Server.Client.GetByteArrayAsync($"/api/publications/{id}/images/{images["wide.jpg"]}/original");
        original.ShouldBe(File.ReadAllBytes(Pictures["work/wide.jpg"]));
    }

    [Fact]
    public async Task A_changed_file_is_seen_and_nothing_follows_until_it_is_updated()
    {
        var (id, images, frame) = await BeginAsync();
        await PatchAsync(id, frame, new { recrop = new { zoom = 1.4 } });
        OpenImages(id);
        string before = (await ImageAsync(id, images["wide.jpg"])).GetProperty("contentHash").GetString()!;
        // Touched alone, it is what it was.
        File.SetLastWriteTimeUtc(Pictures["work/tall.jpg"], DateTime.UtcNow.AddMinutes(-5));
        File.WriteAllBytes(Pictures["work/wide.jpg"], ApiTests.Jpeg(600, 300, 5));
        Browser.Until(() => Browser.Has("#update-all"), "the watch saw it");
        Browser.Find("#update-all").Text.ShouldBe("Update 1 changed link");
        (await ImageAsync(id, images["wide.jpg"])).GetProperty("contentHash").GetString().ShouldBe(before);

        Browser.Click("#update-all");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector($"#update-body [data-touched='{frame}'] .frame-picture")).Count == 2,
            "before and after");
        Browser.Find("#update-body dl").Text.ShouldContain("\u2192");
        (await ImageAsync(id, images["wide.jpg"])).GetProperty("contentHash").GetString().ShouldBe(before, "a proposal changes nothing");
        Browser.Click("#take-update");
        Browser.Until(() => ImageAsync(id, images["wide.jpg"]).Result.GetProperty("widthPx").GetInt32() == 600, "updated");
        Browser.Until(() => !Browser.Has("#update-all"), "nothing is changed any more");
        var shown = (await Server.GetAsync($"/api/publications/{id}")).GetProperty("frames")[0];
        shown.GetProperty("recrop").GetProperty("zoom").GetDouble().ShouldBe(1.4);
        Browser.Click("#undo");
        Browser.Until(() => ImageAsync(id, images["wide.jpg"]).Result.GetProperty("contentHash").GetString() == before, "undone");
    }

    [Fact]
    public async Task Missing_files_are_found_in_another_folder_by_content_and_by_name()
    {
        var (id, images, _) = await BeginAsync();
        // One moved and renamed, one edited under its own name.
        File.Move(Pictures["work/wide.jpg"], Pictures["moved/deep/other-name.jpg"]);
        File.Delete(Pictures["work/tall.jpg"]);
        File.WriteAllBytes(Pictures["moved/TALL.jpg"], ApiTests.Jpeg(220, 330, 7));
        OpenImages(id);
        Browser.Until(() => Browser.Find("#find-missing").Text == "Find 2 missing links", "two are missing");
        Browser.Click("#find-missing");
        Browser.Send("#find-folder", Keys.Control + "a" + Keys.Null + Pictures["moved"] + Keys.Enter);
        Browser.Until(() => Browser.Find("#update-body h2").Text == "Link anew 2 images", "both found");
        Browser.Click("#take-update");
        Browser.Until(() => !Browser.Has("#find-missing"), "none is missing any more");
        (await ImageAsync(id, images["wide.jpg"])).GetProperty("name").GetString().ShouldBe("other-name.jpg");
        (await ImageAsync(id, images["tall.jpg"])).GetProperty("widthPx").GetInt32().ShouldBe(220);
    }

    [Fact]
    public async Task An_edited_version_takes_the_place_of_a_file_and_bad_ones_are_refused()
    {
        var (id, images, _) = await BeginAsync();
        File.WriteAllBytes(Pictures["edited.jpg"], ApiTests.Jpeg(900, 600, 9));
        File.WriteAllText(Pictures["bad.jpg"], "no picture");
        OpenImages(id);
        Browser.Click($"[data-card='{images["wide.jpg"]}']");
        Replace("bad.jpg");
        Browser.Until(() => Browser.Find("#notices").Text.Contains("not a picture", StringComparison.Ordinal), "refused in words");
        Replace("edited.jpg");
        Browser.Until(() => ImageAsync(id, images["wide.jpg"]).Result.GetProperty("widthPx").GetInt32() == 900, "replaced");
        File.ReadAllBytes(Pictures["work/wide.jpg"]).ShouldBe(ApiTests.Jpeg(300, 200), "the original is as it was");

        void Replace(string file)
        {
            // The window that asks for a file is the browser's own: it is kept closed, and the file is given as it would.
            Browser.Run<object>("HTMLInputElement.prototype.click = function () {}; return null;");
            Browser.Until(() => Browser.Has("[data-act=replace]"), "the card");
            Browser.Click("[data-act=replace]");
            // Linked where it lies: that this ends is said first.
            Browser.Until(() =>
            {
                if (Browser.Has("#replacement")) return true;
                Browser.Driver.FindElements(By.CssSelector(".notice button")).FirstOrDefault(b => b.Text == "Choose a file all the same")?.Click();
                return false;
            }, "the file is asked for");
            Browser.Driver.FindElements(By.CssSelector("#replacement"))[^1].SendKeys(Pictures[file]);
        }
    }

    private async Task PatchAsync(int publication, int frame, object body)
    {
        using var answer = await System.Net.Http.Json.HttpClientJsonExtensions.PatchAsJsonAsync(Server.Client,
            $"/api/publications/{publication}/frames/{frame}", body);
        answer.EnsureSuccessStatusCode();
    }
}
