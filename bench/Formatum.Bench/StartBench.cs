using System.Diagnostics;
using System.Globalization;

namespace Formatum.Bench;

/// <summary>What a start on an empty folder costs until the first pages are shown and the first frame is made; beside it another version, one after the
/// other.</summary>
internal static class StartBench
{
    private const int Runs = 9;

    public static async Task RunAsync(string folder, string? other)
    {
        var programs = new[] { BenchServer.Program, other }.OfType<string>().ToList();
        var (ready, processor) = (programs.ConvertAll(_ => new List<double>()), programs.ConvertAll(_ => new List<double>()));
        for (int run = 0; run < Runs; run++)
        {
            for (int i = 0; i < programs.Count; i++)
            {
                string data = Path.Combine(folder, "start");
                if (Directory.Exists(data)) Directory.Delete(data, recursive: true);
                var watch = Stopwatch.StartNew();
                using var server = await BenchServer.StartProgramAsync(programs[i], data);
                ready[i].Add(watch.Elapsed.TotalSeconds);
                await WorkAsync(server);
                processor[i].Add(server.ProcessorSeconds);
            }
        }
        double[] wait = [.. ready.Select(Measured.Median)], work = [.. processor.Select(Measured.Median)];
        for (int i = 0; i < programs.Count; i++)
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{(i == 0 ? "ours" : "the other")}: ready after {wait[i]:0.00} s; " +
                $"{work[i]:0.00} s of the processor until first pages and edits"));
        if (programs.Count > 1)
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"ratio {wait[0] / wait[1]:0.00} until ready, {work[0] / work[1]:0.00} in all"));
    }

    private static async Task WorkAsync(BenchServer server)
    {
        await server.Client.GetStringAsync("/");
        int id = (await server.PostAsync("/api/publications", new { name = "Start", page = new { size = "A4" }, facing = true, pages = 4 }))
            .GetProperty("id").GetInt32();
        for (int i = 0; i < 2; i++) await server.Client.GetStringAsync($"/publications/{id}/desk/1");
        await server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 30, y = 30, width = 100, height = 100 });
        await server.Client.GetStringAsync($"/publications/{id}/images");
    }
}
