using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

public sealed class ImagesTests : IDisposable
{
    private readonly TempFolder _pictures = new();
    private readonly TestServer _server;
    private readonly Browser _browser = new();

    public ImagesTests()
    {
        Directory.CreateDirectory(_pictures["work/inner"]);
        Directory.CreateDirectory(_pictures["moved/deep"]);
        _server = new("--pictures", _pictures.Path);
    }

    public void Dispose()
    {
        _browser.Dispose();
        _server.Dispose();
        _pictures.Dispose();
    }

    private async Task<(int Publication, Dictionary<string, int> Images, int Frame)> BeginAsync()
    {
        File.WriteAllBytes(_pictures["work/wide.jpg"], ApiTests.Jpeg(300, 200));
        File.WriteAllBytes(_pictures["work/tall.jpg"], ApiTests.Jpeg(200, 300, 1));
        File.WriteAllBytes(_pictures["work/inner/square.jpg"], ApiTests.Jpeg(250, 250, 2));
        int id = await _server.NewPublicationAsync();
        var linked = await _server.PostAsync($"/api/publications/{id}/images/folder", new { folder = _pictures["work"], within = true });
        var images = linked.EnumerateArray().ToDictionary(i => i.GetProperty("name").GetString()!, i => i.GetProperty("id").GetInt32());
        int frame = (await _server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 60, y = 60, width = 120, height = 120, imageId = images["wide.jpg"] })).GetProperty("id").GetInt32();
        return (id, images, frame);
    }

    private void OpenImages(int id)
    {
        _browser.Driver.Navigate().GoToUrl($"{_server.Address}/publications/{id}/images");
        _browser.Find("#images[data-ready]");
    }

    private string[] Shown() => [.. _browser.Driver.FindElements(By.CssSelector("#image-list .thumb-name")).Select(n => n.GetDomProperty("textContent")!)];

    private async Task<JsonElement> ImageAsync(int publication, int id) =>
        (await _server.GetAsync($"/api/publications/{publication}")).GetProperty("images").EnumerateArray().Single(i => i.GetProperty("id").GetInt32() == id);

    [Fact]
    public async Task Images_are_searched_filtered_looked_at_and_sent_to_the_tray()
    {
        var (id, images, frame) = await BeginAsync();
        OpenImages(id);
        Shown().Order().ShouldBe(["square.jpg", "tall.jpg", "wide.jpg"]);
        foreach (var (filter, expected) in new[] { ("Unplaced", "square.jpg tall.jpg"), ("Placed", "wide.jpg"), ("Portrait", "tall.jpg"), ("Landscape", "wide.jpg"), ("Square", "square.jpg"), ("Missing", ""), ("All", "square.jpg tall.jpg wide.jpg") })
        {
            _browser.Find($"[name=show][value={filter}]").Click();
            Browser.Until(() => string.Join(' ', Shown().Order()) == expected, filter);
        }
        _browser.Find("#image-q").SendKeys("TAL");
        Browser.Until(() => Shown().SequenceEqual(["tall.jpg"]), "found by name");
        _browser.Find("#image-q").SendKeys(Keys.Control + "a" + Keys.Null + Keys.Delete);
        Browser.Until(() => Shown().Length == 3, "all again");
        _browser.Find("[name=table][value=true]").Click();
        Browser.Until(() => _browser.Driver.FindElements(By.CssSelector(".image-table tbody tr")).Count == 3, "as a table");

        _browser.Find($"[data-card='{images["wide.jpg"]}']").Click();
        Browser.Until(() => _browser.Find("#image-card .uses").Text.Contains("crop 33.3 %", StringComparison.Ordinal), "where it is used");
        _browser.Find("#image-card .uses a").GetAttribute("href")!.ShouldEndWith($"/publications/{id}/desk/1?frame={frame}");
        foreach (string name in new[] { "tall.jpg", "square.jpg" }) _browser.Find($".tick[value='{images[name]}']").Click();
        _browser.Find("#to-tray").Click();
        Browser.Until(() => _server.GetAsync($"/api/publications/{id}/tray").Result.GetProperty("imageIds").GetArrayLength() == 2, "in the tray");
        byte[] original = await _server.Client.GetByteArrayAsync($"/api/publications/{id}/images/{images["wide.jpg"]}/original");
        original.ShouldBe(File.ReadAllBytes(_pictures["work/wide.jpg"]));
    }

    [Fact]
    public async Task A_changed_file_is_seen_and_nothing_follows_until_it_is_updated()
    {
        var (id, images, frame) = await BeginAsync();
        await PatchAsync(id, frame, new { recrop = new { zoom = 1.4 } });
        OpenImages(id);
        string before = (await ImageAsync(id, images["wide.jpg"])).GetProperty("contentHash").GetString()!;
        // Touched alone, it is what it was.
        File.SetLastWriteTimeUtc(_pictures["work/tall.jpg"], DateTime.UtcNow.AddMinutes(-5));
        File.WriteAllBytes(_pictures["work/wide.jpg"], ApiTests.Jpeg(600, 300, 5));
        Browser.Until(() => _browser.Has("#update-all"), "the watch saw it", seconds: 30);
        _browser.Find("#update-all").Text.ShouldBe("Update 1 changed link");
        (await ImageAsync(id, images["wide.jpg"])).GetProperty("contentHash").GetString().ShouldBe(before);

        _browser.Find("#update-all").Click();
        Browser.Until(() => _browser.Driver.FindElements(By.CssSelector($"#update-body [data-touched='{frame}'] .frame-picture")).Count == 2, "before and after");
        _browser.Find("#update-body dl").Text.ShouldContain("\u2192");
        (await ImageAsync(id, images["wide.jpg"])).GetProperty("contentHash").GetString().ShouldBe(before, "a proposal changes nothing");
        _browser.Find("#take-update").Click();
        Browser.Until(() => ImageAsync(id, images["wide.jpg"]).Result.GetProperty("widthPx").GetInt32() == 600, "updated");
        Browser.Until(() => !_browser.Has("#update-all"), "nothing is changed any more");
        var shown = (await _server.GetAsync($"/api/publications/{id}")).GetProperty("frames")[0];
        shown.GetProperty("recrop").GetProperty("zoom").GetDouble().ShouldBe(1.4);
        await _server.PostAsync($"/api/publications/{id}/undo", new { });
        (await ImageAsync(id, images["wide.jpg"])).GetProperty("contentHash").GetString().ShouldBe(before);
    }

    [Fact]
    public async Task Missing_files_are_found_in_another_folder_by_content_and_by_name()
    {
        var (id, images, _) = await BeginAsync();
        // One moved and renamed, one edited under its own name.
        File.Move(_pictures["work/wide.jpg"], _pictures["moved/deep/other-name.jpg"]);
        File.Delete(_pictures["work/tall.jpg"]);
        File.WriteAllBytes(_pictures["moved/TALL.jpg"], ApiTests.Jpeg(220, 330, 7));
        OpenImages(id);
        _browser.Find("#find-missing").Text.ShouldBe("Find 2 missing links");
        _browser.Find("#find-missing").Click();
        _browser.Find("#find-folder").SendKeys(Keys.Control + "a" + Keys.Null + _pictures["moved"] + Keys.Enter);
        Browser.Until(() => _browser.Find("#update-body h2").Text == "Link anew 2 images", "both found");
        _browser.Find("#take-update").Click();
        Browser.Until(() => !_browser.Has("#find-missing"), "none is missing any more");
        (await ImageAsync(id, images["wide.jpg"])).GetProperty("name").GetString().ShouldBe("other-name.jpg");
        (await ImageAsync(id, images["tall.jpg"])).GetProperty("widthPx").GetInt32().ShouldBe(220);
    }

    [Fact]
    public async Task An_edited_version_takes_the_place_of_a_file_and_bad_ones_are_refused()
    {
        var (id, images, _) = await BeginAsync();
        File.WriteAllBytes(_pictures["edited.jpg"], ApiTests.Jpeg(900, 600, 9));
        File.WriteAllText(_pictures["bad.jpg"], "no picture");
        OpenImages(id);
        _browser.Find($"[data-card='{images["wide.jpg"]}']").Click();
        Replace("bad.jpg");
        Browser.Until(() => _browser.Find("#notices").Text.Contains("not a picture", StringComparison.Ordinal), "refused in words");
        Replace("edited.jpg");
        Browser.Until(() => ImageAsync(id, images["wide.jpg"]).Result.GetProperty("widthPx").GetInt32() == 900, "replaced");
        File.ReadAllBytes(_pictures["work/wide.jpg"]).ShouldBe(ApiTests.Jpeg(300, 200), "the original is as it was");

        void Replace(string file)
        {
            // The window that asks for a file is the browser's own: it is kept closed, and the file is given as it would.
            _browser.Run<object>("HTMLInputElement.prototype.click = function () {}; return null;");
            Browser.Until(() => _browser.Has("[data-act=replace]"), "the card");
            _browser.Find("[data-act=replace]").Click();
            _browser.Driver.FindElements(By.CssSelector("#replacement"))[^1].SendKeys(_pictures[file]);
        }
    }

    private async Task PatchAsync(int publication, int frame, object body)
    {
        using var answer = await System.Net.Http.Json.HttpClientJsonExtensions.PatchAsJsonAsync(_server.Client, $"/api/publications/{publication}/frames/{frame}", body);
        answer.EnsureSuccessStatusCode();
    }
}
