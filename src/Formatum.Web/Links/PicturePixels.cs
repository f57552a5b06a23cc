using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Imaging.Apart;
using Formatum.Output;

namespace Formatum.Web.Links;

/// <summary>Where outputs and checks of a publication have the pixels of its pictures from.</summary>
public sealed class PicturePixels(PreviewStore previews, ReadersApart readers, ProfileStore profiles)
{
    /// <summary>Files, and previews for those that are missing.</summary>
    public PixelSource Of(Publication publication) => new(previews, readers) { Press = profiles.ShownFor(publication.Setup) };

    /// <summary>A drawing as lines and areas; null for whatever else, and where it has to be pixels.</summary>
    /// <exception cref="BadPicture">Its file is gone, or no longer the picture it was.</exception>
    public Drawing? DrawingOf(LinkedImage image) => image.Format == "svg" && PictureFile.IsThere(image.Path) ? readers.Drawing(image) : null;

    /// <summary>Previews wherever they are fine enough: for what is looked at or measured, and goes nowhere.</summary>
    public PixelSource Quick(Publication publication) => Of(publication) with { PreviewsServe = true };
}
