using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Filling;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Hosting;

namespace Formatum.Web.Api;

/// <summary>Which pictures are poured, and how.</summary>
public sealed record PourBody : ChangeBody
{
    /// <summary>In this order; what waits in the tray where left out.</summary>
    public int[]? ImageIds { get; init; }

    /// <summary>From this page on; its spread is the layout that is copied when pouring is kept up.</summary>
    public int FromPage { get; init; } = 1;

    public PourOrder Order { get; init; }
    public bool KeepPouring { get; init; }
    public LeftoversBody Leftovers { get; init; }
}

/// <summary>A table to pour.</summary>
public sealed record RowsBody : ChangeBody
{
    public required string[] Columns { get; init; }
    public required string[][] Rows { get; init; }

    /// <summary>For each column that is meant, the name of the frames it goes into; where left out, those of the same name.</summary>
    public Dictionary<string, string>? Targets { get; init; }

    public int FromPage { get; init; } = 1;
    public int? ToPage { get; init; }

    /// <summary>Adds copies of the spread of the first page until every row has a place.</summary>
    public bool KeepPouring { get; init; }

    /// <summary>Changes nothing, and only tells what would be found.</summary>
    public bool OnlyReport { get; init; }
}

/// <summary>How many cells were placed, and what should be known; rows are counted from 1.</summary>
public sealed record RowsAnswer(int Pictures, int Texts, RowFinding[] Findings);

/// <summary>What a new edition keeps, besides layout and rules.</summary>
public sealed record EditionBody
{
    public string? Name { get; init; }
    public string? Edition { get; init; }
    public bool KeepPictures { get; init; }
    public bool KeepTexts { get; init; } = true;
}

/// <summary>What becomes of placeholders left over on pages that were added.</summary>
public enum LeftoversBody { Keep, Remove }

public sealed record PouredAnswer(int FrameId, int Page, int ImageId);

/// <summary>What went where, the images that found no place, and how many pages were added.</summary>
public sealed record PourAnswer(PouredAnswer[] Placed, int[] Left, int PagesAdded);

/// <summary>Images to put in the tray, in order.</summary>
public sealed record TrayBody(int[] ImageIds) : ChangeBody;

/// <summary>The images that wait in the tray, in order.</summary>
public sealed record TrayAnswer(int[] ImageIds);

/// <summary>The tray, and pouring.</summary>
public static class FillingEndpoints
{
    public static void Map(RouteGroupBuilder publication)
    {
        publication.MapGet("/tray", async (int id, PublicationStore store) => new TrayAnswer([.. (await store.OpenAsync(id)).Publication.Tray.ImageIds]))
            .WithSummary("The images that wait in the tray.");
        publication.MapPost("/tray", async (int id, TrayBody body, PublicationStore store, HttpContext context) =>
            new TrayAnswer([.. (context.Told(await store.EditAsync(id, new ChangeTray([.. body.ImageIds], TrayMove.Add),
                context.Seen(body.Seen)))).Standing.Publication.Tray.ImageIds])).WithSummary("Puts images in the tray, behind those that wait there.");
        publication.MapPost("/rows", PourRows).WithSummary("Pours the rows of a table into named frames: pictures by the names of their files, and words " +
            "into text frames.");
        publication.MapPost("/editions", MakeEdition).WithSummary("Makes a new edition: layout and rules are kept, placeholders emptied.");
        publication.MapPost("/pour", Pour).WithSummary("Pours images into the empty placeholders, and adds pages of the same layout if asked.");
    }

    private static async Task<IResult> MakeEdition(int id, EditionBody body, PublicationStore store)
    {
        var source = (await store.OpenAsync(id)).Publication;
        var made = await store.AddAsync(EditionMaker.Make(source, body.Name ?? source.Setup.Name, body.Edition ?? "", new(body.KeepPictures, body.KeepTexts)));
        return TypedResults.Created($"/api/publications/{made.Id}", new CreatedAnswer(made.Id));
    }

    private static async Task<RowsAnswer> PourRows(int id, RowsBody body, PublicationStore store, HeavyWork heavy, HttpContext context)
    {
        using var place = await heavy.TakeAsync(context.RequestAborted);
        var before = (await store.OpenAsync(id)).Publication;
        int width = body.Columns.Length;
        if (body.Columns.Concat(body.Rows.SelectMany(r => r ?? [null!])).Any(cell => cell is null))
            throw new EditRefused("rows", "Columns and cells are texts; give an empty one for a cell without words.");
        if (body.Rows.Any(r => r.Length != width)) throw new EditRefused("rows", $"Every row has as many cells as there are columns: {width}.");
        var table = new Table([.. body.Columns], [.. body.Rows.Select(r => r.ToImmutableArray())]);
        ImmutableArray<ColumnTarget> targets = body.Targets is { } named
            ? [.. named.Select(t => new ColumnTarget(table.Columns.IndexOf(t.Key) is >= 0 and var at ? at :
                throw new EditRefused("targets", $"There is no column {t.Key}."), t.Value))]
            : RowPlan.Guess(table, before.PageFrames);
        int from = body.FromPage, to = body.ToPage ?? before.PageCount;
        var layout = body.KeepPouring && from >= 1 && from <= before.PageCount ? Spread.At(before, Spread.IndexOfPage(before, from)).Pages.Select(p => p.Number)
            .Order().ToArray() : [];
        var edit = new PourRows { Table = table, Targets = targets, FirstPage = from, LastPage = to, LayoutPages = [.. layout] };
        var (_, places, findings) = edit.Proposal(before);
        if (!body.OnlyReport) context.Told(await store.EditAsync(id, edit, context.Seen(body.Seen)));
        return new(places.Count(p => p.ImageId is not null), places.Count(p => p.IsText), [.. findings]);
    }

    private static async Task<PourAnswer> Pour(int id, PourBody body, PublicationStore store, HeavyWork heavy, HttpContext context)
    {
        using var place = await heavy.TakeAsync(context.RequestAborted);
        var before = (await store.OpenAsync(id)).Publication;
        if (body.FromPage < 1 || body.FromPage > before.PageCount)
            throw new EditRefused("fromPage", $"There is no page {body.FromPage}; the publication has pages 1 to {before.PageCount}.");
        ImmutableArray<int> images = body.ImageIds is { } named ? [.. named] : before.Tray.ImageIds;
        var outcome = context.Told(await store.EditAsync(id, new PourImages
        {
            ImageIds = images,
            FrameIds = [.. before.Order.Ids.Skip(body.FromPage - 1).SelectMany(before.FramesOnPage).Select(f => f.Id)],
            Order = body.Order,
            LayoutPages = body.KeepPouring ? [.. Spread.At(before, Spread.IndexOfPage(before, body.FromPage)).Pages.Select(p => p.Number).Order()] : [],
            RemoveLeftovers = body.Leftovers == LeftoversBody.Remove,
        }, context.Seen(body.Seen)));
        var after = outcome.Standing.Publication;
        var meant = images.ToHashSet();
        var placed = ReadingOrder.Of(after, outcome.Changes.Items.Where(c => c.After is Frame f && f.ImageId is { } image && meant.Contains(image)
            && (c.Before as Frame)?.ImageId != image).Select(c => (Frame)c.After!));
        meant.ExceptWith(placed.Select(f => f.ImageId!.Value));
        return new([.. placed.Select(f => new PouredAnswer(f.Id, after.Order.IndexOf(f.PageId) + 1, f.ImageId!.Value))], [.. images.Where(meant.Contains)],
            after.PageCount - before.PageCount);
    }
}
