using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Imaging;
using Formatum.Storage;
using Formatum.Web.Hosting;
using Formatum.Web.Pictures;

namespace Formatum.Web.Api;

/// <summary>The automation interface, described at /openapi/v1.json.</summary>
public static class ApiEndpoints
{
    public static void Map(WebApplication app)
    {
        app.MapGet("/health", () => Results.Text("ok")).ExcludeFromDescription();
        app.MapGet("/health/live", () => Results.Text("ok")).ExcludeFromDescription();
        app.MapGet("/health/ready", Readiness).ExcludeFromDescription();
        var api = app.MapGroup("/api").WithTags("Formatum");
        api.MapPost("/fit", Fit).WithSummary("Fits an image into a frame. Pure computation.");

        MapPublications(api);
        MapImages(api);
        MapFrames(api);
        MapPages(api.MapGroup("/publications/{id:int}/pages"));
        RuleEndpoints.Map(api.MapGroup("/publications/{id:int}"));
        StoryEndpoints.Map(api.MapGroup("/publications/{id:int}"));
        StyleEndpoints.Map(api.MapGroup("/publications/{id:int}"));
        FontEndpoints.Map(api.MapGroup("/publications/{id:int}"));
        HouseEndpoints.Map(api);
        LookEndpoints.Map(api.MapGroup("/publications/{id:int}"));
        PaletteEndpoints.Map(api.MapGroup("/publications/{id:int}"));
        ImportEndpoints.Map(api.MapGroup("/publications/{id:int}"));
        FillingEndpoints.Map(api.MapGroup("/publications/{id:int}"));
        MasterEndpoints.Map(api.MapGroup("/publications/{id:int}"));
        RecipeEndpoints.Map(api);
        PressEndpoints.Map(api.MapGroup("/publications/{id:int}"));
        CompareEndpoints.Map(api.MapGroup("/publications/{id:int}"));
        CheckEndpoints.Map(api.MapGroup("/publications/{id:int}"));
        BundleEndpoints.Map(api);
    }

    private static void MapPublications(RouteGroupBuilder api)
    {
        api.MapGet("/publications", async (PublicationStore store) =>
            (await store.ListAsync()).Select(p => new ListedAnswer(p.Id, p.Name, p.Changed, p.PutAway, p.IsLibrary)).ToArray())
                .WithSummary("All publications, those put away from the shelf and the house library too.");
        api.MapPost("/publications/{id:int}/put-away", async (int id, PublicationStore store) =>
        {
            await store.PutAwayAsync(id, true);
            return TypedResults.NoContent();
        }).WithSummary("Puts a publication away from the shelf. Nothing of it is lost.");
        api.MapPost("/publications/{id:int}/bring-back", async (int id, PublicationStore store) =>
        {
            await store.PutAwayAsync(id, false);
            return TypedResults.NoContent();
        }).WithSummary("Brings a publication back to the shelf.");
        api.MapPost("/publications", Create).WithSummary("Makes a publication.");
        api.MapGet("/publications/{id:int}", async (int id, PublicationStore store, HttpContext context) =>
            PublicationAnswer.Of(context.Told(await store.OpenAsync(id))))
            .WithSummary("A whole publication.");
        api.MapPost("/publications/{id:int}/undo", async (int id, PublicationStore store,
            HttpContext context) => new WordsAnswer((context.Told(await store.UndoAsync(id, context.Seen()))).Words))
            .WithSummary("Takes back the last edit of whoever asks.");
        api.MapPost("/publications/{id:int}/redo", async (int id, PublicationStore store,
            HttpContext context) => new WordsAnswer((context.Told(await store.RedoAsync(id, context.Seen()))).Words))
            .WithSummary("Does again what whoever asks took back last.");
    }

    /// <summary>Whether work can be done here now; 503 and why where it cannot.</summary>
    private static async Task<IResult> Readiness(PublicationStore store, ServerOptions options, DiskRoom room)
    {
        try
        {
            await store.ListAsync();
            string probe = Path.Combine(options.DataFolder, "ready.probe");
            await File.WriteAllTextAsync(probe, "ready");
            File.Delete(probe);
            return room.Lacks(0) is { } full ? NotReady(full.Message) : Results.Text("ok");
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException or System.Data.Common.DbException)
        {
            return NotReady(e.Message);
        }

        static IResult NotReady(string why) => Results.Text($"not ready: {why}", statusCode: StatusCodes.Status503ServiceUnavailable);
    }

    private static void MapImages(RouteGroupBuilder api)
    {
        api.MapPost("/publications/{id:int}/images", BringIn).WithSummary("Brings in pictures, one or many parts named files.")
            .Accepts<IFormFileCollection>("multipart/form-data").Produces<ArrivedAnswer[]>(StatusCodes.Status201Created).DisableAntiforgery();
        api.MapPost("/publications/{id:int}/images/folder", LinkFolder).WithSummary("Links the pictures of a folder on the server where they are.");
        api.MapDelete("/publications/{id:int}/images/{imageId:int}", async (int id, int imageId, PublicationStore store, HttpContext context) =>
        {
            context.Told(await store.EditAsync(id, new UnlinkImages([imageId]), context.Seen()));
            return TypedResults.NoContent();
        }).WithSummary("Removes an image that no frame shows.");

        api.MapPatch("/publications/{id:int}/images/{imageId:int}",
            SetSubject).WithSummary("Sets an image's subject point; every frame that shows it follows.");

        api.MapGet("/publications/{id:int}/images/{imageId:int}/original", async (int id, int imageId, PublicationStore store) =>
        {
            var image = (await store.OpenAsync(id)).Publication.Images.GetValueOrDefault(imageId) ??
                throw new EditRefused("imageId", $"There is no image {imageId} in this publication.");
            if (!PictureFile.IsThere(image.Path))
                throw new BadPicture($"{image.Name} is no longer where it was linked. Find it in another folder, or put it back.");
            return Results.File(image.Path, "application/octet-stream", image.Name);
        }).WithSummary("The linked file as it is.");
    }

    private static void MapFrames(RouteGroupBuilder api)
    {
        api.MapPost("/publications/{id:int}/frames", MakeFrame).WithSummary("Makes a frame.");
        api.MapPatch("/publications/{id:int}/frames/{frameId:int}", ChangeFrame).WithSummary("Changes a frame; what is left out stays.");
        api.MapDelete("/publications/{id:int}/frames/{frameId:int}", async (int id, int frameId, PublicationStore store, HttpContext context) =>
        {
            context.Told(await store.EditAsync(id, new RemoveFrames([frameId]), context.Seen()));
            return TypedResults.NoContent();
        }).WithSummary("Removes a frame. Its image stays in the publication.");
    }

    private static void MapPages(RouteGroupBuilder pages)
    {
        pages.MapPost("", async (int id, NewPagesBody body, PublicationStore store, HttpContext context) =>
            await PagesAsync(id, store, context, body.Seen, p => new AddPages(body.Before ?? p.PageCount + 1, body.Count, body.MasterId)))
                .WithSummary("Adds pages: blank ones, or based on a master.");
        pages.MapPost("/move", async (int id, PagesBody body, PublicationStore store, HttpContext context) =>
            await PagesAsync(id, store, context, body.Seen, p => new MovePages([.. body.Pages], body.Before ?? p.PageCount + 1)))
                .WithSummary("Moves pages; their frames keep to them.");
        pages.MapPost("/duplicate", async (int id, PagesBody body, PublicationStore store, HttpContext context) =>
            await PagesAsync(id, store, context, body.Seen, p => new DuplicatePages([.. body.Pages], body.Before ?? p.PageCount + 1)))
                .WithSummary("Copies pages with all their frames.");
        pages.MapPost("/remove", async (int id, PagesBody body, PublicationStore store, HttpContext context) =>
            await PagesAsync(id, store, context, body.Seen, _ => new RemovePages([.. body.Pages]))).WithSummary("Removes pages with all that is on them.");
    }

    private static PlacementAnswer Fit(FitRequest request)
    {
        var (frame, image) = (request.Frame, request.Image);
        double ppi = image.Ppi ?? 72;
        var errors = new FieldErrors();
        var subject = Pair.From(image.Subject, "image.subject", "a point of the image as two fractions, such as [0.5, 0.4]");
        var recrop = request.Recrop?.ToRecrop() ?? Recrop.None;
        var settings = request.Rule?.ToSettings("rule.") ?? FitSettings.Open;
        FitRequestCheck.Check(frame.Width, frame.Height, image.WidthPx, image.HeightPx, ppi, image.Orientation ?? 1, subject, recrop, errors);
        FitSettingsCheck.Check(settings, errors, "rule.");
        if (frame.Outline is OutlineName.Polygon or OutlineName.Free) errors.Add("frame.outline", "Give rectangle or ellipse.");
        errors.ThrowIfAny();
        var picture = Picture.FromStored(image.WidthPx, image.HeightPx, ppi, ppi, image.Orientation ?? 1);
        return PlacementAnswer.Of(Fitted.Of(frame.Width, frame.Height, OutlineOf(frame.Outline) ?? Outline.Rectangle, picture, settings.Resolve(), subject,
            recrop));
    }

    private static async Task<IResult> Create(PublicationBody body, PublicationStore store)
    {
        var created = await store.CreateAsync(body.ToSetup(), body.Pages ?? 1, body.HouseFrom);
        return TypedResults.Created($"/api/publications/{created.Id}", new CreatedAnswer(created.Id));
    }

    private static async Task<IResult> MakeFrame(int id, NewFrameBody body, PublicationStore store, HttpContext context)
    {
        var now = (await store.OpenAsync(id)).Publication;
        var outcome = context.Told(await store.EditAsync(id, new MakeFrame
        {
            Page = body.Page,
            Box = new(body.X, body.Y, body.Width, body.Height),
            Outline = OutlineOf(body.Outline, body.Sides) ?? Outline.Rectangle,
            Angle = body.Angle ?? 0,
            Name = body.Name ?? "",
            RuleId = body.RuleId,
            ImageId = body.ImageId,
            Text = body.Text?.ToText(now) ?? (body.Kind == FrameKind.Text ? FrameText.Empty(TextStyle.Usual) : null),
            Area = body.Columns?.ToChange().On(null),
            Wrap = body.Wrap?.ToChange().On(Wrap.Off, Wrap.Off),
            Own = body.Set?.ToSettings("set.") ?? FitSettings.Open,
            Look = body.Look?.ToLook(now) ?? Look.Plain,
            LookId = body.LookId,
        }, context.Seen(body.Seen)));
        var frame = (Frame)outcome.Changes.Items.First(c => c.Key.Kind == PartKind.Frame).After!;
        return TypedResults.Created($"/api/publications/{id}/frames/{frame.Id}", FrameAnswer.Of(outcome.Standing.Publication, frame));
    }

    private static async Task<FrameAnswer> ChangeFrame(int id, int frameId, FrameChangeBody body, PublicationStore store, HttpContext context)
    {
        var now = (await store.OpenAsync(id)).Publication;
        var outcome = context.Told(await store.EditAsync(id, new ChangeFrames
        {
            FrameIds = [frameId],
            Page = body.Page,
            X = body.X?.Points,
            Y = body.Y?.Points,
            Width = body.Width?.Points,
            Height = body.Height?.Points,
            Outline = OutlineOf(body.Outline, body.Sides),
            Angle = body.Angle,
            Area = body.Columns?.ToChange(),
            Wrap = body.Wrap?.ToChange(),
            Locked = body.Locked,
            Hidden = body.Hidden,
            Name = body.Name,
            RuleId = body.RuleId.ToReplacement(),
            ImageId = body.ImageId.ToReplacement(),
            Text = body.Text?.ToText(now),
            Look = body.Look?.ToLook(now),
            LookId = body.LookId.ToReplacement(),
            Set = body.Set?.ToSettings("set."),
            ClearSet = body.ClearSet ?? false,
            Clear = [.. body.Clear ?? []],
            FitOnce = body.FitOnce ?? false,
            Recrop = body.Recrop?.ToRecrop(),
        }, context.Seen(body.Seen)));
        var publication = outcome.Standing.Publication;
        return FrameAnswer.Of(publication, publication.Frames[frameId]);
    }

    private static async Task<PageAnswer[]> PagesAsync(int id, PublicationStore store, HttpContext context, long? seen, Func<Publication, Edit> edit)
    {
        var before = (await store.OpenAsync(id)).Publication;
        return PublicationAnswer.Of((context.Told(await store.EditAsync(id, edit(before), context.Seen(seen)))).Standing).Pages;
    }

    private static async Task<ImageAnswer> SetSubject(int id, int imageId, SubjectBody body, PublicationStore store, HttpContext context)
    {
        var subject = Pair.From(body.Subject, "subject", "a point of the image as two fractions, such as [0.5, 0.4]");
        var outcome = context.Told(await store.EditAsync(id, new ChangeSubjects([new(imageId, subject, null)]), context.Seen(body.Seen)));
        return ImageAnswer.Of(outcome.Standing.Publication.Images[imageId]);
    }

    private static async Task<IResult> BringIn(int id, HttpContext context, PublicationStore store, PictureIntake intake)
    {
        await store.OpenAsync(id);
        var parts = ImportEndpoints.PartsOf(context);
        var batch = intake.Begin();
        await ImportEndpoints.ReadFilesAsync(parts, (name, content) => batch.AddUploadAsync(name, content, context.RequestAborted), context.RequestAborted);
        return TypedResults.Created($"/api/publications/{id}", NotArrivedAnswer.All(await batch.LinkAsync(id, context.Maker())));
    }

    private static async Task<IResult> LinkFolder(int id, FolderBody body, PublicationStore store, PictureIntake intake, HttpContext context,
        CancellationToken cancel)
    {
        await store.OpenAsync(id);
        var batch = intake.Begin();
        var files = intake.FilesIn(body.Folder ?? "", body.Within ?? false);
        if (files.Count == 0) throw new EditRefused("folder", "There are no files in this folder.");
        foreach (string file in files) await batch.AddLinkAsync(file, Path.GetFileName(file), cancel);
        return TypedResults.Created($"/api/publications/{id}", NotArrivedAnswer.All(await batch.LinkAsync(id, context.Maker())));
    }

    private static Outline? OutlineOf(OutlineName? name, int? sides = null) => name switch
    {
        null => null,
        OutlineName.Ellipse => Outline.Ellipse,
        OutlineName.Rectangle => Outline.Rectangle,
        OutlineName.Polygon when (sides ?? 6) is >= Outlines.FewestSides and <= Outlines.MostSides => Outlines.Polygon(sides ?? 6),
        OutlineName.Polygon => throw new EditRefused("sides", $"A polygon has {Outlines.FewestSides} to {Outlines.MostSides} sides here."),
        _ => throw new EditRefused("outline", "Give rectangle, ellipse or polygon; free outlines are drawn on the Desk."),
    };
}

public sealed record WordsAnswer(string Done);
