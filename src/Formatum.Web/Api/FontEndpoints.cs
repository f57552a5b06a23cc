using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Output;
using Formatum.Storage;
using Formatum.Web.Fonts;
using Formatum.Web.Hosting;

namespace Formatum.Web.Api;

/// <summary>A font of the publication's own, and how many styles and texts name its family.</summary>
public sealed record FontAnswer(int Id, string Family, bool Bold, bool Italic, string Name, string Format, long Bytes, FontEmbedding Embedding, bool WholeOnly,
    int Styles, int Texts)
{
    public static FontAnswer[] All(Publication publication) => [.. FontUse.Of(publication).SelectMany(use => use.Faces.Select(f =>
        new FontAnswer(f.Id, f.Family, f.Bold, f.Italic, f.Name, f.Format, f.Bytes, f.Embedding, f.WholeOnly, use.Styles.Length, use.Stories.Length)))];
}

/// <summary>A font file that came in: the faces it holds, by the family they are named by here.</summary>
public sealed record ArrivedFontAnswer(string Name, string Family, string[] Faces);

/// <summary>The fonts of a publication in the automation interface, and their files for its screens.</summary>
internal static class FontEndpoints
{
    public const int MostFiles = 100;

    public static void Map(RouteGroupBuilder publication)
    {
        publication.MapGet("/fonts", async (int id, PublicationStore store) => FontAnswer.All((await store.OpenAsync(id)).Publication))
            .WithSummary("The publication's own fonts.");
        publication.MapPost("/fonts", Add).WithSummary("Adds fonts, one or many parts named files: TrueType, OpenType, WOFF or WOFF2.")
            .Accepts<IFormFileCollection>("multipart/form-data").Produces<ArrivedFontAnswer[]>(StatusCodes.Status201Created).DisableAntiforgery();
        publication.MapDelete("/fonts/{fontId:int}", async (int id, int fontId, PublicationStore store, HttpContext context, string? instead = null) =>
        {
            context.Told(await store.EditAsync(id, new RemoveFonts([fontId], instead), context.Seen()));
            return TypedResults.NoContent();
        }).WithSummary("Removes a font. What names a family of which none is left takes another instead, or leaves it to its style.");
    }

    public static void MapFiles(WebApplication app)
    {
        app.MapGet("/publications/{id:int}/fonts.css", Css).ExcludeFromDescription();
        app.MapGet("/fonts/own/{hash:length(64)}", File).ExcludeFromDescription();
    }

    private static async Task<IResult> Add(int id, HttpContext context, PublicationStore store, FontIntake fonts)
    {
        await store.OpenAsync(id);
        var arrivals = new List<FontArrival>();
        await ImportEndpoints.ReadFilesAsync(ImportEndpoints.PartsOf(context), async (name, content) =>
        {
            if (arrivals.Count == MostFiles) throw new EditRefused("files", $"Send {MostFiles} fonts at a time at most.");
            arrivals.Add(await fonts.TakeAsync(name, content, context.RequestAborted));
        }, context.RequestAborted);
        var publication = await fonts.AddAsync(id, arrivals, context.Seen());
        return TypedResults.Created($"/api/publications/{id}/fonts", arrivals.Select(a => Answer(publication, a)).ToArray());
    }

    private static object Answer(Publication publication, FontArrival arrival)
    {
        if (arrival.Error is { } error) return new NotArrivedAnswer(arrival.Name, error);
        // Of two files of one face that came together, one is kept.
        var here = arrival.Faces.Select(face => publication.Fonts.Values.FirstOrDefault(f => f.ContentHash == face.ContentHash)
            ?? publication.Fonts.Values.First(f => (f.Bold, f.Italic) == (face.Bold, face.Italic)
                && f.Family.StartsWith(face.Family, StringComparison.Ordinal))).ToList();
        return new ArrivedFontAnswer(arrival.Name, here[0].Family, [.. here.Select(f => f.Face)]);
    }

    /// <summary>The style rules of a publication's own faces. Those that go into no document are not among them: they are drawn as shapes.</summary>
    private static async Task<IResult> Css(int id, PublicationStore store, HttpContext context)
    {
        var fonts = (await store.OpenAsync(id)).Publication.Fonts.Values.Where(f => f.Embedding != FontEmbedding.Restricted).OrderBy(f => f.Id);
        context.Response.Headers.CacheControl = "no-cache";
        return Results.Text(string.Join('\n', fonts.Select(f => SvgWriter.FontFace(f.ContentHash, $"/fonts/own/{f.ContentHash}"))), "text/css");
    }

    private static IResult File(string hash, HttpContext context)
    {
        if (!hash.All(char.IsAsciiHexDigitLower) || Typefaces.All.OwnFile(hash) is not { } file) return Results.NotFound();
        context.Response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return Results.Bytes(file, "font/sfnt");
    }
}
