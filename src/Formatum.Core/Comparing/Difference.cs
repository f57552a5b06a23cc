using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Comparing;

/// <summary>What became of something.</summary>
public enum DifferenceKind
{
    PageCame, PageWent, PageMoved, FrameCame, FrameWent, Moved, Sized, Turned, Outline, Picture, Crop, Words, Setting, Look, Hidden, SetUp, Drawn,
}

/// <summary>Where something is, on a page.</summary>
/// <param name="PageId">The page.</param>
/// <param name="Box">The upright box around it, in points from the upper left of the page's trim.</param>
public readonly record struct ComparedPlace(int PageId, Box Box);

/// <summary>Something that is otherwise in one publication than in another.</summary>
/// <param name="Kind">What became of it.</param>
/// <param name="Part">What it is.</param>
/// <param name="Subject">What that is called.</param>
/// <param name="Detail">How it differs, in words; empty where the kind says all.</param>
/// <param name="Before">Where it was; null where it was not, or has no place.</param>
/// <param name="After">Where it is; null where it is no more, or has no place.</param>
public sealed record Difference(DifferenceKind Kind, PartKey Part, string Subject, string Detail, ComparedPlace? Before, ComparedPlace? After)
{
    public string Title => DifferenceText.Title(Kind);
}
