using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Pictures;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.Net.Http.Headers;

namespace Formatum.Web.Api;

/// <summary>Pictures brought in by jobs that go on while people work, whether or not their page is still open.</summary>
public static class ImportEndpoints
{
    public static void Map(RouteGroupBuilder publication)
    {
        var jobs = publication.MapGroup("/imports");
        jobs.MapGet("", (int id, ImportJobs all) => all.Of(id)).WithSummary("Jobs that bring pictures in: those under way, and those that ended since the server started.");
        jobs.MapPost("", Begin).WithSummary("Brings files in as a job: pictures, or ZIPs of them, as parts named files.").Accepts<IFormFile>("multipart/form-data").DisableAntiforgery();
        jobs.MapPost("/folder", LinkFolder).WithSummary("Links the pictures of a folder on the server as a job.");
        jobs.MapGet("/{jobId}", (int id, string jobId, ImportJobs all) => all.Find(id, jobId) is { } found ? Results.Ok(found) : throw new EditRefused("jobId", "There is no such job any more.")).WithSummary("How far a job is.");
        jobs.MapDelete("/{jobId}", (int id, string jobId, ImportJobs all) => all.Stop(id, jobId) ? Results.NoContent() : throw new EditRefused("jobId", "There is no such job any more.")).WithSummary("Stops a job; what was read by then comes in.");
    }

    private static async Task<IResult> Begin(int id, HttpContext context, PublicationStore store, ImportJobs jobs)
    {
        await store.OpenAsync(id);
        var parts = PartsOf(context);
        string job = jobs.Begin(id);
        try
        {
            await ReadFilesAsync(parts, (name, content) => jobs.AddSentAsync(job, name, content, context.RequestAborted), context.RequestAborted);
        }
        finally
        {
            // Also where the sender went away half way: what arrived is read.
            jobs.AllAdded(job);
        }
        return Results.Accepted($"/api/publications/{id}/imports/{job}", jobs.Find(id, job));
    }

    private static async Task<IResult> LinkFolder(int id, FolderBody body, PublicationStore store, PictureIntake intake, ImportJobs jobs)
    {
        await store.OpenAsync(id);
        var files = intake.FilesIn(body.Folder, body.Within ?? false);
        if (files.Count == 0) throw new EditRefused("folder", "There are no files in this folder.");
        string job = jobs.Begin(id);
        _ = Task.Run(async () =>
        {
            await jobs.AddLinkedAsync(job, files);
            jobs.AllAdded(job);
        });
        return Results.Accepted($"/api/publications/{id}/imports/{job}", jobs.Find(id, job));
    }

    /// <summary>The parts of a request with files, however large it is.</summary>
    internal static MultipartReader PartsOf(HttpContext context)
    {
        if (context.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } size) size.MaxRequestBodySize = null;
        if (!MediaTypeHeaderValue.TryParse(context.Request.ContentType, out var type) || type.MediaType != "multipart/form-data" || HeaderUtilities.RemoveQuotes(type.Boundary).Value is not { Length: > 0 } boundary)
            throw new EditRefused("files", "Send the pictures as multipart/form-data, each as a part named \"files\".");
        return new(boundary, context.Request.Body);
    }

    /// <summary>Takes the files of a request one by one, as they arrive.</summary>
    /// <exception cref="EditRefused">There are none.</exception>
    internal static async Task ReadFilesAsync(MultipartReader parts, Func<string, Stream, Task> take, CancellationToken cancel)
    {
        int files = 0;
        try
        {
            while (await parts.ReadNextSectionAsync(cancel) is { } part)
            {
                if (part.GetContentDispositionHeader() is not { } disposition || !disposition.IsFileDisposition()) continue;
                files++;
                await take(NameOf(disposition), part.Body);
            }
        }
        catch (InvalidDataException e)
        {
            throw new BadHttpRequestException("The multipart body is broken: " + e.Message, e);
        }
        if (files == 0) throw new EditRefused("files", "No file came with the request. Send each picture as a part named \"files\".");
    }

    /// <summary>The name a file was sent under. Browsers send a quote in it as %22, and nothing else encoded (WHATWG HTML, multipart/form-data).</summary>
    private static string NameOf(ContentDispositionHeaderValue disposition) => disposition.FileNameStar.Value
        ?? HeaderUtilities.UnescapeAsQuotedString(disposition.FileName).Value?.Replace("%22", "\"", StringComparison.Ordinal) ?? "";
}
