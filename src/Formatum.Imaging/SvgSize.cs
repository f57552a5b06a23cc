using System.Globalization;
using System.Text.RegularExpressions;
using System.Xml;
using System.Xml.Linq;

namespace Formatum.Imaging;

/// <summary>
/// Drawings that do not say how large they are: no viewBox, and a width or height that is missing or a part of what is around it. Drawn as they are, they
/// show another part of themselves at every size; here they get the size that a browser gives them where they stand as a picture.
/// </summary>
internal static partial class SvgSize
{
    /// <summary>The default object size, in CSS pixels (CSS Images 3, section 5.1; CSS 2.1, section 10.3.2).</summary>
    private const double UsualWidth = 300, UsualHeight = 150;

    /// <summary>A drawing whose size has to be told, with its size.</summary>
    /// <param name="path">The file.</param>
    /// <returns>The file's content with width, height and viewBox; null where the file itself will do, or is broken or gone.</returns>
    public static byte[]? Told(string path)
    {
        try
        {
            using var file = File.OpenRead(path);
            using (var reader = XmlReader.Create(file, SvgCheck.Reading))
            {
                reader.MoveToContent();
                bool says = reader.GetAttribute("viewBox") is { Length: > 0 } || (Length(reader.GetAttribute("width")) is not null
                    && Length(reader.GetAttribute("height")) is not null);
                if (says || reader.LocalName != "svg") return null;
            }
            file.Position = 0;
            using var whole = XmlReader.Create(file, SvgCheck.Reading);
            return WithSize(XDocument.Load(whole, LoadOptions.PreserveWhitespace));
        }
        catch (Exception e) when (e is XmlException or IOException or UnauthorizedAccessException)
        {
            // Whoever reads the file says what is wrong with it.
            return null;
        }
    }

    private static byte[] WithSize(XDocument drawing)
    {
        var root = drawing.Root!;
        double width = Length(root.Attribute("width")?.Value) ?? UsualWidth, height = Length(root.Attribute("height")?.Value) ?? UsualHeight;
        root.SetAttributeValue("width", width);
        root.SetAttributeValue("height", height);
        root.SetAttributeValue("viewBox", string.Create(CultureInfo.InvariantCulture, $"0 0 {width} {height}"));
        using var told = new MemoryStream();
        drawing.Save(told, SaveOptions.DisableFormatting);
        return told.ToArray();
    }

    /// <summary>A length in CSS pixels (CSS Values 4, section 6.2; a letter's height is that of the usual size, 16 pixels); null where it is none.</summary>
    private static double? Length(string? text)
    {
        if (LengthPattern().Match(text ?? "") is not { Success: true } match
            || !double.TryParse(match.Groups[1].ValueSpan, NumberStyles.Float, CultureInfo.InvariantCulture, out double number))
            return null;
        double? unit = match.Groups[2].Value.ToLowerInvariant() switch
        {
            "" or "px" => 1,
            "in" => 96,
            "cm" => 96 / 2.54,
            "mm" => 96 / 25.4,
            "pt" => 96 / 72.0,
            "pc" => 16,
            "em" or "rem" => 16,
            "ex" or "ch" => 8,
            _ => null,
        };
        return number * unit;
    }

    [GeneratedRegex(@"^\s*\+?((?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)\s*([a-zA-Z]*)\s*$")]
    private static partial Regex LengthPattern();
}
