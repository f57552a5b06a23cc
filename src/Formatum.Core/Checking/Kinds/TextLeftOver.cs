using Formatum.Core.Edits;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class TextLeftOver : KindCheck
{
    public override FindingKind Kind => FindingKind.TextLeftOver;
    public override string Title => "Text left over";
    public override string Mark => "left over";
    public override string Why => "Words that do not fit are not printed.";

    internal override IEnumerable<Finding> OfText(CheckedText text)
    {
        if (!text.IsLast || !text.Set.Overflows) yield break;
        yield return On(text, "", text.Set.LeftOut, new Figure("Left over", text.Set.WordsLeftOver, 0, FigureUnit.Words));
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding)
    {
        var publication = context.Publication;
        if (FrameOf(publication, finding) is not { StoryId: { } storyId } frame) yield break;
        if (TextRoom.NextEmpty(publication, frame) is { } next)
            yield return new("runOn", $"Run on into {next.Label}", p => FrameOf(p, finding) is { } from && TextRoom.NextEmpty(p, from) is { } into
                ? new RunOn(from.Id, into.Id) : null);
        if (TextRoom.CanBeSmaller(publication, storyId, context.Profile.SmallestType, context.Typefaces))
            yield return new("setSmaller", "Set it smaller", p => TextRoom.Smaller(p, storyId, context.Profile.SmallestType, context.Typefaces));
        if (publication.Order.IndexOf(frame.PageId) >= 0)
            yield return new("addPages", "Add pages until it ends", p => FrameOf(p, finding) is { } from
                ? TextRoom.UntilItEnds(p, from, context.Typefaces) : null);
    }
}
