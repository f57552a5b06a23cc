using System.Diagnostics;
using System.Globalization;
using Formatum.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace Formatum.Bench;

/// <summary>
/// How a drag and typing fare where the line to the server takes its time: pictures of the screen a second and how old the pointer's place in them is, and
/// from key to picture; beside them, another version of the program in the same run.
/// </summary>
internal static class LineBench
{
    private const int Keys = 150;

    /// <summary>From each key to the first picture of the screen for which the server had been asked with it.</summary>
    private const string WatchedKeys = """
        window.waits = [];
        window.keys = [];
        document.addEventListener('input', () => window.keys.push({ at: performance.now(), shown: false }), true);
        window.WebSocket = class extends WebSocket {
          asked = [];
          constructor(...address) {
            super(...address);
            this.addEventListener('message', () => {
              const upTo = this.asked.shift();
              requestAnimationFrame(() => setTimeout(() => window.keys.slice(0, upTo).filter(key => !key.shown).forEach(key => {
                key.shown = true;
                window.waits.push(performance.now() - key.at);
              })));
            });
          }
          send(question) {
            this.asked.push(window.keys.length);
            super.send(question);
          }
        };
        """;

    /// <param name="folder">Where its data goes.</param>
    /// <param name="other">Another version, as Formatum.dll; null for ours alone.</param>
    public static async Task RunAsync(string folder, string? other)
    {
        string?[] programs = [BenchServer.Program, other];
        foreach (int milliseconds in (int[])[0, 40, 80])
        {
            foreach (string program in programs.OfType<string>())
            {
                string data = Path.Combine(folder, "line");
                if (Directory.Exists(data)) Directory.Delete(data, recursive: true);
                using var server = await BenchServer.StartProgramAsync(program, data);
                using var line = new SlowLine(server.Address, TimeSpan.FromMilliseconds(milliseconds));
                string what = $"{milliseconds} ms there and back, {(program == other ? "the other" : "ours")}";
                await DragAsync(server, line, folder, what);
                await TypeAsync(server, line, what);
            }
        }
    }

    private static async Task DragAsync(BenchServer server, SlowLine line, string folder, string what)
    {
        var (publication, frame) = await PointerBench.FillAsync(server, folder);
        using var browser = new Browser(1600, 1000);
        browser.Driver.ExecuteCdpCommand("Page.addScriptToEvaluateOnNewDocument", new() { ["source"] = PointerBench.WatchedLine });
        foreach (int frames in (int[])[1, 1, 50])
        {
            PointerBench.Open(browser, line.Address, publication, string.Join(',', Enumerable.Range(frame, frames)));
            var clock = Stopwatch.StartNew();
            double[] ages = await PointerBench.DragAsync(browser, frame, null, alone: false);
            Print($"{what}, a drag of {frames}: {ages.Length / clock.Elapsed.TotalSeconds:0.0} pictures a second, the pointer's place", ages);
        }
    }

    private static async Task TypeAsync(BenchServer server, SlowLine line, string what)
    {
        var (publication, frame) = await TypingBench.FillAsync(server, string.Join('\n', WordsBench.Paragraphs(20_000)), "justified");
        using var browser = new Browser(1600, 1000);
        browser.Driver.ExecuteCdpCommand("Page.addScriptToEvaluateOnNewDocument", new() { ["source"] = WatchedKeys });
        browser.Driver.Navigate().GoToUrl($"{line.Address}/publications/{publication}/desk/20?frame={frame}");
        browser.Find("#desk[data-ready]");
        browser.Click("#write");
        browser.Find(".text-caret");
        var at = browser.Driver.FindElements(By.CssSelector("#frames .set-text text")).Skip(20).First();
        new Actions(browser.Driver).MoveToElement(at).Click().Perform();
        for (int i = 0; i < Keys; i++)
        {
            new Actions(browser.Driver).SendKeys("kiln fires "[i % 11].ToString()).Perform();
            Thread.Sleep(70);
        }
        Browser.Until(() => browser.Run<bool>("return window.keys.every(key => key.shown)"), "all keys are shown");
        // The first keys after a server's start find its code not compiled yet.
        Print($"{what}, a key", [.. browser.Run<IReadOnlyCollection<object>>("return window.waits.slice(30)")
            .Select(w => Convert.ToDouble(w, CultureInfo.InvariantCulture))]);
    }

    private static void Print(string what, double[] times)
    {
        Array.Sort(times);
        if (times.Length == 0)
        {
            Console.WriteLine($"{what}: none was shown");
            return;
        }
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
            $"{what}: half within {times[times.Length / 2]:0.0} ms, 95 % within {times[times.Length * 95 / 100]:0.0} ms"));
    }
}
