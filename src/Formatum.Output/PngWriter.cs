using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Publications;
using Formatum.Imaging;
using SkiaSharp;

namespace Formatum.Output;

/// <summary>Pages as PNG.</summary>
public static class PngWriter
{
    /// <summary>A page cut at its trim: see <see cref="PageRaster.Draw"/>.</summary>
    /// <exception cref="EditRefused">The resolution is out of range, or comes to too many pixels.</exception>
    /// <exception cref="BadPicture">A linked file is gone or no longer a picture.</exception>
    public static void Page(Scene scene, PlacedPage page, double ppi, Stream stream, PixelSource? source = null,
        int mostPixels = PageRaster.MostPixels, CancellationToken cancel = default)
    {
        using var picture = PageRaster.Draw(scene, page.Trim, ppi, source, mostPixels, cancel);
        using var png = picture.Encode(SKEncodedImageFormat.Png, 100);
        stream.Write(StatedResolution.In(png.AsSpan(), ppi));
    }
}
