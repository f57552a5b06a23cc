using System.Runtime.InteropServices;
using Formatum.Output;

namespace Formatum.Web.Hosting;

/// <summary>Too much heavy work waits already; nothing was begun.</summary>
public sealed class TooBusy() : Exception("This server makes as much as it can at once. Nothing is wrong; ask again in a few seconds.")
{
    /// <summary>When to ask again, in seconds.</summary>
    public const int RetryAfter = 5;
}

/// <summary>
/// The one place where what takes a core for long, or much memory, is done: PDFs, pictures of pages, proposals for a whole publication. So much runs at once,
/// the rest waits in order, and what would wait too long is refused. It runs on threads of its own at low priority, so that edits do not wait for it.
/// </summary>
public sealed partial class HeavyWork(ServerOptions options)
{
    /// <summary>More do not wait, and none longer than this.</summary>
    private const int MostWaiting = 500;

    private static readonly TimeSpan LongestWait = TimeSpan.FromMinutes(2);

    private SemaphoreSlim Places { get; } = new(options.Heavy);

    private int _waiting;

    /// <summary>A picture of a page may have so many pixels: all that are made at once together take half the memory at most, each pixel twice four
    /// bytes.</summary>
    public int MostPixels { get; } = (int)Math.Clamp(GC.GetGCMemoryInfo().TotalAvailableMemoryBytes / 2 / options.Heavy / 8, 20_000_000,
        PageRaster.MostPixels);

    /// <summary>Does heavy work once there is a place for it.</summary>
    /// <param name="work">The work; it stops soon where the token says so.</param>
    /// <param name="cancel">Says that nobody wants it any more.</param>
    /// <exception cref="TooBusy">There is no place, and too many wait.</exception>
    public async Task<T> RunAsync<T>(Func<CancellationToken, T> work, CancellationToken cancel)
    {
        using var place = await TakeAsync(cancel);
        return await Task.Factory.StartNew(() =>
        {
            StepBack();
            return work(cancel);
        }, cancel, TaskCreationOptions.LongRunning | TaskCreationOptions.DenyChildAttach, TaskScheduler.Default);
    }

    /// <summary>A place for heavy work that waits more than it computes; it is given back by disposing of it.</summary>
    /// <exception cref="TooBusy">There is none, and too many wait.</exception>
    public async Task<IDisposable> TakeAsync(CancellationToken cancel)
    {
        if (Interlocked.Increment(ref _waiting) > MostWaiting)
        {
            Interlocked.Decrement(ref _waiting);
            throw new TooBusy();
        }
        try
        {
            if (!await Places.WaitAsync(LongestWait, cancel)) throw new TooBusy();
        }
        finally
        {
            Interlocked.Decrement(ref _waiting);
        }
        return new Place(this);
    }

    private sealed class Place(HeavyWork work) : IDisposable
    {
        public void Dispose()
        {
            work.Places.Release();
            if (work.Places.CurrentCount == work.MostAtOnce) work.GiveBack();
        }
    }

    private int MostAtOnce { get; } = options.Heavy;

    /// <summary>So much memory more than it had when it last gave some back, in bytes, is worth a moment's halt.</summary>
    private const long WorthGiving = 400L << 20;

    private long _kept = Environment.WorkingSet;

    /// <summary>Memory that heavy work used and nothing uses any more goes back to the machine, once nothing heavy is under way: the runtime itself would
    /// keep it.</summary>
    private void GiveBack()
    {
        long kept = Interlocked.Read(ref _kept);
        if (Environment.WorkingSet - kept < WorthGiving || Interlocked.CompareExchange(ref _kept, long.MaxValue / 2, kept) != kept) return;
        Task.Run(() =>
        {
            GC.Collect(GC.MaxGeneration, GCCollectionMode.Aggressive, blocking: true, compacting: true);
            Interlocked.Exchange(ref _kept, Environment.WorkingSet);
        });
    }

    /// <summary>
    /// Lets this thread give way to those that answer edits, by half: with less, other programs would keep it from ever ending. On Linux each thread
    /// has a priority of its own (setpriority(2), pthreads(7)).
    /// </summary>
    private static void StepBack()
    {
        const int Threads = 0, ThisOne = 0, Lower = 3;
        _ = SetPriority(Threads, ThisOne, Lower);
    }

    [LibraryImport("libc", EntryPoint = "setpriority")]
    private static partial int SetPriority(int which, int who, int priority);
}
