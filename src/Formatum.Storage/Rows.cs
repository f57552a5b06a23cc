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

    /// <summary>The sequence of its last journal entry; 0 where there is none.</summary>
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

/// <summary>What an entry of the journal is. The numbers are kept in files: add, never renumber.</summary>
public enum StepKind { Edit = 0, Undo = 1, Redo = 2, GoTo = 3 }

/// <summary>One step: what was done, in words, by whom, and every part before and after. Entries are only ever added.</summary>
public sealed class JournalRow
{
    public int PublicationId { get; set; }
    public long Sequence { get; set; }
    public required string Words { get; set; }

    /// <summary>What it was done to: "Picture 3, page 5".</summary>
    public string Touched { get; set; } = "";

    public DateTimeOffset At { get; set; }
    public StepKind Kind { get; set; }

    /// <summary>For undoing and redoing: the entry it is about, which holds the changes.</summary>
    public long? Of { get; set; }

    /// <summary>Whether it is taken back at present.</summary>
    public bool Undone { get; set; }

    /// <summary>Who made it; empty for entries from before makers were kept, which are everybody's.</summary>
    public string Maker { get; set; } = "";
    public string MakerName { get; set; } = "";

    /// <summary>The name its sender gave it; empty where it has none. None is made twice.</summary>
    public string Key { get; set; } = "";

    /// <summary>The edits it belongs to, which are undone as one; empty for an edit of its own.</summary>
    public string Batch { get; set; } = "";

    /// <summary>As JSON; empty for undoing and redoing a single entry.</summary>
    public required string Changes { get; set; }
}

/// <summary>Something chosen once for all publications to come.</summary>
public sealed class PreferenceRow
{
    public required string Name { get; set; }
    public required string Json { get; set; }
}
