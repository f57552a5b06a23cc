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

/// <summary>In what order publications lie on the shelf.</summary>
public enum ShelfOrder
{
    /// <summary>The one that was changed last first.</summary>
    Changed,
    /// <summary>As they were made.</summary>
    Made,
    Name,
}

/// <summary>The Shelf: all publications with their first spread, and what needs attention in each.</summary>
public sealed class IndexModel(PublicationStore store, ShelfCards cards, UnusedFiles unused, OutputJobs outputs, ComparedFiles compared) : PageModel
{
    public IReadOnlyList<ShelfItem> Entries { get; private set; } = [];
    public IReadOnlyList<ShelfEntry> PutAway { get; private set; } = [];

    /// <summary>So many publications are shown at once.</summary>
    private const int OnePage = 48;

    /// <summary>What their names are searched for: all of its words.</summary>
    [BindProperty(SupportsGet = true, Name = "q")]
    public string? Search { get; set; }

    [BindProperty(SupportsGet = true, Name = "sort")]
    public ShelfOrder Order { get; set; }

    [BindProperty(SupportsGet = true, Name = "part")]
    public int PageNumber { get; set; } = 1;

    public int PageCount { get; private set; }

    /// <summary>How many lie on the shelf, found or not.</summary>
    public int Count { get; private set; }

    /// <summary>How many were found.</summary>
    public int Found { get; private set; }

    public async Task OnGetAsync()
    {
        var all = (await store.ListAsync()).Where(e => !e.IsLibrary).ToList();
        PutAway = [.. all.Where(e => e.PutAway)];
        string[] words = (Search ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries);
        Count = all.Count - PutAway.Count;
        var found = Sorted(all.Where(e => !e.PutAway && words.All(w => e.Name.Contains(w, StringComparison.CurrentCultureIgnoreCase)))).ToList();
        Found = found.Count;
        PageCount = Math.Max(1, (found.Count + OnePage - 1) / OnePage);
        PageNumber = Math.Clamp(PageNumber, 1, PageCount);
        var items = new List<ShelfItem>();
        foreach (var entry in found.Skip((PageNumber - 1) * OnePage).Take(OnePage)) items.Add(await cards.OfAsync(entry));
        Entries = items;
    }

    private IEnumerable<ShelfEntry> Sorted(IEnumerable<ShelfEntry> entries) => Order switch
    {
        ShelfOrder.Name => entries.OrderBy(e => e.Name, StringComparer.CurrentCultureIgnoreCase).ThenBy(e => e.Id),
        ShelfOrder.Made => entries,
        _ => entries.OrderByDescending(e => e.Changed).ThenByDescending(e => e.Id),
    };

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
