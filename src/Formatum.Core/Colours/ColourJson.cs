using System.Text.Json;
using System.Text.Json.Serialization;

namespace Formatum.Core.Colours;

/// <summary>A colour of a kind of its own, where only that kind may stand: kept as any other colour is.</summary>
internal sealed class ColourJson<T> : JsonConverter<T> where T : Colour
{
    private static readonly ColourJson Any = new();

    public override T Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        Any.Read(ref reader, typeToConvert, options) as T ?? throw new JsonException("That is another kind of colour than belongs here.");

    public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) => Any.Write(writer, value, options);
}

/// <summary>Colours as they are kept: "#rrggbb", {"grey":0.5}, {"cmyk":[0,0.8,1,0]}, {"named":12}.</summary>
internal sealed class ColourJson : JsonConverter<Colour>
{
    public override Colour Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        if (reader.TokenType == JsonTokenType.String)
            return RgbColour.TryParse(reader.GetString(), out var rgb) ? rgb : throw new JsonException("A colour is # and six hexadecimal digits.");
        using var document = JsonDocument.ParseValue(ref reader);
        if (document.RootElement.ValueKind != JsonValueKind.Object || document.RootElement.EnumerateObject().ToList() is not [var only])
            throw new JsonException("A colour is \"#rrggbb\", {\"grey\":k}, {\"cmyk\":[c,m,y,k]} or {\"named\":id}.");
        return Of(only) ?? throw new JsonException($"\"{only.Name}\" is no kind of colour, or its value none of it.");
    }

    /// <summary>The colour that a property stands for; null where it is none.</summary>
    private static Colour? Of(JsonProperty property) => property.Name switch
    {
        "grey" when property.Value.ValueKind == JsonValueKind.Number => new GreyColour(property.Value.GetDouble()),
        "named" when property.Value.ValueKind == JsonValueKind.Number && property.Value.TryGetInt32(out int id) => new NamedColour(id),
        "cmyk" when property.Value.ValueKind == JsonValueKind.Array && property.Value.EnumerateArray().ToList() is { Count: 4 } inks
            && inks.All(i => i.ValueKind == JsonValueKind.Number) => new CmykColour(inks[0].GetDouble(), inks[1].GetDouble(), inks[2].GetDouble(),
                inks[3].GetDouble()),
        _ => null,
    };

    public override void Write(Utf8JsonWriter writer, Colour value, JsonSerializerOptions options)
    {
        if (value is RgbColour rgb)
        {
            writer.WriteStringValue(rgb.Text);
            return;
        }
        writer.WriteStartObject();
        switch (value)
        {
            case GreyColour grey: writer.WriteNumber("grey", grey.Ink); break;
            case NamedColour named: writer.WriteNumber("named", named.Id); break;
            case CmykColour c:
                writer.WriteStartArray("cmyk");
                foreach (double ink in new[] { c.Cyan, c.Magenta, c.Yellow, c.Key }) writer.WriteNumberValue(ink);
                writer.WriteEndArray();
                break;
        }
        writer.WriteEndObject();
    }
}
