using System.Globalization;
using System.Text;
using Formatum.Core.Composing;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Output;
using Formatum.Web.Links;

namespace Formatum.Web.Rules;

/// <summary>One frame drawn alone, small.</summary>
public static class FramePicture
{
    public static string Draw(Publication publication, Frame frame, string idPrefix)
    {
        var scene = Composer.Compose(publication, frame, new(0, 0, frame.Box.Width, frame.Box.Height), Typefaces.All);
        double room = 0.02 * Math.Max(scene.Width, scene.Height);
        var svg = new StringBuilder();
        svg.Append(CultureInfo.InvariantCulture, $"<svg class=\"frame-picture\" hx-disable viewBox=\"{N(-room)} {N(-room)} {N(scene.Width + 2 * room)} " +
            $"{N(scene.Height + 2 * room)}\" aria-hidden=\"true\">");
        SvgWriter.Shape(svg, scene.Outline, scene.Width, scene.Height, " class=\"sample-ground\"");
        SvgWriter.Content(svg, scene, idPrefix, image => Previews.Smallest(image, publication.Setup));
        // A border of its own says where it ends.
        if (scene.Look.Border is null) SvgWriter.Shape(svg, scene.Outline, scene.Width, scene.Height, " class=\"sample-outline\"");
        return svg.Append("</svg>").ToString();
    }

    private static string N(double value) => SvgWriter.Number(value);
}
