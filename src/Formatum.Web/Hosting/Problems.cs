using System.Net;
using System.Text.Json;
using System.Text.RegularExpressions;
using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Documents;
using Formatum.Imaging;
using Formatum.Output;
using Formatum.Output.Bundles;
using Formatum.Storage;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;

namespace Formatum.Web.Hosting;

/// <summary>Turns what went wrong into problem details (RFC 9457) that name the field and the remedy.</summary>
public sealed partial class Problems(ILogger<Problems> log) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        if (exception is OperationCanceledException && httpContext.RequestAborted.IsCancellationRequested) return true;
        var problem = Describe(exception);
        if (problem.Status == StatusCodes.Status500InternalServerError) log.LogError(exception, "Request failed");
        httpContext.Response.StatusCode = problem.Status!.Value;
        if (exception is TooBusy) httpContext.Response.Headers.RetryAfter = $"{TooBusy.RetryAfter}";
        if (IsPerson(httpContext.Request))
        {
            httpContext.Response.ContentType = "text/html; charset=utf-8";
            await httpContext.Response.WriteAsync(PageOf(problem), cancellationToken);
            return true;
        }
        await httpContext.Response.WriteAsJsonAsync(problem, (JsonSerializerOptions?)null, "application/problem+json", cancellationToken);
        return true;
    }

    /// <summary>A browser that opens an address, rather than a script or a program that asks for data.</summary>
    private static bool IsPerson(HttpRequest request) =>
        HttpMethods.IsGet(request.Method) && request.Headers.Accept.ToString().Contains("text/html", StringComparison.Ordinal)
            && !request.Headers.ContainsKey("HX-Request");

    private static string PageOf(ProblemDetails problem) => $"""
        <!doctype html>
        <html lang="en">
        <head><meta charset="utf-8"><title>{WebUtility.HtmlEncode(problem.Title)} - Formatum</title>
        <link rel="icon" href="/img/mark.svg"><link rel="stylesheet" href="/lib/bootstrap.min.css"><link rel="stylesheet" href="/css/formatum.css"></head>
        <body>
        <header class="topbar"><a class="wordmark" href="/"><img src="/img/mark.svg" alt="" width="24" height="24"> Formatum</a></header>
        <main class="sheet-inner"><h1>{WebUtility.HtmlEncode(problem.Title)}</h1><p class="lead">{WebUtility.HtmlEncode(problem.Detail)}</p>
        <a class="btn btn-primary" href="/">To the shelf</a></main>
        </body>
        </html>
        """;

    public static ProblemDetails Describe(Exception exception)
    {
        switch (exception)
        {
            case EditRefused refused:
                return Problem(refused is NoSuchPart ? StatusCodes.Status404NotFound : StatusCodes.Status400BadRequest, "Nothing was changed", refused.Message,
                    refused.Errors);
            case NoSuchPublication:
                return Problem(StatusCodes.Status404NotFound, "No such publication", exception.Message);
            case UnreadablePublication:
                return Problem(StatusCodes.Status500InternalServerError, "This publication cannot be read", exception.Message);
            case EditClash:
                return Problem(StatusCodes.Status409Conflict, "Changed elsewhere meanwhile", exception.Message);
            case BadPicture:
                return Problem(StatusCodes.Status422UnprocessableEntity, "A linked image cannot be used", exception.Message);
            case BadProfile:
                return Problem(StatusCodes.Status422UnprocessableEntity, "A profile cannot be used", exception.Message);
            case NotStored:
                return Problem(StatusCodes.Status507InsufficientStorage, "Nothing was changed", exception.Message);
            case NoRoom or NotWritten:
                return Problem(StatusCodes.Status507InsufficientStorage, "The disk is full", exception.Message);
            case TooBusy:
                return Problem(StatusCodes.Status503ServiceUnavailable, "Too much at once", exception.Message);
            case BadPdf:
                return Problem(StatusCodes.Status422UnprocessableEntity, "The PDF was not taken", exception.Message);
            case BadBundle:
                return Problem(StatusCodes.Status422UnprocessableEntity, "The bundle was not taken in", exception.Message);
            case BadHttpRequestException { InnerException: JsonException json }:
                return Json(json);
            // An object of several kinds that does not say which it is.
            case NotSupportedException { Source: "System.Text.Json" }:
                return Json(new());
            case BadHttpRequestException bad:
                return Problem(bad.StatusCode, "The request cannot be read", bad.Message);
            default:
                return Problem(StatusCodes.Status500InternalServerError, "Something failed here",
                    "The program met an error of its own. Look whether what you did is there; if not, try again, and tell whoever runs the server if it " +
                        "stays.");
        }
    }

    [GeneratedRegex("^The JSON property '([^']*)' could not be mapped")]
    private static partial Regex Unknown();

    private static ProblemDetails Json(JsonException json)
    {
        string field = (json.Path ?? "").TrimStart('$').TrimStart('.');
        // The serializer's words name types of this program, which say nothing to whoever sent the request; ours are kept.
        string message = json.Message.StartsWith("This is not", StringComparison.Ordinal) ? json.Message.Split(" Path:")[0]
            : Unknown().Match(json.Message) is { Success: true } unknown
                ? $"There is nothing called \u201c{unknown.Groups[1].Value}\u201d here. Leave it out, or "
                + "look up its name in /openapi/v1.json."
            : json.Message.Contains("missing required properties", StringComparison.Ordinal)
                ? "Something needed is missing: " + json.Message[(json.Message.LastIndexOf(':') + 1)..].Trim().TrimEnd('.') + "."
            : field.Length > 0 ? "This value is not of the kind that belongs here; see /openapi/v1.json."
                : "The body is not the JSON that belongs here; see /openapi/v1.json.";
        return Problem(StatusCodes.Status400BadRequest, "The request cannot be read", message, [new(field.Length == 0 ? "body" : field, message)]);
    }

    private static ProblemDetails Problem(int status, string title, string detail, IEnumerable<FieldError>? errors = null)
    {
        var problem = new ProblemDetails { Status = status, Title = title, Detail = detail, Type = $"/problems/{status}" };
        if (errors is not null) problem.Extensions["errors"] = errors.GroupBy(e => e.Field).ToDictionary(g => g.Key, g => g.Select(e => e.Message).ToArray());
        return problem;
    }
}
