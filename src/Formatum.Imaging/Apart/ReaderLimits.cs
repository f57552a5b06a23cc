using System.Diagnostics;
using System.Globalization;
using System.Runtime.InteropServices;

namespace Formatum.Imaging.Apart;

/// <summary>What a process that reads pictures or fonts may take, held by the operating system (setrlimit(2) of Linux).</summary>
public static partial class ReaderLimits
{
    /// <summary>Memory of a reader in all, in bytes: enough for a picture of 250 megapixels where it can be read line by line, and for 80 where it
    /// cannot.</summary>
    public const long Memory = 1L << 30;

    /// <summary>Address space in all, in bytes: the runtime reserves several times what it may use.</summary>
    private const long AddressSpace = 32L << 30;

    /// <summary>Of this the runtime itself may take so much, in bytes.</summary>
    private const long Managed = 512L << 20;

    /// <summary>Processor time for a picture, a font or a document, for a drawing, and for what a picture says of itself in words, in seconds.</summary>
    public const int ForPicture = 40, ForDrawing = 8, ForWords = 8;

    /// <summary>How long a reader may be silent, in all: a disk that hangs must not hold it for good.</summary>
    public static readonly TimeSpan Silence = TimeSpan.FromMinutes(3);

    private const int CpuTime = 0, Data = 2, Core = 4, Space = 9;

    /// <summary>Tells a process to be, by its environment, how little it may take.</summary>
    public static void Set(IDictionary<string, string?> environment)
    {
        environment["DOTNET_GCHeapHardLimit"] = Managed.ToString("x", CultureInfo.InvariantCulture);
        environment["DOTNET_gcConcurrent"] = "0";
        environment["MALLOC_ARENA_MAX"] = "2";
    }

    /// <summary>Takes what this process will never need. It cannot be given back.</summary>
    public static void Take()
    {
        Set(Data, Memory, Memory);
        Set(Space, AddressSpace, AddressSpace);
        Set(Core, 0, 0);
        // Where the machine itself runs out of memory, this process goes before the server does.
        try
        {
            File.WriteAllText("/proc/self/oom_score_adj", "1000");
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            // Not every container lets it.
        }
    }

    /// <summary>Gives this process so many seconds of the processor's time from now on; the operating system ends it after that.</summary>
    public static void Allow(int seconds)
    {
        using var self = Process.GetCurrentProcess();
        Set(CpuTime, (long)Math.Ceiling(self.TotalProcessorTime.TotalSeconds) + seconds, -1);
    }

    private static void Set(int what, long soft, long hard)
    {
        var limit = new Limit { Soft = unchecked((ulong)soft), Hard = unchecked((ulong)hard) };
        if (SetLimit(what, ref limit) != 0) throw new InvalidOperationException($"The limit {what} could not be set.");
    }

    private struct Limit
    {
        public ulong Soft, Hard;
    }

    [LibraryImport("libc", EntryPoint = "setrlimit")]
    private static partial int SetLimit(int what, ref Limit limit);
}
