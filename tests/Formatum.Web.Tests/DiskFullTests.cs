using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;

namespace Formatum.Web.Tests;

/// <summary>The real program on a disk of a few megabytes that pictures fill up.</summary>
public sealed class DiskFullTests
{
    [Fact]
    public async Task What_has_no_room_is_told_what_is_there_stays_and_work_goes_on_once_there_is_room()
    {
        Assert.SkipUnless(TestServer.CanHaveDiskOfItsOwn(), "This machine lets nobody mount a small disk.");
        using var server = new TestServer(diskMegabytes: 10);
        // Room that is there for certain once it is taken away: the pictures may leave none to be filled.
        string reserve = server.InData("reserve");
        await File.WriteAllBytesAsync(reserve, new byte[1 << 20]);
        int id = await server.NewPublicationAsync("Tight", pages: 1, facing: false);
        await server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 10, y = 10, width = 90, height = 60 });

        // Each content once, so that none is the same picture as another.
        byte[] picture = Noise();
        async Task<IEnumerable<JsonElement>> ReportAsync(int from, int count) => (await SendAsync(server, id, Enumerable.Range(from, count)
            .Select(i => ($"p{i:00}.jpg", (byte[])[.. picture, (byte)i])))).GetProperty("report").EnumerateArray();
        // One while there is room; of the others none may find any, where all are read before the first of them is entered.
        List<JsonElement> report = [.. await ReportAsync(0, 1), .. await ReportAsync(1, 39)];
        report.Count.ShouldBe(40);
        var (cameIn, refused) = (report.Where(r => r.GetProperty("error").ValueKind == JsonValueKind.Null).ToList(),
            report.Select(r => r.GetProperty("error").GetString()).OfType<string>().ToList());
        cameIn.Count.ShouldBeInRange(1, 39);
        refused.ShouldAllBe(e => e.Contains("its disk may be full", StringComparison.Ordinal) || e.Contains("disk is full", StringComparison.Ordinal));

        // The disk is filled to its last byte: an edit is refused in words, and nothing is half done.
        var publication = await server.GetAsync($"/api/publications/{id}");
        publication.GetProperty("images").GetArrayLength().ShouldBe(cameIn.Count(r => r.GetProperty("sameAs").ValueKind == JsonValueKind.Null));
        string filler = server.InData("filler");
        Fill(filler);
        HttpStatusCode status = HttpStatusCode.Created;
        string words = "";
        int made = 0;
        while (status == HttpStatusCode.Created && made++ < 2000)
        {
            using var answer = await server.Client.PostAsJsonAsync($"/api/publications/{id}/frames",
                new { page = 1, x = 10, y = 10, width = 50, height = 50, name = new string('n', 200) });
            (status, words) = (answer.StatusCode, await answer.Content.ReadAsStringAsync());
        }
        status.ShouldBe(HttpStatusCode.InsufficientStorage);
        words.ShouldContain("the server's disk is full");
        int frames = (await server.GetAsync($"/api/publications/{id}")).GetProperty("frames").GetArrayLength();
        frames.ShouldBe(made, "all that were answered, with the one from before, and not the one that was refused");

        File.Delete(filler);
        File.Delete(reserve);
        await server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 10, y = 10, width = 90, height = 60 });
        (await server.PostAsync($"/api/publications/{id}/undo", new { })).GetProperty("done").GetString().ShouldNotBeNull();
        (await server.GetAsync($"/api/publications/{id}")).GetProperty("frames").GetArrayLength().ShouldBe(frames);
    }

    [Fact]
    public async Task An_output_that_would_fill_the_disk_ends_half_way_and_leaves_nothing_behind()
    {
        Assert.SkipUnless(TestServer.CanHaveDiskOfItsOwn(), "This machine lets nobody mount a small disk.");
        using var server = new TestServer(diskMegabytes: 24);
        int id = await server.NewPublicationAsync("Tight", pages: 12, facing: false);
        int image = (await server.UploadAsync(id, ("noise.jpg", Noise())))[0].GetProperty("id").GetInt32();
        for (int page = 1; page <= 12; page++)
            await server.PostAsync($"/api/publications/{id}/frames", new { page, x = 0, y = 0, width = 595, height = 842, imageId = image });
        async Task<JsonElement> MadeAsync(object wish)
        {
            string output = (await server.PostAsync($"/api/publications/{id}/outputs", wish)).GetProperty("id").GetString()!;
            for (int i = 0; i < 3600; i++)
            {
                var now = await server.GetAsync($"/api/publications/{id}/outputs/{output}");
                if (now.GetProperty("state").GetString() is not ("waiting" or "making")) return now;
                await Task.Delay(50);
            }
            throw new TimeoutException("The output does not end.");
        }
        // Pixels of noise are as large without loss as they are in memory: far more than the disk has.
        var full = await MadeAsync(new { recipe = "pictures", settings = new { ppi = 150 } });
        full.GetProperty("state").GetString().ShouldBe("failed");
        full.GetProperty("error").GetString()!.ShouldContain("disk is full");
        full.GetProperty("made").GetInt32().ShouldBeInRange(1, 11);
        Directory.GetFiles(server.InData("outputs"), "*", SearchOption.AllDirectories).ShouldAllBe(f => f.EndsWith(".json", StringComparison.Ordinal));
        // Edits and smaller outputs go on.
        await server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 10, y = 10, width = 90, height = 60 });
        (await MadeAsync(new { recipe = "pictures", pages = "1", settings = new { ppi = 40 } })).GetProperty("state").GetString().ShouldBe("done");
    }

    private static void Fill(string path)
    {
        using var file = new FileStream(path, FileMode.Create, FileAccess.Write, FileShare.None, 0);
        try
        {
            byte[] some = new byte[4096];
            while (true) file.Write(some);
        }
        catch (IOException)
        {
            // Full.
        }
    }

    private static byte[] Noise()
    {
        using var folder = new TempFolder();
        using var noise = NetVips.Image.Gaussnoise(900, 600, mean: 128, sigma: 50).Cast(NetVips.Enums.BandFormat.Uchar);
        using var rgb = noise.Bandjoin([noise, noise]).Copy(interpretation: NetVips.Enums.Interpretation.Srgb);
        rgb.Jpegsave(folder["n.jpg"], q: 90);
        return File.ReadAllBytes(folder["n.jpg"]);
    }

    private static async Task<JsonElement> SendAsync(TestServer server, int publication, IEnumerable<(string Name, byte[] Content)> files)
    {
        using var form = new MultipartFormDataContent();
        foreach (var (name, content) in files) form.Add(new ByteArrayContent(content), "files", name);
        using var answer = await server.Client.PostAsync($"/api/publications/{publication}/imports", form);
        string job = (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetString()!;
        JsonElement status = default;
        Browser.Until(() => (status = server.GetAsync($"/api/publications/{publication}/imports/{job}").Result).GetProperty("state")
            .GetString() is "done" or "stopped", "the job ends", 60);
        return status;
    }
}
