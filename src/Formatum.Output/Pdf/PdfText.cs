using System.Globalization;
using System.Text;
using Formatum.Core.Colours;
using Formatum.Core.Typesetting;
using Formatum.Output.Press;
using SkiaSharp;

namespace Formatum.Output.Pdf;

/// <summary>Set text as text operators (ISO 32000-1, 9.4): each glyph where it was set, with the characters it stands for.</summary>
/// <param name="fonts">The fonts of the file.</param>
/// <param name="colours">Its colours.</param>
/// <param name="overprint">A state that lets black ink print over what lies beneath; 0 for none.</param>
internal sealed class PdfText(PdfFonts fonts, PdfColours colours, int overprint)
{
    /// <summary>Places nearer than this to where a glyph would come anyway are not told, in thousandths of its size.</summary>
    private const double Hair = 0.02;

    /// <param name="content">Takes the operators; its axes are the frame's, y down.</param>
    /// <param name="text">The text.</param>
    /// <param name="opening">What marks a paragraph that begins with a line; null where none is marked.</param>
    public void Draw(PdfContent content, SetText text, Func<SetLine, string>? opening = null)
    {
        int? paragraph = null;
        foreach (var line in text.Lines)
        {
            if (opening is not null && paragraph != line.Paragraph)
            {
                if (paragraph is not null) content.Add("EMC");
                content.Add(opening(line));
                paragraph = line.Paragraph;
            }
            DrawLine(content, line);
        }
        if (paragraph is not null) content.Add("EMC");
    }

    private void DrawLine(PdfContent content, SetLine line)
    {
        // In the order they are read: a PDF is searched and read aloud in the order it is drawn in.
        foreach (var run in InReadingOrder(line).Where(r => r.Glyphs.Length > 0)) InColour(content, run.Style.Ink, () =>
        {
            if (Typefaces.All.IsDrawnAsShapes(run.Style)) DrawShapes(content, line, run);
            else DrawRun(content, run, line.Baseline - run.Raise);
        });
        foreach (var stroke in line.Strokes) InColour(content, stroke.Ink, () => content
            .Add("re", stroke.X, line.Baseline + stroke.Below - stroke.Thickness / 2, stroke.Width, stroke.Thickness).Add("f"));
    }

    private static IEnumerable<SetRun> InReadingOrder(SetLine line) => line.Runs.Any(r => r.RightToLeft) ? line.Runs.OrderBy(r => r.Start) : line.Runs;

    /// <summary>Black ink prints over what lies beneath it: where plates stand a hair apart, no white shows around letters. Common practice, no
    /// source.</summary>
    private void InColour(PdfContent content, Colour colour, Action draw)
    {
        bool over = overprint != 0 && PressInks.Overprints(colour);
        if (over) content.Save().State(overprint);
        colours.Fill(content, colour);
        draw();
        if (over) content.Restore();
    }

    /// <summary>Shows characters in the colour that was set.</summary>
    public void DrawRun(PdfContent content, SetRun run, double baseline)
    {
        var font = fonts.Of(Typefaces.All.FaceOf(run.Style));
        content.Add("BT").Add($"{content.Resource("Font", font.Number)} {PdfSyntax.Number(run.Size)} Tf");
        var row = new GlyphRow(content, font, run.Size);
        double x = run.X;
        foreach (var cluster in Clusters(run))
        {
            bool plain = cluster.Glyphs.Length == 1 && font.Take(cluster.Glyphs[0].Id, cluster.Text);
            if (!plain)
            {
                foreach (var glyph in cluster.Glyphs) font.Take(glyph.Id, null);
                row.End();
                content.Add($"/Span<</ActualText{PdfSyntax.Text(cluster.Text)}>>BDC");
            }
            foreach (var glyph in cluster.Glyphs)
            {
                row.Show(glyph.Id, x + glyph.OffsetX, baseline + glyph.OffsetY);
                x += glyph.Advance;
            }
            if (plain) continue;
            row.End();
            content.Add("EMC");
        }
        row.End();
        content.Add("ET");
    }

    private readonly record struct Cluster(string Text, ReadOnlyMemory<Glyph> Shown)
    {
        public ReadOnlySpan<Glyph> Glyphs => Shown.Span;
    }

    /// <summary>Glyphs that show the same characters together, in the order they stand.</summary>
    private static IEnumerable<Cluster> Clusters(SetRun run)
    {
        int[] starts = [.. run.Glyphs.Select(g => g.Cluster).Distinct().Order(), run.Text.Length];
        for (int i = 0; i < run.Glyphs.Length;)
        {
            int from = i, at = run.Glyphs[i].Cluster;
            while (i < run.Glyphs.Length && run.Glyphs[i].Cluster == at) i++;
            int next = starts[Array.BinarySearch(starts, at) + 1];
            yield return new(run.Text[at..next], run.Glyphs.AsMemory()[from..i]);
        }
    }

    /// <summary>Glyphs side by side on one baseline, shown by one operator.</summary>
    private sealed class GlyphRow(PdfContent content, PdfFont font, double size)
    {
        private readonly StringBuilder _shown = new();
        private double _x, _y;
        private bool _open;

        public void Show(ushort glyph, double x, double y)
        {
            if (_shown.Length > 0 && y != _y) End();
            if (_shown.Length == 0)
            {
                content.Add("Tm", 1, 0, 0, -1, x, y);
                (_x, _y) = (x, y);
            }
            // In thousandths of the size, to the left; what is rounded off is made up for by the next glyph.
            double back = Math.Round((_x - x) / size * 1000, 2);
            if (Math.Abs(back) >= Hair)
            {
                if (_open) _shown.Append('>');
                _shown.Append(PdfSyntax.Number(back));
                _open = false;
                _x -= back / 1000 * size;
            }
            if (!_open) _shown.Append('<');
            _open = true;
            _shown.Append(CultureInfo.InvariantCulture, $"{glyph:X4}");
            _x += Math.Round(font.Width(glyph) * 1000, 3) / 1000 * size;
        }

        public void End()
        {
            if (_shown.Length == 0) return;
            content.Add($"[{_shown}{(_open ? ">" : "")}]TJ");
            _shown.Clear();
            _open = false;
        }
    }

    /// <summary>The glyphs of a font that may go into no document.</summary>
    private static void DrawShapes(PdfContent content, SetLine line, SetRun run)
    {
        using var font = Typefaces.All.FontOf(run.Style, run.Size);
        double x = run.X;
        foreach (var glyph in run.Glyphs)
        {
            using var path = font.GetGlyphPath(glyph.Id);
            if (path is { IsEmpty: false })
            {
                path.Transform(SKMatrix.CreateTranslation((float)(x + glyph.OffsetX), (float)(line.Baseline - run.Raise + glyph.OffsetY)));
                PdfPaths.Add(content, path);
                content.Add("f");
            }
            x += glyph.Advance;
        }
    }
}
