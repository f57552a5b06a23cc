using System.Globalization;
using System.Text;
using Formatum.Core.Composing;
using Formatum.Core.Filling;
using Formatum.Core.Publications;

namespace Formatum.Output.Books;

/// <summary>A page of a book: the page as it is laid out, as SVG within a document of its own, cut at the trim.</summary>
/// <param name="publication">Of which publication.</param>
/// <param name="language">In which language it is.</param>
/// <param name="pathOf">The document of a page, from this one, by its place in the publication from 0; null where the book has it not.</param>
internal sealed class BookPage(Publication publication, string language, Func<int, string?> pathOf)
{
    /// <summary>Points to CSS pixels: 96 to 72 (CSS Values 3, 6.2).</summary>
    private const double PixelsPerPoint = 96 / 72.0;

    /// <param name="spread">Its spread.</param>
    /// <param name="page">The page.</param>
    /// <param name="frames">What it shows, from the lowest to the topmost.</param>
    /// <param name="pictureOf">Where a picture lies, from the page.</param>
    public string Write(Spread spread, PlacedPage page, IReadOnlyList<SceneFrame> frames, Func<LinkedImage, string> pictureOf)
    {
        var trim = page.Trim;
        var html = new StringBuilder("<?xml version=\"1.0\" encoding=\"utf-8\"?>\n<!DOCTYPE html>\n");
        string width = Pixels(trim.Width), height = Pixels(trim.Height), title = SvgWriter.Escape($"{publication.Setup.Name}, page {page.Folio}");
        html.Append(CultureInfo.InvariantCulture, $"<html xmlns=\"http://www.w3.org/1999/xhtml\" lang=\"{language}\" xml:lang=\"{language}\">\n<head>\n")
            .Append(CultureInfo.InvariantCulture, $"<title>{title}</title>\n<meta name=\"viewport\" content=\"width={width}, height={height}\"/>\n")
            .Append(CultureInfo.InvariantCulture, $"<link rel=\"stylesheet\" type=\"text/css\" href=\"../{BookFonts.StyleSheet}\"/>\n</head>\n<body>\n")
            .Append("<svg xmlns=\"http://www.w3.org/2000/svg\" xmlns:xlink=\"http://www.w3.org/1999/xlink\" ")
            .Append(CultureInfo.InvariantCulture, $"width=\"{width}\" height=\"{height}\" ")
            .Append("viewBox=\"").AppendJoin(' ', new[] { trim.X, trim.Y, trim.Width, trim.Height }.Select(SvgWriter.Number)).Append('"')
            .Append(Order(spread, page, frames)).Append(">\n");
        string paper = string.Join(' ', new[] { ("x", trim.X), ("y", trim.Y), ("width", trim.Width), ("height", trim.Height) }
            .Select(a => $"{a.Item1}=\"{SvgWriter.Number(a.Item2)}\""));
        html.Append(CultureInfo.InvariantCulture, $"<rect {paper} fill=\"#fff\"/>\n");
        var links = SceneLinks.Of(publication, frames).ToLookup(l => l.Frame);
        foreach (var frame in frames) Frame(html, frame, links[frame], pictureOf);
        return html.Append("</svg>\n</body>\n</html>\n").ToString();
    }

    private static string Pixels(double points) => Math.Round(points * PixelsPerPoint).ToString(CultureInfo.InvariantCulture);

    private static string NameOf(SceneFrame frame) => string.Create(CultureInfo.InvariantCulture, $"frame{frame.FrameId}");

    /// <summary>Frames stand in the order in which they cover each other; in which they are read is told besides (WAI-ARIA 1.1, aria-owns).</summary>
    private string Order(Spread spread, PlacedPage page, IReadOnlyList<SceneFrame> frames)
    {
        var shown = frames.Select(f => f.FrameId).ToHashSet();
        var read = ReadingOrder.Of(publication, spread.FramesOf(publication).Select(f => f.Frame).Where(f => f.PageId == page.Page.Id && shown.Contains(f.Id)));
        return read.Length < 2 ? "" : $" aria-owns=\"{string.Join(' ', read.Select(f => string.Create(CultureInfo.InvariantCulture, $"frame{f.Id}")))}\"";
    }

    private void Frame(StringBuilder html, SceneFrame frame, IEnumerable<SceneLink> links, Func<LinkedImage, string> pictureOf)
    {
        html.Append(CultureInfo.InvariantCulture, $"<g id=\"{NameOf(frame)}\" transform=\"{SvgWriter.Matrix(frame.ToSpread)}\"");
        if (frame.Image is { } image) html.Append(CultureInfo.InvariantCulture, $" role=\"img\" aria-label=\"{SvgWriter.Escape(image.Source.Words)}\"");
        else if (frame.Text is null) html.Append(" aria-hidden=\"true\"");
        html.Append('>');
        SvgWriter.Content(html, frame, "part", pictureOf);
        foreach (var link in links)
            if ((link.Address ?? pathOf(link.PageIndex)) is { } target)
                html.Append(CultureInfo.InvariantCulture, $"<a href=\"{SvgWriter.Escape(target)}\"><title>{SvgWriter.Escape(link.Words)}</title>")
                    .Append(CultureInfo.InvariantCulture, $"<rect x=\"{SvgWriter.Number(link.Place.X)}\" y=\"{SvgWriter.Number(link.Place.Y)}\" ")
                    .Append(CultureInfo.InvariantCulture, $"width=\"{SvgWriter.Number(link.Place.Width)}\" height=\"{SvgWriter.Number(link.Place.Height)}\" ")
                    .Append("fill-opacity=\"0\"/></a>");
        html.Append("</g>\n");
    }
}
