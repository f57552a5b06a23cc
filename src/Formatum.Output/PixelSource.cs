using Formatum.Core.Publications;
using Formatum.Imaging;

namespace Formatum.Output;

/// <summary>Where outputs have the pixels of pictures from.</summary>
/// <param name="StandIns">Previews to show for missing files; null where a missing file is an error.</param>
/// <param name="Reader">What reads the others; null for this process.</param>
public sealed record PixelSource(PreviewStore? StandIns = null, IPixelReader? Reader = null)
{
    /// <summary>Whether previews serve in the place of files wherever they are fine enough: for what is looked at or measured, and goes nowhere.</summary>
    public bool PreviewsServe { get; init; }

    /// <summary>The press whose inks pictures in inks show, where they are turned into light; null for the general one.</summary>
    public ColourProfile? Press { get; init; }

    /// <summary>The preview of a picture, as the press prints it; null where there is none.</summary>
    internal string? Preview(LinkedImage image, int size) => StandIns?.Find(image, size, Press);

    /// <summary>Pictures read in this process, and none shown for one that is missing.</summary>
    public static PixelSource Plain { get; } = new();
}
