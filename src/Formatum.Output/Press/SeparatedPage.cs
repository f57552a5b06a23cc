using Formatum.Core.Colours;
using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;
using SkiaSharp;

namespace Formatum.Output.Press;

/// <summary>A page or spread taken apart into its plates, as pixels.</summary>
/// <param name="Width">In pixels.</param>
/// <param name="Height">In pixels.</param>
/// <param name="Inks">Cyan, magenta, yellow and black of each pixel, rows from the top; 255 is full.</param>
/// <param name="Spots">Plates of spot colours, by their names, with what stands in for them.</param>
public sealed record SeparatedPage(int Width, int Height, byte[] Inks, IReadOnlyList<(SpotColour Ink, byte[] Plate)> Spots)
{
    public const int Parts = 4;

    /// <summary>How much ink lies at a pixel in all, in per cent of one full ink.</summary>
    public double Coverage(int index)
    {
        int sum = 0;
        for (int part = 0; part < Parts; part++) sum += Inks[index * Parts + part];
        foreach (var (_, plate) in Spots) sum += plate[index];
        return sum / 2.55;
    }

    /// <summary>The most ink that lies anywhere, in per cent, and where, as the index of a pixel. A pixel alone may be an edge's: the mean of two by two
    /// counts.</summary>
    public (double Percent, int Index) Most()
    {
        (double Percent, int Index) most = (0, 0);
        for (int y = 0; y + 1 < Height; y++)
            for (int x = 0; x + 1 < Width; x++)
            {
                int at = y * Width + x;
                double here = (Coverage(at) + Coverage(at + 1) + Coverage(at + Width) + Coverage(at + Width + 1)) / 4;
                if (here > most.Percent) most = (here, at);
            }
        return most;
    }

    /// <summary>Takes what a scene shows within a box apart.</summary>
    /// <param name="scene">The scene.</param>
    /// <param name="trim">The box, in the spread's points.</param>
    /// <param name="ppi">Pixels per inch, 9 to 1200.</param>
    /// <param name="press">The press.</param>
    /// <param name="source">Where the pixels of pictures come from.</param>
    /// <param name="mostPixels">It has no more pixels.</param>
    /// <param name="cancel">Says that nobody wants it any more.</param>
    /// <exception cref="Core.Checks.EditRefused">The resolution is out of range, or comes to too many pixels.</exception>
    /// <exception cref="BadPicture">A linked file is gone or no longer a picture.</exception>
    public static SeparatedPage Of(Scene scene, Box trim, double ppi, PressConversion press, PixelSource source, int mostPixels = PageRaster.MostPixels,
        CancellationToken cancel = default)
    {
        using var pictures = new PlatePictures(press, source, ppi / Units.PointsPerInch, cancel);
        byte[] Pass(PlateInk ink) => Drawn(scene, trim, ppi, mostPixels, ink, (image, placed, part) => pictures.Take(image, placed, part, ink));
        // Three plates at once, as red, green and blue; black by itself: what is painted for an ink is as light as there is little of it.
        byte[] colours = Pass(new(PlateKind.Colours, null, press)), black = Pass(new(PlateKind.Black, null, press));
        byte[] inks = new byte[colours.Length];
        for (int i = 0; i < inks.Length; i += Parts)
        {
            for (int part = 0; part < 3; part++) inks[i + part] = (byte)(255 - colours[i + part]);
            inks[i + 3] = (byte)(255 - black[i]);
        }
        var spots = SpotsOf(scene).Select(spot => (spot, Inverted(Pass(new(PlateKind.Spot, spot.Name, press))))).ToList();
        var (width, height) = PageRaster.Size(trim, ppi, mostPixels);
        return new(width, height, inks, spots);
    }

    private static byte[] Inverted(byte[] rgba)
    {
        byte[] plate = new byte[rgba.Length / Parts];
        for (int i = 0; i < plate.Length; i++) plate[i] = (byte)(255 - rgba[i * Parts]);
        return plate;
    }

    private static byte[] Drawn(Scene scene, Box trim, double ppi, int mostPixels, CanvasInk ink, Func<SceneImage, Affine, Box, DrawableImage> take)
    {
        using var picture = PageRaster.Draw(scene, trim, ppi, mostPixels, ink, take, _ => { });
        var info = new SKImageInfo(picture.Width, picture.Height, SKColorType.Rgba8888, SKAlphaType.Unpremul, SKColorSpace.CreateSrgb());
        using var pixels = SKData.Create(info.BytesSize64);
        if (!picture.ReadPixels(info, pixels.Data, info.RowBytes, 0, 0)) throw new InvalidOperationException("The pixels of a page could not be read.");
        return pixels.ToArray();
    }

    /// <summary>The spot colours that a scene shows.</summary>
    private static IEnumerable<SpotColour> SpotsOf(Scene scene) => scene.Items.Where(f => f.Prints).SelectMany(f => f.Look.AllColours()
        .Concat(f.Text?.Lines.SelectMany(l => l.Runs.Select(r => r.Style.Ink).Concat(l.Strokes.Select(s => s.Ink))) ?? []))
        .OfType<SpotColour>().DistinctBy(s => s.Name).OrderBy(s => s.Name, StringComparer.Ordinal);
}

/// <summary>Plates that are drawn together.</summary>
internal enum PlateKind { Colours, Black, Spot }

/// <summary>Paints how much of an ink, or of three, a colour takes: white for none.</summary>
internal sealed class PlateInk(PlateKind kind, string? spot, PressConversion press) : CanvasInk
{
    public PlateKind Kind => kind;

    public string? Spot => spot;

    public override SKColor Of(Colour colour)
    {
        if (kind == PlateKind.Spot) return colour is SpotColour own && own.Name == spot ? SKColors.Black : SKColors.White;
        // What a spot colour covers is left free of all other inks.
        if (colour is SpotColour) return SKColors.White;
        var inks = PressInks.Of(colour, press);
        byte Left(double ink) => (byte)Math.Round(255 * (1 - ink));
        return kind == PlateKind.Black ? new(Left(inks.Key), Left(inks.Key), Left(inks.Key)) : new(Left(inks.Cyan), Left(inks.Magenta), Left(inks.Yellow));
    }

    public override bool LeavesBeneath(Colour ink) => kind != PlateKind.Black && PressInks.Overprints(ink, press);
}

/// <summary>Pictures as their plates; each is converted once for all passes over a page.</summary>
internal sealed class PlatePictures(PressConversion press, PixelSource source, double scale, CancellationToken cancel) : IDisposable
{
    /// <summary>A picture's inks, four bytes a pixel, how much each pixel covers, and inks of its own, a byte a pixel.</summary>
    private sealed record Inks(int Width, int Height, byte[] Four, byte[]? Cover, Affine ToUpright)
    {
        public Dictionary<string, byte[]> Spots { get; init; } = [];
    }

    private readonly Dictionary<(int Id, Treatment? Treatment, Affine Placed, Box Part), Inks> _known = [];
    private readonly List<DrawableImage> _drawn = [];

    public DrawableImage Take(SceneImage image, Affine placed, Box part, PlateInk ink)
    {
        cancel.ThrowIfCancellationRequested();
        var key = (image.Source.Id, image.Treatment, placed, part);
        if (!_known.TryGetValue(key, out var inks)) _known[key] = inks = Read(image, placed, part);
        var drawn = Drawn(inks, ink.Kind, ink.Spot is null ? null : inks.Spots.GetValueOrDefault(ink.Spot));
        _drawn.Add(drawn);
        return drawn;
    }

    private Inks Read(SceneImage image, Affine placed, Box part)
    {
        var onRaster = Affine.Scaling(scale, scale).After(placed);
        bool own = image.Treatment is null && image.Source.Colour is "CMYK" or "grey" && !SceneImages.IsDrawnToSize(image.Source)
            && PictureFile.IsThere(image.Source.Path);
        if (own)
        {
            int Pixels(double length) => Math.Max(1, (int)Math.Ceiling(length));
            var samples = SceneImages.Samples(image.Source, new(Pixels(onRaster.ScaleX), Pixels(onRaster.ScaleY), press.Press.Source), source);
            var (plain, cover) = PixelParts.Apart(samples.Data, samples.Parts, samples.HasAlpha);
            if (!SceneImages.HasOwnGreys(samples))
                return new(samples.Width, samples.Height, samples.Kind == SampleKind.Grey ? InBlack(plain) : plain, cover, Affine.Identity);
        }
        if (TwoPlates.Of(image.Treatment, press) is { } plates) return OnPlates(image, plates, onRaster, placed, part);
        using var drawable = SceneImages.Treated(SceneImages.ForRaster(image.Source, onRaster, part, source), image.Treatment, placed);
        var (rgb, covers) = PixelParts.Of(drawable.Image);
        byte[] four = SceneImages.IsGrey(image) ? InBlack(PixelParts.FirstOf(rgb)) : IsDrawing(image)
            ? DrawnInks.Of(rgb, drawable.Image.Width, drawable.Image.Height, press)
            : PressPixels.ToInks(rgb, drawable.Image.Width, drawable.Image.Height, press.Press);
        return new(drawable.Image.Width, drawable.Image.Height, four, covers, drawable.ToUpright);
    }

    private Inks OnPlates(SceneImage image, TwoPlates plates, Affine onRaster, Affine placed, Box part)
    {
        using var light = SceneImages.Treated(SceneImages.ForRaster(image.Source, onRaster, part, source), TwoPlates.Lightness(image.Treatment!), placed);
        var (rgb, cover) = PixelParts.Of(light.Image);
        byte[] samples = plates.Samples(PixelParts.FirstOf(rgb)), four = new byte[light.Image.Width * light.Image.Height * SeparatedPage.Parts];
        int count = plates.Plates.Length;
        var spots = new Dictionary<string, byte[]>();
        for (int p = 0; p < count; p++)
        {
            int place = Array.IndexOf(FourInks, plates.Plates[p].Name);
            byte[] plate = plates.Plates[p].IsSpot ? spots[plates.Plates[p].Name] = new byte[samples.Length / count] : four;
            for (int i = 0; i < samples.Length / count; i++) plate[plates.Plates[p].IsSpot ? i : i * SeparatedPage.Parts + place] = samples[i * count + p];
        }
        return new(light.Image.Width, light.Image.Height, four, cover, light.ToUpright) { Spots = spots };
    }

    private static readonly string[] FourInks = ["Cyan", "Magenta", "Yellow", "Black"];

    private static bool IsDrawing(SceneImage image) => image.Treatment is null && SceneImages.IsDrawnToSize(image.Source);

    private static byte[] InBlack(byte[] grey)
    {
        byte[] four = new byte[grey.Length * SeparatedPage.Parts];
        for (int i = 0; i < grey.Length; i++) four[i * SeparatedPage.Parts + 3] = (byte)(255 - grey[i]);
        return four;
    }

    private static DrawableImage Drawn(Inks inks, PlateKind kind, byte[]? spot)
    {
        byte[] rgba = new byte[inks.Four.Length];
        for (int i = 0; i < rgba.Length; i += SeparatedPage.Parts)
        {
            for (int part = 0; part < 3; part++)
                rgba[i + part] = kind switch
                {
                    PlateKind.Colours => (byte)(255 - inks.Four[i + part]),
                    PlateKind.Black => (byte)(255 - inks.Four[i + 3]),
                    // A picture covers a spot colour beneath it.
                    _ => spot is null ? (byte)255 : (byte)(255 - spot[i / SeparatedPage.Parts]),
                };
            rgba[i + 3] = inks.Cover?[i / SeparatedPage.Parts] ?? 255;
        }
        var info = new SKImageInfo(inks.Width, inks.Height, SKColorType.Rgba8888, inks.Cover is null ? SKAlphaType.Opaque : SKAlphaType.Unpremul,
            SKColorSpace.CreateSrgb());
        using var data = SKData.CreateCopy(rgba);
        return new(SKImage.FromPixels(info, data, info.RowBytes), inks.ToUpright);
    }

    public void Dispose()
    {
        foreach (var drawn in _drawn) drawn.Dispose();
    }
}
