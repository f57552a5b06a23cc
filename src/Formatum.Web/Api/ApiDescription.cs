using System.Text.Json.Serialization.Metadata;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace Formatum.Web.Api;

/// <summary>The description at /openapi/v1.json, with what the generator cannot see of our own JSON shapes.</summary>
public static class ApiDescription
{
    public static void Configure(OpenApiOptions options)
    {
        options.AddDocumentTransformer((document, _, _) =>
        {
            document.Info = new()
            {
                Title = "Formatum",
                Version = "v1",
                Description = "Lengths are points, unless given as a text with its unit (\"84mm\", \"0.5in\", \"3p6\"). Angles are degrees, clockwise. " +
                "Errors are RFC 9457 problem details."
            };
            return Task.CompletedTask;
        });
        options.AddSchemaTransformer((schema, context, _) =>
        {
            Describe(schema, context.JsonTypeInfo);
            return Task.CompletedTask;
        });
    }

    private static void Describe(OpenApiSchema schema, JsonTypeInfo info)
    {
        if (info.Type == typeof(Length) || info.Type == typeof(Length?))
        {
            schema.Type = JsonSchemaType.Number | JsonSchemaType.String;
            schema.Properties = null;
            schema.Description = "Points, or a text with its unit.";
        }
        else if (info.Type == typeof(Radii))
        {
            schema.Type = JsonSchemaType.Number | JsonSchemaType.String | JsonSchemaType.Array;
            schema.Properties = null;
            schema.Description = "A length for all corners, or an array of up to four, from the upper left on clockwise.";
        }
        else if (info.Type == typeof(Optional<int?>))
        {
            schema.Type = JsonSchemaType.Integer | JsonSchemaType.Null;
            schema.Properties = null;
            schema.Description = "Null for none; leave it out to keep what is there.";
        }
    }
}
