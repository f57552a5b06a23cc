using System.Text.Json;
using System.Text.Json.Serialization;
using Formatum.Web.Desk.Commands;

namespace Formatum.Web.Desk;

/// <summary>An edit as the Desk sends it.</summary>
/// <param name="Seen">The revision at which this piece of work began.</param>
/// <param name="Inside">Whether the hand is inside a picture.</param>
/// <param name="Command">What is done.</param>
/// <param name="Images">How many images the contact sheet shows.</param>
/// <param name="Range">The stretch of a text that is meant while it is typed in, as "12-40".</param>
public sealed record DeskRequest(long Seen, bool Inside, DeskCommand Command, int Images = 0, string? Range = null);

/// <summary>How the Desk and the server write to each other.</summary>
internal static class DeskJson
{
    public static readonly JsonSerializerOptions Options = Set(new(JsonSerializerDefaults.Web));

    public static JsonSerializerOptions Set(JsonSerializerOptions options)
    {
        options.NumberHandling = JsonNumberHandling.AllowReadingFromString;
        options.AllowOutOfOrderMetadataProperties = true;
        // Nothing where something has to be is refused here, once for all commands.
        options.RespectNullableAnnotations = true;
        options.Converters.Add(new JsonStringEnumConverter(namingPolicy: null, allowIntegerValues: false));
        return options;
    }
}
