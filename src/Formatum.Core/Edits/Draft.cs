using System.Collections.Immutable;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>A publication while one edit works on it. Gathers what changes; the publication it began from stays as it was.</summary>
public sealed class Draft(Publication origin)
{
    private readonly Dictionary<PartKey, Part?> _after = [];
    private readonly List<PartKey> _touched = [];
    private int _nextId = origin.NextId;

    public Publication Origin { get; } = origin;

    /// <summary>The parts the edit has put or removed so far.</summary>
    public IReadOnlyList<PartKey> Touched => _touched;

    public int NewId() => _nextId++;

    /// <summary>The part as the edit has made it so far.</summary>
    public Part? Find(PartKey key) => _after.TryGetValue(key, out var part) ? part : Origin.Find(key);

    public Frame? Frame(int id) => (Frame?)Find(new(PartKind.Frame, id));

    /// <summary>The story of a frame as the edit has made it so far; null for an image frame.</summary>
    public Story? StoryOf(Frame frame) => frame.StoryId is { } id ? (Story?)Find(new(PartKind.Story, id)) : null;

    public Tray Tray => (Tray)Find(new(PartKind.Tray, 0))!;

    public void Put(Part part) => Set(part.Key, part);

    public void Remove(PartKey key) => Set(key, null);

    private void Set(PartKey key, Part? part)
    {
        if (!_after.ContainsKey(key)) _touched.Add(key);
        _after[key] = part;
    }

    /// <summary>What the edit came to. Parts that ended as they began are left out.</summary>
    public Changes Changes() => new(_touched
        .Select(key => new Change(key, Origin.Find(key), _after[key]))
        .Where(c => !Equals(c.Before, c.After))
        .ToImmutableArray());
}
