using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Typesetting;
using SkiaSharp;

namespace Formatum.Output;

/// <summary>Draws scenes on a canvas: on a raster.</summary>
public static class SceneCanvas
{
    private static readonly SKSamplingOptions Smooth = new(SKFilterMode.Linear, SKMipmapMode.Linear);

    /// <summary>The frames that print and of which something lies in a box of the spread.</summary>
    public static IEnumerable<SceneFrame> Visible(Scene scene, Box within) => scene.Items.Where(frame => frame.Prints
        && Meets(frame, within.Grown(frame.Look.Reach)));

    /// <param name="canvas">Where to draw, in the spread's points.</param>
    /// <param name="frames">What to draw, from the lowest to the topmost.</param>
    /// <param name="within">What is seen of the spread.</param>
    /// <param name="take">Gives what to draw for an image, from its map from the unit square to the spread, and from what is seen of that square.</param>
    /// <param name="release">Told when an image was drawn.</param>
    /// <param name="ink">In what colours are shown.</param>
    internal static void Draw(SKCanvas canvas, IEnumerable<SceneFrame> frames, Box within, Func<SceneImage, Affine, Box, DrawableImage> take,
        Action<SceneImage> release, CanvasInk ink)
    {
        foreach (var frame in frames)
        {
            canvas.Save();
            canvas.Concat(Matrix(frame.ToSpread));
            using var path = PathOf(frame.Outline, frame.Width, frame.Height);
            var look = frame.Look;
            bool layered = look.Opacity < 1 || look.Blend != Blend.Normal;
            if (layered)
            {
                using var veil = new SKPaint { Color = SKColors.Black.WithAlpha(Alpha(look.Opacity)), BlendMode = ModeOf(look.Blend) };
                canvas.SaveLayer(veil);
            }
            if (look.Shadow is { } shadow) CanvasEdges.DrawShadow(canvas, path, shadow, frame.ShadowFalls(shadow), ink);
            if (look.SoftEdge > 0) canvas.SaveLayer();
            if (look.Background is { } background)
            {
                using var fill = new SKPaint { Color = ink.Of(background).WithAlpha(Alpha(look.BackgroundOpacity)), IsAntialias = true };
                canvas.DrawPath(path, fill);
            }
            if (frame.Image is { } shown) DrawImage(canvas, path, shown, take(shown, frame.ToSpread.After(shown.Matrix), Seen(frame, shown, within)),
                look.PictureOpacity);
            if (look.SoftEdge > 0)
            {
                CanvasEdges.FadeOut(canvas, path, look.EdgeDeviation);
                canvas.Restore();
            }
            if (look.InnerShadow is { } inner) CanvasEdges.DrawInnerShadow(canvas, path, inner, frame.ShadowFalls(inner), ink);
            if (frame.Text is { } text) DrawText(canvas, text, ink);
            DrawBorder(canvas, frame, ink);
            if (layered) canvas.Restore();
            canvas.Restore();
            if (frame.Image is { } done) release(done);
        }
    }

    private static SKBlendMode ModeOf(Blend blend) => blend switch
    {
        Blend.Normal => SKBlendMode.SrcOver,
        // The library names them as the standard does.
        var other => Enum.Parse<SKBlendMode>(other.ToString()),
    };

    private static byte Alpha(double opacity) => (byte)Math.Round(255 * opacity);

    private static void DrawBorder(SKCanvas canvas, SceneFrame frame, CanvasInk ink)
    {
        foreach (var stroke in BorderStrokes.Of(frame))
        {
            using var done = stroke;
            // A dash of no length draws its round end, as it does in SVG and PDF.
            using var dashes = stroke.Dashes.Length == 0 ? null : SKPathEffect.CreateDash([.. stroke.Dashes.Select(d => (float)d)], 0);
            using var line = new SKPaint
            {
                Color = ink.Of(stroke.Stripe.Colour),
                IsAntialias = true,
                Style = SKPaintStyle.Stroke,
                StrokeWidth = (float)stroke.Stripe.Width,
                StrokeMiter = (float)Border.MiterLimit,
                StrokeJoin = BorderStrokes.Join(frame.Look.Border!.Join),
                StrokeCap = BorderStrokes.Cap(stroke.End),
                PathEffect = dashes,
            };
            canvas.DrawPath(stroke.Path, line);
        }
    }

    private static void DrawImage(SKCanvas canvas, SKPath outline, SceneImage shown, DrawableImage drawable, double opacity)
    {
        canvas.Save();
        canvas.ClipPath(outline, SKClipOperation.Intersect, antialias: true);
        var pixels = Affine.Scaling(1.0 / drawable.Image.Width, 1.0 / drawable.Image.Height);
        canvas.Concat(Matrix(shown.Matrix.After(drawable.ToUpright).After(pixels)));
        using var paint = opacity < 1 ? new SKPaint { Color = SKColors.Black.WithAlpha(Alpha(opacity)) } : null;
        canvas.DrawImage(drawable.Image, 0, 0, Smooth, paint);
        canvas.Restore();
    }

    private static void DrawText(SKCanvas canvas, SetText text, CanvasInk ink)
    {
        foreach (var line in text.Lines)
        {
            foreach (var run in line.Runs.Where(r => r.Glyphs.Length > 0 && !ink.LeavesBeneath(r.Style.Ink)))
            {
                using var font = Typefaces.All.FontOf(run.Style, run.Size);
                using var paint = new SKPaint { Color = ink.Of(run.Style.Ink), IsAntialias = true };
                if (Typefaces.All.IsDrawnAsShapes(run.Style)) DrawShapes(canvas, line, run, font, paint);
                else
                {
                    using var blob = BlobOf(run, font);
                    canvas.DrawText(blob, (float)run.X, (float)(line.Baseline - run.Raise), paint);
                }
            }
            foreach (var stroke in line.Strokes.Where(s => !ink.LeavesBeneath(s.Ink)))
            {
                using var paint = new SKPaint { Color = ink.Of(stroke.Ink), IsAntialias = true };
                canvas.DrawRect((float)stroke.X, (float)(line.Baseline + stroke.Below - stroke.Thickness / 2), (float)stroke.Width, (float)stroke.Thickness,
                    paint);
            }
        }
    }

    /// <summary>The glyphs of a font that may go into no document.</summary>
    private static void DrawShapes(SKCanvas canvas, SetLine line, SetRun run, SKFont font, SKPaint paint)
    {
        double x = run.X;
        foreach (var glyph in run.Glyphs)
        {
            using var path = font.GetGlyphPath(glyph.Id);
            if (path is { IsEmpty: false })
            {
                path.Transform(SKMatrix.CreateTranslation((float)(x + glyph.OffsetX), (float)(line.Baseline - run.Raise + glyph.OffsetY)));
                canvas.DrawPath(path, paint);
            }
            x += glyph.Advance;
        }
    }

    /// <summary>The glyphs where they stand.</summary>
    private static SKTextBlob BlobOf(SetRun run, SKFont font)
    {
        using var builder = new SKTextBlobBuilder();
        var blob = builder.AllocatePositionedRun(font, run.Glyphs.Length);
        var ids = new ushort[run.Glyphs.Length];
        var positions = new SKPoint[run.Glyphs.Length];
        double x = 0;
        for (int i = 0; i < run.Glyphs.Length; i++)
        {
            var glyph = run.Glyphs[i];
            ids[i] = glyph.Id;
            positions[i] = new((float)(x + glyph.OffsetX), (float)glyph.OffsetY);
            x += glyph.Advance;
        }
        blob.SetGlyphs(ids);
        blob.SetPositions(positions);
        return builder.Build()!;
    }

    /// <summary>What is seen of an image in its frame and within a box of the spread, in its unit square, and what around it a treatment looks at.</summary>
    internal static Box Seen(SceneFrame frame, SceneImage image, Box within)
    {
        double around = image.Treatment?.Reach ?? 0;
        var inFrame = Around(image.Matrix.Inverse(), new Box(0, 0, frame.Width, frame.Height).Grown(around));
        var inBox = Around(frame.ToSpread.After(image.Matrix).Inverse(), within.Grown(around));
        return inFrame.Intersect(inBox).Intersect(new(0, 0, 1, 1));
    }

    /// <summary>The smallest box around a box that was mapped.</summary>
    private static Box Around(Affine map, Box box) => Box.Between(map.Apply(box.At(0, 0)), map.Apply(box.At(1, 1)))
        .Union(Box.Between(map.Apply(box.At(1, 0)), map.Apply(box.At(0, 1))));

    private static bool Meets(SceneFrame frame, Box box)
    {
        var around = Around(frame.ToSpread, new(0, 0, frame.Width, frame.Height));
        return around.X < box.Right && box.X < around.Right && around.Y < box.Bottom && box.Y < around.Bottom;
    }

    internal static SKPath PathOf(Outline outline, double width, double height)
    {
        var bounds = SKRect.Create((float)width, (float)height);
        using var path = new SKPathBuilder();
        switch (outline)
        {
            case EllipseOutline: path.AddOval(bounds); break;
            case PolygonOutline: path.AddPoly([.. outline.Flatten(width, height).Select(p => new SKPoint((float)p.X, (float)p.Y))], true); break;
            case PathOutline free: AddFree(path, free, width, height); break;
            case CorneredOutline cornered: AddFree(path, cornered.At(width, height), width, height); break;
            default: path.AddRect(bounds); break;
        }
        return path.Detach();
    }

    private static void AddFree(SKPathBuilder path, PathOutline outline, double width, double height)
    {
        SKPoint At(Vec p) => new((float)(p.X * width), (float)(p.Y * height));
        path.MoveTo(At(outline.Points[0].At));
        foreach (var (from, to) in outline.Legs())
        {
            if (from.After is null && to.Before is null) path.LineTo(At(to.At));
            else path.CubicTo(At(from.After ?? from.At), At(to.Before ?? to.At), At(to.At));
        }
        path.Close();
    }

    private static SKMatrix Matrix(Affine m) => new((float)m.A, (float)m.C, (float)m.E, (float)m.B, (float)m.D, (float)m.F, 0, 0, 1);
}
