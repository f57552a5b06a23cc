using System.Globalization;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Bench;

/// <summary>
/// From key to paint in Chromium, in a text of 20,000 words that runs through 40 pages of two columns; beside it, the same text typed in the browser's own
/// editable columns, at the same twelve keys a second.
/// </summary>
internal static class TypingBench
{
    private const int Pages = 40, Words = 20_000, Keys = 150;

    /// <summary>From each key to the first picture of the screen in which the text stands changed.</summary>
    private const string Watching = """
        window.waits = [];
        let pressed = null;
        window.watching?.disconnect();
        document.addEventListener('keydown', () => { pressed ??= performance.now(); }, true);
        window.watching = new MutationObserver(changes => {
          if (pressed === null || !changes.some(c => (c.target.nodeType === 1 ? c.target : c.target.parentElement)?.closest('WATCHED'))) return;
          const from = pressed;
          pressed = null;
          requestAnimationFrame(() => setTimeout(() => window.waits.push(performance.now() - from)));
        });
        window.watching.observe(document.body, { subtree: true, childList: true, characterData: true });
        return null;
        """;

    public static async Task RunAsync(string folder)
    {
        string data = Path.Combine(folder, "typing");
        if (Directory.Exists(data)) Directory.Delete(data, recursive: true);
        using var server = await BenchServer.StartAsync(data);
        string text = string.Join('\n', WordsBench.Paragraphs(Words));
        string[] some = ["justified", "left"];
        foreach (string alignment in some)
        {
            var (publication, frame) = await FillAsync(server, text, alignment);
            using var browser = new Browser(1600, 1000);
            browser.Driver.Navigate().GoToUrl($"{server.Address}/publications/{publication}/desk/20?frame={frame}");
            browser.Find("#desk[data-ready]");
            browser.Click("#write");
            browser.Find(".text-caret:not(.is-away)");
            // The first keys after a server's start find its code not compiled yet.
            Print($"{Words} words on {Pages} pages, {alignment}, the first keys", Typed(browser, "#frames"));
            Typed(browser, "#frames");
            Print($"{Words} words on {Pages} pages, {alignment}, from then on", Typed(browser, "#frames"));
        }
        using var plain = new Browser(1600, 1000);
        string page = Path.Combine(folder, "typing.html");
        File.WriteAllText(page, "<!doctype html><meta charset=utf-8><body><div id=text contenteditable style='columns:2;width:470px;font:10.5px/14px serif'>" +
            string.Concat(text.Split('\n').Select(p => $"<p>{p}</p>")) + "</div>");
        plain.Driver.Navigate().GoToUrl("file://" + page);
        plain.Run<object?>("const t = document.getElementById('text'); t.focus(); " +
            "getSelection().collapse(t.children[t.children.length >> 1], 0); return null;");
        Print("  the same in the browser's own columns", Typed(plain, "#text"));
    }

    internal static async Task<(int Publication, int Frame)> FillAsync(BenchServer server, string text, string alignment)
    {
        int id = (await server.PostAsync("/api/publications", new { name = alignment, page = new { size = "A4" }, facing = false, pages = Pages }))
            .GetProperty("id").GetInt32();
        var frames = new List<int>();
        for (int page = 1; page <= Pages; page++)
            frames.Add((await server.PostAsync($"/api/publications/{id}/frames", new
            {
                page,
                x = 60,
                y = 60,
                width = 470,
                height = 700,
                kind = "text",
                columns = new { count = 2, gutter = 16 }
            })).GetProperty("id").GetInt32());
        await server.PostAsync($"/api/publications/{id}/styles", new
        {
            name = "Text",
            @default = true,
            settings = new
            {
                family = "Spectral",
                size = 10.5,
                leading = 14,
                alignment,
                hyphenate = alignment == "justified"
            }
        });
        await server.PostAsync($"/api/publications/{id}/stories", new { frames, text });
        return (id, frames[Pages / 2 - 1]);
    }

    private static double[] Typed(Browser browser, string watched)
    {
        if (watched == "#frames")
        {
            // Into the middle of the text.
            var line = browser.Driver.FindElements(By.CssSelector("#frames .set-text text")).Skip(20).First();
            new OpenQA.Selenium.Interactions.Actions(browser.Driver).MoveToElement(line).Click().Perform();
        }
        browser.Run<object?>(Watching.Replace("WATCHED", watched, StringComparison.Ordinal));
        for (int i = 0; i < Keys; i++)
        {
            new OpenQA.Selenium.Interactions.Actions(browser.Driver).SendKeys("kiln fires "[i % 11].ToString()).Perform();
            Thread.Sleep(70);
        }
        Thread.Sleep(2500);
        return [.. browser.Run<IReadOnlyCollection<object>>("return window.waits").Select(w => Convert.ToDouble(w, CultureInfo.InvariantCulture)).Order()];
    }

    private static void Print(string what, double[] waits) => Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
        $"{what}: {waits.Length} pictures for {Keys} keys; half within {waits[waits.Length / 2]:0.0} ms, 95 % within {waits[waits.Length * 95 / 100]:0.0} ms"));
}
