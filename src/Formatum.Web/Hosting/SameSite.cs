using Microsoft.AspNetCore.Mvc;

namespace Formatum.Web.Hosting;

/// <summary>Refuses what changes something, or keeps a line open, and comes from another site's page. Programs, which send no origin, pass.</summary>
public sealed class SameSite(RequestDelegate next)
{
    public async Task InvokeAsync(HttpContext context)
    {
        var request = context.Request;
        // A line that stays open is asked for by GET, and browsers let any page ask.
        bool reads = (HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method) || HttpMethods.IsOptions(request.Method))
            && request.Headers.Upgrade.Count == 0;
        if (reads || IsOurs(request))
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

    private static bool IsOurs(HttpRequest request)
    {
        string origin = request.Headers.Origin.ToString();
        if (origin.Length > 0)
            return Uri.TryCreate(origin, UriKind.Absolute, out var from) && from.Scheme == request.Scheme && from.Authority == request.Host.Value;
        return request.Headers["Sec-Fetch-Site"].ToString() is "" or "same-origin" or "none";
    }
}
