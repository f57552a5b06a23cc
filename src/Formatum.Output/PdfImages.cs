using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;

namespace Formatum.Output;

/// <summary>
/// The images of a PDF while it is written: each is kept until it was shown for the last time, so that the library knows it again and writes it once.
/// </summary>
/// <param name="shown">Every showing of an image, in any order.</param>
/// <param name="source">Where their pixels come from.</param>
/// <param name="cancel">Says that nobody wants them any more.</param>
internal sealed class PdfImages(IEnumerable<LinkedImage> shown, PixelSource source, CancellationToken cancel) : IDisposable
{
    private readonly Dictionary<int, int> _usesLeft = shown.GroupBy(i => i.Id).ToDictionary(g => g.Key, g => g.Count());
    private readonly Dictionary<(int Id, Treatment? Treatment, Affine Placed, Box Part), DrawableImage> _kept = [];

    /// <exception cref="BadPicture">The file is gone, or no longer the picture it was.</exception>
    public DrawableImage Take(SceneImage image, Affine placed, Box part)
    {
        cancel.ThrowIfCancellationRequested();
        // Drawn pictures have the pixels of their place, softened ones go by its size; all others have their own, and are written once.
        var size = placed with { E = 0, F = 0 };
        var key = SceneImages.IsDrawnToSize(image.Source) ? (image.Source.Id, image.Treatment, size, part)
            : (image.Source.Id, image.Treatment, image.Treatment is { Reach: > 0 } ? size : default, default);
        return _kept.TryGetValue(key, out var known) ? known
            : _kept[key] = SceneImages.Treated(SceneImages.ForPrint(image.Source, placed, part, source), image.Treatment, placed);
    }

    /// <summary>Counts a showing; after the last the image is given up.</summary>
    public void Shown(SceneImage image)
    {
        if (--_usesLeft[image.Source.Id] > 0) return;
        foreach (var key in _kept.Keys.Where(k => k.Id == image.Source.Id).ToList())
            if (_kept.Remove(key, out var done)) done.Dispose();
    }

    public void Dispose()
    {
        foreach (var drawable in _kept.Values) drawable.Dispose();
    }
}
