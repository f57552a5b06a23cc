using System.Globalization;
using System.Text;
using Formatum.Core.Colours;
using Formatum.Core.Publications;

namespace Formatum.Output;

/// <summary>A treatment as an SVG filter (Filter Effects 1), by the formulas of docs/looks.md.</summary>
public static class TreatmentFilter
{
    /// <summary>What the filter's element says: it covers the picture, and works on values as sRGB has them.</summary>
    public const string Region = "x=\"0\" y=\"0\" width=\"1\" height=\"1\" color-interpolation-filters=\"sRGB\"";

    /// <summary>What stands within the filter's element.</summary>
    public static void Append(StringBuilder svg, Treatment treatment)
    {
        if (treatment.Sharpen is { } sharpen)
        {
            Softened(svg, "SourceGraphic", sharpen.Deviation);
            // What it differs by from itself softened, added so many times.
            svg.Append(CultureInfo.InvariantCulture,
                $"<feComposite in=\"SourceGraphic\" in2=\"soft\" operator=\"arithmetic\" k1=\"0\" k2=\"{Number(1 + sharpen.Amount)}\" " +
                $"k3=\"{Number(-sharpen.Amount)}\" k4=\"0\" result=\"sharp\"/>");
        }
        if (treatment.Blur > 0) Softened(svg, treatment.Sharpen is null ? "SourceGraphic" : "sharp", treatment.BlurDeviation);
        if (treatment.Grey is { IsSum: false } mix) SixColours(svg, mix, Last(treatment));
        if (treatment is not { Grey: null or { IsSum: false }, Warmth: 0 } || treatment is { Grey: null, Saturation: not 1 }) Matrix(svg, treatment.Matrix());
        if (treatment.Black != 0 || treatment.White != 1) Linear(svg, treatment.Levels);
        var (slope, intercept) = treatment.Line;
        if (slope != 1 || intercept != 0) Linear(svg, (slope, intercept));
        if (treatment.Gamma != 1) Transfer(svg, _ => $"type=\"gamma\" amplitude=\"1\" exponent=\"{Number(1 / treatment.Gamma)}\" offset=\"0\"");
        if (treatment.Invert) Transfer(svg, _ => "type=\"linear\" slope=\"-1\" intercept=\"1\"");
        if (treatment.Inks is { } inks)
        {
            Matrix(svg, (Treatment.None with { Grey = GreyMix.Usual }).Matrix());
            RgbColour dark = inks.Dark.Shown, light = inks.Light.Shown;
            Transfer(svg, part => $"type=\"table\" tableValues=\"{Number(Part(dark, part) / 255.0)} {Number(Part(light, part) / 255.0)}\"");
        }
        if (treatment.Tint is { } tint)
        {
            var colour = tint.Colour.Shown;
            Transfer(svg, part => Line((1 - tint.Strength, Part(colour, part) / 255.0 * tint.Strength)));
        }
    }

    /// <summary>Blurred within the picture alone: what lies beyond its edges, or shows nothing, weighs nothing, and transparency stays.</summary>
    private static void Softened(StringBuilder svg, string from, double deviation) => svg.Append(CultureInfo.InvariantCulture,
        $"<feGaussianBlur in=\"{from}\" stdDeviation=\"{Number(deviation)}\"/><feComponentTransfer><feFuncA type=\"linear\" slope=\"0\" " +
        $"intercept=\"1\"/></feComponentTransfer><feComposite operator=\"in\" in2=\"SourceGraphic\" result=\"soft\"/>");

    /// <summary>What the step before the grey is called.</summary>
    private static string Last(Treatment treatment) => treatment.Blur > 0 ? "soft" : treatment.Sharpen is not null ? "sharp" : "SourceGraphic";

    /// <summary>Grey of six colours. The three parts of a pixel are turned about, so that each step works on red, green and blue, or on yellow, cyan and
    /// magenta, at once; differences of what is no smaller are taken by blending, which leaves it opaque.</summary>
    private static void SixColours(StringBuilder svg, GreyMix mix, string from)
    {
        svg.Append(CultureInfo.InvariantCulture, $"<feComponentTransfer in=\"{from}\" result=\"a\">" +
            $"<feFuncA type=\"linear\" slope=\"0\" intercept=\"1\"/></feComponentTransfer>");
        void Turned(string name, string rows) => svg.Append(CultureInfo.InvariantCulture,
            $"<feColorMatrix in=\"a\" type=\"matrix\" values=\"{rows} 0 0 0 1 0\" result=\"{name}\"/>");
        void Blended(string one, string other, string mode, string name) => svg.Append(CultureInfo.InvariantCulture,
            $"<feBlend in=\"{one}\" in2=\"{other}\" mode=\"{mode}\" result=\"{name}\"/>");
        Turned("b", "0 1 0 0 0 0 0 1 0 0 1 0 0 0 0");
        Turned("c", "0 0 1 0 0 1 0 0 0 0 0 1 0 0 0");
        Blended("b", "c", "lighten", "others");
        Blended("a", "others", "lighten", "most");
        Blended("most", "others", "difference", "primary");
        Blended("a", "b", "darken", "pair");
        Blended("pair", "c", "darken", "white");
        Blended("pair", "white", "difference", "secondary");
        var ((r, g, b), (y, c, m)) = (mix.Primaries, mix.Secondaries);
        Sum(svg, [r, g, b], [y, c, m], w => Math.Max(0, w), "white", "added");
        if (new[] { r, g, b, y, c, m }.Any(w => w < 0))
        {
            Sum(svg, [r, g, b], [y, c, m], w => Math.Max(0, -w), null, "less");
            Blended("added", "less", "lighten", "above");
            Blended("above", "less", "difference", "grey");
        }
        svg.Append("<feComposite operator=\"in\" in2=\"SourceGraphic\"/>");
    }

    /// <summary>Parts by their weights, added up.</summary>
    private static void Sum(StringBuilder svg, double[] primary, double[] secondary, Func<double, double> weight, string? over, string name)
    {
        void Weighed(string of, double[] weights)
        {
            string row = $"{Number(weight(weights[0]))} {Number(weight(weights[1]))} {Number(weight(weights[2]))} 0 0";
            svg.Append(CultureInfo.InvariantCulture, $"<feColorMatrix in=\"{of}\" type=\"matrix\" " +
                $"values=\"{row} {row} {row} 0 0 0 1 0\" result=\"{of}grey\"/>");
        }
        void Added(string one, string other) => svg.Append(CultureInfo.InvariantCulture,
            $"<feComposite in=\"{one}\" in2=\"{other}\" operator=\"arithmetic\" k1=\"0\" k2=\"1\" k3=\"1\" k4=\"0\" result=\"{name}\"/>");
        Weighed("primary", primary);
        Weighed("secondary", secondary);
        Added("primarygrey", "secondarygrey");
        if (over is not null) Added(over, name);
    }

    private static byte Part(RgbColour of, char part) => part switch { 'R' => of.Red, 'G' => of.Green, _ => of.Blue };

    private static void Linear(StringBuilder svg, (double Slope, double Intercept) line) => Transfer(svg, _ => Line(line));

    private static string Line((double Slope, double Intercept) line) =>
        $"type=\"linear\" slope=\"{Number(line.Slope)}\" intercept=\"{Number(line.Intercept)}\"";

    private static string Number(double value) => value.ToString("0.######", CultureInfo.InvariantCulture);

    private static void Matrix(StringBuilder svg, double[] m) => svg.Append(CultureInfo.InvariantCulture,
        $"<feColorMatrix type=\"matrix\" values=\"{Row(m, 0)} {Row(m, 3)} {Row(m, 6)} 0 0 0 1 0\"/>");

    private static string Row(double[] m, int at) => $"{Number(m[at])} {Number(m[at + 1])} {Number(m[at + 2])} 0 0";

    private static void Transfer(StringBuilder svg, Func<char, string> function)
    {
        svg.Append("<feComponentTransfer>");
        foreach (char part in "RGB") svg.Append("<feFunc").Append(part).Append(' ').Append(function(part)).Append("/>");
        svg.Append("</feComponentTransfer>");
    }
}
