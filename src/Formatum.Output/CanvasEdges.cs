using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using SkiaSharp;

namespace Formatum.Output;

/// <summary>What falls along the outline of a frame: its shadow, an inner shadow, a soft edge; on a raster, or as pictures of bounded size for a file that has
/// no /// pixels of its own.</summary>
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
    /// <param name="ink">In what its colour is shown.</param>
    public static void DrawShadow(SKCanvas canvas, SKPath outline, Shadow shadow, Vec falls, CanvasInk ink)
    {
        canvas.Save();
        canvas.Translate((float)falls.X, (float)falls.Y);
        DrawBlurred(canvas, outline, ColourOf(shadow, ink), shadow.Deviation);
        canvas.Restore();
    }

    /// <summary>A soft shadow as a picture, before it falls.</summary>
    public static EdgePicture ShadowPicture(SKPath outline, Shadow shadow) => Picture(Grown(outline.TightBounds, 3 * shadow.Deviation), shadow.Deviation,
        drawn => DrawBlurred(drawn, outline, ColourOf(shadow, CanvasInk.Screen), shadow.Deviation));

    /// <summary>What the outline's shadow would leave free, within the outline.</summary>
    public static void DrawInnerShadow(SKCanvas canvas, SKPath outline, Shadow shadow, Vec falls, CanvasInk ink)
    {
        canvas.Save();
        canvas.ClipPath(outline, SKClipOperation.Intersect, antialias: true);
        if (shadow.Blur > 0)
        {
            using var picture = InnerPicture(outline, shadow, falls, ink);
            canvas.DrawImage(picture.Image, picture.Bounds, Smooth);
        }
        else
        {
            using var fallen = new SKPath(outline);
            fallen.Transform(SKMatrix.CreateTranslation((float)falls.X, (float)falls.Y));
            canvas.ClipPath(fallen, SKClipOperation.Difference, antialias: true);
            using var flat = new SKPaint { Color = ColourOf(shadow, ink) };
            canvas.DrawRect(outline.TightBounds, flat);
        }
        canvas.Restore();
    }

    /// <summary>A soft inner shadow as a picture of the outline's bounds, of which only what lies within the outline counts.</summary>
    public static EdgePicture InnerPicture(SKPath outline, Shadow shadow, Vec falls, CanvasInk ink) => Picture(outline.TightBounds, shadow.Deviation, drawn =>
    {
        drawn.Clear(ColourOf(shadow, ink));
        drawn.Translate((float)falls.X, (float)falls.Y);
        DrawBlurred(drawn, outline, SKColors.Black, shadow.Deviation, SKBlendMode.DstOut);
    });

    /// <summary>Takes away along the outline what was drawn in the layer.</summary>
    public static void FadeOut(SKCanvas canvas, SKPath outline, double deviation)
    {
        using var kept = FadingPicture(outline, deviation);
        using var mask = new SKPaint { BlendMode = SKBlendMode.DstIn };
        canvas.DrawImage(kept.Image, kept.Bounds, Smooth, mask);
    }

    /// <summary>What a soft edge leaves: the blurred outline, spread so that nothing is left on the outline itself.</summary>
    public static EdgePicture FadingPicture(SKPath outline, double deviation)
    {
        // With room around, so that whatever falls between pixels at its border falls upon nothing.
        return Picture(Grown(outline.TightBounds, deviation), deviation, drawn =>
        {
            using var spread = SKColorFilter.CreateColorMatrix(
                [1, 0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, (float)SvgEdges.EdgeSlope, (float)(1 - SvgEdges.EdgeSlope)]);
            using var filtered = new SKPaint { ColorFilter = spread };
            drawn.SaveLayer(filtered);
            DrawBlurred(drawn, outline, SKColors.Black, deviation);
            drawn.Restore();
        });
    }

    private static SKColor ColourOf(Shadow shadow, CanvasInk ink) => ink.Of(shadow.Colour).WithAlpha((byte)Math.Round(255 * shadow.Strength));

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
    private static EdgePicture Picture(SKRect bounds, double deviation, Action<SKCanvas> draw)
    {
        double scale = Math.Min(Math.Max(PixelsToDeviation / deviation, PixelsToPoint), MostSide / Math.Max(bounds.Width, bounds.Height));
        var info = new SKImageInfo(Math.Max(1, (int)Math.Ceiling(bounds.Width * scale)), Math.Max(1, (int)Math.Ceiling(bounds.Height * scale)),
            SKColorType.Rgba8888, SKAlphaType.Premul, SKColorSpace.CreateSrgb());
        using var surface = SKSurface.Create(info);
        surface.Canvas.Clear(SKColors.Transparent);
        surface.Canvas.Scale((float)(info.Width / bounds.Width), (float)(info.Height / bounds.Height));
        surface.Canvas.Translate(-bounds.Left, -bounds.Top);
        draw(surface.Canvas);
        return new(surface.Snapshot(), bounds);
    }
}

/// <summary>A picture of which only the alpha counts.</summary>
/// <param name="Image">The picture.</param>
/// <param name="Bounds">Where it lies, in the frame's points.</param>
internal sealed record EdgePicture(SKImage Image, SKRect Bounds) : IDisposable
{
    /// <summary>How much each of its pixels covers.</summary>
    public byte[] Cover()
    {
        var info = new SKImageInfo(Image.Width, Image.Height, SKColorType.Alpha8, SKAlphaType.Premul);
        using var pixels = SKData.Create(info.BytesSize64);
        if (!Image.ReadPixels(info, pixels.Data, info.RowBytes, 0, 0)) throw new InvalidOperationException("The pixels of a shadow could not be read.");
        return pixels.ToArray();
    }

    public void Dispose() => Image.Dispose();
}
