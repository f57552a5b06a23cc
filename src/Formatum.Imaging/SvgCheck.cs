using System.Text.RegularExpressions;
using System.Xml;

namespace Formatum.Imaging;

/// <summary>Refuses drawings that could run, fetch or swell: scripts, outside references, entities.</summary>
public static partial class SvgCheck
{
    /// <summary>How a stranger's drawing is read: nothing is fetched, and nothing swells.</summary>
    internal static XmlReaderSettings Reading => new() { DtdProcessing = DtdProcessing.Parse, XmlResolver = null, MaxCharactersFromEntities = 1000 };

    /// <exception cref="BadPicture">The drawing is broken or carries something that is not taken in.</exception>
    public static void Check(Stream stream)
    {
        try
        {
            using var reader = XmlReader.Create(stream, Reading);
            bool inStyle = false, sawRoot = false;
            while (reader.Read())
            {
                switch (reader.NodeType)
                {
                    case XmlNodeType.DocumentType when reader.Value.Contains("<!ENTITY", StringComparison.OrdinalIgnoreCase):
                        throw new BadPicture("The SVG declares entities, which can swell without limit. Save it again as plain SVG.");
                    case XmlNodeType.ProcessingInstruction when reader.Name == "xml-stylesheet":
                        throw Outside("a style sheet");
                    case XmlNodeType.Element:
                        if (!sawRoot && reader.LocalName != "svg")
                            throw new BadPicture($"This is XML, but not a picture: its root is <{reader.LocalName}>, not <svg>.");
                        sawRoot = true;
                        CheckElement(reader);
                        inStyle = reader.LocalName == "style" && !reader.IsEmptyElement;
                        break;
                    case XmlNodeType.EndElement:
                        inStyle = false;
                        break;
                    case XmlNodeType.Text or XmlNodeType.CDATA when inStyle:
                        CheckStyle(reader.Value);
                        break;
                }
            }
        }
        catch (XmlException e)
        {
            throw new BadPicture($"The SVG is broken at line {e.LineNumber}: it is not well-formed XML. Save it again in the program it was drawn with.", e);
        }
    }

    private static void CheckElement(XmlReader reader)
    {
        string name = reader.LocalName;
        if (name is "script" or "handler") throw new BadPicture("The SVG carries a script. Save it again as plain SVG without scripts.");
        if (name is "foreignObject" or "iframe" or "embed" or "object")
            throw new BadPicture($"The SVG embeds other documents (<{name}>). Save it again as plain SVG.");
        if (reader.NamespaceURI.EndsWith("/XInclude", StringComparison.Ordinal)) throw Outside("an include");
        for (bool more = reader.MoveToFirstAttribute(); more; more = reader.MoveToNextAttribute())
        {
            string attribute = reader.LocalName, value = reader.Value.Trim();
            if (attribute.StartsWith("on", StringComparison.OrdinalIgnoreCase))
                throw new BadPicture("The SVG carries a script in an event attribute. Save it again as plain SVG without scripts.");
            if (attribute is "href" or "src" && name != "a" && !IsInside(value)) throw Outside(Shorten(value));
            if (value.Contains("url(", StringComparison.OrdinalIgnoreCase) || attribute == "style") CheckStyle(value);
        }
        reader.MoveToElement();
    }

    private static void CheckStyle(string css)
    {
        if (css.Contains("@import", StringComparison.OrdinalIgnoreCase)) throw Outside("an imported style sheet");
        foreach (Match match in UrlPattern().Matches(css))
        {
            string target = match.Groups[1].Value.Trim().Trim('"', '\'').Trim();
            if (!IsInside(target)) throw Outside(Shorten(target));
        }
    }

    private static bool IsInside(string target) =>
        target.Length == 0 || target[0] == '#' || EmbeddedPicture().IsMatch(target);

    private static BadPicture Outside(string what) =>
        new($"The SVG refers to something outside itself ({what}). Embed what it needs and save it again.");

    private static string Shorten(string text) => text.Length <= 60 ? text : text[..57] + "...";

    [GeneratedRegex(@"url\(([^)]*)\)", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex UrlPattern();

    [GeneratedRegex("^data:image/(png|jpe?g|webp|gif)[;,]", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex EmbeddedPicture();
}
