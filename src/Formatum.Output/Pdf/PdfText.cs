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
    /// <param name="tags">Marks its paragraphs and links; null where none are marked.</param>
    public void Draw(PdfContent content, SetText text, PdfTags? tags = null)
    {
        for (int i = 0; i < text.Lines.Length; i++)
        {
            var line = text.Lines[i];
            bool begins = i == 0 || text.Lines[i - 1].Paragraph != line.Paragraph;
            if (tags is not null && begins) content.Add((i > 0 ? "EMC\n" : "") + tags.OpenParagraph(line));
            DrawLine(content, line, tags);
            if (tags is not null && i + 1 < text.Lines.Length && text.Lines[i + 1].Paragraph == line.Paragraph) DrawBlank(content, line);
        }
        if (tags is not null && text.Lines.Length > 0) content.Add("EMC");
    }

    private void DrawLine(PdfContent content, SetLine line, PdfTags? tags)
    {
        PdfLink? within = null;
        // In the order they are read: a PDF is searched and read aloud in the order it is drawn in.
        PdfLink[] links = tags is null ? [] : [.. tags.LinksOn(line)];
        foreach (var (run, link) in InReadingOrder(line).Where(r => r.Glyphs.Length > 0).SelectMany(r => Linked(r, links)))
        {
            if (link != within) content.Add("EMC\n" + (link is null ? tags!.OpenAgain() : tags!.OpenLink(link)));
            within = link;
            InColour(content, run.Style.Ink, () =>
            {
                if (Typefaces.All.IsDrawnAsShapes(run.Style)) DrawShapes(content, line, run);
                else DrawRun(content, run, line.Baseline - run.Raise, tags is not null && line.Hyphened && run.IsTyped
                    && run.Start + run.Text.Length > line.Shown);
            });
        }
        if (within is not null) content.Add("EMC\n" + tags!.OpenAgain());
        foreach (var stroke in line.Strokes) InColour(content, stroke.Ink, () => content
            .Add("re", stroke.X, line.Baseline + stroke.Below - stroke.Thickness / 2, stroke.Width, stroke.Thickness).Add("f"));
    }

    /// <summary>A run in pieces, each within a link or without any.</summary>
    private static IEnumerable<(SetRun Run, PdfLink? Link)> Linked(SetRun run, PdfLink[] links)
    {
        if (!run.IsTyped || run.RightToLeft) links = [];
        foreach (var link in links.OrderBy(l => l.Link.From))
        {
            (var before, var rest) = Cut(run, link.Link.From);
            (var inside, var behind) = Cut(rest, link.Link.To);
            if (before.Glyphs.Length > 0) yield return (before, null);
            if (inside.Glyphs.Length > 0) yield return (inside, link);
            run = behind;
        }
        if (run.Glyphs.Length > 0) yield return (run, null);
    }

    /// <summary>A run from left to right in two at a character of the paragraph.</summary>
    private static (SetRun Before, SetRun Behind) Cut(SetRun run, int at)
    {
        int characters = Math.Clamp(at - run.Start, 0, run.Text.Length), glyphs = 0;
        while (glyphs < run.Glyphs.Length && run.Glyphs[glyphs].Cluster < characters) glyphs++;
        var before = run with { Text = run.Text[..characters], Glyphs = run.Glyphs[..glyphs] };
        return (before, run with
        {
            Text = run.Text[characters..],
            Start = run.Start + characters,
            X = run.X + before.Width,
            Glyphs = [.. run.Glyphs[glyphs..].Select(g => g with { Cluster = g.Cluster - characters })],
        });
    }

    /// <summary>The blank at which a line was broken: nobody sees it, but who copies or hears the text needs it between two words.</summary>
    private void DrawBlank(PdfContent content, SetLine line)
    {
        if (line.Hyphened || line.End <= line.Shown || line.Runs.LastOrDefault(r => r.IsTyped) is not { } last
            || Typefaces.All.IsDrawnAsShapes(last.Style)) return;
        var blank = Typefaces.All.Shape(" ", last.Style);
        DrawRun(content, last with { Text = " ", X = line.X + line.Width, Glyphs = [.. blank] }, line.Baseline);
    }

    private static IEnumerable<SetRun> InReadingOrder(SetLine line) => line.Runs.Any(r => r.RightToLeft) ? line.Runs.OrderBy(r => r.Start) : line.Runs;

    /// <summary>Black ink prints over what lies beneath it: where plates stand a hair apart, no white shows around letters. Common practice, no
    /// source.</summary>
    private void InColour(PdfContent content, Colour colour, Action draw)
    {
        bool over = overprint != 0 && PressInks.Overprints(colour, colours.Press!);
        if (over) content.Save().State(overprint);
        colours.Fill(content, colour);
        draw();
        if (over) content.Restore();
    }

    /// <summary>Shows characters in the colour that was set.</summary>
    /// <param name="content">Takes the operators.</param>
    /// <param name="run">The characters.</param>
    /// <param name="baseline">In points from the top of the frame.</param>
    /// <param name="endsInHyphen">Whether the last of them is a hyphen that only the end of the line put there (14.8.2.2.3).</param>
    public void DrawRun(PdfContent content, SetRun run, double baseline, bool endsInHyphen = false)
    {
        var font = fonts.Of(Typefaces.All.FaceOf(run.Style));
        content.Add("BT").Add($"{content.Resource("Font", font.Number)} {PdfSyntax.Number(run.Size)} Tf");
        var row = new GlyphRow(content, font, run.Size);
        double x = run.X;
        foreach (var shown in Clusters(run))
        {
            var cluster = endsInHyphen && shown.IsLast ? shown with { Text = $"{shown.Text[..^1]}{SoftHyphen}" } : shown;
            bool plain = cluster.Glyphs.Length == 1 && !cluster.Text.EndsWith(SoftHyphen) && font.Take(cluster.Glyphs[0].Id, cluster.Text);
            if (!plain)
            {
                // Readers that pass by what is said of it still find a hyphen.
                if (cluster != shown && cluster.Glyphs.Length == 1) font.Take(cluster.Glyphs[0].Id, shown.Text);
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

    private const char SoftHyphen = '\u00ad';

    private readonly record struct Cluster(string Text, ReadOnlyMemory<Glyph> Shown, bool IsLast)
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
            yield return new(run.Text[at..next], run.Glyphs.AsMemory()[from..i], next == run.Text.Length);
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
