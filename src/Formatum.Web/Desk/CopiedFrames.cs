using Formatum.Core.Publications;

namespace Formatum.Web.Desk;

/// <summary>
/// What was copied or cut, as it was at that moment: the browser's clipboard holds its name. The latest are kept; older ones are pasted as they are now,
/// where they still are.
/// </summary>
public sealed class CopiedFrames
{
    private const int Most = 200, LongestToken = 64;

    private readonly Dictionary<string, Publication> _kept = [];
    private readonly Queue<string> _order = [];

    public void Keep(string? token, Publication publication)
    {
        if (token is not { Length: > 0 and <= LongestToken }) return;
        lock (_kept)
        {
            if (!_kept.TryAdd(token, publication)) return;
            _order.Enqueue(token);
            if (_order.Count > Most) _kept.Remove(_order.Dequeue());
        }
    }

    public Publication? Find(string? token)
    {
        lock (_kept) return token is null ? null : _kept.GetValueOrDefault(token);
    }
}
