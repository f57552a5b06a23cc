using System.IO.Compression;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Wordprocessing;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Stories;
using Paragraph = DocumentFormat.OpenXml.Wordprocessing.Paragraph;
using Run = DocumentFormat.OpenXml.Wordprocessing.Run;
using TextAlignment = Formatum.Core.Stories.TextAlignment;

namespace Formatum.Documents;

/// <summary>WordprocessingML documents (ECMA-376, Part 1, 17). What was deleted under tracked changes is gone, what was inserted is there.</summary>
internal static class WordDocument
{
    /// <summary>All parts together hold no more than this, in bytes.</summary>
    private const long MostInflated = 200_000_000;

    public static BroughtDocument Read(string name, byte[] bytes)
    {
        try
        {
            HoldToSize(name, bytes);
            using var document = WordprocessingDocument.Open(new MemoryStream(bytes), isEditable: false, new() { MaxCharactersInPart = MostInflated });
            var body = document.MainDocumentPart?.Document?.Body ?? throw new EditRefused("file", $"There is no text in {name}.");
            var reading = new Reading(document.MainDocumentPart!);
            reading.Blocks(body);
            return reading.Gathered.ToDocument();
        }
        catch (Exception e) when (e is OpenXmlPackageException or InvalidDataException or System.Xml.XmlException or FileFormatException or IOException
            or InvalidOperationException or ArgumentException or FormatException or NotSupportedException or UriFormatException)
        {
            throw new EditRefused("file", $"{name} is damaged, or no .docx. Open it in the program it was made with, and save it anew.");
        }
    }

    /// <summary>Inflates all of it once, without keeping it: what the file says of its own sizes need not be so.</summary>
    private static void HoldToSize(string name, byte[] bytes)
    {
        using var zip = new ZipArchive(new MemoryStream(bytes));
        long all = 0;
        byte[] buffer = new byte[1 << 16];
        foreach (var entry in zip.Entries.Where(e => e.FullName.EndsWith(".xml", StringComparison.OrdinalIgnoreCase)
            || e.FullName.EndsWith(".rels", StringComparison.OrdinalIgnoreCase)))
        {
            using var content = entry.Open();
            for (int read; (read = content.Read(buffer)) > 0;)
                if ((all += read) > MostInflated) throw new EditRefused("file",
                    $"{name} holds more than {MostInflated / 1_000_000} MB inside. It is not read.");
        }
    }

    private sealed class Reading(MainDocumentPart part)
    {
        private readonly Dictionary<string, Style> _styles = (part.StyleDefinitionsPart?.Styles?.Elements<Style>() ?? [])
            .Where(s => s.StyleId?.Value is not null).GroupBy(s => s.StyleId!.Value!).ToDictionary(g => g.Key, g => g.First());

        public Gathered Gathered { get; } = new();

        public void Blocks(OpenXmlElement parent)
        {
            foreach (var element in parent.ChildElements)
            {
                if (element is Paragraph paragraph) Paragraph(paragraph);
                else if (element is Table table) Rows(table);
                else if (element is SdtBlock { SdtContentBlock: { } content }) Blocks(content);
                else if (element is SdtBlock or SectionProperties or BookmarkStart or BookmarkEnd) continue;
                else if (element.HasChildren) Blocks(element);
            }
        }

        private void Paragraph(Paragraph paragraph)
        {
            Inline(paragraph);
            var properties = paragraph.ParagraphProperties;
            Gathered.End(StyleName(properties?.ParagraphStyleId?.Val?.Value), SettingsOf(properties), keepEmpty: false);
        }

        private void Rows(Table table)
        {
            foreach (var row in table.Elements<TableRow>())
            {
                int cell = 0;
                foreach (var content in row.Elements<TableCell>())
                {
                    if (cell++ > 0) Gathered.Add("\t", TextSettings.Open);
                    int paragraph = 0;
                    foreach (var one in content.Descendants<Paragraph>())
                    {
                        if (paragraph++ > 0) Gathered.Add(" ", TextSettings.Open);
                        Inline(one);
                    }
                }
                Gathered.End("Table", TextSettings.Open);
            }
        }

        private void Inline(OpenXmlElement parent)
        {
            foreach (var element in parent.ChildElements)
            {
                switch (element)
                {
                    case Run run: Characters(run); break;
                    case DeletedRun or MoveFromRun or ParagraphProperties: break;
                    case var other when other.LocalName is "oMath" or "oMathPara": Gathered.LeaveAside("a formula"); break;
                    case var other when other.HasChildren: Inline(other); break;
                }
            }
        }

        private void Characters(Run run)
        {
            var set = SettingsOf(run.RunProperties);
            if (run.RunProperties?.Vanish is { } hidden && IsOn(hidden)) return;
            foreach (var element in run.ChildElements)
            {
                switch (element)
                {
                    case Text text: Gathered.Add(text.Text, set); break;
                    case TabChar: Gathered.Add("\t", set); break;
                    case Break { Type.Value: var type } when type == BreakValues.Page || type == BreakValues.Column: break;
                    case Break or CarriageReturn: Gathered.Add("\u2028", set); break;
                    case NoBreakHyphen: Gathered.Add("\u2011", set); break;
                    case SoftHyphen: Gathered.Add("\u00ad", set); break;
                    case Drawing or Picture or EmbeddedObject: Gathered.LeaveAside("a picture"); break;
                    case FootnoteReference: Gathered.LeaveAside("a footnote"); break;
                    case EndnoteReference: Gathered.LeaveAside("an endnote"); break;
                    case CommentReference: Gathered.LeaveAside("a comment"); break;
                }
            }
        }

        /// <summary>A style by the name people know it by: "heading 1" is written small in the file, and built in.</summary>
        private string? StyleName(string? id)
        {
            if (id is null || !_styles.TryGetValue(id, out var style) || style.StyleName?.Val?.Value is not { Length: > 0 } name) return null;
            if (style.Default?.Value == true || name is "Normal" or "Body Text" or "First Paragraph" or "Compact") return null;
            return name.StartsWith("heading ", StringComparison.Ordinal) ? "H" + name[1..] : name;
        }

        private static TextSettings SettingsOf(RunProperties? p) => p is null ? TextSettings.Open : new()
        {
            Bold = p.Bold is { } bold ? IsOn(bold) : null,
            Italic = p.Italic is { } italic ? IsOn(italic) : null,
            StrikeThrough = p.Strike is { } strike ? IsOn(strike) : null,
            Underline = p.Underline?.Val is { } line ? line.Value != UnderlineValues.None : null,
            Case = p.Caps is { } caps && IsOn(caps) ? TextCase.Capitals : null,
            Position = p.VerticalTextAlignment?.Val?.Value is { } position ? position == VerticalPositionValues.Superscript ? TextPosition.Superscript
                : position == VerticalPositionValues.Subscript ? TextPosition.Subscript : TextPosition.Normal : null,
        };

        private static bool IsOn(OnOffType setting) => setting.Val is not { } value || value.Value;

        private static TextSettings SettingsOf(ParagraphProperties? p)
        {
            if (p is null) return TextSettings.Open;
            var set = new TextSettings
            {
                Alignment = p.Justification?.Val?.Value is not { } value ? null : value == JustificationValues.Center ? TextAlignment.Centre
                    : value == JustificationValues.Right || value == JustificationValues.End ? TextAlignment.Right : value == JustificationValues.Both
                        ? TextAlignment.Justified : null,
            };
            if (p.NumberingProperties is not { NumberingId.Val.Value: > 0 } numbering) return set;
            int level = Math.Clamp(numbering.NumberingLevelReference?.Val?.Value ?? 0, 0, 8);
            return set with { List = IsNumbered(numbering, p) ? ListKind.Number : ListKind.Bullet, Indent = -14, IndentLeft = 14 * (level + 1) };
        }

        private static bool IsNumbered(NumberingProperties numbering, ParagraphProperties within)
        {
            var definitions = within.Ancestors<Document>().FirstOrDefault()?.MainDocumentPart?.NumberingDefinitionsPart?.Numbering;
            int id = numbering.NumberingId!.Val!.Value, level = numbering.NumberingLevelReference?.Val?.Value ?? 0;
            int? kind = definitions?.Elements<NumberingInstance>().FirstOrDefault(n => n.NumberID?.Value == id)?.AbstractNumId?.Val?.Value;
            var format = definitions?.Elements<AbstractNum>().FirstOrDefault(a => a.AbstractNumberId?.Value == kind)?.Elements<Level>()
                .FirstOrDefault(l => l.LevelIndex?.Value == level)?.NumberingFormat?.Val?.Value;
            return format is { } known && known != NumberFormatValues.Bullet && known != NumberFormatValues.None;
        }
    }
}
