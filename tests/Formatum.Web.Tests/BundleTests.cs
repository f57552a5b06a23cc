using System.IO.Compression;
using System.Net;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>Bundles from one server to another, and from the Shelf.</summary>
public sealed class BundleTests(Workplace place) : InBrowser(place)
{
    private async Task<int> PublicationAsync()
    {
        int id = await Server.NewPublicationAsync("Kiln Post", pages: 2);
        var frames = await FilledAsync(id, (60, 60, 200, 120), (60, 220, 120, 120));
        await Server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = 2,
            x = 60,
            y = 60,
            width = 200,
            height = 60,
            text = new { paragraphs = new[] { new { text = "Jugs, mugs and bowls", family = "Fraunces", size = 22 } } }
        });
        int rule = (await Server.PostAsync($"/api/publications/{id}/rules", new { name = "Airy", fit = "fit" })).GetProperty("id").GetInt32();
        await Server.PostAsync($"/api/publications/{id}/rules/{rule}/put", new { frameIds = frames[..1] });
        return id;
    }

    private async Task<string> TakenAsync(int publication, string name = "bundle.zip")
    {
        await File.WriteAllBytesAsync(Pictures[name], await Server.Client.GetByteArrayAsync($"/api/publications/{publication}/bundle"));
        return Pictures[name];
    }

    private static byte[] JsonOf(string bundle)
    {
        using var zip = ZipFile.OpenRead(bundle);
        using var entry = zip.GetEntry("publication.json")!.Open();
        using var all = new MemoryStream();
        entry.CopyTo(all);
        return all.ToArray();
    }

    private static async Task<(HttpStatusCode Status, JsonElement Answer)> SendAsync(TestServer server, string bundle)
    {
        using var form = new MultipartFormDataContent { { new ByteArrayContent(await File.ReadAllBytesAsync(bundle)), "files", "bundle.zip" } };
        using var answer = await server.Client.PostAsync("/api/bundles", form);
        return (answer.StatusCode, JsonSerializer.Deserialize<JsonElement>(await answer.Content.ReadAsStringAsync()));
    }

    [Fact]
    public async Task On_another_machine_it_is_the_same_publication_down_to_the_print_PDF()
    {
        int id = await PublicationAsync();
        string bundle = await TakenAsync(id);
        using var elsewhere = new TestServer();
        var (status, taken) = await SendAsync(elsewhere, bundle);
        status.ShouldBe(HttpStatusCode.Created, taken.ToString());
        int copy = taken.GetProperty("id").GetInt32();
        await File.WriteAllBytesAsync(Pictures["again.zip"], await elsewhere.Client.GetByteArrayAsync($"/api/publications/{copy}/bundle"));
        JsonOf(Pictures["again.zip"]).ShouldBe(JsonOf(bundle));
        (await elsewhere.GetAsync($"/api/publications/{copy}")).GetProperty("frames").ToString()
            .ShouldBe((await Server.GetAsync($"/api/publications/{id}")).GetProperty("frames").ToString());

        await File.WriteAllBytesAsync(Pictures["here.pdf"], await Server.Client.GetByteArrayAsync($"/api/publications/{id}/output.pdf"));
        await File.WriteAllBytesAsync(Pictures["there.pdf"], await elsewhere.Client.GetByteArrayAsync($"/api/publications/{copy}/output.pdf"));
        foreach (string where in new[] { "here", "there" }) Tool.Run("pdftoppm", "-r", "60", Pictures[$"{where}.pdf"], Pictures[where]);
        for (int page = 1; page <= 2; page++) File.ReadAllBytes(Pictures[$"there-{page}.ppm"]).ShouldBe(File.ReadAllBytes(Pictures[$"here-{page}.ppm"]));
    }

    [Fact]
    public async Task Changed_and_missing_files_arrive_as_changed_and_missing()
    {
        Directory.CreateDirectory(Pictures["work"]);
        foreach (var (name, width) in new[] { ("wide.jpg", 300), ("tall.jpg", 120), ("same.jpg", 200) })
            File.WriteAllBytes(Pictures[$"work/{name}"], ApiTests.Jpeg(width, 200));
        int id = await Server.NewPublicationAsync("Handed over", pages: 1, facing: false);
        await Server.PostAsync($"/api/publications/{id}/images/folder", new { folder = Pictures["work"] });
        File.WriteAllBytes(Pictures["work/wide.jpg"], ApiTests.Jpeg(400, 100, 2));
        File.Delete(Pictures["work/tall.jpg"]);
        string bundle = await TakenAsync(id);

        using var elsewhere = new TestServer();
        var (_, taken) = await SendAsync(elsewhere, bundle);
        taken.GetProperty("changed").EnumerateArray().Select(n => n.GetString()).ShouldBe(["wide.jpg"]);
        taken.GetProperty("missing").EnumerateArray().Select(n => n.GetString()).ShouldBe(["tall.jpg"]);
        Browser.Driver.Navigate().GoToUrl($"{elsewhere.Address}/publications/{taken.GetProperty("id")}/images");
        Browser.Find("#images[data-ready]");
        // What is missing still shows, by the preview that came along.
        Browser.Until(() => Browser.Run<bool>("return document.images.length >= 3 && [...document.images].every(i => i.complete && i.naturalWidth > 0)"),
            "all three are seen");
        Browser.Click("[name=show][value=Changed]");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("#image-list .thumb-name")).Select(n => n.GetDomProperty("textContent"))
            .SequenceEqual(["wide.jpg"]), "the changed one");
        Browser.Click("[name=show][value=Missing]");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("#image-list .thumb-name")).Select(n => n.GetDomProperty("textContent"))
            .SequenceEqual(["tall.jpg"]), "the missing one");
    }

    [Fact]
    public async Task A_bundle_is_taken_from_the_shelf_and_taken_in_there_and_a_bad_one_changes_nothing()
    {
        int id = await PublicationAsync();
        Go("/");
        Browser.Click($"a[href='/api/publications/{id}/bundle']");
        string path = Browser.Until(() => Directory.GetFiles(Browser.Downloads, "*.zip").FirstOrDefault(), "the bundle", 60);
        Path.GetFileName(path).ShouldBe("Kiln Post bundle.zip");
        int before = (await Server.GetAsync("/api/publications")).GetArrayLength();

        byte[] whole = File.ReadAllBytes(path);
        File.WriteAllBytes(Pictures["cut.zip"], whole[..(whole.Length / 2)]);
        Browser.Send("#bundle-file", Pictures["cut.zip"]);
        Browser.Until(() => Browser.Find("#intake-words").Text.Contains("damaged or cut short", StringComparison.Ordinal), "the refusal");
        using (var zip = ZipFile.Open(path, ZipArchiveMode.Update))
        {
            // Not a picture, whatever its name says: found only once it has been unpacked.
            var entry = zip.Entries.Single(e => e.FullName.StartsWith("images/", StringComparison.Ordinal));
            string name = entry.FullName;
            entry.Delete();
            using var other = new StreamWriter(zip.CreateEntry(name).Open());
            other.Write("no picture");
        }
        Browser.Send("#bundle-file", path);
        Browser.Until(() => Browser.Find("#intake-words").Text.Contains("something as quarters.jpg that cannot be used", StringComparison.Ordinal),
            "the refusal");
        (await Server.GetAsync("/api/publications")).GetArrayLength().ShouldBe(before);
        Directory.GetFileSystemEntries(Path.Combine(Server.DataFolder, "incoming")).ShouldBeEmpty();

        File.WriteAllBytes(Pictures["whole.zip"], whole);
        Browser.Send("#bundle-file", Pictures["whole.zip"]);
        Browser.Find("#desk[data-ready]");
        Browser.Until(() => Browser.Find("#notices").Text.Contains("Kiln Post is on the shelf", StringComparison.Ordinal), "told");
        (await Server.GetAsync("/api/publications")).GetArrayLength().ShouldBe(before + 1);
        (await FramesAsync(int.Parse(Browser.Driver.Url.Split('/')[4], null))).Length.ShouldBe(3);
    }

    [Fact]
    public async Task A_publication_is_put_away_from_the_shelf_and_brought_back()
    {
        int id = await Server.NewPublicationAsync("Last year's prices");
        string cover = $".shelf-item a[href='/publications/{id}/desk']", away = "[aria-label=\"Put away Last year's prices\"]",
            back = "[aria-label=\"Bring back Last year's prices\"]";
        Go("/");
        Browser.Find(cover);
        Browser.Click(away);
        Browser.Until(() => !Browser.Has(cover), "it is gone from the shelf");
        Browser.Click(".put-away:not(#room) summary");
        Browser.Click(back);
        Browser.Find(cover);
        Browser.Has(back).ShouldBeFalse();
    }
}
