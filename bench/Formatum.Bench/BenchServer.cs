using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json;

namespace Formatum.Bench;

/// <summary>The program itself, built for Release, in a process of its own.</summary>
internal sealed class BenchServer : IDisposable
{
    private readonly Process _process;

    public HttpClient Client { get; }
    public string Address { get; }

    private BenchServer(Process process, string address)
    {
        _process = process;
        Address = address;
        Client = new() { BaseAddress = new(address), Timeout = TimeSpan.FromMinutes(5) };
    }

    /// <summary>The program as it was built beside this one.</summary>
    public static string Program => Path.Combine(AppContext.BaseDirectory, "../../../../../src/Formatum.Web/bin/Release/net10.0/Formatum.dll");

    public static Task<BenchServer> StartAsync(string data, params string[] more) => StartProgramAsync(Program, data, more);

    public static async Task<BenchServer> StartProgramAsync(string program, string data, params string[] more)
    {
        var process = Process.Start(new ProcessStartInfo("dotnet", [program, "--data", data, "--port", "0", .. more]) { RedirectStandardOutput = true })!;
        const string Ready = "Formatum is ready: ";
        string? line;
        do line = await process.StandardOutput.ReadLineAsync();
        while (line is not null && !line.StartsWith(Ready, StringComparison.Ordinal));
        return new(process, line?[Ready.Length..] ?? throw new InvalidOperationException("The server did not start; build src/Formatum.Web for Release " +
            "first."));
    }

    /// <summary>The most memory it had so far.</summary>
    public double PeakMegabytes => Measured.PeakMegabytes($"{_process.Id}");

    /// <summary>The processor's time it has taken so far.</summary>
    public double ProcessorSeconds
    {
        get
        {
            _process.Refresh();
            return _process.TotalProcessorTime.TotalSeconds;
        }
    }

    public async Task<JsonElement> GetAsync(string path) => await Client.GetFromJsonAsync<JsonElement>(path);

    public async Task<JsonElement> PostAsync(string path, object body)
    {
        using var answer = await Client.PostAsJsonAsync(path, body);
        answer.EnsureSuccessStatusCode();
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    public void Dispose()
    {
        _process.Kill();
        _process.WaitForExit();
        _process.Dispose();
        Client.Dispose();
    }
}
