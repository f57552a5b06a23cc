using System.Globalization;
using System.Text;
using Formatum.Imaging;

namespace Formatum.Web.Pictures;

/// <summary>A histogram drawn: brightness as a hill, red, green and blue as lines over it.</summary>
public static class HistogramView
{
    private const int Width = 256, Height = 64, Step = 4;

    private static readonly string[] Paints =
        ["fill=\"none\" stroke=\"#b0432f\"", "fill=\"none\" stroke=\"#2f6f4f\"", "fill=\"none\" stroke=\"#3b5f8f\"", "fill=\"#9aa79f\" stroke=\"none\""];

    public static string Draw(Histogram histogram)
    {
        var sums = histogram.Counts.Select(counts => counts.Chunk(Step).Select(chunk => chunk.Sum()).ToArray()).ToArray();
        // Pure black and pure white may tower over all the rest.
        double most = Math.Max(1, sums.SelectMany(s => s[1..^1]).Max());
        var svg = new StringBuilder();
        svg.Append(CultureInfo.InvariantCulture, $"<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 {Width} {Height}\" width=\"{Width}\" " +
            $"height=\"{Height}\" preserveAspectRatio=\"none\">");
        foreach (int which in new[] { 3, 0, 1, 2 })
        {
            svg.Append("<path ").Append(Paints[which]).Append(" d=\"M0 64");
            for (int i = 0; i < sums[which].Length; i++)
                svg.Append(CultureInfo.InvariantCulture, $"L{Step * i + Step / 2} {Height * (1 - Math.Min(1, sums[which][i] / most)):0.##}");
            svg.Append("L256 64\"/>");
        }
        return svg.Append("</svg>").ToString();
    }
}
