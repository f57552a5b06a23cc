using NetVips;
using SkiaSharp;

namespace Formatum.Demo;

/// <summary>What a demo picture shows.</summary>
internal enum Motif { Pot, Pair, Shelf, Texture, StillLife, Plate, CutOut }

/// <summary>A picture that the program draws itself: what it shows, and the file it is kept in.</summary>
/// <param name="File">The file's name; its ending chooses the format.</param>
/// <param name="Motif">What it shows.</param>
/// <param name="Seed">Everything left to chance follows from this.</param>
/// <param name="Width">Pixels as the picture stands upright.</param>
/// <param name="Height">Pixels as the picture stands upright.</param>
/// <param name="Ppi">Stored resolution; 0 for a JPEG that stores none.</param>
/// <param name="Orientation">EXIF orientation the file is stored in.</param>
internal sealed record DemoPicture(string File, Motif Motif, int Seed, int Width, int Height, int Ppi = 300, int Orientation = 1)
{
    private Glaze Glaze => Glaze.All[Seed % Glaze.All.Length];

    public void Write(string path)
    {
        bool isClear = Motif == Motif.CutOut;
        using var bitmap = new SKBitmap(new SKImageInfo(Width, Height, SKColorType.Rgba8888, isClear ? SKAlphaType.Premul : SKAlphaType.Opaque));
        using (var canvas = new SKCanvas(bitmap)) Draw(canvas);
        if (Ppi == 0)
        {
            // This encoder stores no resolution, as web shops' and many programs' do not.
            using var encoded = bitmap.Encode(SKEncodedImageFormat.Jpeg, 90);
            using var file = System.IO.File.Create(path);
            encoded.SaveTo(file);
            return;
        }
        // What is kept in a file is not multiplied by its opacity.
        using var plain = isClear ? new SKBitmap(bitmap.Info.WithAlphaType(SKAlphaType.Unpremul)) : null;
        if (plain is not null) bitmap.PeekPixels().ReadPixels(plain.Info, plain.GetPixels(), plain.RowBytes, 0, 0);
        using var rgba = Image.NewFromMemoryCopy<byte>((plain ?? bitmap).GetPixelSpan().ToArray(), Width, Height, 4, Enums.BandFormat.Uchar);
        using var rgb = rgba.ExtractBand(0, n: isClear ? 4 : 3);
        using var turned = Stored(rgb);
        double perMillimetre = Ppi / 25.4;
        using var srgb = turned.Copy(interpretation: Enums.Interpretation.Srgb, xres: perMillimetre, yres: perMillimetre);
        using var tagged = srgb.Mutate(m =>
        {
            m.Set(GValue.GStrType, "resolution-unit", "in");
            if (Orientation > 1) m.Set(GValue.GIntType, "orientation", Orientation);
        });
        switch (Path.GetExtension(path))
        {
            case ".png": tagged.Pngsave(path, compression: 6); break;
            case ".tif":
                tagged.Tiffsave(path, compression: Enums.ForeignTiffCompression.Lzw, predictor: Enums.ForeignTiffPredictor.Horizontal,
                resunit: Enums.ForeignTiffResunit.Inch); break;
            case ".webp": tagged.Webpsave(path, q: 88); break;
            default: tagged.Jpegsave(path, q: 90); break;
        }
    }

    /// <summary>The upright picture turned to the way the file stores it (the inverse of what EXIF 2.3, tag 274, tells a viewer to do).</summary>
    private Image Stored(Image upright) => Orientation switch
    {
        2 => upright.FlipHor(),
        3 => upright.Rot180(),
        4 => upright.FlipVer(),
        6 => upright.Rot270(),
        8 => upright.Rot90(),
        _ => upright.Copy(),
    };

    private void Draw(SKCanvas canvas)
    {
        var random = new Random(Seed * 7919 + 17);
        float w = Width, h = Height, unit = Math.Min(w, h);
        if (Motif == Motif.CutOut)
        {
            // A pot alone, as a cut-out picture shows it.
            canvas.Clear(SKColors.Transparent);
            DrawPot(canvas, random, w / 2, h * 0.94f, unit * 0.86f, Seed);
            return;
        }
        if (Motif == Motif.Texture) DrawTexture(canvas, random);
        else
        {
            DrawRoom(canvas, random);
            float table = h * 0.8f;
            switch (Motif)
            {
                case Motif.Pot: DrawPot(canvas, random, w / 2, table, unit * 0.62f, Seed); break;
                case Motif.Pair:
                    DrawPot(canvas, random, w * 0.38f, table - h * 0.03f, unit * 0.55f, Seed);
                    DrawPot(canvas, random, w * 0.64f, table + h * 0.03f, unit * 0.4f, Seed + 3);
                    break;
                case Motif.Shelf: DrawShelves(canvas, random); break;
                case Motif.StillLife:
                    for (int i = 0; i < 5; i++)
                        DrawPot(canvas, random, w * (0.14f + 0.18f * i), table + h * 0.05f * (i % 2), unit * (0.3f + 0.22f * random.NextSingle()), Seed + i);
                    break;
                case Motif.Plate: DrawPlate(canvas, random); break;
            }
        }
        Grain(canvas);
    }

    private static void DrawPot(SKCanvas canvas, Random random, float x, float foot, float size, int seed)
    {
        var vessel = Vessel.All[seed % Vessel.All.Length];
        float height = (float)(vessel.Aspect > 1 ? size / vessel.Aspect : size);
        vessel.Draw(canvas, x, foot, height, Glaze.All[(seed / 2 + seed) % Glaze.All.Length], random);
    }

    private void DrawRoom(SKCanvas canvas, Random random)
    {
        float hue = 25 + 40 * random.NextSingle();
        using (var wall = new SKPaint
        {
            Shader = SKShader.CreateRadialGradient(new(Width * 0.3f, Height * 0.25f), Math.Max(Width, Height) * 0.95f,
            [SKColor.FromHsl(hue, 18, 88), SKColor.FromHsl(hue, 16, 62)], SKShaderTileMode.Clamp)
        })
            canvas.DrawRect(0, 0, Width, Height, wall);
        using var table = new SKPaint
        {
            Shader = SKShader.CreateLinearGradient(new(0, Height * 0.7f), new(0, Height),
            [SKColor.FromHsl(hue, 24, 52), SKColor.FromHsl(hue, 26, 34)], SKShaderTileMode.Clamp)
        };
        canvas.DrawRect(0, Height * 0.72f, Width, Height * 0.28f, table);
    }

    private void DrawShelves(SKCanvas canvas, Random random)
    {
        int rows = Height > Width ? 4 : 3, seed = Seed;
        float gap = Height / (rows + 0.3f);
        using var board = new SKPaint { Color = new SKColor(0xFF6B4F35) };
        using var edge = new SKPaint { Color = new SKColor(0xFF4A3523) };
        for (int row = 1; row <= rows; row++)
        {
            float y = row * gap;
            canvas.DrawRect(0, y, Width, gap * 0.07f, board);
            canvas.DrawRect(0, y + gap * 0.07f, Width, gap * 0.025f, edge);
            for (float x = gap * 0.4f; x < Width - gap * 0.2f; x += gap * (0.62f + 0.25f * random.NextSingle()))
                DrawPot(canvas, random, x, y, gap * (0.45f + 0.25f * random.NextSingle()), seed++);
        }
    }

    private void DrawPlate(SKCanvas canvas, Random random)
    {
        float x = Width / 2f, y = Height * 0.5f, r = Math.Min(Width, Height) * 0.4f;
        using var shadow = new SKPaint { Color = new SKColor(0, 0, 0, 110), MaskFilter = SKMaskFilter.CreateBlur(SKBlurStyle.Normal, r * 0.06f) };
        canvas.DrawCircle(x + r * 0.06f, y + r * 0.08f, r, shadow);
        for (int ring = 0; ring < 14; ring++)
        {
            float at = r * (1 - ring / 14f);
            using var paint = new SKPaint
            {
                IsAntialias = true,
                Shader = SKShader.CreateLinearGradient(new(x - at, y - at), new(x + at, y + at),
                [Glaze.Light, ring % 3 == 0 ? Glaze.Drip.WithAlpha(255) : Glaze.Body, Glaze.Dark], SKShaderTileMode.Clamp)
            };
            canvas.DrawCircle(x + (random.NextSingle() - 0.5f) * r * 0.01f, y, at, paint);
        }
    }

    private void DrawTexture(SKCanvas canvas, Random random)
    {
        using (var ground = new SKPaint { Color = Glaze.Body }) canvas.DrawRect(0, 0, Width, Height, ground);
        float unit = Math.Min(Width, Height);
        for (int i = 0; i < 260; i++)
        {
            using var pool = new SKPaint { Color = (i % 3 == 0 ? Glaze.Drip : i % 2 == 0 ? Glaze.Dark : Glaze.Light).WithAlpha(60), IsAntialias = true };
            canvas.DrawOval(Width * random.NextSingle(), Height * random.NextSingle(), unit * 0.14f * random.NextSingle(), unit * 0.06f * random.NextSingle(),
                pool);
        }
        using var crack = new SKPaint { Color = Glaze.Deep.WithAlpha(120), IsStroke = true, StrokeWidth = unit * 0.002f, IsAntialias = true };
        for (int i = 0; i < 40; i++)
        {
            float x = Width * random.NextSingle(), y = Height * random.NextSingle();
            for (int step = 0; step < 12; step++)
            {
                float nx = x + unit * 0.07f * (random.NextSingle() - 0.4f), ny = y + unit * 0.07f * (random.NextSingle() - 0.5f);
                canvas.DrawLine(x, y, nx, ny, crack);
                (x, y) = (nx, ny);
            }
        }
    }

    /// <summary>A photograph's grain, which also gives the files the sizes that photographs have.</summary>
    private void Grain(SKCanvas canvas)
    {
        // Computed for one tile and repeated: pixel by pixel it would take longer than all the rest of the picture.
        var tile = new SKSizeI(512, 512);
        using var grain = new SKBitmap(new SKImageInfo(tile.Width, tile.Height, SKColorType.Rgba8888, SKAlphaType.Premul));
        using (var once = new SKCanvas(grain))
        using (var noise = SKShader.CreatePerlinNoiseTurbulence(0.35f, 0.35f, 2, Seed, tile))
        using (var paint = new SKPaint { Shader = noise })
        {
            once.Clear(SKColors.Transparent);
            once.DrawRect(0, 0, tile.Width, tile.Height, paint);
        }
        using var repeated = SKShader.CreateBitmap(grain, SKShaderTileMode.Repeat, SKShaderTileMode.Repeat);
        using var over = new SKPaint { Shader = repeated, BlendMode = SKBlendMode.Overlay, Color = new SKColor(0, 0, 0, 60) };
        canvas.DrawRect(0, 0, Width, Height, over);
    }
}
