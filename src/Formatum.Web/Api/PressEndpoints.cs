using Formatum.Core.Checks;
using Formatum.Output.Press;
using Formatum.Web.Outputs;

namespace Formatum.Web.Api;

/// <summary>What a spread comes to on its press.</summary>
/// <param name="Most">Where the most ink lies: how much.</param>
/// <param name="X">And where, in shares of the spread's width.</param>
/// <param name="Y">And of its height.</param>
/// <param name="ShareBeyond">The share of the spread whose colours the press cannot print, 0 to 1.</param>
public sealed record PressAnswer(InkAnswer Most, double X, double Y, double ShareBeyond);

/// <summary>Spreads as they will be printed, in the automation interface.</summary>
internal static class PressEndpoints
{
    public static void Map(RouteGroupBuilder publication)
    {
        var spread = publication.MapGroup("/spreads/{number:int}");
        spread.MapGet("/printed.png", async (int id, int number, PressViews views, CancellationToken cancel, string show = "printed",
            double limit = PressViews.UsualLimit) =>
        {
            if (!Enum.TryParse(show, ignoreCase: true, out PressShow wanted) || !Enum.IsDefined(wanted))
                throw new EditRefused("show", "Show one of printed, gamut and ink.");
            var view = await views.OfAsync(id, number, cancel);
            return Results.Bytes(view.Draw(wanted, limit), "image/png");
        }).WithSummary("A spread as its press will show it, what lies outside its gamut, or how much ink lies where.").Produces(200, contentType: "image/png");
        spread.MapGet("/ink", async (int id, int number, double x, double y, PressViews views, CancellationToken cancel) =>
        {
            var page = (await views.OfAsync(id, number, cancel)).Page;
            // A place in shares of the spread.
            int column = (int)Math.Clamp(x * page.Width, 0, page.Width - 1), row = (int)Math.Clamp(y * page.Height, 0, page.Height - 1);
            return InkAnswer.At(page, row * page.Width + column);
        }).WithSummary("How much of each ink lies at a place of a spread, which is given in shares of its width and height.");
        spread.MapGet("/press", async (int id, int number, PressViews views, CancellationToken cancel) =>
        {
            var view = await views.OfAsync(id, number, cancel);
            var (most, x, y) = InkAnswer.Most(view.Page);
            return new PressAnswer(most, x, y, Math.Round(view.ShareBeyond, 5));
        }).WithSummary("Where the most ink lies on a spread, and how much of it lies outside the press's gamut.");
    }
}
