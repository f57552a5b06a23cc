using System.Collections.Immutable;
using System.Runtime.CompilerServices;
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
public sealed record LinePlaces(int Start, double[] Stops, double Top, double Bottom, int Column, string Drawn)
{
    /// <summary>Whether it is another's drawing, its places moved by so many.</summary>
    public bool IsAs(LinePlaces other, int shift) => ReferenceEquals(Drawn, other.Drawn) && Start == other.Start + shift;
}

/// <summary>A frame of a text on the spread that is shown.</summary>
/// <param name="Id">The frame.</param>
/// <param name="Transform">How it lies, as SVG.</param>
/// <param name="Lines">Its lines; where some are as they were told before, those between.</param>
/// <param name="Same">How many lines at its beginning are as they were told the last time.</param>
/// <param name="Behind">How many at its end are.</param>
/// <param name="Shift">By how much the places of those at its end have moved.</param>
public sealed record FramePlaces(int Id, string Transform, IReadOnlyList<LinePlaces> Lines, int Same = 0, int Behind = 0, int Shift = 0)
{
    /// <summary>The same, with only those lines that are other than they were told.</summary>
    public FramePlaces Since(IReadOnlyList<LinePlaces> told)
    {
        int least = Math.Min(told.Count, Lines.Count), same = 0, behind = 0;
        while (same < least && Lines[same].IsAs(told[same], 0)) same++;
        int shift = least == 0 ? 0 : Lines[^1].Start - told[^1].Start;
        while (behind < least - same && Lines[^(behind + 1)].IsAs(told[^(behind + 1)], shift)) behind++;
        return this with { Lines = [.. Lines.Skip(same).Take(Lines.Count - same - behind)], Same = same, Behind = behind, Shift = shift };
    }
}

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
        var set = Composition.AsTyped(publication, story, Typefaces.All);
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

    private static FramePlaces FrameOf(Frame frame, Box box, SetText set, int[] begins) => new(frame.Id,
        SvgWriter.Matrix(new Pose(box, frame.Angle).ToPage), [.. set.Lines.Select(line =>
        {
            var made = Known.GetValue(line, Made);
            return made with { Start = made.Start + begins[line.Paragraph] };
        })]);

    /// <summary>Most lines of a text are the same from key to key.</summary>
    private static readonly ConditionalWeakTable<SetLine, LinePlaces> Known = [];

    /// <summary>A line as if its paragraph were the first.</summary>
    private static LinePlaces Made(SetLine line)
    {
        var drawn = new StringBuilder();
        SvgWriter.Line(drawn, line);
        return new(FirstOf(line), StopsOf(line), Math.Round(line.Bottom - line.Height, 2), Math.Round(line.Bottom, 2), line.Column, drawn.ToString());
    }

    /// <summary>A line with an initial begins with that.</summary>
    private static int FirstOf(SetLine line) => line.Runs.Where(r => r.IsTyped).Select(r => r.Start).Append(line.Start).Min();

    private static double[] StopsOf(SetLine line)
    {
        int first = FirstOf(line), shown = line.End - line.Hanging.Length;
        double[] stops = new double[line.End - first + 1];
        Array.Fill(stops, double.NaN);
        double right = line.X;
        var last = line.Runs.Where(r => r.IsTyped).MaxBy(r => r.Start);
        foreach (var run in line.Runs.Where(r => r.IsTyped))
        {
            double x = run.X;
            foreach (var glyph in run.Glyphs)
            {
                int at = run.Start + glyph.Cluster - first;
                // Before a character that runs from right to left, the caret stands at its right.
                double before = run.RightToLeft ? x + glyph.Advance : x;
                if (at < stops.Length && (double.IsNaN(stops[at]) || (run.RightToLeft && before > stops[at]))) stops[at] = before;
                x += glyph.Advance;
            }
            right = Math.Max(right, x);
        }
        // Behind a tab stands what comes after it; within a character of several units, the caret stands before it.
        stops[shown - first] = last is { RightToLeft: true } ? last.X : right;
        for (int i = 0; i < line.Hanging.Length; i++) stops[shown - first + i + 1] = right + line.Hanging[i];
        double behind = line.X;
        for (int i = 0; i < stops.Length; i++) stops[i] = behind = double.IsNaN(stops[i]) ? behind : Math.Round(stops[i], 2);
        return stops;
    }
}
