namespace Formatum.Web.Hosting;

/// <summary>What browsers are told to keep to, on every answer, those that tell of errors too.</summary>
internal static class SecurityHeaders
{
    public static void UseSecurityHeaders(this IApplicationBuilder app, string mapHash) => app.Use((context, next) =>
    {
        // Set as the answer begins: what handles errors clears what was set before.
        context.Response.OnStarting(() =>
        {
            var headers = context.Response.Headers;
            headers.XContentTypeOptions = "nosniff";
            headers.ContentSecurityPolicy = $"default-src 'self'; script-src 'self' {mapHash}; connect-src 'self'; img-src 'self' data: blob:; " +
                $"font-src 'self' data:; style-src 'self' 'unsafe-inline'; frame-ancestors 'none'; form-action 'self'; base-uri 'none'; object-src 'none'";
            headers["Referrer-Policy"] = "same-origin";
            headers["Cross-Origin-Resource-Policy"] = "same-origin";
            headers["Cross-Origin-Opener-Policy"] = "same-origin";
            headers.XFrameOptions = "DENY";
            return Task.CompletedTask;
        });
        return next(context);
    });
}
