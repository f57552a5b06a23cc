using System.Collections.Immutable;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Settings;

namespace Formatum.Core.Checking.Kinds;

internal sealed class ThinLine : KindCheck
{
    private const double Hair = 1e-6;

    public override FindingKind Kind => FindingKind.ThinLine;
    public override string Title => "Line too thin";
    public override string Mark => "thin line";
    public override string Why => "A line this thin breaks up or vanishes in print.";

    internal override IEnumerable<Finding> OfFrame(CheckedFrame frame)
    {
        if (frame.Look.Border is { } border && border.Stripes().Min(s => s.Width) is var width && width < frame.Profile.ThinnestLine - Hair)
            yield return Thin(frame.Profile, width, figure => On(frame, "A line of its border.", frame.Profile.ThinnestLine / width, figure));
    }

    internal override IEnumerable<Finding> OfText(CheckedText text)
    {
        double thinnest = text.Profile.ThinnestLine;
        var lines = text.Runs.Select(r => r.Style).Distinct().SelectMany(s => new[] { s.LineAbove, s.LineBelow }).Where(w => w > 0 && w < thinnest - Hair);
        if (lines.DefaultIfEmpty().Min() is var width and > 0)
            yield return Thin(text.Profile, width, figure => On(text, "A line above or below a paragraph.", thinnest / width, figure));
    }

    private static Finding Thin(CheckProfile profile, double width, Func<Figure, Finding> on) =>
        on(new("Thickness", width, profile.ThinnestLine, FigureUnit.TypeSize));

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) =>
        [new("thicken", "Thicken the line", publication => Thickened(publication, finding.Part.Id, context.Profile.ThinnestLine))];

    private static Together? Thickened(Publication publication, int frameId, double thinnest)
    {
        if (publication.Frames.GetValueOrDefault(frameId) is not { } frame) return null;
        ImmutableArray<Edit>.Builder edits = ImmutableArray.CreateBuilder<Edit>();
        if (publication.LookOf(frame).Border is { } border && border.Stripes().Min(s => s.Width) < thinnest - Hair)
            edits.Add(new GiveLook([frameId], frame.Look with { Border = new Given<Border>(Thickened(border, thinnest)) }, frame.LookId));
        if (publication.StoryOf(frame) is { } story)
        {
            double? At(double? width) => width is > 0 && width < thinnest - Hair ? thinnest : null;
            var text = story.Text.Restyled(p =>
            {
                var style = TextCascade.StyleOf(publication, p);
                return p with { Set = p.Set with { LineAbove = At(style.LineAbove) ?? p.Set.LineAbove, LineBelow = At(style.LineBelow) ?? p.Set.LineBelow } };
            }, r => r);
            if (text != story.Text) edits.Add(new ChangeStory(story.Id, null, text));
        }
        return edits.Count == 0 ? null : new Together(edits.ToImmutable(), "Thicken line");
    }

    /// <summary>Each line as thick as the thinnest at least, whatever the kind makes of its width.</summary>
    private static Border Thickened(Border border, double thinnest)
    {
        double first = border.Stripes().Where(s => s.IsFirst).Min(s => s.Width);
        BorderLine? Line(BorderLine? line) => line is { } l ? l with { Width = Math.Max(l.Width, thinnest) } : null;
        return border with
        {
            Width = first < thinnest ? border.Width * thinnest / first : border.Width,
            Second = Line(border.Second),
            Third = Line(border.Third),
        };
    }
}
