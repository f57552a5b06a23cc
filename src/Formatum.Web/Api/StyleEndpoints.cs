using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Storage;
using Formatum.Web.Hosting;

namespace Formatum.Web.Api;

/// <summary>Where a style is put: on the text of frames, on a stretch of one story where that is given.</summary>
/// <param name="FrameIds">Frames of the stories.</param>
/// <param name="From">Where the stretch begins, in UTF-16 units with one for each line end between paragraphs.</param>
/// <param name="To">Where it ends.</param>
/// <param name="Clear">Whether what was set there goes.</param>
/// <param name="Seen">The revision last seen.</param>
public sealed record PutStyleBody(int[]? FrameIds, int? From = null, int? To = null, bool? Clear = null, long? Seen = null);

/// <summary>Paragraph and character styles in the automation interface.</summary>
internal static class StyleEndpoints
{
    public static void Map(RouteGroupBuilder publication)
    {
        publication.MapGet("/styles", async (int id, PublicationStore store) =>
        {
            var now = (await store.OpenAsync(id)).Publication;
            return now.Styles.Values.OrderBy(s => s.Id).Select(s => StyleAnswer.Of(now, s)).ToArray();
        }).WithSummary("The paragraph and character styles.");
        publication.MapPost("/styles", Make).WithSummary("Makes a paragraph or character style.");
        publication.MapPut("/styles/{styleId:int}", Change).WithSummary("Puts a style's settings in the place of those it had.");
        publication.MapDelete("/styles/{styleId:int}", async (int id, int styleId, PublicationStore store, HttpContext context, int? instead = null,
            bool asItLooks = false) =>
        {
            context.Told(await store.EditAsync(id, new RemoveStyle(styleId, instead, asItLooks), context.Seen()));
            return TypedResults.NoContent();
        }).WithSummary("Removes a style. What has it takes another instead, or none; and keeps its settings as its own, where asked.");
        publication.MapPost("/styles/{styleId:int}/put", Put).WithSummary("Puts a style on the text of frames, or on a stretch of it.");
    }

    private static async Task<IResult> Make(int id, StyleBody body, PublicationStore store, HttpContext context)
    {
        var outcome = context.Told(await store.EditAsync(id, body.ToEdit((await store.OpenAsync(id)).Publication, null), context.Seen(body.Seen)));
        var made = (NamedStyle)outcome.Changes.Items.Single(c => c.Key.Kind == PartKind.Style).After!;
        return TypedResults.Created($"/api/publications/{id}/styles/{made.Id}", StyleAnswer.Of(outcome.Standing.Publication, made));
    }

    private static async Task<StyleAnswer> Change(int id, int styleId, StyleBody body, PublicationStore store, HttpContext context)
    {
        var now = (await store.OpenAsync(id)).Publication;
        var outcome = context.Told(await store.EditAsync(id, body.ToEdit(now, StyleIn(now, styleId)), context.Seen(body.Seen)));
        return StyleAnswer.Of(outcome.Standing.Publication, outcome.Standing.Publication.Styles[styleId]);
    }

    private static async Task<IResult> Put(int id, int styleId, PutStyleBody body, PublicationStore store, HttpContext context)
    {
        var style = StyleIn((await store.OpenAsync(id)).Publication, styleId);
        TextRange? range = body.From is null && body.To is null ? null : new(body.From ?? 0, body.To ?? int.MaxValue);
        context.Told(await store.EditAsync(id, new PutStyle([.. body.FrameIds ?? []], styleId, style.Kind, range, body.Clear ?? false),
            context.Seen(body.Seen)));
        return TypedResults.NoContent();
    }

    private static NamedStyle StyleIn(Publication publication, int id) => publication.Styles.GetValueOrDefault(id)
        ?? throw new NoSuchPart("style", $"There is no style {id} in this publication. It may have been removed in another window.");
}
