using System.Globalization;
using Formatum.Testing;

namespace Formatum.Bench;

/// <summary>
/// From a slider of the treatment to paint in Chromium, on a picture of 24 megapixels that fills a spread; beside it, the same picture brightened by the style
/// sheet's own filter from a slider, by script alone.
/// </summary>
internal static class SliderBench
{
    private const int Steps = 200;

    /// <summary>Moves a slider so many times, and takes the time from each move to the picture of the screen in which what it does is changed.</summary>
    private const string Moved = """
        const [slider, watched, steps, finish] = arguments, waits = [];
        let moved = null;
        new MutationObserver(() => {
          if (moved === null) return;
          const from = moved;
          moved = null;
          requestAnimationFrame(() => setTimeout(() => waits.push(performance.now() - from)));
        }).observe(watched, { subtree: true, childList: true, attributes: true });
        let i = 0;
        const timer = setInterval(() => {
          if (i++ === steps) { clearInterval(timer); setTimeout(() => finish(waits), 500); return; }
          moved ??= performance.now();
          slider.value = 5 + i % 40;
          slider.dispatchEvent(new Event('input', { bubbles: true }));
        }, 33);
        """;

    public static async Task RunAsync(string folder)
    {
        string data = Path.Combine(folder, "slider");
        if (Directory.Exists(data)) Directory.Delete(data, recursive: true);
        using var server = await BenchServer.StartAsync(data);
        int id = (await server.PostAsync("/api/publications", new { name = "Slider", page = new { size = "A4" }, facing = true, pages = 3 })).GetProperty("id")
            .GetInt32();
        string file = Pictures.Make(Path.Combine(folder, "treated"), 1, 6000, 4000)[0];
        using var form = new MultipartFormDataContent();
        form.Add(new ByteArrayContent(await File.ReadAllBytesAsync(file)), "files", "large.jpg");
        using var arrived = await server.Client.PostAsync($"/api/publications/{id}/images", form);
        int image = (await server.GetAsync($"/api/publications/{id}")).GetProperty("images")[0].GetProperty("id").GetInt32();
        int frame = (await server.PostAsync($"/api/publications/{id}/frames", new { page = 2, x = 0, y = 0, width = 1190, height = 842, imageId = image }))
            .GetProperty("id").GetInt32();
        using var browser = new Browser(1600, 1000);
        browser.Driver.Manage().Timeouts().AsynchronousJavaScript = TimeSpan.FromMinutes(2);
        browser.Driver.Navigate().GoToUrl($"{server.Address}/publications/{id}/desk/2?frame={frame}");
        browser.Find("#desk[data-ready]");
        browser.Click("#more-treatment summary");
        foreach (string name in new[] { "brightness", "blur" })
            Print($"slider of {name} to paint", browser.Driver.ExecuteAsyncScript(Moved, browser.Find($"[data-slides='treatment-{name}']"),
                browser.Find($"#frame-{frame}"), Steps));
        string page = Path.Combine(folder, "slider.html");
        File.WriteAllText(page, $"<!doctype html><body><img id=p src='{file}' style='width:1190px;height:842px;object-fit:cover'>" +
            "<input id=s type=range min=0 max=100>" +
            "<script>s.oninput = () => { p.style.filter = `brightness(${s.value / 30})`; };</script>");
        browser.Driver.Navigate().GoToUrl("file://" + page);
        Print("  brightness by script and style sheet alone", browser.Driver.ExecuteAsyncScript(Moved, browser.Find("#s"), browser.Find("#p"), Steps));
    }

    private static void Print(string what, object? told)
    {
        double[] waits = [.. ((IReadOnlyCollection<object>)told!).Select(w => Convert.ToDouble(w, CultureInfo.InvariantCulture)).Order()];
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
            $"{what}: {waits.Length} pictures for {Steps} moves; half within {waits[waits.Length / 2]:0} ms, " +
            $"95 % within {waits[waits.Length * 95 / 100]:0} ms"));
    }
}
