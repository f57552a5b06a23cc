using System.Globalization;
using System.Text;
using Formatum.Core.Composing;
using Formatum.Core.Publications;

namespace Formatum.Output;

/// <summary>What falls along the outline of a frame, inwards, as SVG: a soft edge and an inner shadow.</summary>
internal static class SvgEdges
{
    /// <summary>Begins the group that fades out along the outline: the blurred outline, spread so that nothing is left on the outline itself.</summary>
    public static void OpenSoft(StringBuilder svg, SceneFrame frame, string idPrefix)
    {
        string id = $"{idPrefix}edge{frame.FrameId.ToString(CultureInfo.InvariantCulture)}";
        svg.Append(CultureInfo.InvariantCulture, $"<filter id=\"{id}soft\" {Region(frame, 0)}><feGaussianBlur " +
            $"stdDeviation=\"{SvgWriter.Number(frame.Look.EdgeDeviation)}\"/><feComponentTransfer><feFuncA type=\"linear\" " +
            $"slope=\"{SvgWriter.Number(EdgeSlope)}\" intercept=\"{SvgWriter.Number(1 - EdgeSlope)}\"/></feComponentTransfer></filter>");
        svg.Append(CultureInfo.InvariantCulture, $"<mask id=\"{id}\" {Units(frame, 0)} maskUnits=\"userSpaceOnUse\" style=\"mask-type:alpha\">" +
            $"<g filter=\"url(#{id}soft)\">");
        SvgWriter.Shape(svg, frame.Outline, frame.Width, frame.Height, " class=\"shape\" fill=\"#fff\"");
        svg.Append(CultureInfo.InvariantCulture, $"</g></mask><g mask=\"url(#{id})\">");
    }

    /// <summary>A blurred straight edge is half there on the edge itself; twice that less the whole is nothing there.</summary>
    internal const double EdgeSlope = 2;

    /// <summary>What the outline's shadow would leave free, within the outline.</summary>
    public static void InnerShadow(StringBuilder svg, SceneFrame frame, Shadow shadow, string idPrefix)
    {
        string id = $"{idPrefix}inner{frame.FrameId.ToString(CultureInfo.InvariantCulture)}";
        var falls = frame.ShadowFalls(shadow);
        svg.Append(CultureInfo.InvariantCulture, $"<clipPath id=\"{id}\">");
        SvgWriter.Shape(svg, frame.Outline, frame.Width, frame.Height, "");
        svg.Append(CultureInfo.InvariantCulture, $"</clipPath><filter id=\"{id}soft\" {Region(frame, shadow.Reach)}>" +
            $"<feGaussianBlur stdDeviation=\"{SvgWriter.Number(shadow.Deviation)}\" result=\"soft\"/><feFlood flood-color=\"{shadow.Colour.Hex}\" " +
            $"flood-opacity=\"{SvgWriter.Number(shadow.Strength)}\"/><feComposite operator=\"out\" in2=\"soft\"/></filter>");
        svg.Append(CultureInfo.InvariantCulture, $"<g clip-path=\"url(#{id})\"><g filter=\"url(#{id}soft)\"><g " +
            $"transform=\"translate({SvgWriter.Number(falls.X)} {SvgWriter.Number(falls.Y)})\">");
        SvgWriter.Shape(svg, frame.Outline, frame.Width, frame.Height, " class=\"shape\"");
        svg.Append("</g></g></g>");
    }

    private static string Region(SceneFrame frame, double room) =>
        $"filterUnits=\"userSpaceOnUse\" color-interpolation-filters=\"sRGB\" {Units(frame, room)}";

    /// <summary>The frame with room for it to grow under the hand, and beyond.</summary>
    private static string Units(SceneFrame frame, double room) => string.Create(CultureInfo.InvariantCulture,
        $"x=\"{SvgWriter.Number(-frame.Width - room)}\" y=\"{SvgWriter.Number(-frame.Height - room)}\" " +
        $"width=\"{SvgWriter.Number(3 * frame.Width + 2 * room)}\" height=\"{SvgWriter.Number(3 * frame.Height + 2 * room)}\"");
}
