using Formatum.Core.Comparing;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Checking;
using Formatum.Web.Hosting;

namespace Formatum.Web.Api;

/// <summary>Something that is otherwise than before. Boxes in points from the upper left of their page's trim; pages by their numbers.</summary>
public sealed record DifferenceAnswer(DifferenceKind Kind, string Subject, string Words, int? FrameId, PlaceAnswer? Before, PlaceAnswer? After);

/// <summary>What a publication is compared with, in the automation interface.</summary>
internal static class CompareEndpoints
{
    public static void Map(RouteGroupBuilder publication) => publication.MapGet("/compare", async (int id, string? with, PublicationStore store,
        HeavyWork heavy, CancellationToken cancel) =>
    {
        var standing = await store.OpenAsync(id);
        var comparison = await heavy.RunAsync(_ => Compared.WithAsync(store, standing, with).GetAwaiter().GetResult(), cancel);
        return comparison.Differences.Select(d => new DifferenceAnswer(d.Kind, d.Subject, $"{d.Title}. {d.Detail}".Trim(),
            d.Part.Kind == PartKind.Frame ? d.Part.Id : null, PlaceOf(comparison.Before, d.Before, d.Part), PlaceOf(comparison.After, d.After, d.Part)));
    }).WithSummary("What is otherwise than in another edition (with=publication-3) or than at a step of its history (with=step-120).");

    private static PlaceAnswer? PlaceOf(Publication publication, ComparedPlace? place, PartKey part) => place is not { Box: var box } at ? null
        : new(publication.NumberOf(at.PageId), part.Kind == PartKind.Frame ? part.Id : null, box.X, box.Y, box.Width, box.Height);
}
