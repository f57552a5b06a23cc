using System.Globalization;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Publications;

/// <summary>What a text says differently on each page: written in braces where it is typed, and put in where it is shown or printed.</summary>
public static class TextFields
{
    /// <summary>The number the page bears, how many pages there are, the edition, and the publication's name.</summary>
    public const string Page = "{page}", Pages = "{pages}", Edition = "{edition}", Publication = "{publication}";

    /// <summary>Whether the text says something different on each page, or in each edition.</summary>
    public static bool HasFields(this FrameText text) => text.Paragraphs.Any(p => new[] { Page, Pages, Edition,
        Publication }.Any(field => p.Text.Contains(field, StringComparison.OrdinalIgnoreCase)));

    /// <summary>The text as it reads on a page. On a master, the page's number stays as it is written.</summary>
    /// <param name="text">The text as typed.</param>
    /// <param name="publication">The publication.</param>
    /// <param name="pageId">The page it is shown on.</param>
    public static FrameText On(this FrameText text, Publication publication, int pageId)
    {
        if (!text.Paragraphs.Any(p => p.Text.Contains('{', StringComparison.Ordinal))) return text;
        var setup = publication.Setup;
        string number = publication.Order.IndexOf(pageId) is >= 0 and var index ? (setup.FirstFolio + index).ToString(CultureInfo.InvariantCulture) : Page;
        string Filled(string typed) => typed
            .Replace(Page, number, StringComparison.OrdinalIgnoreCase)
            .Replace(Pages, publication.PageCount.ToString(CultureInfo.InvariantCulture), StringComparison.OrdinalIgnoreCase)
            .Replace(Edition, setup.Edition, StringComparison.OrdinalIgnoreCase)
            .Replace(Publication, setup.Name, StringComparison.OrdinalIgnoreCase);
        return new([.. text.Paragraphs.Select(p => p with { Runs = [.. p.Runs.Select(r => r with { Text = Filled(r.Text) })] })]);
    }
}
