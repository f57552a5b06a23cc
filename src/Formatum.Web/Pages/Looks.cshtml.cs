using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Colours;
using Formatum.Web.Hosting;
using Formatum.Web.Looks;
using Formatum.Web.Wording;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Pages;

/// <summary>House style, Looks: named looks, changed with every frame in sight that would follow.</summary>
public sealed class LooksModel(PublicationStore store, HeavyWork heavy)
    : HouseStyleModel<NamedLook>(store, "looks", "look", "look")
{
    public required LookSheet Sheet { get; set; }

    public Publication Publication => Sheet.Standing.Publication;

    public IEnumerable<NamedLook> Looks => Publication.Looks.Values.OrderBy(l => l.Name, StringComparer.OrdinalIgnoreCase);

    public async Task<IActionResult> OnGetAsync(int id, string? look, int? like)
    {
        var standing = await Store.OpenAsync(id);
        if (look is null && !standing.Publication.Looks.IsEmpty)
            return Redirect(Address(id, standing.Publication.Looks.Values.OrderBy(l => l.Name, StringComparer.OrdinalIgnoreCase).First().Id));
        var shown = PartIn(standing.Publication, look);
        var form = LookForm.Of(standing.Publication, shown, like is { } frame ? standing.Publication.Frames.GetValueOrDefault(frame) : null);
        form.Seen = standing.Revision;
        Sheet = await SheetAsync(standing, shown, form);
        return Page();
    }

    /// <summary>What the look as it is typed would do.</summary>
    public async Task<IActionResult> OnPostPreviewAsync(int id, string? look, LookForm form)
    {
        var standing = await Store.OpenAsync(id);
        return Partial("_LookUnderWay", await SheetAsync(standing, PartIn(standing.Publication, look), form));
    }

    private Task<LookSheet> SheetAsync(Standing standing, NamedLook? look, LookForm form) =>
        heavy.RunAsync(_ => new LookSheet(standing, look, form), HttpContext.RequestAborted);

    public async Task<IActionResult> OnPostApplyAsync(int id, string? look, LookForm form)
    {
        var publication = (await Store.OpenAsync(id)).Publication;
        var errors = new FieldErrors();
        var edit = form.Read(publication, PartIn(publication, look), errors);
        errors.ThrowIfAny();
        var outcome = await Store.EditAsync(id, edit, HttpContext.Seen(form.Seen));
        return this.GoTo(Address(id, outcome.Changes.Items.Where(c => c.Key.Kind == PartKind.Look).Select(c => (int?)c.Key.Id).FirstOrDefault()
            ?? edit.LookId));
    }

    /// <summary>Removes the look: first what that would do, then, once that has been seen, does it.</summary>
    public async Task<IActionResult> OnPostRemoveAsync(int id, string? look, int? instead, bool keep, bool sure, long seen)
    {
        var standing = await Store.OpenAsync(id);
        var of = PartNamed(standing.Publication, look);
        var edit = new RemoveLook(of.Id, instead, keep);
        if (!sure) return Shown(standing, edit, $"Remove {of.Name}", "Remove", new() { ["instead"] = Text(instead), ["keep"] = keep ? "true" : "false" });
        await Store.EditAsync(id, edit, HttpContext.Seen(seen));
        return this.GoTo(Address(id, instead));
    }

    /// <summary>Puts the look on frames of a page or the publication: first what that would do, then does it.</summary>
    public async Task<IActionResult> OnPostPutAsync(int id, string? look, int? page, FrameFilling which, int? rule, bool clear, bool sure, long seen)
    {
        var standing = await Store.OpenAsync(id);
        var of = PartNamed(standing.Publication, look);
        var frames = FrameScope.FramesIn(standing.Publication, page, which);
        if (rule is { } only) frames = [.. frames.Where(f => standing.Publication.Frames[f].RuleId == only)];
        if (frames.IsEmpty) throw new EditRefused("rule", "None of those frames has that rule. Choose another, or any.");
        var edit = new PutLook(frames, of.Id, clear);
        var values = new Dictionary<string, string>
        {
            ["page"] = Text(page),
            ["which"] = which.ToString(),
            ["rule"] = Text(rule),
            ["clear"] = clear ? "true" : "false",
        };
        if (!sure) return Shown(standing, edit, $"Put {of.Name} on {Words.Count(frames.Length, "frame")}", "Put", values);
        await Store.EditAsync(id, edit, HttpContext.Seen(seen));
        return this.GoTo(Address(id, of.Id));
    }

    public Task<IActionResult> OnPostHistoryAsync(int id, string? look, string @do, long seen) => StepAsync(id, look, @do, seen);

    private PartialViewResult Shown(Standing standing, Edit edit, string title, string act, Dictionary<string, string> values)
    {
        values["seen"] = standing.Revision.ToString(CultureInfo.InvariantCulture);
        var after = standing.Publication.With(edit.On(standing.Publication));
        return Partial("_FrameImpact", new FrameImpactView(LookSheet.ImpactOf(standing, after), title, act, values));
    }

    protected override ImmutableDictionary<int, NamedLook> PartsOf(Publication publication) => publication.Looks;
}
