using System.Collections.Immutable;
using Formatum.Core.Checking;
using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using SkiaSharp;

namespace Formatum.Output.Reports;

/// <summary>A finding with the number it bears in a report.</summary>
public sealed record NumberedFinding(int Number, Finding Finding);

/// <summary>A page in a report: how it looks, and what lies where on it.</summary>
/// <param name="PageId">Which page.</param>
/// <param name="Words">What it is called: "Page 3".</param>
/// <param name="Width">Its width, in points.</param>
/// <param name="Height">Its height, in points.</param>
/// <param name="Jpeg">Its picture.</param>
/// <param name="WidthPx">The picture's width, in pixels.</param>
/// <param name="HeightPx">The picture's height, in pixels.</param>
/// <param name="Marks">Boxes on it, in points from its upper left, with the findings' numbers.</param>
public sealed record ReportedPage(int PageId, string Words, double Width, double Height, byte[] Jpeg, int WidthPx, int HeightPx,
    ImmutableArray<(int Number, Severity Severity, Box Box)> Marks);

/// <summary>What goes along with a file: the findings on the pages it was made of.</summary>
/// <param name="Publication">The publication.</param>
/// <param name="Profile">What it was checked by.</param>
/// <param name="At">When.</param>
/// <param name="Open">What counts, worst first.</param>
/// <param name="Accepted">What somebody let be.</param>
/// <param name="Pages">The pages on which something lies.</param>
public sealed record CheckReport(Publication Publication, CheckProfile Profile, DateTimeOffset At, ImmutableArray<NumberedFinding> Open,
    ImmutableArray<NumberedFinding> Accepted, ImmutableArray<ReportedPage> Pages)
{
    /// <summary>In ppi: enough to find a place again.</summary>
    private const double Ppi = 60;

    private const int Quality = 80, MostPixels = 2_000_000;

    /// <summary>No more pages are shown; the list tells all.</summary>
    private const int MostPages = 200;

    public int Count(Severity severity) => Open.Count(f => f.Finding.Severity == severity);

    /// <param name="findings">What was found.</param>
    /// <param name="meant">Which of it is reported, in the order it is told.</param>
    /// <param name="at">When.</param>
    /// <param name="source">Where the pixels of pictures come from, with previews for those whose files are missing.</param>
    /// <param name="cancel">Says that nobody wants it any more.</param>
    public static CheckReport Of(PublicationFindings findings, IEnumerable<Finding> meant, DateTimeOffset at, PixelSource source,
        CancellationToken cancel = default)
    {
        var publication = findings.Publication;
        var all = meant.OrderBy(f => !f.IsOpen).Select((f, i) => new NumberedFinding(i + 1, f)).ToImmutableArray();
        var pages = all.SelectMany(n => n.Finding.Places.Select(p => (n.Number, n.Finding.Severity, Place: p)))
            .Where(p => publication.Order.IndexOf(p.Place.PageId) >= 0).GroupBy(p => p.Place.PageId).OrderBy(g => publication.Order.IndexOf(g.Key))
            .Take(MostPages).Select(g => PageOf(publication, g.Key, [.. g.Select(p => (p.Number, p.Severity, p.Place.Box))], source, cancel));
        return new(publication, findings.Profile, at, [.. all.Where(n => n.Finding.IsOpen)], [.. all.Where(n => !n.Finding.IsOpen)], [.. pages]);
    }

    private static ReportedPage PageOf(Publication publication, int pageId, ImmutableArray<(int, Severity, Box)> marks, PixelSource source,
        CancellationToken cancel)
    {
        var spread = Spread.At(publication, Spread.IndexOfPage(publication, publication.NumberOf(pageId)));
        var trim = spread.Pages.First(p => p.Page.Id == pageId).Trim;
        double ppi = Math.Clamp(Math.Sqrt(MostPixels / trim.Area) * Units.PointsPerInch, PageRaster.SmallestPpi, Ppi);
        using var drawn = PageRaster.Draw(Composer.Compose(publication, spread, Typefaces.All), trim, ppi, source, MostPixels, cancel);
        using var jpeg = drawn.Encode(SKEncodedImageFormat.Jpeg, Quality);
        string words = publication.WordsOf(pageId);
        return new(pageId, char.ToUpperInvariant(words[0]) + words[1..], trim.Width, trim.Height, jpeg.ToArray(), drawn.Width, drawn.Height, marks);
    }
}
