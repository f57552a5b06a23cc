using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using SkiaSharp;

namespace Formatum.Output;

/// <summary>A line to be drawn along a path, in frame-local points.</summary>
/// <param name="Path">Its middle.</param>
/// <param name="Stripe">Its width and colour.</param>
/// <param name="Dashes">Dashes and gaps in turn, in points; none for a whole line.</param>
/// <param name="End">How it or its dashes end.</param>
internal sealed record BorderStroke(SKPath Path, Stripe Stripe, double[] Dashes, LineEnd End) : IDisposable
{
    public void Dispose() => Path.Dispose();
}

/// <summary>The lines of a border as paths, the same for screen and print.</summary>
internal static class BorderStrokes
{
    /// <summary>What is narrower, in points, is not drawn.</summary>
    private const double Nothing = 1e-6;

    /// <summary>Whether the border is one whole line on the outline itself, which needs no path of its own.</summary>
    public static bool IsPlain(SceneFrame frame) => frame.Look.Border is { Kind: BorderKind.Solid, Place: BorderPlace.On, Second: null }
        && !HasSides(frame);

    private static bool HasSides(SceneFrame frame) => frame.Outline is RectangleOutline && frame.Look.Border is { Sides: not Sides.All };

    /// <summary>The lines of a frame's border, the outermost first. None where there is no room for one within the outline.</summary>
    public static IEnumerable<BorderStroke> Of(SceneFrame frame)
    {
        if (frame.Look.Border is not { } border) yield break;
        using var outline = SceneCanvas.PathOf(frame.Outline, frame.Width, frame.Height);
        foreach (var stripe in border.Stripes().Where(s => s.Width > Nothing))
        {
            bool closed = !HasSides(frame);
            var path = closed ? Beside(outline, frame, stripe.Middle, border.Join) : AlongSides(frame, border.Sides, stripe.Middle);
            if (path.IsEmpty)
            {
                path.Dispose();
                continue;
            }
            using var measure = new SKPathMeasure(path);
            var dashes = border.DashesOf(stripe, closed ? measure.Length : null);
            yield return new(path, stripe, dashes, border.Kind == BorderKind.Dotted && dashes.Length > 0 ? LineEnd.Round : border.End);
        }
    }

    /// <summary>The outline moved inwards, or outwards where negative: where a line of twice as much along the outline ends.</summary>
    private static SKPath Beside(SKPath outline, SceneFrame frame, double inwards, LineJoin join)
    {
        if (Math.Abs(inwards) < Nothing) return new(outline);
        if (frame.Outline is RectangleOutline && (inwards > 0 || join == LineJoin.Miter)) return Box(frame, inwards);
        using var pen = new SKPaint
        {
            Style = SKPaintStyle.Stroke,
            StrokeWidth = (float)(2 * Math.Abs(inwards)),
            StrokeJoin = Join(join),
            StrokeMiter = (float)Border.MiterLimit
        };
        using var around = new SKPathBuilder();
        pen.GetFillPath(outline, around);
        using var line = around.Detach();
        return outline.Op(line, inwards > 0 ? SKPathOp.Difference : SKPathOp.Union) ?? new();
    }

    private static SKPath Box(SceneFrame frame, double inwards)
    {
        using var path = new SKPathBuilder();
        double width = frame.Width - 2 * inwards, height = frame.Height - 2 * inwards;
        if (width > 0 && height > 0) path.AddRect(SKRect.Create((float)inwards, (float)inwards, (float)width, (float)height));
        return path.Detach();
    }

    /// <summary>The sides that have a line, those that meet in one go: so that they are joined.</summary>
    private static SKPath AlongSides(SceneFrame frame, Sides sides, double inwards)
    {
        Sides[] around = [Sides.Top, Sides.Right, Sides.Bottom, Sides.Left];
        double Inset(Sides side) => sides.HasFlag(side) ? inwards : 0;
        double left = Inset(Sides.Left), top = Inset(Sides.Top), right = frame.Width - Inset(Sides.Right), bottom = frame.Height - Inset(Sides.Bottom);
        SKPoint[] corners = [new((float)left, (float)top), new((float)right, (float)top), new((float)right, (float)bottom), new((float)left, (float)bottom)];
        using var path = new SKPathBuilder();
        // From behind a side that has none, once around.
        int first = Array.FindIndex(around, s => !sides.HasFlag(s)) + 1;
        for (int i = first; i < first + 4; i++)
        {
            if (!sides.HasFlag(around[i % 4])) continue;
            if (!sides.HasFlag(around[(i + 3) % 4])) path.MoveTo(corners[i % 4]);
            path.LineTo(corners[(i + 1) % 4]);
        }
        return path.Detach();
    }

    public static SKStrokeJoin Join(LineJoin join) => join switch
    {
        LineJoin.Round => SKStrokeJoin.Round,
        LineJoin.Bevel => SKStrokeJoin.Bevel,
        _ => SKStrokeJoin.Miter
    };

    public static SKStrokeCap Cap(LineEnd end) => end switch
    {
        LineEnd.Round => SKStrokeCap.Round,
        LineEnd.Square => SKStrokeCap.Square,
        _ => SKStrokeCap.Butt
    };
}
