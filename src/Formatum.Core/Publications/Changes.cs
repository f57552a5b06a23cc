using System.Collections.Immutable;

namespace Formatum.Core.Publications;

/// <summary>One part before and after an edit; null where it was not, or is no more.</summary>
public readonly record struct Change(PartKey Key, Part? Before, Part? After);

/// <summary>All that an edit changes: enough to make it, to unmake it and to tell what it touched.</summary>
public sealed record Changes(ImmutableArray<Change> Items)
{
    public bool IsEmpty => Items.IsEmpty;

    /// <summary>The changes that undo these.</summary>
    public Changes Inverse() => new(Items.Reverse().Select(c => new Change(c.Key, c.After, c.Before)).ToImmutableArray());
}
