using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Documents;
using Formatum.Imaging;
using Formatum.Storage;
using Formatum.Web.Checking;
using Formatum.Web.Desk;
using Formatum.Web.Desk.Commands;
using Formatum.Web.Hosting;
using Formatum.Web.Links;
using Formatum.Web.Outputs;
using Formatum.Web.Wording;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Pages;

/// <summary>The Desk: a spread, where frames are made and filled.</summary>
public sealed class DeskModel(PublicationStore store, ServerOptions options, SubjectFinder finder, ContourFinder contours, PreviewMaker previews,
    TableShelf tables,
    CopiedFrames copied, PicturePixels pixels, Checker checker, HeavyWork heavy, DocumentsApart documents)
    : PageModel
{
    public required DeskView View { get; set; }

    public ServerOptions Options => options;

    public async Task<IActionResult> OnGetAsync(int id, int? spread, string? frame)
    {
        View = DeskView.Of(await store.OpenAsync(id), spread ?? 1, frame);
        return Page();
    }

    /// <summary>The inspector for the chosen frames, or for the publication where none is chosen; from inside a picture where somebody went there.</summary>
    public async Task<IActionResult> OnGetInspectorAsync(int id, int spread, string? frames, bool inside, string? range) =>
        Partial("_Inspector", DeskView.Of(await store.OpenAsync(id), spread, frames, inside) with { Range = DeskView.RangeOf(range) });

    /// <summary>What pouring the tray would come to.</summary>
    public async Task<IActionResult> OnGetPourAsync(int id, int spread, PourForm form) =>
        Partial("_Pour", await PourAsync(await store.OpenAsync(id), spread, form));

    private Task<PourView> PourAsync(Standing standing, int spread, PourForm form) =>
        heavy.RunAsync(_ => PourView.Of(DeskView.Of(standing, spread), form), HttpContext.RequestAborted);

    public async Task<IActionResult> OnPostPourAsync(int id, int spread, long seen, PourForm form)
    {
        using var place = await heavy.TakeAsync(HttpContext.RequestAborted);
        var outcome = await OnceAsync(id, seen, async once => await store.EditAsync(id, form.ToEdit(Ground.Of(await store.OpenAsync(id), spread)), once));
        return new JsonResult(PourTold.Of(outcome));
    }

    /// <summary>What pouring a table would come to: one that is sent, or one that was put aside.</summary>
    public async Task<IActionResult> OnPostRowsAsync(int id, int spread, RowsForm form, IFormFile? file)
    {
        if (file is not null)
        {
            await using var content = file.OpenReadStream();
            form = form with { Token = await tables.KeepAsync(content) };
        }
        var table = tables.Read(form.Token, form.Encoding);
        return Partial("_Rows", RowsView.Of(DeskView.Of(await store.OpenAsync(id), spread), form with { EncodingUnclear = tables.IsUnclear(form.Token) },
            table));
    }

    public async Task<IActionResult> OnPostTakeRowsAsync(int id, int spread, long seen, RowsForm form)
    {
        using var place = await heavy.TakeAsync(HttpContext.RequestAborted);
        var table = tables.Read(form.Token, form.Encoding);
        var outcome = await OnceAsync(id, seen, async once =>
            await store.EditAsync(id, RowsView.Edit(DeskView.Of(await store.OpenAsync(id), spread), form, table), once));
        int added = outcome.Standing.Publication.PageCount - outcome.Before.PageCount;
        return new JsonResult(new
        {
            words = $"{Words.Count(table.Rows.Length, "row")} poured{(added > 0 ? $", {Words.Count(added, "page")} added" : "")}. " +
            $"Undo takes it all back."
        });
    }

    /// <summary>A text frame's text, to type in.</summary>
    public async Task<IActionResult> OnGetWritingAsync(int id, int spread, string? frames)
    {
        var standing = await store.OpenAsync(id);
        var publication = standing.Publication;
        var view = DeskView.Of(standing, spread, frames);
        return view.Chosen is [{ IsText: true } frame] && publication.StoryOf(frame) is { } story
            ? new JsonResult(new
            {
                frame.Label,
                text = story.Text.Plain,
                revision = standing.Revision,
                places = TextPlaces.Of(publication, view.Spread, story, story.Text.Plain.Length)
            })
            : throw new EditRefused("frame", "That text frame is no longer there. It may have been removed in another window.");
    }

    /// <summary>Where a place in a text stands on this spread, and the paragraph about it; nothing where it stands on another.</summary>
    public async Task<IActionResult> OnGetCaretAsync(int id, int spread, int frame, int place)
    {
        var standing = await store.OpenAsync(id);
        var publication = standing.Publication;
        return publication.Frames.GetValueOrDefault(frame) is { IsText: true } of && publication.StoryOf(of) is { } story
            ? new JsonResult(CaretPlace.Of(publication, Ground.Of(standing, spread).Spread, story, place)) : new JsonResult(null);
    }

    /// <summary>Brings the words of a document into a text frame or an empty one, or into a frame of their own where it was dropped.</summary>
    public async Task<IActionResult> OnPostWordsAsync(int id, int spread, long seen, IFormFile? file, int? frame, double toX, double toY)
    {
        if (file is null) throw new EditRefused("file", "Choose a document to bring in.");
        await using var content = file.OpenReadStream();
        var read = await documents.ReadAsync(file.FileName, content, HttpContext.RequestAborted);
        var outcome = await OnceAsync(id, seen, async once =>
        {
            var (page, box) = WordsPlace.Of(Ground.Of(await store.OpenAsync(id), spread), new(toX, toY));
            return await store.EditAsync(id, new BringWords(read.Paragraphs, frame, page, box, file.FileName), once);
        });
        int made = outcome.Changes.Items.Count(c => c.Key.Kind == PartKind.Style);
        int into = frame ?? outcome.Changes.Items.First(c => c.Key.Kind == PartKind.Frame && c.Before is null).Key.Id;
        return new JsonResult(new { frame = into, words = WordsPlace.Report(file.FileName, read, made) });
    }

    /// <summary>Looks for words in the texts; with the card to type in where that is asked for.</summary>
    public async Task<IActionResult> OnGetFindAsync(int id, FindForm form, bool card, string? chosen)
    {
        var standing = await store.OpenAsync(id);
        var publication = standing.Publication;
        int? text = DeskView.Ids(chosen).Select(publication.Frames.GetValueOrDefault).FirstOrDefault(f => f is { IsText: true })?.Id;
        var found = string.IsNullOrEmpty(form.Find) || form.Find.Length > WordSearch.Longest ? null
            : await heavy.RunAsync(_ => WordsFound.Of(publication, form.Search, form.Frame), HttpContext.RequestAborted);
        return Partial(card ? "_Find" : "_Found", new FindView(id, publication, standing.Revision, form.Find ?? "", text, found));
    }

    public async Task<IActionResult> OnPostReplaceAsync(int id, long seen, FindForm form)
    {
        var outcome = await OnceAsync(id, seen, once => store.EditAsync(id, new ReplaceWords(form.Search, form.With ?? "", form.Frame), once));
        int count = WordsFound.Of(outcome.Before, form.Search, form.Frame).Count;
        int texts = outcome.Changes.Items.Count(c => c.Key.Kind == PartKind.Story);
        return new JsonResult(new { words = $"Replaced {Words.Count(count, "time")} in {Words.Count(texts, "text")}. Undo takes it all back." });
    }

    /// <summary>Where pictures that have just come in may go.</summary>
    public async Task<IActionResult> OnGetArrivalsAsync(int id, int spread, string? images, string? frames, double toX, double toY) =>
        Partial("_Arrivals", ArrivalsView.Of(DeskView.Of(await store.OpenAsync(id), spread, frames), [.. DeskView.Ids(images)], new(toX, toY)));

    /// <summary>Keeps what was copied as it is now.</summary>
    public async Task<IActionResult> OnPostCopyAsync(int id, string? token)
    {
        copied.Keep(token, (await store.OpenAsync(id)).Publication);
        return new NoContentResult();
    }

    /// <summary>What going back in the history would take from others, in words; empty where nothing.</summary>
    public async Task<IActionResult> OnGetGoingBackAsync(int id, long to) => Content(await store.OthersSinceAsync(id, to, HttpContext.Maker()) ?? "",
        "text/plain");

    /// <summary>Another spread, to be shown in place of the one there is.</summary>
    /// <param name="id">The publication.</param>
    /// <param name="spread">The spread.</param>
    /// <param name="folio">A page by the number it bears, whose spread is meant instead; where there is no such page, the spread stays.</param>
    /// <param name="frames">The frames to choose on it.</param>
    /// <param name="images">How many images the contact sheet shows.</param>
    public async Task<IActionResult> OnGetTurnAsync(int id, int spread, string? folio, string? frames, int images)
    {
        var standing = await store.OpenAsync(id);
        var publication = standing.Publication;
        // Both numbers of a spread may stand there, as the field shows them.
        string asked = (folio ?? "").Split('-', '\u2013')[0].Trim();
        int index = int.TryParse(asked, System.Globalization.CultureInfo.InvariantCulture, out int number) ? number - publication.Setup.FirstFolio : -1;
        bool isThere = index >= 0 && index < publication.PageCount;
        if (isThere) spread = Spread.NumberOfPage(publication, publication.Order.Ids[index]);
        var view = DeskView.Of(standing, spread, frames) with
        {
            ImagesShown = images,
            Turns = true,
            Told = asked.Length == 0 || isThere ? "" : $"There is no page \u201c{asked}\u201d. Pages go from {publication.Setup.FirstFolio} to " +
                $"{publication.Setup.FirstFolio + publication.PageCount - 1}."
        };
        Response.Headers["Formatum-Answer"] = view.Head();
        return Partial("_Turn", view);
    }

    /// <summary>Everything that another window may have changed.</summary>
    /// <param name="id">The publication.</param>
    /// <param name="spread">The spread.</param>
    /// <param name="frames">The chosen frames.</param>
    /// <param name="inside">Whether the hand is inside a picture.</param>
    /// <param name="images">How many images the contact sheet shows.</param>
    /// <param name="range">The stretch of a text that is meant while it is typed in.</param>
    public async Task<IActionResult> OnGetRefreshAsync(int id, int spread, string? frames, bool inside, int images, string? range)
    {
        var view = DeskView.Of(await store.OpenAsync(id), spread, frames, inside) with { ImagesShown = images, Range = DeskView.RangeOf(range) };
        Response.Headers["Formatum-Answer"] = view.Head();
        return Partial("_Refresh", view);
    }

    /// <summary>What can be taken away, and what is worth knowing before.</summary>
    public async Task<IActionResult> OnGetOutputAsync(int id, int spread) => Partial("_Output",
        await OutputOfAsync(id, spread));

    private async Task<OutputView> OutputOfAsync(int id, int spread)
    {
        var view = DeskView.Of(await store.OpenAsync(id), spread);
        return new(view, await BeforeOutput.OfAsync(checker, view.Standing, Recipe.Usual[0], null));
    }

    /// <summary>All that was done, newest first.</summary>
    public async Task<IActionResult> OnGetHistoryAsync(int id) => Partial("_HistoryList",
        new HistoryView(await store.HistoryAsync(id, 500), HttpContext.Maker()));

    /// <summary>A spread in small, for the film strip.</summary>
    public async Task<IActionResult> OnGetMiniatureAsync(int id, int spread)
    {
        var view = DeskView.Of(await store.OpenAsync(id), spread);
        return Content(SpreadView.Miniature(view.Publication, view.Spread, $"mini{spread}-"), "text/html");
    }

    /// <summary>A further stretch of the film strip; the strip as it begins about a spread, where none is named.</summary>
    public async Task<IActionResult> OnGetStripAsync(int id, int spread, int? from, int? to)
    {
        var publication = (await store.OpenAsync(id)).Publication;
        string address = $"/publications/{id}/desk";
        return Content(from is { } first && to is { } last ? FilmStrip.More(publication, address, spread, first, last)
            : FilmStrip.Of(publication, address, spread), "text/html");
    }

    /// <summary>A further stretch of the contact sheet.</summary>
    public async Task<IActionResult> OnGetSheetAsync(int id, int after) => Partial("_SheetItems",
        new SheetView((await store.OpenAsync(id)).Publication, after));

    /// <summary>The card on which an image's subject point is set.</summary>
    public async Task<IActionResult> OnGetSubjectAsync(int id, int image) => Subject(await store.OpenAsync(id), image);

    /// <summary>Sets, accepts or clears a subject point from its card.</summary>
    public async Task<IActionResult> OnPostSubjectAsync(int id, int spread, [FromBody] DeskRequest? request) =>
        Read(request) is SubjectGesture { Image: var image } gesture ? Subject((await HandOf(id, spread, request!).DoAsync(gesture)).Standing, image ?? 0)
            : throw Unreadable();

    private PartialViewResult Subject(Standing standing, int imageId) =>
        standing.Publication.Images.TryGetValue(imageId, out var image) ? Partial("_Subject", new SubjectView(image, standing.Publication.Setup))
            : throw new EditRefused("image", "That image is no longer in the publication. It may have been removed in another window.");

    /// <summary>Suggests subject points: for one image, or for every image that has none.</summary>
    public async Task<IActionResult> OnPostSuggestAsync(int id, int? image, long seen)
    {
        var standing = await store.OpenAsync(id);
        var images = standing.Publication.Images.Values.Where(i => image is { } only ? i.Id == only : i.Subject is null).OrderBy(i => i.Id).ToList();
        await previews.MakeMissingAsync(images);
        var found = await Task.Run(() => images.Select(i => new SubjectOf(i.Id, i.Subject, finder.Suggest(i))).Where(s => s.Suggested is not null)
            .ToImmutableArray());
        if (found.IsEmpty)
            throw new EditRefused("image", images.Count == 0 ? "Every image has a subject point already."
                : "No subject could be suggested: the previews are gone. Link the pictures anew.");
        var outcome = await store.EditAsync(id, new ChangeSubjects(found), HttpContext.Seen(seen));
        return image is { } one ? Subject(outcome.Standing, one) : new NoContentResult();
    }

    /// <summary>Does something and answers with what changed.</summary>
    public async Task<IActionResult> OnPostAsync(int id, int spread, [FromBody] DeskRequest? request)
    {
        var command = Read(request);
        var outcome = await HandOf(id, spread, request!).DoAsync(command);
        // What was made here is chosen; undoing a removal makes frames as well, but they were not asked for.
        var pages = Ground.Of(outcome.Standing, spread).Spread.Pages.Select(p => p.Page.Id).ToHashSet();
        var made = outcome.Changes.Items.Where(c => c.Before is null).Select(c => c.After).OfType<Frame>().Where(f => pages.Contains(f.PageId)).ToList();
        string? chosen = made.Count > 0 ? string.Join(',', made.Select(f => f.Id)) : command.Keep ?? command.Frames;
        var answer = new DeskAnswer(DeskView.Of(outcome.Standing, spread, chosen, request!.Inside) with
        {
            ImagesShown = request.Images,
            Range = DeskView.RangeOf(request.Range)
        }, outcome, command.GoesThere);
        Response.Headers["Formatum-Answer"] = answer.Head();
        return Partial("_DeskAnswer", answer);
    }

    private Task<EditOutcome> OnceAsync(int id, long seen, Func<Seen, Task<EditOutcome>> make)
    {
        var once = HttpContext.Seen(seen);
        return store.OnceAsync(id, once, () => make(once));
    }

    private Hand HandOf(int id, int spread, DeskRequest request) => new(store, copied, contours, previews, pixels, id, spread, HttpContext.Seen(request.Seen));

    private static DeskCommand Read(DeskRequest? request) => request?.Command ?? throw Unreadable();

    private static EditRefused Unreadable() =>
        new("do", "This cannot be read as anything that is done on the Desk. Load the page anew, and do it again.");
}
