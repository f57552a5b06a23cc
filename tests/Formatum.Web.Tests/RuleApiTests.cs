using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;

namespace Formatum.Web.Tests;

/// <summary>Rules, recrops and subject points through the automation interface.</summary>
public sealed class RuleApiTests(Workplace place) : IClassFixture<Workplace>
{
    private readonly TestServer _server = place.Server;

    private static string[] Fields(JsonElement problem) => [.. problem.GetProperty("errors").EnumerateObject().Select(e => e.Name)];

    private async Task<int> RuleAsync(int publication, object body) => (await _server.PostAsync($"/api/publications/{publication}/rules", body))
        .GetProperty("id").GetInt32();

    private async Task<(int Publication, int Image)> BeginAsync()
    {
        int id = await _server.NewPublicationAsync("Rules");
        return (id, (await _server.UploadAsync(id, ("a.jpg", ApiTests.Jpeg())))[0].GetProperty("id").GetInt32());
    }

    private async Task<JsonElement> PatchAsync(string address, object body, HttpStatusCode status = HttpStatusCode.OK)
    {
        using var answer = await _server.Client.PatchAsJsonAsync(address, body);
        string text = await answer.Content.ReadAsStringAsync();
        answer.StatusCode.ShouldBe(status, text);
        return JsonSerializer.Deserialize<JsonElement>(text);
    }

    [Fact]
    public async Task Every_setting_of_a_rule_is_kept_and_what_is_left_out_stays_open()
    {
        var (id, _) = await BeginAsync();
        var body = new
        {
            name = "All of it",
            description = "Every setting",
            fit = "fill-or-fit",
            align = new[] { 0.25, 1 },
            inset = new { top = "1mm", right = 2, bottom = -3, left = "1p" },
            rotation = 12.5,
            flipX = true,
            flipY = false,
            smallestPpi = 150,
            largestEnlargement = 1.5,
            limits = "hold",
            largestCrop = 0.4,
            staysFitted = false,
        };
        int rule = await RuleAsync(id, body);
        var kept = (await _server.GetAsync($"/api/publications/{id}")).GetProperty("rules")[0];
        kept.GetProperty("fit").GetString().ShouldBe("fill-or-fit");
        kept.GetProperty("align").EnumerateArray().Select(v => v.GetDouble()).ShouldBe([0.25, 1]);
        kept.GetProperty("inset").GetProperty("left").GetDouble().ShouldBe(12, 1e-9);
        kept.GetProperty("inset").GetProperty("bottom").GetDouble().ShouldBe(-3);
        foreach (var (name, value) in new[] { ("rotation", 12.5), ("smallestPpi", 150), ("largestEnlargement", 1.5), ("largestCrop", 0.4) })
            kept.GetProperty(name).GetDouble().ShouldBe(value);
        kept.GetProperty("flipX").GetBoolean().ShouldBeTrue();
        kept.GetProperty("flipY").GetBoolean().ShouldBeFalse();
        kept.GetProperty("staysFitted").GetBoolean().ShouldBeFalse();
        kept.GetProperty("limits").GetString().ShouldBe("hold");

        using var put = await _server.Client.PutAsJsonAsync($"/api/publications/{id}/rules/{rule}", new { name = "Less of it", fit = "fit" });
        var now = JsonSerializer.Deserialize<JsonElement>(await put.Content.ReadAsStringAsync());
        now.GetProperty("rotation").ValueKind.ShouldBe(JsonValueKind.Null);
        now.GetProperty("inset").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task A_rule_is_tried_put_on_frames_and_undone_in_one_step()
    {
        var (id, image) = await BeginAsync();
        int rule = await RuleAsync(id, new { name = "Airy", fit = "fit" });
        for (int i = 0; i < 3; i++)
            await _server.PostAsync($"/api/publications/{id}/frames", new
            {
                page = i + 1,
                x = 0,
                y = 0,
                width = 100,
                height = 100,
                imageId = i < 2 ? image
                : (int?)null
            });
        var put = await _server.PostAsync($"/api/publications/{id}/rules/{rule}/put", new { which = "all" });
        put.GetProperty("frames").GetArrayLength().ShouldBe(2);
        put.GetProperty("placeholders").GetInt32().ShouldBe(1);
        var impact = await _server.PostAsync($"/api/publications/{id}/rules/{rule}/impact", new { name = "Airy", fit = "fill" });
        impact.GetProperty("frames")[0].GetProperty("after").GetProperty("cropLoss").GetDouble().ShouldBe(1.0 / 3, 1e-9);
        impact.GetProperty("worsened").GetInt32().ShouldBe(2);
        (await _server.PostAsync($"/api/publications/{id}/undo", new { })).GetProperty("done").GetString()!.ShouldContain("Put on rule");
        (await _server.GetAsync($"/api/publications/{id}")).GetProperty("frames").EnumerateArray()
            .ShouldAllBe(f => f.GetProperty("ruleId").ValueKind == JsonValueKind.Null);
    }

    [Fact]
    public async Task A_rule_that_would_loop_or_stand_in_for_itself_is_refused_and_one_in_use_leaves_what_is_asked()
    {
        var (id, image) = await BeginAsync();
        int root = await RuleAsync(id, new { name = "Root", fit = "fit" }), leaf = await RuleAsync(id, new { name = "Leaf", basedOnId = root });
        using (var loop = await _server.Client.PutAsJsonAsync($"/api/publications/{id}/rules/{root}", new { name = "Root", basedOnId = leaf }))
            Fields(await ApiTests.RefusedAsync(loop)).ShouldBe(["basedOnId"]);
        Fields(await ApiTests.RefusedAsync(await _server.Client.DeleteAsync($"/api/publications/{id}/rules/{root}?instead={root}"))).ShouldBe(["instead"]);
        var frame = await _server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = 1,
            x = 0,
            y = 0,
            width = 100,
            height = 50,
            imageId = image,
            ruleId = leaf
        });
        (await _server.Client.DeleteAsync($"/api/publications/{id}/rules/{root}?keepSettings=true")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var now = await _server.GetAsync($"/api/publications/{id}");
        now.GetProperty("rules").EnumerateArray().Single().GetProperty("fit").GetString().ShouldBe("fit");
        now.GetProperty("frames")[0].GetProperty("placement").GetProperty("matrix").GetRawText()
            .ShouldBe(frame.GetProperty("placement").GetProperty("matrix").GetRawText());
    }

    [Fact]
    public async Task The_default_rule_is_chosen_and_a_rule_changed_since_it_was_seen_is_not_overwritten()
    {
        var (id, _) = await BeginAsync();
        int rule = await RuleAsync(id, new { name = "House", fit = "fit" });
        using (var chosen = await _server.Client.PutAsJsonAsync($"/api/publications/{id}/default-rule", new { ruleId = rule }))
            chosen.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        long seen = (await _server.GetAsync($"/api/publications/{id}")).GetProperty("revision").GetInt64();
        (await _server.Client.PutAsJsonAsync($"/api/publications/{id}/rules/{rule}?seen={seen}",
            new { name = "House", fit = "fill" })).StatusCode.ShouldBe(HttpStatusCode.OK);
        using var late = await _server.Client.PutAsJsonAsync($"/api/publications/{id}/rules/{rule}?seen={seen}", new { name = "House", fit = "stretch" });
        await ApiTests.RefusedAsync(late, HttpStatusCode.Conflict);
        (await _server.GetAsync($"/api/publications/{id}")).GetProperty("rules")[0].GetProperty("fit").GetString().ShouldBe("fill");
    }

    [Fact]
    public async Task Recrops_and_subject_points_are_set_and_settings_cleared_one_by_one()
    {
        var (id, image) = await BeginAsync();
        int frame = (await _server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = 1,
            x = 0,
            y = 0,
            width = 50,
            height = 100,
            imageId = image,
            set = new { rotation = 5, fit = "fill" }
        })).GetProperty("id").GetInt32();
        string address = $"/api/publications/{id}/frames/{frame}";
        var recropped = await PatchAsync(address, new { recrop = new { zoom = 2, zoomY = 3, turn = 10, point = new[] { 0.2, 0.8 } } });
        recropped.GetProperty("recrop").GetProperty("turn").GetDouble().ShouldBe(10);
        recropped.GetProperty("placement").GetProperty("flags").EnumerateArray().Select(f => f.GetString()).ShouldContain("stretched");
        (await PatchAsync(address, new { recrop = new { zoom = 1 }, clear = new[] { "rotation" } })).GetProperty("set")
            .GetProperty("rotation").ValueKind.ShouldBe(JsonValueKind.Null);
        await PatchAsync(address, new { set = new { staysFitted = false } });
        var held = await PatchAsync(address, new { width = 80 });
        held.GetProperty("placement").GetProperty("flags").EnumerateArray().Select(f => f.GetString()).ShouldContain("holds");
        held.GetProperty("placement").GetProperty("bareArea").GetDouble().ShouldBe(0);
        (await PatchAsync(address, new { fitOnce = true })).GetProperty("placement").GetProperty("flags").EnumerateArray().Select(f => f.GetString())
            .ShouldContain("holds");

        (await PatchAsync($"/api/publications/{id}/images/{image}", new { subject = new[] { 0.1, 0.2 } })).GetProperty("subject")[0].GetDouble().ShouldBe(0.1);
        Fields(await PatchAsync($"/api/publications/{id}/images/{image}", new { subject = new[] { 1.5, 0.2 } }, HttpStatusCode.BadRequest))
            .ShouldBe(["subject"]);
        (await PatchAsync($"/api/publications/{id}/images/{image}", new { subject = (double[]?)null }))
            .GetProperty("subject").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Theory]
    [InlineData("""{"name":"x","rotation":1e999}""", "rotation")]
    [InlineData("""{"name":"x","rotation":"NaN"}""", "rotation")]
    [InlineData("""{"name":"x","align":[0.5,2]}""", "align")]
    [InlineData("""{"name":"x","inset":{"left":"99999mm"}}""", "inset.left")]
    [InlineData("""{"name":"x","limits":"perhaps"}""", "limits")]
    [InlineData("""{"name":"x","largestCrop":-0.1}""", "largestCrop")]
    [InlineData("""{"name":"x","basedOnId":777}""", "basedOnId")]
    [InlineData("""{"name":" "}""", "name")]
    public async Task Impossible_rules_are_refused_by_field(string body, string field)
    {
        var (id, _) = await BeginAsync();
        using var answer = await _server.Client.PostAsync($"/api/publications/{id}/rules", new StringContent(body, Encoding.UTF8, "application/json"));
        Fields(await ApiTests.RefusedAsync(answer)).ShouldContain(field);
        (await _server.GetAsync($"/api/publications/{id}")).GetProperty("rules").GetArrayLength().ShouldBe(0);
    }
}
