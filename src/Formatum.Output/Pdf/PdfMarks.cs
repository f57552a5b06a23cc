using Formatum.Core.Colours;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;

namespace Formatum.Output.Pdf;

/// <summary>Draws what stands around a page, between where marks begin and the edge of the sheet. Its axes are the spread's, y down.</summary>
internal sealed class PdfMarks(PdfColours colours, PdfText texts, PrintMarks marks, bool isProof)
{
    private const double LineWidth = 0.25, CircleRadius = 1.5 * Units.PointsPerMillimetre, Patch = 4 * Units.PointsPerMillimetre;

    private static readonly TextStyle Small = TextStyle.Usual with { Size = 6 }, Large = TextStyle.Usual with { Size = 12, Bold = true };

    /// <param name="content">Takes the operators.</param>
    /// <param name="trim">The trim of the page, or of both.</param>
    /// <param name="sheet">What it is printed on.</param>
    /// <param name="folds">Where it is folded, from the left of the spread.</param>
    /// <param name="information">What the line of information says.</param>
    /// <param name="cuts">Where it is cut besides: pages on one sheet.</param>
    public void Draw(PdfContent content, Box trim, PdfSheet sheet, IEnumerable<double> folds, string information, IReadOnlyList<Box>? cuts = null)
    {
        if (!marks.Any) return;
        double start = sheet.MarkStart, end = sheet.Border;
        content.Save().Add("w", LineWidth);
        colours.StrokeOnAllPlates(content);
        if (marks.Crop)
        {
            foreach (double x in Edges(cuts ?? [trim], b => b.X, b => b.Right, folds)) Uprights(content, trim, x, start, end);
            foreach (double y in Edges(cuts ?? [trim], b => b.Y, b => b.Bottom, []))
            {
                Line(content, trim.X - end, y, trim.X - start, y);
                Line(content, trim.Right + start, y, trim.Right + end, y);
            }
        }
        if (marks.Fold)
        {
            content.Add("[2 2] 0 d");
            foreach (double x in folds) Uprights(content, trim, x, start, end);
            content.Add("[] 0 d");
        }
        if (marks.Registration) Registration(content, trim, (start + end) / 2);
        content.Restore();
        if (marks.Bars) Bars(content, trim, start);
        if (marks.Information) Words(content, information, Small, trim.X + Patch, trim.Width / 2 - 2 * Patch, trim.Bottom + (start + end) / 2);
        if (isProof) Words(content, ProofWords, Large, trim.Centre.X + Patch, trim.Width / 2 - 2 * Patch, trim.Y - (start + end) / 2);
    }

    private const string ProofWords = "PROOF \u2013 not for print";

    /// <summary>Where it is cut along one side; not where it is folded.</summary>
    private static IEnumerable<double> Edges(IReadOnlyList<Box> cuts, Func<Box, double> from, Func<Box, double> to, IEnumerable<double> folds) =>
        cuts.SelectMany(c => new[] { from(c), to(c) }).Select(e => Math.Round(e, 6)).Distinct().Where(e => !folds.Any(f => Math.Abs(f - e) < 0.001)).Order();

    private static void Uprights(PdfContent content, Box trim, double x, double start, double end)
    {
        Line(content, x, trim.Y - end, x, trim.Y - start);
        Line(content, x, trim.Bottom + start, x, trim.Bottom + end);
    }

    private static void Line(PdfContent content, double x0, double y0, double x1, double y1) => content.Add("m", x0, y0).Add("l", x1, y1).Add("S");

    /// <summary>A circle with a cross through it at the middle of each side.</summary>
    private static void Registration(PdfContent content, Box trim, double away)
    {
        const double Arm = CircleRadius * 1.5;
        foreach (var (x, y) in new[]
                 {
                     (trim.Centre.X, trim.Y - away), (trim.Centre.X, trim.Bottom + away), (trim.X - away, trim.Centre.Y), (trim.Right + away, trim.Centre.Y),
                 })
        {
            content.Save().Concat(Affine.Translation(x - CircleRadius, y - CircleRadius));
            PdfPaths.Add(content, Outline.Ellipse, 2 * CircleRadius, 2 * CircleRadius);
            content.Add("S").Restore();
            Line(content, x - Arm, y, x + Arm, y);
            Line(content, x, y - Arm, x, y + Arm);
        }
    }

    /// <summary>Patches above the page, from its left: full and half of each ink, and black.</summary>
    private void Bars(PdfContent content, Box trim, double start)
    {
        CmykColour[] inks =
        [
            new(1, 0, 0, 0), new(0, 1, 0, 0), new(0, 0, 1, 0), new(0, 0, 0, 1), new(0.5, 0, 0, 0), new(0, 0.5, 0, 0), new(0, 0, 0.5, 0), new(0, 0, 0, 0.5),
        ];
        double left = trim.X + Patch, top = trim.Y - start - Patch - (PdfSheet.MarkLength - Patch) / 2;
        for (int i = 0; i < inks.Length && left + (i + 1) * Patch < trim.Centre.X - Patch; i++)
        {
            colours.Fill(content, inks[i]);
            content.Add("re", left + i * Patch, top, Patch, Patch).Add("f");
        }
    }

    /// <summary>Words of one line, beginning at the left of their room.</summary>
    private void Words(PdfContent content, string words, TextStyle style, double left, double room, double middle)
    {
        var run = new SetRun(words, 0, style, 0, Typefaces.All.Shape(words, style));
        // A page that is too narrow for the words has them smaller.
        double scale = Math.Min(1, room / Math.Max(run.Width, 1));
        content.Save();
        colours.Fill(content, Colour.Black);
        content.Concat(new(scale, 0, 0, scale, left, middle + style.Size / 3));
        texts.DrawRun(content, run, 0);
        content.Restore();
    }
}
