using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class BlackOfManyInks : KindCheck
{
    /// <summary>From this size on, in points, the plates being off by a hair does not show. Common practice, no source.</summary>
    private const double LargeType = 24;

    /// <summary>From this much black ink on a colour is read as black. Our own measure, no source.</summary>
    private const double LeastKey = 0.8;

    public override FindingKind Kind => FindingKind.BlackOfManyInks;
    public override string Title => "Black words of several inks";
    public override string Mark => "black of several inks";
    public override string Why => "Where the plates are off by a hair, small letters get coloured rims. Ink black alone stays sharp.";

    internal override IEnumerable<Finding> OfText(CheckedText text)
    {
        var found = text.Runs.Where(r => r.Style.Size < LargeType && Black(r.Style.Ink) is not null).Select(r => r.Style.Ink).Distinct().ToList();
        if (found.Count > 0) yield return On(text, $"Words are set in {string.Join(", ", found.Select(c => c.Text))}.", found.Count);
    }

    /// <summary>The black ink alone that a colour is meant for; null where it is that already, or no black. Light without a colour is printed in it
    /// anyway.</summary>
    private static CmykColour? Black(Colour ink) => ink is CmykColour { Key: >= LeastKey } four && four.Cyan + four.Magenta + four.Yellow > 0
        ? new CmykColour(0, 0, 0, 1) : null;

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) =>
    [
        new("inkBlack", "Take ink black", publication => FrameOf(publication, finding) is { } frame && publication.StoryOf(frame) is { } story
            ? Recolouring.OfStory(publication, story, style => style.Size < LargeType ? Black(style.Ink) : null) : null),
    ];
}
