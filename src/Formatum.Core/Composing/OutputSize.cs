using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Composing;

/// <summary>About how large an output will be, so that nobody is taken by surprise.</summary>
public static class OutputSize
{
    /// <summary>Bytes of a page's own words and lines, of a pixel that is kept as a JPEG of good quality, and of one that is kept without loss: from files that
    /// this program made.</summary>
    private const double PageBytes = 6_000, JpegPixel = 0.25, LosslessPixel = 1.5, FixedBytes = 120_000;

    /// <param name="publication">The publication.</param>
    /// <param name="recipe">How it is made.</param>
    /// <param name="pages">Where the pages stand, from 1.</param>
    /// <returns>In bytes.</returns>
    public static double Of(Publication publication, Recipe recipe, IReadOnlyCollection<int> pages)
    {
        var setup = publication.Setup;
        if (recipe.Kind == OutputKind.Pictures)
        {
            double pixels = setup.PageWidth * setup.PageHeight * Math.Pow(recipe.Ppi / Units.PointsPerInch, 2) * pages.Count;
            return pixels * (recipe.File == PictureFileKind.Png ? LosslessPixel / 2 : JpegPixel / 2);
        }
        if (recipe.Kind == OutputKind.Bundle) return FixedBytes + publication.Images.Values.Sum(i => (double)i.Bytes);
        var shown = new Dictionary<int, (LinkedImage Image, double Area)>();
        foreach (var spread in pages.Select(n => Spread.IndexOfPage(publication, n)).Distinct().Select(i => Spread.At(publication, i)))
            foreach (var (frame, _) in spread.FramesOf(publication))
                if (!frame.Hidden && publication.ImageOf(frame) is { } image)
                    shown[image.Id] = (image, Math.Max(shown.GetValueOrDefault(image.Id).Area, frame.Box.Width * frame.Box.Height));
        return FixedBytes + PageBytes * pages.Count + shown.Values.Sum(s => BytesOf(s.Image, s.Area, recipe));
    }

    private static double BytesOf(LinkedImage image, double area, Recipe recipe)
    {
        double pixels = (double)image.WidthPx * image.HeightPx;
        double asked = recipe.MostPpi is { } most ? area * Math.Pow(most / Units.PointsPerInch, 2) : double.PositiveInfinity;
        if (recipe.Quality is null && image.Format == "jpeg" && asked >= pixels) return image.Bytes;
        return Math.Min(pixels, asked) * (recipe.Quality is not null || image.Format is "jpeg" or "avif" or "webp" ? JpegPixel : LosslessPixel);
    }
}
