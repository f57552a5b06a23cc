using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Desk;
using Formatum.Web.Hosting;
using Formatum.Web.Rules;
using Formatum.Web.Wording;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Pages;

/// <summary>Rules: each shown by what it does, changed with every frame in sight that the change would touch.</summary>
public sealed class RulesModel(PublicationStore store, HeavyWork heavy)
    : HouseStyleModel<FittingRule>(store, "rules", "ruleId", "rule")
{
    public required RuleSheet Sheet { get; set; }

    /// <summary>The rule that new publications start with; null for the built-in settings.</summary>
    public FittingRule? Starting { get; private set; }

    public Publication Publication => Sheet.Standing.Publication;

    /// <summary>Rules in the order of the list, each with how far it stands from its root.</summary>
    public IEnumerable<(FittingRule Rule, int Depth)> Tree()
    {
        var children = Publication.Rules.Values.OrderBy(r => r.Name, StringComparer.OrdinalIgnoreCase).ToLookup(r => r.BasedOnId);
        return Under(null, 0);

        IEnumerable<(FittingRule Rule, int Depth)> Under(int? id, int depth) => children[id].SelectMany(rule => Under(rule.Id, depth + 1)
            .Prepend((rule, depth)));
    }

    public async Task<IActionResult> OnGetAsync(int id, string? rule, int? like)
    {
        var standing = await Store.OpenAsync(id);
        var publication = standing.Publication;
        if (rule is null && !publication.Rules.IsEmpty)
        {
            int first = publication.Setup.DefaultRuleId ?? publication.Rules.Values.OrderBy(r => r.BasedOnId ?? 0)
                .ThenBy(r => r.Name, StringComparer.OrdinalIgnoreCase).First().Id;
            return Redirect(Address(id, first));
        }
        var shown = PartIn(publication, rule);
        var form = RuleForm.Of(publication, shown, like is { } frame ? publication.Frames.GetValueOrDefault(frame) : null);
        form.Seen = standing.Revision;
        Sheet = await SheetAsync(standing, shown, form);
        Starting = await Store.StartingRuleAsync();
        return Page();
    }

    /// <summary>What the rule as it is typed would do.</summary>
    public async Task<IActionResult> OnPostPreviewAsync(int id, string? rule, RuleForm form)
    {
        var standing = await Store.OpenAsync(id);
        return Partial("_RuleUnderWay", await SheetAsync(standing, PartIn(standing.Publication, rule), form));
    }

    /// <summary>A rule with what its settings do to every frame.</summary>
    private Task<RuleSheet> SheetAsync(Standing standing, FittingRule? rule, RuleForm form) =>
        heavy.RunAsync(_ => new RuleSheet(standing, rule, form), HttpContext.RequestAborted);

    /// <summary>Makes the change.</summary>
    public async Task<IActionResult> OnPostApplyAsync(int id, string? rule, RuleForm form)
    {
        var publication = (await Store.OpenAsync(id)).Publication;
        var errors = new FieldErrors();
        var edit = form.Read(publication, PartIn(publication, rule)?.Id, errors);
        errors.ThrowIfAny();
        var outcome = await Store.EditAsync(id, edit, HttpContext.Seen(form.Seen));
        var made = outcome.Changes.Items.Where(c => c.Key.Kind == PartKind.Rule && c.Before is null).Select(c => c.After).OfType<FittingRule>()
            .FirstOrDefault();
        return this.GoTo(Address(id, made?.Id ?? edit.RuleId));
    }

    public async Task<IActionResult> OnPostDuplicateAsync(int id, string? rule)
    {
        var standing = await Store.OpenAsync(id);
        var publication = standing.Publication;
        var of = PartNamed(publication, rule);
        string name = NameOfCopy(of.Name, publication.Rules.Values.Select(p => p.Name), FittingRule.LongestName);
        var outcome = await Store.EditAsync(id, new DefineRule { Name = name, Description = of.Description, BasedOnId = of.BasedOnId, Settings = of.Settings },
            HttpContext.Seen(standing.Revision));
        return this.GoTo(Address(id, outcome.Changes.Items.Single().Key.Id));
    }

    /// <summary>Removes the rule: first what that would do, then, once that has been seen, does it.</summary>
    public async Task<IActionResult> OnPostRemoveAsync(int id, string? rule, int? instead, bool keep, bool sure, long seen)
    {
        var standing = await Store.OpenAsync(id);
        var of = PartNamed(standing.Publication, rule);
        var edit = new RemoveRule(of.Id, instead, keep);
        if (!sure)
            return await PreviewAsync(standing, edit, $"Remove {of.Name}", "Remove", new() { ["instead"] = Text(instead), ["keep"] = keep ? "true" : "false" });
        await Store.EditAsync(id, edit, HttpContext.Seen(seen));
        return this.GoTo(Address(id, instead));
    }

    /// <summary>Puts the rule on frames of a page or the publication: first what that would do, then does it.</summary>
    public async Task<IActionResult> OnPostPutAsync(int id, string? rule, int? page, FrameFilling which, bool clear, bool sure, long seen)
    {
        var standing = await Store.OpenAsync(id);
        var of = PartNamed(standing.Publication, rule);
        var frames = FrameScope.FramesIn(standing.Publication, page, which);
        var edit = new ChangeFrames { FrameIds = frames, RuleId = new(of.Id), ClearSet = clear };
        if (!sure)
            return await PreviewAsync(standing, edit, $"Put {of.Name} on {Words.Count(frames.Length, "frame")}", "Put",
                new() { ["page"] = Text(page), ["which"] = which.ToString(), ["clear"] = clear ? "true" : "false" },
                SetThere(standing.Publication, frames, clear));
        await Store.EditAsync(id, edit, HttpContext.Seen(seen));
        return this.GoTo(Address(id, of.Id));
    }

    /// <summary>Chooses what new publications start with; no rule for the built-in settings.</summary>
    public async Task<IActionResult> OnPostStartAsync(int id, string? rule, bool drop)
    {
        var publication = (await Store.OpenAsync(id)).Publication;
        // A publication to come has none of the other rules: this one takes along what it says through them.
        var start = drop ? null : PartNamed(publication, rule);
        await Store.ChooseStartingRuleAsync(start is null ? null : start with { BasedOnId = null, Settings = Cascade.SettingsOf(publication, start.Id) });
        return this.GoTo(Address(id, PartIn(publication, rule)?.Id));
    }

    public Task<IActionResult> OnPostHistoryAsync(int id, string? rule, string @do, long seen) => StepAsync(id, rule, @do, seen);

    private async Task<PartialViewResult> PreviewAsync(Standing standing, Edit edit, string title, string handler, Dictionary<string, string> values,
        string? note = null)
    {
        values["seen"] = Text((int)standing.Revision);
        var (after, impact) = await heavy.RunAsync(_ =>
        {
            var after = standing.Publication.With(edit.On(standing.Publication));
            return (after, Impact.Of(standing.Publication, after));
        }, HttpContext.RequestAborted);
        return Partial("_RuleImpact", new ImpactView(standing, after, impact, title, handler, values, note is null ? [] : [note]));
    }

    /// <summary>What is set on the frames themselves, and that it stays over the rule or goes.</summary>
    private static string? SetThere(Publication publication, IReadOnlyCollection<int> frames, bool clear)
    {
        var own = frames.Select(id => publication.Frames[id].Own).Where(o => !o.IsOpen).ToList();
        if (own.Count == 0) return null;
        string settings = string.Join(", ", SettingText.All.Where(s => own.Any(o => o.IsSet(s))).Select(s => SettingText.Label(s).ToLowerInvariant()));
        string frame = Words.Count(own.Count, "frame has settings of its own", "frames have settings of their own");
        return clear ? $"{frame}, which go: {settings}."
            : $"{frame}, which stay over the rule: {settings}. To let the rule have its way, choose to clear them.";
    }

    protected override ImmutableDictionary<int, FittingRule> PartsOf(Publication publication) => publication.Rules;
}
