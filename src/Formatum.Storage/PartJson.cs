using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Storage;

/// <summary>Parts and changes as JSON. What is written is described in docs/storage.md.</summary>
public static class PartJson
{
    private static readonly JsonSerializerOptions Options = new()
    {
        PropertyNamingPolicy = JsonNamingPolicy.CamelCase,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        IgnoreReadOnlyProperties = true,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase), new OutlineConverter() },
    };

    public static string Write(Part part) => JsonSerializer.Serialize(part, part.GetType(), Options);

    /// <exception cref="JsonException">The text is no such part.</exception>
    public static Part Read(PartKind kind, string json) => (Part?)JsonSerializer.Deserialize(json, TypeOf(kind), Options) ?? throw new JsonException("A part is missing.");

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
        return new([.. document.RootElement.EnumerateArray().Select(item =>
        {
            var key = new PartKey((PartKind)item.GetProperty("kind").GetInt32(), item.GetProperty("id").GetInt32());
            return new Change(key, ReadPart(item, "before", key.Kind), ReadPart(item, "after", key.Kind));
        })]);
    }

    private static void WritePart(Utf8JsonWriter writer, string name, Part? part)
    {
        if (part is null) return;
        writer.WritePropertyName(name);
        JsonSerializer.Serialize(writer, part, part.GetType(), Options);
    }

    private static Part? ReadPart(JsonElement item, string name, PartKind kind) =>
        item.TryGetProperty(name, out var part) ? (Part?)part.Deserialize(TypeOf(kind), Options) : null;

    private static Type TypeOf(PartKind kind) => kind switch
    {
        PartKind.Setup => typeof(Setup),
        PartKind.PageOrder => typeof(PageOrder),
        PartKind.Page => typeof(Page),
        PartKind.Frame => typeof(Frame),
        PartKind.Image => typeof(LinkedImage),
        PartKind.Rule => typeof(FittingRule),
        PartKind.Tray => typeof(Tray),
        _ => throw new JsonException($"There are no parts of kind {(int)kind}. The data was written by a newer version."),
    };

    private sealed class OutlineConverter : JsonConverter<Outline>
    {
        public override Outline Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
        {
            if (reader.TokenType == JsonTokenType.StartArray)
                return new PolygonOutline(JsonSerializer.Deserialize<ImmutableArray<Vec>>(ref reader, options));
            if (reader.TokenType == JsonTokenType.StartObject)
                return new PathOutline(JsonSerializer.Deserialize<ImmutableDictionary<string, ImmutableArray<PathPoint>>>(ref reader, options)!["points"]);
            return reader.GetString() switch
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
