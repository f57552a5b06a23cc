using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Net.WebSockets;
using System.Text;

namespace Formatum.Bench;

/// <summary>
/// Forty people at ten publications: each drags, with twenty questions a second on a line of their own, and lets go every second and a half. Then the same
/// beside 200 readers who ask for PDFs, PNGs and SVGs at once. Beside it, where another build is named, that one in the same run.
/// </summary>
internal static class LoadBench
{
    private const int Editors = 40, Publications = 10, QuestionsASecond = 20, QuestionsADrag = 30, Readers = 200;

    /// <param name="folder">For data.</param>
    /// <param name="seconds">How long each part lasts.</param>
    /// <param name="before">Another build's Formatum.dll; null for none.</param>
    public static async Task RunAsync(string folder, int seconds, string? before)
    {
        string pictures = Path.Combine(folder, "load-pictures");
        var files = Pictures.Make(pictures, 20, 3000, 2000);
        foreach (var (name, program) in new[] { ("before", before), ("now", BenchServer.Program) })
        {
            if (program is null) continue;
            string data = Path.Combine(folder, $"load-{name}");
            if (Directory.Exists(data)) Directory.Delete(data, recursive: true);
            using var server = await BenchServer.StartProgramAsync(program, data, "--pictures", pictures);
            var desks = new List<(int Publication, int Frame)>();
            for (int i = 0; i < Publications; i++) desks.AddRange(await FillAsync(server, pictures, i));
            var alone = await EditAsync(server, desks, seconds, readers: false);
            Print($"{name}: {Editors} editors", alone);
            var read = await EditAsync(server, desks, seconds, readers: true);
            Print($"{name}: beside {Readers} readers", read);
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{name}: {files.Length} pictures, peak {server.PeakMegabytes:0} MB"));
        }
    }

    /// <summary>What was measured, in milliseconds.</summary>
    private sealed class Times
    {
        public ConcurrentBag<double> Edits { get; } = [];
        public ConcurrentBag<double> Hand { get; } = [];
        public ConcurrentBag<double> Read { get; } = [];
        public ConcurrentBag<string> Failed { get; } = [];
    }

    private static void Print(string what, Times times)
    {
        Console.WriteLine($"{what}: edits {Spread(times.Edits)}; hand {Spread(times.Hand)}; read {Spread(times.Read)}; failed {times.Failed.Count}" +
            $"{string.Concat(times.Failed.GroupBy(f => f).Select(f => $" [{f.Count()} x {f.Key}]"))}");
    }

    private static string Spread(ConcurrentBag<double> times)
    {
        if (times.IsEmpty) return "none";
        double[] sorted = [.. times.Order()];
        double At(double share) => sorted[(int)Math.Min(sorted.Length - 1, share * sorted.Length)];
        return string.Create(CultureInfo.InvariantCulture, $"{sorted.Length}: p50 {At(0.5):0.0}, p95 {At(0.95):0.0}, p99 {At(0.99):0.0}, longest " +
            $"{sorted[^1]:0} ms");
    }

    private static async Task<IEnumerable<(int Publication, int Frame)>> FillAsync(BenchServer server, string pictures, int number)
    {
        int id = (await server.PostAsync("/api/publications", new { name = $"Load {number}", page = new { size = "A4" }, facing = true, pages = 12 }))
            .GetProperty("id").GetInt32();
        var linked = await server.PostAsync($"/api/publications/{id}/images/folder", new { folder = pictures });
        var images = linked.EnumerateArray().Select(i => i.GetProperty("id").GetInt32()).ToArray();
        var frames = new List<int>();
        for (int i = 0; i < 48; i++)
            frames.Add((await server.PostAsync($"/api/publications/{id}/frames", new
            {
                page = 1 + i / 4,
                x = 40 + i % 2 * 260,
                y = 40 + i % 4 / 2 * 380,
                width = 240,
                height = 360,
                imageId = images[i % images.Length],
            })).GetProperty("id").GetInt32());
        // Each editor has a page of their own, as people do.
        return Enumerable.Range(0, Editors / Publications).Select(i => (id, frames[i * 12]));
    }

    private static async Task<Times> EditAsync(BenchServer server, List<(int Publication, int Frame)> desks, int seconds, bool readers)
    {
        var times = new Times();
        using var ends = new CancellationTokenSource(TimeSpan.FromSeconds(seconds));
        var work = desks.Select((desk, i) => EditorAsync(server, desk.Publication, desk.Frame, i, times, ends.Token)).ToList();
        if (readers)
            work.AddRange(Enumerable.Range(0, Readers).Select(i => ReaderAsync(server, desks[i % desks.Count].Publication, i, times, ends.Token)));
        await Task.WhenAll(work);
        return times;
    }

    private static async Task EditorAsync(BenchServer server, int publication, int frame, int number, Times times, CancellationToken ends)
    {
        using var line = new ClientWebSocket();
        await line.ConnectAsync(new($"{server.Address.Replace("http", "ws", StringComparison.Ordinal)}/publications/{publication}/desk/1/hand"), default);
        byte[] answer = new byte[1 << 16];
        using var beat = new PeriodicTimer(TimeSpan.FromMilliseconds(1000.0 / QuestionsASecond));
        await Task.Delay(25 * number, default);
        for (int step = 0; !ends.IsCancellationRequested; step++)
        {
            double x = 40 + step % QuestionsADrag;
            string question = string.Create(CultureInfo.InvariantCulture,
                $$"""{"inside":false,"command":{"do":"move","frames":"{{frame}}","fromX":100,"fromY":100""" +
                $$""","toX":{{60 + x}},"toY":{{110 + number}},"scale":1} }""");
            await TimeAsync(times.Hand, async () =>
            {
                await line.SendAsync(Encoding.UTF8.GetBytes(question), WebSocketMessageType.Text, true, default);
                while (!(await line.ReceiveAsync(answer.AsMemory(), default)).EndOfMessage) { }
            });
            if (step % QuestionsADrag == QuestionsADrag - 1)
            {
                var moved = new { x = x + number * 0.1 + step * 0.01 };
                await TimeAsync(times.Edits, async () =>
                {
                    using var told = await server.Client.PatchAsJsonAsync($"/api/publications/{publication}/frames/{frame}", moved, CancellationToken.None);
                    if (!told.IsSuccessStatusCode) times.Failed.Add($"edit {(int)told.StatusCode}");
                });
            }
            await beat.WaitForNextTickAsync(default);
        }
    }

    private static async Task ReaderAsync(BenchServer server, int publication, int number, Times times, CancellationToken ends)
    {
        string[] kinds = ["output.pdf", $"pages/{1 + number % 12}.png?ppi=150", $"pages/{1 + number % 12}.svg"];
        while (!ends.IsCancellationRequested)
        {
            var status = HttpStatusCode.OK;
            await TimeAsync(times.Read, async () =>
            {
                using var answer = await server.Client.GetAsync($"/api/publications/{publication}/{kinds[number % 3]}", CancellationToken.None);
                await answer.Content.ReadAsByteArrayAsync(CancellationToken.None);
                status = answer.StatusCode;
            });
            if (status != HttpStatusCode.OK) times.Failed.Add($"{kinds[number % 3].Split('?')[0].Split('.')[^1]} {(int)status}");
        }
    }

    private static async Task TimeAsync(ConcurrentBag<double> times, Func<Task> work)
    {
        var watch = Stopwatch.StartNew();
        await work();
        times.Add(watch.Elapsed.TotalMilliseconds);
    }
}
