using System.Diagnostics;
using System.Net.WebSockets;
using System.Reflection;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using System.Text.RegularExpressions;
using Formatum.Web.Desk.Commands;

namespace Formatum.Web.Tests;

/// <summary>Everything that can be done on the Desk, with values in and out of place, from a fixed seed: done, refused in words, never a failure.</summary>
public sealed partial class DeskFuzzTests(Workplace place) : IClassFixture<Workplace>
{
    private static readonly JsonDerivedTypeAttribute[] Commands = [.. typeof(DeskCommand).GetCustomAttributes<JsonDerivedTypeAttribute>()];

    private static readonly string[] Plausible =
    [
        "1", "2", "1,2", "none", "12mm", "50%", "+2mm", "rectangle", "ellipse", "polygon", "text", "margins", "columns", "nw", "se", "border.width",
        "border.kind", "border.second.gap", "corners.radius", "Dotted", "Border", "shadow",
        "#102030", "auto", "true", "10,10 90,20 50,80", "10,10/5,5/20,20 90,20//95,30 50,80", "1,0", "A name",
    ];

    private TestServer Server => place.Server;

    private async Task<int> PublicationAsync()
    {
        int id = await Server.NewPublicationAsync("Desk fuzz", pages: 4);
        int image = (await Server.UploadAsync(id, ("a.jpg", ApiTests.Jpeg(60, 40))))[0].GetProperty("id").GetInt32();
        for (int i = 0; i < 6; i++)
        {
            await Server.PostAsync($"/api/publications/{id}/frames", new
            {
                page = 1,
                x = 40 + 90 * i,
                y = 40,
                width = 80,
                height = 60,
                imageId = i % 2 == 0 ? image : (int?)null
            });
        }
        await Server.PostAsync($"/api/publications/{id}/frames",
            new { page = 1, x = 40, y = 200, width = 80, height = 60, text = new { paragraphs = new[] { new { text = "Words" } } } });
        return id;
    }

    private static JsonNode? ValueFor(Type type, Random random, int[] ids)
    {
        if (random.Next(8) == 0)
            return JsonNode.Parse(FuzzTests.Odd[random.Next(FuzzTests.Odd.Length)].Replace("\\ud800", "\\ufffd", StringComparison.Ordinal));
        var plain = Nullable.GetUnderlyingType(type) ?? type;
        if (plain == typeof(bool)) return random.Next(2) == 0;
        if (plain == typeof(int)) return random.Next(3) == 0 ? random.Next(-2, 9) : ids[random.Next(ids.Length)];
        if (plain == typeof(double)) return random.Next(3) == 0 ? random.NextDouble() : random.NextDouble() * 900 - 100;
        if (plain.IsEnum) return Enum.GetNames(plain)[random.Next(Enum.GetNames(plain).Length)];
        if (plain.IsArray) return new JsonArray([.. Enumerable.Range(0, random.Next(3)).Select(_ => ValueFor(plain.GetElementType()!, random, ids))]);
        return random.Next(3) == 0 ? string.Join(',', ids.Take(random.Next(1, 4))) : Plausible[random.Next(Plausible.Length)];
    }

    private static JsonObject Command(JsonDerivedTypeAttribute command, Random random, int[] ids)
    {
        var json = new JsonObject { ["do"] = (string)command.TypeDiscriminator! };
        foreach (var property in command.DerivedType.GetProperties().Where(p => p.CanWrite && random.Next(5) > 0))
            json[JsonNamingPolicy.CamelCase.ConvertName(property.Name)] = ValueFor(property.PropertyType, random, ids);
        if (random.Next(6) > 0) json["frames"] = string.Join(',', ids.OrderBy(_ => random.Next()).Take(random.Next(1, 4)));
        return json;
    }

    private static async Task<int[]> FramesAsync(TestServer server, int id) => [.. (await server.GetAsync($"/api/publications/{id}")).GetProperty("frames")
        .EnumerateArray().Select(f => f.GetProperty("id").GetInt32()).DefaultIfEmpty(1)];

    [Fact]
    public async Task Whatever_is_done_is_done_or_refused_and_a_refusal_changes_nothing()
    {
        var random = new Random(FuzzTests.Seed);
        int id = await PublicationAsync();
        string desk = $"{Server.Address}/publications/{id}/desk/1";
        // As a page does it: with the token and the cookies that came with it.
        using var client = new HttpClient(new HttpClientHandler { UseCookies = true });
        using var opening = new HttpRequestMessage(HttpMethod.Get, desk) { Headers = { { "Accept", "text/html" } } };
        using var page = await client.SendAsync(opening);
        client.DefaultRequestHeaders.Add("RequestVerificationToken", Token().Match(await page.Content.ReadAsStringAsync()).Groups[1].Value);
        int done = 0;
        for (int round = 0; round < Commands.Length * FuzzTests.Commands / 200; round++)
        {
            var before = await Server.GetAsync($"/api/publications/{id}");
            int[] ids = [.. before.GetProperty("frames").EnumerateArray().Select(f => f.GetProperty("id").GetInt32()).DefaultIfEmpty(1)];
            var command = Command(Commands[round % Commands.Length], random, ids);
            string body = new JsonObject { ["seen"] = before.GetProperty("revision").GetInt64(), ["inside"] = false, ["command"] = command }.ToJsonString();
            var took = Stopwatch.StartNew();
            using var answer = await client.PostAsync(desk, new StringContent(body, Encoding.UTF8, "application/json"));
            string told = $"round {round}: {body} -> {(int)answer.StatusCode} {await answer.Content.ReadAsStringAsync()}";
            ((int)answer.StatusCode).ShouldBeLessThan(500, told);
            took.Elapsed.ShouldBeLessThan(TimeSpan.FromSeconds(10), told);
            if (answer.IsSuccessStatusCode) done++;
            else (await Server.GetAsync($"/api/publications/{id}")).GetProperty("revision").ToString()
                .ShouldBe(before.GetProperty("revision").ToString(), told);
        }
        done.ShouldBeGreaterThan(Commands.Length / 2, "many make sense");
        foreach (string address in new[] { "/desk/1", "/desk/2", "/flatplan", "/images", "/rules" })
            (await client.GetAsync($"{Server.Address}/publications/{id}{address}")).IsSuccessStatusCode.ShouldBeTrue(address);
        (await client.GetAsync($"{Server.Address}/api/publications/{id}/output.pdf")).IsSuccessStatusCode.ShouldBeTrue();
    }

    [GeneratedRegex("name=\"request-token\" content=\"([^\"]+)\"")]
    private static partial Regex Token();

    [Fact]
    public async Task The_line_of_drags_answers_whatever_is_asked_and_changes_nothing()
    {
        var random = new Random(FuzzTests.Seed);
        int id = await PublicationAsync();
        int[] ids = await FramesAsync(Server, id);
        string before = (await Server.GetAsync($"/api/publications/{id}")).ToString();
        using var line = new ClientWebSocket();
        await line.ConnectAsync(new($"{Server.Address.Replace("http", "ws", StringComparison.Ordinal)}/publications/{id}/desk/1/hand"), default);
        byte[] buffer = new byte[1 << 20];
        for (int round = 0; round < Commands.Length * FuzzTests.Commands / 200; round++)
        {
            string question = new JsonObject { ["inside"] = random.Next(2) == 0, ["command"] = Command(Commands[round % Commands.Length], random, ids) }
                .ToJsonString();
            if (random.Next(20) == 0) question = question[..random.Next(question.Length)];
            if (question.Length > 8000) continue;
            await line.SendAsync(Encoding.UTF8.GetBytes(question), WebSocketMessageType.Text, endOfMessage: true, default);
            using var late = new CancellationTokenSource(TimeSpan.FromSeconds(10));
            WebSocketReceiveResult received;
            do received = await line.ReceiveAsync(buffer, late.Token);
            while (!received.EndOfMessage);
            line.State.ShouldBe(WebSocketState.Open, question);
        }
        (await Server.GetAsync($"/api/publications/{id}")).ToString().ShouldBe(before);
    }
}
