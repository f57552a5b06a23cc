using System.ComponentModel;
using System.Diagnostics;
using System.Globalization;

namespace Formatum.Imaging.Apart;

/// <summary>How a reader came to its end.</summary>
internal enum ReaderEnding { Fault, Time, Memory }

/// <summary>One process that reads pictures, asked for one at a time.</summary>
internal sealed class ReaderProcess : IDisposable
{
    /// <summary>What a process says as it ends where memory cannot be had: the runtime, and the library that allocates for the readers.</summary>
    private static readonly string[] OutOfMemory = ["Out of memory", "OutOfMemory", "failed to allocate", "bad_alloc", "Cannot allocate memory"];

    private const int SignalBase = 128, Killed = 9, TimeUsedUp = 24;

    private readonly Process _process;
    private readonly Task<string> _said;
    private bool _silent;

    public int Asked { get; private set; }

    private ReaderProcess(Process process) => (_process, _said) = (process, process.StandardError.ReadToEndAsync());

    public static ReaderProcess Start(OwnProgram program, string previewFolder, PictureLimits limits)
    {
        var culture = CultureInfo.InvariantCulture;
        var start = new ProcessStartInfo(program.File, [.. program.Arguments, PictureWorker.Verb, previewFolder, limits.MostBytes.ToString(culture),
            limits.MostPixels.ToString(culture)])
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        ReaderLimits.Set(start.Environment);
        return new(Process.Start(start)!);
    }

    /// <summary>The answer; null where the reader ended, or was ended because it was silent for too long.</summary>
    public async Task<string?> AskAsync(string question)
    {
        Asked++;
        using var silence = new CancellationTokenSource(ReaderLimits.Silence);
        try
        {
            await _process.StandardInput.WriteLineAsync(question.AsMemory(), silence.Token);
            await _process.StandardInput.FlushAsync(silence.Token);
            return await _process.StandardOutput.ReadLineAsync(silence.Token);
        }
        catch (OperationCanceledException)
        {
            _silent = true;
            return null;
        }
        catch (IOException)
        {
            return null;
        }
    }

    /// <summary>Why it ended. It is no more after that.</summary>
    public ReaderEnding Ending()
    {
        End();
        if (_silent || _process.ExitCode == SignalBase + TimeUsedUp) return ReaderEnding.Time;
        return _process.ExitCode == SignalBase + Killed || OutOfMemory.Any(w => _said.Result.Contains(w, StringComparison.OrdinalIgnoreCase))
            ? ReaderEnding.Memory : ReaderEnding.Fault;
    }

    private void End()
    {
        try
        {
            // One that closed its answers is at its end, and says why by how it ends; one that is silent is not.
            if (_silent || !_process.WaitForExit(TimeSpan.FromSeconds(10))) _process.Kill();
            _process.WaitForExit();
        }
        catch (Exception e) when (e is InvalidOperationException or Win32Exception)
        {
            // Gone already.
        }
    }

    public void Dispose()
    {
        try
        {
            if (!_process.HasExited) _process.Kill();
        }
        catch (Exception e) when (e is InvalidOperationException or Win32Exception)
        {
            // Gone already.
        }
        _process.Dispose();
    }
}
