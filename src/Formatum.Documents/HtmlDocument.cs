using AngleSharp.Dom;
using AngleSharp.Html.Parser;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Stories;
using Markdig;

namespace Formatum.Documents;

/// <summary>HTML as it is read, and Markdown by way of it. Nothing in it is run or fetched.</summary>
internal static class HtmlDocument
{
    /// <summary>Deeper nested elements are read as if they stood at this depth.</summary>
    private const int Deepest = 200;

    public static readonly MarkdownPipeline Markdown = new MarkdownPipelineBuilder().UsePipeTables().UseEmphasisExtras().UseListExtras().UseYamlFrontMatter()
        .Build();

    private static readonly HashSet<string> Blocks = ["P", "DIV", "SECTION", "ARTICLE", "MAIN", "HEADER", "FOOTER", "ASIDE", "NAV", "UL", "OL", "LI",
        "BLOCKQUOTE", "PRE",
        "TABLE", "THEAD", "TBODY", "TFOOT", "TR", "H1", "H2", "H3", "H4", "H5", "H6", "FIGURE", "FIGCAPTION", "DL", "DT", "DD", "ADDRESS", "HR", "BODY",
            "HTML"];

    private static readonly Dictionary<string, string> Aside = new()
    {
        ["IMG"] = "a picture",
        ["PICTURE"] = "a picture",
        ["SVG"] = "a drawing",
        ["VIDEO"] = "a film",
        ["AUDIO"] = "a recording",
        ["IFRAME"] = "an embedded page",
        ["OBJECT"] = "an embedded object",
        ["FORM"] = "a form",
        ["INPUT"] = "a form",
        ["BUTTON"] = "a form",
        ["SELECT"] = "a form",
        ["CANVAS"] = "a drawing",
    };

    private static readonly HashSet<string> Silent = ["SCRIPT", "STYLE", "HEAD", "TEMPLATE", "NOSCRIPT", "TITLE", "META", "LINK"];

    /// <summary>What holds where an element stands.</summary>
    private sealed record Place(TextSettings Set, string? Style, TextSettings Paragraph, bool Preformatted, int Depth);

    /// <exception cref="EditRefused">Its elements are nested out of all measure.</exception>
    public static BroughtDocument Read(string html)
    {
        HoldToDepth(html);
        var gathered = new Gathered();
        using var document = new HtmlParser().ParseDocument(html);
        if (document.Body is { } body) Walk(body, new(TextSettings.Open, null, TextSettings.Open, false, 0), gathered);
        gathered.End(null, TextSettings.Open);
        return gathered.ToDocument();
    }

    /// <summary>More elements than this are never open at once where somebody wrote them: a parser would take for ever.</summary>
    private const int MostOpen = 1500;

    private static void HoldToDepth(string html)
    {
        int open = 0;
        for (int at = html.IndexOf('<', StringComparison.Ordinal); at >= 0 && at + 1 < html.Length; at = html.IndexOf('<', at + 1))
        {
            if (html[at + 1] == '/') open = Math.Max(0, open - 1);
            else if (char.IsAsciiLetter(html[at + 1]) && !IsVoid(html.AsSpan(at + 1)) && ++open > MostOpen) throw TooDeep();
        }
    }

    public static EditRefused TooDeep() => new("file", "Its elements are nested too deeply, one in the other. Save it anew from the program it was made with.");

    private static readonly string[] Voids = ["br", "img", "hr", "input", "meta", "link", "col", "wbr", "p>", "p ", "li", "td", "th", "tr"];

    /// <summary>Whether a tag needs no end.</summary>
    private static bool IsVoid(ReadOnlySpan<char> tag)
    {
        foreach (string known in Voids)
            if (tag.StartsWith(known, StringComparison.OrdinalIgnoreCase)) return true;
        return false;
    }

    private static void Walk(INode parent, Place place, Gathered gathered)
    {
        foreach (var node in parent.ChildNodes)
        {
            // Between the cells of a row, blanks are none of its words.
            if (node is IText blank && parent is IElement { TagName: "TR" or "TABLE" or "TBODY" or "THEAD" or "TFOOT" or "UL" or "OL" }
                && string.IsNullOrWhiteSpace(blank.Data)) continue;
            if (node is IText text) Words(text.Data, place, gathered);
            else if (node is IElement element && !Silent.Contains(element.TagName)) Element(element, place, gathered);
        }
    }

    private static void Words(string text, Place place, Gathered gathered)
    {
        if (!place.Preformatted)
        {
            text = string.Join(' ', text.Split([' ', '\n', '\t', '\r', '\f'], StringSplitOptions.RemoveEmptyEntries)) is var words && words.Length > 0
                ? (IsBlank(text[0]) ? " " : "") + words + (IsBlank(text[^1]) ? " " : "") : text.Length > 0 ? " " : "";
            if (gathered.EndsBlank) text = text.TrimStart(' ');
        }
        gathered.Add(text, place.Set);
    }

    private static bool IsBlank(char c) => c is ' ' or '\n' or '\t' or '\r' or '\f';

    private static void Element(IElement element, Place place, Gathered gathered)
    {
        string tag = element.TagName;
        if (Aside.TryGetValue(tag, out string? aside))
        {
            gathered.LeaveAside(aside);
            return;
        }
        if (tag == "BR") gathered.Add("\u2028", place.Set);
        else if (tag is "TD" or "TH") Cell(element, place, gathered);
        else if (Blocks.Contains(tag)) Block(element, place, gathered);
        else if (place.Depth < Deepest) Walk(element, place with { Set = Inline(tag).Over(place.Set), Depth = place.Depth + 1 }, gathered);
        else gathered.Add(element.TextContent, place.Set);
    }

    private static TextSettings Inline(string tag) => tag switch
    {
        "B" or "STRONG" => new() { Bold = true },
        "I" or "EM" or "CITE" or "VAR" => new() { Italic = true },
        "U" or "INS" => new() { Underline = true },
        "S" or "DEL" or "STRIKE" => new() { StrikeThrough = true },
        "SUP" => new() { Position = TextPosition.Superscript },
        "SUB" => new() { Position = TextPosition.Subscript },
        "CODE" or "KBD" or "SAMP" or "TT" => new() { Family = "Courier Prime" },
        _ => TextSettings.Open,
    };

    private static void Block(IElement element, Place place, Gathered gathered)
    {
        gathered.End(place.Style, place.Paragraph);
        var inside = place with { Depth = place.Depth + 1 };
        inside = element.TagName switch
        {
            ['H', >= '1' and <= '6' and var level] => inside with { Style = $"Heading {level}" },
            "BLOCKQUOTE" => inside with { Style = "Quote" },
            "PRE" => inside with { Style = "Code", Preformatted = true },
            "TR" => inside with { Style = "Table" },
            "FIGCAPTION" => inside with { Style = "Caption" },
            "LI" => inside with
            {
                Paragraph = new TextSettings
                {
                    List = element.ParentElement?.TagName == "OL" ? ListKind.Number : ListKind.Bullet,
                    Indent = -14,
                    IndentLeft = 14 * Math.Min(8, Ancestors(element))
                }
            },
            _ => inside,
        };
        if (place.Depth < Deepest) Walk(element, inside, gathered);
        else gathered.Add(element.TextContent, place.Set);
        gathered.End(inside.Style, inside.Paragraph);
    }

    private static int Ancestors(IElement element)
    {
        int lists = 0;
        for (var e = element.ParentElement; e is not null && lists < 8; e = e.ParentElement) lists += e.TagName is "UL" or "OL" ? 1 : 0;
        return Math.Max(1, lists);
    }

    /// <summary>The cells of a row stand in one paragraph, with tabs between.</summary>
    private static void Cell(IElement element, Place place, Gathered gathered)
    {
        if (element.PreviousElementSibling is not null) gathered.Add("\t", TextSettings.Open);
        var set = element.TagName == "TH" ? new TextSettings { Bold = true }.Over(place.Set) : place.Set;
        Words(element.TextContent.Trim(), place with { Set = set }, gathered);
    }
}
