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
    public static void UseSizeLimit(this WebApplication app) => app.Use((context, next) =>
    {
        long? most = context.Features.Get<IHttpMaxRequestBodySizeFeature>()?.MaxRequestBodySize;
        bool isPage = context.GetEndpoint()?.Metadata.GetMetadata<PageActionDescriptor>() is not null;
        return isPage && context.Request.ContentLength > most
            ? throw new EditRefused("file",
                $"This is larger than {most / 1_000_000} MB, the most that is taken in here. Leave out what is not needed, or divide it.")
            : next(context);
    });
}
