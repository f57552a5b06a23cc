using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Web.Desk.Commands;

/// <summary>The subject point of an image is set, accepted or cleared.</summary>
public abstract record SubjectGesture : Gesture
{
    public int? Image { get; init; }

    protected abstract SubjectOf Changed(LinkedImage image);

    public sealed override Edit ToEdit(Ground ground) => new ChangeSubjects([Changed(ground.Image(Image))]);
}

public sealed record SetSubject : SubjectGesture
{
    /// <summary>In shares of the image.</summary>
    public double? PointX { get; init; }
    public double? PointY { get; init; }

    protected override SubjectOf Changed(LinkedImage image) => PointX is { } x && PointY is { } y ? new(image.Id, new Vec(x, y), null)
        : throw new EditRefused("subject", "Click on the picture where its subject is.");
}

public sealed record AcceptSubject : SubjectGesture
{
    protected override SubjectOf Changed(LinkedImage image) =>
        new(image.Id, image.SuggestedSubject ?? throw new EditRefused("subject", "There is no suggestion to accept."), null);
}

public sealed record DismissSubject : SubjectGesture
{
    protected override SubjectOf Changed(LinkedImage image) => new(image.Id, image.Subject, null);
}

public sealed record ClearSubject : SubjectGesture
{
    protected override SubjectOf Changed(LinkedImage image) => new(image.Id, null, image.SuggestedSubject);
}

public sealed record AcceptAllSubjects : Gesture
{
    public override Edit ToEdit(Ground ground)
    {
        ImmutableArray<SubjectOf> open = [.. ground.Publication.Images.Values.Where(i => i.Subject is null && i.SuggestedSubject is not null)
            .OrderBy(i => i.Id).Select(i => new SubjectOf(i.Id, i.SuggestedSubject, null))];
        return open.IsEmpty ? throw new EditRefused("image", "There are no suggestions to accept.") : new ChangeSubjects(open);
    }
}
