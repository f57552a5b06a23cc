using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Output;
using Formatum.Storage;
using Formatum.Web.Hosting;
using Formatum.Web.Styles;
using Formatum.Web.Wording;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Pages;

/// <summary>House style, Words: paragraph and character styles, each shown on words of the publication, changed with every text frame it would touch.</summary>
public sealed class WordsModel(PublicationStore store, HeavyWork heavy)
    : HouseStyleModel<NamedStyle>(store, "words", "style", "style")
{
    public required StyleSheet Sheet { get; set; }

    public Publication Publication => Sheet.Standing.Publication;

    /// <summary>The styles of a kind in the order of the list, each with how far it stands from its root.</summary>
    public IEnumerable<(NamedStyle Style, int Depth)> Tree(StyleKind kind)
    {
        var children = Publication.Styles.Values.Where(s => s.Kind == kind).OrderBy(s => s.Name, StringComparer.OrdinalIgnoreCase).ToLookup(s => s.BasedOnId);
        return Under(null, 0);

        IEnumerable<(NamedStyle Style, int Depth)> Under(int? id, int depth) =>
            children[id].SelectMany(style => Under(style.Id, depth + 1).Prepend((style, depth)));
    }

    public async Task<IActionResult> OnGetAsync(int id, string? style, StyleKind kind)
    {
        var standing = await Store.OpenAsync(id);
        var publication = standing.Publication;
        if (style is null && !publication.Styles.IsEmpty)
            return Redirect(Address(id, publication.Styles.Values.OrderBy(s => s.Kind).ThenBy(s => s.BasedOnId ?? 0).ThenBy(s => s.Name,
                StringComparer.OrdinalIgnoreCase).First().Id));
        var shown = PartIn(publication, style);
        var form = StyleForm.Of(publication, shown, kind);
        form.Seen = standing.Revision;
        Sheet = await SheetAsync(standing, shown, form);
        return Page();
    }

    /// <summary>What the form as it is typed would come to.</summary>
    public async Task<IActionResult> OnPostPreviewAsync(int id, string? style, StyleForm form)
    {
        var standing = await Store.OpenAsync(id);
        return Partial("_StyleUnderWay", await SheetAsync(standing, PartIn(standing.Publication, style), form));
    }

    private Task<StyleSheet> SheetAsync(Standing standing, NamedStyle? style, StyleForm form) =>
        heavy.RunAsync(_ => new StyleSheet(standing, style, form), HttpContext.RequestAborted);

    public async Task<IActionResult> OnPostApplyAsync(int id, string? style, StyleForm form)
    {
        var publication = (await Store.OpenAsync(id)).Publication;
        var errors = new FieldErrors();
        var edit = form.Read(publication, PartIn(publication, style)?.Id, errors);
        errors.ThrowIfAny();
        var outcome = await Store.EditAsync(id, edit, HttpContext.Seen(form.Seen));
        var made = outcome.Changes.Items.Where(c => c.Key.Kind == PartKind.Style && c.Before is null).Select(c => c.After).OfType<NamedStyle>()
            .FirstOrDefault();
        return this.GoTo(Address(id, made?.Id ?? edit.StyleId));
    }

    public async Task<IActionResult> OnPostDuplicateAsync(int id, string? style)
    {
        var standing = await Store.OpenAsync(id);
        var of = PartNamed(standing.Publication, style);
        string name = NameOfCopy(of.Name, standing.Publication.Styles.Values.Select(p => p.Name), NamedStyle.LongestName);
        var outcome = await Store.EditAsync(id, new DefineStyle { Kind = of.Kind, Name = name, BasedOnId = of.BasedOnId, Settings = of.Settings },
            HttpContext.Seen(standing.Revision));
        return this.GoTo(Address(id, outcome.Changes.Items.Single().Key.Id));
    }

    /// <summary>Removes the style: first what that would do, then, once that has been seen, does it.</summary>
    public async Task<IActionResult> OnPostRemoveAsync(int id, string? style, int? instead, bool keep, bool sure, long seen)
    {
        var standing = await Store.OpenAsync(id);
        var of = PartNamed(standing.Publication, style);
        var edit = new RemoveStyle(of.Id, instead, keep);
        if (sure)
        {
            await Store.EditAsync(id, edit, HttpContext.Seen(seen));
            return this.GoTo(Address(id, instead));
        }
        var values = new Dictionary<string, string>
        {
            ["instead"] = Text(instead),
            ["keep"] = keep ? "true" : "false",
            ["seen"] = Text((int)standing.Revision)
        };
        var (after, impact) = await heavy.RunAsync(_ =>
        {
            var after = standing.Publication.With(edit.On(standing.Publication));
            return (after, TextImpact.Of(standing.Publication, after, Typefaces.All));
        }, HttpContext.RequestAborted);
        return Partial("_TextImpact", new TextImpactView(standing, after, impact, $"Remove {of.Name}", "Remove", values, []));
    }

    public Task<IActionResult> OnPostHistoryAsync(int id, string? style, string @do, long seen) => StepAsync(id, style, @do, seen);

    protected override ImmutableDictionary<int, NamedStyle> PartsOf(Publication publication) => publication.Styles;
}
