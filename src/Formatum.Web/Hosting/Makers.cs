using System.Security.Cryptography;
using System.Text;
using Formatum.Storage;

namespace Formatum.Web.Hosting;

/// <summary>
/// Who asks. A browser keeps an id of its own in a cookie, and the name its person gives; every window of it says which it is. Programs may name themselves.
/// </summary>
internal static class Makers
{
    public const string CookieName = "formatum-maker", WindowHeader = "Formatum-Window", ProgramHeader = "Formatum-Maker", KeyHeader = "Formatum-Edit";

    public const int LongestWindow = 64;

    public static Maker Maker(this HttpContext context)
    {
        string window = context.Request.Headers[WindowHeader].ToString();
        if (context.Items.TryGetValue(CookieName, out object? made) && made is Maker known) return known;
        if (Read(context.Request.Cookies[CookieName]) is { } browser) return browser with { Window = window.Length <= LongestWindow ? window : "" };
        string name = Clean(context.Request.Headers[ProgramHeader].ToString());
        return name.Length == 0 ? Storage.Maker.Program : new("program:" + name, name);
    }

    /// <summary>What the one who asks had seen: the revision given, or the one in If-Match or in the address; null where none was said.</summary>
    /// <exception cref="Core.Checks.EditRefused">What was given is no revision.</exception>
    public static Seen Seen(this HttpContext context, long? revision = null)
    {
        if (revision is { } given) return Storage.Seen.At(given, context.Maker()) with { Key = context.EditKey() };
        string text = context.Request.Headers.IfMatch.ToString().Trim('"');
        if (text.Length == 0) text = context.Request.Query["seen"].ToString();
        if (text.Length == 0 || text == "*") return Storage.Seen.Now(context.Maker());
        return long.TryParse(text, System.Globalization.CultureInfo.InvariantCulture, out long read) && read >= 0 ? Storage.Seen.At(read, context.Maker())
            : throw new Core.Checks.EditRefused("seen", "Give the revision you last saw as a whole number; it is in the publication's \u201crevision\u201d.");
    }

    /// <summary>Tells the asker the revision that a change came to (ETag), to be sent back as If-Match with the next one.</summary>
    public static EditOutcome Told(this HttpContext context, EditOutcome outcome)
    {
        context.Told(outcome.Standing);
        return outcome;
    }

    /// <summary>Tells the asker the revision of what is answered (ETag).</summary>
    public static Standing Told(this HttpContext context, Standing standing)
    {
        context.Response.Headers.ETag = $"\"{standing.Revision}\"";
        return standing;
    }

    /// <summary>The name that the sender gave this very edit; empty where it gave none.</summary>
    public static string EditKey(this HttpContext context) => context.Request.Headers[KeyHeader].ToString() is { Length: <= LongestWindow } key ? key : "";

    /// <summary>Gives a browser that opens its first page an id.</summary>
    public static IApplicationBuilder UseMakers(this IApplicationBuilder app) => app.Use(async (context, next) =>
    {
        bool opensPage = HttpMethods.IsGet(context.Request.Method) && context.Request.Headers.Accept.ToString().Contains("text/html", StringComparison.Ordinal);
        if (opensPage && Read(context.Request.Cookies[CookieName]) is null)
        {
            string id = RandomNumberGenerator.GetHexString(16, lowercase: true);
            Keep(context, new(id, $"Guest {id[..3].ToUpperInvariant()}"));
        }
        await next(context);
    });

    /// <summary>Lets a person give the name that others see beside what they do.</summary>
    public static void MapMakers(this WebApplication app) => app.MapPost("/maker", (HttpContext context, string? name) =>
    {
        string clean = Clean(name ?? "");
        if (clean.Length == 0) throw new Core.Checks.EditRefused("name", "Type the name that others shall see.");
        var now = context.Maker() with { Name = clean };
        if (Read(context.Request.Cookies[CookieName]) is null)
            throw new Core.Checks.EditRefused("name", "This browser keeps no cookies, so a name cannot be kept either.");
        Keep(context, now);
        return TypedResults.NoContent();
    }).ExcludeFromDescription();

    private static void Keep(HttpContext context, Maker maker)
    {
        context.Items[CookieName] = maker;
        context.Response.Cookies.Append(CookieName, $"{maker.Id}.{Convert.ToHexString(Encoding.UTF8.GetBytes(maker.Name))}",
            new() { HttpOnly = true, Secure = context.Request.IsHttps, SameSite = SameSiteMode.Strict, MaxAge = TimeSpan.FromDays(3650), IsEssential = true });
    }

    private static Maker? Read(string? cookie)
    {
        string[] parts = (cookie ?? "").Split('.');
        if (parts.Length != 2 || parts[0].Length is < 8 or > 64 || !parts[0].All(char.IsAsciiHexDigitLower)) return null;
        try
        {
            string name = Clean(Encoding.UTF8.GetString(Convert.FromHexString(parts[1])));
            return name.Length == 0 ? null : new(parts[0], name);
        }
        catch (FormatException)
        {
            return null;
        }
    }

    private static string Clean(string name)
    {
        string plain = string.Concat(name.Where(c => !char.IsControl(c))).Trim();
        return plain.Length <= Storage.Maker.LongestName ? plain : plain[..Storage.Maker.LongestName];
    }
}
