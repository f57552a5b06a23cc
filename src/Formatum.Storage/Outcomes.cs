using System.Text.Json;
using Formatum.Core.Publications;

namespace Formatum.Storage;

/// <summary>A publication as it stands.</summary>
public sealed record Standing(int Id, Publication Publication, long Revision);

/// <summary>What an edit, an undo or a redo came to.</summary>
/// <param name="Standing">The publication after it.</param>
/// <param name="Changes">What changed.</param>
/// <param name="Words">What was done: "Move frame".</param>
/// <param name="Touched">What it was done to: "Picture 3, page 5".</param>
/// <param name="WasMade">It had been made before, and was sent again: nothing changed now. The changes are those of then.</param>
public sealed record EditOutcome(Standing Standing, Changes Changes, string Words, string Touched, bool WasMade = false)
{
    /// <summary>The publication without these changes.</summary>
    public Publication Before => Standing.Publication.With(Changes.Inverse());
}

/// <summary>A publication on the shelf, or put away from it.</summary>
public sealed record ShelfEntry(int Id, string Name, DateTimeOffset Changed, bool PutAway, long Revision, bool IsLibrary);

/// <summary>What undo and redo would do for one maker, in words; null where there is nothing.</summary>
public sealed record Steps(string? Undo, string? Redo);

/// <summary>One entry of the history.</summary>
public sealed record HistoryEntry(long Sequence, string Words, string Touched, DateTimeOffset At, bool Undone, string MakerId, string MakerName);

/// <summary>There is no publication of that id.</summary>
public sealed class NoSuchPublication(int id) : Exception($"There is no publication {id}. It may have been removed; look on the shelf.");

/// <summary>What the edit would change was changed by somebody else after the editor last saw it. Nothing was changed.</summary>
public sealed class EditClash(string message) : Exception(message);

/// <summary>The database file could not be written, as when its disk is full. Nothing was changed.</summary>
public sealed class NotStored(Exception cause) : Exception("It could not be stored: the server's disk is full, or closed to it. Nothing was changed. Tell " +
    "whoever runs the server, and do it again once there is room.", cause);

/// <summary>What is kept of a publication cannot be read: it was damaged, or written by a newer program. Nothing was changed.</summary>
public sealed class UnreadablePublication(string name, Exception cause) : Exception($"\u201c{name}\u201d cannot be read as it is kept: " +
    $"{(cause as AggregateException)?.InnerException?.Message ?? cause.Message} It may be damaged, or written by a newer Formatum. Nothing was changed. " +
        $"Tell whoever " +
    "runs the server; a backup of the data has it.", cause)
{
    /// <summary>What reading a part, or putting parts together, throws where they are not what this program writes.</summary>
    internal static bool IsOf(Exception e) => e is JsonException or NotSupportedException or InvalidOperationException or KeyNotFoundException
        or FormatException or ArgumentException || (e is AggregateException { InnerException: { } inner } && IsOf(inner));
}
