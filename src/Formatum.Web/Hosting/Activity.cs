using System.Collections.Concurrent;
using Formatum.Storage;

namespace Formatum.Web.Hosting;

/// <summary>
/// When somebody last did something in a publication, stored or still under way: a drag and a word being typed count as well. What is worked out beside,
/// waits until they rest.
/// </summary>
public sealed class Activity
{
    /// <summary>So many are remembered; what was done in the others is long ago.</summary>
    private const int Most = 1000;

    private readonly TimeProvider _clock;
    private readonly ConcurrentDictionary<int, long> _last = new();

    public Activity(PublicationStore store, TimeProvider clock)
    {
        _clock = clock;
        store.Changed += outcome => Note(outcome.Standing.Id);
    }

    /// <summary>Somebody does something in a publication now.</summary>
    public void Note(int publicationId)
    {
        if (_last.Count > Most) _last.Clear();
        _last[publicationId] = _clock.GetTimestamp();
    }

    /// <summary>How long nobody did anything in it.</summary>
    public TimeSpan RestOf(int publicationId) =>
        _last.TryGetValue(publicationId, out long last) ? _clock.GetElapsedTime(last) : TimeSpan.MaxValue;
}
