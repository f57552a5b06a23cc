using System.Text.Json;
using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Hosting;
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
        jobs.MapGet("", (int id, ImportJobs all) => all.Of(id))
            .WithSummary("Jobs that bring pictures in: those under way, and those that ended since the server started.");
        jobs.MapPost("", Begin).WithSummary("Brings files in as a job: pictures, or ZIPs of them, as parts named files.")
            .Accepts<IFormFile>("multipart/form-data").DisableAntiforgery();
        jobs.MapPost("/folder", LinkFolder).WithSummary("Links the pictures of a folder on the server as a job.");
        jobs.MapGet("/{jobId}", (int id, string jobId, ImportJobs all) => all.Find(id, jobId) is { } found ? Results.Ok(found) :
            throw new EditRefused("jobId", "There is no such job any more.")).WithSummary("How far a job is.");
        jobs.MapPost("/{jobId}/read", (int id, string jobId, ImportJobs all) => all.MarkRead(id, jobId) ? Results.NoContent() :
            throw new EditRefused("jobId", "There is no such job any more.")).WithSummary("Tells that the report of a job was read.");
        jobs.MapDelete("/{jobId}", (int id, string jobId, ImportJobs all) => all.Stop(id, jobId) ? Results.NoContent() :
            throw new EditRefused("jobId", "There is no such job any more.")).WithSummary("Stops a job; what was read by then comes in.");
    }

    private static async Task<IResult> Begin(int id, HttpContext context, PublicationStore store, ImportJobs jobs)
    {
        await store.OpenAsync(id);
        var parts = PartsOf(context);
        string job = jobs.Begin(id, context.Maker());
        try
        {
            await ReadFilesAsync(parts, (name, content) => jobs.AddSentAsync(job, name, content, context.RequestAborted), context.RequestAborted,
                names => jobs.Expect(job, names));
        }
        finally
        {
            // Also where the sender went away half way: what arrived is read.
            jobs.AllAdded(job);
        }
        return Results.Accepted($"/api/publications/{id}/imports/{job}", jobs.Find(id, job));
    }

    private static async Task<IResult> LinkFolder(int id, FolderBody body, PublicationStore store, PictureIntake intake, ImportJobs jobs, HttpContext context)
    {
        await store.OpenAsync(id);
        var files = intake.FilesIn(body.Folder, body.Within ?? false);
        if (files.Count == 0) throw new EditRefused("folder", "There are no files in this folder.");
        string job = jobs.Begin(id, context.Maker());
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
        if (!MediaTypeHeaderValue.TryParse(context.Request.ContentType, out var type) || type.MediaType != "multipart/form-data"
            || HeaderUtilities.RemoveQuotes(type.Boundary).Value is not { Length: > 0 } boundary)
            throw new EditRefused("files", "Send the pictures as multipart/form-data, each as a part named \"files\".");
        return new(boundary, context.Request.Body);
    }

    /// <summary>Takes the files of a request one by one, as they arrive.</summary>
    /// <exception cref="EditRefused">There are none.</exception>
    internal static async Task ReadFilesAsync(MultipartReader parts, Func<string, Stream, Task> take, CancellationToken cancel, Action<string[]>? expect = null)
    {
        int files = 0;
        try
        {
            while (await parts.ReadNextSectionAsync(cancel) is { } part)
            {
                if (part.GetContentDispositionHeader() is not { } disposition) continue;
                if (!disposition.IsFileDisposition())
                {
                    if (disposition.Name == "names" && expect is not null && await NamesAsync(part, cancel) is { } names) expect(names);
                    continue;
                }
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

    private const int LongestNames = 4 << 20;

    /// <summary>The names of the files to come, as a JSON array; null where they cannot be read.</summary>
    private static async Task<string[]?> NamesAsync(MultipartSection part, CancellationToken cancel)
    {
        using var text = new MemoryStream();
        byte[] buffer = new byte[81920];
        for (int read; (read = await part.Body.ReadAsync(buffer, cancel)) > 0;)
        {
            if (text.Length + read > LongestNames) return null;
            text.Write(buffer, 0, read);
        }
        try
        {
            return JsonSerializer.Deserialize<string[]>(text.ToArray()) is { } names && names.All(n => n is not null) ? names : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    /// <summary>The name a file was sent under. Browsers send a quote in it as %22, and nothing else encoded (WHATWG HTML, multipart/form-data).</summary>
    private static string NameOf(ContentDispositionHeaderValue disposition) => disposition.FileNameStar.Value
        ?? HeaderUtilities.UnescapeAsQuotedString(disposition.FileName).Value?.Replace("%22", "\"", StringComparison.Ordinal) ?? "";
}
