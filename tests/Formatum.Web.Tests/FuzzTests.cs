using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Formatum.Core.Checks;
using Formatum.Testing;
using Formatum.Web.Desk;

namespace Formatum.Web.Tests;

/// <summary>
/// Whatever is sent, from a fixed seed: no answer is a failure of the program, none takes long or much memory, and what was refused changed nothing.
/// FORMATUM_FUZZ gives how many times as much is tried, where more is wanted than CI has time for.
/// </summary>
public sealed partial class FuzzTests(Workplace place) : IClassFixture<Workplace>
{
    private static readonly int Times = int.TryParse(Environment.GetEnvironmentVariable("FORMATUM_FUZZ"), CultureInfo.InvariantCulture, out int times)
        ? times : 1;

    /// <summary>How many of each are tried.</summary>
    internal static readonly int Commands = 2000 * Times, Bodies = 3000 * Times, Questions = 20 * Times, Bundles = 300 * Times, Pictures = 2000 * Times,
        Tables = 2000 * Times, Pdfs = 20 * Times;

    /// <summary>The server never takes more memory than this, in bytes.</summary>
    private const long MostMemory = 1_500L << 20;

    internal const int Seed = 20_261_126;

    private TestServer Server => place.Server;

    private sealed record Target(string Method, string Address, string? Body);

    private async Task<(int Publication, List<Target> Targets)> TargetsAsync()
    {
        int id = await Server.NewPublicationAsync("Fuzz", pages: 4);
        string at = $"/api/publications/{id}";
        int image = (await Server.UploadAsync(id, ("a.jpg", ApiTests.Jpeg(60, 40))))[0].GetProperty("id").GetInt32();
        int rule = (await Server.PostAsync($"{at}/rules", new { name = "R", fit = "fit" })).GetProperty("id").GetInt32();
        int frame = (await Server.PostAsync($"{at}/frames", new
        {
            page = 1,
            x = 10,
            y = 10,
            width = 100,
            height = 80,
            imageId = image,
            ruleId = rule,
            name = "F"
        })).GetProperty("id").GetInt32();
        int text = (await Server.PostAsync($"{at}/frames", new
        {
            page = 2,
            x = 10,
            y = 10,
            width = 100,
            height = 80,
            text = new { paragraphs = new[] { new { text = "Words" } } }
        })).GetProperty("id").GetInt32();
        int house = await Server.NewPublicationAsync("House");
        int houseLook = (await Server.PostAsync($"/api/publications/{house}/looks", new { name = "Of the house", look = new { opacity = 0.5 } }))
            .GetProperty("id")
            .GetInt32();
        int look = (await Server.PostAsync($"{at}/looks", new { name = "L", look = new { opacity = 0.5 } })).GetProperty("id").GetInt32();
        int story = (await Server.GetAsync($"{at}")).GetProperty("frames").EnumerateArray().Single(f => f.GetProperty("id").GetInt32() == text)
            .GetProperty("text").GetProperty("storyId").GetInt32();
        int empty = (await Server.PostAsync($"{at}/frames", new { page = 3, x = 10, y = 10, width = 100, height = 80 })).GetProperty("id").GetInt32();
        await Server.PostAsync($"{at}/styles", new { name = "Body", settings = new { size = 10 } });
        int characters = (await Server.PostAsync($"{at}/styles", new { kind = "character", name = "Price", settings = new { bold = true } })).GetProperty("id")
            .GetInt32();
        int master = (await Server.PostAsync($"{at}/masters", new { name = "M" })).GetProperty("id").GetInt32();
        string recipe = (await Server.PostAsync($"{at}/recipes", new { name = "Own", kind = "print" })).GetProperty("key").GetString()!;
        int profile = (await Server.PostAsync($"{at}/check-profiles", new { name = "Own" })).GetProperty("id").GetInt32();
        string output = (await Server.PostAsync($"{at}/outputs", new { recipe = "proof" })).GetProperty("id").GetString()!;
        return (id,
        [
            new("POST", "/api/fit", """{"frame":{"width":200,"height":"120mm","outline":"ellipse"},"image":{"widthPx":4000,"heightPx":3000,"ppi":300""" +
                    ""","orientation":6,"subject":[0.5,0.4]},"rule":{"fit":"fill","align":[0.5,0.5],"inset":{"top":1},"rotation":12,"largestCrop":0.2}""" +
                    ""","recrop":{"zoom":1.2,"point":[0.5,0.5]}}"""),
            new("POST", "/api/publications",
                """{"name":"N","page":{"size":"A5"},"facing":true,"pages":3,"bleed":"3mm","margins":{"top":10,"bottom":10,"inside":10,"outside":10}""" +
                    ""","columns":{"count":2,"gutter":5}}"""),
            new("POST", $"{at}/frames", """{"page":1,"x":20,"y":30,"width":40,"height":"5cm","outline":"polygon","sides":5,"angle":10""" +
                    ""","name":"G","look":{"border":{"width":1,"colour":"#112233"},"opacity":0.5,"shadow":{"blur":3}},"set":{"fit":"fit","limits":"hold"}}"""),
            new("PATCH", $"{at}/frames/{frame}",
                $$$"""{"x":11,"width":90,"ruleId":{{{rule}}},"imageId":{{{image}}},"set":{"align":[0,1],"inset":{"left":2}},"recrop":{"zoom":1.5""" +
                    $$$""","turn":3},"locked":false,"seen":1}"""),
            new("PATCH", $"{at}/frames/{text}",
                """{"text":{"paragraphs":[{"text":"One {page}","size":12,"leading":14,"colour":"#000000","alignment":"justified","spaceAfter":2""" +
                    ""","spaceBefore":3,"indent":"5mm","hyphenate":true,"language":"en-US"},{"text":"Two"}]},"columns":{"count":2""" +
                    ""","gutter":"4mm","inset":{"top":1,"left":"2mm"},"vertical":"middle","ignoresWrap":false}""" +
                    ""","wrap":{"around":"box","distance":{"top":3,"right":4},"sides":"wider"}}"""),
            new("POST", $"{at}/stories", $$"""{"frames":[{{empty}}],"text":"One\\nTwo","seen":1}"""),
            new("PUT", $"{at}/stories/{story}", $$"""{"frames":[{{text}},{{empty}}],"paragraphs":[{"text":"Words","size":9,"hyphenate":true}]}"""),
            new("PUT", $"{at}/stories/{story}",
                $$$"""{"paragraphs":[{"style":"Body","settings":{"tabs":[{"at":"4cm","alignment":"decimal","leader":"."}],"list":"number","orphans":2""" +
                    $$$""","initialLines":2,"lineBelow":1},"runs":[{"text":"Mug\t"},{"text":"12","style":{{{characters}}},"settings":{"bold":true""" +
                    $$$""","position":"superscript","tracking":20,"case":"capitals"}}]}]}"""),
            new("POST", $"{at}/styles", """{"kind":"paragraph","name":"Heading","basedOn":"Body","default":true,"settings":{"size":"14pt","leading":0""" +
                    ""","keepWithNext":true,"breakBefore":"frame","figures":"old-style"}}"""),
            new("PUT", $"{at}/styles/{characters}", """{"name":"Old price","settings":{"strikeThrough":true,"shift":1.5,"colour":"#7a3b69"},"seen":1}"""),
            new("POST", $"{at}/styles/{characters}/put", $$"""{"frameIds":[{{text}}],"from":1,"to":3,"clear":true}"""),
            new("POST", $"{at}/looks", $$$"""{"name":"Framed","basedOnId":{{{look}}},"sets":["border","shadow"],"look":{"border":{"width":2""" +
                    $$$""","kind":"dashed","place":"inside","dashes":[4,2],"join":"round","end":"square","sides":["top","left"],"second":{"gap":1,"width":2""" +
                    $$$""","colour":"#7a3b69"}},"corners":{"kind":"scoop","radius":[1,"2mm"] } } }"""),
            new("PUT", $"{at}/looks/{look}", """{"name":"L","look":{"shadow":{"across":1,"blur":2},"treatment":{"grey":{"red":1},"gamma":1.5}}}"""),
            new("POST", $"{at}/house-style", $$"""{"from":{{house}},"parts":[{"kind":"look","id":{{houseLook}},"namesake":"beside"}],"namesake":"kept"}"""),
            new("POST", $"{at}/looks/{look}/put", $$"""{"frameIds":[{{frame}}],"clear":true}"""),
            new("POST", $"{at}/rules", """{"name":"Another","description":"d","fit":"fill-or-fit","largestCrop":0.3,"smallestPpi":150,"staysFitted":true}"""),
            new("PUT", $"{at}/rules/{rule}", """{"name":"R","fit":"fit","inset":{"top":1,"right":2,"bottom":3,"left":4}}"""),
            new("POST", $"{at}/rules/{rule}/put", """{"page":1,"which":"all"}"""),
            new("POST", $"{at}/rules/{rule}/impact", """{"name":"R","fit":"stretch"}"""),
            new("PUT", $"{at}/default-rule", $$"""{"ruleId":{{rule}}}"""),
            new("POST", $"{at}/pages", """{"before":2,"count":1}"""),
            new("POST", $"{at}/pages/move", """{"pages":[1,2],"before":4}"""),
            new("POST", $"{at}/pages/duplicate", """{"pages":[1],"before":2}"""),
            new("POST", $"{at}/pages/remove", """{"pages":[4],"seen":1}"""),
            new("POST", $"{at}/pages/base", $$"""{"pages":[3],"masterId":{{master}}}"""),
            new("POST", $"{at}/masters", """{"name":"Second","likePages":[1],"baseThem":false}"""),
            new("PATCH", $"{at}/masters/{master}", """{"name":"Renamed"}"""),
            new("POST", $"{at}/tray", $$"""{"imageIds":[{{image}}]}"""),
            new("POST", $"{at}/pour", $$"""{"imageIds":[{{image}}],"fromPage":1,"order":"best","keepPouring":false,"leftovers":"keep"}"""),
            new("POST", $"{at}/rows", """{"columns":["F","Price"],"rows":[["a.jpg","1.00"],["b","2"]],"targets":{"F":"F"},"fromPage":1,"onlyReport":true}"""),
            new("POST", $"{at}/editions", """{"name":"Next","edition":"2","keepPictures":true}"""),
            new("PATCH", $"{at}/images/{image}", """{"subject":[0.3,0.6]}"""),
            new("POST", $"{at}/images/folder", """{"folder":"/nowhere","within":true}"""),
            new("POST", $"{at}/imports/folder", """{"folder":"/nowhere"}"""),
            new("PUT", $"{at}/palette", """[{"name":"Moss","cmyk":[0.5,0,0.25,0.2]},{"name":"Plum","rgb":"#7a3b69"},{"name":"Slate","grey":0.6}""" +
                    """,{"name":"Celadon","spot":true,"cmyk":[0.4,0,0.2,0]}]"""),
            new("PATCH", $"{at}/frames/{frame}",
                """{"look":{"background":{"grey":0.2},"border":{"width":"2pt","colour":"Moss"},"treatment":{"grey":{"red":0.5,"green":0.4,"blue":0.1}""" +
                    ""","saturation":1.2,"brightness":0.1,"contrast":-0.2,"gamma":1.1,"invert":true,"inks":{"dark":{"cmyk":[0,0,0,1]}""" +
                    ""","light":"#ffffff"},"off":false}}}"""),
            new("PUT", $"{at}/press", """{"profile":null}"""),
            new("POST", $"{at}/recipes", """{"name":"Flyer","kind":"print","pages":"1-2","marks":{"crop":true,"offset":"3mm"}""" +
                    ""","imposition":{"kind":"several","across":2,"down":2,"gutter":4,"sheetWidth":"900mm","sheetHeight":"1200mm"},"mostPpi":200""" +
                    ""","quality":80,"filePattern":"{publication} {date}"}"""),
            new("PUT", $"{at}/recipes/{recipe}", """{"name":"Own","bleed":true,"convert":true,"imposition":{"kind":"booklet","creep":1}}"""),
            new("POST", $"{at}/outputs", """{"recipe":"proof","pages":"1-2","settings":{"kind":"screen","spreads":false,"quality":60,"mostPpi":90""" +
                    ""","ppi":72,"file":"jpeg","marks":{"bars":true}}}"""),
            new("POST", $"{at}/outputs/{output}/handovers", """{"to":"Print shop","copies":500,"binding":"saddleStitch","note":"by Friday"}"""),
            new("POST", "/api/publications",
                """{"name":"Leaflet","page":{"width":"297mm","height":"210mm"},"pages":2,"folding":{"kind":"roll","panels":4,"narrower":"3mm"}}"""),
            new("POST", $"{at}/check/remedies", $$"""{"ids":["emptyPlaceholder-frame-{{empty}}"],"remedy":"remove","profile":"offset","folder":"/nowhere"}"""),
            new("POST", $"{at}/check/accepted", $$"""{"ids":["emptyPlaceholder-frame-{{empty}}"],"reason":"Meant so","profile":"draft"}"""),
            new("POST", $"{at}/check/unaccepted", $$"""{"ids":["emptyPlaceholder-frame-{{empty}}"]}"""),
            new("PUT", $"{at}/check/profile", """{"profile":"newspaper"}"""),
            new("POST", $"{at}/check-profiles",
                """{"name":"Ours","kinds":{"page-blank":"off"},"leastPpi":120,"wantedPpi":250,"mostInk":280,"bleed":"5mm","safeDistance":12""" +
                    ""","thinnestLine":0.3,"smallestType":6}"""),
            new("PUT", $"{at}/check-profiles/{profile}", """{"name":"Mine","leastPpi":0}"""),
            new("POST", $"{at}/undo", null), new("POST", $"{at}/redo", null),
        ]);
    }

    internal static readonly string[] Odd =
    [
        "null", "true", "-1", "0", "1e308", "-1e308", "2147483647", "-2147483648", "9223372036854775807", "0.1", "\"\"", "\" \"", "\"NaN\"", "\"Infinity\"",
            "\"1e999mm\"", "\"\\u0000\"", "\"\\ud800\"",
        "\"<b>&\\\"'\"", "\"../../etc\"", "[]", "[null]", "[[]]", "{}", "{\"x\":{\"x\":{}}}", "\"" + new string('a', 5000) + "\"", "[1,2,3,4,5,6,7,8,9]",
            "\"12mm\"", "\"fill\"", "1", "99999",
    ];

    /// <summary>A body with one or more of its values put out of place.</summary>
    private static string Spoiled(string body, Random random)
    {
        var node = JsonNode.Parse(body)!;
        for (int i = random.Next(1, 4); i > 0; i--) Spoil(node, random);
        string text = node.ToJsonString();
        return random.Next(20) == 0 ? text[..random.Next(text.Length)] : text;
    }

    private static void Spoil(JsonNode node, Random random)
    {
        JsonNode? Value() => JsonNode.Parse(Odd[random.Next(Odd.Length)] is var odd && odd.Contains("\\ud800", StringComparison.Ordinal) ? "\"\\ufffd\"" : odd);
        if (node is JsonObject { Count: > 0 } o)
        {
            var (name, inner) = o.ElementAt(random.Next(o.Count));
            if (inner is JsonObject or JsonArray && random.Next(3) > 0) Spoil(inner, random);
            else if (random.Next(8) == 0) o.Remove(name);
            else if (random.Next(12) == 0) o["unknown"] = Value();
            else o[name] = Value();
        }
        else if (node is JsonArray { Count: > 0 } a)
        {
            int at = random.Next(a.Count);
            if (a[at] is JsonObject or JsonArray && random.Next(2) == 0) Spoil(a[at]!, random);
            else a[at] = Value();
        }
    }

    [Fact]
    public async Task No_body_whatever_is_in_it_makes_the_program_fail()
    {
        var random = new Random(Seed);
        var (id, targets) = await TargetsAsync();
        long revision = await RevisionAsync(id);
        for (int round = 0; round < Bodies; round++)
        {
            var target = targets[random.Next(targets.Count)];
            string? body = target.Body is null ? null : Spoiled(target.Body, random);
            using var request = new HttpRequestMessage(new(target.Method), target.Address);
            if (body is not null) request.Content = new StringContent(body, Encoding.UTF8, "application/json");
            if (random.Next(10) == 0)
                request.Headers.TryAddWithoutValidation("If-Match", new[] { "1", "\"3\"", "*", "x", "-1", "99999999999999999999" }[random.Next(6)]);
            var took = Stopwatch.StartNew();
            using var answer = await Server.Client.SendAsync(request);
            string told = $"round {round}: {target.Method} {target.Address} {body} -> {(int)answer.StatusCode} {await answer.Content.ReadAsStringAsync()}";
            ((int)answer.StatusCode).ShouldBeLessThan(500, told);
            took.Elapsed.ShouldBeLessThan(TimeSpan.FromSeconds(10), told);
            if (answer is { StatusCode: HttpStatusCode.Accepted, Headers.Location: { } job }) await FinishedAsync(job);
            long now = await RevisionAsync(id);
            if ((int)answer.StatusCode >= 400) now.ShouldBe(revision, told);
            revision = now;
        }
        await ShouldStillWorkAsync(id);
    }

    /// <summary>What was taken on goes on by itself: its changes are its own, and not those of what is asked next.</summary>
    private async Task FinishedAsync(Uri job)
    {
        for (int tries = 0; (await Server.GetAsync(job.ToString())).GetProperty("state")
            .GetString() is "receiving" or "reading" or "waiting" or "making"; tries++)
        {
            tries.ShouldBeLessThan(600, "the import never ended");
            await Task.Delay(50);
        }
    }

    /// <summary>Whatever got through can be read, seen, printed, and taken away and in again as a bundle.</summary>
    private async Task ShouldStillWorkAsync(int id)
    {
        foreach (string address in new[] { $"/api/publications/{id}/pages/1.svg", $"/api/publications/{id}/pages/1.png?ppi=20",
            $"/api/publications/{id}/output.pdf?proof=true", $"/publications/{id}/desk/1", $"/publications/{id}/flatplan", $"/publications/{id}/rules", "/" })
        {
            using var answer = await Server.Client.GetAsync(address);
            answer.StatusCode.ShouldBe(HttpStatusCode.OK, address + (answer.IsSuccessStatusCode ? "" : await answer.Content.ReadAsStringAsync()));
        }
        using var form = new MultipartFormDataContent { { new ByteArrayContent(await Server.Client.GetByteArrayAsync($"/api/publications/{id}/bundle")),
            "files", "bundle.zip" } };
        using var taken = await Server.Client.PostAsync("/api/bundles", form);
        taken.StatusCode.ShouldBe(HttpStatusCode.Created, await taken.Content.ReadAsStringAsync());
        string peak = (await File.ReadAllLinesAsync($"/proc/{Server.ProcessId}/status")).Single(l => l.StartsWith("VmHWM:", StringComparison.Ordinal));
        (long.Parse(peak.Split(' ', StringSplitOptions.RemoveEmptyEntries)[1], CultureInfo.InvariantCulture) << 10).ShouldBeLessThan(MostMemory);
    }

    [Fact]
    public async Task Every_endpoint_that_takes_JSON_is_tried()
    {
        var (_, targets) = await TargetsAsync();
        var tried = targets.Select(t => $"{t.Method} {Numbers().Replace(t.Address, "/#")}").ToHashSet();
        var paths = (await Server.GetAsync("/openapi/v1.json")).GetProperty("paths");
        foreach (var path in paths.EnumerateObject())
        {
            foreach (var method in path.Value.EnumerateObject())
            {
                if (!method.Value.TryGetProperty("requestBody", out var body) || !body.GetProperty("content")
                    .TryGetProperty("application/json", out _)) continue;
                tried.ShouldContain($"{method.Name.ToUpperInvariant()} {Braces().Replace(path.Name, "/#")}");
            }
        }
    }

    [GeneratedRegex(@"/(own-)?([0-9a-f]{32}|\d+)")]
    private static partial Regex Numbers();

    [GeneratedRegex(@"/\{[^}]*\}")]
    private static partial Regex Braces();

    [Theory]
    [InlineData("output.pdf", "marks", "bleed", "proof", "pages", "recipe")]
    [InlineData("pages/1.png", "ppi", "proof")]
    [InlineData("compare", "with", "as")]
    [InlineData("compare/now.pdf", "with", "as")]
    [InlineData("imports/none")]
    [InlineData("images/1/original")]
    public async Task No_question_makes_the_program_fail(string address, params string[] names)
    {
        int id = await Server.NewPublicationAsync("Asked", pages: 2);
        var random = new Random(Seed);
        for (int round = 0; round < Questions; round++)
        {
            string query = string.Join('&', names.Where(_ => random.Next(2) == 0)
                .Select(n => $"{n}={Uri.EscapeDataString(Odd[random.Next(Odd.Length)].Trim('"'))}"));
            using var answer = await Server.Client.GetAsync($"/api/publications/{id}/{address}?{query}");
            ((int)answer.StatusCode).ShouldBeLessThan(500, query);
        }
    }

    [Fact]
    public async Task No_bytes_called_a_bundle_do_more_than_be_refused()
    {
        var random = new Random(Seed);
        int id = await Server.NewPublicationAsync("Bundled", pages: 2);
        await Server.UploadAsync(id, ("a.jpg", ApiTests.Jpeg(60, 40, 5)));
        byte[] whole = await Server.Client.GetByteArrayAsync($"/api/publications/{id}/bundle");
        for (int round = 0; round < Bundles; round++)
        {
            int before = (await Server.GetAsync("/api/publications")).GetArrayLength();
            using var form = new MultipartFormDataContent { { new ByteArrayContent(Spoiled(whole, random)), "files", "bundle.zip" } };
            var took = Stopwatch.StartNew();
            using var answer = await Server.Client.PostAsync("/api/bundles", form);
            string told = $"round {round}: {(int)answer.StatusCode} {await answer.Content.ReadAsStringAsync()}";
            ((int)answer.StatusCode).ShouldBeLessThan(500, told);
            took.Elapsed.ShouldBeLessThan(TimeSpan.FromSeconds(10), told);
            (await Server.GetAsync("/api/publications")).GetArrayLength().ShouldBe(before + (answer.IsSuccessStatusCode ? 1 : 0), told);
        }
    }

    [Fact]
    public async Task No_bytes_called_a_PDF_do_more_than_be_refused()
    {
        var random = new Random(Seed);
        int id = await Server.NewPublicationAsync("Compared", pages: 2);
        object words = new { paragraphs = new[] { new { text = "Words" } } };
        await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 10, y = 10, width = 100, height = 80, text = words });
        byte[] whole = await Server.Client.GetByteArrayAsync($"/api/publications/{id}/output.pdf?recipe=screen");
        byte[] deep = Encoding.ASCII.GetBytes($"%PDF-1.7\n1 0 obj\n{new string('[', 200_000)}\nendobj\ntrailer << /Root 1 0 R >>\n%%EOF");
        for (int round = 0; round < Pdfs; round++)
        {
            using var form = new MultipartFormDataContent { { new ByteArrayContent(round == 0 ? deep : Spoiled(whole, random)), "files", "made.pdf" } };
            using var answer = await Server.Client.PostAsync($"/api/publications/{id}/compare/pdfs", form);
            string told = $"round {round}: {(int)answer.StatusCode} {await answer.Content.ReadAsStringAsync()}";
            ((int)answer.StatusCode).ShouldBeLessThan(500, told);
            if (answer.Headers.Location is not { } compared) continue;
            using var differences = await Server.Client.GetAsync(compared);
            ((int)differences.StatusCode).ShouldBeLessThan(500, told);
        }
        await ShouldStillWorkAsync(id);
    }

    private async Task<long> RevisionAsync(int id) => (await Server.GetAsync($"/api/publications/{id}")).GetProperty("revision").GetInt64();

    [Fact]
    public async Task No_bytes_called_a_picture_make_the_program_fail_or_keep_others_out()
    {
        var random = new Random(Seed);
        int id = await Server.NewPublicationAsync("Bytes");
        using var folder = new TempFolder();
        using var quarters = TestPictures.Quarters(64, 48);
        var whole = new[] { "jpg", "png", "tif", "webp" }.Select(e => (Name: $"q.{e}", Bytes: File.ReadAllBytes(TestPictures.Save(quarters, folder[$"q.{e}"],
            150)))).ToList();
        whole.Add(("q.svg", Encoding.UTF8.GetBytes(
            """<svg xmlns="http://www.w3.org/2000/svg" width="40" height="30"><rect width="40" height="30" fill="#c04"/></svg>""")));
        byte[] good = ApiTests.Jpeg(31, 17);
        for (int batch = 0; batch < Pictures / InBatch; batch++)
        {
            var files = Enumerable.Range(0, InBatch).Select(i => whole[random.Next(whole.Count)] is var (name, bytes) ? ($"{i}{name}", Spoiled(bytes, random))
                : default).Append(("good.jpg", good)).ToArray();
            var arrived = await Server.UploadAsync(id, files);
            arrived.GetArrayLength().ShouldBe(InBatch + 1);
            arrived[InBatch].TryGetProperty("id", out _).ShouldBeTrue($"batch {batch}: a good one comes in whatever is beside it");
            foreach (var entry in arrived.EnumerateArray().Where(e => e.TryGetProperty("error", out _)))
                entry.GetProperty("error").GetString()!.ShouldNotContain("   at ");
        }
        await ShouldStillWorkAsync(id);
    }

    private const int InBatch = 50;

    private static byte[] Spoiled(byte[] bytes, Random random)
    {
        byte[] spoiled = [.. bytes];
        for (int i = random.Next(1, 12); i > 0; i--) spoiled[random.Next(spoiled.Length)] = (byte)random.Next(256);
        return random.Next(4) == 0 ? spoiled[..random.Next(1, spoiled.Length)] : spoiled;
    }

    [Fact]
    public void No_bytes_called_a_table_do_more_than_be_refused()
    {
        var random = new Random(Seed);
        byte[] table = Encoding.UTF8.GetBytes("Name;Price\n\"Jug; large\";12,50 \u20ac\nBowl;7\n");
        for (int round = 0; round < Tables; round++)
        {
            byte[] bytes = random.Next(3) == 0 ? [.. Enumerable.Range(0, random.Next(300)).Select(_ => (byte)random.Next(256))] : Spoiled(table, random);
            string? encoding = random.Next(4) == 0 ? TableFile.Encodings[random.Next(TableFile.Encodings.Count)].Name : null;
            try
            {
                TableFile.Read(new MemoryStream(bytes), encoding).Columns.Length.ShouldBeGreaterThan(0);
            }
            catch (EditRefused refused)
            {
                refused.Message.ShouldNotBeEmpty();
            }
        }
    }
}
