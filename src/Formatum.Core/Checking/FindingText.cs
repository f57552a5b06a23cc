using System.Globalization;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking;

/// <summary>Findings in words and signs, the same on every screen and in every report.</summary>
public static class FindingText
{
    public static string Title(this Finding finding) => CheckKinds.Of(finding.Kind).Title;

    public static string Name(Severity severity) => severity switch
    {
        Severity.Fault => "Fault",
        Severity.Warning => "Warning",
        Severity.Note => "Note",
        _ => "Off",
    };

    public static string Count(Severity severity, int count) =>
        string.Create(CultureInfo.InvariantCulture, $"{count} {Name(severity).ToLowerInvariant()}{(count == 1 ? "" : "s")}");

    /// <summary>A sign that goes with the word, never alone.</summary>
    public static string Sign(Severity severity) => severity switch { Severity.Fault => "\u25b2", Severity.Warning => "\u25b3", _ => "\u25c7" };

    /// <summary>Its first figure, with a word for what is counted: "120 ppi", "pages 3"; empty where it has none.</summary>
    public static string Figure(this Finding finding, LengthUnit unit) => finding.Figures.IsEmpty ? "" : finding.Figures[0].Unit == FigureUnit.Count
        ? $"{finding.Figures[0].Name.ToLowerInvariant()} {finding.Figures[0].Text(unit)}" : finding.Figures[0].Text(unit);

    /// <summary>All that there is to say: "Below the least resolution: Picture 3. Shows vase.jpg. Effective resolution 120 ppi, asked for 150 ppi."</summary>
    public static string Sentence(this Finding finding, LengthUnit unit) => string.Join(' ', new[]
    {
        $"{finding.Title()}{(finding.Subject.Length > 0 ? ": " + finding.Subject : "")}.", finding.Detail,
        string.Join(' ', finding.Figures.Select(f => $"{f.Name} {f.Text(unit)}{(f.AskedText(unit) is { } asked ? ", asked for " + asked : "")}.")),
    }.Where(part => part.Length > 0));

    /// <summary>Where it lies, in words: "Page 3", "Pages 3 and 7", "5 pages"; empty for what has no place.</summary>
    public static string Where(this Finding finding, Publication publication)
    {
        var pages = finding.Places.Select(p => p.PageId).Distinct().Where(publication.Pages.ContainsKey).ToList();
        return pages.Count switch
        {
            0 => "",
            1 => Capital(publication.WordsOf(pages[0])),
            2 when pages.TrueForAll(p => publication.Order.IndexOf(p) >= 0) => $"Pages {Folio(publication, pages[0])} and {Folio(publication, pages[1])}",
            var n => $"{n.ToString(CultureInfo.InvariantCulture)} pages",
        };
    }

    private static string Folio(Publication publication, int page) => (publication.Setup.FirstFolio + publication.Order.IndexOf(page))
        .ToString(CultureInfo.InvariantCulture);

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];

    /// <summary>Findings put together by kind: "Placeholder empty: 3", what counts most first.</summary>
    public static IEnumerable<(Severity Severity, string Words)> Summary(IEnumerable<Finding> findings) => findings.GroupBy(f => f.Kind)
        .OrderByDescending(g => g.First().Severity).ThenBy(g => g.Key)
        .Select(g => (g.First().Severity, string.Create(CultureInfo.InvariantCulture, $"{CheckKinds.Of(g.Key).Title}: {g.Count()}")));
}
