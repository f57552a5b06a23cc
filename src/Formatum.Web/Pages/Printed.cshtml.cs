using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Outputs;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Pages;

/// <summary>What a spread comes to on its press.</summary>
/// <param name="Most">The most ink that lies anywhere.</param>
/// <param name="Beyond">The share of it that the press cannot print as it is meant.</param>
/// <param name="X">Where the most ink lies, in shares of the width.</param>
/// <param name="Y">And of the height.</param>
public sealed record PrintedSum(InkAnswer Most, double Beyond, double X, double Y);

/// <summary>A spread as it will be printed: its colours, what lies outside the press's gamut, and how much ink lies where.</summary>
public sealed class PrintedModel(PublicationStore store, PressViews views) : PageModel
{
    public required Standing Standing { get; set; }
    public required Spread Spread { get; set; }
    public required int Count { get; set; }

    public Publication Publication => Standing.Publication;

    public async Task OnGetAsync(int id, int spread = 1)
    {
        Standing = await store.OpenAsync(id);
        Count = Spread.CountOf(Publication);
        Spread = Spread.At(Publication, Math.Clamp(spread, 1, Count) - 1);
    }

    /// <summary>What the spread comes to, in words.</summary>
    public async Task<IActionResult> OnGetSumAsync(int id, int spread)
    {
        var view = await views.OfAsync(id, spread, HttpContext.RequestAborted);
        var (most, x, y) = InkAnswer.Most(view.Page);
        return Partial("_PrintedSum", new PrintedSum(most, view.ShareBeyond, x, y));
    }
}
