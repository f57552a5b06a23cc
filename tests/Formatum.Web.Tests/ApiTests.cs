using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Formatum.Testing;
using UglyToad.PdfPig;

namespace Formatum.Web.Tests;

public sealed class ApiTests(ApiTests.OneServer one) : IClassFixture<ApiTests.OneServer>
{
    public sealed class OneServer : IDisposable
    {
        public TempFolder Pictures { get; } = new();
        public TestServer Server { get; }

        public OneServer()
        {
            Directory.CreateDirectory(Pictures["open/inner"]);
            Directory.CreateDirectory(Pictures["closed"]);
            Server = new("--most-mb", "8", "--pictures", Pictures["open"]);
        }

        public void Dispose()
        {
            Server.Dispose();
            Pictures.Dispose();
        }
    }

    private readonly TestServer _server = one.Server;

    /// <summary>A picture; one of another tint has other content.</summary>
    internal static byte[] Jpeg(int width = 300, int height = 200, int tint = 0)
    {
        using var folder = new TempFolder();
        using var plain = TestPictures.Quarters(width, height);
        using var picture = tint == 0 ? plain.Copy() : plain.Linear([1.0, 1.0, 1.0], [-tint % 60, -tint / 60 * 8, 0]).Cast(NetVips.Enums.BandFormat.Uchar);
        return File.ReadAllBytes(TestPictures.Save(picture, folder["a.jpg"], 150));
    }

    internal static async Task<JsonElement> RefusedAsync(HttpResponseMessage answer, HttpStatusCode status = HttpStatusCode.BadRequest)
    {
        string text = await answer.Content.ReadAsStringAsync();
        answer.StatusCode.ShouldBe(status, text);
        answer.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
        return JsonSerializer.Deserialize<JsonElement>(text);
    }

    [Fact]
    public async Task Health_and_description_are_there()
    {
        (await _server.Client.GetStringAsync("/health")).ShouldBe("ok");
        var paths = (await _server.GetAsync("/openapi/v1.json")).GetProperty("paths").EnumerateObject().Select(p => p.Name).ToList();
        foreach (string path in new[] { "/api/fit", "/api/publications", "/api/publications/{id}", "/api/publications/{id}/images",
            "/api/publications/{id}/frames/{frameId}", "/api/publications/{id}/output.pdf" })
            paths.ShouldContain(path);
    }

    [Fact]
    public async Task Fit_answers_with_matrix_and_numbers()
    {
        var answer = await _server.PostAsync("/api/fit", new
        {
            frame = new { width = 200, height = 120 },
            image = new { widthPx = 4000, heightPx = 3000, ppi = 300, orientation = 1 },
            rule = new { fit = "fill" }
        });
        answer.GetProperty("applied").GetString().ShouldBe("fill");
        answer.GetProperty("matrix").EnumerateArray().Select(v => v.GetDouble()).ShouldBe([200, 0, 0, 150, 0, -15]);
        answer.GetProperty("cropLoss").GetDouble().ShouldBe(0.2, 1e-12);
        answer.GetProperty("bareArea").GetDouble().ShouldBe(0);
        answer.GetProperty("flags").GetArrayLength().ShouldBe(0);
        var turned = await _server.PostAsync("/api/fit", new
        {
            frame = new { width = "200pt", height = "1in", outline = "ellipse" },
            image = new { widthPx = 4000, heightPx = 3000, orientation = 6 },
            rule = new { fit = "fill-or-fit", largestCrop = 0.01 }
        });
        turned.GetProperty("applied").GetString().ShouldBe("fit");
        turned.GetProperty("matrix")[0].GetDouble().ShouldBe(54, 1e-9);
    }

    [Theory]
    [InlineData("""{"frame":{"width":-1,"height":5},"image":{"widthPx":1,"heightPx":1}}""", "frame.width")]
    [InlineData("""{"frame":{"width":1e999,"height":5},"image":{"widthPx":1,"heightPx":1}}""", "frame.width")]
    [InlineData("""{"frame":{"width":"NaN","height":5},"image":{"widthPx":1,"heightPx":1}}""", "frame.width")]
    [InlineData("""{"frame":{"width":5,"height":5},"image":{"widthPx":0,"heightPx":1}}""", "image.widthPx")]
    [InlineData("""{"frame":{"width":5,"height":5},"image":{"widthPx":1,"heightPx":1,"orientation":9}}""", "image.orientation")]
    [InlineData("""{"frame":{"width":5,"height":5},"image":{"widthPx":1,"heightPx":1,"subject":[2,0]}}""", "image.subject")]
    [InlineData("""{"frame":{"width":5,"height":5},"image":{"widthPx":1,"heightPx":1},"rule":{"fit":"squash"}}""", "rule.fit")]
    [InlineData("""{"frame":{"width":5,"height":5},"image":{"widthPx":1,"heightPx":1},"rule":{"align":[0.5]}}""", "rule.align")]
    [InlineData("""{"frame":{"width":5,"height":5},"image":{"widthPx":1,"heightPx":1},"recrop":{"zoom":0}}""", "recrop.zoom")]
    [InlineData("""{"frame":{"width":5},"image":{"widthPx":1,"heightPx":1}}""", "frame")]
    [InlineData("""{"frame":""", "frame")]
    [InlineData("nonsense", "body")]
    public async Task Bad_fits_are_refused_by_field(string body, string field)
    {
        using var answer = await _server.Client.PostAsync("/api/fit", new StringContent(body, Encoding.UTF8, "application/json"));
        var problem = await RefusedAsync(answer);
        problem.GetProperty("errors").EnumerateObject().Select(e => e.Name).ShouldContain(field);
        problem.GetProperty("detail").GetString()!.ShouldNotContain("Formatum.");
    }

    [Fact]
    public async Task A_publication_is_made_filled_changed_and_taken_away_as_PDF()
    {
        int id = await _server.NewPublicationAsync("Through and through");
        var arrivals = await _server.UploadAsync(id, ("one.jpg", Jpeg()), ("two \"quoted\" <b>&.jpg", Jpeg(200, 300)));
        arrivals[1].GetProperty("name").GetString().ShouldBe("two \"quoted\" <b>&.jpg");
        arrivals[0].GetProperty("widthPx").GetInt32().ShouldBe(300);
        arrivals[0].GetProperty("ppi").GetDouble().ShouldBe(150, 0.5);
        int image = arrivals[0].GetProperty("id").GetInt32();

        int rule = (await _server.PostAsync($"/api/publications/{id}/rules", new { name = "Airy", fit = "fit", inset = new { top = "2mm" } }))
            .GetProperty("id").GetInt32();
        var frame = await _server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = 2,
            x = "10mm",
            y = 20,
            width = 100,
            height = 80,
            ruleId = rule,
            imageId = image,
            name = "Lead"
        });
        int frameId = frame.GetProperty("id").GetInt32();
        frame.GetProperty("placement").GetProperty("applied").GetString().ShouldBe("fit");

        using (var patch = await _server.Client.PatchAsJsonAsync($"/api/publications/{id}/frames/{frameId}",
            new { width = "50mm", ruleId = (int?)null, set = new { fit = "stretch" } }))
        {
            var changed = JsonSerializer.Deserialize<JsonElement>(await patch.Content.ReadAsStringAsync());
            changed.GetProperty("width").GetDouble().ShouldBe(50 / 25.4 * 72, 1e-9);
            changed.GetProperty("ruleId").ValueKind.ShouldBe(JsonValueKind.Null);
            changed.GetProperty("imageId").GetInt32().ShouldBe(image);
            changed.GetProperty("placement").GetProperty("flags")[0].GetString().ShouldBe("stretched");
        }

        var whole = await _server.GetAsync($"/api/publications/{id}");
        whole.GetProperty("frames").GetArrayLength().ShouldBe(1);
        whole.GetProperty("images").GetArrayLength().ShouldBe(2);
        whole.GetProperty("page").GetProperty("size").GetString().ShouldBe("A4");
        whole.GetProperty("pages").GetArrayLength().ShouldBe(4);

        using (var pdf = PdfDocument.Open(await _server.Client.GetByteArrayAsync($"/api/publications/{id}/output.pdf?marks=true&bleed=true")))
            pdf.NumberOfPages.ShouldBe(4);
        (await _server.Client.GetStringAsync($"/api/publications/{id}/pages/2.svg")).ShouldContain("data:image/jpeg;base64,");
        (await _server.Client.GetByteArrayAsync($"/api/publications/{id}/pages/2.png?ppi=36")).AsSpan(1, 3).SequenceEqual("PNG"u8).ShouldBeTrue();
        (await RefusedAsync(await _server.Client.GetAsync($"/api/publications/{id}/pages/9.png"))).GetProperty("detail")
            .GetString()!.ShouldContain("pages 1 to 4");

        (await _server.Client.DeleteAsync($"/api/publications/{id}/frames/{frameId}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await RefusedAsync(await _server.Client.DeleteAsync($"/api/publications/{id}/frames/{frameId}"), HttpStatusCode.NotFound);
        (await _server.PostAsync($"/api/publications/{id}/undo", new { })).GetProperty("done").GetString().ShouldBe("Undo Remove frame");
    }

    /// <summary>What was seen is said in any of three ways; RFC 9110 13.1.1 has If-Match.</summary>
    [Theory]
    [InlineData("frames", """{"page":1,"x":20,"y":20,"width":100,"height":80,"name":"?"}""")]
    [InlineData("rules", """{"name":"?","fit":"fit"}""")]
    [InlineData("styles", """{"name":"?","settings":{"size":10}}""")]
    [InlineData("looks", """{"name":"?"}""")]
    [InlineData("masters", """{"name":"?"}""")]
    [InlineData("recipes", """{"name":"?","kind":"print"}""")]
    [InlineData("check-profiles", """{"name":"?"}""")]
    public async Task A_name_stands_on_one_line_whatever_bears_it(string address, string body)
    {
        int id = await _server.NewPublicationAsync("Named");
        async Task<HttpResponseMessage> PostAsync(string name) => await _server.Client.PostAsync($"/api/publications/{id}/{address}",
            new StringContent(body.Replace("?", name, StringComparison.Ordinal), System.Text.Encoding.UTF8, "application/json"));
        using var odd = await PostAsync("a\\u0001b");
        (await RefusedAsync(odd)).GetProperty("errors").GetProperty("name")[0].GetString()!.ShouldContain("line ends");
        using var plain = await PostAsync("Plain");
        plain.IsSuccessStatusCode.ShouldBeTrue(await plain.Content.ReadAsStringAsync());
    }

    /// <summary>XML 1.0 has no such characters, not even written as references: a browser that meets one shows nothing of the page.</summary>
    [Fact]
    public async Task Whatever_stands_in_names_and_texts_a_page_is_well_formed()
    {
        const string Odd = "a\ufffe\uffff\ud800<&>\"']]>b";
        int id = await _server.NewPublicationAsync(Odd);
        int image = (await _server.UploadAsync(id, ($"{Odd}.jpg", Jpeg())))[0].GetProperty("id").GetInt32();
        await _server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 20, y = 20, width = 100, height = 80, name = Odd, imageId = image });
        await _server.PostAsync($"/api/publications/{id}/frames",
            new { page = 1, x = 20, y = 120, width = 100, height = 80, kind = "text", text = new { paragraphs = new[] { new { text = Odd } } } });
        System.Xml.Linq.XDocument.Parse(await _server.Client.GetStringAsync($"/api/publications/{id}/pages/1.svg")).Root!.Value.ShouldContain("<&>");
    }

    [Fact]
    public async Task A_change_made_on_what_was_seen_before_another_changed_it_is_refused()
    {
        int id = await _server.NewPublicationAsync();
        int frame = (await _server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 10, y = 10, width = 50, height = 50 }))
            .GetProperty("id").GetInt32();
        string address = $"/api/publications/{id}/frames/{frame}";
        long seen = (await _server.GetAsync($"/api/publications/{id}")).GetProperty("revision").GetInt64();
        (await _server.Client.PatchAsJsonAsync(address, new { x = 20, seen })).StatusCode.ShouldBe(HttpStatusCode.OK);
        await RefusedAsync(await _server.Client.PatchAsJsonAsync(address, new { x = 30, seen }), HttpStatusCode.Conflict);
        await RefusedAsync(await _server.Client.PatchAsJsonAsync($"{address}?seen={seen}", new { x = 30 }), HttpStatusCode.Conflict);
        using var request = new HttpRequestMessage(HttpMethod.Patch, address) { Content = JsonContent.Create(new { x = 30 }) };
        request.Headers.TryAddWithoutValidation("If-Match", $"\"{seen}\"");
        await RefusedAsync(await _server.Client.SendAsync(request), HttpStatusCode.Conflict);
        (await _server.Client.PatchAsJsonAsync(address, new { x = 40 })).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Previews_that_are_gone_are_made_again()
    {
        int id = await _server.NewPublicationAsync();
        byte[] picture = Jpeg(900, 700);
        await _server.UploadAsync(id, ("a.jpg", picture));
        string hash = Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(picture));
        string kept = Path.Combine(_server.DataFolder, "previews", hash[..2], hash + "-720.jpg");
        File.Exists(kept).ShouldBeTrue();
        File.Delete(kept);
        using var answer = await _server.Client.GetAsync($"/previews/{hash}/720");
        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        (await answer.Content.ReadAsByteArrayAsync()).AsSpan(0, 2).SequenceEqual((ReadOnlySpan<byte>)[0xFF, 0xD8]).ShouldBeTrue();
    }

    [Theory]
    [InlineData("""{"name":"x","page":{"size":"A4"},"margins":{"inside":"150mm","outside":"90mm"}}""", "margins.inside")]
    [InlineData("""{"name":"x","page":{"size":"A4"},"columns":{"count":0,"gutter":0}}""", "columns.count")]
    [InlineData("""{"name":"x","page":{"width":"10000m","height":100}}""", "page.width")]
    [InlineData("""{"name":"x","page":{"size":"A99"}}""", "page.size")]
    [InlineData("""{"name":"","page":{"size":"A4"}}""", "name")]
    [InlineData("""{"name":"x","page":{"size":"A4"},"pages":100000}""", "pages")]
    [InlineData("""{"page":{"size":"A4"}}""", "body")]
    public async Task Impossible_set_ups_are_refused_by_field(string body, string field)
    {
        using var answer = await _server.Client.PostAsync("/api/publications", new StringContent(body, Encoding.UTF8, "application/json"));
        (await RefusedAsync(answer)).GetProperty("errors").TryGetProperty(field, out _).ShouldBeTrue();
    }

    [Fact]
    public async Task Bad_pictures_are_told_one_by_one_and_the_good_ones_beside_them_come_in()
    {
        int id = await _server.NewPublicationAsync();
        var good = Jpeg();
        var arrivals = await _server.UploadAsync(id,
            ("good.jpg", good), ("cut.jpg", good[..(good.Length / 2)]), ("notes.png", "hello"u8.ToArray()), ("empty.jpg", []), ("../../climb.jpg", good),
                (new string('n', 300) + ".jpg", good),
            ("script.svg", "<svg xmlns='http://www.w3.org/2000/svg'><script/></svg>"u8.ToArray()), ("big.tif", new byte[9 << 20]),
                ("it's <i>fine.jpg", Jpeg(tint: 1)));
        string?[] errors = [.. arrivals.EnumerateArray().Select(a => a.TryGetProperty("error", out var e) ? e.GetString() : null)];
        errors[0].ShouldBeNull();
        errors[1]!.ShouldContain("broken or cut short");
        errors[2]!.ShouldContain("holds text");
        errors[3]!.ShouldContain("0 bytes");
        errors[4]!.ShouldContain("holds a path");
        errors[5]!.ShouldContain("304 characters");
        errors[6]!.ShouldContain("script");
        errors[7]!.ShouldContain("8 MB");
        errors[8].ShouldBeNull();
        arrivals[0].EnumerateObject().Select(p => p.Name).ShouldBe(["name", "id", "widthPx", "heightPx", "ppi"]);
        arrivals[1].EnumerateObject().Select(p => p.Name).ShouldBe(["name", "error"]);
        (await _server.GetAsync($"/api/publications/{id}")).GetProperty("images").GetArrayLength().ShouldBe(2);
        Directory.GetFiles(Path.Combine(_server.DataFolder, "incoming")).ShouldBeEmpty();
        // The page shows the name as it is, and not as markup.
        (await _server.Client.GetStringAsync($"/publications/{id}/desk")).ShouldContain("it&#x27;s &lt;i&gt;fine.jpg");
    }

    [Fact]
    public async Task Five_hundred_files_come_in_at_once_as_one_edit()
    {
        int id = await _server.NewPublicationAsync();
        var good = Jpeg(30, 20);
        var arrivals = await _server.UploadAsync(id, [.. Enumerable.Range(1, 500).Select(i => ($"p{i}.jpg", good))]);
        arrivals.EnumerateArray().Select(a => a.GetProperty("name").GetString()).ShouldBe(Enumerable.Range(1, 500).Select(i => $"p{i}.jpg"));
        await _server.PostAsync($"/api/publications/{id}/undo", new { });
        (await _server.GetAsync($"/api/publications/{id}")).GetProperty("images").GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task Only_folders_below_the_open_roots_are_linked_and_the_files_stay_where_they_are()
    {
        int id = await _server.NewPublicationAsync();
        File.WriteAllBytes(one.Pictures["open/inner/a.jpg"], Jpeg());
        File.WriteAllBytes(one.Pictures["closed/b.jpg"], Jpeg());
        if (!File.Exists(one.Pictures["open/inner/leads-out.jpg"]))
            File.CreateSymbolicLink(one.Pictures["open/inner/leads-out.jpg"], one.Pictures["closed/b.jpg"]);
        var linked = await _server.PostAsync($"/api/publications/{id}/images/folder", new { folder = one.Pictures["open/inner"] });
        linked.EnumerateArray().Select(a => a.GetProperty("name").GetString()).ShouldBe(["a.jpg"]);
        foreach (string folder in new[] { one.Pictures["closed"], one.Pictures["open/../closed"], "/etc", "../closed", one.Pictures["open/none"], "" })
        {
            using var answer = await _server.Client.PostAsJsonAsync($"/api/publications/{id}/images/folder", new { folder });
            (await RefusedAsync(answer)).GetProperty("errors").TryGetProperty("folder", out _).ShouldBeTrue(folder);
        }
    }

    [Fact]
    public async Task Pages_of_other_sites_change_nothing()
    {
        using var foreign = new HttpRequestMessage(HttpMethod.Post, "/api/publications")
        {
            Content = JsonContent.Create(new
            {
                name = "x",
                page = new { size = "A4" }
            })
        };
        foreign.Headers.Add("Origin", "http://elsewhere.example");
        await RefusedAsync(await _server.Client.SendAsync(foreign), HttpStatusCode.Forbidden);
        using var rebound = new HttpRequestMessage(HttpMethod.Get, "/api/publications");
        rebound.Headers.Host = "elsewhere.example";
        (await _server.Client.SendAsync(rebound)).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        // A form post without the page's token.
        int id = await _server.NewPublicationAsync();
        (await _server.Client.PostAsync($"/publications/{id}/desk/1", new FormUrlEncodedContent(new Dictionary<string,
            string>
        { ["do"] = "undo" }))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }

    [Fact]
    public async Task Every_change_tells_its_revision_and_a_stale_one_is_refused_undo_included()
    {
        int id = await _server.NewPublicationAsync();
        var frame = await _server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 0, y = 0, width = 10, height = 10 });
        string address = $"/api/publications/{id}/frames/{frame.GetProperty("id").GetInt32()}";
        async Task<HttpResponseMessage> PatchAsync(double x, string? seen)
        {
            using var request = new HttpRequestMessage(HttpMethod.Patch, address) { Content = JsonContent.Create(new { x }) };
            if (seen is not null) request.Headers.TryAddWithoutValidation("If-Match", seen);
            return await _server.Client.SendAsync(request);
        }
        using var read = await _server.Client.GetAsync($"/api/publications/{id}");
        string seen = read.Headers.ETag!.Tag;
        using var first = await PatchAsync(5, seen);
        first.StatusCode.ShouldBe(HttpStatusCode.OK);
        first.Headers.ETag!.Tag.ShouldBe("\"3\"");
        using var stale = await PatchAsync(6, seen);
        await RefusedAsync(stale, HttpStatusCode.Conflict);
        await RefusedAsync(await _server.Client.PostAsync($"/api/publications/{id}/undo?seen=2", null), HttpStatusCode.Conflict);
        using var undone = await _server.Client.PostAsync($"/api/publications/{id}/undo?seen=3", null);
        undone.StatusCode.ShouldBe(HttpStatusCode.OK);
        undone.Headers.ETag!.Tag.ShouldBe("\"4\"");
    }

    [Fact]
    public async Task What_is_not_there_is_404_in_words()
    {
        var problem = await RefusedAsync(await _server.Client.GetAsync("/api/publications/999"), HttpStatusCode.NotFound);
        problem.GetProperty("detail").GetString()!.ShouldContain("no publication 999");
        // A person gets a page with a way on.
        using var request = new HttpRequestMessage(HttpMethod.Get, "/publications/999/desk");
        request.Headers.Accept.ParseAdd("text/html");
        using var page = await _server.Client.SendAsync(request);
        page.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await page.Content.ReadAsStringAsync()).ShouldContain("To the shelf");
    }
}
