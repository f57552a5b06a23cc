using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Hosting;

namespace Formatum.Web.Api;

/// <summary>The kinds of parts of a house style.</summary>
public enum HouseKind { Rule, Look, Style, Colour, Master }

/// <summary>A part to take over.</summary>
public sealed record TakenPartBody
{
    public required HouseKind Kind { get; init; }

    /// <summary>Its id in the publication it comes from.</summary>
    public required int Id { get; init; }

    /// <summary>What becomes of it where one of its kind and name is here already.</summary>
    public Namesake Namesake { get; init; } = Namesake.Kept;
}

/// <summary>House style to take over.</summary>
public sealed record TakeHouseBody
{
    /// <summary>The publication it comes from.</summary>
    public required int From { get; init; }

    /// <summary>What is taken; everything where left out.</summary>
    public TakenPartBody[]? Parts { get; init; }

    /// <summary>For everything: what becomes of what has a namesake here.</summary>
    public Namesake Namesake { get; init; } = Namesake.Kept;

    public TakeHouseStyle ToEdit(Publication source)
    {
        if (Parts is null) return TakeHouseStyle.All(source, Namesake);
        if (Parts.Any(p => p is null)) throw new EditRefused("parts", "A part to take over has a kind and an id.");
        return new(source, [.. Parts.Select(p => new TakenPart(new(KindOf(p.Kind), p.Id), p.Namesake))]);
    }

    private static PartKind KindOf(HouseKind kind) => Enum.Parse<PartKind>(kind.ToString());
}

/// <summary>A part of another publication's house style, and how it stands to this one: whether there is one of its name here, and in what the two
/// differ.</summary>
public sealed record HousePartAnswer(HouseKind Kind, int Id, string Name, int? HereId, ImmutableArray<string> Differs)
{
    public static HousePartAnswer Of(HousePart part) =>
        new(Enum.Parse<HouseKind>(part.Part.Key.Kind.ToString()), part.Part.Key.Id, part.Name, part.Here?.Key.Id, part.Differs);
}

/// <summary>Which publication is the house's library.</summary>
public sealed record LibraryAnswer(int Id);

/// <summary>House style shared between publications, in the automation interface.</summary>
internal static class HouseEndpoints
{
    /// <summary>The way to the library, for people: opened, or with what is to be kept in it.</summary>
    public static void MapLibrary(WebApplication app) => app.MapGet("/library", async (int? from, PublicationStore store) =>
    {
        int library = (await store.LibraryAsync()).Id;
        return Results.Redirect(from is { } source && source != library ? $"/publications/{library}/take?from={source}" : $"/publications/{library}/rules");
    }).ExcludeFromDescription();

    public static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/library", async (PublicationStore store) => new LibraryAnswer((await store.LibraryAsync()).Id))
            .WithSummary("The house's library, a publication whose house style is there for all others; made when it is first asked for.");
        api.MapGet("/publications/{id:int}/house-style", async (int id, int from, PublicationStore store) =>
        {
            var (source, here) = ((await store.OpenAsync(from)).Publication, (await store.OpenAsync(id)).Publication);
            return new HouseComparison(source, here).Parts().Select(HousePartAnswer.Of).ToArray();
        }).WithSummary("The house style of another publication beside that of this one.");
        api.MapPost("/publications/{id:int}/house-style", async (int id, TakeHouseBody body, PublicationStore store, HttpContext context) =>
        {
            if (body.From == id) throw new EditRefused("from", "That is this publication. Name another.");
            var source = (await store.OpenAsync(body.From)).Publication;
            var standing = context.Told(await store.EditAsync(id, body.ToEdit(source), context.Seen())).Standing;
            return new HouseComparison(source, standing.Publication).Parts().Select(HousePartAnswer.Of).ToArray();
        }).WithSummary("Takes house style over from another publication, with all that it names.");
    }
}
