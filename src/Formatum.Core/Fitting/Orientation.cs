using Formatum.Core.Geometry;

namespace Formatum.Core.Fitting;

/// <summary>
/// The EXIF orientation tag (EXIF 2.3, tag 274): where the stored picture's first row and first column lie when it is seen upright.
/// 1 top/left, 2 top/right, 3 bottom/right, 4 bottom/left, 5 left/top, 6 right/top, 7 right/bottom, 8 left/bottom.
/// </summary>
public static class Orientation
{
    public static bool IsValid(int orientation) => orientation is >= 1 and <= 8;

    public static bool SwapsAxes(int orientation) => orientation is >= 5 and <= 8;

    /// <summary>Takes the unit square of the stored picture to the unit square of the upright one.</summary>
    public static Affine ToUpright(int orientation) => orientation switch
    {
        2 => new(-1, 0, 0, 1, 1, 0),
        3 => new(-1, 0, 0, -1, 1, 1),
        4 => new(1, 0, 0, -1, 0, 1),
        5 => new(0, 1, 1, 0, 0, 0),
        6 => new(0, 1, -1, 0, 1, 0),
        7 => new(0, -1, -1, 0, 1, 1),
        8 => new(0, -1, 1, 0, 0, 1),
        _ => Affine.Identity,
    };
}
