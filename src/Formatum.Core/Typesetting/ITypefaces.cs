using System.Collections.Immutable;
using Formatum.Core.Stories;

namespace Formatum.Core.Typesetting;

/// <summary>The fonts text is set in.</summary>
public interface ITypefaces
{
    /// <summary>How far a style's face reaches above and below the baseline, in points; both above 0.</summary>
    (double Ascent, double Descent) ReachOf(TextStyle style);

    /// <summary>The glyphs that show a text on one line, in the order they stand in.</summary>
    ImmutableArray<Glyph> Shape(string text, TextStyle style);
}

/// <summary>A glyph on its line.</summary>
/// <param name="Id">Which of its face; 0 where the face has none for the character.</param>
/// <param name="Cluster">The first UTF-16 unit of the text that it shows.</param>
/// <param name="Advance">How far the next glyph stands from it, in points.</param>
/// <param name="OffsetX">How far it is drawn from where it stands, in points to the right.</param>
/// <param name="OffsetY">How far it is drawn from where it stands, in points downwards.</param>
public readonly record struct Glyph(ushort Id, int Cluster, double Advance, double OffsetX, double OffsetY);
