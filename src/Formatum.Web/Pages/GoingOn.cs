using System.Text.Json;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Pages;

/// <summary>Where a page's script goes on to.</summary>
internal static class GoingOn
{
    /// <summary>Has the page's script open an address.</summary>
    public static NoContentResult GoTo(this PageModel page, string address)
    {
        page.Response.Headers["Formatum-Answer"] = JsonSerializer.Serialize(new { goesTo = address });
        return new();
    }
}
