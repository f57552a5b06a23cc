using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Output;
using Formatum.Storage;
using Formatum.Web.Fonts;
using Formatum.Web.Hosting;
using Formatum.Web.Styles;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Pages;

/// <summary>House style, Words: the fonts a publication is set in, those that it brought itself, and where each is used.</summary>
public sealed class FontsModel(PublicationStore store, HeavyWork heavy) : PageModel
{
    public required Standing Standing { get; set; }
    public required ImmutableArray<FontUse> Families { get; set; }

    public async Task OnGetAsync(int id)
    {
        Standing = await store.OpenAsync(id);
        Families = await heavy.RunAsync(_ => FontUse.Of(Standing.Publication), HttpContext.RequestAborted);
    }

    /// <summary>Removes a face, or a family with all its faces: first what that would do, then, once that has been seen, does it.</summary>
    public async Task<IActionResult> OnPostRemoveAsync(int id, string fonts, string? instead, bool sure, long seen)
    {
        var standing = await store.OpenAsync(id);
        var ids = fonts.Split(',').Select(f => int.TryParse(f, CultureInfo.InvariantCulture, out int known) ? known : 0).ToImmutableArray();
        var edit = new RemoveFonts(ids, string.IsNullOrEmpty(instead) ? null : instead);
        if (sure)
        {
            await store.EditAsync(id, edit, HttpContext.Seen(seen));
            return this.GoTo($"/publications/{id}/fonts");
        }
        var values = new Dictionary<string, string>
        {
            ["fonts"] = fonts,
            ["instead"] = instead ?? "",
            ["seen"] = standing.Revision.ToString(CultureInfo.InvariantCulture),
        };
        var (after, impact) = await heavy.RunAsync(_ =>
        {
            var after = standing.Publication.With(edit.On(standing.Publication));
            return (after, TextImpact.Of(standing.Publication, after, Typefaces.All));
        }, HttpContext.RequestAborted);
        string what = standing.Publication.Fonts[ids[0]] is var font && ids.Length == 1 ? $"{font.Family}, {font.Face.ToLowerInvariant()}" : font.Family;
        return Partial("_TextImpact", new TextImpactView(standing, after, impact, $"Remove {what}", "Remove", values, []));
    }

    public async Task<IActionResult> OnPostHistoryAsync(int id, string @do, long seen)
    {
        if (@do == "redo") await store.RedoAsync(id, HttpContext.Seen(seen));
        else await store.UndoAsync(id, HttpContext.Seen(seen));
        return this.GoTo($"/publications/{id}/fonts");
    }

    /// <summary>How text of a family would be set, in one of its faces.</summary>
    public TextStyle StyleOf(string family, bool bold, bool italic) => new()
    {
        Family = family,
        Files = Standing.Publication.FilesOf(family),
        Bold = bold,
        Italic = italic,
    };
}
