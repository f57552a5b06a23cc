using Formatum.Core.Publications;

namespace Formatum.Core.Checking;

/// <summary>One kind of finding: what it looks at, its figures, its words and its remedies.</summary>
public abstract class KindCheck
{
    public abstract FindingKind Kind { get; }

    /// <summary>What it is called: "Below the least resolution".</summary>
    public abstract string Title { get; }

    /// <summary>The same in a word or two, as it is written at its place: "coarse".</summary>
    public abstract string Mark { get; }

    /// <summary>Why it matters, in a sentence.</summary>
    public abstract string Why { get; }

    /// <summary>What is seen on a frame by itself.</summary>
    internal virtual IEnumerable<Finding> OfFrame(CheckedFrame frame) => [];

    /// <summary>What is seen on text as it is set in a frame.</summary>
    internal virtual IEnumerable<Finding> OfText(CheckedText text) => [];

    /// <summary>What is seen on a spread.</summary>
    internal virtual IEnumerable<Finding> OfSpread(CheckedSpread spread) => [];

    /// <summary>What is seen on the publication as a whole.</summary>
    internal virtual IEnumerable<Finding> OfWhole(CheckedWhole whole) => [];

    /// <summary>The ways to mend it, the likeliest first; none where it has to be done by hand.</summary>
    public virtual IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) => [];

    protected Finding On(PartKey part, string subject, string detail, double badness, params IEnumerable<Figure> figures) =>
        new(Kind, part, subject, detail, badness) { Figures = [.. figures] };

    private protected Finding On(CheckedFrame frame, string detail, double badness, params IEnumerable<Figure> figures) =>
        On(frame.Frame.Key, frame.Frame.Label, detail, badness, figures) with { Places = [frame.Place] };

    private protected Finding On(CheckedText text, string detail, double badness, params IEnumerable<Figure> figures) =>
        On(text.Frame.Key, text.Frame.Label, detail, badness, figures) with { Places = [text.Place] };

    /// <summary>The frame that a finding lies on.</summary>
    protected static Frame? FrameOf(Publication publication, Finding finding) => publication.Frames.GetValueOrDefault(finding.Part.Id);
}
