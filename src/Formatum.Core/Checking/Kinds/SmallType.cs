using Formatum.Core.Edits;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class SmallType : KindCheck
{
    private const double Hair = 1e-6;

    public override FindingKind Kind => FindingKind.SmallType;
    public override string Title => "Type too small";
    public override string Mark => "small type";
    public override string Why => "Letters this small fill up in print, and few people read them.";

    internal override IEnumerable<Finding> OfText(CheckedText text)
    {
        if (text.Runs.Select(r => r.Style.Size).DefaultIfEmpty(double.PositiveInfinity).Min() is var size && size < text.Profile.SmallestType - Hair)
            yield return On(text, "", text.Profile.SmallestType / size, new Figure("Size", size, text.Profile.SmallestType, FigureUnit.TypeSize));
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) =>
    [
        new("larger", "Set it larger", publication => FrameOf(publication, finding) is { } frame && publication.StoryOf(frame) is { } story
            ? new ChangeStory(story.Id, null, TextRoom.Sized(publication, story, style => Math.Max(style.Size, context.Profile.SmallestType))) : null),
    ];
}
