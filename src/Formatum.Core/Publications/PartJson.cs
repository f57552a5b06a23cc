using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Formatum.Core.Geometry;

namespace Formatum.Core.Publications;

/// <summary>Parts and changes as JSON. What is written is described in docs/storage.md.</summary>
public static class PartJson
{
    private static readonly JsonSerializerOptions Options = Make(strict: false);

    /// <summary>For what comes from outside: nothing unknown, nothing twice, no numbers for words, no null where there has to be something.</summary>
    private static readonly JsonSerializerOptions Strict = Make(strict: true);

    private static JsonSerializerOptions Make(bool strict) => new()
    {
        PropertyNamingPolicy = JsonNamingPolicy.CamelCase,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        IgnoreReadOnlyProperties = true,
        // What this program does not know would be lost with the next edit.
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        AllowDuplicateProperties = !strict,
        RespectNullableAnnotations = strict,
        RespectRequiredConstructorParameters = strict,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: !strict), new OutlineConverter() },
        TypeInfoResolver = strict ? new DefaultJsonTypeInfoResolver() : new DefaultJsonTypeInfoResolver { Modifiers = { Versioned } },
    };

    private const string Version = "version";

    /// <summary>What has changed since its first version says first of all which it is.</summary>
    private static void Versioned(JsonTypeInfo type)
    {
        if (PartKinds.All.FirstOrDefault(k => k.Type == type.Type) is not { } kind || PartUpgrades.VersionOf(kind.Kind) is not (> 1 and var version)) return;
        var property = type.CreateJsonPropertyInfo(typeof(int), Version);
        property.Get = _ => version;
        property.Order = -1;
        type.Properties.Insert(0, property);
    }

    /// <summary>The part as a JSON object, without its version: whoever keeps it says of which version all is.</summary>
    public static JsonObject ToObject(Part part)
    {
        var written = JsonSerializer.SerializeToNode(part, part.GetType(), Options)!.AsObject();
        written.Remove(Version);
        return written;
    }

    /// <summary>Reads a part that comes from outside. What its values may be is left to <see cref="Edits.PublicationCheck"/>.</summary>
    /// <exception cref="JsonException">The object is no such part, or has something no such part has.</exception>
    public static T FromOutside<T>(JsonNode? node) where T : Part => node.Deserialize<T>(Strict) ?? throw new JsonException("A part is missing.");

    public static string Write(Part part) => JsonSerializer.Serialize(part, part.GetType(), Options);

    /// <summary>Reads a part as it is kept. One of an older version may have become two.</summary>
    /// <exception cref="JsonException">The text is no such part.</exception>
    public static IEnumerable<Part> Read(PartKind kind, string json)
    {
        var type = PartKinds.Of(kind).Type;
        int version = PartUpgrades.VersionOf(kind);
        if (version == 1 || json.StartsWith($"{{\"{Version}\":{version},", StringComparison.Ordinal))
            return [(Part?)JsonSerializer.Deserialize(json, type, Options) ?? throw new JsonException("A part is missing.")];
        using var document = JsonDocument.Parse(json);
        return Read(kind, document.RootElement);
    }

    /// <summary>Reads a part of a kind that never was two.</summary>
    /// <exception cref="JsonException">The text is no such part.</exception>
    public static T Read<T>(PartKind kind, string json) where T : Part => (T)Read(kind, json).Single();

    private static List<Part> Read(PartKind kind, JsonElement part)
    {
        if (part.ValueKind != JsonValueKind.Object) throw new JsonException("A part is not an object.");
        int version = PartUpgrades.VersionOf(kind), from = part.TryGetProperty(Version, out var given) && version > 1 ? given.GetInt32() : 1;
        if (from == version) return [(Part)part.Deserialize(PartKinds.Of(kind).Type, Options)!];
        var old = JsonObject.Create(part)!;
        old.Remove(Version);
        var read = new List<Part>();
        if (PartUpgrades.StoryWithin(kind, old, from) is { } story)
            read.Add(PartUpgrades.Upgrade(PartKind.Story, story, 1).Deserialize<Story>(Options)!);
        read.Insert(0, (Part)PartUpgrades.Upgrade(kind, old, from).Deserialize(PartKinds.Of(kind).Type, Options)!);
        return read;
    }

    public static string Write(Changes changes)
    {
        using var stream = new MemoryStream();
        using (var writer = new Utf8JsonWriter(stream))
        {
            writer.WriteStartArray();
            foreach (var (key, before, after) in changes.Items)
            {
                writer.WriteStartObject();
                writer.WriteNumber("kind", (int)key.Kind);
                writer.WriteNumber("id", key.Id);
                WritePart(writer, "before", before);
                WritePart(writer, "after", after);
                writer.WriteEndObject();
            }
            writer.WriteEndArray();
        }
        return Encoding.UTF8.GetString(stream.GetBuffer().AsSpan(0, (int)stream.Length));
    }

    public static Changes ReadChanges(string json)
    {
        using var document = JsonDocument.Parse(json);
        return new([.. document.RootElement.EnumerateArray().SelectMany(item =>
        {
            var key = new PartKey((PartKind)item.GetProperty("kind").GetInt32(), item.GetProperty("id").GetInt32());
            List<Part> before = ReadPart(item, "before", key.Kind), after = ReadPart(item, "after", key.Kind);
            return before.Concat(after).Select(p => p.Key).Append(key).Distinct()
                .Select(k => new Change(k, before.Find(p => p.Key == k), after.Find(p => p.Key == k)));
        })]);
    }

    private static void WritePart(Utf8JsonWriter writer, string name, Part? part)
    {
        if (part is null) return;
        writer.WritePropertyName(name);
        JsonSerializer.Serialize(writer, part, part.GetType(), Options);
    }

    private static List<Part> ReadPart(JsonElement item, string name, PartKind kind) => item.TryGetProperty(name, out var part) ? Read(kind, part) : [];

    private sealed class OutlineConverter : JsonConverter<Outline>
    {
        public override Outline Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
        {
            if (reader.TokenType == JsonTokenType.StartArray)
                return new PolygonOutline(JsonSerializer.Deserialize<ImmutableArray<Vec>>(ref reader, options));
            if (reader.TokenType == JsonTokenType.StartObject)
                return JsonSerializer.Deserialize<Dictionary<string, ImmutableArray<PathPoint>>>(ref reader, options) is { Count: 1 } path
                    && path.TryGetValue("points", out var points) && !points.IsDefault
                    ? new PathOutline(points) : throw new JsonException("A free outline has points, and nothing else.");
            return (reader.TokenType == JsonTokenType.String ? reader.GetString() : null) switch
            {
                "rectangle" => Outline.Rectangle,
                "ellipse" => Outline.Ellipse,
                var other => throw new JsonException($"There is no outline \"{other}\"."),
            };
        }

        public override void Write(Utf8JsonWriter writer, Outline value, JsonSerializerOptions options)
        {
            if (value is PolygonOutline polygon) JsonSerializer.Serialize(writer, polygon.Corners, options);
            else if (value is PathOutline path)
            {
                writer.WriteStartObject();
                writer.WritePropertyName("points");
                JsonSerializer.Serialize(writer, path.Points, options);
                writer.WriteEndObject();
            }
            else writer.WriteStringValue(value is EllipseOutline ? "ellipse" : "rectangle");
        }
    }
}
