using System.Collections.Concurrent;
using Formatum.Core.Publications;

namespace Formatum.Storage;

/// <summary>When a part last changed, by whom, and when anybody else last changed it.</summary>
internal readonly record struct PartMark(long Revision, Maker? By, long ByOthers)
{
    public PartMark ChangedBy(Maker maker, long revision) => maker.IsSameWindow(By) ? this with { Revision = revision } : new(revision, maker, Revision);

    /// <summary>The revision at which somebody other than this window last changed it.</summary>
    public long LastByOthers(Maker maker) => maker.IsSameWindow(By) ? ByOthers : Revision;
}

/// <summary>A publication in memory. Whoever changes it holds its gate.</summary>
internal sealed class OpenPublication(Standing standing, Dictionary<PartKey, PartMark> marks, long lastSequence)
{
    public SemaphoreSlim Gate { get; } = new(1);
    public Standing Standing { get; set; } = standing;
    public Dictionary<PartKey, PartMark> Marks { get; } = marks;

    /// <summary>The sequence of the last journal entry; 0 where there is none.</summary>
    public long LastSequence { get; set; } = lastSequence;

    public ConcurrentDictionary<string, Steps> Steps { get; } = new();

    public long LastUsed { get; set; }

    /// <summary>It was let go of to make room: whoever still holds it opens it anew.</summary>
    public bool IsGone { get; set; }
}

/// <summary>The publications in memory, the latest used ones: no more than so many.</summary>
internal sealed class OpenPublications(int most)
{
    private readonly ConcurrentDictionary<int, OpenPublication> _all = new();
    private long _uses;

    public IEnumerable<Publication> All => _all.Values.Select(o => o.Standing.Publication);

    public OpenPublication? Find(int id)
    {
        if (!_all.TryGetValue(id, out var found)) return null;
        found.LastUsed = Interlocked.Increment(ref _uses);
        return found;
    }

    public OpenPublication Add(int id, OpenPublication opened)
    {
        var kept = _all.GetOrAdd(id, opened);
        kept.LastUsed = Interlocked.Increment(ref _uses);
        MakeRoom();
        return kept;
    }

    /// <summary>Lets go of one that does not stand as it is stored.</summary>
    public void Forget(int id, OpenPublication opened)
    {
        opened.IsGone = true;
        _all.TryRemove(new(id, opened));
    }

    private void MakeRoom()
    {
        foreach (var (id, opened) in _all.OrderBy(p => p.Value.LastUsed).Take(Math.Max(0, _all.Count - most)).ToList())
        {
            // One that is being changed stays.
            if (!opened.Gate.Wait(0)) continue;
            Forget(id, opened);
            opened.Gate.Release();
        }
    }
}
