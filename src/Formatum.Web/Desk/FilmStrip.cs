using System.Globalization;
using System.Text;
using Formatum.Core.Publications;
using Formatum.Output;

namespace Formatum.Web.Desk;

/// <summary>
/// All masters and spreads in a strip below the Desk, each with its picture once it comes in sight. Written straight, as there may be hundreds: a template
/// takes longer for them than for all the rest of the page.
/// </summary>
public static class FilmStrip
{
    /// <param name="publication">The publication.</param>
    /// <param name="address">The address of its Desk.</param>
    /// <param name="shown">The number of the spread that is shown: its picture comes with the strip.</param>
    public static string Of(Publication publication, string address, int shown)
    {
        var html = new StringBuilder();
        for (int number = -1; number >= -publication.Masters.Count; number--) Add(html, publication, number, address, shown);
        for (int number = 1; number <= Spread.CountOf(publication); number++) Add(html, publication, number, address, shown);
        return html.ToString();
    }

    private static void Add(StringBuilder html, Publication publication, int number, string address, int shown)
    {
        var spread = Spread.At(publication, Spread.IndexOfNumber(publication, number));
        string current = number == shown ? " aria-current=\"page\"" : "", kind = number < 0 ? " strip-master" : "";
        html.Append(CultureInfo.InvariantCulture, $"<a href=\"{address}/{number}\" class=\"strip-item{kind}\"{current} " +
            $"title=\"{SvgWriter.Escape(spread.Label)}\">")
            .Append(CultureInfo.InvariantCulture, $"<span class=\"strip-picture\" id=\"strip-{number}\" style=\"aspect-ratio:{SpreadView.Ratio(spread)}\" ")
            .Append(CultureInfo.InvariantCulture, $"hx-get=\"{address}/{number}?handler=Miniature\" hx-trigger=\"intersect once\">");
        if (number == shown) html.Append(SpreadView.Miniature(publication, spread, $"mini{number}-"));
        html.Append("</span><span class=\"strip-number\">").Append(SvgWriter.Escape(spread.Folios)).Append("</span></a>");
    }
}
