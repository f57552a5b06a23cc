using System.Net;
using System.Net.WebSockets;
using System.Text.RegularExpressions;
using System.Xml;
using Formatum.Testing;

namespace Formatum.Web.Tests;

/// <summary>What other sites, other hosts and names made of markup come to.</summary>
public sealed class StrangersTests(Workplace place) : InBrowser(place)
{
    private static async Task<HttpResponseMessage> AskAsync(TestServer server, HttpMethod method, string address, params (string Name, string Value)[] headers)
    {
        using var request = new HttpRequestMessage(method, address);
        foreach (var (name, value) in headers)
        {
            if (name == "Host") request.Headers.Host = value;
            else request.Headers.Add(name, value);
        }
        return await server.Client.SendAsync(request);
    }

    [Theory]
    [InlineData("GET", "/api/publications/{0}/output.pdf", "cross-site", "no-cors", "image")]
    [InlineData("GET", "/api/publications/{0}/pages/1.png", "same-site", "no-cors", "image")]
    [InlineData("GET", "/api/publications/{0}/pages/1.png", "cross-site", "navigate", "document")]
    [InlineData("GET", "/publications/{0}/desk", "cross-site", "navigate", "iframe")]
    [InlineData("GET", "/events?of={0}", "cross-site", "cors", "empty")]
    [InlineData("POST", "/api/publications/{0}/undo", "cross-site", "cors", "empty")]
    public async Task Another_site_can_neither_load_nor_change_anything(string method, string address, string site, string mode, string dest)
    {
        int id = await Server.NewPublicationAsync();
        using var answer = await AskAsync(Server, new(method), string.Format(null, address, id), ("Sec-Fetch-Site", site), ("Sec-Fetch-Mode", mode),
            ("Sec-Fetch-Dest", dest));
        answer.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task A_link_on_another_site_may_lead_to_a_page_of_ours()
    {
        int id = await Server.NewPublicationAsync();
        using var answer = await AskAsync(Server, HttpMethod.Get, $"/publications/{id}/desk", ("Sec-Fetch-Site", "cross-site"), ("Sec-Fetch-Mode", "navigate"),
            ("Sec-Fetch-Dest", "document"));
        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Theory]
    [InlineData("/")]
    [InlineData("/health")]
    [InlineData("/css/formatum.css")]
    [InlineData("/nowhere")]
    [InlineData("/publications/99999/desk")]
    [InlineData("/api/publications/99999")]
    public async Task Every_answer_bears_what_browsers_are_to_keep_to(string address)
    {
        foreach (string site in new[] { "none", "cross-site" })
        {
            using var answer = await AskAsync(Server, HttpMethod.Get, address, ("Sec-Fetch-Site", site), ("Accept", "text/html"));
            string Header(string name) => answer.Headers.TryGetValues(name, out var values) ? string.Join(' ', values) : "";
            Header("X-Content-Type-Options").ShouldBe("nosniff");
            Header("Content-Security-Policy").ShouldContain("frame-ancestors 'none'");
            Header("Cross-Origin-Resource-Policy").ShouldBe("same-origin");
        }
    }

    [Fact]
    public async Task Whoever_stops_amid_sending_is_not_waited_for()
    {
        int id = await Server.NewPublicationAsync();
        var address = new Uri(Server.Address);
        using var socket = new System.Net.Sockets.TcpClient(address.Host, address.Port);
        var line = socket.GetStream();
        await line.WriteAsync(System.Text.Encoding.ASCII.GetBytes($"POST /api/publications/{id}/images HTTP/1.1\r\nHost: {address.Authority}\r\n" +
            "Content-Type: multipart/form-data; boundary=b\r\nContent-Length: 100000\r\n\r\n" +
            "--b\r\nContent-Disposition: form-data; name=\"files\"; filename=\"a.jpg\"\r\n\r\nhalf"));
        using var patience = new CancellationTokenSource(TimeSpan.FromMinutes(2));
        byte[] answer = new byte[1024];
        int length = await line.ReadAsync(answer, patience.Token);
        // Told that it took too long, where anything is told at all.
        if (length > 0) System.Text.Encoding.ASCII.GetString(answer, 0, length).ShouldStartWith("HTTP/1.1 408");
        string incoming = Path.Combine(Server.DataFolder, "incoming");
        Formatum.Testing.Browser.Until(() => !Directory.Exists(incoming) || !Directory.EnumerateFiles(incoming).Any(), "nothing of it is left");
    }

    [Fact]
    public async Task A_server_that_others_reach_still_answers_to_its_own_names_alone()
    {
        using var server = new TestServer("--listen", "0.0.0.0", "--open", "--hosts", "layout.example", "--public-url", "https://pages.example");
        foreach (var (host, expected) in new[] { ("layout.example", 200), ("pages.example", 200), ("localhost", 200), ("elsewhere.example", 400) })
        {
            using var answer = await AskAsync(server, HttpMethod.Get, "/api/publications", ("Host", host));
            ((int)answer.StatusCode).ShouldBe(expected, host);
        }
        // Behind a proxy that speaks TLS the page's origin is the public one.
        foreach (var (origin, expected) in new[] { ("https://pages.example", 404), ("https://elsewhere.example", 403),
            ("http://pages.example.elsewhere.example", 403) })
        {
            using var answer = await AskAsync(server, HttpMethod.Post, "/api/publications/99/undo", ("Host", "pages.example"), ("Origin", origin));
            ((int)answer.StatusCode).ShouldBe(expected, origin);
        }
        using var socket = new ClientWebSocket();
        socket.Options.SetRequestHeader("Origin", "http://elsewhere.example");
        var line = new Uri(server.Address.Replace("http", "ws", StringComparison.Ordinal) + "/publications/1/desk/1/hand");
        (await Should.ThrowAsync<WebSocketException>(socket.ConnectAsync(line, CancellationToken.None))).Message.ShouldContain("403");
    }

    /// <summary>What a page of another site tries, each with whether it got through.</summary>
    private static string Foreign(string ours, int id) => $$"""
        <!doctype html><title>Elsewhere</title><body><script>
        const ours = '{{ours}}', at = ours + '/api/publications/{{id}}', results = {};
        const element = (name, tag, set) => new Promise(done => {
          const e = Object.assign(document.createElement(tag), set);
          e.onload = () => { results[name] = 'loaded'; done(); };
          e.onerror = () => { results[name] = 'refused'; done(); };
          document.body.append(e);
        });
        const fetched = (name, ...request) => fetch(...request).then(async a => { results[name] = a.type === 'opaque' ? 'blind' : await a.text(); },
          () => { results[name] = 'refused'; });
        const opened = (name, source) => new Promise(done => {
          source.onopen = () => { results[name] = 'opened'; done(); };
          source.onerror = () => { results[name] = 'refused'; source.close(); done(); };
        });
        const frame = '{"page":1,"x":1,"y":1,"width":50,"height":50}';
        Promise.all([
          element('image', 'img', { src: at + '/pages/1.png' }), element('mark', 'img', { src: ours + '/img/mark.svg' }),
          element('script', 'script', { src: ours + '/js/shared/http.js', type: 'module' }),
          element('style', 'link', { rel: 'stylesheet', href: ours + '/css/formatum.css' }),
          fetched('read', at), fetched('blindly', at, { mode: 'no-cors' }), fetched('cookies', at, { credentials: 'include' }),
          fetched('post', at + '/frames', { method: 'POST', mode: 'no-cors', headers: { 'Content-Type': 'text/plain' }, body: frame }),
          fetched('json', at + '/frames', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: frame }),
          fetched('undo', at + '/undo', { method: 'POST', mode: 'no-cors' }), fetched('remove', at, { method: 'DELETE' }),
          opened('events', new EventSource(ours + '/events?of={{id}}')),
          opened('line', new WebSocket(ours.replace('http', 'ws') + '/publications/{{id}}/desk/1/hand')),
        ]).then(() => {
          const inside = document.body.appendChild(Object.assign(document.createElement('iframe'), { name: 'inside', src: ours + '/' }));
          inside.onload = () => {
            try { results.iframe = inside.contentDocument ? 'seen' : 'refused'; } catch { results.iframe = 'refused'; }
            const form = document.body.appendChild(Object.assign(document.createElement('form'), { action: at + '/undo', method: 'POST', target: 'inside' }));
            inside.onload = () => { window.results = results; };
            form.submit();
          };
        });
        </script>
        """;

    [Fact]
    public async Task A_page_of_another_site_in_the_same_browser_gets_at_nothing()
    {
        int id = await Server.NewPublicationAsync();
        await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 20, y = 20, width = 90, height = 60 });
        // Whoever works here has been here before.
        OpenDesk(id);
        string before = await Server.Client.GetStringAsync($"/api/publications/{id}");
        var listener = new System.Net.Sockets.TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        int port = ((IPEndPoint)listener.LocalEndpoint).Port;
        listener.Stop();
        using var elsewhere = new HttpListener();
        elsewhere.Prefixes.Add($"http://localhost:{port}/");
        elsewhere.Start();
        var serving = Task.Run(async () =>
        {
            while (await elsewhere.GetContextAsync() is { } asked)
            {
                asked.Response.ContentType = "text/html";
                await asked.Response.OutputStream.WriteAsync(System.Text.Encoding.UTF8.GetBytes(Foreign(Server.Address, id)));
                asked.Response.Close();
            }
        });
        Browser.Driver.Navigate().GoToUrl($"http://localhost:{port}/");
        var results = Formatum.Testing.Browser.Until(() => Browser.Run<Dictionary<string, object>?>("return window.results"), "all was tried");
        elsewhere.Stop();
        await Task.WhenAny(serving);
        // An answer that a page cannot look into tells it nothing: what counts is that it did nothing.
        results.Keys.Count.ShouldBe(14);
        foreach (var (what, came) in results) ((string)came).ShouldBeOneOf(what is "blindly" or "post" or "undo" ? ["refused", "blind"] : ["refused"], what);
        (await Server.Client.GetStringAsync($"/api/publications/{id}")).ShouldBe(before);
    }

    private const string Markup = "\"'></title></script><i hx-post=/planted hx-trigger=load id=planted>";

    [Fact]
    public async Task Names_made_of_markup_are_text_on_every_screen()
    {
        int id = await MarkedUpAsync();
        string[] pages = ["/", $"/publications/{id}/setup", $"/publications/{id}/desk/1", $"/publications/{id}/desk/-1", $"/publications/{id}/flatplan",
            $"/publications/{id}/images", $"/publications/{id}/images?view=table", $"/publications/{id}/rules"];
        var publication = await Server.GetAsync($"/api/publications/{id}");
        int Id(string parts, int index) => publication.GetProperty(parts)[index].GetProperty("id").GetInt32();
        int frame = Id("frames", 0), text = Id("frames", 2), image = Id("images", 0);
        string[] fragments = [$"/publications/{id}/desk/1?handler=Inspector&frames={frame}", $"/publications/{id}/desk/1?handler=Refresh&frames={frame}",
            $"/publications/{id}/desk/1?handler=History", $"/publications/{id}/desk/1?handler=Miniature", $"/publications/{id}/desk/1?handler=Output",
            $"/publications/{id}/desk/2?handler=Writing&frames={text}", $"/publications/{id}/desk/1?handler=Arrivals&images={image}&frames={frame}",
            $"/publications/{id}/images?handler=Card&image={image}", $"/publications/{id}/flatplan?handler=Sheet",
                $"/publications/{id}/desk/-1?handler=Miniature",
            $"/publications/{id}/desk/1?handler=Pour"];
        foreach (string address in pages.Concat(fragments))
        {
            using var answer = await Server.Client.GetAsync(address);
            string html = await answer.Content.ReadAsStringAsync();
            answer.StatusCode.ShouldBe(HttpStatusCode.OK, address + html);
            html.ShouldNotContain("<i hx-post", Case.Sensitive, address);
            Regex.IsMatch(html, """=\s*"[^"]*"'>""").ShouldBeFalse(address);
        }
        string svg = await Server.Client.GetStringAsync($"/api/publications/{id}/pages/1.svg");
        var drawn = new XmlDocument();
        drawn.LoadXml(svg);
        drawn.GetElementsByTagName("i").Count.ShouldBe(0);
        foreach (string address in pages)
        {
            Go(address);
            Browser.Has("#planted").ShouldBeFalse(address);
        }
    }

    private async Task<int> MarkedUpAsync()
    {
        int id = await Server.NewPublicationAsync(Markup, pages: 2);
        await Server.PostAsync($"/api/publications/{id}/masters", new { name = Markup });
        int rule = (await Server.PostAsync($"/api/publications/{id}/rules", new { name = Markup, fit = "fit" })).GetProperty("id").GetInt32();
        int image = (await Server.UploadAsync(id, ("\"'><i hx-post=planted id=planted>.jpg",
            File.ReadAllBytes(TestPictures.Save(TestPictures.Quarters(60, 40), Pictures["plain.jpg"])))))[0].GetProperty("id").GetInt32();
        await Server.PostAsync($"/api/publications/{id}/frames",
            new { page = 1, x = 20, y = 20, width = 200, height = 100, name = Markup, imageId = image, ruleId = rule });
        await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 20, y = 200, width = 200, height = 100, name = Markup, ruleId = rule });
        await Server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = 2,
            x = 20,
            y = 200,
            width = 200,
            height = 100,
            text = new { paragraphs = new[] { new { text = Markup } } }
        });
        return id;
    }
}
