using System.Globalization;
using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;
using SkiaSharp;

namespace Formatum.Output.Books;

/// <summary>The pictures of a book: each goes in once, as large as the largest of its showings asks for.</summary>
/// <param name="book">The book.</param>
/// <param name="options">What is wanted of pictures.</param>
/// <param name="source">Where their pixels come from.</param>
/// <param name="shown">The largest showing of each picture, by its id: from its unit square to points.</param>
internal sealed class BookPictures(BookFile book, BookOptions options, PixelSource source, IReadOnlyDictionary<int, Affine> shown)
{
    private static readonly Box Whole = new(0, 0, 1, 1);

    /// <summary>Pictures are compressed at such a quality where they have to be and nothing else is asked for.</summary>
    private const int UsualQuality = 92;

    private readonly Dictionary<int, string> _paths = [];

    /// <summary>Where a picture lies in the book; it is written at its first showing.</summary>
    /// <exception cref="BadPicture">The file is gone, or no longer the picture it was.</exception>
    public string PathOf(LinkedImage image) => _paths.TryGetValue(image.Id, out string? known) ? known : _paths[image.Id] = Write(image);

    private string Write(LinkedImage image)
    {
        var placed = shown[image.Id];
        bool drawn = SceneImages.IsDrawnToSize(image), missing = source.StandIns is not null && !PictureFile.IsThere(image.Path);
        var fewer = drawn ? null : SceneImages.Reduced(image, placed, options.MostPpi);
        if (!missing && fewer is null && options.Quality is null && GoesInAsItIs(image)) return Add(image, "jpg", "image/jpeg", Bytes(image));
        using var drawable = SceneImages.ForRaster(image, OnRaster(image, placed, fewer), Whole, source);
        bool lossy = (options.Quality is not null && !drawn) || LossyFile.Is(image.Path, image.Format);
        return drawable.Image.AlphaType == SKAlphaType.Opaque && lossy
            ? Add(image, "jpg", "image/jpeg", Encoded(drawable, SKEncodedImageFormat.Jpeg, options.Quality ?? UsualQuality))
            : Add(image, "png", "image/png", Encoded(drawable, SKEncodedImageFormat.Png, 100));
    }

    /// <summary>From the picture's unit square to the pixels it goes in with; a drawing is drawn as finely as it is asked for.</summary>
    private Affine OnRaster(LinkedImage image, Affine placed, (int Width, int Height)? fewer)
    {
        if (!SceneImages.IsDrawnToSize(image))
            return fewer is var (width, height) ? Affine.Scaling(width, height) : Affine.Scaling(image.WidthPx, image.HeightPx);
        double fine = (options.MostPpi ?? SceneImages.SvgPrintPpi) / Units.PointsPerInch;
        return Affine.Scaling(placed.ScaleX * fine, placed.ScaleY * fine);
    }

    /// <summary>Whether every reading program shows a file as it is: a JPEG in RGB or grey, upright as it is stored.</summary>
    private static bool GoesInAsItIs(LinkedImage image)
    {
        if (image.Format != "jpeg" || image.Orientation != 1 || image.Colour is not ("RGB" or "grey") || !PictureFile.IsThere(image.Path)) return false;
        using var file = File.OpenRead(image.Path);
        return JpegHeader.Read(file) is { GoesIntoPdf: true } header && (header.Width, header.Height) == (image.StoredWidthPx, image.StoredHeightPx);
    }

    private static byte[] Bytes(LinkedImage image)
    {
        try
        {
            return File.ReadAllBytes(image.Path);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw SceneImages.Gone(image);
        }
    }

    private static byte[] Encoded(DrawableImage drawable, SKEncodedImageFormat format, int quality)
    {
        using var data = drawable.Image.Encode(format, quality);
        return data.ToArray();
    }

    private string Add(LinkedImage image, string ending, string type, byte[] content)
    {
        string path = string.Create(CultureInfo.InvariantCulture, $"pictures/{image.Id}.{ending}");
        book.Add(path, type, content);
        return path;
    }
}
