namespace Formatum.Web.Hosting;

/// <summary>How long browsers keep our files: for good where the address tells their version, else for an hour.</summary>
internal static class CachedFiles
{
    public static readonly StaticFileOptions Options = new()
    {
        OnPrepareResponse = answer => answer.Context.Response.Headers.CacheControl =
            answer.Context.Request.Query.ContainsKey("v") ? "public, max-age=31536000, immutable" : "public, max-age=3600",
    };
}
