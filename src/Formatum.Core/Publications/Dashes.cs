using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Serialization;
using Formatum.Core.Checks;

namespace Formatum.Core.Publications;

/// <summary>Lengths of dashes and of the gaps after them, in turn, in points.</summary>
[JsonConverter(typeof(AsArray))]
public sealed record Dashes(ImmutableArray<double> Lengths)
{
    public const int Most = 8;

    /// <summary>A pattern that comes back sooner, in points, is no pattern to see, and has no end to draw.</summary>
    private const double ShortestPeriod = 0.1;

    public void Check(FieldErrors errors)
    {
        if (Lengths.Length is 0 or > Most || !Lengths.All(l => l is >= 0 and <= Border.Longest) || Lengths.Sum() < ShortestPeriod)
            errors.Add("look.border.dashes", $"Dashes and gaps are 1 to {Most} lengths from 0 to {Border.Longest} points, not all 0. Type them in turn: 6 3.");
    }

    public bool Equals(Dashes? other) => other is not null && Lengths.AsSpan().SequenceEqual(other.Lengths.AsSpan());

    public override int GetHashCode() => Lengths.Aggregate(Lengths.Length, HashCode.Combine);

    private sealed class AsArray : JsonConverter<Dashes>
    {
        public override Dashes Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            new([.. JsonSerializer.Deserialize<double[]>(ref reader, options) ?? []]);

        public override void Write(Utf8JsonWriter writer, Dashes value, JsonSerializerOptions options) =>
            JsonSerializer.Serialize(writer, value.Lengths.ToArray(), options);
    }
}
