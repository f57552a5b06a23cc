using System.Collections.Immutable;
using Formatum.Core.Geometry;

namespace Formatum.Core.Comparing;

/// <summary>A word as it stands on a page.</summary>
/// <param name="Text">What it says.</param>
/// <param name="Box">Around it.</param>
public readonly record struct PlacedWord(string Text, Box Box);

/// <summary>A picture as it stands on a page.</summary>
/// <param name="Box">Around it, also where an outline shows less of it.</param>
/// <param name="Greys">Its greys, 0 to 255, in 8 rows of 8, by which it is known again; empty where its pixels cannot be read.</param>
public sealed record PlacedPicture(Box Box, ImmutableArray<byte> Greys);

/// <summary>What is on a page of a finished file. Boxes in points from the upper left of its trim.</summary>
/// <param name="Width">Of its trim, in points.</param>
/// <param name="Height">Of its trim, in points.</param>
/// <param name="Words">In the order in which they are set.</param>
/// <param name="Pictures">In the order in which they are drawn.</param>
/// <param name="Drawn">Boxes around lines and areas that are drawn.</param>
public sealed record PageContents(double Width, double Height, ImmutableArray<PlacedWord> Words, ImmutableArray<PlacedPicture> Pictures,
    ImmutableArray<Box> Drawn)
{
    /// <summary>Whether it is of the same size as another.</summary>
    public bool IsSizedAs(PageContents other) => Math.Abs(Width - other.Width) < 1 && Math.Abs(Height - other.Height) < 1;
}
