using System.Text.Json;
using System.Text.Json.Serialization;

namespace Formatum.Web.Api;

/// <summary>Radii of corners: a length for all, or an array of up to four from the upper left on clockwise.</summary>
[JsonConverter(typeof(Converter))]
public readonly record struct Radii(Length[] All)
{
    private sealed class Converter : JsonConverter<Radii>
    {
        public override Radii Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            new(reader.TokenType == JsonTokenType.StartArray ? JsonSerializer.Deserialize<Length[]>(ref reader, options) ?? []
                : [JsonSerializer.Deserialize<Length>(ref reader, options)]);

        public override void Write(Utf8JsonWriter writer, Radii value, JsonSerializerOptions options) => JsonSerializer.Serialize(writer, value.All, options);
    }
}
