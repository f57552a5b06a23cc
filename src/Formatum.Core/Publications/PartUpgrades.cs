using System.Collections.Frozen;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Formatum.Core.Publications;

/// <summary>
/// How parts were written before, and how each becomes what it is now: one step for each version from 2 on. Parts are upgraded as they are read, wherever
/// they are kept. A step is never changed, and none is taken out.
/// </summary>
public static class PartUpgrades
{
    private static readonly FrozenDictionary<PartKind, Action<JsonObject>[]> Steps = new Dictionary<PartKind, Action<JsonObject>[]>
    {
        // 2: what a frame is filled with was called its tone.
        // 3: its text is a story of its own.
        // 4: parts of its look may be left open, as those of a plain one are.
        [PartKind.Frame] = [frame => Rename(frame["look"] as JsonObject, "tone", "background"), frame =>
        {
            if (frame.Remove("text", out var text) && text is not null) frame["storyId"] = frame["id"]!.DeepClone();
        }, frame => OpenPlain(frame["look"] as JsonObject)],
        // 2: characters of a paragraph are set in runs, and only what is not usual is set.
        [PartKind.Story] = [story => InRuns(story["text"] as JsonObject)],
    }.ToFrozenDictionary();

    /// <summary>The version in which parts of a kind are written; 1 where they never changed.</summary>
    public static int VersionOf(PartKind kind) => 1 + (Steps.GetValueOrDefault(kind)?.Length ?? 0);

    /// <summary>Makes a part of an older version one of the version of today.</summary>
    /// <exception cref="JsonException">The version is newer than this program, or none at all.</exception>
    public static JsonObject Upgrade(PartKind kind, JsonObject part, int from)
    {
        if (from < 1 || from > VersionOf(kind)) throw new JsonException($"There is no version {from} of this part. The data was written by a newer version.");
        foreach (var step in (Steps.GetValueOrDefault(kind) ?? []).Skip(from - 1)) step(part);
        return part;
    }

    /// <summary>
    /// The story that a frame of an older version held as its text; null where it held none. It bears the frame's number: stories count for themselves, so
    /// that it is the same wherever the frame is read, also in the history.
    /// </summary>
    public static JsonObject? StoryWithin(PartKind kind, JsonObject part, int from) => kind == PartKind.Frame && from < 3 && part["text"] is JsonObject text
        ? new() { ["id"] = part["id"]!.DeepClone(), ["frameIds"] = new JsonArray(part["id"]!.DeepClone()), ["text"] = text.DeepClone() } : null;

    /// <summary>What a paragraph was set in where nobody had said anything, in its version 1.</summary>
    private static readonly FrozenDictionary<string, string> Usual = new Dictionary<string, string>
    {
        ["family"] = "\"Cabin\"",
        ["bold"] = "false",
        ["italic"] = "false",
        ["size"] = "10",
        ["colour"] = "\"#000000\"",
        ["alignment"] = "\"left\"",
        ["spaceBefore"] = "0",
        ["spaceAfter"] = "0",
        ["indent"] = "0",
        ["hyphenate"] = "false",
        ["language"] = "\"en-GB\"",
    }.ToFrozenDictionary();

    private static void InRuns(JsonObject? text)
    {
        if (text?["paragraphs"] is not JsonArray paragraphs) return;
        foreach (var paragraph in paragraphs.OfType<JsonObject>())
        {
            paragraph.Remove("text", out var words);
            paragraph["runs"] = new JsonArray(new JsonObject { ["text"] = words });
            if (!paragraph.Remove("style", out var style) || style is not JsonObject set) continue;
            foreach (var (name, value) in set.ToList())
                if (value is null || Usual.GetValueOrDefault(name) == value.ToJsonString()) set.Remove(name);
            paragraph["set"] = set;
        }
    }

    private static void OpenPlain(JsonObject? look)
    {
        if (look is null) return;
        if (look["opacity"]?.GetValueKind() == JsonValueKind.Number && look["opacity"]!.GetValue<double>() == 1) look.Remove("opacity");
        foreach (var (name, value) in look.ToList())
            if (value is null) look.Remove(name);
    }

    private static void Rename(JsonObject? within, string from, string to)
    {
        if (within is null || !within.Remove(from, out var value)) return;
        within[to] = value;
    }
}
