using System.Globalization;
using System.Text;
using Formatum.Core.Publications;
using Formatum.Core.Settings;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using Formatum.Output;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk;

/// <summary>Text frames as the Desk shows them: what is set, a mark where it does not fit, and the field it is typed in.</summary>
public static class TextView
{
    /// <summary>The style rules of all shipped faces.</summary>
    public static string FontFaces()
    {
        var css = new StringBuilder();
        foreach (string family in TextStyle.Families)
        {
            foreach (var (bold, italic) in new[] { (false, false), (true, false), (false, true), (true, true) })
                css.Append(SvgWriter.FontFace(family, bold, italic,
                    $"/fonts/{Uri.EscapeDataString(family)}/{Typefaces.FaceName(new() { Bold = bold, Italic = italic })}.ttf")).Append('\n');
        }
        return css.ToString();
    }

    /// <summary>What lies over a text frame: words where it is empty, and where it does not fit.</summary>
    public static string Marks(Frame frame, bool isEmpty, SetText text)
    {
        var (width, height) = (frame.Box.Width, frame.Box.Height);
        string size = string.Create(CultureInfo.InvariantCulture, $"style=\"--largest:{SvgWriter.Number(Math.Min(width / 9, height * 0.8))}px\"");
        if (isEmpty)
            return $"<text class=\"empty-label\" x=\"{SvgWriter.Number(width / 2)}\" y=\"{SvgWriter.Number(height / 2)}\" {size}>Text</text>";
        return text.Overflows || text.Missing > 0 ? $"<text class=\"overflow-mark\" x=\"{SvgWriter.Number(width)}\" y=\"{SvgWriter.Number(height)}\" " +
            $"{size}>{Lost(text.WordsLeftOver, text.Missing)}</text>" : "";
    }

    /// <summary>What of a text is lost in print, in words.</summary>
    public static string Lost(int words, int missing) => string.Join(", ", new[]
    {
        words > 0 ? $"{Words.Count(words, "word")} left over" : "", missing > 0 ? $"{Words.Count(missing, "character")} not in the font" : "",
    }.Where(w => w.Length > 0));

    /// <summary>The text in a field to type in, a paragraph each, styled as it is set; with the revision it is of.</summary>
    public static string Writing(Publication publication, Frame frame, long revision)
    {
        var html = new StringBuilder();
        html.Append(CultureInfo.InvariantCulture, $"<div class=\"writing\" contenteditable=\"true\" role=\"textbox\" aria-multiline=\"true\" " +
            $"aria-label=\"Text of {SvgWriter.Escape(frame.Label)}\" spellcheck=\"false\" data-revision=\"{revision}\"{ColumnsOf(frame.Area)}>");
        foreach (var paragraph in TextCascade.Styled(publication, publication.StoryOf(frame)!.Text).Paragraphs)
        {
            html.Append(CultureInfo.InvariantCulture, $"<p style=\"{CharactersOf(paragraph.Style)};{ParagraphOf(paragraph.Style)}\">");
            if (paragraph.Text.Length == 0) html.Append("<br>");
            foreach (var run in paragraph.Runs.Where(r => r.Length > 0))
            {
                string text = SvgWriter.Escape(paragraph.Text.Substring(run.Start, run.Length)).Replace("&#8232;", "<br>", StringComparison.Ordinal)
                    .Replace("\u2028", "<br>", StringComparison.Ordinal);
                if (run.Style == paragraph.Style) html.Append(text);
                else html.Append(CultureInfo.InvariantCulture, $"<span style=\"{CharactersOf(run.Style)}\">{text}</span>");
            }
            html.Append("</p>");
        }
        return html.Append("</div>").ToString();
    }

    private static string ColumnsOf(TextArea? area) => area is not { Inset: var inset } ? "" : string.Create(CultureInfo.InvariantCulture,
        $" style=\"columns:{area.Columns};column-gap:{SvgWriter.Number(area.Gutter)}px;column-fill:auto;box-sizing:border-box;" +
        $"padding:{SvgWriter.Number(inset.Top)}px {SvgWriter.Number(inset.Right)}px {SvgWriter.Number(inset.Bottom)}px {SvgWriter.Number(inset.Left)}px\"");

    private static string CharactersOf(TextStyle s)
    {
        string lines = (s.Underline, s.StrikeThrough) switch
        {
            (true, true) => "underline line-through",
            (true, _) => "underline",
            (_, true) => "line-through",
            _ => "none"
        };
        var measures = Typefaces.Shipped.MeasuresOf(s);
        return string.Create(CultureInfo.InvariantCulture, $"font-family:'{SvgWriter.FontName(s.Family)}';font-weight:{(s.Bold ? 700 : 400)};" +
            $"font-style:{(s.Italic ? "italic" : "normal")};font-size:{SvgWriter.Number(measures.Size)}px;line-height:{SvgWriter.Number(s.LineHeight)}px;" +
            $"color:{s.Colour};text-decoration-line:{lines};letter-spacing:{SvgWriter.Number(s.Tracking / 1000 * s.Size)}px;" +
            $"text-transform:{(s.Case == TextCase.Capitals ? "uppercase" : "none")};vertical-align:{SvgWriter.Number(measures.Raise)}px");
    }

    private static string ParagraphOf(TextStyle s)
    {
        string align = s.Alignment switch { TextAlignment.Centre => "center", TextAlignment.Right => "right", TextAlignment.Justified => "justify", _ => "left" };
        return string.Create(CultureInfo.InvariantCulture, $"text-align:{align};margin:{SvgWriter.Number(s.SpaceBefore)}px {SvgWriter.Number(s.IndentRight)}px " +
            $"{SvgWriter.Number(s.SpaceAfter)}px {SvgWriter.Number(s.IndentLeft)}px;text-indent:{SvgWriter.Number(s.Indent)}px;tab-size:{TabStops.UsualDistance}px");
    }
}

/// <summary>What the paragraphs of the chosen text frames have in common, and what is set on them.</summary>
public sealed class TextSelection
{
    private readonly TextSettings[] _resolved;
    private readonly Paragraph[] _paragraphs;

    public TextSelection(Publication publication, IReadOnlyList<Frame> frames)
    {
        _paragraphs = [.. frames.Select(publication.StoryOf).OfType<Story>().Distinct().SelectMany(s => s.Text.Paragraphs)];
        _resolved = [.. _paragraphs.Select(p => TextCascade.StyleOf(publication, p)).Distinct().Select(s => s.ToSettings())];
    }

    /// <summary>The settings they share; null where they differ in this one.</summary>
    public TextSettings? Shared(Setting<TextSettings> setting) =>
        _resolved.Select(setting.ValueOf).Distinct().Take(2).Count() == 1 ? _resolved[0] : null;

    /// <summary>Whether something is set on one of them, or on some of its characters.</summary>
    public bool IsSetHere(Setting<TextSettings> setting) => _paragraphs.Any(p => setting.IsSet(p.Set) || p.Runs.Any(r => setting.IsSet(r.Set)));

    /// <summary>The paragraph style they share: its id, 0 for none; null where they differ.</summary>
    public int? Style => _paragraphs.Select(p => p.StyleId ?? 0).Distinct().Take(2).ToList() is [var only] ? only : null;
}
