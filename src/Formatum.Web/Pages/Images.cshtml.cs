using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Storage;
using Formatum.Web.Checking;
using Formatum.Web.Desk;
using Formatum.Web.Hosting;
using Formatum.Web.Links;
using Formatum.Web.Pictures;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Pages;

/// <summary>Images: all that a publication links, how their files stand, and where they are used.</summary>
public sealed class ImagesModel(PublicationStore store, Checker checker, LinkStates states, LinkUpdates updates, PictureIntake intake, ContourFinder contours,
    ServerOptions options) : PageModel
{
    public required Standing Standing { get; set; }

    public required ImageListView List { get; set; }

    public ServerOptions Options => options;

    public async Task OnGetAsync(int id, ImageQuery query)
    {
        Standing = await store.OpenAsync(id);
        List = ImageListView.Of(Standing, await checker.OfAsync(Standing), query, states);
    }

    public async Task<IActionResult> OnGetListAsync(int id, ImageQuery query)
    {
        var standing = await store.OpenAsync(id);
        return Partial("_ImageList", ImageListView.Of(standing, await checker.OfAsync(standing), query, states));
    }

    public async Task<IActionResult> OnGetCardAsync(int id, int image)
    {
        var standing = await store.OpenAsync(id);
        return standing.Publication.Images.TryGetValue(image, out var meant) ? Partial("_ImageCard",
            new ImageCardView(id, standing.Publication, ImageQuery.Row(await checker.OfAsync(standing), meant, states),
            !meant.Path.StartsWith(options.PictureFolder, StringComparison.Ordinal))) : NotFound();
    }

    /// <summary>What updating changed links would do; all that changed, or those named.</summary>
    public async Task<IActionResult> OnGetUpdateAsync(int id, string? images) => Partial("_UpdateProposal", await ProposalAsync(id, images, null));

    /// <summary>What linking images in another folder would do; all that are missing, or those named.</summary>
    public async Task<IActionResult> OnGetRelinkAsync(int id, string? images, string folder) =>
        Partial("_UpdateProposal", await ProposalAsync(id, images, folder));

    /// <summary>Makes the change that was proposed.</summary>
    public async Task<IActionResult> OnPostUpdateAsync(int id, string? images, string? folder, long? seen)
    {
        var proposal = await ProposalAsync(id, images, folder);
        await store.EditAsync(id, new UpdateImages(proposal.Images, folder is null ? "Update image" : "Relink image"), HttpContext.Seen(seen));
        return new NoContentResult();
    }

    /// <summary>Another file in the place of an image's, such as the original edited elsewhere.</summary>
    public async Task<IActionResult> OnPostReplaceAsync(int id, int image, IFormFile file, long seen, CancellationToken cancel)
    {
        var was = (await store.OpenAsync(id)).Publication.Images.GetValueOrDefault(image) ??
            throw new EditRefused("image", "That image is no longer in the publication.");
        await using var content = file.OpenReadStream();
        var now = await intake.KeepAsync(file.FileName, content, cancel);
        await store.EditAsync(id, new UpdateImages([contours.AsStrongAs(now, was) with { Id = was.Id }], "Replace file of image"), HttpContext.Seen(seen));
        return new NoContentResult();
    }

    /// <summary>Puts images in the tray, or removes those that are placed nowhere.</summary>
    public async Task<IActionResult> OnPostAsync(int id, string @do, string? images, long seen)
    {
        ImmutableArray<int> ids = [.. DeskView.Ids(images)];
        var outcome = @do switch
        {
            "undo" => await store.UndoAsync(id, HttpContext.Seen(seen)),
            "redo" => await store.RedoAsync(id, HttpContext.Seen(seen)),
            "tray-add" => await store.EditAsync(id, new ChangeTray(ids, TrayMove.Add), HttpContext.Seen(seen)),
            "unlink" => await store.EditAsync(id, new UnlinkImages(ids), HttpContext.Seen(seen)),
            _ => throw new EditRefused("do", $"Nothing is done by \"{@do}\"."),
        };
        return new JsonResult(new { outcome.Words });
    }

    private async Task<UpdateProposal> ProposalAsync(int id, string? images, string? folder)
    {
        var standing = await store.OpenAsync(id);
        List<int> ids = [.. DeskView.Ids(images)];
        var values = new Dictionary<string, string> { ["seen"] = $"{standing.Revision}", ["images"] = images ?? "" };
        if (folder is not null) values["folder"] = folder;
        return await Task.Run(async () =>
        {
            var matches = folder is null ? updates.Changed(standing.Publication, ids) : updates.InFolder(standing.Publication, ids, folder);
            var (read, problems) = await updates.ReadAsync(matches);
            return UpdateProposal.Of(standing.Publication, read, problems, values);
        });
    }
}
