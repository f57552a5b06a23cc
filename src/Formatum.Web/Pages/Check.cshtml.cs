using System.Globalization;
using Formatum.Core.Checking;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Checking;
using Formatum.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Pages;

/// <summary>How many findings count, as the bar of every screen shows it.</summary>
public sealed record CheckSum(int Faults, int Warnings, int Notes);

/// <summary>Check: what was found, where, and how it is mended.</summary>
public sealed class CheckModel(PublicationStore store, Checker checker, Mender mender, HeavyWork heavy, TimeProvider clock) : PageModel
{
    public required CheckView View { get; set; }

    public Publication Publication => View.Publication;

    public async Task OnGetAsync(int id, CheckQuery query) => View = await ViewAsync(id, query);

    private async Task<CheckView> ViewAsync(int id, CheckQuery query)
    {
        var standing = await store.OpenAsync(id);
        var findings = await checker.OfAsync(standing);
        return new(standing, findings, query) { InkNotMeasured = checker.WithoutInk(findings).Count };
    }

    /// <summary>How many findings count.</summary>
    public async Task<IActionResult> OnGetSumAsync(int id)
    {
        var findings = await checker.OfAsync(id);
        return Partial("_CheckSum", new CheckSum(findings.Count(Severity.Fault), findings.Count(Severity.Warning), findings.Count(Severity.Note)));
    }

    /// <summary>What was found on a spread, for the Desk.</summary>
    public async Task<IActionResult> OnGetMarksAsync(int id, int spread)
    {
        var findings = await checker.OfAsync(id);
        var shown = Spread.At(findings.Publication, Spread.IndexOfNumber(findings.Publication, spread));
        return new JsonResult(SpreadMarks.Of(id, findings, shown));
    }

    public async Task<IActionResult> OnGetListAsync(int id, CheckQuery query) => Partial("_CheckList", await ViewAsync(id, query));

    public async Task<IActionResult> OnGetFindingAsync(int id, CheckQuery query)
    {
        var view = await ViewAsync(id, query);
        return view.Chosen is { } chosen ? Partial("_Finding", new FindingView(view, chosen)) : Content("");
    }

    /// <summary>The place of a finding, drawn.</summary>
    public async Task<IActionResult> OnGetPictureAsync(int id, string finding)
    {
        var view = await ViewAsync(id, new() { Show = CheckShow.All });
        return view.Findings.All.FirstOrDefault(f => f.Id == finding) is { Places: [var place, ..] } found
            ? Content(PictureOfPlace.Draw(view.Publication, place, $"row-{found.Id}-"), "text/html") : Content("");
    }

    /// <summary>What a remedy would do.</summary>
    public async Task<IActionResult> OnGetRemedyAsync(int id, string? finding, FindingKind? kind, string? remedy, string? folder)
    {
        var standing = await store.OpenAsync(id);
        var before = await checker.OfAsync(standing);
        string[] ids = kind is { } all ? [.. before.Open.Where(f => f.Kind == all).Select(f => f.Id)] : [finding ?? ""];
        var plan = await mender.PlanAsync(standing, new(ids, remedy, folder));
        var after = plan.Mending.Edit is { } edit ? await heavy.RunAsync(_ => before.After(standing.Publication.With(edit.On(standing.Publication)),
            before.Facts), HttpContext.RequestAborted) : null;
        var values = new Dictionary<string, string> { ["ids"] = string.Join(' ', ids), ["seen"] = standing.Revision.ToString(CultureInfo.InvariantCulture) };
        if (remedy is not null) values["remedy"] = remedy;
        if (folder is not null) values["folder"] = folder;
        string words = plan.Findings.Length == 0 ? "" : Mending.RemedyOf(plan.Findings[0], remedy, new(standing.Publication, before.Profile,
            Output.Typefaces.All))?.Words ?? "";
        return Partial("_Remedy", new RemedyView(standing, before, after, plan, plan.Findings.Length == 1 ? words : $"Mend {plan.Findings.Length}: {words}",
            values));
    }

    public async Task<IActionResult> OnPostMendAsync(int id, string? ids, string? remedy, string? folder, string? query, long seen)
    {
        var plan = await mender.PlanAsync(await store.OpenAsync(id), new(Named(ids), remedy, folder));
        if (plan.Mending.Edit is not { } edit)
            throw new EditRefused("ids", plan.Mending.Left.Select(l => l.Why).FirstOrDefault() ?? "This finding is there no longer. Look at the list again.");
        await store.EditAsync(id, edit, HttpContext.Seen(seen));
        return this.GoTo(Address(id, query));
    }

    public async Task<IActionResult> OnPostAcceptAsync(int id, string? ids, string? reason, string? query, long seen)
    {
        await store.EditAsync(id, Acceptance.Of(await checker.OfAsync(id), Named(ids), HttpContext.Maker().Name, reason, clock.GetUtcNow()),
            HttpContext.Seen(seen));
        return this.GoTo(Address(id, query));
    }

    public async Task<IActionResult> OnPostUnacceptAsync(int id, string? ids, string? query, long seen)
    {
        await store.EditAsync(id, Acceptance.Undone(await checker.OfAsync(id), Named(ids)), HttpContext.Seen(seen));
        return this.GoTo(Address(id, query));
    }

    public async Task<IActionResult> OnPostProfileAsync(int id, int profile, string? query, long seen)
    {
        await store.EditAsync(id, new ChooseCheckProfile(profile), HttpContext.Seen(seen));
        return this.GoTo(Address(id, query));
    }

    /// <summary>Keeps what is typed as a profile: the chosen one where it is the publication's own and keeps its name, else a new one.</summary>
    public async Task<IActionResult> OnPostKeepProfileAsync(int id, ProfileForm form, string? query, long seen)
    {
        var publication = (await store.OpenAsync(id)).Publication;
        var chosen = publication.Profile;
        var made = form.Read(chosen, publication.Setup.Unit);
        bool replaces = !chosen.IsUsual && string.Equals(chosen.Name, made.Name, StringComparison.OrdinalIgnoreCase);
        await store.EditAsync(id, new DefineCheckProfile(made, replaces ? chosen.Id : null, Choose: !replaces), HttpContext.Seen(seen));
        return this.GoTo(Address(id, query));
    }

    public async Task<IActionResult> OnPostRemoveProfileAsync(int id, string? query, long seen)
    {
        var publication = (await store.OpenAsync(id)).Publication;
        if (publication.Profile.IsUsual)
            throw new EditRefused("profile", $"{publication.Profile.Name} comes along with the program and stays. Choose another.");
        await store.EditAsync(id, new RemoveCheckProfile(publication.Profile.Id), HttpContext.Seen(seen));
        return this.GoTo(Address(id, query));
    }

    public async Task<IActionResult> OnPostHistoryAsync(int id, string? query, string @do, long seen)
    {
        _ = @do == "redo" ? await store.RedoAsync(id, HttpContext.Seen(seen)) : await store.UndoAsync(id, HttpContext.Seen(seen));
        return this.GoTo(Address(id, query));
    }

    private static string[] Named(string? ids) => (ids ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries);

    private static string Address(int id, string? query) => $"/publications/{id}/check{(query?.StartsWith('?') == true ? query : "")}";
}
