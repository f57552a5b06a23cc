using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>Outputs handed over: to the print shop stand-in, to a folder, and to whoever answers badly or not at all.</summary>
public sealed class HandoverTests : IDisposable
{
    private readonly TempFolder _folder = new();
    private readonly List<IDisposable> _open = [];

    public void Dispose()
    {
        foreach (var open in Enumerable.Reverse(_open)) open.Dispose();
        _folder.Dispose();
    }

    private T Opened<T>(T what) where T : IDisposable
    {
        _open.Add(what);
        return what;
    }

    private sealed class Ended(Process process) : IDisposable
    {
        public void Dispose()
        {
            process.Kill();
            process.WaitForExit();
            process.Dispose();
        }
    }

    /// <summary>The stand-in as ./run-demo starts it, on a port of its own.</summary>
    private string PrintShop()
    {
        string program = Path.Combine(TestServer.Root, "src/Formatum.PrintShop/bin", new DirectoryInfo(AppContext.BaseDirectory).Parent!.Name,
            "net10.0/PrintShop.dll");
        var process = Process.Start(new ProcessStartInfo("dotnet", [program, "--port", "0", "--least-ppi", "100"])
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        })!;
        Opened(new Ended(process));
        string line = process.StandardOutput.ReadLine() ?? throw new InvalidOperationException(process.StandardError.ReadToEnd());
        return line[line.IndexOf("http", StringComparison.Ordinal)..] + "/jobs";
    }

    /// <summary>Somebody who answers every request with the same bytes, or closes the line where there are none.</summary>
    private string Answering(string answer)
    {
        var listener = Opened(new TcpListener(IPAddress.Loopback, 0));
        listener.Start();
        _ = Task.Run(async () =>
        {
            while (true)
            {
                using var client = await listener.AcceptTcpClientAsync();
                await using var stream = client.GetStream();
                if (answer.Length > 0) await stream.WriteAsync(Encoding.ASCII.GetBytes(answer));
                client.Client.Shutdown(SocketShutdown.Send);
                byte[] sent = new byte[1 << 16];
                while (await stream.ReadAsync(sent) > 0) { }
            }
        });
        return $"http://127.0.0.1:{((IPEndPoint)listener.LocalEndpoint).Port}/jobs";
    }

    private static string Unreachable()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return $"http://127.0.0.1:{((IPEndPoint)listener.LocalEndpoint).Port}/";
    }

    private TestServer Server(params string[] destinations) => Opened(new TestServer("--handover", string.Join(';', destinations)));

    private static async Task<JsonElement> UntilAsync(TestServer server, int id, string output, Func<JsonElement, bool> holds)
    {
        for (int i = 0; i < 900; i++)
        {
            var now = await server.GetAsync($"/api/publications/{id}/outputs/{output}");
            if (holds(now)) return now;
            await Task.Delay(50);
        }
        throw new TimeoutException("The output does not become so.");
    }

    private static async Task<string> MadeAsync(TestServer server, int id, object wish)
    {
        string output = (await server.PostAsync($"/api/publications/{id}/outputs", wish)).GetProperty("id").GetString()!;
        (await UntilAsync(server, id, output, o => o.GetProperty("state").GetString() is not ("waiting" or "making"))).GetProperty("state").GetString()
            .ShouldBe("done");
        return output;
    }

    private static async Task<JsonElement> HandedAsync(TestServer server, int id, string output, string to)
    {
        await server.PostAsync($"/api/publications/{id}/outputs/{output}/handovers", new { to, copies = 200, binding = "saddleStitch", note = "by Friday" });
        return (await UntilAsync(server, id, output, o => o.GetProperty("handovers")[0].GetProperty("state").GetString() != "sending"))
            .GetProperty("handovers")[0];
    }

    [Fact]
    public async Task A_person_hands_over_what_is_refused_mends_it_and_is_accepted()
    {
        var server = Server($"Kiln Street Print={PrintShop()}");
        int id = await server.NewPublicationAsync("Stoneware", pages: 2);
        using var browser = new Browser();
        browser.Driver.Navigate().GoToUrl($"{server.Address}/publications/{id}/output/screen");
        browser.Click("#make");
        browser.Click(".output-item[data-state=Done] [data-hand]");
        browser.Send("#hand-copies", "many");
        browser.Send("#hand-note", "matt paper");
        browser.Click("#hand-form button");
        Browser.Until(() => browser.Find("#hand-error").Text.Contains("no number of copies", StringComparison.Ordinal), "told in the card");
        browser.Send("#hand-copies", Keys.Control + "a" + Keys.Null + "300" + Keys.Enter);
        Browser.Until(() => browser.Find("[data-handover=Refused]").Text.Contains("Send PDF/X-4", StringComparison.Ordinal), "refused with reasons");
        browser.Driver.Navigate().GoToUrl($"{server.Address}/publications/{id}/output/print");
        browser.Click("#make");
        browser.Click(".output-item[data-state=Done]:first-child [data-hand]");
        browser.Send("#hand-copies", Keys.Enter);
        Browser.Until(() => browser.Find("[data-handover=Accepted]").Text.Contains("Kiln Street Print: accepted as S-0002", StringComparison.Ordinal),
            "accepted");
    }

    [Fact]
    public async Task A_folder_gets_the_file_and_then_its_ticket_and_nothing_in_it_is_replaced()
    {
        Directory.CreateDirectory(_folder["out"]);
        var server = Server($"Archive={_folder["out"]}");
        int id = await server.NewPublicationAsync("Stoneware", pages: 2);
        string print = await MadeAsync(server, id, new { recipe = "print" }), bundle = await MadeAsync(server, id, new { recipe = "bundle" });
        string page = await MadeAsync(server, id, new { recipe = "pictures", pages = "2", settings = new { filePattern = "{publication} page {page}" } });
        (await HandedAsync(server, id, print, "archive")).GetProperty("state").GetString().ShouldBe("laid");
        (await HandedAsync(server, id, print, "Archive")).GetProperty("job").GetString().ShouldBe("Stoneware 2.pdf");
        await HandedAsync(server, id, bundle, "Archive");
        await HandedAsync(server, id, page, "Archive");
        Directory.GetFiles(_folder["out"]).Select(Path.GetFileName).Order(StringComparer.Ordinal)
            .ShouldBe(["Stoneware 2.pdf", "Stoneware 2.xjdf", "Stoneware bundle.xjdf",
            "Stoneware bundle.zip", "Stoneware page.xjdf", "Stoneware page.zip", "Stoneware.pdf", "Stoneware.xjdf"]);
        (await File.ReadAllTextAsync(Path.Combine(_folder["out"], "Stoneware 2.xjdf"))).ShouldContain("URL=\"Stoneware%202.pdf\"");
        // What was handed over is a bundle that another Formatum takes in.
        using var form = new MultipartFormDataContent { { new ByteArrayContent(await File.ReadAllBytesAsync(
            Path.Combine(_folder["out"], "Stoneware bundle.zip"))), "files", "b.zip" } };
        using var taken = await server.Client.PostAsync("/api/bundles", form);
        taken.StatusCode.ShouldBe(HttpStatusCode.Created);
        Directory.Delete(_folder["out"], recursive: true);
        var gone = await HandedAsync(server, id, print, "Archive");
        gone.GetProperty("state").GetString().ShouldBe("failed");
        gone.GetProperty("reasons")[0].GetString()!.ShouldContain("the folder is gone");
    }

    [Fact]
    public async Task Whoever_answers_badly_or_not_at_all_is_told_of_and_nothing_is_lost()
    {
        const string Json = "HTTP/1.1 200 OK\r\nContent-Type: application/json\r\nConnection: close\r\n\r\n";
        var bad = new Dictionary<string, (string To, string Reason)>
        {
            ["Nobody"] = (Unreachable(), "could not be reached"),
            ["Page"] = (Answering("HTTP/1.1 200 OK\r\nContent-Type: text/html\r\nConnection: close\r\n\r\n<h1>Hello</h1>"), "no answer to a job (status 200)"),
            ["Broken"] = (Answering("HTTP/1.1 500 Oh\r\nContent-Length: 0\r\nConnection: close\r\n\r\n"), "status 500"),
            ["Elsewhere"] = (Answering("HTTP/1.1 302 Found\r\nLocation: http://127.0.0.1:1/\r\nContent-Length: 0\r\nConnection: close\r\n\r\n"), "status 302"),
            ["Silent"] = (Answering(""), "Ask whether it arrived"),
            ["Rubbish"] = (Answering(Json + "{\"accepted\":\"maybe\"}"), "no answer to a job"),
            ["Endless"] = (Answering(Json + new string('x', 400_000)), "too long"),
        };
        var server = Server([.. bad.Select(b => $"{b.Key}={b.Value.To}"),
            $"Curt={Answering(Json + "{\"accepted\":false,\"reasons\":[\"<b>No\\u0007</b>\"]}")}"]);
        int id = await server.NewPublicationAsync("Stoneware", pages: 1);
        string output = await MadeAsync(server, id, new { recipe = "print" });
        foreach (var (name, (_, reason)) in bad)
        {
            var handed = await HandedAsync(server, id, output, name);
            handed.GetProperty("state").GetString().ShouldBe("failed", name);
            handed.GetProperty("reasons")[0].GetString()!.ShouldContain(reason, customMessage: name);
        }
        var curt = await HandedAsync(server, id, output, "Curt");
        curt.GetProperty("state").GetString().ShouldBe("refused");
        curt.GetProperty("reasons")[0].GetString().ShouldBe("<b>No</b>");
        using var unknown = await server.Client.PostAsJsonAsync($"/api/publications/{id}/outputs/{output}/handovers", new { to = "Nowhere" });
        unknown.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        using var none = await server.Client.PostAsJsonAsync($"/api/publications/{id}/outputs/{output}/handovers", new { to = "Page", copies = 0 });
        none.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await server.GetAsync("/api/handover")).GetArrayLength().ShouldBe(8);
        // Kept with the output, also when the server ends at once.
        server.Kill();
        server.StartAgain();
        (await server.GetAsync($"/api/publications/{id}/outputs/{output}")).GetProperty("handovers").GetArrayLength().ShouldBe(8);
    }
}
