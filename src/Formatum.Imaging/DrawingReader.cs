using System.Collections.Immutable;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using NetVips;
using ShimSkiaSharp;
using Svg.Skia;

namespace Formatum.Imaging;

/// <summary>
/// Reads SVGs as lines and areas, where they are nothing else: drawings with text, pictures, patterns, masks or filters in them are printed as pixels. So
/// are those that the reader of lines shows otherwise than the reader of pixels, which is what people see on the screen.
/// </summary>
internal sealed class DrawingReader
{
    /// <summary>Both readers' pictures are compared at so many pixels along the longer side; they may differ so much, of 255, on average, and in so many of
    /// the pixels by more than a quarter. Edges are smoothed differently by each.</summary>
    private const int ComparedPx = 240;

    private const double MostMean = 3, MostApart = 0.01, Apart = 64;

    private const int DeepestGroup = 60, MostSteps = 200_000;

    private readonly SkiaModel _shapes;
    private int _steps;

    private DrawingReader(SkiaModel shapes) => _shapes = shapes;

    /// <returns>The drawing; null where it has to be printed as pixels.</returns>
    public static Drawing? Read(LinkedImage image)
    {
        try
        {
            using var svg = new SKSvg();
            using (var file = SvgSize.Told(image.Path) is { } told ? new MemoryStream(told) : (Stream)File.OpenRead(image.Path)) svg.Load(file);
            if (svg.Model is not { Commands: { } commands, CullRect: { Width: > 0, Height: > 0 } bounds }) return null;
            var reader = new DrawingReader(svg.SkiaModel);
            int at = 0;
            var steps = reader.Steps(commands, ref at, 0);
            return LooksAlike(image, svg) ? new(bounds.Left, bounds.Top, bounds.Width, bounds.Height, steps) : null;
        }
        catch (Exception e) when (e is not (OutOfMemoryException or IOException or UnauthorizedAccessException))
        {
            // Not as lines, or whatever else this reader does not cope with: the other one has read it.
            return null;
        }
    }

    private sealed class NotAsLines : Exception;

    private ImmutableArray<DrawingStep> Steps(IList<CanvasCommand> commands, ref int at, int deep)
    {
        if (deep > DeepestGroup) throw new NotAsLines();
        var steps = ImmutableArray.CreateBuilder<DrawingStep>();
        for (; at < commands.Count; at++)
        {
            if (++_steps > MostSteps) throw new NotAsLines();
            switch (commands[at])
            {
                case RestoreCanvasCommand: return steps.ToImmutable();
                case SaveCanvasCommand: Group(1, commands, ref at); break;
                case SaveLayerCanvasCommand layer: Group(OpacityOf(layer.Paint), commands, ref at); break;
                case SetMatrixCanvasCommand set: steps.Add(Axes(set.DeltaMatrix)); break;
                case ClipRectCanvasCommand { Operation: SKClipOperation.Intersect } clip: steps.Add(Within(clip.Rect)); break;
                case ClipPathCanvasCommand { Operation: SKClipOperation.Intersect, ClipPath: { } clip }: Clip(clip); break;
                case DrawPathCanvasCommand { Path: { } path, Paint: { } paint }: Paint(path, paint); break;
                case DrawPictureCanvasCommand { Picture.Commands: { } inner }:
                    int from = 0;
                    steps.Add(new DrawnGroup(1, Steps(inner, ref from, deep + 1)));
                    break;
                default: throw new NotAsLines();
            }
        }
        return steps.ToImmutable();

        void Group(double opacity, IList<CanvasCommand> all, ref int i)
        {
            i++;
            steps.Add(new DrawnGroup(opacity, Steps(all, ref i, deep + 1)));
        }

        void Clip(ClipPath clip)
        {
            using var path = _shapes.ToSKPath(clip);
            if (path is not null) steps.Add(new ClippedTo(path.ToSvgPathData(), IsEvenOdd(path)));
        }

        void Paint(SKPath shape, SKPaint paint)
        {
            if (paint is not { ColorFilter: null, ImageFilter: null, BlendMode: SKBlendMode.SrcOver, IsStrokeNonScaling: false }) throw new NotAsLines();
            using var path = _shapes.ToSKPath(shape);
            if (path.IsEmpty || PaintOf(paint) is not { } painted) return;
            string data = path.ToSvgPathData();
            if (paint.Style != SKPaintStyle.Stroke) steps.Add(new FilledPath(data, IsEvenOdd(path), painted));
            // A line of no width is none, though a PDF would draw the finest its printer has.
            if (paint.Style != SKPaintStyle.Fill && paint.StrokeWidth > 0) steps.Add(Stroke(data, painted, paint));
        }
    }

    private static bool IsEvenOdd(SkiaSharp.SKPath path) => path.FillType == SkiaSharp.SKPathFillType.EvenOdd;

    private static MovedAxes Axes(SKMatrix m)
    {
        if (m.Persp0 != 0 || m.Persp1 != 0 || !(float.IsFinite(m.ScaleX + m.SkewY + m.SkewX + m.ScaleY + m.TransX + m.TransY))) throw new NotAsLines();
        return new(m.ScaleX, m.SkewY, m.SkewX, m.ScaleY, m.TransX, m.TransY);
    }

    private static ClippedTo Within(SKRect rect) =>
        new(FormattableString.Invariant($"M{rect.Left} {rect.Top}H{rect.Right}V{rect.Bottom}H{rect.Left}Z"), false);

    /// <summary>Of a layer: how much it covers, where that is all that is done to it.</summary>
    private static double OpacityOf(SKPaint? paint) => paint switch
    {
        null => 1,
        { ColorFilter: null, ImageFilter: null, Shader: null, BlendMode: SKBlendMode.SrcOver } => (paint.Color?.Alpha ?? 255) / 255.0,
        _ => throw new NotAsLines(),
    };

    private static StrokedPath Stroke(string path, DrawnPaint painted, SKPaint paint)
    {
        if (painted.Run is not null || paint.PathEffect is not (null or DashPathEffect) || !float.IsFinite(paint.StrokeWidth + paint.StrokeMiter))
            throw new NotAsLines();
        var (dashes, start) = Dashed(paint.PathEffect as DashPathEffect);
        return new(path, painted, paint.StrokeWidth, paint.StrokeCap switch
        {
            SKStrokeCap.Round => LineEnd.Round,
            SKStrokeCap.Square => LineEnd.Square,
            _ => LineEnd.Butt,
        }, paint.StrokeJoin switch
        {
            SKStrokeJoin.Round => LineJoin.Round,
            SKStrokeJoin.Bevel => LineJoin.Bevel,
            _ => LineJoin.Miter,
        }, Math.Max(1, paint.StrokeMiter), dashes, start);
    }

    /// <summary>Dashes that come to nothing are none; where they begin is told from 0 to their length.</summary>
    private static (ImmutableArray<double> Dashes, double Start) Dashed(DashPathEffect? effect)
    {
        double length = effect?.Intervals?.Sum(d => (double)d) ?? 0;
        if (effect is null || length <= 0 || effect.Intervals!.Any(d => d < 0)) return ([], 0);
        return double.IsFinite(length + effect.Phase) ? ([.. effect.Intervals!.Select(d => (double)d)], (effect.Phase % length + length) % length)
            : throw new NotAsLines();
    }

    /// <summary>What is painted with; null for nothing.</summary>
    private static DrawnPaint? PaintOf(SKPaint paint)
    {
        double opacity = (paint.Color?.Alpha ?? 255) / 255.0;
        return paint.Shader switch
        {
            null when paint.Color is { Alpha: > 0 } c => new(c.Red, c.Green, c.Blue, opacity),
            null => null,
            ColorShader { Color.Alpha: 0 } => null,
            ColorShader { Color: var c } => new(c.Red, c.Green, c.Blue, c.Alpha / 255.0),
            LinearGradientShader { Mode: SKShaderTileMode.Clamp, ColorSpace: SKColorSpace.Srgb } s => Run(opacity, s.Colors, s.ColorPos, s.LocalMatrix,
                (axes, stops) => new(false, s.Start.X, s.Start.Y, 0, s.End.X, s.End.Y, 0, axes, stops)),
            RadialGradientShader { Mode: SKShaderTileMode.Clamp, ColorSpace: SKColorSpace.Srgb } s => Run(opacity, s.Colors, s.ColorPos, s.LocalMatrix,
                (axes, stops) => new(true, s.Center.X, s.Center.Y, 0, s.Center.X, s.Center.Y, s.Radius, axes, stops)),
            TwoPointConicalGradientShader { Mode: SKShaderTileMode.Clamp, ColorSpace: SKColorSpace.Srgb } s => Run(opacity, s.Colors, s.ColorPos, s.LocalMatrix,
                (axes, stops) => new(true, s.Start.X, s.Start.Y, s.StartRadius, s.End.X, s.End.Y, s.EndRadius, axes, stops)),
            _ => throw new NotAsLines(),
        };
    }

    private static DrawnPaint Run(double opacity, SKColorF[]? colours, float[]? places, SKMatrix? local,
        Func<MovedAxes, ImmutableArray<ColourStop>, ColourRun> run)
    {
        // A run that also fades would need a mask: it is printed as pixels.
        if (colours is not { Length: > 0 } || places is null || places.Length != colours.Length
            || colours.Any(c => Math.Abs(c.Alpha - colours[0].Alpha) > 0.002))
            throw new NotAsLines();
        static byte Byte(float part) => (byte)Math.Clamp(Math.Round(part * 255), 0, 255);
        var stops = colours.Zip(places, (c, p) => new ColourStop(Math.Clamp(p, 0, 1), Byte(c.Red), Byte(c.Green), Byte(c.Blue)));
        var axes = local is { } matrix ? Axes(matrix) : new(1, 0, 0, 1, 0, 0);
        return new(0, 0, 0, opacity * colours[0].Alpha, run(axes, [.. stops]));
    }

    /// <summary>Whether both readers show the same.</summary>
    private static bool LooksAlike(LinkedImage image, SKSvg svg)
    {
        double scale = (double)ComparedPx / Math.Max(image.WidthPx, image.HeightPx);
        int width = Math.Max(1, (int)Math.Ceiling(image.WidthPx * scale)), height = Math.Max(1, (int)Math.Ceiling(image.HeightPx * scale));
        var seen = PictureRaster.Here.Pixels(image, width, height, new(0, 0, 1, 1));
        var bounds = svg.Picture!.CullRect;
        var info = new SkiaSharp.SKImageInfo(seen.Width, seen.Height, SkiaSharp.SKColorType.Rgba8888, SkiaSharp.SKAlphaType.Premul,
            SkiaSharp.SKColorSpace.CreateSrgb());
        using var drawn = SkiaSharp.SKSurface.Create(info);
        drawn.Canvas.Scale(seen.Width / bounds.Width, seen.Height / bounds.Height);
        drawn.Canvas.Translate(-bounds.Left, -bounds.Top);
        drawn.Canvas.DrawPicture(svg.Picture);
        using var pixels = drawn.PeekPixels();
        return Alike(seen.Rgba, pixels.GetPixelSpan());
    }

    /// <param name="straight">Pixels whose colours are as they are.</param>
    /// <param name="weighed">Pixels whose colours are weighed by how much they cover.</param>
    private static bool Alike(ReadOnlySpan<byte> straight, ReadOnlySpan<byte> weighed)
    {
        double sum = 0;
        int far = 0;
        for (int i = 0; i < straight.Length; i += 4)
        {
            int cover = straight[i + 3], most = Math.Abs(cover - weighed[i + 3]);
            for (int part = 0; part < 3; part++) most = Math.Max(most, Math.Abs(straight[i + part] * cover / 255 - weighed[i + part]));
            sum += most;
            if (most > Apart) far++;
        }
        int count = straight.Length / 4;
        return sum / count <= MostMean && (double)far / count <= MostApart;
    }
}
