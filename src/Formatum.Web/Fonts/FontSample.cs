using System.Text;
using Formatum.Core.Colours;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using Formatum.Output;

namespace Formatum.Web.Fonts;

/// <summary>A line of words in a face, set as pages are.</summary>
internal static class FontSample
{
    private const string Words = "Nine jugs, fired quickly, 1234567890";

    private const double Size = 20, Height = 32, Width = 480, Baseline = 23;

    public static string Draw(TextStyle style)
    {
        var shown = style with { Size = Size, Colour = Colour.Of("#1f2723") };
        StyledText text = new([new(Words, shown, [new StyledRun(0, Words.Length, shown)])]);
        var svg = new StringBuilder($"<svg class=\"font-sample\" width=\"{Width}\" height=\"{Height}\" viewBox=\"0 0 {Width} {Height}\" role=\"img\" " +
            $"aria-label=\"{SvgWriter.Escape(style.Family)}: {Words}\">");
        foreach (var line in TextSetter.Set(FallbackFonts.Applied(text, Typefaces.All), Width * 2, Height * 4, Typefaces.All).Lines.Take(1))
            SvgWriter.Line(svg, line with { Baseline = Baseline });
        return svg.Append("</svg>").ToString();
    }
}
