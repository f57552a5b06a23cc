using System.Globalization;
using Formatum.Core.Colours;
using Formatum.Core.Publications;
using Formatum.Imaging;
using NetVips;

namespace Formatum.Bench;

/// <summary>How long a treatment of a picture of 24 megapixels takes; beside it, libvips doing the same operations on the same pixels.</summary>
internal static class TreatBench
{
    private const int Width = 6000, Height = 4000;

    internal static readonly Treatment Grey = new()
    {
        Grey = new(0.5, 0.4, 0.1),
        Contrast = 0.2,
        Gamma = 1.2,
        Inks = new(Colour.Of("#1f2622"), Colour.Of("#f3ead8")),
    };

    public static void Run()
    {
        byte[] rgba = new byte[Width * Height * 4];
        new Random(1).NextBytes(rgba);
        var pixels = new PixelTreatment(Grey);
        using var image = Image.NewFromMemoryCopy(rgba, Width, Height, 4, Enums.BandFormat.Uchar).ExtractBand(0, n: 3).CopyMemory();
        double ours = Measured.Median(() => pixels.Apply(rgba)), theirs = Measured.Median(() => ByVips(image, Grey));
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"24 megapixels: ours {ours:0} ms, libvips {theirs:0} ms; ratio {ours / theirs:0.00}"));
    }

    private static void ByVips(Image image, Treatment t) => Treated(image, t).Dispose();

    /// <summary>A grey treatment with two inks, done by operations of libvips.</summary>
    internal static Image Treated(Image image, Treatment t)
    {
        double[] m = t.Matrix();
        var (slope, intercept) = t.Line;
        using var grey = image.Recomb(Image.NewFromArray(new[,] { { m[0], m[1], m[2] } }));
        using var toned = (grey * slope + 255 * intercept).Cast(Enums.BandFormat.Uchar);
        using var curve = (Image.Identity() / 255).Pow(1 / t.Gamma);
        var (dark, light) = (t.Inks!.Dark.Shown, t.Inks.Light.Shown);
        Image Part(byte from, byte to) => curve * (to - from) + from;
        using var table = Part(dark.Red, light.Red).Bandjoin(Part(dark.Green, light.Green), Part(dark.Blue, light.Blue)).Cast(Enums.BandFormat.Uchar);
        return toned.Maplut(table).CopyMemory();
    }
}
