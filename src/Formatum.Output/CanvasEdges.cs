using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using SkiaSharp;

namespace Formatum.Output;

/// <summary>What falls along the outline of a frame on a canvas: its shadow, an inner shadow, a soft edge. On a canvas that has no pixels of its own they are
/// pictures of bounded size: the library would make them as large as the page.</summary>
internal static class CanvasEdges
{
    /// <summary>So many pixels to a standard deviation, and to a point where that is more, show no steps; no side of such a picture has more than so many, and
    /// it then only gets softer.</summary>
    private const double PixelsToDeviation = 8, PixelsToPoint = 2, MostSide = 3000;

    private static readonly SKSamplingOptions Smooth = new(SKFilterMode.Linear, SKMipmapMode.Linear);

    /// <param name="canvas">Where to draw, in the frame's points.</param>
    /// <param name="outline">The frame's outline.</param>
    /// <param name="shadow">The shadow.</param>
    /// <param name="falls">Where it falls, in the frame's points.</param>
    /// <param name="bounded">Whether it is drawn as a picture.</param>
    public static void DrawShadow(SKCanvas canvas, SKPath outline, Shadow shadow, Vec falls, bool bounded)
    {
        canvas.Save();
        canvas.Translate((float)falls.X, (float)falls.Y);
        var colour = ColourOf(shadow);
        if (bounded && shadow.Blur > 0)
        {
            var bounds = Grown(outline.TightBounds, 3 * shadow.Deviation);
            using var picture = Picture(bounds, shadow.Deviation, drawn => DrawBlurred(drawn, outline, colour, shadow.Deviation));
            canvas.DrawImage(picture, bounds, Smooth);
        }
        else DrawBlurred(canvas, outline, colour, shadow.Deviation);
        canvas.Restore();
    }

    /// <summary>What the outline's shadow would leave free, within the outline.</summary>
    public static void DrawInnerShadow(SKCanvas canvas, SKPath outline, Shadow shadow, Vec falls)
    {
        canvas.Save();
        canvas.ClipPath(outline, SKClipOperation.Intersect, antialias: true);
        var colour = ColourOf(shadow);
        if (shadow.Blur > 0)
        {
            using var picture = Picture(outline.TightBounds, shadow.Deviation, drawn =>
            {
                drawn.Clear(colour);
                drawn.Translate((float)falls.X, (float)falls.Y);
                DrawBlurred(drawn, outline, SKColors.Black, shadow.Deviation, SKBlendMode.DstOut);
            });
            canvas.DrawImage(picture, outline.TightBounds, Smooth);
        }
        else
        {
            using var fallen = new SKPath(outline);
            fallen.Transform(SKMatrix.CreateTranslation((float)falls.X, (float)falls.Y));
            canvas.ClipPath(fallen, SKClipOperation.Difference, antialias: true);
            using var flat = new SKPaint { Color = colour };
            canvas.DrawRect(outline.TightBounds, flat);
        }
        canvas.Restore();
    }

    /// <summary>Takes away along the outline what was drawn in the layer: the blurred outline, spread so that nothing is left on the outline itself.</summary>
    public static void FadeOut(SKCanvas canvas, SKPath outline, double deviation)
    {
        using var spread = SKColorFilter.CreateColorMatrix(
            [1, 0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, (float)SvgEdges.EdgeSlope, (float)(1 - SvgEdges.EdgeSlope)]);
        // With room around, so that whatever falls between pixels at its border falls upon nothing.
        var bounds = Grown(outline.TightBounds, deviation);
        using var kept = Picture(bounds, deviation, drawn =>
        {
            using var filtered = new SKPaint { ColorFilter = spread };
            drawn.SaveLayer(filtered);
            DrawBlurred(drawn, outline, SKColors.Black, deviation);
            drawn.Restore();
        });
        using var mask = new SKPaint { BlendMode = SKBlendMode.DstIn };
        canvas.DrawImage(kept, bounds, Smooth, mask);
    }

    private static SKColor ColourOf(Shadow shadow) => SKColor.Parse(shadow.Colour.Hex).WithAlpha((byte)Math.Round(255 * shadow.Strength));

    private static void DrawBlurred(SKCanvas canvas, SKPath outline, SKColor colour, double deviation, SKBlendMode mode = SKBlendMode.SrcOver)
    {
        using var soft = deviation > 0 ? SKMaskFilter.CreateBlur(SKBlurStyle.Normal, (float)deviation) : null;
        using var paint = new SKPaint { Color = colour, IsAntialias = true, MaskFilter = soft, BlendMode = mode };
        canvas.DrawPath(outline, paint);
    }

    private static SKRect Grown(SKRect bounds, double by)
    {
        bounds.Inflate((float)by, (float)by);
        return bounds;
    }

    /// <summary>A picture of what is drawn within bounds, fine enough for a blur of that deviation.</summary>
    private static SKImage Picture(SKRect bounds, double deviation, Action<SKCanvas> draw)
    {
        double scale = Math.Min(Math.Max(PixelsToDeviation / deviation, PixelsToPoint), MostSide / Math.Max(bounds.Width, bounds.Height));
        var info = new SKImageInfo(Math.Max(1, (int)Math.Ceiling(bounds.Width * scale)), Math.Max(1, (int)Math.Ceiling(bounds.Height * scale)),
            SKColorType.Rgba8888, SKAlphaType.Premul, SKColorSpace.CreateSrgb());
        using var surface = SKSurface.Create(info);
        surface.Canvas.Clear(SKColors.Transparent);
        surface.Canvas.Scale((float)(info.Width / bounds.Width), (float)(info.Height / bounds.Height));
        surface.Canvas.Translate(-bounds.Left, -bounds.Top);
        draw(surface.Canvas);
        return surface.Snapshot();
    }
}
