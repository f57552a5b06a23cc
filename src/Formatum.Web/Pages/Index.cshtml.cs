using Formatum.Core.Edits;
using Formatum.Storage;
using Formatum.Web.Checking;
using Formatum.Web.Comparing;
using Formatum.Web.Desk;
using Formatum.Web.Outputs;
using Formatum.Web.Pictures;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Pages;

/// <summary>The Shelf: all publications with their first spread, and what needs attention in each.</summary>
public sealed class IndexModel(PublicationStore store, ShelfCards cards, UnusedFiles unused, OutputJobs outputs, ComparedFiles compared) : PageModel
{
    public IReadOnlyList<ShelfItem> Entries { get; private set; } = [];
    public IReadOnlyList<ShelfEntry> PutAway { get; private set; } = [];

    public async Task OnGetAsync()
    {
        var items = new List<ShelfItem>();
        var all = (await store.ListAsync()).Where(e => !e.IsLibrary).ToList();
        foreach (var entry in all.Where(e => !e.PutAway)) items.Add(await cards.OfAsync(entry));
        Entries = items;
        PutAway = [.. all.Where(e => e.PutAway)];
    }

    /// <summary>Puts a publication away, or brings it back.</summary>
    public async Task<IActionResult> OnPostPutAwayAsync(int id, bool away)
    {
        await store.PutAwayAsync(id, away);
        return RedirectToPage();
    }

    /// <summary>Removes a publication that was put away, for good, and what was made of it.</summary>
    public async Task<IActionResult> OnPostRemoveAsync(int id)
    {
        await store.RemoveAsync(id);
        outputs.DropAll(id);
        compared.DropAll(id);
        return RedirectToPage();
    }

    /// <summary>What room pictures and fonts take that nothing uses.</summary>
    public async Task<IActionResult> OnGetUnusedAsync() => Partial("_Unused", await unused.FindAsync());

    public async Task<IActionResult> OnPostFreeAsync()
    {
        await unused.RemoveAsync();
        return RedirectToPage();
    }

    /// <summary>Makes the next edition of a publication and opens it.</summary>
    public async Task<IActionResult> OnPostEditionAsync(int id, string? name, string? edition, bool pictures, bool texts)
    {
        var made = await store.AddAsync(EditionMaker.Make((await store.OpenAsync(id)).Publication, name ?? "", edition ?? "", new(pictures, texts)));
        return Redirect($"/publications/{made.Id}/desk");
    }
}
