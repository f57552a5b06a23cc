using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Output.Tickets;
using Formatum.Storage;
using Formatum.Web.Checking;
using Formatum.Web.Hosting;
using Formatum.Web.Outputs;

namespace Formatum.Web.Api;

/// <summary>A recipe a publication has.</summary>
public sealed record ShelvedRecipeAnswer(string Key, RecipeOwner Owner, RecipeAnswer Recipe)
{
    public static ShelvedRecipeAnswer Of(ShelvedRecipe r) => new(r.Key, r.Owner, RecipeAnswer.Of(r.Recipe));
}

/// <summary>A printer's profile.</summary>
public sealed record ProfileAnswer(string Id, string Name)
{
    public static ProfileAnswer Of(PressProfile p) => new(p.ContentHash, p.Name);
}

/// <summary>For which press a publication is made: the id of a profile, or null for four inks in general.</summary>
public sealed record PressBody(string? Profile);

/// <summary>An output to be made: by a recipe, by its key or name, and of it what is to be otherwise this time.</summary>
public sealed record OutputBody
{
    public required string Recipe { get; init; }
    public string? Pages { get; init; }

    /// <summary>Further settings, for this time alone.</summary>
    public RecipeBody? Settings { get; init; }

    public Recipe Of(Recipe recipe)
    {
        var settled = Settings?.Over(recipe) ?? recipe;
        return Pages is null ? settled : settled with { Pages = Pages };
    }
}

/// <summary>An output to be handed over.</summary>
public sealed record HandoverBody
{
    /// <summary>The name of where to: see GET /api/handover.</summary>
    public required string To { get; init; }

    public int Copies { get; init; } = 1;
    public Binding Binding { get; init; }
    public string Note { get; init; } = "";
}

/// <summary>What came of a hand-over.</summary>
public sealed record HandoverAnswer(string Id, string To, HandoverState State, string? Job, IReadOnlyList<string> Reasons, IReadOnlyList<string> Remarks,
    DateTimeOffset Begun, DateTimeOffset? Ended)
{
    public static HandoverAnswer Of(Handover h) => new(h.Id, h.To, h.State, h.Job, h.Reasons, h.Remarks, h.Begun, h.Ended);
}

/// <summary>An output: how far it is, and where its file is once it is made.</summary>
public sealed record OutputAnswer(string Id, OutputState State, string FileName, long Bytes, int Sheets, int Made, long Revision, DateTimeOffset Begun,
    DateTimeOffset? Ended, string? Error, string? File, RecipeAnswer Recipe, IReadOnlyList<HandoverAnswer> Handovers)
{
    public static OutputAnswer Of(OutputNote n) => new(n.Id, n.State, n.FileName, n.Bytes, n.Sheets, n.Made, n.Revision, n.Begun, n.Ended, n.Error,
        n.State == OutputState.Done ? $"/api/publications/{n.PublicationId}/outputs/{n.Id}/file" : null, RecipeAnswer.Of(n.Recipe),
        [.. n.Handovers.Select(HandoverAnswer.Of)]);
}

/// <summary>Recipes, outputs and printers' profiles in the automation interface.</summary>
internal static class RecipeEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        api.MapPost("/profiles", async (HttpContext context, ProfileIntake intake) =>
        {
            PressProfile? profile = null;
            await ImportEndpoints.ReadFilesAsync(ImportEndpoints.PartsOf(context), async (_, content) =>
                profile ??= await intake.TakeAsync(content, context.RequestAborted), context.RequestAborted);
            return profile is null ? throw new EditRefused("file", "No file was sent. Send the profile as a part of a form.")
                : Results.Created($"/api/profiles/{profile.ContentHash}", ProfileAnswer.Of(profile));
        }).DisableAntiforgery().Accepts<IFormFileCollection>("multipart/form-data")
            .WithSummary("Brings a printer's ICC profile in: of a press with four inks.").Produces<ProfileAnswer>(201);
        api.MapGet("/profiles", (ProfileStore profiles) => profiles.All().Select(ProfileAnswer.Of).ToArray()).WithSummary("The profiles that were brought in.");
        api.MapGet("/handover", (Handovers handovers) => handovers.Destinations.Select(d => d.Name).ToArray())
            .WithSummary("Names of print shops and systems that outputs can be handed over to.");
        var one = api.MapGroup("/publications/{id:int}");
        one.MapPut("/press", Press).WithSummary("Says for which press the publication is made.");
        one.MapGet("/recipes", async (int id, PublicationStore store, RecipeShelf shelf) =>
            (await shelf.ListAsync(await store.OpenAsync(id))).Select(ShelvedRecipeAnswer.Of).ToArray()).WithSummary("The recipes it can be made by.");
        one.MapGet("/recipes/{key}", async (int id, string key, PublicationStore store, RecipeShelf shelf) =>
            RecipeAnswer.Of((await shelf.FindAsync(await store.OpenAsync(id), key)).Recipe)).WithSummary("A recipe, to be kept as a file or taken elsewhere.");
        one.MapPost("/recipes", async (int id, RecipeBody body, PublicationStore store, HttpContext context) =>
        {
            var outcome = context.Told(await store.EditAsync(id, new DefineRecipe(body.Over(null)), context.Seen()));
            var made = (Recipe)outcome.Changes.Items.Single(c => c.Key.Kind == PartKind.Recipe).After!;
            return Results.Created($"/api/publications/{id}/recipes/own-{made.Id}", new ShelvedRecipeAnswer($"own-{made.Id}", RecipeOwner.Publication,
                RecipeAnswer.Of(made)));
        }).WithSummary("Makes a recipe of this publication.").Produces<ShelvedRecipeAnswer>(201);
        one.MapPut("/recipes/{key}", ChangeRecipe).WithSummary("Changes a recipe of this publication.");
        one.MapDelete("/recipes/{key}", async (int id, string key, PublicationStore store, RecipeShelf shelf, HttpContext context) =>
        {
            var found = await OwnAsync(store, shelf, id, key);
            context.Told(await store.EditAsync(id, new RemoveRecipe(found.Id), context.Seen()));
            return Results.NoContent();
        }).WithSummary("Removes a recipe of this publication.").Produces(204);
        MapOutputs(one);
    }

    private static void MapOutputs(RouteGroupBuilder one)
    {
        one.MapPost("/outputs", async (int id, OutputBody body, PublicationStore store, RecipeShelf shelf, OutputJobs jobs, HttpContext context) =>
        {
            var standing = await store.OpenAsync(id);
            var note = jobs.Begin(standing, body.Of((await shelf.FindAsync(standing, body.Recipe)).Recipe), context.Maker());
            return Results.Accepted($"/api/publications/{id}/outputs/{note.Id}", OutputAnswer.Of(note));
        }).WithSummary("Begins an output.").Produces<OutputAnswer>(202);
        one.MapGet("/outputs", async (int id, PublicationStore store, OutputJobs jobs) =>
        {
            await store.OpenAsync(id);
            return jobs.Of(id).Select(OutputAnswer.Of).ToArray();
        }).WithSummary("Its outputs, the newest first: under way, and made.");
        one.MapGet("/outputs/{output}", (int id, string output, OutputJobs jobs) => OutputAnswer.Of(jobs.NoteOf(id, output))).WithSummary("An output.");
        one.MapDelete("/outputs/{output}", (int id, string output, OutputJobs jobs) =>
        {
            jobs.Drop(id, output);
            return Results.NoContent();
        }).WithSummary("Stops an output, or removes one that has ended.").Produces(204);
        one.MapPost("/outputs/{output}/handovers", (int id, string output, HandoverBody body, Handovers handovers, HttpContext context) =>
            Results.Accepted($"/api/publications/{id}/outputs/{output}", OutputAnswer.Of(handovers.Begin(id, output, body.To, new(body.Copies, body.Binding,
                body.Note), context.Maker())))).WithSummary("Hands an output over, with a job ticket.").Produces<OutputAnswer>(202);
        one.MapGet("/outputs/{output}/file", (int id, string output, OutputJobs jobs) =>
        {
            var note = jobs.NoteOf(id, output);
            return Results.File(jobs.FileOf(note), OutputText.MediaType(note.FileName), note.FileName, enableRangeProcessing: true);
        }).WithSummary("The file of an output that was made.").Produces(200, contentType: "application/pdf");
        one.MapGet("/outputs/{output}/report.{kind}", (int id, string output, string kind, OutputJobs jobs) =>
        {
            var wanted = CheckEndpoints.KindOf(kind);
            var note = jobs.NoteOf(id, output);
            string file = jobs.ReportOf(note, wanted) ?? throw new NoSuchPart("output",
                "This output has no report. It was not made yet, or before there were any.");
            return Results.File(file, Reporter.TypeOf(wanted), $"{Path.GetFileNameWithoutExtension(note.FileName)} check.{kind.ToLowerInvariant()}");
        }).WithSummary("What was found on the pages of an output: html, pdf or json.").Produces(200, contentType: "application/pdf");
    }

    private static async Task<Recipe> OwnAsync(PublicationStore store, RecipeShelf shelf, int id, string key)
    {
        var found = await shelf.FindAsync(await store.OpenAsync(id), key);
        return found.Owner == RecipeOwner.Publication ? found.Recipe : throw new EditRefused("recipe",
            $"{found.Recipe.Name} is no recipe of this publication's own. Make one from it, or change it where it is kept.");
    }

    private static async Task<ShelvedRecipeAnswer> ChangeRecipe(int id, string key, RecipeBody body, PublicationStore store, RecipeShelf shelf,
        HttpContext context)
    {
        var found = await OwnAsync(store, shelf, id, key);
        var after = context.Told(await store.EditAsync(id, new DefineRecipe(body.Over(found), found.Id), context.Seen())).Standing.Publication;
        return new($"own-{found.Id}", RecipeOwner.Publication, RecipeAnswer.Of(after.Recipes[found.Id]));
    }

    private static async Task<ProfileAnswer?> Press(int id, PressBody body, PublicationStore store, ProfileStore profiles, HttpContext context)
    {
        var press = body.Profile is null ? null : profiles.All().FirstOrDefault(p => p.ContentHash == body.Profile)
            ?? throw new NoSuchPart("profile", "There is no such profile. Bring it in first: POST /api/profiles.");
        var standing = context.Told(await store.EditAsync(id, new ChoosePress(press), context.Seen())).Standing;
        return standing.Publication.Setup.Press is { } now ? ProfileAnswer.Of(now) : null;
    }
}
