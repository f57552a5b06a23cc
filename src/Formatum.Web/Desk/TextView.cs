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
    public static string Marks(Frame frame, bool isEmpty, SetText text)
    {
        var (width, height) = (frame.Box.Width, frame.Box.Height);
        string size = string.Create(CultureInfo.InvariantCulture, $"style=\"--largest:{SvgWriter.Number(Math.Min(width / 9, height * 0.8))}px\"");
        if (isEmpty)
            return $"<text class=\"empty-label\" x=\"{SvgWriter.Number(width / 2)}\" y=\"{SvgWriter.Number(height / 2)}\" {size}>Text</text>";
        return text.Overflows || text.Missing > 0 ? $"<text class=\"overflow-mark\" x=\"{SvgWriter.Number(width)}\" y=\"{SvgWriter.Number(height)}\" " +
            $"{size}>{Lost(text.WordsLeftOver, text.Missing)}</text>" : "";
    }

    /// <summary>The languages to choose among, by name: those by which words can be divided, and the one that is set.</summary>
    public static IEnumerable<string> Languages(string? set) =>
        Hyphenation.Languages.Append(set ?? "en-GB").Distinct().OrderBy(LanguageName, StringComparer.Ordinal);

    /// <summary>The name of a language in English.</summary>
    public static string LanguageName(string language) => language switch
    {
        "en-GB" => "English (British)",
        "en-US" => "English (American)",
        "de" => "German",
        "fr" => "French",
        "es" => "Spanish",
        "it" => "Italian",
        "nl" => "Dutch",
        "pt" => "Portuguese",
        "sv" => "Swedish",
        "da" => "Danish",
        "pl" => "Polish",
        _ => language,
    };

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
        foreach (var (words, style) in publication.StoryOf(frame)!.Text.Paragraphs)
        {
            string text = SvgWriter.Escape(words).Replace("&#8232;", "<br>", StringComparison.Ordinal).Replace("\u2028", "<br>", StringComparison.Ordinal);
            html.Append(CultureInfo.InvariantCulture, $"<p style=\"{StyleOf(style)}\">{(text.Length == 0 ? "<br>" : text)}</p>");
        }
        return html.Append("</div>").ToString();
    }

    private static string ColumnsOf(TextArea? area) => area is not { Inset: var inset } ? "" : string.Create(CultureInfo.InvariantCulture,
        $" style=\"columns:{area.Columns};column-gap:{SvgWriter.Number(area.Gutter)}px;column-fill:auto;box-sizing:border-box;" +
        $"padding:{SvgWriter.Number(inset.Top)}px {SvgWriter.Number(inset.Right)}px {SvgWriter.Number(inset.Bottom)}px {SvgWriter.Number(inset.Left)}px\"");

    private static string StyleOf(TextStyle s) => string.Create(CultureInfo.InvariantCulture,
        $"font-family:'{SvgWriter.FontName(s.Family)}';font-weight:{(s.Bold ? 700 : 400)};font-style:{(s.Italic ? "italic" : "normal")};font-size:{SvgWriter.Number(s.Size)}px;line-height:{SvgWriter.Number(s.LineHeight)}px;color:{s.Colour};text-align:{(s.Alignment switch { TextAlignment.Centre => "center", TextAlignment.Right => "right", TextAlignment.Justified => "justify", _ => "left" })};margin:{SvgWriter.Number(s.SpaceBefore)}px 0 {SvgWriter.Number(s.SpaceAfter)}px;text-indent:{SvgWriter.Number(s.Indent)}px");
}

/// <summary>What the paragraphs of the chosen text frames have in common; null where they differ.</summary>
public sealed class TextSelection(Publication publication, IReadOnlyList<Frame> frames)
{
    private readonly TextStyle[] _styles = [.. frames.Select(publication.StoryOf).OfType<Story>().Distinct().SelectMany(s => s.Text.Paragraphs)
        .Select(p => p.Style)];

    public T? Value<T>(Func<TextStyle, T> of) where T : struct => _styles.Select(of).Distinct().Take(2).ToList() is [var only] ? only : null;

    public string? Word(Func<TextStyle, string> of) => _styles.Select(of).Distinct().Take(2).ToList() is [var only] ? only : null;
}
