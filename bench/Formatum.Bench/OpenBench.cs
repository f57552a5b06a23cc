using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json;

namespace Formatum.Bench;

/// <summary>How long it takes to open a spread of a publication that nobody has opened since the server started: 500 pages against 20; and to answer an edit
/// in each.</summary>
internal static class OpenBench
{
    private const int Runs = 12;

    private static readonly int[] Both = [1, 2];

    public static async Task RunAsync(string folder)
    {
        string data = Path.Combine(folder, "open");
        if (Directory.Exists(data)) Directory.Delete(data, recursive: true);
        int small = 0, large = 0, other = 0, smallFrame = 0, largeFrame = 0;
        using (var server = await BenchServer.StartAsync(data))
        {
            (other, _) = await FillAsync(server, 20);
            (small, smallFrame) = await FillAsync(server, 20);
            (large, largeFrame) = await FillAsync(server, 500);
        }
        var (smalls, larges, smallAgain, largeAgain) = (new List<double>(), new List<double>(), new List<double>(), new List<double>());
        var (smallEdits, largeEdits) = (new List<double>(), new List<double>());
        for (int run = 0; run < Runs; run++)
        {
            using var server = await BenchServer.StartAsync(data);
            // What the program does once only is not the publication's.
            for (int i = 0; i < 20; i++)
                foreach (string asked in new[] { "", "?handler=Turn" }) await server.Client.GetStringAsync($"/publications/{other}/desk/5{asked}");
            // Now the one first, now the other: whichever comes second finds the program warmer.
            if (run % 2 == 0) smalls.Add(await TimeAsync(() => server.Client.GetStringAsync($"/publications/{small}/desk/5")));
            larges.Add(await TimeAsync(() => server.Client.GetStringAsync($"/publications/{large}/desk/125")));
            if (run % 2 == 1) smalls.Add(await TimeAsync(() => server.Client.GetStringAsync($"/publications/{small}/desk/5")));
            for (int i = 0; i < 10; i++)
            {
                smallAgain.Add(await TimeAsync(() => server.Client.GetStringAsync($"/publications/{small}/desk/{3 + i}?handler=Turn")));
                largeAgain.Add(await TimeAsync(() => server.Client.GetStringAsync($"/publications/{large}/desk/{125 + i}?handler=Turn")));
                smallEdits.Add(await TimeAsync(() => server.Client.PatchAsJsonAsync($"/api/publications/{small}/frames/{smallFrame}",
                    new { x = 40 + run + 0.1 * i })));
                largeEdits.Add(await TimeAsync(() => server.Client.PatchAsJsonAsync($"/api/publications/{large}/frames/{largeFrame}",
                    new { x = 40 + run + 0.1 * i })));
            }
        }
        Print("open a spread, first time since the start", smalls, larges);
        Print("turn to another spread of it", smallAgain, largeAgain);
        Print("an edit's answer", smallEdits, largeEdits);
    }

    private static void Print(string what, List<double> small, List<double> large)
    {
        double s = Measured.Median(small), l = Measured.Median(large);
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{what}: 20 pages {s:0.0} ms, 500 pages {l:0.0} ms: ratio {l / s:0.00}"));
    }

    private static async Task<double> TimeAsync<T>(Func<Task<T>> work)
    {
        var watch = Stopwatch.StartNew();
        await work();
        return watch.Elapsed.TotalMilliseconds;
    }

    private static async Task<(int Publication, int Frame)> FillAsync(BenchServer server, int pages)
    {
        int id = (await server.PostAsync("/api/publications", new { name = $"{pages} pages", page = new { size = "A4" }, facing = true, pages = 2 }))
            .GetProperty("id").GetInt32();
        for (int i = 0; i < 12; i++)
            await server.PostAsync($"/api/publications/{id}/frames", new
            {
                page = 1 + i / 6,
                x = 40 + i % 2 * 260,
                y = 40 + i % 6 / 2 * 250,
                width = 240,
                height = 230
            });
        for (int made = 2; made < pages; made += 2) await server.PostAsync($"/api/publications/{id}/pages/duplicate", new { pages = Both });
        var frames = (await server.Client.GetFromJsonAsync<JsonElement>($"/api/publications/{id}")).GetProperty("frames");
        return (id, frames[frames.GetArrayLength() / 2].GetProperty("id").GetInt32());
    }
}
