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

    /// <summary>What of a text is lost in print, in words.</summary>
    public static string Lost(int words, int missing) => string.Join(", ", new[]
    {
        words > 0 ? $"{Words.Count(words, "word")} left over" : "", missing > 0 ? $"{Words.Count(missing, "character")} not in the font" : "",
    }.Where(w => w.Length > 0));
}
