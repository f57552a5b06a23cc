using Formatum.Core.Colours;
using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Imaging;
using SkiaSharp;

namespace Formatum.Output.Press;

/// <summary>Which view of a spread is wanted.</summary>
public enum PressShow
{
    /// <summary>As it will look once printed.</summary>
    Printed,

    /// <summary>Where colours lie that the press cannot print.</summary>
    Gamut,

    /// <summary>How much ink lies where.</summary>
    Ink,
}

/// <summary>A spread as a press will show it.</summary>
/// <param name="Page">Its plates.</param>
/// <param name="Printed">As it will look, as sRGB of three bytes a pixel.</param>
/// <param name="IsBeyond">For each pixel, whether what is printed is seen to be another colour than is meant.</param>
public sealed record PressView(SeparatedPage Page, byte[] Printed, bool[] IsBeyond)
{
    /// <summary>Above this distance (CIEDE2000), what is printed is seen to be another colour: common practice, no source.</summary>
    internal const float Visible = 5;

    /// <summary>In what pages are shown, in ppi.</summary>
    public const double Ppi = 96;

    private const int Stripe = 6;

    private static readonly (byte Red, byte Green, byte Blue) Marked = (0x7a, 0x3b, 0x69);

    /// <exception cref="BadPicture">A linked file is gone or no longer a picture.</exception>
    public static PressView Of(Scene scene, Box trim, PressConversion press, PixelSource source, int mostPixels, CancellationToken cancel)
    {
        // The largest sheets are shown coarser.
        double ppi = Math.Clamp(Math.Sqrt(Math.Min(mostPixels, 8_000_000) / (trim.Width * trim.Height)) * Units.PointsPerInch, PageRaster.SmallestPpi, Ppi);
        var page = SeparatedPage.Of(scene, trim, ppi, press, source, mostPixels, cancel);
        byte[] printed = PressPixels.OnScreen(page.Inks, page.Width, page.Height, press.Press);
        foreach (var (ink, plate) in page.Spots) LayOver(printed, plate, PressInks.Of(ink.StandIn, press) is var four ? press.OnScreen(four) : ink.Shown);
        using var meant = PageRaster.Draw(scene, trim, ppi, mostPixels, new MeantInk(press), source, cancel);
        var (rgb, _) = PixelParts.Of(meant);
        return new(page, printed, Seen(ColourDistance.Of(printed, rgb, page.Width, page.Height), page.Width));
    }

    /// <summary>What is seen to differ. Along edges colours mix otherwise as inks than as light: what is no wider than a line of pixels is none.</summary>
    private static bool[] Seen(float[] apart, int width)
    {
        bool Differs(int i) => i < 0 || i >= apart.Length || apart[i] > Visible;
        bool[] seen = new bool[apart.Length];
        for (int i = 0; i < seen.Length; i++)
        {
            int x = i % width;
            seen[i] = Differs(i) && Differs(i - width) && Differs(i + width) && (x == 0 || Differs(i - 1)) && (x == width - 1 || Differs(i + 1));
        }
        return seen;
    }

    /// <summary>Colours as they are meant: light as it is, inks as they look on this press.</summary>
    private sealed class MeantInk(PressConversion press) : CanvasInk
    {
        public override SKColor Of(Colour colour)
        {
            var plain = PressInks.Plain(colour is SpotColour spot ? spot.StandIn : colour, press);
            var shown = plain is null ? colour.Shown : press.OnScreen(plain);
            return new(shown.Red, shown.Green, shown.Blue);
        }
    }

    /// <summary>A spot colour printed over the rest, as much of it as its plate says.</summary>
    private static void LayOver(byte[] rgb, byte[] plate, RgbColour ink)
    {
        for (int i = 0; i < plate.Length; i++)
        {
            if (plate[i] == 0) continue;
            double share = plate[i] / 255.0;
            byte Under(byte value, byte of) => (byte)Math.Round(value * (1 - share + share * of / 255.0));
            (rgb[3 * i], rgb[3 * i + 1], rgb[3 * i + 2]) = (Under(rgb[3 * i], ink.Red), Under(rgb[3 * i + 1], ink.Green), Under(rgb[3 * i + 2], ink.Blue));
        }
    }

    /// <summary>The share of the page that the press cannot print as it is meant.</summary>
    public double ShareBeyond => IsBeyond.Count(b => b) / (double)IsBeyond.Length;

    /// <summary>A view as PNG.</summary>
    /// <param name="show">Which.</param>
    /// <param name="limit">The most ink that may lie anywhere, in per cent.</param>
    public byte[] Draw(PressShow show, double limit)
    {
        byte[] rgb = show switch
        {
            PressShow.Gamut => Over(i => IsBeyond[i], Faded(Printed)),
            PressShow.Ink => Over(i => Page.Coverage(i) > limit, InkMap()),
            _ => Printed,
        };
        byte[] rgba = new byte[rgb.Length / 3 * 4];
        for (int i = 0, from = 0; i < rgba.Length; i += 4)
        {
            (rgba[i], rgba[i + 1], rgba[i + 2], rgba[i + 3]) = (rgb[from], rgb[from + 1], rgb[from + 2], 255);
            from += 3;
        }
        var info = new SKImageInfo(Page.Width, Page.Height, SKColorType.Rgba8888, SKAlphaType.Opaque, SKColorSpace.CreateSrgb());
        using var data = SKData.CreateCopy(rgba);
        using var image = SKImage.FromPixels(info, data, info.RowBytes);
        using var png = image.Encode(SKEncodedImageFormat.Png, 100);
        return png.ToArray();
    }

    /// <summary>Striped where something is to be seen, so that it is seen without telling colours apart.</summary>
    private byte[] Over(Func<int, bool> isMarked, byte[] rgb)
    {
        for (int i = 0; i < rgb.Length / 3; i++)
        {
            if (!isMarked(i)) continue;
            bool stripe = (i % Page.Width + i / Page.Width) % Stripe < Stripe / 2;
            (rgb[3 * i], rgb[3 * i + 1], rgb[3 * i + 2]) = stripe ? Marked : ((byte)255, (byte)255, (byte)255);
        }
        return rgb;
    }

    private static byte[] Faded(byte[] rgb)
    {
        byte[] faded = new byte[rgb.Length];
        for (int i = 0; i < rgb.Length; i += 3)
        {
            byte grey = (byte)(140 + (0.213 * rgb[i] + 0.715 * rgb[i + 1] + 0.072 * rgb[i + 2]) * 115 / 255);
            (faded[i], faded[i + 1], faded[i + 2]) = (grey, grey, grey);
        }
        return faded;
    }

    /// <summary>From white for none to a dark green for 400 %.</summary>
    private byte[] InkMap()
    {
        byte[] map = new byte[Page.Width * Page.Height * 3];
        for (int i = 0; i < Page.Width * Page.Height; i++)
        {
            double share = Math.Min(1, Page.Coverage(i) / 400);
            byte Between(int from, int to) => (byte)Math.Round(from + (to - from) * share);
            (map[3 * i], map[3 * i + 1], map[3 * i + 2]) = (Between(255, 12), Between(255, 58), Between(255, 40));
        }
        return map;
    }
}
