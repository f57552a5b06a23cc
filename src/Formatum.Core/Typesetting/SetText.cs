using System.Collections.Immutable;
using Formatum.Core.Colours;
using Formatum.Core.Stories;

namespace Formatum.Core.Typesetting;

/// <summary>Characters of a line that are set alike and stand together.</summary>
/// <param name="Text">What they show.</param>
/// <param name="Start">Where they begin in the paragraph, in UTF-16 units.</param>
/// <param name="Style">How they are set.</param>
/// <param name="X">Where they begin, in points from the left of the frame.</param>
/// <param name="Glyphs">Their glyphs; the advances have all widening in them.</param>
public sealed record SetRun(string Text, int Start, TextStyle Style, double X, ImmutableArray<Glyph> Glyphs)
{
    /// <summary>The size they are drawn in, in points.</summary>
    public double Size { get; init; } = Style.Size;

    /// <summary>How far above the line's baseline they stand, in points.</summary>
    public double Raise { get; init; }

    /// <summary>Whether they run from right to left: their first character stands at the right.</summary>
    public bool RightToLeft { get; init; }

    /// <summary>Whether they were typed; else they mark a list or lead to a tab stop.</summary>
    public bool IsTyped { get; init; } = true;

    public double Width => MeasuredParagraph.Width(Glyphs);
}

/// <summary>A stroke that goes with a line: under or through characters, or above or below a paragraph.</summary>
/// <param name="X">Where it begins, in points from the left of the frame.</param>
/// <param name="Width">How long it is, in points.</param>
/// <param name="Below">Where its middle lies, in points below the line's baseline.</param>
/// <param name="Thickness">In points.</param>
/// <param name="Ink">Its colour.</param>
public readonly record struct TextStroke(double X, double Width, double Below, double Thickness, Colour Ink);

/// <summary>A line of set text, or the piece of one that stands to one side of something it keeps clear of.</summary>
/// <param name="Text">What it shows, without the blanks that hang over its end.</param>
/// <param name="Start">Where it begins in the paragraph, in UTF-16 units.</param>
/// <param name="Paragraph">Which paragraph, from 0.</param>
/// <param name="X">Where it begins, in points from the left of the frame.</param>
/// <param name="Baseline">Its baseline, in points from the top of the frame.</param>
/// <param name="Width">How wide it is, in points.</param>
/// <param name="Blank">What each blank is widened by to fill the line, in points.</param>
/// <param name="Runs">What it is made of, from left to right; with the label of a list and the leaders of tabs.</param>
public sealed record SetLine(string Text, int Start, int Paragraph, double X, double Baseline, double Width, double Blank, ImmutableArray<SetRun> Runs)
{
    /// <summary>Which column it stands in, from 0.</summary>
    public int Column { get; init; }

    /// <summary>Where its band ends, in points from the top of the frame.</summary>
    public double Bottom { get; init; }

    /// <summary>How high its band is, in points.</summary>
    public double Height { get; init; }

    /// <summary>Whether it ends in a hyphen that stands there only because a word is divided.</summary>
    public bool Hyphened { get; init; }

    /// <summary>Where in the paragraph what it shows ends, without that hyphen and the blanks that hang over.</summary>
    public int Shown => Start + Text.Length - (Hyphened ? 1 : 0);

    /// <summary>Where it ends in the paragraph, with the blanks that hang over.</summary>
    public int End { get; init; }

    /// <summary>How far behind its end the blanks that hang over would reach, one after the other.</summary>
    public ImmutableArray<double> Hanging { get; init; } = [];

    public ImmutableArray<TextStroke> Strokes { get; init; } = [];

    public IEnumerable<Glyph> Glyphs => Runs.SelectMany(r => r.Glyphs);
}

/// <summary>Text as it stands in a frame.</summary>
/// <param name="Lines">The lines that fit.</param>
/// <param name="LeftOut">How many characters do not fit in.</param>
/// <param name="Missing">How many characters the fonts have no glyph for.</param>
/// <param name="WordsLeftOver">How many words do not fit in.</param>
public sealed record SetText(ImmutableArray<SetLine> Lines, int LeftOut, int Missing, int WordsLeftOver = 0)
{
    public bool Overflows => LeftOut > 0;
}
