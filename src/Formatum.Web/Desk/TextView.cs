using System.Globalization;
using System.Text;
using Formatum.Core.Publications;
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
    public static string Marks(Frame frame, SetText text)
    {
        var (width, height) = (frame.Box.Width, frame.Box.Height);
        string size = string.Create(CultureInfo.InvariantCulture, $"style=\"--largest:{SvgWriter.Number(Math.Min(width / 9, height * 0.8))}px\"");
        if (frame.Text!.IsEmpty)
            return $"<text class=\"empty-label\" x=\"{SvgWriter.Number(width / 2)}\" y=\"{SvgWriter.Number(height / 2)}\" {size}>Text</text>";
        return text.Overflows || text.Missing > 0 ? $"<text class=\"overflow-mark\" x=\"{SvgWriter.Number(width)}\" y=\"{SvgWriter.Number(height)}\" " +
            $"{size}>{Lost(text.LeftOut, text.Missing)}</text>" : "";
    }

    /// <summary>What of a text is lost in print, in words.</summary>
    public static string Lost(int leftOut, int missing) => string.Join(", ", new[]
    {
        leftOut > 0 ? $"{Words.Count(leftOut, "character")} left out" : "", missing > 0 ? $"{Words.Count(missing, "character")} not in the font" : "",
    }.Where(w => w.Length > 0));

    /// <summary>The text in a field to type in, a paragraph each, styled as it is set; with the revision it is of.</summary>
    public static string Writing(Frame frame, long revision)
    {
        var html = new StringBuilder();
        html.Append(CultureInfo.InvariantCulture, $"<div class=\"writing\" contenteditable=\"true\" role=\"textbox\" aria-multiline=\"true\" " +
            $"aria-label=\"Text of {SvgWriter.Escape(frame.Label)}\" spellcheck=\"false\" data-revision=\"{revision}\">");
        foreach (var (words, style) in frame.Text!.Paragraphs)
        {
            string text = SvgWriter.Escape(words).Replace("&#8232;", "<br>", StringComparison.Ordinal).Replace("\u2028", "<br>", StringComparison.Ordinal);
            html.Append(CultureInfo.InvariantCulture, $"<p style=\"{StyleOf(style)}\">{(text.Length == 0 ? "<br>" : text)}</p>");
        }
        return html.Append("</div>").ToString();
    }

    private static string StyleOf(TextStyle s) => string.Create(CultureInfo.InvariantCulture,
        $"font-family:'{SvgWriter.FontName(s.Family)}';font-weight:{(s.Bold ? 700 : 400)};font-style:{(s.Italic ? "italic" : "normal")};font-size:{SvgWriter.Number(s.Size)}px;line-height:{SvgWriter.Number(s.LineHeight)}px;color:{s.Colour};text-align:{(s.Alignment switch { TextAlignment.Centre => "center", TextAlignment.Right => "right", TextAlignment.Justified => "justify", _ => "left" })};margin-bottom:{SvgWriter.Number(s.SpaceAfter)}px");
}

/// <summary>What the paragraphs of the chosen text frames have in common; null where they differ.</summary>
public sealed class TextSelection(IReadOnlyList<Frame> frames)
{
    private readonly TextStyle[] _styles = [.. frames.SelectMany(f => f.Text?.Paragraphs ?? []).Select(p => p.Style)];

    public T? Value<T>(Func<TextStyle, T> of) where T : struct => _styles.Select(of).Distinct().Take(2).ToList() is [var only] ? only : null;

    public string? Word(Func<TextStyle, string> of) => _styles.Select(of).Distinct().Take(2).ToList() is [var only] ? only : null;
}
