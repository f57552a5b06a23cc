using Formatum.Imaging;
using Formatum.Output.Bundles;
using Formatum.Output.Fonts;
using Formatum.Storage;
using Formatum.Web.Hosting;
using Formatum.Web.Pictures;
using Microsoft.AspNetCore.Http.Features;

namespace Formatum.Web.Api;

/// <summary>Publications as bundles: taken away with all they need, and taken in.</summary>
public static class BundleEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/publications/{id:int}/bundle", TakeAway)
            .WithSummary("The publication with the originals of its images, its fonts and a report, as one ZIP.")
            .Produces(StatusCodes.Status200OK, contentType: "application/zip");
        api.MapPost("/bundles", TakeIn).WithSummary("Takes a bundle in as a new publication, sent as one part named files.")
            .Accepts<IFormFile>("multipart/form-data").Produces<BundleTaken>(StatusCodes.Status201Created).DisableAntiforgery();
        api.MapGet("/bundles/schema", () => Results.Stream(BundleWriter.SchemaFile(), "application/schema+json"))
            .WithSummary("The JSON Schema of a bundle's publication.json.");
    }

    private static async Task<IResult> TakeAway(int id, PublicationStore store, PreviewStore previews, FontStore fonts, ProfileStore profiles,
        TimeProvider clock,
        HeavyWork heavy, HttpContext context)
    {
        var publication = (await store.OpenAsync(id)).Publication;
        // The ZIP library writes the few bytes behind each file only synchronously.
        if (context.Features.Get<IHttpBodyControlFeature>() is { } control) control.AllowSynchronousIO = true;
        // Sent while it is written. Where a file fails half way, the connection is broken off, so that nobody takes half a bundle for a whole one.
        var place = await heavy.TakeAsync(context.RequestAborted);
        context.Response.RegisterForDispose(place);
        return Results.Stream(output => BundleWriter.WriteAsync(publication, previews, fonts, clock.GetUtcNow(), output,
            publication.Setup.Press is { } press ? profiles.Find(press.ContentHash) : null, context.RequestAborted),
            "application/zip",
            OutputEndpoints.FileName(publication.Setup.Name) + " bundle.zip");
    }

    private static async Task<IResult> TakeIn(HttpContext context, PictureIntake pictures, BundleIntake bundles)
    {
        string? path = null;
        try
        {
            await ImportEndpoints.ReadFilesAsync(ImportEndpoints.PartsOf(context), async (name, content) =>
            {
                if (path is not null) throw new BadBundle("Send one bundle at a time.");
                (path, string? error) = await pictures.TrySaveAsync(name, content, context.RequestAborted, archive: true);
                if (path is null) throw new BadBundle(error!);
            }, context.RequestAborted);
            var taken = await bundles.TakeAsync(path!);
            return TypedResults.Created($"/api/publications/{taken.Id}", taken);
        }
        finally
        {
            if (path is not null) File.Delete(path);
        }
    }
}
