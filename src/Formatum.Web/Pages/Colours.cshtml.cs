using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Output.Press;
using Formatum.Storage;
using Formatum.Web.Colours;
using Formatum.Web.Hosting;
using Formatum.Web.Links;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Pages;

/// <summary>House style, Colours: the palette, changed with every frame it would touch, taken from files and pictures.</summary>
public sealed class ColoursModel(PublicationStore store, HeavyWork heavy, MainColours mainColours, ProfileStore profiles, PreviewMaker previews)
    : HouseStyleModel<PaletteColour>(store, "colours", "colour", "colour")
{
    public required ColourSheet Sheet { get; set; }

    public Publication Publication => Sheet.Standing.Publication;

    /// <summary>The palette in the order it was made.</summary>
    public IEnumerable<PaletteColour> Palette => Publication.Colours.Values.OrderBy(c => c.Id);

    /// <summary>How a colour of the palette will print.</summary>
    public PrintedColour Printed(PaletteColour colour) => PrintedColour.Of(colour.Colour, Sheet.Press);

    /// <summary>The colours that something names.</summary>
    public IReadOnlySet<int> Used => field ??= ColourUse.Ids(Publication).ToHashSet();

    public async Task<IActionResult> OnGetAsync(int id, string? colour, string? start)
    {
        var standing = await Store.OpenAsync(id);
        if (colour is null && standing.Publication.Colours.Count > 0)
            return Redirect(Address(id, standing.Publication.Colours.Keys.Min()));
        var shown = PartIn(standing.Publication, colour);
        var form = ColourForm.Of(shown, PressOf(standing.Publication.Setup), RgbColour.TryParse(start, out var rgb) ? rgb : null);
        form.Seen = standing.Revision;
        Sheet = await SheetAsync(standing, shown, form);
        return Page();
    }

    /// <summary>What the form as it is typed would come to.</summary>
    public async Task<IActionResult> OnPostPreviewAsync(int id, string? colour, ColourForm form)
    {
        var standing = await Store.OpenAsync(id);
        return Partial("_ColourUnderWay", await SheetAsync(standing, PartIn(standing.Publication, colour), form));
    }

    private Task<ColourSheet> SheetAsync(Standing standing, PaletteColour? colour, ColourForm form) =>
        heavy.RunAsync(_ => new ColourSheet(standing, colour, form, PressOf(standing.Publication.Setup)), HttpContext.RequestAborted);

    /// <summary>Four inks in general, where the publication's own press has gone.</summary>
    private PressConversion PressOf(Setup setup)
    {
        try
        {
            return profiles.PressOf(setup);
        }
        catch (BadProfile)
        {
            return profiles.PressOf(setup with { Press = null });
        }
    }

    public async Task<IActionResult> OnPostApplyAsync(int id, string? colour, ColourForm form)
    {
        var errors = new FieldErrors();
        var edit = form.Read(PartIn((await Store.OpenAsync(id)).Publication, colour), errors);
        errors.ThrowIfAny();
        var outcome = await Store.EditAsync(id, edit, HttpContext.Seen(form.Seen));
        return this.GoTo(Address(id, outcome.Changes.Items.Where(c => c.Key.Kind == PartKind.Colour).Select(c => (int?)c.Key.Id).FirstOrDefault()
            ?? edit.ColourId));
    }

    /// <summary>Removes the colour: first what that would do, then, once that has been seen, does it.</summary>
    public async Task<IActionResult> OnPostRemoveAsync(int id, string? colour, int? instead, bool sure, long seen)
    {
        var standing = await Store.OpenAsync(id);
        var of = PartIn(standing.Publication, colour) ?? throw new EditRefused("colour", "No colour is named. Choose one first.");
        var edit = new RemoveColours([of.Id], instead is { } other ? new NamedColour(other) : null);
        if (sure)
        {
            await Store.EditAsync(id, edit, HttpContext.Seen(seen));
            return this.GoTo(Address(id, instead));
        }
        var values = new Dictionary<string, string>
        {
            ["instead"] = instead?.ToString(CultureInfo.InvariantCulture) ?? "",
            ["seen"] = standing.Revision.ToString(CultureInfo.InvariantCulture),
        };
        var after = standing.Publication.With(edit.On(standing.Publication));
        var frames = instead is null ? [] : ColourUse.Of(standing.Publication, of.Id).Frames;
        return Partial("_FrameImpact", new FrameImpactView(new(standing, after, frames), $"Remove {of.Name}", "Remove", values));
    }

    /// <summary>Takes a palette file in.</summary>
    public async Task<IActionResult> OnPostImportAsync(int id, IFormFile? file, long seen)
    {
        if (file is null) throw new EditRefused("file", "Choose a palette file.");
        if (file.Length > PaletteFile.MostBytes) throw new EditRefused("file", "It is larger than 1 MB, which no palette is. Choose another file.");
        await using var bytes = new MemoryStream();
        await using (var content = file.OpenReadStream()) await content.CopyToAsync(bytes);
        await Store.EditAsync(id, new TakePalette([.. PaletteFile.Read(bytes.ToArray())]), HttpContext.Seen(seen));
        return this.GoTo(Address(id, null));
    }

    /// <summary>Takes the usual colours in, those of the same name staying as they are.</summary>
    public async Task<IActionResult> OnPostUsualAsync(int id, long seen)
    {
        var there = (await Store.OpenAsync(id)).Publication.Colours.Values.Select(c => c.Name).ToHashSet(StringComparer.OrdinalIgnoreCase);
        await Store.EditAsync(id, new TakePalette([.. PaletteColour.Usual(1).Where(c => !there.Contains(c.Name))]), HttpContext.Seen(seen));
        return this.GoTo(Address(id, null));
    }

    /// <summary>The main colours of a picture.</summary>
    public async Task<IActionResult> OnGetMainAsync(int id, int image)
    {
        var publication = (await Store.OpenAsync(id)).Publication;
        var of = publication.Images.GetValueOrDefault(image) ?? throw new EditRefused("image", "That image is no longer in the publication.");
        await previews.MakeMissingAsync([of]);
        var found = await heavy.RunAsync(_ => mainColours.Of(of.ContentHash), HttpContext.RequestAborted);
        return Partial("_MainColours", (id, of.Name, found));
    }

    public Task<IActionResult> OnPostHistoryAsync(int id, string? colour, string @do, long seen) => StepAsync(id, colour, @do, seen);

    protected override ImmutableDictionary<int, PaletteColour> PartsOf(Publication publication) => publication.Colours;
}
