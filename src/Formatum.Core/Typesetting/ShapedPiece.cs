using System.Collections.Immutable;
using System.Runtime.InteropServices;

namespace Formatum.Core.Typesetting;

/// <summary>A piece of a paragraph that is set alike and runs from left to right, as it is shaped where no line parts it.</summary>
/// <param name="From">Where it begins in the paragraph, in UTF-16 units.</param>
/// <param name="To">Where it ends.</param>
/// <param name="Glyphs">Its glyphs; their clusters count from where it begins.</param>
internal readonly record struct ShapedPiece(int From, int To, ImmutableArray<Glyph> Glyphs)
{
    /// <summary>The glyphs of a part of it, where they are the same as if it were shaped alone (<see cref="Glyph.IsBound"/>); else null.</summary>
    /// <param name="from">Where the part begins in the paragraph.</param>
    /// <param name="to">Where it ends.</param>
    public ImmutableArray<Glyph>? CutOut(int from, int to)
    {
        if (IndexOf(from) is not { } first || IndexOf(to) is not { } end) return null;
        if (from == From) return end == Glyphs.Length ? Glyphs : Glyphs[..end];
        var glyphs = Glyphs[first..end].ToArray();
        foreach (ref var glyph in glyphs.AsSpan()) glyph = glyph with { Cluster = glyph.Cluster - (from - From) };
        return ImmutableCollectionsMarshal.AsImmutableArray(glyphs);
    }

    /// <summary>Which glyph begins at a place, or how many there are where that is its end; null where the text cannot be parted there as it is.</summary>
    private int? IndexOf(int at)
    {
        if (at == From) return 0;
        if (at == To) return Glyphs.Length;
        int low = 0, high = Glyphs.Length;
        while (low < high)
        {
            int middle = (low + high) / 2;
            if (Glyphs[middle].Cluster < at - From) low = middle + 1;
            else high = middle;
        }
        return low < Glyphs.Length && Glyphs[low].Cluster == at - From && !Glyphs[low].IsBound ? low : null;
    }
}
