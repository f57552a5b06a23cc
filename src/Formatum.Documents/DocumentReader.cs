using System.Text;
using Formatum.Core.Checks;
using Formatum.Core.Edits;

namespace Formatum.Documents;

/// <summary>Reads the words of documents: plain text, Markdown, HTML and Office Open XML (ECMA-376).</summary>
public static class DocumentReader
{
    /// <summary>No larger file is read.</summary>
    public const int LargestFile = 25_000_000;

    /// <summary>The endings of the names of files that are read.</summary>
    public static readonly string[] Endings = [".txt", ".md", ".markdown", ".html", ".htm", ".docx"];

    public static bool Reads(string name) => Endings.Contains(Path.GetExtension(name).ToLowerInvariant());

    /// <param name="name">The file's name; how it is read goes by its ending.</param>
    /// <param name="bytes">What is in it.</param>
    /// <exception cref="EditRefused">It cannot be read; the message tells why.</exception>
    public static BroughtDocument Read(string name, byte[] bytes)
    {
        if (bytes.Length > LargestFile) throw new EditRefused("file", $"{name} has more than {LargestFile / 1_000_000} MB. Bring it in in parts.");
        var read = Path.GetExtension(name).ToLowerInvariant() switch
        {
            ".docx" => WordDocument.Read(name, bytes),
            ".md" or ".markdown" => HtmlDocument.Read(FromMarkdown(Decoded(bytes))),
            ".html" or ".htm" => HtmlDocument.Read(Decoded(bytes)),
            ".txt" => PlainDocument.Read(Decoded(bytes)),
            _ => throw new EditRefused("file", $"{name} is no document that is read here. Bring in {string.Join(", ", Endings)}."),
        };
        long characters = read.Paragraphs.Sum(p => p.Runs.Sum(r => (long)r.Text.Length) + 1);
        return characters <= Core.Stories.FrameText.LongestText ? read : throw new EditRefused("file", $"{name} has {characters:#,0} characters; a text has " +
            $"{Core.Stories.FrameText.LongestText:#,0} at most. Bring it in in parts.");
    }

    /// <summary>HTML as another program puts it on the clipboard.</summary>
    /// <exception cref="EditRefused">Its elements are nested out of all measure.</exception>
    public static BroughtDocument ReadHtml(string html) => HtmlDocument.Read(html);

    private static string FromMarkdown(string text)
    {
        try
        {
            return Markdig.Markdown.ToHtml(text, HtmlDocument.Markdown);
        }
        catch (ArgumentException)
        {
            throw HtmlDocument.TooDeep();
        }
    }

    /// <summary>Bytes as text: what they say themselves, UTF-8 where that is possible, and else Windows-1252, as the WHATWG Encoding Standard has it for the
    /// languages of western Europe.</summary>
    private static string Decoded(ReadOnlySpan<byte> bytes)
    {
        if (bytes.StartsWith((ReadOnlySpan<byte>)[0xEF, 0xBB, 0xBF])) return Encoding.UTF8.GetString(bytes[3..]);
        if (bytes.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xFE])) return Encoding.Unicode.GetString(bytes[2..]);
        if (bytes.StartsWith((ReadOnlySpan<byte>)[0xFE, 0xFF])) return Encoding.BigEndianUnicode.GetString(bytes[2..]);
        return System.Text.Unicode.Utf8.IsValid(bytes) ? Encoding.UTF8.GetString(bytes)
            : CodePagesEncodingProvider.Instance.GetEncoding(1252)!.GetString(bytes);
    }
}
