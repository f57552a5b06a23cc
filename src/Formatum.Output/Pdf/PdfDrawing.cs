using System.Collections.Immutable;
using Formatum.Core.Colours;
using Formatum.Core.Geometry;
using Formatum.Imaging;
using SkiaSharp;

namespace Formatum.Output.Pdf;

/// <summary>Drawings as lines and areas, in the colours of the file.</summary>
internal sealed class PdfDrawing(PdfFile file, PdfColours colours, PdfStates states)
{
    /// <summary>Writes a drawing, to be shown in the unit square as a picture is.</summary>
    /// <returns>The form.</returns>
    public int Add(Drawing drawing)
    {
        var content = new PdfContent();
        Draw(content, drawing.Steps, BoundsOf(drawing));
        // The unit square of pictures counts from below (ISO 32000-1, 8.9.5.1).
        var toUnit = new Affine(1 / drawing.Width, 0, 0, -1 / drawing.Height, -drawing.Left / drawing.Width, 1 + drawing.Top / drawing.Height);
        return PdfForms.Add(file, content, BoundsOf(drawing), colours.Blending, toUnit);
    }

    private static Box BoundsOf(Drawing drawing) => new(drawing.Left, drawing.Top, drawing.Width, drawing.Height);

    /// <param name="content">Takes the operators.</param>
    /// <param name="steps">What to draw.</param>
    /// <param name="seen">What can be seen of it at most, in the axes in which the steps begin.</param>
    private void Draw(PdfContent content, ImmutableArray<DrawingStep> steps, Box seen)
    {
        foreach (var step in steps)
        {
            switch (step)
            {
                case MovedAxes { Map: var map }:
                    content.Concat(map);
                    // Flat axes show nothing, wherever they lie.
                    seen = map.Determinant == 0 ? seen : map.Inverse().BoundsOf(seen);
                    break;
                case ClippedTo clip:
                    Path(content, clip.Path);
                    content.Add(clip.EvenOdd ? "W* n" : "W n");
                    break;
                case DrawnGroup { Opacity: >= 1 } group:
                    content.Save();
                    Draw(content, group.Steps, seen);
                    content.Restore();
                    break;
                case DrawnGroup { Opacity: > 0 } group:
                    var layer = new PdfContent();
                    Draw(layer, group.Steps, seen);
                    content.Save().State(states.Opacity(group.Opacity)).Show(PdfForms.Add(file, layer, seen, colours.Blending)).Restore();
                    break;
                case FilledPath fill: Fill(content, fill); break;
                case StrokedPath stroke: Stroke(content, stroke); break;
            }
        }
    }

    private static void Path(PdfContent content, string data)
    {
        using var path = SKPath.ParseSvgPathData(data);
        if (path is not null) PdfPaths.Add(content, path);
    }

    private void Fill(PdfContent content, FilledPath fill)
    {
        if (fill.Paint.Opacity < 1 || fill.Paint.Run is not null) content.Save();
        if (fill.Paint.Opacity < 1) content.State(states.Opacity(fill.Paint.Opacity));
        if (fill.Paint.Run is { } run)
        {
            Path(content, fill.Path);
            content.Add(fill.EvenOdd ? "W* n" : "W n").Concat(run.Axes.Map).Add($"{content.Resource("Shading", Shading(run))} sh");
        }
        else
        {
            colours.Fill(content, new RgbColour(fill.Paint.Red, fill.Paint.Green, fill.Paint.Blue));
            Path(content, fill.Path);
            content.Add(fill.EvenOdd ? "f*" : "f");
        }
        if (fill.Paint.Opacity < 1 || fill.Paint.Run is not null) content.Restore();
    }

    private void Stroke(PdfContent content, StrokedPath stroke)
    {
        content.Save();
        if (stroke.Paint.Opacity < 1) content.State(states.Opacity(stroke.Paint.Opacity));
        colours.Stroke(content, new RgbColour(stroke.Paint.Red, stroke.Paint.Green, stroke.Paint.Blue));
        content.Add("w", stroke.Width).Add("M", stroke.Miter).Add("j", (int)stroke.Join).Add("J", (int)stroke.End);
        if (!stroke.Dashes.IsEmpty) content.Add($"[{PdfSyntax.Numbers([.. stroke.Dashes])}] {PdfSyntax.Number(stroke.DashStart)} d");
        Path(content, stroke.Path);
        content.Add("S").Restore();
    }

    /// <summary>Colours that run into each other (8.7.4.5.3 and 8.7.4.5.4), on beyond both ends.</summary>
    private int Shading(ColourRun run)
    {
        var stops = colours.IsPrint ? Finer(run.Stops) : run.Stops;
        var (space, parts) = colours.Running([.. stops.Select(s => new RgbColour(s.Red, s.Green, s.Blue))]);
        string place = run.IsRound ? PdfSyntax.Numbers(run.FromX, run.FromY, run.FromRadius, run.ToX, run.ToY, run.ToRadius)
            : PdfSyntax.Numbers(run.FromX, run.FromY, run.ToX, run.ToY);
        return file.Add($"<</ShadingType {(run.IsRound ? 3 : 2)}/ColorSpace {space}/Coords[{place}]/Extend[true true]/Function " +
            $"{Function(stops, parts)}>>");
    }

    /// <summary>Between two stops light runs straight on, its inks do not: from step to step of so many they nearly do.</summary>
    private const int Steps = 16;

    private static ImmutableArray<ColourStop> Finer(ImmutableArray<ColourStop> stops)
    {
        if (stops.IsEmpty) return stops;
        var finer = stops.Zip(stops.Skip(1)).SelectMany(pair => Enumerable.Range(0, Steps).Select(i => Mixed(pair.First, pair.Second, (double)i / Steps)));
        return [.. finer, stops[^1]];
    }

    private static ColourStop Mixed(ColourStop first, ColourStop second, double share)
    {
        byte Part(byte one, byte other) => (byte)Math.Round(one + (other - one) * share);
        return first with
        {
            At = first.At + (second.At - first.At) * share,
            Red = Part(first.Red, second.Red),
            Green = Part(first.Green, second.Green),
            Blue = Part(first.Blue, second.Blue),
        };
    }

    /// <summary>From stop to stop straight on, and before the first and behind the last as they are (7.10.3 and 7.10.4).</summary>
    private static string Function(ImmutableArray<ColourStop> stops, List<double[]> parts)
    {
        static string Straight(double[] from, double[] to) => $"<</FunctionType 2/Domain[0 1]/C0[{PdfSyntax.Numbers(from)}]/C1[{PdfSyntax.Numbers(to)}]/N 1>>";
        var places = new List<double> { 0 };
        var pieces = new List<string>();
        for (int i = 0; i <= stops.Length; i++)
        {
            double to = i < stops.Length ? Math.Max(stops[i].At, places[^1]) : 1;
            // Pieces of no length are none; where two stops lie at one place, colours change at once.
            if (to <= places[^1]) continue;
            pieces.Add(Straight(parts[Math.Max(0, i - 1)], parts[Math.Min(i, stops.Length - 1)]));
            places.Add(to);
        }
        return pieces.Count == 1 ? pieces[0] : $"<</FunctionType 3/Domain[0 1]/Functions[{string.Concat(pieces)}]/Bounds" +
            $"[{PdfSyntax.Numbers([.. places[1..^1]])}]/Encode[{string.Join(' ', Enumerable.Repeat("0 1", pieces.Count))}]>>";
    }
}
