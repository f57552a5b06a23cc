using System.Collections.Immutable;
using Formatum.Core.Geometry;
using SkiaSharp;

namespace Formatum.Imaging;

/// <summary>The outline of the largest form of a drawing, for a frame to take on.</summary>
public static class DrawingOutline
{
    /// <returns>Its points, in the unit square of the drawing; null where nothing in it is filled, or that goes through more points than an outline
    /// may.</returns>
    public static ImmutableArray<PathPoint>? Largest(Drawing drawing)
    {
        var toUnit = new Affine(1 / drawing.Width, 0, 0, 1 / drawing.Height, -drawing.Left / drawing.Width, -drawing.Top / drawing.Height);
        var largest = Forms(drawing.Steps, toUnit).Where(form => form.Length is >= PathOutline.FewestPoints and <= PathOutline.MostPoints)
            .OrderByDescending(form => Math.Abs(PolygonMeasure.SignedArea(new PathOutline(form).Flatten(1, 1).AsSpan()))).FirstOrDefault();
        return largest.IsDefault ? null : largest;
    }

    /// <summary>All closed forms that are filled, each in the unit square.</summary>
    private static IEnumerable<ImmutableArray<PathPoint>> Forms(ImmutableArray<DrawingStep> steps, Affine axes)
    {
        foreach (var step in steps)
        {
            switch (step)
            {
                case MovedAxes { Map: var map }: axes = axes.After(map); break;
                case DrawnGroup { Opacity: > 0 } group:
                    foreach (var form in Forms(group.Steps, axes)) yield return form;
                    break;
                case FilledPath { Paint.Opacity: > 0 } fill:
                    foreach (var form in Closed(fill.Path)) yield return [.. form.Select(p => p.Mapped(axes.Apply))];
                    break;
            }
        }
    }

    /// <summary>The closed forms of a path, as points with their controls.</summary>
    private static IEnumerable<List<PathPoint>> Closed(string data)
    {
        using var path = SKPath.ParseSvgPathData(data);
        if (path is null) yield break;
        using var segments = path.CreateRawIterator();
        var corners = new SKPoint[4];
        var form = new List<PathPoint>();
        for (var verb = segments.Next(corners); verb != SKPathVerb.Done; verb = segments.Next(corners))
        {
            if (verb == SKPathVerb.Move && form.Count > 0)
            {
                yield return Ended(form);
                form = [];
            }
            Take(form, verb, corners, segments.ConicWeight());
        }
        if (form.Count > 0) yield return Ended(form);
    }

    private static void Take(List<PathPoint> form, SKPathVerb verb, SKPoint[] at, float weight)
    {
        static Vec V(SKPoint p) => new(p.X, p.Y);
        switch (verb)
        {
            case SKPathVerb.Move: form.Add(new(V(at[0]))); break;
            case SKPathVerb.Line: form.Add(new(V(at[1]))); break;
            case SKPathVerb.Quad: Curve(form, V(at[0]) + 2.0 / 3 * (V(at[1]) - V(at[0])), V(at[2]) + 2.0 / 3 * (V(at[1]) - V(at[2])), V(at[2])); break;
            case SKPathVerb.Cubic: Curve(form, V(at[1]), V(at[2]), V(at[3])); break;
            case SKPathVerb.Conic:
                var quads = SKPath.ConvertConicToQuads(at[0], at[1], at[2], weight, 2);
                for (int i = 0; i + 2 < quads.Length; i += 2) Take(form, SKPathVerb.Quad, [quads[i], quads[i + 1], quads[i + 2]], 0);
                break;
        }
    }

    private static void Curve(List<PathPoint> form, Vec after, Vec before, Vec to)
    {
        form[^1] = form[^1] with { After = after };
        form.Add(new(to, Before: before));
    }

    /// <summary>Where a form ends on its beginning, both are one point.</summary>
    private static List<PathPoint> Ended(List<PathPoint> form)
    {
        const double Hair = 1e-4;
        if (form.Count > 1 && (form[^1].At - form[0].At).Length < Hair)
        {
            form[0] = form[0] with { Before = form[^1].Before };
            form.RemoveAt(form.Count - 1);
        }
        return form;
    }
}
