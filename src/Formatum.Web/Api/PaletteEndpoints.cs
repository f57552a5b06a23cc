using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Colours;
using Formatum.Web.Hosting;

namespace Formatum.Web.Api;

/// <summary>A colour of the palette, with what shows of it and where it is used.</summary>
public sealed record PaletteColourAnswer(int Id, string Name, object Colour, bool Spot, string Shown, double OnWhite, double OnBlack, int Styles, int Frames)
{
    public static PaletteColourAnswer[] All(Publication publication) => [.. publication.Colours.Values.OrderBy(c => c.Id).Select(c =>
    {
        var use = ColourUse.Of(publication, c.Id);
        var shown = publication.ColourOf(c.Colour).Shown;
        return new PaletteColourAnswer(c.Id, c.Name, ColourBody.Answer(publication, c.Colour), c.IsSpot, shown.Text,
            Math.Round(shown.ContrastWith(Core.Colours.Colour.White.Shown), 2),
            Math.Round(shown.ContrastWith(Core.Colours.Colour.Black.Shown), 2), use.Styles.Length, use.Frames.Length);
    })];
}

/// <summary>The palette in the automation interface.</summary>
internal static class PaletteEndpoints
{
    public static void Map(RouteGroupBuilder publication)
    {
        publication.MapGet("/palette", async (int id, PublicationStore store) => PaletteColourAnswer.All((await store.OpenAsync(id)).Publication))
            .WithSummary("The named colours of the publication, with where each is used.");
        publication.MapPut("/palette", async (int id, PaletteColourBody[] body, PublicationStore store, HttpContext context) =>
        {
            if (body.Any(c => c is null)) throw new EditRefused("colours", "A colour has a name and figures.");
            var edit = new TakePalette([.. body.Select(c => c.ToColour())], Whole: true);
            return PaletteColourAnswer.All(context.Told(await store.EditAsync(id, edit, context.Seen())).Standing.Publication);
        }).WithSummary("Puts a palette in the place of the one there is: colours of the same name are changed, others added; what used one that goes stays " +
            "as it looks.");
        publication.MapGet("/palette.gpl", async (int id, PublicationStore store) => Results.File(System.Text.Encoding.UTF8.GetBytes(
            PaletteFile.Gpl((await store.OpenAsync(id)).Publication)), "text/plain; charset=utf-8", "palette.gpl"))
            .WithSummary("The palette as a GPL palette file, in red, green and blue.");
        publication.MapGet("/palette.json", async (int id, PublicationStore store) => Results.File(PaletteFile.Json((await store.OpenAsync(id)).Publication),
            "application/json", "palette.json")).WithSummary("The palette as JSON, with all its figures: what PUT takes.");
        publication.MapDelete("/palette/{colourId:int}", async (int id, int colourId, PublicationStore store, HttpContext context, int? instead = null) =>
        {
            context.Told(await store.EditAsync(id, new RemoveColours([colourId], instead is { } other ? new NamedColour(other) : null), context.Seen()));
            return TypedResults.NoContent();
        }).WithSummary("Removes a colour. What uses it takes another instead, or stays as it looks.");
    }
}
