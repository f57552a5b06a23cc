using System.Diagnostics;

namespace Formatum.Imaging.Apart;

/// <summary>Asks one thing of a process of its own, which the operating system holds to limits of memory and time.</summary>
public static class OneAnswer
{
    /// <param name="program">This program.</param>
    /// <param name="arguments">What it is asked: a verb and what belongs to it.</param>
    /// <param name="longest">How long it may take by the clock.</param>
    /// <param name="cancel">Says that nobody wants it any more.</param>
    /// <returns>What it said; null where it ended without an answer, or took too long.</returns>
    /// <exception cref="OperationCanceledException">Nobody wants it any more.</exception>
    public static async Task<string?> AskAsync(OwnProgram program, IEnumerable<string> arguments, TimeSpan longest, CancellationToken cancel = default)
    {
        var start = new ProcessStartInfo(program.File, [.. program.Arguments, .. arguments])
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        ReaderLimits.Set(start.Environment);
        using var process = Process.Start(start)!;
        using var late = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        late.CancelAfter(longest);
        var unheard = process.StandardError.ReadToEndAsync(late.Token);
        try
        {
            string said = await process.StandardOutput.ReadToEndAsync(late.Token);
            await process.WaitForExitAsync(late.Token);
            await unheard;
            return process.ExitCode == 0 ? said : null;
        }
        catch (OperationCanceledException)
        {
            process.Kill();
            cancel.ThrowIfCancellationRequested();
            return null;
        }
    }
}
