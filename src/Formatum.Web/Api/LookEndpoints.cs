using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Formatum.Web.Api;

/// <summary>A named look: what it sets, how it looks with what it is based on, and how many frames have it.</summary>
public sealed record NamedLookAnswer(int Id, string Name, int? BasedOnId, string[] Sets, LookAnswer Look, int Frames)
{
    public static NamedLookAnswer Of(Publication publication, NamedLook look) => new(look.Id, look.Name, look.BasedOnId, LookAnswer.SetIn(look.Settings),
        LookAnswer.Of(publication, LookCascade.SettingsOf(publication, look.Id).Resolve()), LookCascade.Followers(publication, look.Id).Count());
}

/// <summary>A named look to make or to put in the place of one.</summary>
public sealed record NamedLookBody
{
    public required string Name { get; init; }
    public int? BasedOnId { get; init; }

    /// <summary>How it looks. What is left out is left open, unless <see cref="Sets"/> names it.</summary>
    public LookBody? Look { get; init; }

    /// <summary>The parts it sets, also to nothing: "border", "corners", "background", "opacity", "shadow", "treatment".</summary>
    public string[]? Sets { get; init; }

    public DefineLook ToEdit(Publication publication, int? lookId)
    {
        if (Sets?.FirstOrDefault(s => !LookSettings.All.Any(p => p.Path == s)) is { } unknown)
            throw new EditRefused("sets", $"A look has no part \"{unknown}\". It has {string.Join(", ", LookSettings.All.Select(p => p.Path))}.");
        var look = Look?.ToLook(publication) ?? Core.Publications.Look.Plain;
        LookSettings said = look;
        return new()
        {
            LookId = lookId,
            Name = Name,
            BasedOnId = BasedOnId,
            Settings = Sets is null ? said : LookSettings.Whole(look).Kept(s => Sets.Contains(s.Path)),
        };
    }
}

/// <summary>The frames that take a look.</summary>
public sealed record PutLookBody
{
    public required int[] FrameIds { get; init; }

    /// <summary>Whether what is set on the frames themselves goes.</summary>
    public bool Clear { get; init; }
}

/// <summary>Named looks in the automation interface.</summary>
internal static class LookEndpoints
{
    public static void Map(RouteGroupBuilder publication)
    {
        publication.MapGet("/looks", async (int id, PublicationStore store) => All((await store.OpenAsync(id)).Publication))
            .WithSummary("The named looks of the publication.");
        publication.MapPost("/looks", MakeAsync).WithSummary("Makes a named look.");
        publication.MapPut("/looks/{lookId:int}", async (int id, int lookId, NamedLookBody body, PublicationStore store, HttpContext context) =>
        {
            var edit = body.ToEdit((await store.OpenAsync(id)).Publication, lookId);
            var after = context.Told(await store.EditAsync(id, edit, context.Seen())).Standing.Publication;
            return NamedLookAnswer.Of(after, after.Looks[lookId]);
        }).WithSummary("Puts another look in the place of one: every frame that has it follows.");
        publication.MapPost("/looks/{lookId:int}/put", async (int id, int lookId, PutLookBody body, PublicationStore store, HttpContext context) =>
        {
            context.Told(await store.EditAsync(id, new PutLook([.. body.FrameIds], lookId, body.Clear), context.Seen()));
            return TypedResults.NoContent();
        }).WithSummary("Gives frames a named look.");
        publication.MapDelete("/looks/{lookId:int}", async (int id, int lookId, PublicationStore store, HttpContext context, int? instead = null,
            bool keep = false) =>
        {
            context.Told(await store.EditAsync(id, new RemoveLook(lookId, instead, keep), context.Seen()));
            return TypedResults.NoContent();
        }).WithSummary("Removes a look. Frames that have it take another instead, or keep what it said as their own.");
    }

    private static NamedLookAnswer[] All(Publication publication) => [.. publication.Looks.Values.OrderBy(l => l.Id).Select(l =>
        NamedLookAnswer.Of(publication, l))];

    private static async Task<Created<NamedLookAnswer>> MakeAsync(int id, NamedLookBody body, PublicationStore store, HttpContext context)
    {
        var outcome = context.Told(await store.EditAsync(id, body.ToEdit((await store.OpenAsync(id)).Publication, null), context.Seen()));
        var made = (NamedLook)outcome.Changes.Items.Single(c => c.Key.Kind == PartKind.Look).After!;
        return TypedResults.Created($"/api/publications/{id}/looks/{made.Id}", NamedLookAnswer.Of(outcome.Standing.Publication, made));
    }
}
