using System.Text.Json;
using System.Text.Json.Serialization;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Publications;

namespace Formatum.Web.Api;

/// <summary>A colour in a request: "#rrggbb", {"grey":k}, {"cmyk":[c,m,y,k]}, or the name of one of the palette.</summary>
[JsonConverter(typeof(Converter))]
public sealed record ColourBody(Colour? Figures, string? Name)
{
    /// <exception cref="EditRefused">There is no such colour in the palette.</exception>
    public Colour In(Publication publication, string field = "colour")
    {
        if (Figures is { } figures) return figures;
        return publication.Colours.Values.FirstOrDefault(c => string.Equals(c.Name, Name, StringComparison.OrdinalIgnoreCase)) is { } named
            ? new NamedColour(named.Id) : throw new EditRefused(field,
                $"There is no colour \u201c{Name}\u201d in the palette. Give one of its names, \"#rrggbb\", " +
                "{\"cmyk\":[c,m,y,k]} or {\"grey\":k}.");
    }

    /// <summary>The colour as the interface says it: one of the palette by its name.</summary>
    public static object Answer(Publication publication, Colour colour) => colour switch
    {
        NamedColour named => publication.Colours.GetValueOrDefault(named.Id)?.Name ?? publication.ColourOf(named).Hex,
        GreyColour grey => new { Grey = grey.Ink },
        CmykColour c => new { Cmyk = new[] { c.Cyan, c.Magenta, c.Yellow, c.Key } },
        _ => colour.Hex,
    };

    private sealed class Converter : JsonConverter<ColourBody>
    {
        public override ColourBody Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
        {
            if (reader.TokenType == JsonTokenType.String)
                return reader.GetString() is var text && RgbColour.TryParse(text, out var rgb) ? new(rgb, null) : new(null, text);
            var colour = JsonSerializer.Deserialize<Colour>(ref reader, options);
            return colour is null or NamedColour ? throw new JsonException("Name a colour of the palette by its name.") : new(colour, null);
        }

        public override void Write(Utf8JsonWriter writer, ColourBody value, JsonSerializerOptions options) =>
            JsonSerializer.Serialize(writer, (object?)value.Name ?? value.Figures, options);
    }
}
