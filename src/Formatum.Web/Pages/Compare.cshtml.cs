using Formatum.Core.Comparing;
using Formatum.Storage;
using Formatum.Web.Checking;
using Formatum.Web.Comparing;
using Formatum.Web.Hosting;
using Formatum.Web.Outputs;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Pages;

/// <summary>Compare: what moved, changed, came and went since a step of the history, another edition, or a PDF made before.</summary>
public sealed class CompareModel(PublicationStore store, HeavyWork heavy, ComparedFiles files, FileComparer comparer) : PageModel
{
    /// <summary>So many steps of the history are offered, and so many pages shown.</summary>
    public const int MostSteps = 200, MostPages = 60;

    public required Standing Standing { get; set; }
    public required IReadOnlyList<HistoryEntry> Steps { get; set; }

    /// <summary>Other publications, those of the same name first: they are its editions.</summary>
    public required IReadOnlyList<ShelfEntry> Others { get; set; }

    /// <summary>PDFs made before.</summary>
    public required IReadOnlyList<ComparedFile> Files { get; set; }

    /// <summary>Recipes by which the chosen PDF can have been made; none where no PDF is chosen, or its recipe is known.</summary>
    public IReadOnlyList<ShelvedRecipe> Recipes { get; private set; } = [];

    /// <summary>The recipe that was chosen.</summary>
    public string? MadeBy { get; private set; }

    /// <summary>Whether it is compared with a PDF, which takes a while.</summary>
    public bool IsWithFile => ComparedFiles.IsFile(With);

    /// <summary>What it is compared with, by its key; null where nothing was chosen yet.</summary>
    public string? With { get; private set; }

    public Comparison? Comparison { get; private set; }

    public async Task OnGetAsync(int id, string? with, [FromQuery(Name = "as")] string? madeBy)
    {
        Standing = await store.OpenAsync(id);
        Steps = await store.HistoryAsync(id, MostSteps);
        Files = files.Of(id);
        string name = Standing.Publication.Setup.Name;
        Others = [.. (await store.ListAsync()).Where(p => p.Id != id && !p.IsLibrary).OrderByDescending(p => p.Name == name).ThenByDescending(p => p.Id)];
        if (string.IsNullOrEmpty(with)) return;
        (With, MadeBy) = (with, madeBy);
        if (!IsWithFile) Comparison = await heavy.RunAsync(_ => Compared.WithAsync(store, Standing, with).GetAwaiter().GetResult(), HttpContext.RequestAborted);
        else if (files.Find(id, with).Recipe is null) Recipes = await comparer.RecipesAsync(Standing);
    }

    /// <summary>The pages that differ from those of a PDF made before.</summary>
    public async Task<IActionResult> OnGetFileAsync(int id, string with, [FromQuery(Name = "as")] string? madeBy)
    {
        Standing = await store.OpenAsync(id);
        try
        {
            return Partial("_ComparedWithFile", new ComparedWithFileView(Standing, await comparer.CompareAsync(Standing, with, madeBy,
                HttpContext.RequestAborted), madeBy));
        }
        catch (Exception e) when (Problems.Describe(e).Status is not StatusCodes.Status500InternalServerError)
        {
            return Partial("_ComparedWithFile", new ComparedWithFileView(Standing, null, madeBy, Problems.Describe(e).Detail));
        }
    }
}
