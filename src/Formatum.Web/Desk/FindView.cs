using Formatum.Core.Publications;

namespace Formatum.Web.Desk;

/// <summary>What is looked for, and what was found.</summary>
/// <param name="PublicationId">The publication.</param>
/// <param name="Publication">As it is.</param>
/// <param name="Seen">The revision that was looked at.</param>
/// <param name="Find">What to find.</param>
/// <param name="FrameId">The text frame that is chosen; null for none.</param>
/// <param name="Found">What was found; null where nothing is looked for yet.</param>
public sealed record FindView(int PublicationId, Publication Publication, long Seen, string Find, int? FrameId, WordsFound? Found);

/// <summary>The form of a search.</summary>
public sealed record FindForm
{
    public string? Find { get; init; }
    public string? With { get; init; }
    public bool MatchCase { get; init; }
    public bool WholeWords { get; init; }
    public int? Frame { get; init; }
    public int? Style { get; init; }

    public Core.Stories.WordSearch Search => new(Find ?? "", MatchCase, WholeWords, Style);
}
