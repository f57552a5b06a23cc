using System.Globalization;
using Formatum.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace Formatum.Bench;

/// <summary>
/// A frame nudged thirty times a second: from each key to the first picture of the screen that shows the frame where the server stored it, and how long the
/// browser's page was busy with each; beside it a script that moves the frame by itself, without asking anybody.
/// </summary>
internal static class NudgeBench
{
    private const int Frames = 30, Keys = 60;

    /// <summary>Keys begin with an arrow and end with the first picture after the frame's place was changed.</summary>
    private const string Watching = """
        const [id, alone] = arguments, frame = () => document.getElementById(`frame-${id}`), pressed = [];
        window.waits = [];
        let x = 0;
        document.addEventListener('keydown', event => {
          pressed.push(event.timeStamp);
          if (!alone) return;
          event.stopPropagation();
          frame().setAttribute('transform', `matrix(1 0 0 1 ${x++} 40)`);
        }, true);
        let place = frame().getAttribute('transform');
        new MutationObserver(() => {
          if (frame()?.getAttribute('transform') === place) return;
          place = frame().getAttribute('transform');
          const from = pressed.shift();
          requestAnimationFrame(() => setTimeout(() => window.waits.push(performance.now() - from)));
        }).observe(document.getElementById('frames'), { subtree: true, childList: true, attributes: true });
        return null;
        """;

    public static async Task RunAsync(string folder)
    {
        string data = Path.Combine(folder, "nudge");
        if (Directory.Exists(data)) Directory.Delete(data, recursive: true);
        using var server = await BenchServer.StartAsync(data);
        int id = (await server.PostAsync("/api/publications", new { name = "Nudge", page = new { size = "A4" }, facing = false, pages = 4 }))
            .GetProperty("id").GetInt32();
        int frame = 0;
        for (int i = 0; i < Frames; i++)
            frame = (await server.PostAsync($"/api/publications/{id}/frames",
                new { page = 1, x = 40 + i % 6 * 85, y = 40 + i / 6 * 150, width = 75, height = 130 })).GetProperty("id").GetInt32();
        using var browser = new Browser(1280, 800);
        browser.Driver.ExecuteCdpCommand("Performance.enable", []);
        foreach (bool alone in new[] { false, true })
        {
            // Once before, while the code is still being compiled.
            for (int run = 0; run < 2; run++)
            {
                var (waits, busy) = Nudged(browser, $"{server.Address}/publications/{id}/desk/1?frame={frame}", frame, alone);
                if (run == 1) Print(alone ? "  by script alone, nothing asked" : $"nudged, {Frames} frames on the page", waits, busy);
            }
        }
    }

    private static (double[] Waits, double Busy) Nudged(Browser browser, string address, int frame, bool alone)
    {
        browser.Driver.Navigate().GoToUrl(address);
        browser.Find("#desk[data-ready]");
        browser.Find("#grips [data-grip=se]");
        browser.Driver.FindElement(By.Id("canvas")).SendKeys("");
        browser.Run<object?>(Watching, frame, alone);
        double before = Busy(browser);
        for (int i = 0; i < Keys; i++)
        {
            new Actions(browser.Driver).SendKeys(i % 20 < 10 ? OpenQA.Selenium.Keys.ArrowRight : OpenQA.Selenium.Keys.ArrowLeft).Perform();
            Thread.Sleep(25);
        }
        Browser.Until(() => browser.Run<long>("return window.waits.length") >= Keys * 9 / 10 && !browser.Has("#desk[aria-busy]"), "all of them");
        Thread.Sleep(500);
        double busy = (Busy(browser) - before) / Keys;
        var waits = browser.Run<IReadOnlyCollection<object>>("return window.waits").Select(w => Convert.ToDouble(w, CultureInfo.InvariantCulture));
        return ([.. waits.Order()], busy);
    }

    /// <summary>How long the page's own thread has worked so far, in milliseconds.</summary>
    private static double Busy(Browser browser)
    {
        var told = (Dictionary<string, object>)browser.Driver.ExecuteCdpCommand("Performance.getMetrics", [])!;
        return ((object[])told["metrics"]).Cast<Dictionary<string, object>>().Where(m => (string)m["name"] == "TaskDuration")
            .Select(m => Convert.ToDouble(m["value"], CultureInfo.InvariantCulture) * 1000).Single();
    }

    private static void Print(string what, double[] waits, double busy) => Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
        $"{what}: half within {waits[waits.Length / 2]:0} ms, 95 of 100 within {waits[waits.Length * 95 / 100]:0} ms; the page busy {busy:0} ms a key"));
}
