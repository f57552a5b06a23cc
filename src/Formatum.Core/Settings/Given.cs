using System.Text.Json;
using System.Text.Json.Serialization;

namespace Formatum.Core.Settings;

/// <summary>What a setting is set to where it may also be set to nothing: a border, or that there is none. As JSON, nothing is "none".</summary>
[JsonConverter(typeof(GivenConverter))]
public readonly record struct Given<T>(T? Value) where T : class
{
    public static implicit operator Given<T>(T? value) => new(value);
}

internal sealed class GivenConverter : JsonConverterFactory
{
    public override bool CanConvert(Type typeToConvert) => typeToConvert.IsGenericType && typeToConvert.GetGenericTypeDefinition() == typeof(Given<>);

    public override JsonConverter CreateConverter(Type typeToConvert, JsonSerializerOptions options) =>
        (JsonConverter)Activator.CreateInstance(typeof(Of<>).MakeGenericType(typeToConvert.GetGenericArguments()[0]))!;

    private sealed class Of<T> : JsonConverter<Given<T>> where T : class
    {
        private const string None = "none";

        public override Given<T> Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            reader.TokenType == JsonTokenType.String && reader.ValueTextEquals(None) ? default
                : new(JsonSerializer.Deserialize<T>(ref reader, options) ?? throw new JsonException("Nothing is \"none\"."));

        public override void Write(Utf8JsonWriter writer, Given<T> value, JsonSerializerOptions options)
        {
            if (value.Value is null) writer.WriteStringValue(None);
            else JsonSerializer.Serialize(writer, value.Value, options);
        }
    }
}
