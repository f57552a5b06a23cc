using System.Globalization;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Desk;
using Formatum.Web.Links;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Pages;

/// <summary>A publication as it lies on the shelf.</summary>
public sealed record ShelfItem(int Id, string Name, string Edition, string Facts, string Cover, IReadOnlyList<string> Attention);

/// <summary>The Shelf: all publications with their first spread, and what needs attention in each.</summary>
public sealed class IndexModel(PublicationStore store, LinkStates links) : PageModel
{
    public IReadOnlyList<ShelfItem> Entries { get; private set; } = [];
    public IReadOnlyList<ShelfEntry> PutAway { get; private set; } = [];

    public async Task OnGetAsync()
    {
        var items = new List<ShelfItem>();
        var all = await store.ListAsync();
        foreach (var entry in all.Where(e => !e.PutAway)) items.Add(Describe(await store.OpenAsync(entry.Id)));
        Entries = items;
        PutAway = [.. all.Where(e => e.PutAway)];
    }

    /// <summary>Puts a publication away, or brings it back.</summary>
    public async Task<IActionResult> OnPostPutAwayAsync(int id, bool away)
    {
        await store.PutAwayAsync(id, away);
        return RedirectToPage();
    }

    /// <summary>Makes the next edition of a publication and opens it.</summary>
    public async Task<IActionResult> OnPostEditionAsync(int id, string? name, string? edition, bool pictures, bool texts)
    {
        var made = await store.AddAsync(EditionMaker.Make((await store.OpenAsync(id)).Publication, name ?? "", edition ?? "", new(pictures, texts)));
        return Redirect($"/publications/{made.Id}/desk");
    }

    private ShelfItem Describe(Standing standing)
    {
        var p = standing.Publication;
        var setup = p.Setup;
        string size = PaperSize.Of(setup.PageWidth, setup.PageHeight)?.Name ?? Words.Size(setup.PageWidth, setup.PageHeight, setup.Unit);
        string facts = string.Join(" \u00b7 ", new[]
        {
            Words.Count(p.PageCount, "page"), size, setup.Facing ? "facing" : "single", Words.Count(p.Images.Count, "image"),
        });
        int empty = p.PageFrames.Count(f => f.IsPlaceholder);
        int soft = p.Frames.Values.Count(f => p.FittedOf(f) is { } fitted && setup.SharpnessOf(fitted.Coverage.Ppi) == Sharpness.TooCoarse);
        var (changed, missing) = links.Count(p);
        var attention = new List<string>();
        if (empty > 0) attention.Add(Words.Count(empty, "placeholder") + " empty");
        if (soft > 0) attention.Add(Words.Count(soft, "picture") + string.Create(CultureInfo.InvariantCulture, $" below {setup.FloorPpi:0.#} ppi"));
        if (changed > 0) attention.Add(Words.Count(changed, "linked file") + " changed");
        if (missing > 0) attention.Add(Words.Count(missing, "linked file") + " missing");
        return new(standing.Id, setup.Name, setup.Edition, facts, SpreadView.Miniature(p, Spread.At(p, 0), $"shelf{standing.Id}-"), attention);
    }
}
