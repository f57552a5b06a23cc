using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Output;
using Formatum.Output.Making;
using Formatum.Output.Tickets;
using Formatum.Storage;
using Formatum.Web.Checking;
using Formatum.Web.Hosting;
using Formatum.Web.Outputs;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Pages;

/// <summary>What an output would come to.</summary>
/// <param name="Wish">What would be made; null where it is impossible.</param>
/// <param name="Errors">Why it is, by field.</param>
/// <param name="Bytes">About how large it would be.</param>
/// <param name="Findings">What is open.</param>
public sealed record OutputSummary(OutputWish? Wish, IReadOnlyDictionary<string, string> Errors, double Bytes, BeforeOutput Findings);

/// <summary>The sheets of an output.</summary>
public sealed record OutputSheets(OutputSummary Summary, Standing Standing);

/// <summary>Output: recipes, what they would make, and what was made.</summary>
public sealed class OutputModel(PublicationStore store, RecipeShelf shelf, OutputJobs jobs, ProfileStore profiles, ProfileIntake intake, Checker checker,
    Handovers handovers, HeavyWork heavy) : PageModel
{
    public required Standing Standing { get; set; }
    public required IReadOnlyList<ShelvedRecipe> Recipes { get; set; }
    public required ShelvedRecipe Chosen { get; set; }
    public required RecipeForm Form { get; set; }

    /// <summary>The revision of the house's library, whose recipes are shown too; null where there is none yet.</summary>
    public long? HouseRevision { get; set; }

    public required OutputSummary Summary { get; set; }

    public Publication Publication => Standing.Publication;
    public IReadOnlyList<OutputNote> Outputs => jobs.Of(Standing.Id);
    public IReadOnlyList<Destination> Destinations => handovers.Destinations;
    public IReadOnlyList<PressProfile> Profiles => profiles.All();

    public async Task<IActionResult> OnGetAsync(int id, string? recipe)
    {
        await ReadAsync(id, recipe);
        Form = RecipeForm.Of(Chosen.Recipe, Publication.Setup.Unit);
        Summary = await SummaryAsync(Form);
        return Page();
    }

    private async Task ReadAsync(int id, string? recipe)
    {
        Standing = await store.OpenAsync(id);
        // The library first: what is listed is no older than what is said to be seen.
        HouseRevision = await store.LibraryIdAsync() is { } library ? (await store.OpenAsync(library)).Revision : null;
        Recipes = await shelf.ListAsync(Standing);
        Chosen = Recipes.FirstOrDefault(r => r.Key == recipe) ?? Recipes[0];
    }

    private async Task<OutputSummary> SummaryAsync(RecipeForm form)
    {
        try
        {
            var wish = jobs.Wish(Publication, form.Over(Chosen.Recipe, Publication.Setup.Unit));
            var findings = await BeforeAsync(wish);
            return await heavy.RunAsync(_ => new OutputSummary(wish, ImmutableDictionary<string, string>.Empty,
                OutputSize.Of(Publication, wish.Recipe, wish.Pages), findings), HttpContext.RequestAborted);
        }
        catch (EditRefused e)
        {
            return new(null, e.Errors.GroupBy(x => x.Field).ToDictionary(g => g.Key, g => string.Join(' ', g.Select(x => x.Message))), 0,
                await BeforeAsync(null));
        }
        catch (BadProfile e)
        {
            return new(null, new Dictionary<string, string> { ["press"] = e.Message }, 0, await BeforeAsync(null));
        }
    }

    /// <summary>What is open on the pages that would be made.</summary>
    private Task<BeforeOutput> BeforeAsync(OutputWish? wish) => BeforeOutput.OfAsync(checker, Standing, wish?.Recipe,
        wish?.Pages.Select(page => Publication.Order.Ids[page - 1]).ToHashSet());

    /// <summary>What the recipe as it is typed would make.</summary>
    public async Task<IActionResult> OnPostSummaryAsync(int id, string? recipe, RecipeForm form)
    {
        await ReadAsync(id, recipe);
        return Partial("_OutputSummary", await SummaryAsync(form));
    }

    /// <summary>A picture of every sheet, both sides.</summary>
    public async Task<IActionResult> OnPostSheetsAsync(int id, string? recipe, RecipeForm form)
    {
        await ReadAsync(id, recipe);
        return Partial("_OutputSheets", new OutputSheets(await SummaryAsync(form), Standing));
    }

    public async Task<IActionResult> OnPostMakeAsync(int id, string? recipe, RecipeForm form, bool sure)
    {
        await ReadAsync(id, recipe);
        var wish = jobs.Wish(Publication, form.Over(Chosen.Recipe, Publication.Setup.Unit));
        (await BeforeAsync(wish)).Ask(sure);
        jobs.Begin(Standing, wish.Recipe, HttpContext.Maker());
        return Listed();
    }

    public async Task<IActionResult> OnGetListAsync(int id)
    {
        Standing = await store.OpenAsync(id);
        return Listed();
    }

    private PartialViewResult Listed() => Partial("_OutputList", Outputs);

    /// <summary>Stops an output, or removes one that has ended.</summary>
    public async Task<IActionResult> OnPostDropAsync(int id, string output)
    {
        Standing = await store.OpenAsync(id);
        jobs.Drop(id, output);
        return Listed();
    }

    /// <summary>Hands an output over, with a job ticket.</summary>
    public async Task<IActionResult> OnPostHandAsync(int id, string output, string? to, string? copies, Binding binding, string? note)
    {
        Standing = await store.OpenAsync(id);
        if (!int.TryParse(copies, NumberStyles.None, CultureInfo.InvariantCulture, out int number))
            throw new EditRefused("copies", $"\u201c{copies}\u201d is no number of copies. Type one, such as 500.");
        handovers.Begin(id, output, to, new(number, binding, note?.Trim() ?? ""), HttpContext.Maker());
        return Listed();
    }

    /// <summary>Keeps what is typed as a recipe: the chosen one where it is somebody's own and keeps its name, else a new one.</summary>
    public async Task<IActionResult> OnPostKeepAsync(int id, string? recipe, RecipeForm form, string? name, bool house, long seen, long? seenHouse)
    {
        await ReadAsync(id, recipe);
        if (string.IsNullOrWhiteSpace(name)) throw new EditRefused("name", "A recipe needs a name. Type one, such as \"Newspaper\".");
        var made = form.Over(Chosen.Recipe, Publication.Setup.Unit) with { Name = name.Trim() };
        bool replaces = Chosen.Owner == (house ? RecipeOwner.House : RecipeOwner.Publication)
            && string.Equals(Chosen.Recipe.Name, made.Name, StringComparison.OrdinalIgnoreCase);
        var edit = new DefineRecipe(made, replaces ? Chosen.Recipe.Id : null);
        int into = house ? (await store.LibraryAsync()).Id : id;
        var outcome = await store.EditAsync(into, edit, HttpContext.Seen(into == id ? seen : seenHouse));
        int kept = outcome.Changes.Items.Where(c => c.Key.Kind == PartKind.Recipe).Select(c => c.Key.Id).DefaultIfEmpty(Chosen.Recipe.Id).First();
        return this.GoTo(Address(id, $"{(into == id ? "own" : "house")}-{kept.ToString(CultureInfo.InvariantCulture)}"));
    }

    public async Task<IActionResult> OnPostRemoveAsync(int id, string? recipe, long seen, long? seenHouse)
    {
        await ReadAsync(id, recipe);
        if (Chosen.Owner == RecipeOwner.Usual) throw new EditRefused("recipe", $"{Chosen.Recipe.Name} comes along with the program and stays. Choose another.");
        bool own = Chosen.Owner == RecipeOwner.Publication;
        await store.EditAsync(own ? id : (await store.LibraryAsync()).Id, new RemoveRecipe(Chosen.Recipe.Id),
            HttpContext.Seen(own ? seen : seenHouse));
        return this.GoTo(Address(id, null));
    }

    /// <summary>Chooses the press, by a profile that is here.</summary>
    public async Task<IActionResult> OnPostPressAsync(int id, string? recipe, string? press, long seen)
    {
        var chosen = string.IsNullOrEmpty(press) ? null : profiles.All().FirstOrDefault(p => p.ContentHash == press)
            ?? throw new NoSuchPart("press", "This profile is no longer on the server. Bring it in again.");
        await store.EditAsync(id, new ChoosePress(chosen), HttpContext.Seen(seen));
        return this.GoTo(Address(id, recipe));
    }

    /// <summary>Brings a profile in, and chooses it.</summary>
    public async Task<IActionResult> OnPostProfileAsync(int id, string? recipe, IFormFile? file, long seen)
    {
        if (file is null) throw new EditRefused("file", "No file was chosen. Choose the printer's profile: a file that ends in .icc or .icm.");
        await using var content = file.OpenReadStream();
        var profile = await intake.TakeAsync(content, HttpContext.RequestAborted);
        await store.EditAsync(id, new ChoosePress(profile), HttpContext.Seen(seen));
        return this.GoTo(Address(id, recipe));
    }

    public async Task<IActionResult> OnPostHistoryAsync(int id, string? recipe, string @do, long seen)
    {
        _ = @do == "redo" ? await store.RedoAsync(id, HttpContext.Seen(seen)) : await store.UndoAsync(id, HttpContext.Seen(seen));
        return this.GoTo(Address(id, recipe));
    }

    private static string Address(int id, string? recipe) => $"/publications/{id}/output" + (string.IsNullOrEmpty(recipe) ? "" : $"/{recipe}");
}
