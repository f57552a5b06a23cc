using System.Net;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Desk;
using Formatum.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Pages;

/// <summary>Set-up: of a new publication, or of one that is there.</summary>
public sealed class SetupModel(PublicationStore store, HeavyWork heavy) : PageModel
{
    [BindProperty(SupportsGet = true)]
    public SetupForm Form { get; set; } = new();

    /// <summary>The publication that is set up; null for a new one.</summary>
    public Standing? Standing { get; private set; }

    /// <summary>What is wrong, by the field's name in the automation interface.</summary>
    public Dictionary<string, string> Errors { get; private set; } = [];

    /// <summary>What the change would do to frames, where that is to be looked at first; else null.</summary>
    public SetupImpact? Impact { get; private set; }

    /// <summary>For a new publication: whose house style it may begin with, the house's library first.</summary>
    public IReadOnlyList<ShelfEntry> Houses { get; private set; } = [];

    /// <summary>A drawing of a spread with its zones.</summary>
    public string Plan { get; private set; } = "";

    public string PreviewAddress => (Standing is null ? "/setup" : $"/publications/{Standing.Id}/setup") + "?handler=Plan";

    public async Task OnGetAsync(int? id)
    {
        if (await OpenAsync(id)) Form = SetupForm.Of(Standing!);
        else Form = new() { HouseFrom = Houses.FirstOrDefault(h => h.IsLibrary)?.Id };
        ReadForm();
        Errors = [];
    }

    public async Task<IActionResult> OnGetPlanAsync(int? id)
    {
        await OpenAsync(id);
        ReadForm();
        return Content(Plan, "text/html");
    }

    /// <summary>The form of a new publication once a size was chosen: its lengths are in the unit of that.</summary>
    public async Task<IActionResult> OnGetSizedAsync()
    {
        await OpenAsync(null);
        if (PaperSize.Named(Form.Size) is { } paper) Form.TakeUnit(paper.Unit);
        ModelState.Clear();
        ReadForm();
        Errors = [];
        return Page();
    }

    public async Task<IActionResult> OnPostAsync(int? id)
    {
        await OpenAsync(id);
        if (ReadForm() is not var (setup, pages)) return Page();
        if (Standing is null && Form.HouseFrom is { } from && !Houses.Any(h => h.Id == from))
        {
            Errors["houseFrom"] = "The publication whose house style you chose is gone. Choose another, or the usual start.";
            return Page();
        }
        if (Standing is null)
        {
            var created = await store.CreateAsync(setup, pages, Form.HouseFrom);
            return Redirect($"/publications/{created.Id}/desk");
        }
        var edit = new ChangeSetup(setup, Form.Frames, pages);
        var impact = await heavy.RunAsync(_ => SetupImpact.Of(Standing.Publication, edit), HttpContext.RequestAborted);
        if (!Form.Sure && impact.Matters)
        {
            Impact = impact;
            return Page();
        }
        await store.EditAsync(Standing.Id, edit, HttpContext.Seen(Form.Seen));
        return Redirect($"/publications/{Standing.Id}/desk");
    }

    private async Task<bool> OpenAsync(int? id)
    {
        if (id is not { } known)
        {
            Houses = [.. (await store.ListAsync()).Where(p => !p.PutAway).OrderByDescending(p => p.IsLibrary)];
            return false;
        }
        Standing = await store.OpenAsync(known);
        return true;
    }

    /// <summary>Reads the form, and draws the plan where there is one to draw. Null where something is wrong.</summary>
    private (Setup, int)? ReadForm()
    {
        var errors = new FieldErrors();
        var (setup, pages) = Form.Read(Standing?.Publication.Setup, Standing?.Publication.PageCount, errors);
        Errors = errors.ToImmutable().GroupBy(e => e.Field).ToDictionary(g => g.Key, g => g.First().Message);
        // While the name is still missing, the page can be drawn all the same.
        var drawn = Errors.Keys.All(k => k is "name" or "edition") ? Publication.Create(setup with { Name = "Plan", Edition = "" }, 3) : null;
        Plan = drawn is null ? $"<p class=\"plan-words\">{WebUtility.HtmlEncode(Errors.Values.First())}</p>"
            : SpreadView.Plan(drawn, Spread.At(drawn, setup.Facing ? 1 : 0)) + (setup.Folding is null ? "" : SpreadView.Plan(drawn, Spread.At(drawn, 1)));
        return Errors.Count == 0 ? (setup, pages) : null;
    }
}
