using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Checking;
using Formatum.Web.Desk;
using Formatum.Web.Hosting;
using Formatum.Web.Wording;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Pages;

/// <summary>The flatplan: all spreads of a publication, small, in order; pages are added, copied, moved and removed here.</summary>
public sealed class FlatplanModel(PublicationStore store, Checker checker) : PageModel
{
    public required Standing Standing { get; set; }

    public Publication Publication => Standing.Publication;

    /// <summary>For each spread with findings, by its number: the sign of the worst and how many.</summary>
    public required IReadOnlyDictionary<int, string> Found { get; set; }

    /// <summary>The pages that are chosen, by their numbers.</summary>
    public IReadOnlySet<int> Chosen { get; private set; } = ImmutableHashSet<int>.Empty;

    public async Task<IActionResult> OnGetAsync(int id)
    {
        Standing = await store.OpenAsync(id);
        Found = await FoundAsync(Standing);
        return Page();
    }

    /// <summary>What another window may have changed.</summary>
    public async Task<IActionResult> OnGetSheetAsync(int id, string? chosen) => await SheetAsync(await store.OpenAsync(id), DeskView.Ids(chosen));

    /// <summary>What goes with pages that are removed, in words; empty where nothing does.</summary>
    public async Task<IActionResult> OnGetRemovingAsync(int id, string? pages)
    {
        var publication = (await store.OpenAsync(id)).Publication;
        var gone = DeskView.Ids(pages).Where(n => n <= publication.PageCount).SelectMany(n => publication.FramesOnPage(publication.Order.Ids[n - 1])).ToList();
        int pictures = gone.Count(f => f.ImageId is not null), texts = gone.Count(f => f.IsText && !publication.IsEmpty(f)),
            others = gone.Count - pictures - texts;
        string[] what = [pictures > 0 ? Words.Count(pictures, "picture") : "", texts > 0 ? Words.Count(texts, "text") : "", others > 0
            ? Words.Count(others, "empty frame") : ""];
        return Content(string.Join(", ", what.Where(w => w.Length > 0)), "text/plain");
    }

    /// <summary>Does something with pages and answers with the flatplan as it then is.</summary>
    /// <param name="id">The publication.</param>
    /// <param name="do">"add", "duplicate", "move", "remove", "base", "make-master", "rename-master", "remove-master", "undo" or "redo".</param>
    /// <param name="pages">Numbers of the pages it is done with, with commas between.</param>
    /// <param name="before">The number of the page before which they go; one more than there are pages for the end.</param>
    /// <param name="count">How many to add.</param>
    /// <param name="master">The master it is about, or that pages are based on; null for none.</param>
    /// <param name="instead">The master that pages take instead of one that is removed.</param>
    /// <param name="name">A master's name.</param>
    /// <param name="like">Whether a master is made like the chosen pages.</param>
    /// <param name="based">Whether those are then based on it.</param>
    /// <param name="seen">The revision the page last saw.</param>
    public async Task<IActionResult> OnPostAsync(int id, string @do, string? pages, int before, int count, int? master, int? instead, string? name, bool like,
        bool based, long seen)
    {
        ImmutableArray<int> numbers = [.. DeskView.Ids(pages)];
        if (@do is "undo" or "redo")
        {
            var step = @do == "undo" ? await store.UndoAsync(id, HttpContext.Seen(seen)) : await store.RedoAsync(id, HttpContext.Seen(seen));
            return await SheetAsync(step.Standing, []);
        }
        Edit edit = @do switch
        {
            "add" => new AddPages(before, count, master),
            "base" => new BasePages(numbers, master),
            "make-master" => new MakeMaster(name ?? "", like ? numbers : (ImmutableArray<int>?)null, based),
            "rename-master" => new RenameMaster(master ?? 0, name ?? ""),
            "remove-master" => new RemoveMaster(master ?? 0, instead),
            "duplicate" => new DuplicatePages(numbers, before),
            "move" => new MovePages(numbers, before),
            "remove" => new RemovePages(numbers),
            _ => throw new EditRefused("do", $"Nothing is done by \"{@do}\"."),
        };
        var was = (await store.OpenAsync(id)).Publication;
        var outcome = await store.EditAsync(id, edit, HttpContext.Seen(seen));
        var now = outcome.Standing.Publication;
        // What was made is chosen, or what was moved.
        var kept = @do is "move" or "base" or "make-master" ? numbers.Where(n => n <= was.PageCount).Select(n => was.Order.Ids[n - 1])
            : now.Order.Ids.Except(was.Order.Ids);
        return await SheetAsync(outcome.Standing, kept.Select(page => now.Order.IndexOf(page) + 1));
    }

    private async Task<IReadOnlyDictionary<int, string>> FoundAsync(Standing standing) =>
        SpreadMarks.OfSpreads(standing.Publication, (await checker.OfAsync(standing)).Open);

    private async Task<PartialViewResult> SheetAsync(Standing standing, IEnumerable<int> chosen)
    {
        Standing = standing;
        Found = await FoundAsync(standing);
        Chosen = chosen.ToHashSet();
        return Partial("_FlatplanSheet", this);
    }

    public string Height => Publication.Setup.PageHeight > 2 * Publication.Setup.PageWidth ? "200px" : "150px";

    public string Ratio(Spread spread) => string.Create(CultureInfo.InvariantCulture, $"{spread.Trim.Width:0.###}/{spread.Trim.Height:0.###}");
}
