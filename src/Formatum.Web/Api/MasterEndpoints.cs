using System.Collections.Immutable;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Hosting;

namespace Formatum.Web.Api;

/// <summary>
/// Master pages in the automation interface. Their pages bear numbers below 0, which are given wherever a page is meant: frames are made on them, and rules
/// put on theirs.
/// </summary>
internal static class MasterEndpoints
{
    public static void Map(RouteGroupBuilder publication)
    {
        publication.MapPost("/masters", async (int id, MasterBody body, PublicationStore store, HttpContext context) =>
        {
            var outcome = context.Told(await store.EditAsync(id, new MakeMaster(body.Name ?? "", body.LikePages is { } like ? [.. like]
                : (ImmutableArray<int>?)null,
                body.BaseThem), context.Seen(body.Seen)));
            var made = (MasterPage)outcome.Changes.Items.Single(c => c.Key.Kind == PartKind.Master).After!;
            return TypedResults.Created($"/api/publications/{id}/masters/{made.Id}", MasterAnswer.Of(outcome.Standing.Publication, made));
        }).WithSummary("Makes a master page: blank, or like pages that are there.");

        publication.MapPatch("/masters/{masterId:int}", async (int id, int masterId, RenameMasterBody body, PublicationStore store, HttpContext context) =>
        {
            var now = (context.Told(await store.EditAsync(id, new RenameMaster(masterId, body.Name ?? ""), context.Seen(body.Seen)))).Standing.Publication;
            return MasterAnswer.Of(now, now.Masters[masterId]);
        }).WithSummary("Gives a master another name.");

        publication.MapDelete("/masters/{masterId:int}", async (int id, int masterId, PublicationStore store, HttpContext context, int? instead = null) =>
        {
            context.Told(await store.EditAsync(id, new RemoveMaster(masterId, instead), context.Seen()));
            return TypedResults.NoContent();
        }).WithSummary("Removes a master. Pages based on it take another instead, or none; pictures placed on them stay.");

        publication.MapPost("/pages/base", async (int id, BasePagesBody body, PublicationStore store, HttpContext context) =>
            PublicationAnswer.Of((context.Told(await store.EditAsync(id, new BasePages([.. body.Pages ?? []], body.MasterId),
                context.Seen(body.Seen)))).Standing).Pages)
            .WithSummary("Bases pages on a master, or on none.");

        publication.MapPost("/frames/{frameId:int}/follow-master", async (int id, int frameId, PublicationStore store, HttpContext context) =>
        {
            var now = (context.Told(await store.EditAsync(id, new FollowMaster([frameId]), context.Seen()))).Standing.Publication;
            return FrameAnswer.Of(now, now.Frames[frameId]);
        }).WithSummary("Lets a frame follow its master again in all that was changed on its page.");
    }
}
