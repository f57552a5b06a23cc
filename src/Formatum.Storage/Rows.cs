using Formatum.Core.Publications;

namespace Formatum.Storage;

/// <summary>A publication as the shelf knows it, and how far it has come.</summary>
public sealed class PublicationRow
{
    public int Id { get; set; }
    public required string Name { get; set; }

    /// <summary>Counts every change, undoing and redoing included.</summary>
    public long Revision { get; set; }

    public int NextId { get; set; }

    /// <summary>The journal entry that was applied last; 0 where all are undone.</summary>
    public long JournalPosition { get; set; }

    public DateTimeOffset Changed { get; set; }

    /// <summary>Whether it was put away from the shelf. It is kept all the same.</summary>
    public bool PutAway { get; set; }
}

/// <summary>A part of a publication as it is now.</summary>
public sealed class PartRow
{
    public int PublicationId { get; set; }
    public PartKind Kind { get; set; }
    public int PartId { get; set; }

    /// <summary>The publication's revision at which the part last changed.</summary>
    public long Revision { get; set; }

    public required string Json { get; set; }
}

/// <summary>One edit: what was done, in words, and every part before and after.</summary>
public sealed class JournalRow
{
    public int PublicationId { get; set; }
    public long Sequence { get; set; }
    public required string Words { get; set; }
    public DateTimeOffset At { get; set; }
    public required string Changes { get; set; }
}

/// <summary>Something chosen once for all publications to come.</summary>
public sealed class PreferenceRow
{
    public required string Name { get; set; }
    public required string Json { get; set; }
}
