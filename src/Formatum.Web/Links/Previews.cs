using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;

namespace Formatum.Web.Links;

/// <summary>Where the pages find previews. A picture in inks is shown as the publication's press prints it.</summary>
public static class Previews
{
    /// <param name="image">The picture.</param>
    /// <param name="setup">Of the publication that shows it.</param>
    /// <param name="size">One of <see cref="PreviewStore.Sizes"/>.</param>
    public static string Address(LinkedImage image, Setup setup, int size) =>
        $"/previews/{image.ContentHash}/{size}{(image.IsInInks ? "?press=" + (setup.Press?.ContentHash ?? ColourProfile.GeneralPress.ContentHash) : "")}";

    /// <summary>The smallest one: for what is shown small.</summary>
    public static string Smallest(LinkedImage image, Setup setup) => Address(image, setup, PreviewStore.Sizes[0]);

    /// <summary>The smallest one with about as many pixels as the picture takes on a usual screen.</summary>
    /// <param name="image">The picture.</param>
    /// <param name="setup">Of the publication that shows it.</param>
    /// <param name="matrix">From its unit square to points.</param>
    public static string Placed(LinkedImage image, Setup setup, Affine matrix)
    {
        const double PixelsPerPoint = 1.6;
        double longest = PixelsPerPoint * Math.Max(matrix.ScaleX, matrix.ScaleY);
        int size = PreviewStore.Sizes.FirstOrDefault(s => s >= longest, PreviewStore.Sizes[^1]);
        return Address(image, setup, Math.Max(size, PreviewStore.Sizes[1]));
    }
}
