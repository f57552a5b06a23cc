using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Bench;

/// <summary>
/// From pointer to paint in Chromium, with 200 filled frames on a spread: how old the place of the pointer is of which the screen shows what the server
/// answered; against a script that moves the same frames by itself, without asking anybody.
/// </summary>
internal static class PointerBench
{
    private const int Columns = 20, Rows = 10, Moves = 1000;

    /// <summary>Remembers of every question on the line for which place of the pointer it asked, and says so once it is answered.</summary>
    internal const string WatchedLine = """
        window.WebSocket = class extends WebSocket {
          asked = [];
          constructor(...address) {
            super(...address);
            this.addEventListener('message', () => { window.answered = this.asked.shift(); });
          }
          send(question) {
            this.asked.push(window.heard);
            super.send(question);
          }
        };
        """;

    public static async Task RunAsync(string folder)
    {
        string data = Path.Combine(folder, "pointer");
        if (Directory.Exists(data)) Directory.Delete(data, recursive: true);
        using var server = await BenchServer.StartAsync(data);
        string address = server.Address;
        var (publication, frame) = await FillAsync(server, folder);
        using var browser = new Browser(1600, 1000);
        browser.Driver.ExecuteCdpCommand("Page.addScriptToEvaluateOnNewDocument", new() { ["source"] = WatchedLine });
        Console.WriteLine($"pointer to paint, {Columns * Rows} frames on the spread:");
        foreach (var (what, grip) in new[] { ("move a frame", (string?)null), ("draw a frame by its corner, its picture refitted", "se") })
        {
            Open(browser, address, publication, frame);
            Print(what, await DragAsync(browser, frame, grip, alone: false));
            Open(browser, address, publication, frame);
            Print("  the same by script alone, nothing asked", await DragAsync(browser, frame, grip, alone: true));
        }
        Open(browser, address, publication, frame);
        browser.Driver.FindElement(By.Id("canvas")).SendKeys(Keys.Enter);
        browser.Find("[data-inside=yes]");
        browser.Find("#inside .picture-edge");
        Print("pan a picture inside its frame", await DragAsync(browser, frame, null, alone: false));
        string fifty = string.Join(',', Enumerable.Range(frame, 50));
        Open(browser, address, publication, fifty);
        Print("move 50 frames", await DragAsync(browser, frame, null, alone: false));
        Open(browser, address, publication, fifty);
        Print("  the same by script alone, nothing asked", await DragAsync(browser, frame, null, alone: true));
        Open(browser, address, publication, frame);
        Print($"draw a gap with the {2 * Rows} frames along it", await DragGapAsync(browser, frame));
    }

    internal static async Task<(int Publication, int Frame)> FillAsync(BenchServer server, string folder)
    {
        int id = (await server.PostAsync("/api/publications", new { name = "Pointer", page = new { size = "A3" }, facing = false, pages = 1 }))
            .GetProperty("id").GetInt32();
        using var form = new MultipartFormDataContent();
        foreach (string path in Pictures.Make(Path.Combine(folder, "pointer-pictures"), 20, 1500, 1000))
            form.Add(new ByteArrayContent(await File.ReadAllBytesAsync(path)), "files", Path.GetFileName(path));
        using var uploaded = await server.Client.PostAsync($"/api/publications/{id}/images", form);
        int[] images = [.. (await uploaded.Content.ReadFromJsonAsync<JsonElement>()).EnumerateArray().Select(a => a.GetProperty("id").GetInt32())];
        int middle = 0;
        for (int i = 0; i < Columns * Rows; i++)
        {
            var made = await server.PostAsync($"/api/publications/{id}/frames", new
            {
                page = 1,
                x = 20 + i % Columns * 40,
                y = 20 + i / Columns * 112,
                width = 36,
                height = 104,
                imageId = images[i % images.Length]
            });
            if (i == Columns * Rows / 2 + Columns / 2) middle = made.GetProperty("id").GetInt32();
        }
        return (id, middle);
    }

    private static void Open(Browser browser, string address, int publication, int frame) =>
        Open(browser, address, publication, frame.ToString(CultureInfo.InvariantCulture));

    internal static void Open(Browser browser, string address, int publication, string frame)
    {
        browser.Driver.Navigate().GoToUrl($"{address}/publications/{publication}/desk/1?frame={frame}");
        browser.Find("#desk[data-ready]");
        Browser.Until(() => browser.Run<bool>("return [...document.querySelectorAll('#frames image')].length > 0 && document.readyState === 'complete'"),
            "the page");
        browser.Find("#grips [data-grip=se]");
    }

    private static async Task<double[]> DragGapAsync(Browser browser, int frame)
    {
        browser.Driver.FindElement(By.Id("canvas")).SendKeys(Keys.Escape);
        var edge = browser.Run<IReadOnlyCollection<object>>("const r = document.querySelector(`#frame-${arguments[0]} .outline`).getBoundingClientRect(); " +
            "return [r.right, r.y + r.height / 2, document.getElementById('spread').getScreenCTM().a]", frame)
            .Select(v => Convert.ToDouble(v, CultureInfo.InvariantCulture)).ToArray();
        double x = edge[0] + 2 * edge[2];
        for (int i = 0; i < 2; i++) Mouse(browser, "mouseMoved", x, edge[1] + i, pressed: false);
        browser.Find("#gap [data-gap]");
        return await DragAsync(browser, frame, null, alone: false, (x, edge[1], 12, 0));
    }

    private static void Mouse(Browser browser, string type, double x, double y, bool pressed = true) =>
        browser.Driver.ExecuteCdpCommand("Input.dispatchMouseEvent", new Dictionary<string,
            object?>
        {
            ["type"] = type,
            ["x"] = x,
            ["y"] = y,
            ["button"] = pressed ? "left" : "none",
            ["buttons"] = pressed ? 1 : 0,
            ["clickCount"] = pressed
            ? 1 : 0
        });

    /// <summary>
    /// Moves the pointer as a mouse does, 125 times a second whatever the page does, and takes for every picture of the screen how old the place of the
    /// pointer is that it shows: from the mouse's own time to the moment the picture is handed over, in milliseconds.
    /// </summary>
    internal static async Task<double[]> DragAsync(Browser browser, int frame, string? grip, bool alone, (double X, double Y, double Reach, double Off)?
        from = null)
    {
        browser.Run<object>("""
            const [id, grip, alone] = arguments;
            const frame = document.getElementById(`frame-${id}`);
            const chosen = document.querySelector('#inspector [data-chosen]').dataset.chosen || String(id);
            const moved = chosen.split(',').map(one => document.getElementById(`frame-${one}`));
            const stood = moved.map(chosen => chosen.transform.baseVal.consolidate().matrix);
            let first = null;
            window.taken = [];
            let shown = null;
            const painted = () => {
              const isFirst = shown === null;
              shown = alone ? window.heard : window.answered;
              if (!isFirst) return;
              requestAnimationFrame(() => {
                const place = shown, channel = new MessageChannel();
                shown = null;
                channel.port1.onmessage = () => window.taken.push(performance.now() - place);
                channel.port2.postMessage(0);
              });
            };
            for (const kind of ['pointerrawupdate', 'pointermove']) document.addEventListener(kind, event => {
              window.heard = event.timeStamp;
              if (!alone) return;
              event.stopPropagation();
              first ??= event;
              const x = event.clientX - first.clientX, y = event.clientY - first.clientY;
              if (grip) frame.querySelector('image').setAttribute('transform', `matrix(${100 + event.clientX / 9} 0 0 ${70 + event.clientY / 9} 0 0)`);
              else moved.forEach((chosen, i) => chosen.setAttribute('transform', `matrix(1 0 0 1 ${stood[i].e + x} ${stood[i].f + y})`));
            }, true);
            for (const moving of [frame, document.getElementById('inside')])
              new MutationObserver(painted).observe(moving, { attributes: true, subtree: true, attributeFilter: ['transform'] });
            return null;
            """, frame, grip ?? "", alone);
        var at = browser.Run<IReadOnlyCollection<object>>("const e = arguments[0] ? document.querySelector(`#grips [data-grip=${arguments[0]}]`) : " +
            "document.getElementById('frame-' + arguments[1]); const r = e.getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2]", grip
            ?? "", frame)
            .Select(v => Convert.ToDouble(v, CultureInfo.InvariantCulture)).ToArray();
        var (startX, startY, reach, off) = from ?? (at[0], at[1], 30, 20);
        Mouse(browser, "mousePressed", startX, startY);
        await using (var mouse = await SteadyMouse.OfAsync(browser))
        {
            await mouse.MoveAsync(Enumerable.Range(1, Moves).Select(i => (startX + off + reach * Math.Sin(i * 0.055),
                startY + off + reach * Math.Cos(i * 0.035))));
        }
        // The first moves, while the code is still being compiled, do not count.
        double[] times = [.. browser.Run<IReadOnlyCollection<object>>("return window.taken").Select(v => Convert.ToDouble(v, CultureInfo.InvariantCulture))
            .Skip(Moves / 20)];
        browser.Driver.FindElement(By.Id("canvas")).SendKeys(Keys.Escape);
        Mouse(browser, "mouseReleased", startX, startY);
        return times;
    }

    private static void Print(string what, double[] times)
    {
        Array.Sort(times);
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
            $"  {what}: median {times[times.Length / 2]:0.0} ms, 95th percentile {times[(int)(times.Length * 0.95)]:0.0} ms ({times.Length} pictures)"));
    }
}
