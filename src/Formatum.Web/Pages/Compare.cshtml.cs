using Formatum.Core.Comparing;
using Formatum.Storage;
using Formatum.Web.Checking;
using Formatum.Web.Hosting;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Pages;

/// <summary>Compare: what moved, changed, came and went since a step of the history, or since another edition.</summary>
public sealed class CompareModel(PublicationStore store, HeavyWork heavy) : PageModel
{
    /// <summary>So many steps of the history are offered, and so many pages shown.</summary>
    public const int MostSteps = 200, MostPages = 60;

    public required Standing Standing { get; set; }
    public required IReadOnlyList<HistoryEntry> Steps { get; set; }

    /// <summary>Other publications, those of the same name first: they are its editions.</summary>
    public required IReadOnlyList<ShelfEntry> Others { get; set; }

    /// <summary>What it is compared with, by its key; null where nothing was chosen yet.</summary>
    public string? With { get; private set; }

    public Comparison? Comparison { get; private set; }

    public async Task OnGetAsync(int id, string? with)
    {
        Standing = await store.OpenAsync(id);
        Steps = await store.HistoryAsync(id, MostSteps);
        string name = Standing.Publication.Setup.Name;
        Others = [.. (await store.ListAsync()).Where(p => p.Id != id && !p.IsLibrary).OrderByDescending(p => p.Name == name).ThenByDescending(p => p.Id)];
        if (string.IsNullOrEmpty(with)) return;
        With = with;
        Comparison = await heavy.RunAsync(_ => Compared.WithAsync(store, Standing, with).GetAwaiter().GetResult(), HttpContext.RequestAborted);
    }
}
