using Formatum.Core.Checks;
using Formatum.Core.Geometry;

namespace Formatum.Core.Fitting;

/// <summary>The ranges fitting settings must keep to.</summary>
public static class FitSettingsCheck
{
    /// <summary>The largest inset either way, in points: the largest page side a PDF can have.</summary>
    public const double LargestInset = Limits.LargestPageSide;

    public static void Check(FitSettings settings, FieldErrors errors, string prefix = "")
    {
        errors.Range(prefix + "align", settings.AlignX, 0, 1, "An alignment runs from 0 (left) to 1 (right).");
        errors.Range(prefix + "align", settings.AlignY, 0, 1, "An alignment runs from 0 (top) to 1 (bottom).");
        foreach (var (side, value) in new[]
                 {
                     ("top", settings.InsetTop), ("right", settings.InsetRight), ("bottom", settings.InsetBottom), ("left", settings.InsetLeft),
                 })
        {
            errors.Range($"{prefix}inset.{side}", value, -LargestInset, LargestInset, "An inset may be 5080 mm at most, inwards or outwards.");
        }
        errors.Range(prefix + "rotation", settings.Rotation, -3600, 3600, "Give the rotation in degrees, between -3600 and 3600.");
        errors.Range(prefix + "smallestPpi", settings.SmallestPpi, 0, 100_000, "Give a resolution between 0 (no limit) and 100,000 ppi.");
        errors.Range(prefix + "largestEnlargement", settings.LargestEnlargement, 0, 1000, "Give a scale between 0 (no limit) and 1000; 1 is natural size.");
        errors.Range(prefix + "largestCrop", settings.LargestCrop, 0, 1, "The largest crop is a share of the image between 0 and 1.");
    }
}
