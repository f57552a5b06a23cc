using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;

namespace Formatum.Web.Tests;

/// <summary>Pictures made to end whoever reads them: each is refused in words or taken, the others come in, and the server goes on.</summary>
public sealed class OddPicturesTests : IDisposable
{
    private readonly TempFolder _pictures = new();
    private readonly TestServer _server;

    public OddPicturesTests() => _server = new("--pictures", _pictures.Path);

    public void Dispose()
    {
        _server.Dispose();
        _pictures.Dispose();
    }

    private byte[] Good(int i) => [.. File.ReadAllBytes(TestPictures.Save(TestPictures.Quarters(60, 40), _pictures[".good.jpg"])), (byte)i];

    private long Memory => long.Parse(File.ReadLines($"/proc/{_server.ProcessId}/status").Single(l => l.StartsWith("VmHWM", StringComparison.Ordinal))
        .Split(' ', StringSplitOptions.RemoveEmptyEntries)[1], CultureInfo.InvariantCulture) >> 10;

    [Fact]
    public async Task None_of_them_ends_the_server_or_keeps_the_good_ones_out()
    {
        int id = await _server.NewPublicationAsync();
        (string Name, byte[] Content)[] odd =
        [
            ("nested.png", OddPictures.NestedXmp(10_000)), ("swelling.png", OddPictures.SwellingText(1500)), ("chunk.png", OddPictures.OddChunk()),
            ("interlaced.png", OddPictures.Interlaced(13_000)), ("slow.svg", OddPictures.SlowDrawing(400)), ("slower.svg", OddPictures.SlowDrawing(800)),
        ];
        var files = odd.SelectMany((o, i) => new[] { o, ($"good{i}.jpg", Good(i)) }).ToArray();
        var took = Stopwatch.StartNew();
        var said = (await _server.UploadAsync(id, files)).EnumerateArray().ToDictionary(a => a.GetProperty("name").GetString()!);
        for (int i = 0; i < odd.Length; i++) said[$"good{i}.jpg"].TryGetProperty("id", out _).ShouldBeTrue(said[$"good{i}.jpg"].ToString());
        string Error(string name) => said[name].TryGetProperty("error", out var error) ? error.GetString() ?? "" : "";
        Error("interlaced.png").ShouldContain("more memory");
        Error("slow.svg").ShouldContain("takes too long");
        // What such a file says of itself in words is passed over, as its picture is in order.
        Error("nested.png").ShouldBe("");
        Error("chunk.png").ShouldSatisfyAllConditions(e => e.ShouldNotContain("\\"), e => e.ShouldNotContain("Formatum."));
        (await _server.Client.GetAsync("/health")).StatusCode.ShouldBe(HttpStatusCode.OK);
        Memory.ShouldBeLessThan(700);
        TestContext.Current.TestOutputHelper!.WriteLine($"{took.Elapsed} {Memory} MB {JsonSerializer.Serialize(said)}");
    }

    [Fact]
    public async Task A_job_with_one_that_ends_its_reader_goes_on_to_its_end_and_leaves_nothing_that_ends_the_next_start()
    {
        int id = await _server.NewPublicationAsync();
        using var form = new MultipartFormDataContent();
        foreach (var (name, content) in Enumerable.Range(0, 6).Select(i => ($"good{i}.jpg", Good(i))).Append(("swelling.png", OddPictures.SwellingText(1500))))
            form.Add(new ByteArrayContent(content), "files", name);
        using var answer = await _server.Client.PostAsync($"/api/publications/{id}/imports", form);
        string job = (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetString()!;
        JsonElement Status() => _server.GetAsync($"/api/publications/{id}/imports/{job}").Result;
        Browser.Until(() => Status().GetProperty("state").GetString() == "done", "the job ends", 60);
        _server.Kill();
        _server.StartAgain();
        (await _server.GetAsync($"/api/publications/{id}")).GetProperty("images").GetArrayLength().ShouldBeGreaterThanOrEqualTo(6);
    }

    [Fact]
    public async Task Pipes_in_a_folder_are_passed_over()
    {
        Directory.CreateDirectory(_pictures["open"]);
        Tool.Run("mkfifo", _pictures["open/pipe.jpg"]);
        File.WriteAllBytes(_pictures["open/good.jpg"], Good(0));
        int id = await _server.NewPublicationAsync();
        var linked = await _server.PostAsync($"/api/publications/{id}/images/folder", new { folder = _pictures["open"] });
        linked.GetArrayLength().ShouldBe(1);
    }

    [Fact]
    public async Task A_linked_file_that_gives_way_to_a_link_elsewhere_is_missing_and_never_served()
    {
        Directory.CreateDirectory(_pictures["open"]);
        File.WriteAllBytes(_pictures["open/good.jpg"], Good(0));
        int id = await _server.NewPublicationAsync();
        int image = (await _server.PostAsync($"/api/publications/{id}/images/folder", new { folder = _pictures["open"] }))[0].GetProperty("id").GetInt32();
        using (var whole = await _server.Client.GetAsync($"/api/publications/{id}/images/{image}/original")) whole.StatusCode.ShouldBe(HttpStatusCode.OK);
        File.Delete(_pictures["open/good.jpg"]);
        File.CreateSymbolicLink(_pictures["open/good.jpg"], "/etc/passwd");
        using var answer = await _server.Client.GetAsync($"/api/publications/{id}/images/{image}/original");
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        byte[] bundle = await _server.Client.GetByteArrayAsync($"/api/publications/{id}/bundle");
        using var zip = new System.IO.Compression.ZipArchive(new MemoryStream(bundle));
        zip.Entries.ShouldNotContain(e => e.FullName.Contains("good.jpg", StringComparison.Ordinal) && e.Length > 0 && !e.FullName.Contains("preview",
            StringComparison.OrdinalIgnoreCase));
    }
}
