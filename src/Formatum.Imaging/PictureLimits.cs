namespace Formatum.Imaging;

/// <summary>How large a picture may be before it is refused unread.</summary>
/// <param name="MostBytes">Largest file, in bytes.</param>
/// <param name="MostPixels">Largest area, in pixels: what is larger would not fit in memory when a program has to decode it whole.</param>
public sealed record PictureLimits(long MostBytes = 256L << 20, long MostPixels = 250_000_000)
{
    /// <summary>A drawing is text that has to be read whole.</summary>
    public const long MostSvgBytes = 16L << 20;
}
