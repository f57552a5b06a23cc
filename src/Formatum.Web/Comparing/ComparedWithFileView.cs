using System.Globalization;
using Formatum.Core.Comparing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Storage;

namespace Formatum.Web.Comparing;

/// <summary>What the screen shows of a publication set against a PDF.</summary>
/// <param name="Standing">The publication.</param>
/// <param name="Compared">Both; null where they could not be compared.</param>
/// <param name="MadeBy">The recipe that was asked for.</param>
/// <param name="Error">Why they could not be compared.</param>
public sealed record ComparedWithFileView(Standing Standing, ComparedWithFile? Compared, string? MadeBy, string? Error = null)
{
    /// <summary>The address of one of both files.</summary>
    public string AddressOf(string which) => string.Create(CultureInfo.InvariantCulture,
        $"/api/publications/{Standing.Id}/compare/{which}.pdf?with={Compared!.File.Key}&as={Uri.EscapeDataString(MadeBy ?? "")}&revision={Standing.Revision}");

    /// <summary>What a page of the pages now is called.</summary>
    public string NameOf(int page)
    {
        if (page >= Compared!.Sheets.Count) return string.Create(CultureInfo.InvariantCulture, $"sheet side {page + 1}");
        var publication = Standing.Publication;
        return string.Join(" and ", Compared.Sheets[page].Select(number => publication.WordsOf(publication.Order.Ids[number - 1])));
    }

    /// <summary>Where on the Desk a page of the pages now is; null where it is laid on a larger sheet.</summary>
    public string? DeskOf(int page) => page >= Compared!.Sheets.Count ? null : string.Create(CultureInfo.InvariantCulture,
        $"/publications/{Standing.Id}/desk/{Spread.IndexOfPage(Standing.Publication, Compared.Sheets[page][0]) + 1}");

    /// <summary>Where something differs, as shares of the page's width and height in per cent.</summary>
    public static string PlaceOf(Box box, PageContents page) => string.Create(CultureInfo.InvariantCulture,
        $"left:{100 * box.X / page.Width:0.##}%;top:{100 * box.Y / page.Height:0.##}%;width:{100 * box.Width / page.Width:0.##}%;" +
        $"height:{100 * box.Height / page.Height:0.##}%");

    public static string TrimOf(Box trim) => string.Create(CultureInfo.InvariantCulture,
        $"{trim.X:0.###} {trim.Y:0.###} {trim.Width:0.###} {trim.Height:0.###}");
}
