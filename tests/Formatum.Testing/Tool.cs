using System.Diagnostics;

namespace Formatum.Testing;

/// <summary>Programs from outside that results are held against.</summary>
public static class Tool
{
    /// <summary>Runs a program and gives what it printed.</summary>
    /// <exception cref="InvalidOperationException">It failed.</exception>
    public static string Run(string program, params string[] arguments)
    {
        var (exit, output, errors) = Ended(program, arguments);
        if (exit != 0) throw new InvalidOperationException($"{program} {string.Join(' ', arguments)} failed: {errors}");
        return output;
    }

    /// <summary>Runs a program and gives what it ended with, and all that it printed.</summary>
    public static (int Exit, string Told) Try(string program, params string[] arguments)
    {
        var (exit, output, errors) = Ended(program, arguments);
        return (exit, output + errors);
    }

    private static (int Exit, string Output, string Errors) Ended(string program, string[] arguments)
    {
        using var process = Process.Start(new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true, RedirectStandardError = true })
            ?? throw new InvalidOperationException($"{program} did not start.");
        var errors = process.StandardError.ReadToEndAsync();
        string output = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        return (process.ExitCode, output, errors.Result);
    }
}

/// <summary>A folder that goes when the test is done.</summary>
public sealed class TempFolder : IDisposable
{
    public string Path { get; } = Directory.CreateTempSubdirectory("formatum-test-").FullName;

    public string this[string name] => System.IO.Path.Combine(Path, name);

    public void Dispose() => Directory.Delete(Path, recursive: true);
}
