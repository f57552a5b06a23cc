using System.IO.Compression;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>Pictures brought in by jobs: ZIPs, folders within folders, the same content twice, bad files among good ones, a server that stops half
/// way.</summary>
public sealed class ImportTests : IClassFixture<Workplace>
{
    private readonly Workplace _place;
    private readonly TestServer _server;
    private readonly TempFolder _pictures;

    public ImportTests(Workplace place)
    {
        (_place, _server, _pictures) = (place, place.Server, place.Pictures);
        place.Clear();
        Directory.CreateDirectory(_pictures["a/b"]);
    }

    private async Task<JsonElement> EndedAsync(int publication, string job)
    {
        JsonElement status = default;
        for (var until = DateTime.UtcNow.AddSeconds(60); DateTime.UtcNow < until; await Task.Delay(30))
        {
            status = await _server.GetAsync($"/api/publications/{publication}/imports/{job}");
            if (status.GetProperty("state").GetString() is "done" or "stopped") return status;
        }
        throw new TimeoutException($"The job did not end: {status}");
    }

    private async Task<JsonElement> SendAsync(int publication, params (string Name, byte[] Content)[] files)
    {
        using var form = new MultipartFormDataContent();
        foreach (var (name, content) in files) form.Add(new ByteArrayContent(content), "files", name);
        using var answer = await _server.Client.PostAsync($"/api/publications/{publication}/imports", form);
        string text = await answer.Content.ReadAsStringAsync();
        answer.StatusCode.ShouldBe(HttpStatusCode.Accepted, text);
        return await EndedAsync(publication, JsonSerializer.Deserialize<JsonElement>(text).GetProperty("id").GetString()!);
    }

    private async Task<string[]> NamesAsync(int publication) =>
        [.. (await _server.GetAsync($"/api/publications/{publication}")).GetProperty("images").EnumerateArray()
            .Select(i => i.GetProperty("name").GetString()!)];

    private static byte[] Plain(int width, int height)
    {
        using var picture = NetVips.Image.Black(width, height);
        return picture.PngsaveBuffer();
    }

    private static byte[] Zip(params (string Name, byte[] Content)[] files)
    {
        using var stream = new MemoryStream();
        using (var zip = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var (name, content) in files)
            {
                using var entry = zip.CreateEntry(name).Open();
                entry.Write(content);
            }
        }
        return stream.ToArray();
    }

    [Fact]
    public async Task A_ZIP_gives_its_pictures_and_says_which_did_not_come_in()
    {
        int id = await _server.NewPublicationAsync();
        byte[] one = ApiTests.Jpeg(60, 40, 1), two = ApiTests.Jpeg(60, 40, 2);
        var ended = await SendAsync(id, ("batch.zip", Zip(("pots/one.jpg", one), ("../../climb.jpg", two), ("pots/", []), ("notes.txt", "words"u8.ToArray()),
            ("__extra/one.jpg", one), ("cut.jpg", one[..900]))));
        (ended.GetProperty("total").GetInt32(), ended.GetProperty("cameIn").GetInt32()).ShouldBe((4, 2));
        ended.GetProperty("report").EnumerateArray().Where(r => r.GetProperty("error").ValueKind == JsonValueKind.String)
            .Select(r => r.GetProperty("name").GetString()).ShouldBe(["notes.txt", "cut.jpg"]);
        (await NamesAsync(id)).ShouldBe(["one.jpg", "climb.jpg"]);
        Directory.EnumerateFiles(Path.GetDirectoryName(_server.DataFolder)!, "climb*", SearchOption.AllDirectories).ShouldBeEmpty();

        var broken = await SendAsync(id, ("broken.zip", "PK no archive"u8.ToArray()));
        broken.GetProperty("report")[0].GetProperty("error").GetString()!.ShouldContain("ZIP cannot be read");
        Directory.EnumerateFiles(Path.Combine(_server.DataFolder, "incoming")).ShouldBeEmpty("nothing is left lying about");
    }

    [Fact]
    public async Task The_same_content_twice_is_one_picture_with_two_names()
    {
        int id = await _server.NewPublicationAsync();
        byte[] same = ApiTests.Jpeg(60, 40, 3);
        var ended = await SendAsync(id, ("first.jpg", same), ("second.jpg", same), ("other.jpg", ApiTests.Jpeg(60, 40, 4)));
        (ended.GetProperty("cameIn").GetInt32(), ended.GetProperty("same").GetInt32()).ShouldBe((2, 1));
        ended.GetProperty("report").EnumerateArray().Single(r => r.GetProperty("sameAs").ValueKind == JsonValueKind.String).GetProperty("sameAs").GetString()
            .ShouldBe("first.jpg");
        (await NamesAsync(id)).ShouldBe(["first.jpg", "other.jpg"]);
        (await _server.GetAsync($"/api/publications/{id}")).GetProperty("images")[0].GetProperty("otherNames")[0].GetString().ShouldBe("second.jpg");
        (await SendAsync(id, ("first.jpg", same))).GetProperty("same").GetInt32().ShouldBe(1);
    }

    /// <summary>Two readers come to the same content at the same time, many times over.</summary>
    [Fact]
    public async Task The_same_content_read_twice_at_once_is_kept_once_and_leaves_nothing_behind()
    {
        const int Pairs = 60;
        int id = await _server.NewPublicationAsync();
        byte[] picture = ApiTests.Jpeg(30, 20, 6);
        var ended = await SendAsync(id, [.. Enumerable.Range(0, 2 * Pairs).Select(i => ($"p{i:000}.jpg", (byte[])[.. picture, (byte)(i / 2), 9]))]);
        ended.GetProperty("report").EnumerateArray().Select(r => r.GetProperty("error").ToString()).Where(e => e.Length > 0).ShouldBeEmpty();
        (ended.GetProperty("cameIn").GetInt32(), ended.GetProperty("same").GetInt32()).ShouldBe((Pairs, Pairs));
        Directory.EnumerateFiles(Path.Combine(_server.DataFolder, "incoming")).ShouldBeEmpty();
    }

    [Fact]
    public async Task Folders_within_folders_are_linked_where_they_are_and_one_that_vanishes_is_told()
    {
        int id = await _server.NewPublicationAsync();
        foreach (var (name, tint) in new[] { ("top.jpg", 1), ("a/inner.jpg", 2), ("a/b/deep.jpg", 3) })
            File.WriteAllBytes(_pictures[name], ApiTests.Jpeg(60, 40, tint));
        var begun = await _server.PostAsync($"/api/publications/{id}/imports/folder", new { folder = _pictures.Path, within = true });
        (await EndedAsync(id, begun.GetProperty("id").GetString()!)).GetProperty("cameIn").GetInt32().ShouldBe(3);
        (await NamesAsync(id)).Order().ShouldBe(["deep.jpg", "inner.jpg", "top.jpg"]);
        using var closed = await _server.Client.PostAsJsonAsync($"/api/publications/{id}/imports/folder", new { folder = "/etc" });
        (await ApiTests.RefusedAsync(closed)).GetProperty("detail").GetString()!.ShouldContain("open to linking");

        // Files that go between being listed and being read: many, so that some are still to come.
        int other = await _server.NewPublicationAsync();
        byte[] picture = ApiTests.Jpeg(1500, 1000);
        for (int i = 0; i < 120; i++) File.WriteAllBytes(_pictures[$"a/b/many-{i}.jpg"], [.. picture, (byte)i]);
        begun = await _server.PostAsync($"/api/publications/{other}/imports/folder", new { folder = _pictures["a"], within = true });
        Directory.Delete(_pictures["a"], recursive: true);
        var ended = await EndedAsync(other, begun.GetProperty("id").GetString()!);
        int gone = ended.GetProperty("report").EnumerateArray().Count(r => r.GetProperty("error").ValueKind == JsonValueKind.String);
        gone.ShouldBeGreaterThan(0);
        (gone + ended.GetProperty("cameIn").GetInt32()).ShouldBe(122);
    }

    [Fact]
    public async Task A_server_that_was_killed_goes_on_with_what_had_arrived()
    {
        int id = await _server.NewPublicationAsync();
        byte[] picture = ApiTests.Jpeg(2400, 1600);
        for (int i = 0; i < 60; i++) File.WriteAllBytes(_pictures[$"p{i:00}.jpg"], [.. picture, (byte)i]);
        var begun = await _server.PostAsync($"/api/publications/{id}/imports/folder", new { folder = _pictures.Path });
        string job = begun.GetProperty("id").GetString()!, kept = Path.Combine(_server.DataFolder, "jobs", job + ".json");
        Browser.Until(() => File.Exists(kept) && File.ReadAllText(kept).Contains("p59.jpg", StringComparison.Ordinal), "the job is on the disk");
        _server.Kill();
        // What else was half arrived or half unpacked goes.
        string left = Path.Combine(_server.DataFolder, "incoming", "left"), unpacked = Path.Combine(_server.DataFolder, "incoming", "unpacked");
        Directory.CreateDirectory(unpacked);
        File.WriteAllText(left, "half");
        _server.StartAgain();
        var ended = await EndedAsync(id, job);
        ended.GetProperty("total").GetInt32().ShouldBe(60);
        ended.GetProperty("report").EnumerateArray().ShouldAllBe(r => r.GetProperty("error").ValueKind == JsonValueKind.Null);
        (await NamesAsync(id)).Order().ShouldBe(Enumerable.Range(0, 60).Select(i => $"p{i:00}.jpg"));
        (File.Exists(left) || Directory.Exists(unpacked)).ShouldBeFalse();
    }

    [Fact]
    public async Task The_page_shows_a_job_that_was_begun_before_it_was_opened_and_stops_it()
    {
        int id = await _server.NewPublicationAsync();
        // Small files that take long to read, so that the job is still under way when a slow page has been opened twice; it is stopped long before its end.
        byte[] picture = Plain(9000, 9000);
        const int Many = 100;
        for (int i = 0; i < Many; i++) File.WriteAllBytes(_pictures[$"q{i:00}.png"], [.. picture, (byte)i]);
        var browser = _place.Browser;
        browser.Driver.Navigate().GoToUrl($"{_server.Address}/publications/{id}/images");
        browser.Find("#images[data-ready]");
        browser.Click(".folder-link summary");
        browser.Click("#folder-form button");
        Browser.Until(() => browser.Find("#intake-words").Text.Contains($"of {Many} read", StringComparison.Ordinal), "progress");
        browser.Driver.Navigate().Refresh();
        Browser.Until(() => browser.Find("#intake-words").Text.Contains("left", StringComparison.Ordinal), "progress again, with an estimate");
        browser.Click("#intake-cancel");
        Browser.Until(() => browser.Find("#intake-words").Text.Contains("It was stopped", StringComparison.Ordinal), "stopped");
        var names = await NamesAsync(id);
        names.Length.ShouldBeInRange(1, Many - 1);
        Browser.Until(() => browser.Driver.FindElements(By.CssSelector(".image-sheet li")).Count == names.Length, "what was read by then is here");
    }
}
