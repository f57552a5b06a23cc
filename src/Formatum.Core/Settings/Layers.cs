namespace Formatum.Core.Settings;

/// <summary>Settings laid over others: what one leaves open is taken from the next beneath.</summary>
public static class Layers
{
    /// <summary>The longest chain of things based on each other; a longer one would have to loop or serve nobody.</summary>
    public const int LongestChain = 50;

    /// <summary>The stronger settings, with what they leave open taken from the weaker.</summary>
    public static T Over<T>(IReadOnlyList<Setting<T>> all, T stronger, T weaker)
    {
        foreach (var setting in all)
            if (!setting.IsSet(stronger) && setting.IsSet(weaker)) stronger = setting.Taken(stronger, weaker);
        return stronger;
    }

    /// <summary>The settings with all left open that are not to be kept.</summary>
    public static T Kept<T>(IReadOnlyList<Setting<T>> all, T settings, Func<Setting<T>, bool> keep)
    {
        foreach (var setting in all)
            if (setting.IsSet(settings) && !keep(setting)) settings = setting.Opened(settings);
        return settings;
    }

    /// <summary>A part and those it is based on, strongest first; it ends where one is not there, or the chain grows too long.</summary>
    /// <param name="id">The first; null for none.</param>
    /// <param name="find">The part of an id; null where there is none.</param>
    /// <param name="basedOn">What a part is based on; null for nothing.</param>
    public static IEnumerable<T> Chain<T>(int? id, Func<int, T?> find, Func<T, int?> basedOn) where T : class
    {
        for (int length = 0; id is { } next && find(next) is { } part && length < LongestChain; length++)
        {
            yield return part;
            id = basedOn(part);
        }
    }

    /// <summary>Whether basing a part on another would make a chain that comes back to itself, or has no end.</summary>
    /// <param name="id">The part.</param>
    /// <param name="basedOnId">What it would be based on; null for nothing.</param>
    /// <param name="basedOn">What the part of an id is based on; null for nothing.</param>
    public static bool WouldLoop(int id, int? basedOnId, Func<int, int?> basedOn)
    {
        for (int length = 0; basedOnId is { } next && length < LongestChain; length++)
        {
            if (next == id) return true;
            basedOnId = basedOn(next);
        }
        return basedOnId is not null;
    }
}
