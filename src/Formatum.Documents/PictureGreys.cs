using System.Collections.Immutable;
using SkiaSharp;
using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Tokens;

namespace Formatum.Documents;

/// <summary>The greys by which a picture of a PDF is known again, as it stands on its page: a file may hold it turned.</summary>
internal static class PictureGreys
{
    private const int Side = 8;

    /// <summary>So many pixels of each place are looked at, across and down.</summary>
    private const int Looks = 8;

    /// <summary>How the samples of a picture stand in the upright box around it.</summary>
    private readonly struct Standing(PdfRectangle box)
    {
        private readonly double _acrossX = box.BottomRight.X - box.BottomLeft.X, _acrossY = box.BottomRight.Y - box.BottomLeft.Y;
        private readonly double _upX = box.TopLeft.X - box.BottomLeft.X, _upY = box.TopLeft.Y - box.BottomLeft.Y;

        /// <param name="x">From the left of the upright box, 0 to 1.</param>
        /// <param name="y">From its top.</param>
        /// <returns>From the left and the top of the samples, 0 to 1 where there are any.</returns>
        public (double X, double Y) At(double x, double y)
        {
            double dx = x * (Math.Abs(_acrossX) + Math.Abs(_upX)) + Math.Min(0, _acrossX) + Math.Min(0, _upX);
            double dy = (1 - y) * (Math.Abs(_acrossY) + Math.Abs(_upY)) + Math.Min(0, _acrossY) + Math.Min(0, _upY);
            double area = _acrossX * _upY - _acrossY * _upX;
            return area == 0 ? (-1, -1) : ((dx * _upY - dy * _upX) / area, 1 - (dy * _acrossX - dx * _acrossY) / area);
        }
    }

    /// <returns>8 rows of 8, 0 to 255; nothing where its pixels cannot be read.</returns>
    public static ImmutableArray<byte> Of(IPdfImage image)
    {
        var stands = new Standing(image.BoundingBox);
        try
        {
            if (IsJpeg(image)) return OfFile(image.RawMemory.Span, stands);
            int parts = image.ColorSpaceDetails?.NumberOfColorComponents ?? 0;
            if (image.BitsPerComponent == 8 && parts is 1 or 3 or 4 && image.TryGetBytesAsMemory(out var samples)
                && samples.Length == (long)image.WidthInSamples * image.HeightInSamples * parts)
                return Averages(stands, image.WidthInSamples, image.HeightInSamples,
                    (x, y) => Grey(samples.Span.Slice((y * image.WidthInSamples + x) * parts, parts)));
            return image.TryGetPng(out byte[]? png) && png is not null ? OfFile(png, stands) : [];
        }
        catch (Exception e) when (e is not OutOfMemoryException)
        {
            // A picture in a form that is not read is compared by its place alone.
            return [];
        }
    }

    private static bool IsJpeg(IPdfImage image) => image.ImageDictionary.TryGet(NameToken.Filter, out var filter)
        && (filter is NameToken { Data: "DCTDecode" } || filter is ArrayToken { Data: [NameToken { Data: "DCTDecode" }] });

    private static ImmutableArray<byte> OfFile(ReadOnlySpan<byte> file, Standing stands)
    {
        using var data = SKData.CreateCopy(file);
        using var codec = SKCodec.Create(data);
        if (codec is null) return [];
        var size = codec.GetScaledDimensions(Math.Min(1, (float)(Side * Looks * 2) / Math.Min(codec.Info.Width, codec.Info.Height)));
        using var pixels = new SKBitmap(new SKImageInfo(size.Width, size.Height, SKColorType.Rgba8888, SKAlphaType.Unpremul));
        if (codec.GetPixels(pixels.Info, pixels.GetPixels()) is not (SKCodecResult.Success or SKCodecResult.IncompleteInput)) return [];
        var samples = pixels.GetPixelSpan().ToArray();
        return Averages(stands, size.Width, size.Height, (x, y) => Grey(samples.AsSpan((y * size.Width + x) * 4, 3)));
    }

    /// <summary>The lightness of a grey, of red, green and blue (Rec. 601), or of four inks, 0 to 255.</summary>
    private static double Grey(ReadOnlySpan<byte> parts) => parts.Length switch
    {
        1 => parts[0],
        3 => 0.299 * parts[0] + 0.587 * parts[1] + 0.114 * parts[2],
        _ => (255 - 0.299 * parts[0] - 0.587 * parts[1] - 0.114 * parts[2]) * (255 - parts[3]) / 255,
    };

    private static ImmutableArray<byte> Averages(Standing stands, int width, int height, Func<int, int, double> grey)
    {
        var greys = ImmutableArray.CreateBuilder<byte>(Side * Side);
        for (int cell = 0; cell < Side * Side; cell++)
        {
            double sum = 0;
            for (int look = 0; look < Looks * Looks; look++)
            {
                var (x, y) = stands.At((cell % Side + (look % Looks + 0.5) / Looks) / Side, (cell / Side + (look / Looks + 0.5) / Looks) / Side);
                sum += x is < 0 or >= 1 || y is < 0 or >= 1 ? byte.MaxValue : grey((int)(x * width), (int)(y * height));
            }
            greys.Add((byte)Math.Round(sum / (Looks * Looks)));
        }
        return greys.DrainToImmutable();
    }
}
