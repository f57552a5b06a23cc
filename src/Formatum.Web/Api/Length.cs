using System.Text.Json;
using System.Text.Json.Serialization;
using Formatum.Core.Geometry;

namespace Formatum.Web.Api;

/// <summary>A length in JSON: a number of points, or a text with its unit such as "84mm".</summary>
[JsonConverter(typeof(Converter))]
public readonly record struct Length(double Points)
{
    public static implicit operator double(Length length) => length.Points;

    private sealed class Converter : JsonConverter<Length>
    {
        public override Length Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
        {
            if (reader.TokenType == JsonTokenType.Number) return new(reader.GetDouble());
            if (reader.TokenType == JsonTokenType.String && Units.TryParse(reader.GetString(), LengthUnit.Point, out double points)) return new(points);
            throw new JsonException("This is not a length. Give a number of points, or a text with its unit such as \"84mm\", \"0.5in\" or \"3p6\".");
        }

        public override void Write(Utf8JsonWriter writer, Length value, JsonSerializerOptions options) => writer.WriteNumberValue(value.Points);
    }
}

/// <summary>A value that may be missing from JSON, which means something else than null.</summary>
[JsonConverter(typeof(OptionalConverterFactory))]
public readonly record struct Optional<T>(T Value, bool IsGiven)
{
    public Formatum.Core.Edits.Replacement<T>? ToReplacement() => IsGiven ? new(Value) : null;
}

internal sealed class OptionalConverterFactory : JsonConverterFactory
{
    public override bool CanConvert(Type typeToConvert) => typeToConvert.IsGenericType && typeToConvert.GetGenericTypeDefinition() == typeof(Optional<>);

    public override JsonConverter CreateConverter(Type typeToConvert, JsonSerializerOptions options) =>
        (JsonConverter)Activator.CreateInstance(typeof(Converter<>).MakeGenericType(typeToConvert.GetGenericArguments()[0]))!;

    private sealed class Converter<T> : JsonConverter<Optional<T>>
    {
        public override bool HandleNull => true;

        public override Optional<T> Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            new(JsonSerializer.Deserialize<T>(ref reader, options)!, true);

        public override void Write(Utf8JsonWriter writer, Optional<T> value, JsonSerializerOptions options) =>
            JsonSerializer.Serialize(writer, value.Value, options);
    }
}
