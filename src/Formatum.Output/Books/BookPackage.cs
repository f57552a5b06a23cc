using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Formatum.Core.Composing;
using Formatum.Core.Publications;

namespace Formatum.Output.Books;

/// <summary>A page of a book, in the order it is read.</summary>
/// <param name="Page">Where it stands in the publication.</param>
/// <param name="Id">What the package calls it.</param>
/// <param name="Path">Where it lies.</param>
internal sealed record BookItem(PlacedPage Page, string Id, string Path);

/// <summary>What a book says of itself: its package and its lists of contents and pages (EPUB 3.2, Packages).</summary>
internal sealed class BookPackage(Publication publication, IReadOnlyList<BookItem> pages, string language, DateTimeOffset time)
{
    private readonly Setup _setup = publication.Setup;

    private string Title => SvgWriter.Escape(_setup.Edition.Length == 0 ? _setup.Name : $"{_setup.Name}, {_setup.Edition}");

    /// <summary>The same for the same publication and edition, whenever it is made (RFC 9562, 5.8: a UUID by a rule of one's own).</summary>
    private string Identity()
    {
        byte[] hash = SHA256.HashData(Encoding.UTF8.GetBytes($"{_setup.Name}\n{_setup.Edition}"))[..16];
        hash[6] = (byte)(0x80 | (hash[6] & 0x0F));
        hash[8] = (byte)(0x80 | (hash[8] & 0x3F));
        return $"urn:uuid:{new Guid(hash, bigEndian: true)}";
    }

    public string Write(IEnumerable<(string Id, string Path, string Type, string Properties)> items)
    {
        var xml = new StringBuilder("<?xml version=\"1.0\" encoding=\"utf-8\"?>\n<package xmlns=\"http://www.idpf.org/2007/opf\" version=\"3.0\" ");
        xml.Append(CultureInfo.InvariantCulture, $"unique-identifier=\"identity\" xml:lang=\"{language}\" dir=\"{(_setup.BindsRight ? "rtl" : "ltr")}\">\n")
            .Append("<metadata xmlns:dc=\"http://purl.org/dc/elements/1.1/\">\n")
            .Append(CultureInfo.InvariantCulture, $"<dc:identifier id=\"identity\">{Identity()}</dc:identifier>\n<dc:title>{Title}</dc:title>\n")
            .Append(CultureInfo.InvariantCulture, $"<dc:language>{language}</dc:language>\n<meta property=\"dcterms:modified\">")
            .Append(time.UtcDateTime.ToString("yyyy-MM-dd'T'HH:mm:ss'Z'", CultureInfo.InvariantCulture)).Append("</meta>\n");
        foreach (var (name, value) in Properties()) xml.Append(CultureInfo.InvariantCulture, $"<meta property=\"{name}\">{value}</meta>\n");
        xml.Append("</metadata>\n<manifest>\n");
        foreach (var (id, path, type, properties) in items)
            xml.Append(CultureInfo.InvariantCulture, $"<item id=\"{id}\" href=\"{path}\" media-type=\"{type}\"")
                .Append(properties.Length == 0 ? "" : $" properties=\"{properties}\"").Append("/>\n");
        xml.Append(CultureInfo.InvariantCulture, $"</manifest>\n<spine page-progression-direction=\"{(_setup.BindsRight ? "rtl" : "ltr")}\">\n");
        foreach (var page in pages) xml.Append(CultureInfo.InvariantCulture, $"<itemref idref=\"{page.Id}\"{Side(page.Page)}/>\n");
        return xml.Append("</spine>\n</package>\n").ToString();
    }

    private IEnumerable<(string Name, string Value)> Properties()
    {
        yield return ("rendition:layout", "pre-paginated");
        yield return ("rendition:orientation", "auto");
        yield return ("rendition:spread", _setup.Facing ? "landscape" : "none");
        foreach (string mode in new[] { "textual", "visual" }) yield return ("schema:accessMode", mode);
        foreach (string feature in new[] { "alternativeText", "tableOfContents", "pageNavigation" }) yield return ("schema:accessibilityFeature", feature);
        yield return ("schema:accessibilityHazard", "none");
        yield return ("schema:accessibilitySummary", "Pages as they are laid out. Their text is text, and pictures are described.");
    }

    private string Side(PlacedPage page) => !_setup.Facing ? "" : $" properties=\"page-spread-{(page.Recto ? "right" : "left")}\"";

    /// <summary>The document that leads to headings and pages (EPUB 3.2, Packages, 5).</summary>
    public string Navigation(IEnumerable<HeadingTree> headings)
    {
        var html = new StringBuilder("<?xml version=\"1.0\" encoding=\"utf-8\"?>\n<!DOCTYPE html>\n");
        html.Append("<html xmlns=\"http://www.w3.org/1999/xhtml\" xmlns:epub=\"http://www.idpf.org/2007/ops\" ")
            .Append(CultureInfo.InvariantCulture, $"lang=\"{language}\" xml:lang=\"{language}\">\n<head><title>{Title}</title></head>\n<body>\n");
        html.Append("<nav epub:type=\"toc\"><h1>Contents</h1>");
        var trees = headings.ToList();
        if (trees.Count > 0) List(html, trees);
        else html.Append(CultureInfo.InvariantCulture, $"<ol><li><a href=\"{pages[0].Path}\">{Title}</a></li></ol>");
        html.Append("</nav>\n<nav epub:type=\"page-list\" hidden=\"hidden\"><h1>Pages</h1><ol>");
        foreach (var page in pages) html.Append(CultureInfo.InvariantCulture, $"<li><a href=\"{page.Path}\">{page.Page.Folio}</a></li>");
        return html.Append("</ol></nav>\n</body>\n</html>\n").ToString();
    }

    private void List(StringBuilder html, List<HeadingTree> trees)
    {
        html.Append("<ol>");
        foreach (var tree in trees)
        {
            string path = pages.First(p => p.Page.Number == tree.Heading.PageIndex + 1).Path;
            html.Append(CultureInfo.InvariantCulture, $"<li><a href=\"{path}\">{SvgWriter.Escape(tree.Heading.Words)}</a>");
            if (tree.Within.Count > 0) List(html, tree.Within);
            html.Append("</li>");
        }
        html.Append("</ol>");
    }
}
