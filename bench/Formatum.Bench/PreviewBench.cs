using System.Diagnostics;
using Formatum.Imaging;

namespace Formatum.Bench;

/// <summary>Pictures brought in, against vipsthumbnail over the same files: it makes small ones too, but reads no metadata, hashes nothing and keeps no
/// links.</summary>
internal static class PreviewBench
{
    /// <summary>Previews of 40 photographs of 24 megapixels in all our sizes, by the reader alone.</summary>
    public static void Run(string folder)
    {
        var files = Pictures.Make(Path.Combine(folder, "large"), 40, 6000, 4000);
        Measured.Warm(files);
        var (ours, memory) = Measured.Child("previews-child", folder);
        Console.WriteLine($"previews of 40 photographs of 24 MP: ours (three sizes, hash, checks) {ours:0.00} s, peak {memory:0} MB");
        Compare(folder, files, ours);
    }

    public static void Child(string folder)
    {
        var files = Directory.GetFiles(Path.Combine(folder, "large")).Order().ToArray();
        string target = Path.Combine(folder, "previews");
        if (Directory.Exists(target)) Directory.Delete(target, true);
        var reader = new PictureReader(new(), new(target));
        var watch = Stopwatch.StartNew();
        Parallel.ForEach(files, new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount }, file => reader.Read(file, Path.GetFileName(file)));
        Measured.Report(watch);
    }

    /// <summary>500 photographs of 24 megapixels linked from a folder by the whole program, until all are in the publication.</summary>
    public static async Task ImportAsync(string folder)
    {
        const int Count = 500;
        string pictures = Path.Combine(folder, "import"), data = Path.Combine(folder, "import-data");
        var files = Pictures.Make(pictures, Count, 6000, 4000);
        Measured.Warm(files);
        if (Directory.Exists(data)) Directory.Delete(data, true);
        using (var server = await BenchServer.StartAsync(data, "--pictures", pictures))
        {
            int id = (await server.PostAsync("/api/publications", new { name = "Bench", page = new { size = "A4" } })).GetProperty("id").GetInt32();
            var watch = Stopwatch.StartNew();
            string job = (await server.PostAsync($"/api/publications/{id}/imports/folder", new { folder = pictures })).GetProperty("id").GetString()!;
            while ((await server.GetAsync($"/api/publications/{id}/imports/{job}")).GetProperty("state").GetString() != "done") await Task.Delay(100);
            double ours = watch.Elapsed.TotalSeconds;
            int linked = (await server.GetAsync($"/api/publications/{id}")).GetProperty("images").GetArrayLength();
            Console.WriteLine($"{linked} photographs of 24 MP brought in by the whole program: {ours:0.0} s, peak {server.PeakMegabytes:0} MB");
            double theirs = Thumbnails(folder, files, 1600);
            Console.WriteLine($"  vipsthumbnail, one size of 1600 pixels {theirs:0.0} s: ratio {ours / theirs:0.00}");
        }
        Directory.Delete(data, true);
    }

    private static void Compare(string folder, string[] files, double ours)
    {
        double one = Thumbnails(folder, files, 1600), three = one + Thumbnails(folder, files, 720) + Thumbnails(folder, files, 240);
        Console.WriteLine($"  vipsthumbnail, largest size only {one:0.00} s: ratio {ours / one:0.00}");
        Console.WriteLine($"  vipsthumbnail, the same three sizes {three:0.00} s: ratio {ours / three:0.00}");
    }

    private static double Thumbnails(string folder, string[] files, int size)
    {
        string small = Path.Combine(folder, "small");
        Directory.CreateDirectory(small);
        double seconds = Measured.Time("vipsthumbnail", ["--size", $"{size}x{size}>", "-o", $"{small}/%s.jpg[Q=82]", .. files]);
        Directory.Delete(small, true);
        return seconds;
    }
}
