using System.Globalization;
using System.Text;
using Formatum.Core.Publications;
using Formatum.Output;

namespace Formatum.Web.Desk;

/// <summary>
/// The masters and spreads in a strip below the Desk: those near the one that is shown, and more as its ends come in sight, for there may be a thousand. Each
/// has its picture once it is seen itself. Written straight: a template takes longer for them than for all the rest of the page.
/// </summary>
public static class FilmStrip
{
    /// <summary>So many spreads come with the page on each side of the one shown: about as many as are in sight.</summary>
    public const int Beside = 6;

    /// <summary>So many spreads come with each further stretch.</summary>
    public const int Stretch = 24;

    /// <summary>The strip as the page begins with it.</summary>
    /// <param name="publication">The publication.</param>
    /// <param name="address">The address of its Desk.</param>
    /// <param name="shown">The number of the spread that is shown: its picture comes with the strip.</param>
    public static string Of(Publication publication, string address, int shown)
    {
        var html = new StringBuilder();
        for (int number = -1; number >= -publication.Masters.Count; number--) Add(html, publication, number, address, shown);
        int middle = Math.Max(shown, 1);
        AddStretch(html, publication, address, shown, middle - Beside, middle + Beside);
        return html.ToString();
    }

    /// <summary>A further stretch: the spreads of these numbers that are nearest to the one shown, and what stands for the rest.</summary>
    public static string More(Publication publication, string address, int shown, int from, int to)
    {
        var html = new StringBuilder();
        if (from > shown) AddStretch(html, publication, address, shown, from, Math.Min(to, from + Stretch), onlyAfter: true);
        else AddStretch(html, publication, address, shown, Math.Max(from, to - Stretch), to, onlyBefore: true);
        return html.ToString();
    }

    private static void AddStretch(StringBuilder html, Publication publication, string address, int shown, int from, int to, bool onlyAfter = false,
        bool onlyBefore = false)
    {
        int count = Spread.CountOf(publication);
        (from, to) = (Math.Clamp(from, 1, count), Math.Clamp(to, 1, count));
        if (from > 1 && !onlyAfter) Rest(html, 1, from - 1);
        for (int number = from; number <= to; number++) Add(html, publication, number, address, shown);
        if (to < count && !onlyBefore) Rest(html, to + 1, count);
    }

    private static void Rest(StringBuilder html, int from, int to) =>
        html.Append(CultureInfo.InvariantCulture, $"<span class=\"strip-more\" data-from=\"{from}\" data-to=\"{to}\"></span>");

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
