using Formatum.Core.Settings;

namespace Formatum.Core.Publications;

/// <summary>A named, reusable look, or part of one, based on another or on a plain one.</summary>
public sealed record NamedLook : Part
{
    public const int LongestName = 100;

    /// <summary>A publication has no more of them.</summary>
    public const int Most = 500;

    public required int Id { get; init; }
    public required string Name { get; init; }
    public int? BasedOnId { get; init; }
    public LookSettings Settings { get; init; } = LookSettings.Open;

    public override PartKey Key => new(PartKind.Look, Id);
}

/// <summary>How looks are inherited, weakest first: a plain one, the chain of named looks from the root to the frame's own, what is set on it.</summary>
public static class LookCascade
{
    /// <summary>The named look and those it is based on, strongest first.</summary>
    public static IEnumerable<NamedLook> Chain(Publication publication, int? lookId) =>
        Layers.Chain(lookId, id => publication.Looks.GetValueOrDefault(id), look => look.BasedOnId);

    /// <summary>What a named look says together with those it is based on.</summary>
    public static LookSettings SettingsOf(Publication publication, int? lookId) =>
        Chain(publication, lookId).Aggregate(LookSettings.Open, (settings, look) => settings.Over(look.Settings));

    /// <summary>The strongest look of a chain that says something about a part; null where none does.</summary>
    public static NamedLook? LookSaying(Publication publication, int? lookId, Setting<LookSettings> part) =>
        Chain(publication, lookId).FirstOrDefault(look => part.IsSet(look.Settings));

    public static bool WouldLoop(Publication publication, int id, int? basedOnId) => Layers.WouldLoop(id, basedOnId,
        other => publication.Looks.GetValueOrDefault(other)?.BasedOnId);

    /// <summary>The frames that have a look, or one based on it, directly or through others, in reading order of their pages.</summary>
    public static IEnumerable<Frame> Followers(Publication publication, int lookId)
    {
        var reach = publication.Looks.Keys.Where(id => Chain(publication, id).Any(look => look.Id == lookId)).ToHashSet();
        return publication.Frames.Values.Where(f => f.LookId is { } id && reach.Contains(id)).OrderBy(f => publication.Order.IndexOf(f.PageId))
            .ThenBy(f => f.Id);
    }
}
