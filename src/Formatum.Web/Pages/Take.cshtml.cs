using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Hosting;
using Formatum.Web.House;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Pages;

/// <summary>House style, from elsewhere: what another publication or the house's library has, beside what is here, taken over in one step.</summary>
public sealed class TakeModel(PublicationStore store, HeavyWork heavy) : PageModel
{
    /// <summary>The publications to take from, the house's library first.</summary>
    public IReadOnlyList<ShelfEntry> Sources { get; private set; } = [];

    public required Standing Standing { get; set; }

    /// <summary>Null where nothing is chosen to take from.</summary>
    public HouseSheet? Sheet { get; private set; }

    public async Task OnGetAsync(int id, int? from)
    {
        Standing = await store.OpenAsync(id);
        Sources = [.. (await store.ListAsync()).Where(p => p.Id != id && !p.PutAway).OrderByDescending(p => p.IsLibrary)];
        if (from is not { } chosen || chosen == id) return;
        var form = new TakeForm { From = chosen, Seen = Standing.Revision, FromSeen = (await store.OpenAsync(chosen)).Revision };
        Sheet = await SheetAsync(Standing, form);
        // What is nowhere here is what one comes for.
        foreach (var part in Sheet.Parts.Where(p => p.IsNew)) form.Parts[TakeForm.Key(part.Part)] = "Kept";
        Sheet = await SheetAsync(Standing, form);
    }

    /// <summary>What taking what is chosen would do.</summary>
    public async Task<IActionResult> OnPostPreviewAsync(int id, TakeForm form) => Partial("_TakeWay", await SheetAsync(await store.OpenAsync(id), form));

    public async Task<IActionResult> OnPostApplyAsync(int id, TakeForm form)
    {
        var (here, from) = ((await store.OpenAsync(id)).Publication, await store.OpenAsync(form.From));
        var source = from.Publication;
        if (from.Revision != form.FromSeen)
            throw new EditRefused("from", $"{source.Setup.Name} was changed while you looked at what it has. Look at the page anew, and take it then.");
        await store.EditAsync(id, form.Read(source, new HouseComparison(source, here).Parts()), HttpContext.Seen(form.Seen));
        return this.GoTo($"/publications/{id}/take?from={form.From}");
    }

    public async Task<IActionResult> OnPostHistoryAsync(int id, int? from, string @do, long seen)
    {
        _ = @do == "redo" ? await store.RedoAsync(id, HttpContext.Seen(seen)) : await store.UndoAsync(id, HttpContext.Seen(seen));
        return this.GoTo($"/publications/{id}/take" + (from is { } source ? $"?from={source}" : ""));
    }

    private async Task<HouseSheet> SheetAsync(Standing standing, TakeForm form)
    {
        var source = await store.OpenAsync(form.From);
        return await heavy.RunAsync(_ => new HouseSheet(standing, source, form), HttpContext.RequestAborted);
    }
}
