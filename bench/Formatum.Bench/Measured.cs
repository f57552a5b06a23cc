using System.Diagnostics;
using System.Globalization;

namespace Formatum.Bench;

/// <summary>Times programs, and this one in a process of its own.</summary>
internal static class Measured
{
    /// <summary>A measured child tells its seconds and its peak of resident memory, mapped files included.</summary>
    public static void Report(Stopwatch watch)
    {
        double seconds = watch.Elapsed.TotalSeconds;
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{seconds} {PeakMegabytes("self")}"));
    }

    /// <summary>The peak of resident memory of a process.</summary>
    public static double PeakMegabytes(string process) =>
        double.Parse(File.ReadLines($"/proc/{process}/status").First(l => l.StartsWith("VmHWM:", StringComparison.Ordinal))
            .Split(' ', StringSplitOptions.RemoveEmptyEntries)[1], CultureInfo.InvariantCulture) / 1024;

    /// <summary>Runs one of this program's own measurements in a process of its own.</summary>
    public static (double Seconds, double Megabytes) Child(params string[] arguments)
    {
        using var process = Process.Start(new ProcessStartInfo("dotnet", [Path.Combine(AppContext.BaseDirectory, "Formatum.Bench.dll"),
            .. arguments])
        { RedirectStandardOutput = true })!;
        var numbers = process.StandardOutput.ReadToEnd().Trim().Split('\n')[^1].Split(' ');
        process.WaitForExit();
        return (double.Parse(numbers[0], CultureInfo.InvariantCulture), double.Parse(numbers[1], CultureInfo.InvariantCulture));
    }

    /// <summary>The middle one of what was measured.</summary>
    public static double Median(IReadOnlyCollection<double> all) => all.Order().ElementAt(all.Count / 2);

    private const int MedianOf = 9;

    /// <summary>The median of several runs, in milliseconds.</summary>
    public static double Median(Action work)
    {
        var times = new List<double>();
        for (int run = 0; run < MedianOf; run++)
        {
            var watch = Stopwatch.StartNew();
            work();
            times.Add(watch.Elapsed.TotalMilliseconds);
        }
        return times.Order().ElementAt(MedianOf / 2);
    }

    /// <summary>How long a program takes, in seconds.</summary>
    public static double Time(string program, params string[] arguments) => Time(null, program, arguments) ?? double.NaN;

    /// <summary>How long a program takes, in seconds; null where it was stopped since it took longer than it is given.</summary>
    public static double? Time(int? patience, string program, params string[] arguments)
    {
        var watch = Stopwatch.StartNew();
        using var process = Process.Start(new ProcessStartInfo(program, arguments) { RedirectStandardError = true, RedirectStandardOutput = true })!;
        _ = process.StandardOutput.ReadToEndAsync();
        _ = process.StandardError.ReadToEndAsync();
        if (!process.WaitForExit(patience is { } seconds ? TimeSpan.FromSeconds(seconds) : Timeout.InfiniteTimeSpan))
        {
            process.Kill(entireProcessTree: true);
            return null;
        }
        if (process.ExitCode != 0) Console.Error.WriteLine($"{program} failed with {process.ExitCode}.");
        return watch.Elapsed.TotalSeconds;
    }

    /// <summary>Reads files through once, so that all who are compared find them equally warm.</summary>
    public static void Warm(IEnumerable<string> files)
    {
        foreach (string file in files)
        {
            using var stream = File.OpenRead(file);
            stream.CopyTo(Stream.Null);
        }
    }
}
