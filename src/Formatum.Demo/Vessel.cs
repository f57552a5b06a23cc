using SkiaSharp;

namespace Formatum.Demo;

/// <summary>A thrown pot: its silhouette as half-widths, fractions of its height, from the rim down to the foot.</summary>
internal sealed record Vessel(string Name, double Aspect, (double Down, double Half)[] Profile, bool Handle = false, bool Spout = false)
{
    public static readonly Vessel Bowl = new("bowl", 1.9, [(0, 0.95), (0.25, 0.88), (0.55, 0.66), (0.8, 0.4), (0.92, 0.34), (1, 0.36)]);
    public static readonly Vessel Vase = new("vase", 0.62, [(0, 0.34), (0.08, 0.27), (0.2, 0.25), (0.42, 0.5), (0.6, 0.55), (0.85, 0.36), (1, 0.3)]);
    public static readonly Vessel Bottle = new("bottle", 0.5, [(0, 0.16), (0.05, 0.12), (0.3, 0.12), (0.48, 0.4), (0.65, 0.48), (0.88, 0.42), (1, 0.36)]);
    public static readonly Vessel Jug = new("jug", 0.85, [(0, 0.4), (0.1, 0.35), (0.28, 0.33), (0.55, 0.48), (0.75, 0.49), (0.92, 0.38), (1, 0.36)],
        Handle: true, Spout: true);
    public static readonly Vessel Cup = new("cup", 1.05, [(0, 0.5), (0.2, 0.5), (0.6, 0.48), (0.85, 0.4), (0.93, 0.32), (1, 0.33)], Handle: true);
    public static readonly Vessel Jar = new("jar", 0.8, [(0, 0.36), (0.06, 0.4), (0.14, 0.38), (0.3, 0.5), (0.6, 0.53), (0.9, 0.4), (1, 0.38)]);
    public static readonly Vessel[] All = [Bowl, Vase, Bottle, Jug, Cup, Jar];

    /// <summary>Draws the pot standing at a point, the light from the upper left.</summary>
    public void Draw(SKCanvas canvas, float centre, float foot, float height, Glaze glaze, Random random)
    {
        float half = (float)(height * Aspect / 2), top = foot - height;
        SKPoint At(double down, double fraction) => new((float)(centre + fraction * half / 0.5 * 0.5), (float)(top + down * height));

        using (var shadow = new SKPaint
        {
            Color = new SKColor(20, 15, 10, 120),
            MaskFilter = SKMaskFilter.CreateBlur(SKBlurStyle.Normal, height * 0.045f),
            IsAntialias = true
        })
            canvas.DrawOval(centre + half * 0.25f, foot, half * 0.95f, height * 0.06f, shadow);

        if (Handle) DrawHandle(canvas, At, half, height, glaze);
        using var body = Silhouette(At);
        using (var paint = new SKPaint { IsAntialias = true })
        {
            paint.Shader = SKShader.CreateLinearGradient(new(centre - half, 0), new(centre + half, 0),
                [glaze.Dark, glaze.Light, glaze.Body, glaze.Dark, glaze.Deep], [0, 0.28f, 0.5f, 0.85f, 1], SKShaderTileMode.Clamp);
            canvas.DrawPath(body, paint);
        }
        canvas.Save();
        canvas.ClipPath(body, SKClipOperation.Intersect, true);
        Drips(canvas, centre, half, top, height, glaze, random);
        using (var lower = new SKPaint
        {
            Shader = SKShader.CreateLinearGradient(new(0, top), new(0, foot),
            [new SKColor(255, 255, 255, 40), SKColors.Transparent, new SKColor(0, 0, 0, 90)], [0, 0.4f, 1], SKShaderTileMode.Clamp)
        })
            canvas.DrawRect(centre - half * 2, top, half * 4, height, lower);
        canvas.Restore();

        DrawRim(canvas, At, centre, top, half, height, glaze);
        using var shine = new SKPaint
        {
            Color = new SKColor(255, 255, 255, 120),
            IsAntialias = true,
            MaskFilter = SKMaskFilter.CreateBlur(SKBlurStyle.Normal, height * 0.02f)
        };
        canvas.DrawOval(centre - half * 0.42f * (float)Profile[3].Half / 0.5f, top + height * 0.42f, half * 0.05f, height * 0.14f, shine);
    }

    private void DrawHandle(SKCanvas canvas, Func<double, double, SKPoint> at, float half, float height, Glaze glaze)
    {
        using var handle = new SKPaint
        {
            Color = glaze.Dark,
            IsStroke = true,
            StrokeWidth = height * 0.07f,
            StrokeCap = SKStrokeCap.Round,
            IsAntialias = true
        };
        using var loop = new SKPathBuilder();
        var from = at(0.16, Profile[2].Half);
        var to = at(0.72, 0.46);
        loop.MoveTo(from);
        loop.CubicTo(new(from.X + half * 0.7f, from.Y - height * 0.04f), new(to.X + half * 0.7f, to.Y - height * 0.05f), to);
        using var path = loop.Detach();
        canvas.DrawPath(path, handle);
    }

    private void DrawRim(SKCanvas canvas, Func<double, double, SKPoint> at, float centre, float top, float half, float height, Glaze glaze)
    {
        double rim = Profile[0].Half;
        using var inside = new SKPaint { Color = glaze.Deep, IsAntialias = true };
        using var edge = new SKPaint { Color = glaze.Light, IsStroke = true, StrokeWidth = Math.Max(1, height * 0.012f), IsAntialias = true };
        canvas.DrawOval(centre, top, (float)(rim * half), height * 0.055f, inside);
        canvas.DrawOval(centre, top, (float)(rim * half), height * 0.055f, edge);
        if (Spout)
        {
            using var lip = new SKPathBuilder();
            lip.MoveTo(at(0.0, -rim * 0.8));
            lip.LineTo(at(-0.02, -rim * 1.35));
            lip.LineTo(at(0.13, -rim * 0.9));
            lip.Close();
            using var lipPath = lip.Detach();
            using var paint = new SKPaint { Color = glaze.Body, IsAntialias = true };
            canvas.DrawPath(lipPath, paint);
        }
    }

    private SKPath Silhouette(Func<double, double, SKPoint> at)
    {
        using var path = new SKPathBuilder();
        path.MoveTo(at(Profile[0].Down, -Profile[0].Half));
        Side(path, at, -1, Profile);
        path.LineTo(at(1, Profile[^1].Half));
        Side(path, at, 1, [.. Profile.Reverse()]);
        path.Close();
        return path.Detach();
    }

    private static void Side(SKPathBuilder path, Func<double, double, SKPoint> at, int sign, (double Down, double Half)[] points)
    {
        for (int i = 1; i < points.Length; i++)
        {
            var (p, q) = (points[i - 1], points[i]);
            double middle = (p.Down + q.Down) / 2;
            path.CubicTo(at(middle, sign * p.Half), at(middle, sign * q.Half), at(q.Down, sign * q.Half));
        }
    }

    private static void Drips(SKCanvas canvas, float centre, float half, float top, float height, Glaze glaze, Random random)
    {
        using var drip = new SKPaint { Color = glaze.Drip, IsAntialias = true };
        using var path = new SKPathBuilder();
        float left = centre - half * 1.1f, width = half * 2.2f;
        path.MoveTo(left, top - 10);
        float depth = height * (0.12f + 0.15f * random.NextSingle());
        const int Count = 9;
        for (int i = 0; i < Count; i++)
        {
            float x = left + width * i / Count, run = depth * (0.6f + random.NextSingle());
            path.CubicTo(new(x, top + run), new(x + width / Count * 0.8f, top + run * 1.3f), new(x + width / Count, top + depth * 0.7f));
        }
        path.LineTo(left + width, top - 10);
        path.Close();
        using var shape = path.Detach();
        canvas.DrawPath(shape, drip);
        using var fleck = new SKPaint { Color = glaze.Deep.WithAlpha(110), IsAntialias = true };
        for (int i = 0; i < 60; i++)
            canvas.DrawCircle(centre + half * (2 * random.NextSingle() - 1), top + height * random.NextSingle(),
                height * 0.003f * (0.5f + random.NextSingle()), fleck);
    }
}

/// <summary>The colours of a fired glaze.</summary>
internal sealed record Glaze(string Name, SKColor Body, SKColor Light, SKColor Dark, SKColor Deep, SKColor Drip)
{
    public static readonly Glaze[] All =
    [
        Of("celadon", 0x9DBBA1, 0x6C5B3E), Of("tenmoku", 0x4A2C1B, 0xA5642A), Of("oatmeal", 0xD9C9A8, 0x8A6B43), Of("cobalt", 0x2F4F86, 0xB9C7DD),
        Of("ash", 0xA8A697, 0x5E6B52), Of("iron-red", 0x8C3B26, 0x3C211A), Of("moss", 0x5F7A4B, 0xC8BF8C), Of("chalk", 0xEDE8DC, 0xB7A68B),
    ];

    private static Glaze Of(string name, uint body, uint drip)
    {
        var c = new SKColor(0xFF000000 | body);
        SKColor Toward(byte to, double k) => new((byte)(c.Red + (to - c.Red) * k), (byte)(c.Green + (to - c.Green) * k), (byte)(c.Blue + (to - c.Blue) * k));
        return new(name, c, Toward(255, 0.35), Toward(20, 0.45), Toward(12, 0.75), new SKColor(0xFF000000 | drip).WithAlpha(190));
    }
}
