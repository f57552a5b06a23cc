using System.Collections.Immutable;
using System.Text;
using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using Formatum.Output;

namespace Formatum.Web.Desk;

/// <summary>A line of text as a caret finds its way in it; lengths in points of its frame.</summary>
/// <param name="Start">The place it begins with, in UTF-16 units from the beginning of the text, with one for each line end between paragraphs.</param>
/// <param name="Stops">How far from the left each place of it stands, from its first to behind its last.</param>
/// <param name="Top">Where it begins.</param>
/// <param name="Bottom">Where it ends.</param>
/// <param name="Column">Which column it stands in.</param>
/// <param name="Drawn">As it is drawn, as SVG.</param>
public sealed record LinePlaces(int Start, double[] Stops, double Top, double Bottom, int Column, string Drawn);

/// <summary>A frame of a text on the spread that is shown.</summary>
/// <param name="Id">The frame.</param>
/// <param name="Transform">How it lies, as SVG.</param>
/// <param name="Lines">Its lines.</param>
public sealed record FramePlaces(int Id, string Transform, IReadOnlyList<LinePlaces> Lines);

/// <summary>A text while it is typed: as it stands in its frames on this spread, and where the caret is where it stands on none of them.</summary>
/// <param name="Frames">The frames on this spread.</param>
/// <param name="ElsewhereSpread">The number of the spread on which the caret stands; null where it is this one, or in what is left over.</param>
/// <param name="ElsewhereFrame">The frame there.</param>
/// <param name="LeftOver">The first place that is left over; null where all of the text has room.</param>
public sealed record TextPlaces(IReadOnlyList<FramePlaces> Frames, int? ElsewhereSpread, int? ElsewhereFrame, int? LeftOver)
{
    /// <param name="publication">The publication with the text as it is typed.</param>
    /// <param name="spread">The spread that is shown.</param>
    /// <param name="story">The text.</param>
    /// <param name="caret">Where the caret stands.</param>
    public static TextPlaces Of(Publication publication, Spread spread, Story story, int caret)
    {
        var set = Composition.AsTyped(publication, story, Typefaces.Shipped);
        var begins = BeginsOf(story.Text);
        var here = Spread.At(publication, spread.Index).FramesOf(publication).ToDictionary(f => f.Frame.Id, f => f.Box);
        var frames = new List<FramePlaces>();
        int last = 0, elsewhere = -1;
        for (int i = 0; i < set.Length; i++)
        {
            int id = story.FrameIds[i];
            if (set[i].Lines.IsEmpty && !(i == 0 && here.ContainsKey(id))) continue;
            int end = set[i].Lines.IsEmpty ? 0 : begins[set[i].Lines[^1].Paragraph] + set[i].Lines[^1].End;
            if (here.TryGetValue(id, out var box)) frames.Add(FrameOf(publication.Frames[id], box, set[i], begins));
            else if (elsewhere < 0 && caret >= last && caret <= end) elsewhere = id;
            last = end;
        }
        bool shown = elsewhere < 0 || frames.Any(f => f.Lines.Any(l => caret >= l.Start && caret < l.Start + l.Stops.Length));
        return new(frames, shown ? null : Spread.NumberOfPage(publication, publication.Frames[elsewhere].PageId), shown ? null : elsewhere,
            set[^1].LeftOut > 0 ? last : null);
    }

    /// <summary>Where each paragraph begins.</summary>
    private static int[] BeginsOf(FrameText text)
    {
        int[] begins = new int[text.Paragraphs.Length];
        for (int i = 1; i < begins.Length; i++) begins[i] = begins[i - 1] + text.Paragraphs[i - 1].Text.Length + 1;
        return begins;
    }

    private static FramePlaces FrameOf(Frame frame, Box box, SetText set, int[] begins)
    {
        var drawn = new StringBuilder();
        return new(frame.Id, SvgWriter.Matrix(new Pose(box, frame.Angle).ToPage), [.. set.Lines.Select(line =>
        {
            SvgWriter.Line(drawn.Clear(), line);
            return new LinePlaces(begins[line.Paragraph] + FirstOf(line), StopsOf(line), Math.Round(line.Bottom - line.Height, 2), Math.Round(line.Bottom, 2),
                line.Column, drawn.ToString());
        })]);
    }

    /// <summary>A line with an initial begins with that.</summary>
    private static int FirstOf(SetLine line) => line.Runs.Where(r => r.IsTyped).Select(r => r.Start).Append(line.Start).Min();

    private static double[] StopsOf(SetLine line)
    {
        int first = FirstOf(line), shown = line.End - line.Hanging.Length;
        double[] stops = new double[line.End - first + 1];
        Array.Fill(stops, double.NaN);
        double right = line.X;
        foreach (var run in line.Runs.Where(r => r.IsTyped))
        {
            double x = run.X;
            foreach (var glyph in run.Glyphs)
            {
                int at = run.Start + glyph.Cluster - first;
                if (at < stops.Length && double.IsNaN(stops[at])) stops[at] = x;
                x += glyph.Advance;
            }
            right = Math.Max(right, x);
        }
        // Behind a tab stands what comes after it; within a character of several units, the caret stands before it.
        stops[shown - first] = right;
        for (int i = 0; i < line.Hanging.Length; i++) stops[shown - first + i + 1] = right + line.Hanging[i];
        double before = line.X;
        for (int i = 0; i < stops.Length; i++) stops[i] = before = double.IsNaN(stops[i]) ? before : Math.Round(stops[i], 2);
        return stops;
    }
}
