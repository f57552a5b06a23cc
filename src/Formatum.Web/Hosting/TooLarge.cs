using Formatum.Core.Checks;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Hosting;

/// <summary>
/// Refuses in words what is sent to a page and is larger than it may be: the framework would leave the file out, and the page would ask for one. Pictures
/// have a way of their own, which takes more.
/// </summary>
internal static class TooLarge
{
    public static void UseSizeLimit(this WebApplication app) => app.Use(async (context, next) =>
    {
        var size = context.Features.Get<IHttpMaxRequestBodySizeFeature>();
        bool isPage = context.GetEndpoint()?.Metadata.GetMetadata<PageActionDescriptor>() is not null;
        if (isPage && size is { MaxRequestBodySize: { } most, IsReadOnly: false } && context.Request.ContentLength is { } length && length > most)
        {
            await HearOutAsync(context.Request, size, length, most);
            throw new EditRefused("file", $"This is larger than {most / 1_000_000} MB, the most that is taken in here. Leave out what is not needed, or " +
                "divide it.");
        }
        await next(context);
    });

    /// <summary>A browser that is answered before it has sent all takes the line for broken, and shows no answer: up to ten times as much is heard
    /// out.</summary>
    private static async Task HearOutAsync(HttpRequest request, IHttpMaxRequestBodySizeFeature size, long length, long most)
    {
        if (length > 10 * most) return;
        size.MaxRequestBodySize = length;
        await request.Body.CopyToAsync(Stream.Null, request.HttpContext.RequestAborted);
    }
}
