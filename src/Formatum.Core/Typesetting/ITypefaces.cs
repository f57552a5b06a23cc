using System.Collections.Immutable;
using Formatum.Core.Stories;

namespace Formatum.Core.Typesetting;

/// <summary>The fonts text is set in.</summary>
public interface ITypefaces
{
    /// <summary>How far a style's face reaches above and below the baseline in the style's full size, in points; both above 0.</summary>
    (double Ascent, double Descent) ReachOf(TextStyle style);

    /// <summary>What else the face says of how it is drawn in a style.</summary>
    FaceMeasures MeasuresOf(TextStyle style);

    /// <summary>Whether the style's face has a glyph for a code point.</summary>
    bool Has(TextStyle style, int codePoint);

    /// <summary>The glyphs that show a text on one line, in the order they stand in, with the style's tracking between them.</summary>
    /// <param name="text">The text, all of one direction.</param>
    /// <param name="style">How it is set.</param>
    /// <param name="rightToLeft">Whether it runs from right to left; its last character then stands first.</param>
    ImmutableArray<Glyph> Shape(string text, TextStyle style, bool rightToLeft = false);
}

/// <summary>How a face is drawn in a style, in points.</summary>
/// <param name="Size">Its size: smaller than the style's where characters are raised or lowered.</param>
/// <param name="Raise">How far above the baseline it stands.</param>
/// <param name="UnderlineAt">Where the middle of an underline lies, below the baseline it stands on.</param>
/// <param name="StrikeAt">Where the middle of a stroke through characters lies, above the baseline they stand on.</param>
/// <param name="Thickness">Of both.</param>
/// <param name="CapHeight">How high its capitals are.</param>
public readonly record struct FaceMeasures(double Size, double Raise, double UnderlineAt, double StrikeAt, double Thickness, double CapHeight);

/// <summary>A glyph on its line.</summary>
/// <param name="Id">Which of its face; 0 where the face has none for the character.</param>
/// <param name="Cluster">The first UTF-16 unit of the text that it shows.</param>
/// <param name="Advance">How far the next glyph stands from it, in points.</param>
/// <param name="OffsetX">How far it is drawn from where it stands, in points to the right.</param>
/// <param name="OffsetY">How far it is drawn from where it stands, in points downwards.</param>
public readonly record struct Glyph(ushort Id, int Cluster, double Advance, double OffsetX, double OffsetY)
{
    /// <summary>Whether text that is parted before it may show otherwise on either side, as letters that join or are kerned do.</summary>
    public bool IsBound { get; init; }
}
