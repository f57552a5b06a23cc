using Formatum.Core.Checks;
using Formatum.Core.Geometry;

namespace Formatum.Core.Publications;

/// <summary>What stands around a page for whoever prints and cuts it.</summary>
public sealed record PrintMarks
{
    public static readonly PrintMarks None = new();

    public static readonly PrintMarks CropMarks = new() { Crop = true };

    /// <summary>Lines at the corners, where the page is cut.</summary>
    public bool Crop { get; init; }

    /// <summary>Crossed circles at the middle of each side, by which plates are laid over each other.</summary>
    public bool Registration { get; init; }

    /// <summary>Patches of each ink, by which the press is set.</summary>
    public bool Bars { get; init; }

    /// <summary>A line that says what this is.</summary>
    public bool Information { get; init; }

    /// <summary>Dashed lines where a spread is folded.</summary>
    public bool Fold { get; init; }

    /// <summary>How far from the trim marks begin, in points; they begin no nearer than the bleed ends. 2 mm is common practice, no source.</summary>
    public double Offset { get; init; } = Units.Millimetres(2);

    /// <summary>Farther from the trim no marks begin, in points.</summary>
    public static readonly double Farthest = Units.Millimetres(50);

    public bool Any => Crop || Registration || Bars || Information || Fold;

    public void Check(FieldErrors errors) => errors.Length("marks.offset", Offset, 0, Farthest, "Marks begin from 0 to 50 mm from the trim.");
}
