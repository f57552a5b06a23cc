using System.Globalization;
using System.Text;
using Formatum.Core.Checking;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Output;

namespace Formatum.Web.Checking;

/// <summary>The findings on a spread, for the Desk.</summary>
/// <param name="Marks">What is drawn over the spread, as SVG.</param>
/// <param name="Frames">What is said of each frame, as HTML, by its id.</param>
/// <param name="Strip">For each spread with findings, by its number: the sign of the worst and how many.</param>
public sealed record SpreadMarks(string Marks, IReadOnlyDictionary<int, string> Frames, IReadOnlyDictionary<int, string> Strip)
{
    public static SpreadMarks Of(int id, PublicationFindings findings, Spread spread)
    {
        var publication = findings.Publication;
        var open = findings.Open.ToList();
        var here = open.SelectMany(f => f.Places.Select(place => (Finding: f, Place: place)))
            .Where(f => spread.Pages.Any(p => p.Page.Id == f.Place.PageId)).ToList();
        var marks = new StringBuilder();
        // What text says of itself at its foot is not said twice.
        var marked = here.Where(f => f.Finding.Kind is not (FindingKind.TextLeftOver or FindingKind.GlyphsMissing))
            .GroupBy(f => (f.Place.PageId, f.Place.FrameId, Corner: f.Place.Box.UpperLeft));
        foreach (var at in marked) Mark(marks, publication, spread, [.. at]);
        var frames = here.Where(f => f.Place.FrameId is not null).GroupBy(f => f.Place.FrameId!.Value)
            .ToDictionary(g => g.Key, g => string.Concat(g.Select(f => f.Finding).Distinct().Select(f => Said(id, f, publication.Setup.Unit))));
        return new(marks.ToString(), frames, OfSpreads(publication, open));
    }

    /// <summary>The sign of the worst finding on each spread, and how many there are.</summary>
    public static IReadOnlyDictionary<int, string> OfSpreads(Publication publication, IEnumerable<Finding> open) => open
        .SelectMany(f => f.Places.Select(p => p.PageId).Distinct().Where(publication.Pages.ContainsKey).Select(page => Spread.NumberOfPage(publication, page))
            .Distinct().Select(number => (Number: number, f.Severity)))
        .GroupBy(f => f.Number).ToDictionary(g => g.Key, g => FindingText.Sign(g.Max(f => f.Severity)) + g.Count().ToString(CultureInfo.InvariantCulture));

    private static void Mark(StringBuilder svg, Publication publication, Spread spread, List<(Finding Finding, FindingPlace Place)> found)
    {
        var (worst, place) = found[0];
        var trim = spread.Pages.First(p => p.Page.Id == place.PageId).Trim;
        // What hangs off the sheet is marked where it can be seen, and beside what lies at its edge.
        double left = spread.Trim.X - publication.Setup.Bleed, top = -publication.Setup.Bleed;
        double x = Math.Max(place.Box.X + trim.X, left), y = place.Box.X + trim.X < left ? place.Box.Centre.Y : Math.Max(place.Box.Y, top);
        // Words are not written over: their mark stands above them.
        string rise = place.FrameId is { } id && publication.Frames.GetValueOrDefault(id) is { IsText: true } ? "-0.35em" : "1.3em";
        string more = found.Count > 1 ? string.Create(CultureInfo.InvariantCulture, $" +{found.Count - 1}") : "";
        string figure = worst.Figures.IsEmpty || worst.Figures[0].Unit is FigureUnit.Count or FigureUnit.Times ? ""
            : " " + worst.Figures[0].Text(publication.Setup.Unit);
        svg.Append(CultureInfo.InvariantCulture, $"<text class=\"finding-mark severity-{worst.Severity.ToString().ToLowerInvariant()}\" ")
            .Append(CultureInfo.InvariantCulture, $"x=\"{SvgWriter.Number(x)}\" y=\"{SvgWriter.Number(y)}\" dx=\"0.4em\" dy=\"{rise}\">")
            .Append(SvgWriter.Escape($"{FindingText.Sign(worst.Severity)} {CheckKinds.Of(worst.Kind).Mark}{figure}{more}")).Append("</text>");
    }

    private static string Said(int id, Finding finding, LengthUnit unit) => string.Create(CultureInfo.InvariantCulture,
        $"<p class=\"finding severity-{finding.Severity.ToString().ToLowerInvariant()}\"><span aria-hidden=\"true\">")
        + $"{FindingText.Sign(finding.Severity)}</span> "
        + $"{SvgWriter.Escape(finding.Title())}{(finding.Figure(unit) is { Length: > 0 } figure ? ": " + SvgWriter.Escape(figure) : "")} "
        + $"<a href=\"/publications/{id.ToString(CultureInfo.InvariantCulture)}/check?finding={finding.Id}\">Mend it</a></p>";
}
