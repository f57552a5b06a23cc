using Microsoft.AspNetCore.Mvc;

namespace Formatum.Web.Hosting;

/// <summary>
/// Refuses what comes from another site's page: it can neither change nor load anything here. People may follow a link from it to one of our pages. Programs,
/// which say nothing of where they come from, pass.
/// </summary>
public sealed class SameSite(RequestDelegate next, ServerOptions options)
{
    public async Task InvokeAsync(HttpContext context)
    {
        if (IsOurs(context.Request) || IsFollowedLink(context.Request))
        {
            await next(context);
            return;
        }
        context.Response.StatusCode = StatusCodes.Status403Forbidden;
        await context.Response.WriteAsJsonAsync(
            new ProblemDetails
            {
                Status = StatusCodes.Status403Forbidden,
                Title = "Refused",
                Detail = "This came from a page of another site. Nothing was changed. Open Formatum itself and do it there."
            },
            options: null, "application/problem+json");
    }

    /// <summary>Fetch Metadata (W3C): browsers say how the site that asks is related to the one that is asked; Origin comes with what changes
    /// something.</summary>
    private bool IsOurs(HttpRequest request)
    {
        string origin = request.Headers.Origin.ToString();
        if (origin.Length > 0)
        {
            return Uri.TryCreate(origin, UriKind.Absolute, out var from)
                && ((from.Scheme == request.Scheme && from.Authority == request.Host.Value)
                    || (options.PublicUrl is { } known && from.Scheme == known.Scheme && from.Authority == known.Authority));
        }
        return request.Headers["Sec-Fetch-Site"].ToString() is "" or "same-origin" or "none";
    }

    /// <summary>A link on another page that leads to one of ours, in a window of its own; not to what takes long to make.</summary>
    private static bool IsFollowedLink(HttpRequest request) => HttpMethods.IsGet(request.Method) && request.Headers.Upgrade.Count == 0
        && request.Headers["Sec-Fetch-Mode"].ToString() == "navigate" && request.Headers["Sec-Fetch-Dest"].ToString() == "document"
        && !request.Path.StartsWithSegments("/api");
}
