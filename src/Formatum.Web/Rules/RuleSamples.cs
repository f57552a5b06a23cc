using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Formatum.Core.Composing;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Output;
using Formatum.Web.Desk;
using Formatum.Web.Wording;

namespace Formatum.Web.Rules;

/// <summary>Rules shown by what they do: always the same three pictures, in a tall, a square and a wide frame.</summary>
public static class RuleSamples
{
    /// <summary>One large and lying, one standing, one small: between them every fit and every limit does something else.</summary>
    private static readonly LinkedImage[] Pictures = [Picture(1, "sample-wide", 1500, 1000), Picture(2, "sample-tall", 800, 1200),
        Picture(3, "sample-small", 320, 320)];

    private static readonly (double Width, double Height)[] FrameSizes = [(Units.Millimetres(50), Units.Millimetres(75)),
        (Units.Millimetres(75), Units.Millimetres(75)), (Units.Millimetres(112), Units.Millimetres(75))];

    private static readonly double Gap = Units.Millimetres(9);

    /// <summary>Of the figures beneath a frame, in points of the drawing.</summary>
    private const double LineHeight = 33;

    /// <summary>All three pictures, each in all three frames, with what is cropped and left bare.</summary>
    public static string Grid(Publication publication, int? ruleId) => Draw(publication, ruleId, Pictures, "grid", figures: true);

    /// <summary>One picture in the three frames, small, for a list.</summary>
    public static string Row(Publication publication, int ruleId) => Draw(publication, ruleId, Pictures[..1], $"row{ruleId}-", figures: false);

    private static string Draw(Publication publication, int? ruleId, LinkedImage[] pictures, string idPrefix, bool figures)
    {
        var samples = Samples(publication, ruleId, pictures);
        double foot = figures ? Units.Millimetres(2) + 2 * LineHeight : 0;
        double width = FrameSizes.Sum(s => s.Width) + 2 * Gap, height = pictures.Length * (FrameSizes[0].Height + foot) + (pictures.Length - 1) * Gap;
        var svg = new StringBuilder();
        svg.Append(CultureInfo.InvariantCulture, $"<svg class=\"samples\" hx-disable viewBox=\"-2 -2 {N(width + 4)} {N(height + 4)}\" role=\"img\" " +
            $"aria-label=\"What the rule does to {(figures ? "three pictures" : "a picture")} in a tall, a square and a wide frame\">");
        for (int row = 0; row < pictures.Length; row++)
        {
            double x = 0, y = row * (FrameSizes[0].Height + foot + Gap);
            for (int column = 0; column < FrameSizes.Length; column++)
            {
                var frame = samples.Frames[row * FrameSizes.Length + column + 1];
                var scene = Composer.Compose(samples, frame, new Box(x, y, frame.Box.Width, frame.Box.Height), Typefaces.All);
                svg.Append(CultureInfo.InvariantCulture, $"<g transform=\"{SvgWriter.Matrix(scene.ToSpread)}\">");
                SvgWriter.Shape(svg, frame.Outline, frame.Box.Width, frame.Box.Height, " class=\"sample-ground\"");
                SvgWriter.Content(svg, scene, idPrefix, image => $"/img/{image.ContentHash}.svg");
                SvgWriter.Shape(svg, frame.Outline, frame.Box.Width, frame.Box.Height, " class=\"sample-outline\"");
                if (figures && samples.FittedOf(frame) is { } fitted)
                {
                    svg.Append("<text class=\"sample-figure\">");
                    string[] lines = [.. Figures(fitted.Coverage)];
                    for (int line = 0; line < lines.Length; line++)
                        svg.Append(CultureInfo.InvariantCulture,
                            $"<tspan x=\"0\" y=\"{N(frame.Box.Height + (line + 1) * LineHeight)}\">{SvgWriter.Escape(lines[line])}</tspan>");
                    svg.Append("</text>");
                }
                svg.Append("</g>");
                x += frame.Box.Width + Gap;
            }
        }
        return svg.Append("</svg>").ToString();
    }

    private static IEnumerable<string> Figures(Coverage coverage)
    {
        if (coverage.CropLoss > 0) yield return $"crop {Words.Percent(coverage.CropLoss)}";
        if (coverage.BareArea > 0) yield return $"bare {Words.Percent(coverage.BareArea)}";
        if (coverage is { CropLoss: 0, BareArea: 0 }) yield return "just fits";
    }

    /// <summary>A publication of sample frames that has the rules of another.</summary>
    private static Publication Samples(Publication publication, int? ruleId, LinkedImage[] pictures)
    {
        var frames = from p in Enumerable.Range(0, pictures.Length)
                     from s in Enumerable.Range(0, FrameSizes.Length)
                     select new Frame
                     {
                         Id = p * FrameSizes.Length + s + 1,
                         PageId = 1,
                         Box = new(0, 0, FrameSizes[s].Width, FrameSizes[s].Height),
                         RuleId = ruleId,
                         ImageId = pictures[p].Id
                     };
        return Publication.FromParts(publication.NextId, [publication.Setup, new PageOrder([1]), new Page(1), .. frames, .. pictures,
            .. publication.Rules.Values, .. publication.Colours.Values]);
    }

    private static LinkedImage Picture(int id, string name, int width, int height) => new()
    {
        Id = id,
        Name = name,
        Path = "",
        Bytes = 0,
        Modified = default,
        ContentHash = name,
        Format = "svg",
        StoredWidthPx = width,
        StoredHeightPx = height,
        StoredPpiX = 300,
        StoredPpiY = 300,
    };

    private static string N(double value) => SvgWriter.Number(value);
}
