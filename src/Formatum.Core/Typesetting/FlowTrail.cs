using System.Collections.Immutable;
using Formatum.Core.Stories;

namespace Formatum.Core.Typesetting;

/// <summary>
/// How a text was set the last time, paragraph by paragraph: set again after a change, it is as before up to where it changed, and from where it comes to the
/// same place as before.
/// </summary>
/// <param name="Text">The text.</param>
/// <param name="Chain">The frames it was set in.</param>
/// <param name="Steps">Where each paragraph began; fewer where no room was left.</param>
/// <param name="Lines">All lines, each with its column.</param>
internal sealed record FlowTrail(StyledText Text, ImmutableArray<TextShape> Chain, FlowTrail.Step?[] Steps, List<(int Place, SetLine Line)> Lines)
{
    /// <summary>A paragraph on its way.</summary>
    /// <param name="Place">The column it began in.</param>
    /// <param name="Top">How far down.</param>
    /// <param name="Lines">How many lines there were before it.</param>
    /// <param name="Starts">Whether what comes before and after it had no part in where it begins.</param>
    /// <param name="SetUpTo">How much of it found room.</param>
    public sealed record Step(int Place, double Top, int Lines, bool Starts, int SetUpTo);

    /// <summary>How many paragraphs are the same from the beginning, and from the end.</summary>
    public (int Before, int Behind) SameAs(StyledText text)
    {
        ImmutableArray<StyledParagraph> was = Text.Paragraphs, now = text.Paragraphs;
        int least = Math.Min(was.Length, now.Length), before = 0, behind = 0;
        while (before < least && was[before] == now[before]) before++;
        while (behind < least - before && was[^(behind + 1)] == now[^(behind + 1)]) behind++;
        return (before, behind);
    }

    /// <summary>The paragraph, of the first so many, from which it can be set on without what stands before it; 0 for none.</summary>
    public int ResumeAt(int same)
    {
        for (int p = Math.Min(same, Steps.Length - 1); p > 0; p--)
            if (Steps[p] is { Starts: true }) return p;
        return 0;
    }
}
