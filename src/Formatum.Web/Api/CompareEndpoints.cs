using Formatum.Core.Checks;
using Formatum.Core.Comparing;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Checking;
using Formatum.Web.Comparing;
using Formatum.Web.Hosting;

namespace Formatum.Web.Api;

/// <summary>Something that is otherwise than before. Boxes in points from the upper left of their page's trim; pages by their numbers.</summary>
public sealed record DifferenceAnswer(DifferenceKind Kind, string Subject, string Words, int? FrameId, PlaceAnswer? Before, PlaceAnswer? After);

/// <summary>A PDF that was brought to be compared with.</summary>
/// <param name="With">What it is named by: with=...</param>
/// <param name="Name">Its file's name.</param>
/// <param name="Pages">How many pages it has.</param>
public sealed record BroughtPdfAnswer(string With, string Name, int Pages);

/// <summary>What a publication is compared with, in the automation interface.</summary>
internal static class CompareEndpoints
{
    public static void Map(RouteGroupBuilder publication)
    {
        publication.MapGet("/compare", Compare).Produces<DifferenceAnswer[]>()
            .WithSummary("What is otherwise than in another edition (with=publication-3), at a step of its history (with=step-120), or in a PDF made before "
                + "(with=output-... or with=pdf-...; as=print names the recipe it was made by).");
        publication.MapPost("/compare/pdfs", Bring).Accepts<IFormFile>("multipart/form-data").Produces<BroughtPdfAnswer>(StatusCodes.Status201Created)
            .DisableAntiforgery().WithSummary("Brings a PDF to be compared with, as a part named files. The newest ten are kept.");
        publication.MapGet("/compare/before.pdf", (int id, string with, ComparedFiles files) => Pdf(files.Find(id, with).Path)).ExcludeFromDescription();
        publication.MapGet("/compare/now.pdf", async (int id, string with, PublicationStore store, FileComparer comparer, CancellationToken cancel,
            string? @as = null) => Pdf(await comparer.NowAsync(await store.OpenAsync(id), with, @as, cancel))).ExcludeFromDescription();
    }

    private static IResult Pdf(string path) => Results.File(path, "application/pdf", enableRangeProcessing: true);

    private static async Task<object> Compare(int id, string? with, PublicationStore store, FileComparer comparer, HeavyWork heavy, CancellationToken cancel,
        string? @as = null)
    {
        var standing = await store.OpenAsync(id);
        if (ComparedFiles.IsFile(with))
            return (await comparer.CompareAsync(standing, with!, @as, cancel)).Comparison.Differences.Select(d => new DifferenceAnswer(d.Kind, d.Subject,
                WordsOf(d.Title, d.Detail), null, PlaceOf(d.Before), PlaceOf(d.After))).ToArray();
        var comparison = await heavy.RunAsync(_ => Compared.WithAsync(store, standing, with).GetAwaiter().GetResult(), cancel);
        return comparison.Differences.Select(d => new DifferenceAnswer(d.Kind, d.Subject, WordsOf(d.Title, d.Detail),
            d.Part.Kind == PartKind.Frame ? d.Part.Id : null, PlaceOf(comparison.Before, d.Before, d.Part),
            PlaceOf(comparison.After, d.After, d.Part))).ToArray();
    }

    private static async Task<IResult> Bring(int id, HttpContext context, PublicationStore store, ComparedFiles files)
    {
        await store.OpenAsync(id);
        ComparedFile? kept = null;
        await ImportEndpoints.ReadFilesAsync(ImportEndpoints.PartsOf(context), async (name, content) =>
        {
            if (kept is not null) throw new EditRefused("files", "Bring one PDF at a time.");
            kept = await files.KeepAsync(id, name, content, context.RequestAborted);
        }, context.RequestAborted);
        int pages = (await files.ReadAsync(id, kept!.Key, kept.Path, context.RequestAborted)).Count;
        return TypedResults.Created($"/api/publications/{id}/compare?with={kept.Key}", new BroughtPdfAnswer(kept.Key, kept.Name, pages));
    }

    private static string WordsOf(string title, string detail) => $"{title}. {detail}".Trim();

    private static PlaceAnswer? PlaceOf(FilePlace? place) => place is not { Box: var box } at ? null
        : new(at.Page + 1, null, box.X, box.Y, box.Width, box.Height);

    private static PlaceAnswer? PlaceOf(Publication publication, ComparedPlace? place, PartKey part) => place is not { Box: var box } at ? null
        : new(publication.NumberOf(at.PageId), part.Kind == PartKind.Frame ? part.Id : null, box.X, box.Y, box.Width, box.Height);
}
