using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json;
using Formatum.Testing;

namespace Formatum.Web.Tests;

/// <summary>The real program in a process of its own, on a port of its own, with a data folder that goes with it.</summary>
public sealed class TestServer : IDisposable
{
    private readonly TempFolder _folder = new();
    private readonly string[] _more;
    private readonly int? _diskMegabytes;
    private Process _process;
    private bool _killed;

    public HttpClient Client { get; private set; }
    public string Address { get; private set; } = "";
    public int ProcessId => _process.Id;
    public string DataFolder => _folder["data"];

    public TestServer(params string[] more) : this(null, more)
    {
    }

    /// <summary>One whose data are a copy of another's, which has ended.</summary>
    private TestServer(TestServer other)
    {
        _more = [];
        Tool.Run("cp", "-r", other.DataFolder, DataFolder);
        (_process, Client) = Start();
    }

    /// <summary>Another server with the data of this one, which has ended.</summary>
    public TestServer Copy() => new(this);

    /// <param name="diskMegabytes">The size of a disk of its own for its data, in memory; null for a folder.</param>
    /// <param name="more">Further options.</param>
    public TestServer(int? diskMegabytes, params string[] more)
    {
        (_diskMegabytes, _more) = (diskMegabytes, more);
        (_process, Client) = Start();
    }

    private Process Launch(int port)
    {
        string[] command = ["dotnet", Program, "--data", DataFolder, "--port", $"{port}", .. _more];
        if (_diskMegabytes is { } megabytes)
        {
            Directory.CreateDirectory(DataFolder);
            command = OnDiskOfItsOwn(DataFolder, megabytes, command);
        }
        var start = new ProcessStartInfo(command[0], command[1..])
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            WorkingDirectory = _folder.Path
        };
        var process = Process.Start(start)!;
        _killed = false;
        _ = process.StandardError.ReadToEndAsync();
        return process;
    }

    private (Process, HttpClient) Start(int port = 0)
    {
        var process = Launch(port);
        const string Ready = "Formatum is ready: ";
        string? line;
        do line = process.StandardOutput.ReadLine();
        while (line is not null && !line.StartsWith(Ready, StringComparison.Ordinal));
        Address = line?[Ready.Length..] ?? throw new InvalidOperationException("The server did not start.");
        _ = process.StandardOutput.ReadToEndAsync();
        // A program keeps no cookies: one that took a browser's would be taken for its person in every test that comes after on the same server.
        return (process, new HttpClient(new HttpClientHandler { UseCookies = false }) { BaseAddress = new(Address), Timeout = TimeSpan.FromMinutes(3) });
    }

    /// <summary>A command that runs with a disk in memory mounted at a folder: it is there for that process alone, and goes with it.</summary>
    private static string[] OnDiskOfItsOwn(string folder, int megabytes, string[] command) =>
        Mounting($"mount -t tmpfs -o size={megabytes}m tmpfs {folder}", command);

    /// <summary>A command that finds a folder as it is, and cannot write to it.</summary>
    public static string[] OnReadOnly(string folder, string[] command) =>
        Mounting($"mount --bind {folder} {folder} && mount -o remount,bind,ro {folder}", command);

    private static string[] Mounting(string mount, string[] command)
    {
        string[] own = Environment.IsPrivilegedProcess ? ["--mount"] : ["--user", "--map-root-user", "--mount"];
        return ["unshare", .. own, "sh", "-c", $"{mount} && exec \"$@\"", "sh", .. command];
    }

    /// <summary>Whether this machine lets a process mount a disk of its own; some containers do not.</summary>
    public static bool CanHaveDiskOfItsOwn()
    {
        using var folder = new TempFolder();
        string[] command = OnDiskOfItsOwn(folder.Path, 1, ["true"]);
        try
        {
            using var process = Process.Start(new ProcessStartInfo(command[0], command[1..]) { RedirectStandardError = true })!;
            process.WaitForExit();
            return process.ExitCode == 0;
        }
        catch (System.ComponentModel.Win32Exception)
        {
            return false;
        }
    }

    /// <summary>The program, as it was built beside these tests.</summary>
    public static string Program => Path.Combine(Root, "src/Formatum.Web/bin", new DirectoryInfo(AppContext.BaseDirectory).Parent!.Name,
        "net10.0/Formatum.dll");

    public static string Root
    {
        get
        {
            var folder = new DirectoryInfo(AppContext.BaseDirectory);
            while (!File.Exists(Path.Combine(folder.FullName, "Formatum.slnx"))) folder = folder.Parent!;
            return folder.FullName;
        }
    }

    /// <summary>Ends the process with SIGKILL: it has no chance to put anything in order.</summary>
    public void Kill()
    {
        if (_killed) return;
        _killed = true;
        _process.Kill();
        _process.WaitForExit();
        _process.Dispose();
        Client.Dispose();
    }

    /// <summary>
    /// Whether this is what a client is told when the server is killed under its request; a SocketException of its own comes where the line was being made.
    /// </summary>
    public static bool WasKilled(Exception e) =>
        e is HttpRequestException or IOException or System.Net.Sockets.SocketException or OperationCanceledException or ObjectDisposedException;

    /// <summary>Asks the process to end (SIGTERM), and waits until it has.</summary>
    public void End()
    {
        Tool.Run("kill", "-TERM", $"{_process.Id}");
        _process.WaitForExit(TimeSpan.FromSeconds(30)).ShouldBeTrue("it ends within a while");
        Kill();
    }

    /// <summary>A path in the server's data, which may lie on a disk that only its process sees.</summary>
    public string InData(string name) => $"/proc/{_process.Id}/root{DataFolder}/{name}";

    /// <summary>Starts it, and kills it a while after, wherever it is by then.</summary>
    public void StartAndKill(TimeSpan after)
    {
        _process = Launch(0);
        _ = _process.StandardOutput.ReadToEndAsync();
        Thread.Sleep(after);
        Kill();
    }

    /// <param name="samePort">Whether pages that are open find it again under the address they know.</param>
    public void StartAgain(bool samePort = false) => (_process, Client) = Start(samePort ? new Uri(Address).Port : 0);

    public async Task<JsonElement> PostAsync(string address, object body)
    {
        using var answer = await Client.PostAsJsonAsync(address, body);
        string text = await answer.Content.ReadAsStringAsync();
        answer.IsSuccessStatusCode.ShouldBeTrue(text);
        return JsonSerializer.Deserialize<JsonElement>(text);
    }

    public async Task<JsonElement> GetAsync(string address)
    {
        using var answer = await Client.GetAsync(address);
        string text = await answer.Content.ReadAsStringAsync();
        answer.IsSuccessStatusCode.ShouldBeTrue(text);
        return JsonSerializer.Deserialize<JsonElement>(text);
    }

    public async Task<int> NewPublicationAsync(string name = "Test", int pages = 4, bool facing = true) =>
        (await PostAsync("/api/publications", new { name, page = new { size = "A4" }, facing, pages })).GetProperty("id").GetInt32();

    public async Task<JsonElement> UploadAsync(int publication, params (string Name, byte[] Content)[] files)
    {
        using var form = new MultipartFormDataContent();
        foreach (var (name, content) in files)
        {
            var part = new ByteArrayContent(content);
            // As browsers send it: quotes percent-encoded, everything else as it is.
            part.Headers.TryAddWithoutValidation("Content-Disposition",
                $"form-data; name=\"files\"; filename=\"{name.Replace("\"", "%22", StringComparison.Ordinal)}\"");
            form.Add(part);
        }
        using var answer = await Client.PostAsync($"/api/publications/{publication}/images", form);
        string text = await answer.Content.ReadAsStringAsync();
        ((int)answer.StatusCode).ShouldBe(201, text);
        return JsonSerializer.Deserialize<JsonElement>(text);
    }

    public void Dispose()
    {
        Kill();
        _folder.Dispose();
    }
}
