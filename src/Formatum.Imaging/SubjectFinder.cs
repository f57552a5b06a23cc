using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using NetVips;

namespace Formatum.Imaging;

/// <summary>Suggests where the subject of a picture is: where libvips' attention crop finds the most edges, skin colours and saturation.</summary>
public sealed class SubjectFinder(PreviewStore previews)
{
    /// <summary>The point that draws the eye, in fractions of the upright image; null where its preview is gone.</summary>
    public Vec? Suggest(LinkedImage image)
    {
        Vips.Prepare();
        if (previews.Find(image.ContentHash, PreviewStore.Sizes[0]) is not { } path) return null;
        using var preview = Image.NewFromFile(path);
        using var opaque = preview.HasAlpha() ? preview.Flatten(background: [255, 255, 255]) : preview.Copy();
        // A window of half the width and height: the point is then that of a region, and not of a single bright pixel.
        using var region = opaque.Smartcrop(Math.Max(1, opaque.Width / 2), Math.Max(1, opaque.Height / 2), out int x, out int y,
            interesting: Enums.Interesting.Attention);
        return new(Math.Clamp((x + 0.5) / opaque.Width, 0, 1), Math.Clamp((y + 0.5) / opaque.Height, 0, 1));
    }
}
