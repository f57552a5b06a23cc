using Formatum.Core.Geometry;
using SkiaSharp;

namespace Formatum.Output.Pdf;

/// <summary>Outlines and paths as path operators (ISO 32000-1, 8.5.2).</summary>
internal static class PdfPaths
{
    /// <summary>An eighth of a circle by one curve: how far its controls stand from its ends, in radii. It is off by less than 5e-6 radii.</summary>
    private static readonly double EighthArc = 4.0 / 3 * Math.Tan(Math.PI / 16);

    public static void Add(PdfContent content, Outline outline, double width, double height)
    {
        switch (outline)
        {
            case EllipseOutline: AddEllipse(content, width / 2, height / 2); break;
            case PolygonOutline:
                string step = "m";
                foreach (var p in outline.Flatten(width, height))
                {
                    content.Add(step, p.X, p.Y);
                    step = "l";
                }
                content.Add("h");
                break;
            case PathOutline free: AddFree(content, free, width, height); break;
            case CorneredOutline cornered: Add(content, cornered.At(width, height), width, height); break;
            default: content.Add("re", 0, 0, width, height); break;
        }
    }

    private static void AddEllipse(PdfContent content, double across, double down)
    {
        Vec At(double x, double y) => new(across * (1 + x), down * (1 + y));
        const int Arcs = 8;
        var start = At(1, 0);
        content.Add("m", start.X, start.Y);
        for (int i = 0; i < Arcs; i++)
        {
            var (s0, c0) = Math.SinCos(2 * Math.PI * i / Arcs);
            var (s1, c1) = Math.SinCos(2 * Math.PI * (i + 1) / Arcs);
            Curve(content, At(c0 - EighthArc * s0, s0 + EighthArc * c0), At(c1 + EighthArc * s1, s1 - EighthArc * c1), At(c1, s1));
        }
        content.Add("h");
    }

    private static void AddFree(PdfContent content, PathOutline outline, double width, double height)
    {
        Vec At(Vec p) => new(p.X * width, p.Y * height);
        var start = At(outline.Points[0].At);
        content.Add("m", start.X, start.Y);
        foreach (var (from, to) in outline.Legs())
        {
            if (from.After is null && to.Before is null) content.Add("l", At(to.At).X, At(to.At).Y);
            else Curve(content, At(from.After ?? from.At), At(to.Before ?? to.At), At(to.At));
        }
        content.Add("h");
    }

    private static void Curve(PdfContent content, Vec one, Vec two, Vec end) => content.Add("c", one.X, one.Y, two.X, two.Y, end.X, end.Y);

    /// <summary>A path of the drawing library.</summary>
    public static void Add(PdfContent content, SKPath path)
    {
        var points = new SKPoint[4];
        using var steps = path.CreateRawIterator();
        for (var verb = steps.Next(points); verb != SKPathVerb.Done; verb = steps.Next(points))
        {
            switch (verb)
            {
                case SKPathVerb.Move: content.Add("m", points[0].X, points[0].Y); break;
                case SKPathVerb.Line: content.Add("l", points[1].X, points[1].Y); break;
                case SKPathVerb.Quad: Quad(content, points[0], points[1], points[2]); break;
                case SKPathVerb.Conic:
                    // Eight parabolas for a quarter of an ellipse: off by far less than a hair.
                    var parabolas = SKPath.ConvertConicToQuads(points[0], points[1], points[2], steps.ConicWeight(), 3);
                    for (int i = 0; i + 2 < parabolas.Length; i += 2) Quad(content, parabolas[i], parabolas[i + 1], parabolas[i + 2]);
                    break;
                case SKPathVerb.Cubic: content.Add("c", points[1].X, points[1].Y, points[2].X, points[2].Y, points[3].X, points[3].Y); break;
                case SKPathVerb.Close: content.Add("h"); break;
            }
        }
    }

    /// <summary>A parabola as a cubic curve: its controls lie two thirds of the way to its one.</summary>
    private static void Quad(PdfContent content, SKPoint from, SKPoint control, SKPoint to)
    {
        static double Towards(double end, double control) => end + (control - end) * 2 / 3;
        content.Add("c", Towards(from.X, control.X), Towards(from.Y, control.Y), Towards(to.X, control.X), Towards(to.Y, control.Y), to.X, to.Y);
    }
}
